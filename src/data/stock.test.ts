/* Stock belongs to the firm: what one job's pick takes no other job has, and it is given back with the pick; on a real PostgreSQL. */
import { expect, test } from "vitest";
import { lineId } from "../core/kit";
import { partsDto } from "../service/dto";
import { asClient } from "./actor";
import { Refused } from "./clash";
import type { Db } from "./client";
import { listParts, saveHardware } from "./hardware";
import { redoLast, undoLast } from "./history";
import { edit, listRecords } from "./records";
import { testDb } from "./testing/db";
import { createJob } from "./testing/edits";

const [one, two] = [testDb(), testDb()];

let made = 0;
const stocked = async (stock: number): Promise<string> => {
  const id = `stock-${process.pid}-${++made}`;
  const sheet = {
    id,
    name: `Counted ${made}`,
    kind: "surge",
    ports: [],
    stock,
    surge: { mostV: 60, pairs: 4, speedMbps: 1000, schemes: ["802.3"] },
  };
  await saveHardware(one, { parts: [sheet], source: "catalogue" });
  return id;
};
const stockOf = async (id: string): Promise<number> => ((await listParts(one)).find((p) => p.id === id)!.sheet as { stock: number }).stock;
const job = (name: string) => createJob(one, name, { centreLatDeg: 41, centreLonDeg: -31 });
const pick = (db: Db, jobId: string, partId: string, count: number) =>
  edit(db, jobId, (door) => door.create("pick", { name: "x", partId, state: "picked", count }, { id: lineId(jobId, partId) }));

test("a pick takes, another count moves the difference, the end gives back, and undo and redo do the same", async () => {
  const id = await stocked(5);
  const { id: jobId } = await job("Stock");
  const me = <T>(work: () => Promise<T>): Promise<T> => asClient("client-stock", work);
  const row = await me(() => pick(one, jobId, id, 2));
  expect(row).toMatchObject({ fromStock: true, count: 2 });
  expect(await stockOf(id)).toBe(3);
  const more = await me(() => edit(one, jobId, (door) => door.patch("pick", row.id, row.version, { count: 4.2 })));
  // Begun metres are whole ones.
  expect(await stockOf(id)).toBe(0);
  await expect(me(() => edit(one, jobId, (door) => door.patch("pick", row.id, more.version, { count: 6 })))).rejects.toMatchObject({
    code: "none-left",
  });
  expect(await stockOf(id)).toBe(0);
  await me(() => undoLast(one, jobId));
  expect(await stockOf(id)).toBe(3);
  await me(() => redoLast(one, jobId));
  expect(await stockOf(id)).toBe(0);
  const [now] = await listRecords(one, jobId, "pick");
  await me(() => edit(one, jobId, (door) => door.patch("pick", row.id, now!.version, { count: 0 })));
  expect(await stockOf(id)).toBe(5);
  const [none] = await listRecords(one, jobId, "pick");
  // What is there already is not the firm's.
  await me(() => edit(one, jobId, (door) => door.patch("pick", row.id, none!.version, { state: "there", count: 3 })));
  expect(await stockOf(id)).toBe(5);
});

test("a pick that was taken back is made again under its own name, and takes again", async () => {
  const id = await stocked(3);
  const { id: jobId } = await job("Again");
  const me = <T>(work: () => Promise<T>): Promise<T> => asClient("client-again", work);
  await me(() => pick(one, jobId, id, 2));
  await me(() => undoLast(one, jobId));
  expect(await stockOf(id)).toBe(3);
  expect(await listRecords(one, jobId, "pick")).toEqual([]);
  const back = await me(() => pick(one, jobId, id, 3));
  expect(back.count).toBe(3);
  expect(await stockOf(id)).toBe(0);
});

test("what nobody counts is not refused, and nothing of it is taken", async () => {
  const { id: jobId } = await job("Not counted");
  const row = await pick(one, jobId, "no-such-part", 7);
  expect(row.fromStock).toBe(false);
  await edit(one, jobId, (door) => door.patch("pick", row.id, row.version, { count: 900 }));
});

test("200 rounds of two jobs after the last one, over two connections: one gets it, never below nought", async () => {
  const id = await stocked(1);
  const [a, b] = [await job("One"), await job("Two")];
  const rows = new Map<string, { id: string; version: number }>();
  let both = 0;
  for (let round = 0; round < 200; round++) {
    const want = async (db: Db, jobId: string, count: number): Promise<boolean> => {
      const own = rows.get(jobId);
      try {
        const row =
          own === undefined
            ? await pick(db, jobId, id, count)
            : await edit(db, jobId, (door) => door.patch("pick", own.id, own.version, { count }));
        rows.set(jobId, { id: row.id, version: row.version });
        return true;
      } catch (error) {
        if (error instanceof Refused && error.code === "none-left") return false;
        throw error;
      }
    };
    const got = await Promise.all([want(one, a.id, 1), want(two, b.id, 1)]);
    expect(got.filter(Boolean), `round ${round}`).toHaveLength(1);
    expect(await stockOf(id)).toBe(0);
    both += Number(got[1]);
    // Given back for the next round, also by somebody who never had it.
    await Promise.all([rows.has(a.id) ? want(one, a.id, 0) : true, rows.has(b.id) ? want(two, b.id, 0) : true]);
    expect(await stockOf(id)).toBe(1);
  }
  // Each of the two was first at times, else this proves nothing about contention.
  expect(both).toBeGreaterThan(0);
});

test("every shipped part is read back whole", async () => {
  const kept = await listParts(one);
  const told = await partsDto(one);
  expect(told.length).toBe(kept.length);
  expect(told.length).toBeGreaterThan(80);
});
