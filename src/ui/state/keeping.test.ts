import { expect, test, vi } from "vitest";

test("forgetting waits for what is being put by, tells it, and lets nothing be put by after it", async () => {
  vi.resetModules();
  const { endKeeping, keepBy } = await import("./keeping");
  const kept: string[] = [];
  let release = (): void => undefined;
  const held = new Promise<void>((go) => {
    release = go;
  });
  const first = keepBy(async (may) => {
    await held;
    if (may()) kept.push("page");
    else kept.push("taken back");
  });
  const ended = endKeeping().then(() => kept.push("forgotten"));
  await keepBy(async () => void kept.push("late"));
  release();
  await Promise.all([first, ended]);
  expect(kept).toEqual(["taken back", "forgotten"]);
});

test("work that fails does not keep forgetting waiting", async () => {
  vi.resetModules();
  const { endKeeping, keepBy } = await import("./keeping");
  await expect(keepBy(() => Promise.reject(new Error("no storage")))).rejects.toThrow("no storage");
  await expect(endKeeping()).resolves.toBeDefined();
});
