/* What a job reserves no other job gets; a tick takes nothing twice; on a real PostgreSQL. */
import { randomUUID } from "node:crypto";
import { expect, test } from "vitest";
import type { PickDto, Reserve } from "../contract";
import { asClient } from "../data/actor";
import { VersionClash } from "../data/clash";
import type { Db } from "../data/client";
import { listParts, saveHardware } from "../data/hardware";
import { undoLast } from "../data/history";
import { edit, listRecords } from "../data/records";
import { testDb } from "../data/testing/db";
import { createJob } from "../data/testing/edits";
import { reserve } from "./reserve";

const [one, two] = [testDb(), testDb()];
const me = <T>(work: () => Promise<T>): Promise<T> => asClient("client-reserve", work);

let made = 0;
const stocked = async (stock: number): Promise<string> => {
  const id = `reserved-${process.pid}-${++made}`;
  await saveHardware(one, {
    parts: [{ id, name: `Held ${made}`, kind: "box", stock } as { id: string; name: string; kind: string }],
    source: "catalogue",
  });
  return id;
};
const stockOf = async (id: string): Promise<number> => ((await listParts(one)).find((p) => p.id === id)!.sheet as { stock: number }).stock;
const line = (partId: string, count: number, more: Partial<Reserve["picks"][number]> = {}) => ({
  id: randomUUID(),
  version: 0,
  name: "x",
  partId,
  count,
  ...more,
});
const picksOf = async (jobId: string) => (await listRecords(one, jobId, "pick")) as unknown as PickDto[];

test("reserved as one step and undone as one; picked, it is taken no second time; given back, it is there again", async () => {
  const [a, b] = [await stocked(3), await stocked(40)];
  const job = await createJob(one, "Reserves");
  await me(() => reserve(one, job.id, { picks: [line(a, 2), line(b, 35.5)] }));
  expect([await stockOf(a), await stockOf(b)]).toEqual([1, 4]);
  await me(() => undoLast(one, job.id));
  expect([await stockOf(a), await stockOf(b)]).toEqual([3, 40]);
  expect(await picksOf(job.id)).toEqual([]);
  const [first] = await me(() => reserve(one, job.id, { picks: [line(a, 2), line(b, 35.5)] }));
  const ticked = await edit(one, job.id, (door) => door.patch("pick", first!.id, first!.version, { state: "picked", count: 2 }));
  expect([await stockOf(a), await stockOf(b)]).toEqual([1, 4]);
  const others = (await picksOf(job.id)).filter((p) => p.id !== first!.id);
  await reserve(one, job.id, { picks: others.map((p) => line(b, 0, { id: p.id, version: p.version })) });
  expect([await stockOf(a), await stockOf(b)]).toEqual([1, 40]);
  await edit(one, job.id, (door) => door.patch("pick", ticked.id, ticked.version, { count: 0 }));
  expect(await stockOf(a)).toBe(3);
});

test("too few of one, or a line picked meanwhile: nothing of it is reserved", async () => {
  const [a, b] = [await stocked(3), await stocked(1)];
  const job = await createJob(one, "Too few");
  await expect(reserve(one, job.id, { picks: [line(a, 2), line(b, 2)] })).rejects.toMatchObject({
    code: "none-left",
    values: { left: 1, asked: 2 },
  });
  expect([await stockOf(a), await stockOf(b)]).toEqual([3, 1]);
  const [row] = await reserve(one, job.id, { picks: [line(b, 1)] });
  await edit(one, job.id, (door) => door.patch("pick", row!.id, row!.version, { state: "picked" }));
  const late = { picks: [line(a, 2), line(b, 0, { id: row!.id, version: row!.version })] };
  await expect(reserve(one, job.id, late)).rejects.toBeInstanceOf(VersionClash);
  expect([await stockOf(a), await stockOf(b)]).toEqual([3, 0]);
});

test("60 rounds of two jobs that reserve the last one over two connections: one gets it", async () => {
  const id = await stocked(1);
  const [a, b] = [await createJob(one, "First"), await createJob(one, "Second")];
  const wins = [0, 0];
  for (let round = 0; round < 60; round++) {
    const ask = (db: Db, jobId: string) => reserve(db, jobId, { picks: [line(id, 1)] });
    const got = await Promise.allSettled([ask(one, a.id), ask(two, b.id)]);
    expect(
      got.filter((g) => g.status === "fulfilled"),
      `round ${round}`,
    ).toHaveLength(1);
    for (const [i, g] of got.entries()) {
      if (g.status === "rejected") expect(g.reason).toMatchObject({ code: "none-left" });
      else {
        wins[i]!++;
        const [row] = g.value;
        await reserve(one, [a, b][i]!.id, { picks: [line(id, 0, { id: row!.id, version: row!.version })] });
      }
    }
    expect(await stockOf(id)).toBe(1);
  }
  expect(Math.min(...wins)).toBeGreaterThan(0);
});
