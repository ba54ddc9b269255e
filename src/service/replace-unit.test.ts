/* A unit dies and another takes its place: one step, all of it or nothing, taken back as one; on a real PostgreSQL. */
import { randomUUID } from "node:crypto";
import { expect, test } from "vitest";
import type { ReplaceUnit, UnitDto } from "../contract";
import { asClient } from "../data/actor";
import { VersionClash } from "../data/clash";
import { redoLast, undoLast } from "../data/history";
import { listRecords } from "../data/records";
import { testDb } from "../data/testing/db";
import { create, createJob } from "../data/testing/edits";
import { replaceUnit } from "./replace-unit";

const db = testDb();
const me = <T>(work: () => Promise<T>): Promise<T> => asClient("client-unit", work);

const end = async () => {
  const job = await createJob(db, "Units");
  const site = await create(db, job.id, "site", { name: "A", latDeg: 47.3, lonDeg: -19.4, mountAglM: 5 });
  const ask = (more: Partial<ReplaceUnit>): ReplaceUnit => ({
    siteId: site.id,
    placeId: randomUUID(),
    dead: { id: randomUUID(), version: 0 },
    fields: {},
    cause: "surge",
    on: "2026-11-28",
    newId: randomUUID(),
    ...more,
  });
  return { job, ask, units: async () => (await listRecords(db, job.id, "unit")) as unknown as UnitDto[] };
};

test("one that nobody had written down: both are there, the new one with its bracket; undone and redone as one", async () => {
  const { job, ask, units } = await end();
  const q = ask({ fields: { serial: "S-1", bracket: "long arm" } });
  await me(() => replaceUnit(db, job.id, q));
  expect(await units()).toMatchObject([
    { id: q.dead.id, serial: "S-1", state: "dead", cause: "surge", since: "2026-11-28", placeId: q.placeId },
    { id: q.newId, replaces: q.dead.id, bracket: "long arm", state: "planned", serial: "" },
  ]);
  await me(() => undoLast(db, job.id));
  expect(await units()).toEqual([]);
  await me(() => redoLast(db, job.id));
  expect(await units()).toHaveLength(2);
});

test("changed meanwhile, or with a field that cannot be kept: nothing of it is done", async () => {
  const { job, ask, units } = await end();
  const first = ask({});
  await me(() => replaceUnit(db, job.id, first));
  const [, standing] = await units();
  const next = { placeId: first.placeId, dead: { id: standing!.id, version: standing!.version } };
  await expect(replaceUnit(db, job.id, ask({ ...next, dead: { ...next.dead, version: 99 } }))).rejects.toBeInstanceOf(VersionClash);
  await expect(replaceUnit(db, job.id, ask({ ...next, fields: { mac: "00:11" } }))).rejects.toThrow(/six pairs/);
  expect(await units()).toHaveLength(2);
  expect((await units()).find((u) => u.id === standing!.id)).toMatchObject({ state: "planned", cause: null });
  await replaceUnit(db, job.id, ask({ ...next, cause: "water" }));
  expect((await units()).map((u) => [u.state, u.cause])).toEqual([
    ["dead", "surge"],
    ["dead", "water"],
    ["planned", null],
  ]);
});
