import { Pool } from "pg";
import { afterAll, beforeAll, describe, expect, test } from "vitest";
import { isProblem, type PlaceDto, planOf, type RelayDto, relaysSchema, type Streamed } from "../contract";
import { evaluateLink } from "../core/link";
import { asClient } from "../data/actor";
import { NotFound, Refused, VersionClash } from "../data/clash";
import { type Db, openDb } from "../data/client";
import { historyOf, redoLast, undoLast } from "../data/history";
import { getLink, type JobRow, linksOf, listJobs, sitesOf } from "../data/jobs";
import { createLink, keepDesign, keptDesigns } from "../data/links";
import { MOST_KEPT } from "../data/rules";
import { create, createJob, patch, take } from "../data/testing/edits";
import { bundleBytes, takeBundle } from "../jobs/testing/bring";
import { hardwareDto, jobDto, linkDto } from "./dto";
import { firstDesign } from "./first-design";
import { addRelay } from "./new-relay";
import { placesAlong } from "./places";
import { profileBetween } from "./profile";
import { relaysAt } from "./relays";

const url = process.env.DATABASE_TEST_URL;
if (url === undefined) throw new Error("DATABASE_TEST_URL is not set; run npm test");
let db: Db;
let close: () => Promise<void>;
let demo: JobRow;
beforeAll(async () => {
  ({ db, close } = openDb(url));
  demo = (await listJobs(db)).find((j) => j.name === "Merrow Harbour Trust")!;
});
afterAll(() => close());

const me = <T>(work: () => Promise<T>): Promise<T> => asClient("client-solvers", work);
const rowsOf = async <Row>(stream: AsyncGenerator<Streamed<Row>>): Promise<{ rows: Row[]; progress: number[] }> => {
  const rows: Row[] = [];
  const progress: number[] = [];
  for await (const part of stream) {
    if (part.kind === "row") rows.push(part.row);
    else if (part.kind === "progress") progress.push(part.done / part.total);
    else throw new Error(part.fault.code);
  }
  return { rows, progress };
};

/** A job of one link on open ocean. */
const oneLink = async (name: string) => {
  const job = await createJob(db, name, { centreLatDeg: 35, centreLonDeg: -40 });
  const site = (label: string, latDeg: number) =>
    create(db, job.id, "site", { name: label, latDeg, lonDeg: -40, mountAglM: 8, mountMaxAglM: null });
  const [near, far] = [await site("South", 35), await site("North", 35.02)];
  const design = firstDesign(jobDto(job), await hardwareDto(db), near, far)!;
  const link = await createLink(db, job.id, { nearSiteId: near.id, farSiteId: far.id, label: "", design: { ...design, trimsM: {} } });
  return { job, near, far, link };
};

describe("a relay put between two ends", () => {
  test("is one step: site and both links, taken back and done again together; a refused leg leaves nothing", async () => {
    const { job, link } = await oneLink("Relay");
    const seen = async () => [(await sitesOf(db, job.id)).length, (await linksOf(db, job.id)).length];
    const { nearLinkId, farLinkId } = await me(() => addRelay(db, link.id, { name: "Ridge", latDeg: 35.01, lonDeg: -40.01, mountAglM: 6 }));
    expect(await seen()).toEqual([3, 3]);
    const legs = [await getLink(db, nearLinkId), await getLink(db, farLinkId)];
    expect(legs.map((l) => [l.near.name, l.far.name])).toEqual([
      ["South", "Ridge"],
      ["Ridge", "North"],
    ]);
    expect(legs.map((l) => [l.link.design.nearMountAglM, l.link.design.farMountAglM])).toEqual([
      [8, 6],
      [6, 8],
    ]);
    expect(legs[0]!.link.design.nearRadioId).toBe(link.design.nearRadioId);
    expect((await me(() => undoLast(db, job.id))).step).toMatchObject({ entity: "site", action: "create", name: "Ridge" });
    expect(await seen()).toEqual([2, 1]);
    await me(() => redoLast(db, job.id));
    expect(await seen()).toEqual([3, 3]);
    await me(() => undoLast(db, job.id));
    // Within 5 m of an end no link can stand: neither does the site.
    await expect(me(() => addRelay(db, link.id, { name: "Too near", latDeg: 35.000_03, lonDeg: -40, mountAglM: 6 }))).rejects.toThrow(
      Refused,
    );
    expect(await seen()).toEqual([2, 1]);
    expect((await asClient("client-solvers", () => historyOf(db, job.id))).changes.some((c) => c.name === "Too near")).toBe(false);
  });
});

describe("kept designs", () => {
  test("are copies that stand still, undone and forgotten like any edit; the one in force cannot be dropped", async () => {
    const { job, link } = await oneLink("Kept");
    const b = await me(() => keepDesign(db, job.id, link.id, ""));
    expect([b.name, b.chosen, b.nearMountAglM]).toEqual(["B", false, 8]);
    await patch(db, "design", link.design.id, 1, { nearMountAglM: 12, policyOver: { clearance: "whole" } });
    expect((await keptDesigns(db, link.id)).map((d) => d.nearMountAglM)).toEqual([8]);
    expect((await linksOf(db, job.id))[0]!.design).toMatchObject({ nearMountAglM: 12, policyOver: { clearance: "whole" } });
    await expect(take(db, "design", link.design.id, 2)).rejects.toThrow(NotFound);
    await expect(take(db, "design", b.id, 7)).rejects.toThrow(VersionClash);
    await me(() => take(db, "design", b.id, 1));
    expect(await keptDesigns(db, link.id)).toEqual([]);
    await me(() => undoLast(db, job.id));
    expect(await keptDesigns(db, link.id)).toHaveLength(1);
    // As it stands on the screen, though the server has not heard of it yet.
    const shown = await keepDesign(db, job.id, link.id, "shown", { farMountAglM: 17 });
    expect([shown.nearMountAglM, shown.farMountAglM, shown.chosen]).toEqual([12, 17, false]);
    for (let i = 2; i < MOST_KEPT; i++) await keepDesign(db, job.id, link.id, `No. ${i}`);
    await expect(keepDesign(db, job.id, link.id, "")).rejects.toThrow(Refused);
    expect(await keptDesigns(db, link.id)).toHaveLength(MOST_KEPT);
  });

  test("go with the job when it moves", async () => {
    const { job, link } = await oneLink("Moves");
    await keepDesign(db, job.id, link.id, "low");
    const pool = new Pool({ connectionString: url, max: 1 });
    const { jobId } = await takeBundle(db, pool, await bundleBytes(db, job), true).finally(() => pool.end());
    const [there] = await linksOf(db, jobId!);
    expect((await keptDesigns(db, there!.id)).map((d) => [d.name, d.chosen, d.farMountAglM])).toEqual([["low", false, 8]]);
  });
});

describe("other spots over exact profiles", () => {
  const rope = async () => {
    const link = (await linksOf(db, demo.id)).find((l) => l.label === "" && l.number === 2) ?? (await linksOf(db, demo.id))[0]!;
    const found = await getLink(db, link.id);
    const plan = planOf(jobDto(demo), found.near, found.far, linkDto(found.link).design, await hardwareDto(db), null);
    if (isProblem(plan)) throw new Error(plan.id);
    return { ...found, plan };
  };

  test("each place comes to what the link from there comes to; a roof's edge goes round its building", async () => {
    const { link, near, far, plan } = await rope();
    for (const along of ["points", "roof"] as const) {
      const { rows, progress } = await rowsOf<PlaceDto>(placesAlong(db, link.id, { end: "near", along }));
      expect(rows.length).toBeGreaterThan(0);
      expect(progress.at(-1)).toBe(1);
      for (const p of rows.slice(0, 6)) {
        const profile = await profileBetween(db, demo, p, far, null);
        const r = evaluateLink({ ...plan, near: { ...plan.near, mountAglM: p.aglM } }, profile);
        expect(p.missM).toBeCloseTo(r.clearance.worst!.missM, 6);
        expect(p.verdict).toBe(r.clearance.verdict);
        expect(Math.hypot(p.eastM, p.northM)).toBeLessThan(100);
      }
      if (along === "roof") {
        expect(Math.min(...rows.map((p) => p.eastM))).toBeLessThan(0);
        expect(Math.max(...rows.map((p) => p.eastM))).toBeGreaterThan(0);
      }
    }
    expect(near.jobId).toBe(demo.id);
  });

  test("both legs of a relay are the links they would be; bare ground takes a higher mast when that makes them sure", async () => {
    const links = await linksOf(db, demo.id);
    const sites = await sitesOf(db, demo.id);
    const tarrow = sites.find((s) => s.name === "Tarrowfell Observatory")!;
    const link = links.find((l) => l.farSiteId === tarrow.id)!;
    const spot = { latDeg: 47.326453, lonDeg: -19.341222 };
    const ask = async (mostAglM: number): Promise<RelayDto> =>
      (await rowsOf<RelayDto>(relaysAt(db, link.id, relaysSchema.parse({ spots: [{ ...spot, aglM: 3 }], mostAglM })))).rows[0]!;
    const low = await ask(3);
    const free = await ask(12);
    expect([low.aglM, low.sure]).toEqual([3, false]);
    expect(free.aglM).toBeGreaterThan(3);
    expect(free.sure).toBe(true);
    expect(free.near!.missM!).toBeLessThan(low.near!.missM!);
    const office = sites.find((s) => s.id === link.nearSiteId)!;
    const found = await getLink(db, link.id);
    const plan = planOf(jobDto(demo), found.near, found.far, linkDto(found.link).design, await hardwareDto(db), null);
    if (isProblem(plan)) throw new Error(plan.id);
    const leg = evaluateLink(
      { ...plan, far: { ...plan.far, mountAglM: 3, mountMaxAglM: null } },
      await profileBetween(db, demo, office, spot, null),
    );
    expect(low.near!.missM).toBeCloseTo(leg.clearance.worst!.missM, 6);
    expect(low.near!.sketch.distanceM.length).toBeGreaterThan(100);
  });
});
