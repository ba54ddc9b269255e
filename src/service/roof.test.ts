/* The log of a roof and what a phone takes along, on a real PostgreSQL, through the routes. */
import { randomUUID } from "node:crypto";
import { Pool } from "pg";
import { afterAll, expect, test } from "vitest";
import { PATCH as patchRoute } from "../app/api/jobs/[jobId]/[records]/[recordId]/route";
import { POST as createRoute, GET as listRoute } from "../app/api/jobs/[jobId]/[records]/route";
import type { RoofEntryDto } from "../contract";
import { replayRoof } from "../core/roof";
import { phoneOf, untilPowered } from "../core/roof/testing/logs";
import { asClient } from "../data/actor";
import { historyOf, redoLast, undoLast } from "../data/history";
import { getJob, type JobRow, linksOf, sitesOf } from "../data/jobs";
import { createLink } from "../data/links";
import { edit, listRecords } from "../data/records";
import { testDb } from "../data/testing/db";
import { create, createJob, plainDesign } from "../data/testing/edits";
import { bundleBytes, takeBundle } from "../jobs/testing/bring";
import { hardwareDto } from "./dto";
import { roofDto } from "./roof";

const db = testDb();
const pool = new Pool({ connectionString: process.env.DATABASE_TEST_URL, max: 2 });
afterAll(() => pool.end());

const TURNS = { near: { turns: true }, far: { turns: true } };

const linked = async (): Promise<{ job: JobRow; linkId: string; siteId: string }> => {
  const job = await createJob(db, "Roofs", { centreLatDeg: 43, centreLonDeg: -33 });
  const site = (name: string, latDeg: number) => create(db, job.id, "site", { name, latDeg, lonDeg: -33, mountAglM: 6 });
  const [near, far] = [await site("Near", 43), await site("Far", 43.01)];
  const design = plainDesign((await hardwareDto(db)).radios[0]!.id);
  const link = await createLink(db, job.id, { nearSiteId: near.id, farSiteId: far.id, label: "", design });
  return { job, linkId: link.id, siteId: near.id };
};
const ask = (method: string, body: unknown): Request =>
  new Request("http://localhost/api", { method, headers: { host: "localhost", "x-client": "client-roof" }, body: JSON.stringify(body) });
const at = (jobId: string) => ({ params: Promise.resolve({ jobId, records: "roof" }) });
const post = async (jobId: string, body: unknown): Promise<{ status: number; body: Record<string, unknown> }> => {
  const answer = await createRoute(ask("POST", body), at(jobId));
  return { status: answer.status, body: (await answer.json()) as Record<string, unknown> };
};
const list = async (jobId: string): Promise<RoofEntryDto[]> =>
  (await (await listRoute(new Request("http://localhost/api", { headers: { host: "localhost" } }), at(jobId))).json()) as RoofEntryDto[];
/** Entries of a phone as they travel: under ids of their own, of one phone. */
const sent = (linkId: string, known: ReturnType<typeof phoneOf>["known"]) => {
  const ids = new Map(known.map((e) => [e.id, randomUUID() as string]));
  const phones = new Map<string, string>();
  return known.map((e) => {
    if (!phones.has(e.phone)) phones.set(e.phone, randomUUID());
    return { ...e, id: ids.get(e.id)!, of: e.of === null ? null : ids.get(e.of)!, phone: phones.get(e.phone)!, linkId };
  });
};

test("entries of two phones, sent twice and in any order, are there once, and both ends stand as both phones know them", async () => {
  const { job, linkId } = await linked();
  const [one, two] = [phoneOf("one", "Ada"), phoneOf("two", "Bela")];
  untilPowered(one, "near");
  const bad = one.write({ end: "near", act: "reading", axis: "azimuth", angleDeg: 0, levelDbm: -61, way: "scale", readAt: "here" });
  one.write({ end: "near", act: "void", of: bad.id });
  one.write({ end: "near", act: "peak", axis: "azimuth", levelDbm: -57 });
  one.write({ end: "near", act: "peak", axis: "tilt", levelDbm: -57 });
  untilPowered(two, "far");
  const [of, others] = [sent(linkId, one.known), sent(linkId, two.known)];
  for (const e of [...others, ...of, ...others]) expect((await post(job.id, e)).status).toBe(200);
  const there = await list(job.id);
  expect(there).toHaveLength(of.length + others.length);
  const s = replayRoof(TURNS, there);
  expect(s.refused).toEqual([]);
  expect(s.near.sweep.azimuth.readings).toEqual([]);
  expect([s.near.peak.tilt?.levelDbm, s.far.steps.find((x) => x.id === "other")?.state]).toEqual([-57, "done"]);
});

test("what is written stays: no change, no taking away; undo goes past it to the edit before", async () => {
  const { job, linkId, siteId } = await linked();
  const me = <T>(work: () => Promise<T>): Promise<T> => asClient("client-roof", work);
  const [site] = (await listRecords(db, job.id, "site")).filter((r) => r.id === siteId);
  await me(() => edit(db, job.id, (door) => door.patch("site", siteId, site!.version, { mountAglM: 9 })));
  const p = phoneOf("one");
  p.tick("near", "risks", "read");
  const [e] = sent(linkId, p.known);
  expect((await post(job.id, e)).status).toBe(200);
  for (const body of [
    { version: 1, words: "other" },
    { version: 1, deleted: true },
  ]) {
    const params = Promise.resolve({ jobId: job.id, records: "roof", recordId: e!.id });
    const answer = await patchRoute(ask("PATCH", body), { params });
    expect([answer.status, ((await answer.json()) as { code: string }).code]).toEqual([422, "append-only"]);
  }
  const undone = await me(() => undoLast(db, job.id));
  expect(undone.rows.map((r) => [r.kind, r.row?.mountAglM])).toEqual([["site", 6]]);
  expect(await list(job.id)).toHaveLength(1);
  // Another entry between undo and redo stands in nobody's way.
  expect((await post(job.id, { ...e, id: randomUUID() })).status).toBe(200);
  const again = await me(() => redoLast(db, job.id));
  expect(again.rows.map((r) => r.row?.mountAglM)).toEqual([9]);
  const told = (await historyOf(db, job.id)).changes.filter((c) => c.entity === "roof");
  expect(told.map((c) => c.undoable)).toEqual([false, false]);
});

test("an entry that says too little, or too much, is refused with the field by its name", async () => {
  const { job, linkId } = await linked();
  const p = phoneOf("one");
  const [whole] = sent(linkId, [p.write({ end: "near", act: "reading", axis: "azimuth", angleDeg: 3, levelDbm: -61 })]);
  const refused = async (over: Record<string, unknown>): Promise<unknown> => {
    const { status, body } = await post(job.id, { ...whole, id: randomUUID(), ...over });
    return [status, body.path];
  };
  expect(await refused({ axis: null })).toEqual([400, "axis"]);
  expect(await refused({ angleDeg: 400 })).toEqual([400, "angleDeg"]);
  expect(await refused({ levelDbm: 61 })).toEqual([400, "levelDbm"]);
  expect(await refused({ act: "stop", words: "" })).toEqual([400, "words"]);
  expect(await refused({ act: "explode" })).toEqual([400, "act"]);
  expect(await refused({ at: "ten o'clock" })).toEqual([400, "at"]);
  expect(await refused({ act: "void", of: randomUUID() })).toEqual([422, "of"]);
  expect(await refused({ linkId: randomUUID() })).toEqual([422, "linkId"]);
  const stranger = await linked();
  expect(await refused({ linkId: stranger.linkId })).toEqual([422, "linkId"]);
  expect(await list(job.id)).toEqual([]);
});

test("the log moves with its job: in a copy it names the copy's link and the copy's entries", async () => {
  const { job, linkId } = await linked();
  const p = phoneOf("one");
  untilPowered(p, "near");
  const r = p.write({ end: "near", act: "reading", axis: "azimuth", angleDeg: 0, levelDbm: -61 });
  p.write({ end: "near", act: "void", of: r.id });
  for (const e of sent(linkId, p.known)) expect((await post(job.id, e)).status).toBe(200);
  const copy = await takeBundle(db, pool, await bundleBytes(db, await getJob(db, job.id)), true);
  expect(copy.fault).toBeNull();
  const there = await list(copy.jobId!);
  const [link] = await linksOf(db, copy.jobId!);
  expect(new Set(there.map((e) => e.linkId))).toEqual(new Set([link!.id]));
  expect(link!.id).not.toBe(linkId);
  const s = replayRoof(TURNS, there);
  expect(s.refused).toEqual([]);
  expect(s.near.sweep.azimuth.readings).toEqual([]);
  expect(s.near.steps.find((x) => x.id === "power")?.state).toBe("done");
});

test("what a phone takes along is what the pages say: bearing, level, the cut of the antenna, the risks with the worst first", async () => {
  const jobs = await db.execute<{ id: string }>(`SELECT id FROM job WHERE name = 'Merrow Harbour Trust'`);
  const row = await getJob(db, jobs.rows[0]!.id);
  const sites = await sitesOf(db, row.id);
  const idOf = (name: string) => sites.find((s) => s.name === name)!.id;
  const link = (await linksOf(db, row.id)).find((l) => l.nearSiteId === idOf("Harbour Office") && l.farSiteId === idOf("Rope Walk"))!;
  const made = await roofDto(db, row, link.id);
  const [near, far] = made.ends;
  expect([near.name, far.name]).toEqual(["Harbour Office", "Rope Walk"]);
  // Two ends look at each other, to the little that meridians meet.
  expect(Math.abs(((far.lookDeg - near.lookDeg + 360) % 360) - 180)).toBeLessThan(0.1);
  expect(near.azimuth!.db.length % 2).toBe(1);
  expect(Math.max(...near.azimuth!.db)).toBeCloseTo(0, 1);
  const half = (near.azimuth!.db.length - 1) / 2;
  const edge = near.azimuth!.db[half + Math.round(near.azimuth!.beamwidthDeg / 2 / near.azimuth!.stepDeg)]!;
  expect(edge).toBeCloseTo(-3, 0);
  expect(near.level!.lowDbm).toBeLessThan(near.level!.dbm);
  const rank = ["short", "unknown", "tight", "clear"];
  const order = far.risks.map((r) => rank.indexOf(r.verdict));
  expect(order).toEqual([...order].sort((a, b) => a - b));
  expect(made.radarWaitS).toBe(60);
  // Small enough for a phone with a bad line.
  expect(JSON.stringify(made).length).toBeLessThan(60_000);
  // A hub's sector is not found by turning.
  const sector = (await linksOf(db, row.id)).find((l) => l.nearSiteId === idOf("Water Tower"))!;
  expect((await roofDto(db, row, sector.id)).ends.map((e) => e.azimuth === null)).toEqual([true, false]);
});

test("a link whose plan cannot be worked out says why; one that is not there is not there", async () => {
  const { job, linkId, siteId } = await linked();
  // Moved to the other side of the sea after it was joined.
  await db.execute(`UPDATE site SET lat_deg = -43 WHERE id = '${siteId}'`);
  const row = await getJob(db, job.id);
  await expect(roofDto(db, row, linkId)).rejects.toMatchObject({ code: "no-plan", values: { why: "too-far" } });
  await expect(roofDto(db, row, randomUUID())).rejects.toMatchObject({ entity: "link" });
});
