import { expect, test } from "vitest";
import { inTurn, turnOf } from "./in-turn";

const later = (): { readonly done: Promise<void>; readonly end: () => void } => {
  let end = (): void => undefined;
  const done = new Promise<void>((resolve) => {
    end = resolve;
  });
  return { done, end };
};

test("edits of one job wait for one another, whatever becomes of them; those of another do not", async () => {
  const [a, b] = [later(), later()];
  const began: string[] = [];
  const make = (key: string, name: string, wait: Promise<void>, fails = false) =>
    inTurn(key, async () => {
      began.push(name);
      await wait;
      if (fails) throw new Error(name);
      return name;
    });
  const first = make("one", "first", a.done, true);
  const second = make("one", "second", b.done);
  const third = make("one", "third", Promise.resolve());
  const beside = make("two", "beside", Promise.resolve());
  expect(await beside).toBe("beside");
  expect(began).toEqual(["first", "beside"]);
  a.end();
  await expect(first).rejects.toThrow("first");
  await Promise.resolve();
  expect(began).toEqual(["first", "beside", "second"]);
  b.end();
  expect(await Promise.all([second, third])).toEqual(["second", "third"]);
});

test("when too many wait the next is told so at once, and none of those that wait is lost", async () => {
  const hold = later();
  const all = Array.from({ length: 200 }, (_, i) => inTurn("full", () => hold.done.then(() => i)));
  await expect(inTurn("full", () => Promise.resolve(0))).rejects.toMatchObject({ code: "busy" });
  hold.end();
  expect(await Promise.all(all)).toEqual(Array.from({ length: 200 }, (_, i) => i));
  expect(await inTurn("full", () => Promise.resolve("again"))).toBe("again");
});

test("the job of an address, however it is written", () => {
  expect(turnOf("/api/jobs/0A1b/sites/5")).toBe("0a1b");
  expect(turnOf("/api/jobs/0A1b")).toBe("0a1b");
  expect([turnOf("/api/jobs"), turnOf("/api/hardware/radios/5"), turnOf("/api/me")]).toEqual([null, null, null]);
});
