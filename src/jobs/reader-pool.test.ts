import { mkdtempSync, rmSync, writeFileSync } from "node:fs";
import { tmpdir } from "node:os";
import path from "node:path";
import { afterAll, beforeAll, describe, expect, test } from "vitest";
import { FileFault } from "../formats";
import { createReaders, MEGABYTES, type ReaderEnded, type ReaderPool } from "./reader-pool";

/* Real readers, ended from outside. */
const ENTRY = path.resolve("build/reader.mjs");
const LIMITS = { timeMs: 60_000, memoryBytes: MEGABYTES(900) };
const question = { epsg: null };
let dir: string;
let pool: ReaderPool;
beforeAll(() => {
  dir = mkdtempSync(path.join(tmpdir(), "dry-arc-readers-"));
  pool = createReaders({ entry: ENTRY, most: 2, heapMb: 128, idleMs: 60_000, mostWaiting: 3 });
});
afterAll(() => {
  pool.close();
  rmSync(dir, { recursive: true, force: true });
});
const put = (name: string, content: string): string => {
  const file = path.join(dir, name);
  writeFileSync(file, content);
  return file;
};
const look = (file: string, more: Partial<typeof LIMITS & { quietMs: number }> = {}, signal?: AbortSignal) =>
  pool.run("preview", { path: file, name: path.basename(file), question, known: [] }, { ...LIMITS, ...more }, signal);
const ended = (why: ReaderEnded["why"]) => expect.objectContaining({ name: "ReaderEnded", why });

describe("readers", () => {
  test("answer, and throw what the file's reader threw, as what it is", async () => {
    expect(await look(put("a.csv", "name,lat,lon\na,47,-19\n"))).toMatchObject({ kind: "places", seen: 1 });
    await expect(look(put("a.tif", "II"))).rejects.toBeInstanceOf(FileFault);
    // One process did both.
    expect(pool.pids()).toHaveLength(1);
  });

  test("are ended when they take too long, too much, say nothing for too long, or nobody waits for them; the next goes on", async () => {
    const slow = put("slow.csv", `name,lat,lon\n${Array.from({ length: 400_000 }, (_, i) => `${i},97,-19`).join("\n")}`);
    const before = pool.pids();
    await expect(look(slow, { timeMs: 1 })).rejects.toEqual(ended("time"));
    await expect(look(slow, { quietMs: 1 })).rejects.toEqual(ended("time"));
    await expect(look(slow, { memoryBytes: MEGABYTES(20) })).rejects.toEqual(ended("memory"));
    const leaving = new AbortController();
    const left = look(slow, {}, leaving.signal);
    leaving.abort();
    await expect(left).rejects.toEqual(ended("left"));
    expect(await look(put("b.csv", "name,lat,lon\na,47,-19\n"))).toMatchObject({ seen: 1 });
    expect(pool.pids().some((p) => before.includes(p))).toBe(false);
  });

  test("that run out of their heap are said to have taken too much memory", async () => {
    const small = createReaders({ entry: ENTRY, most: 1, heapMb: 12, idleMs: 1000 });
    try {
      const task = { path: path.join(dir, "slow.csv"), name: "slow.csv", question, known: [] };
      await expect(small.run("preview", task, LIMITS)).rejects.toEqual(ended("memory"));
    } finally {
      small.close();
    }
  });

  test("that are killed say so, and more than may wait are told to come again", async () => {
    const slow = path.join(dir, "slow.csv");
    const one = look(slow, { timeMs: 5000 });
    const two = look(slow, { timeMs: 5000 });
    const killed = Promise.allSettled([one, two]);
    const rest = [1, 2, 3].map(() => look(put("c.csv", "name,lat,lon\na,47,-19\n")));
    await expect(look(slow)).rejects.toMatchObject({ code: "busy" });
    for (const pid of pool.pids()) process.kill(pid, "SIGKILL");
    const [a, b] = await killed;
    for (const r of [a, b]) expect(r).toMatchObject({ status: "rejected", reason: ended("died") });
    expect((await Promise.all(rest)).map((r) => (r as { seen: number }).seen)).toEqual([1, 1, 1]);
  });
});

test("a reader whose parent is gone ends, though it is in the middle of something", async () => {
  const { spawn } = await import("node:child_process");
  const script = `
    const { fork } = require("node:child_process");
    const child = fork(${JSON.stringify(ENTRY)}, [], { serialization: "advanced", stdio: ["ignore", "ignore", "ignore", "ipc"] });
    child.on("message", (m) => { if (m.kind === "ready") { child.send({ id: 1, kind: "preview", task: ${JSON.stringify({ path: path.join(dir, "slow.csv"), name: "slow.csv", question, known: [] })} }); console.log(child.pid); } });`;
  const parent = spawn("node", ["-e", script], { stdio: ["ignore", "pipe", "ignore"] });
  const pid = await new Promise<number>((resolve) => parent.stdout.once("data", (d: Buffer) => resolve(Number(d.toString()))));
  parent.kill("SIGKILL");
  const alive = (): boolean => {
    try {
      process.kill(pid, 0);
      return true;
    } catch {
      return false;
    }
  };
  await expect.poll(alive, { timeout: 10_000, interval: 100 }).toBe(false);
});
