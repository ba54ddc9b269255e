/* The catalogue: each edit a step of its own log, taken back and done again, never under a design that has it; on a real PostgreSQL. */

import { randomUUID } from "node:crypto";
import { eq } from "drizzle-orm";
import { expect, test } from "vitest";
import { hardwareDto } from "../service/dto";
import { firstDesign } from "../service/first-design";
import { asClient } from "./actor";
import { NotFound } from "./clash";
import {
  hardwareHistory,
  listParts,
  listRadios,
  markSheet,
  type RadioSheet,
  refreshShipped,
  SHIPPED,
  saveHardware,
  stepHardware,
} from "./hardware";
import { removeImport } from "./imports";
import { createLink } from "./links";
import { part } from "./schema-shared";
import { fileImport } from "./schema-work";
import { testDb } from "./testing/db";
import { create, createJob } from "./testing/edits";

const db = testDb();

const me = <T>(work: () => Promise<T>): Promise<T> => asClient("client-me", work);
let made = 0;
/** A radio of one's own, made after one of the catalogue. */
const own = async (more: object = {}): Promise<RadioSheet> => {
  const [shipped] = await listRadios(db);
  made++;
  return { ...(shipped!.sheet as RadioSheet), id: `own-${process.pid}-${made}`, name: `Own ${made}`, ...more };
};
const save = (...radios: RadioSheet[]): Promise<void> => me(() => saveHardware(db, { radios, antennas: [], source: "own" }));
const nameOf = async (id: string): Promise<string | undefined> => (await listRadios(db)).find((r) => r.id === id)?.name;
const newest = async () => (await me(() => hardwareHistory(db)))[0]!;

test("one save is one step: all of it goes and comes again", async () => {
  const [a, b] = [await own(), await own()];
  await save(a, b);
  const step = await newest();
  expect(step).toMatchObject({ names: [a.name, b.name], made: true, mine: true, undone: false });
  await stepHardware(db, step.step);
  expect([await nameOf(a.id), await nameOf(b.id)]).toEqual([undefined, undefined]);
  expect((await newest()).undone).toBe(true);
  await stepHardware(db, step.step);
  expect([await nameOf(a.id), await nameOf(b.id)]).toEqual([a.name, b.name]);
});

test("a sheet that is the same already is no edit; what ships with the program is none to take back", async () => {
  const a = await own();
  await save(a);
  const before = await newest();
  const version = (await listRadios(db)).find((r) => r.id === a.id)!.version;
  await save(a);
  await saveHardware(db, { radios: [await own()], antennas: [], source: "catalogue" });
  expect(await newest()).toEqual(before);
  expect((await listRadios(db)).find((r) => r.id === a.id)!.version).toBe(version);
});

test("a step under a later one is refused by name, and nothing of it is done", async () => {
  const [a, b] = [await own(), await own()];
  await save(a, b);
  const first = await newest();
  await save({ ...b, name: "Renamed" });
  await expect(stepHardware(db, first.step)).rejects.toMatchObject({ code: "hardware-changed", values: { name: b.name } });
  expect([await nameOf(a.id), await nameOf(b.id)]).toEqual([a.name, "Renamed"]);
  const second = await newest();
  expect(second).toMatchObject({ names: ["Renamed"], made: false });
  await stepHardware(db, second.step);
  expect(await nameOf(b.id)).toBe(b.name);
  await stepHardware(db, first.step);
  expect(await nameOf(b.id)).toBeUndefined();
});

test("a radio that stands in a design stays", async () => {
  const a = await own();
  await save(a);
  const step = await newest();
  const job = await createJob(db, "Has it");
  const near = await create(db, job.id, "site", { name: "A", latDeg: 47.3, lonDeg: -19.4, mountAglM: 5 });
  const far = await create(db, job.id, "site", { name: "B", latDeg: 47.303, lonDeg: -19.4, mountAglM: 5 });
  const design = firstDesign(job as never, await hardwareDto(db), near, far)!;
  await createLink(db, job.id, { nearSiteId: near.id, farSiteId: far.id, label: "", design: { ...design, nearRadioId: a.id } });
  await expect(stepHardware(db, step.step)).rejects.toMatchObject({ code: "hardware-in-use", values: { name: a.name, job: "Has it" } });
  expect(await nameOf(a.id)).toBe(a.name);
});

test("two saves and a step at once: one after another, none half", async () => {
  const a = await own();
  await save(a);
  const { step } = await newest();
  const outcomes = await Promise.allSettled([
    ...Array.from({ length: 8 }, (_, i) => save({ ...a, name: `${a.id} turn ${i}` })),
    stepHardware(db, step),
  ]);
  for (const o of outcomes) if (o.status === "rejected") expect(o.reason).toMatchObject({ code: "hardware-changed" });
  const steps = (await me(() => hardwareHistory(db))).filter((s) => s.names.some((n) => n.startsWith(`${a.id} turn`)));
  expect(steps.length).toBe(8);
});

test("a step that is none", async () => {
  await expect(stepHardware(db, "00000000-0000-4000-8000-000000000000")).rejects.toBeInstanceOf(NotFound);
});

test("what is at hand is counted of shipped sheets too, as a step that goes back, and its sheet stays the shipped one", async () => {
  const [shipped] = await listRadios(db);
  const stockOf = async (): Promise<unknown> =>
    ((await listRadios(db)).find((r) => r.id === shipped!.id)!.sheet as { stock?: number }).stock;
  const before = await stockOf();
  await me(() => markSheet(db, "radio", shipped!.id, { stock: 4 }));
  expect(await stockOf()).toBe(4);
  expect((await listRadios(db)).find((r) => r.id === shipped!.id)!.source).toBe(shipped!.source);
  const step = await newest();
  expect(step).toMatchObject({ names: [shipped!.name], made: false, mine: true });
  // The same count again is no edit.
  await me(() => markSheet(db, "radio", shipped!.id, { stock: 4 }));
  expect((await newest()).step).toBe(step.step);
  await stepHardware(db, step.step);
  expect(await stockOf()).toBe(before);
  // Retired, it stays in the catalogue and keeps its count.
  await me(() => markSheet(db, "radio", shipped!.id, { stock: 2 }));
  await me(() => markSheet(db, "radio", shipped!.id, { retired: true }));
  const sheet = (await listRadios(db)).find((r) => r.id === shipped!.id)!.sheet;
  expect(sheet).toMatchObject({ stock: 2, retired: true });
  await me(() => markSheet(db, "radio", shipped!.id, { retired: false, stock: null }));
  expect(Object.keys((await listRadios(db)).find((r) => r.id === shipped!.id)!.sheet as object)).not.toEqual(
    expect.arrayContaining(["retired"]),
  );
  await expect(markSheet(db, "radio", "no-such-radio", { stock: 1 })).rejects.toBeInstanceOf(NotFound);
});

const box = (more: object = {}) => {
  made++;
  return { id: `box-${process.pid}-${made}`, name: `Box ${made}`, kind: "box", ports: [], ...more } as const;
};
const partOf = async (id: string) => (await listParts(db)).find((p) => p.id === id);
const sheetOf = async (id: string) => (await partOf(id))?.sheet as { name: string; stock?: number; retired?: boolean } | undefined;
const none = { radios: [], antennas: [] };

test("a database of an earlier version gets the sheets that ship now; counts and own sheets stay, what was taken away stays away", async () => {
  const [old, counted, mine, gone, fresh] = [box(), box({ stock: 3 }), box(), box(), box()];
  await saveHardware(db, { parts: [old, counted, gone], source: SHIPPED });
  await saveHardware(db, { parts: [mine], source: "own" });
  await me(() => markSheet(db, "part", counted.id, { retired: true }));
  await db.update(part).set({ deletedAt: new Date() }).where(eq(part.id, gone.id));
  const now = ({ id, kind, ports }: { id: string; kind: string; ports: readonly never[] }) => ({ id, kind, ports, name: `Now ${id}` });
  const shipped = { ...none, parts: [old, counted, mine, gone, fresh].map(now) };
  expect(await refreshShipped(db, shipped)).toBe(3);
  expect(await sheetOf(old.id)).toEqual(now(old));
  expect(await sheetOf(counted.id)).toMatchObject({ name: `Now ${counted.id}`, stock: 3, retired: true });
  expect((await sheetOf(mine.id))?.name).toBe(mine.name);
  expect(await partOf(gone.id)).toBeUndefined();
  expect(await partOf(fresh.id)).toMatchObject({ source: SHIPPED });
  // Once more there is nothing to write.
  expect(await refreshShipped(db, shipped)).toBe(0);
});

test("an import taken back takes its parts, but none that another job is wired with; brought back they are there again", async () => {
  const importer = await createJob(db, "Brought parts");
  const user = await createJob(db, "Wired with one");
  const [plain, wired, lead] = [box(), box(), box()];
  await saveHardware(db, { parts: [plain, wired, lead], source: "own" });
  const [row] = await db
    .insert(fileImport)
    .values({ jobId: importer.id, fileName: "parts", what: "bundle", options: {}, state: "done" })
    .returning();
  for (const p of [plain, wired, lead]) await db.update(part).set({ importId: row!.id }).where(eq(part.id, p.id));
  const site = await create(db, user.id, "site", { name: "A", latDeg: 47.3, lonDeg: -19.4, mountAglM: 5 });
  const places = [randomUUID(), randomUUID()].map((id) => ({ id, name: "Box", kind: "box", partId: wired.id }));
  const [from, to] = places.map(({ id }) => ({ placeId: id, port: "a" }));
  await create(db, user.id, "wiring", {
    siteId: site.id,
    places,
    leads: [{ id: randomUUID(), cableId: lead.id, from, to, lengthM: 3 }],
  } as never);
  await me(() => removeImport(db, row!.id, true));
  const there = async () => Promise.all([plain, wired, lead].map(async (p) => (await partOf(p.id)) !== undefined));
  expect(await there()).toEqual([false, true, true]);
  await me(() => removeImport(db, row!.id, false));
  expect(await there()).toEqual([true, true, true]);
});
