import { sql } from "drizzle-orm";
import { afterAll, beforeAll, describe, expect, test } from "vitest";
import { generateDemo } from "../../demo/generate";
import { terrainGridOf } from "../../demo/grids";
import { isProblem, planOf } from "../contract";
import { pathFrame } from "../core/geo";
import { evaluateLink } from "../core/link";
import { sampleGround } from "../core/terrain";
import { hardwareDto, jobDto } from "../service/dto";
import { profileDto, profileOf } from "../service/profile";
import { verdictsOf } from "../service/verdicts";
import { NotFound, Refused, VersionClash } from "./clash";
import { type Db, isBrokenReference, isUnreachable, openDb } from "./client";
import { getJob, getLink, type JobRow, linksOf, listJobs, sitesOf } from "./jobs";
import { createLink, type DesignInput } from "./links";
import { gridsAlong } from "./terrain-store";
import { bring, create, createJob, patch, take } from "./testing/edits";

/* On a real PostgreSQL that the test command starts and fills with the demo job. */
const url = process.env.DATABASE_TEST_URL;
if (url === undefined) throw new Error("DATABASE_TEST_URL is not set; run npm test");
let db: Db;
let close: () => Promise<void>;
let demoJob: JobRow;

beforeAll(async () => {
  ({ db, close } = openDb(url));
  demoJob = (await listJobs(db)).find((j) => j.name === "Merrow Harbour Trust")!;
});
afterAll(() => close());

const newJob = (name: string) => createJob(db, name, { centreLatDeg: 47.3, centreLonDeg: -19.4 });
const at = (name: string, latDeg: number, lonDeg: number) => ({
  name,
  latDeg,
  lonDeg,
  mountAglM: 9,
  mountMaxAglM: null,
  structure: "",
  power: "",
});
const someDesign = async (jobId: string): Promise<DesignInput> => (await linksOf(db, jobId))[1]!.design as DesignInput;

describe("terrain store", () => {
  test("a profile out of the tiles in the database equals one out of the generator's grid", async () => {
    const demo = generateDemo();
    const [near, far] = [demo.sites[0]!.position, demo.sites.find((s) => s.key === "tarrow")!.position];
    const frame = pathFrame(near, far);
    const points = Array.from({ length: 49 }, (_, i) => frame.at((frame.lengthM * i) / 48));
    const stored = sampleGround(frame, await gridsAlong(db, points));
    const fresh = sampleGround(
      frame,
      [...demo.grids].sort((a, b) => a.cellM - b.cellM).map((g, i) => terrainGridOf(g, String(i))),
    );
    expect(stored.distanceM).toEqual(fresh.distanceM);
    expect(stored.groundAmslM).toEqual(fresh.groundAmslM);
    expect(stored.groundAmslM.some(Number.isNaN)).toBe(false);
  });
});

describe("jobs, sites, links", () => {
  test("two jobs made at once take different numbers", async () => {
    const made = await Promise.all(["one", "two", "three"].map(newJob));
    expect(new Set(made.map((j) => j.number)).size).toBe(3);
  });

  test("an edit on an old version is a clash with the row as it stands; nothing is overwritten", async () => {
    const [link] = await linksOf(db, demoJob.id);
    const { design } = link!;
    const first = await patch(db, "design", design.id, design.version, { nearPowerDbm: 12 });
    expect(first.version).toBe(design.version + 1);
    const error = await patch(db, "design", design.id, design.version, { nearPowerDbm: 3 }).catch((e: unknown) => e);
    expect(error).toBeInstanceOf(VersionClash);
    expect((error as VersionClash).current).toMatchObject({ nearPowerDbm: 12, version: first.version });
    await patch(db, "design", design.id, first.version, { nearPowerDbm: design.nearPowerDbm });
    const log = await db.execute<{ n: number }>(
      sql`SELECT count(*)::int AS n FROM change WHERE entity_id = ${design.id} AND before IS NOT NULL`,
    );
    expect(log.rows[0]!.n).toBe(2);
  });

  test("one spot, one site; a link needs two ends at a possible distance; a site in use stays", async () => {
    const job = await newJob("spots");
    const a = await create(db, job.id, "site", at("A", 47.3, -19.4));
    const b = await create(db, job.id, "site", at("B", 47.304, -19.4));
    await expect(create(db, job.id, "site", at("A2", 47.3, -19.4))).rejects.toMatchObject({ code: "same-spot", values: { name: "A" } });
    const remote = await create(db, job.id, "site", at("C", 55.4, -19.4));
    const design = await someDesign(demoJob.id);
    const make = (nearSiteId: string, farSiteId: string) => createLink(db, job.id, { nearSiteId, farSiteId, label: "", design });
    await expect(make(a.id, a.id)).rejects.toMatchObject({ code: "same-ends" });
    await expect(make(a.id, remote.id)).rejects.toMatchObject({ code: "link-length" });
    await expect(make(a.id, demoJob.id)).rejects.toBeInstanceOf(NotFound);
    const link = await make(a.id, b.id);
    await expect(take(db, "site", a.id, a.version)).rejects.toBeInstanceOf(Refused);
    await take(db, "link", link.id, link.version);
    expect(await linksOf(db, job.id)).toHaveLength(0);
    await take(db, "site", a.id, a.version);
    expect((await sitesOf(db, job.id)).map((s) => s.name)).toEqual(["B", "C"]);
    await bring(db, "site", a.id, a.version + 1);
    await bring(db, "link", link.id, link.version + 1);
    expect(await linksOf(db, job.id)).toHaveLength(1);
    await expect(patch(db, "site", b.id, b.version, { latDeg: 47.3, lonDeg: -19.4 })).rejects.toMatchObject({ code: "same-spot" });
  });

  test("a design may not name a radio that is not there; a half-made link leaves nothing", async () => {
    const job = await newJob("half");
    const a = await create(db, job.id, "site", at("A", 47.3, -19.4));
    const b = await create(db, job.id, "site", at("B", 47.301, -19.4));
    const design = { ...(await someDesign(demoJob.id)), nearRadioId: "no-such-radio" };
    const error = await createLink(db, job.id, { nearSiteId: a.id, farSiteId: b.id, label: "", design }).catch((e: unknown) => e);
    expect(isBrokenReference(error)).toBe(true);
    const rows = await db.execute<{ n: number }>(sql`SELECT count(*)::int AS n FROM link WHERE job_id = ${job.id}`);
    expect(rows.rows[0]!.n).toBe(0);
  });
});

describe("the basis of a job", () => {
  test("is versioned, logged, and makes what was computed stale", async () => {
    const job = await newJob("basis");
    const changed = await patch(db, "job", job.id, job.version, { clearancePolicy: "two-condition", tideRangeM: 2.5 });
    expect(changed).toMatchObject({ clearancePolicy: "two-condition", tideRangeM: 2.5, version: job.version + 1 });
    expect((await getJob(db, job.id)).revision).toBeGreaterThan(job.revision);
    await expect(patch(db, "job", job.id, job.version, { marginDb: 3 })).rejects.toMatchObject({ current: { marginDb: 10 } });
    const log = await db.execute<{ action: string; after: { tideRangeM: number } }>(
      sql`SELECT action, after FROM change WHERE entity = 'job' AND entity_id = ${job.id} ORDER BY id DESC LIMIT 1`,
    );
    expect(log.rows[0]).toMatchObject({ action: "update", after: { tideRangeM: 2.5 } });
  });
});

describe("verdicts", () => {
  test("the server's verdict of a link is the core's for the profile that travels to the browser", async () => {
    const job = await getJob(db, demoJob.id);
    const verdicts = await verdictsOf(db, job);
    expect(verdicts).toHaveLength((await linksOf(db, job.id)).length);
    expect(verdicts.length).toBeGreaterThanOrEqual(14);
    const hardware = await hardwareDto(db);
    for (const row of await linksOf(db, job.id)) {
      const { link, near, far } = await getLink(db, row.id);
      const profile = await profileOf(db, job, link, near, far);
      const dto = profileDto(profile, job, near, far);
      expect(JSON.stringify(dto)).not.toContain("NaN");
      const plan = planOf(jobDto(job), near, far, link.design, hardware, null);
      if (isProblem(plan)) throw new Error(plan.id);
      const result = evaluateLink(plan, profile);
      const said = verdicts.find((v) => v.linkId === row.id)!;
      expect(said.alone).toBe(result.verdict);
      expect(said.worst!.missM).toBeCloseTo(result.clearance.worst!.missM, 9);
    }
  });

  test("outside all surveys the ground is unknown and so is the verdict", async () => {
    const job = await newJob("far away");
    const a = await create(db, job.id, "site", at("A", 10, 10));
    const b = await create(db, job.id, "site", at("B", 10.01, 10));
    await createLink(db, job.id, { nearSiteId: a.id, farSiteId: b.id, label: "", design: await someDesign(demoJob.id) });
    expect((await verdictsOf(db, await getJob(db, job.id)))[0]).toMatchObject({ verdict: "unknown", trouble: "ground-unknown" });
  });
});

test("a database that is not there is told from a wrong statement", async () => {
  const gone = openDb("postgres://dryarc:x@127.0.0.1:9/dryarc");
  const error = await listJobs(gone.db).catch((e: unknown) => e);
  expect(isUnreachable(error)).toBe(true);
  await gone.close();
  const wrong = await db.execute(sql`SELECT nothing FROM nowhere`).catch((e: unknown) => e);
  expect(isUnreachable(wrong)).toBe(false);
});
