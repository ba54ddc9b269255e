/* What the jobs of a firm share, sheets and ground, is the firm's own: in the application's role, with the rows guarded. */
import { sql } from "drizzle-orm";
import { Pool } from "pg";
import { afterAll, beforeAll, describe, expect, test } from "vitest";
import { destination } from "../core/geo";
import { bundleBytes, takeBundle } from "../jobs/testing/bring";
import { hardwareDto, jobDto } from "../service/dto";
import { firstDesign } from "../service/first-design";
import { makeFirm } from "../service/people/testing/firm";
import { type Asker, asAsker, programFor } from "./actor";
import { type Db, isBrokenReference, openDb } from "./client";
import {
  hardwareHistory,
  hardwareKey,
  listParts,
  listRadios,
  markSheet,
  type RadioSheet,
  refreshShipped,
  saveHardware,
  stepHardware,
} from "./hardware";
import { getJob, linksOf, listJobs } from "./jobs";
import { createLink } from "./links";
import { firstOrganisation } from "./people";
import { NO_FIRM } from "./schema-shared";
import { moveStock } from "./stock";
import { datasetsById, datasetsIn, eachPlace, insertDataset } from "./terrain-store";
import { testDb } from "./testing/db";
import { create, createJob } from "./testing/edits";

const all = testDb();
const opened = openDb(process.env.DATABASE_URL!);
afterAll(opened.close);
const app = opened.db;

let a: Asker;
let b: Asker;
beforeAll(async () => {
  a = programFor(await makeFirm(all, "Firm A"));
  b = programFor(await makeFirm(all, "Firm B"));
});

interface Sheet extends RadioSheet {
  readonly stock?: number;
}
const radiosOf = (who: Asker) => asAsker(who, () => listRadios(app)).then((rows) => rows.map((r) => r.sheet as Sheet));
const sheetOf = async (who: Asker, id: string) => (await radiosOf(who)).find((r) => r.id === id);
const ownSheet = async (id: string, name: string): Promise<Sheet> => ({ ...(await radiosOf(a))[0]!, id, name });
const save = (who: Asker, ...radios: Sheet[]) => asAsker(who, () => saveHardware(app, { radios, source: "own" }));

describe("data sheets", () => {
  test("that ship are everybody's; one's own are nobody else's, also under the same id", async () => {
    const id = `two-firms-${process.pid}`;
    const before = (await radiosOf(b)).length;
    expect(before).toBeGreaterThan(3);
    const keyOfB = await asAsker(b, () => hardwareKey(app));
    await save(a, await ownSheet(id, "Of A"));
    expect(await sheetOf(b, id)).toBeUndefined();
    expect(await asAsker(b, () => hardwareKey(app))).toBe(keyOfB);
    await save(b, await ownSheet(id, "Of B"));
    expect([(await sheetOf(a, id))?.name, (await sheetOf(b, id))?.name]).toEqual(["Of A", "Of B"]);
    expect((await radiosOf(b)).length).toBe(before + 1);
  });

  test("a shipped one that a firm counts or changes is its own copy: nobody else's count, and back where it was when taken back", async () => {
    const [shipped] = await radiosOf(b);
    const { id } = shipped!;
    await asAsker(a, () => markSheet(app, "radio", id, { stock: 7 }));
    expect((await sheetOf(a, id))?.stock).toBe(7);
    expect(await sheetOf(b, id)).toEqual(shipped);
    expect((await radiosOf(a)).filter((r) => r.id === id).length).toBe(1);
    const [step] = await asAsker(a, () => hardwareHistory(app));
    expect(step?.names).toEqual([shipped!.name]);
    expect((await asAsker(b, () => hardwareHistory(app))).some((s) => s.step === step!.step)).toBe(false);
    await expect(asAsker(b, () => stepHardware(app, step!.step))).rejects.toMatchObject({ entity: "edit" });
    await asAsker(a, () => stepHardware(app, step!.step));
    expect(await sheetOf(a, id)).toEqual(shipped);
  });

  test("what a firm counts is taken from its own count", async () => {
    const [part] = await asAsker(a, () => listParts(app));
    const { id } = part!;
    await asAsker(a, () => markSheet(app, "part", id, { stock: 2 }));
    await asAsker(b, () => markSheet(app, "part", id, { stock: 2 }));
    const take = (who: Asker, n: number) => asAsker(who, () => app.transaction((tx) => moveStock(tx, id, n)));
    expect(await take(a, 2)).toBe(true);
    await expect(take(a, 1)).rejects.toMatchObject({ code: "none-left" });
    expect(await take(b, 1)).toBe(true);
  });

  test("what ships anew reaches every firm, also where it is counted, and leaves the count", async () => {
    const [first] = await radiosOf(b);
    const shipped = { radios: (await radiosOf(b)).slice(0, 1), antennas: [], parts: [] };
    // As a start of the program has it: first what ships, then what firms have copies of.
    await asAsker(a, () => saveHardware(app, { radios: [{ ...first!, stock: 3 } as Sheet], source: "catalogue" }));
    const changed = { ...shipped, radios: [{ ...shipped.radios[0]!, name: `${first!.name} 2` }] };
    const asOwner = <T>(firm: string, work: (db: Db) => Promise<T>) => asAsker(programFor(firm), () => work(all));
    expect(await asOwner(NO_FIRM, (db) => refreshShipped(db, changed))).toBe(1);
    expect(await asOwner(a.organisationId, (db) => refreshShipped(db, changed, false))).toBe(1);
    expect(await asOwner(b.organisationId, (db) => refreshShipped(db, changed, false))).toBe(0);
    expect(await sheetOf(a, first!.id)).toEqual({ ...first, name: `${first!.name} 2`, stock: 3 });
    expect(await sheetOf(b, first!.id)).toEqual({ ...first, name: `${first!.name} 2` });
    await asOwner(NO_FIRM, (db) => refreshShipped(db, shipped));
  });

  test("of another firm stand in no design", async () => {
    const id = `only-a-${process.pid}`;
    await save(a, await ownSheet(id, "Only of A"));
    const at = { latDeg: 43.5, lonDeg: -36 };
    const linkWith = (who: Asker, radioId: string) =>
      asAsker(who, async () => {
        const job = await createJob(app, "Sheets", { centreLatDeg: at.latDeg, centreLonDeg: at.lonDeg });
        const near = await create(app, job.id, "site", { name: "Near", ...at, mountAglM: 6 });
        const far = await create(app, job.id, "site", { name: "Far", ...destination(at, 90, 800), mountAglM: 6 });
        const design = firstDesign(jobDto(job), await hardwareDto(app), near, far)!;
        return createLink(app, job.id, { nearSiteId: near.id, farSiteId: far.id, label: "", design: { ...design, nearRadioId: radioId } });
      });
    expect((await linkWith(a, id)).id).toBeTruthy();
    expect(await linkWith(b, id).catch(isBrokenReference)).toBe(true);
    expect(await linkWith(b, `no-such-${process.pid}`).catch(isBrokenReference)).toBe(true);
  });

  test("changed by somebody who was given one job make stale what rests on them in the others", async () => {
    const id = `all-jobs-${process.pid}`;
    await save(a, await ownSheet(id, "In a job not given"));
    const at = { latDeg: 43.6, lonDeg: -36 };
    const linkId = await asAsker(a, async () => {
      const job = await createJob(app, "Not given", { centreLatDeg: at.latDeg, centreLonDeg: at.lonDeg });
      const near = await create(app, job.id, "site", { name: "Near", ...at, mountAglM: 6 });
      const far = await create(app, job.id, "site", { name: "Far", ...destination(at, 90, 800), mountAglM: 6 });
      const design = firstDesign(jobDto(job), await hardwareDto(app), near, far)!;
      return (await createLink(app, job.id, { nearSiteId: near.id, farSiteId: far.id, label: "", design: { ...design, nearRadioId: id } }))
        .id;
    });
    const wantOf = async () =>
      (await all.execute<{ want: string }>(sql`SELECT want FROM link_verdict WHERE link_id = ${linkId}`)).rows[0]!.want;
    const before = Number(await wantOf());
    const given = await asAsker(a, () => createJob(app, "Given", { centreLatDeg: at.latDeg, centreLonDeg: at.lonDeg }));
    const limited: Asker = { ...a, role: "planner", jobIds: [given.id] };
    await save(limited, { ...(await ownSheet(id, "In a job not given")), bandKey: "5-ghz-other" });
    expect(Number(await wantOf())).toBe(before + 1);
    // Nor does it go while it stands there.
    const [first] = (await asAsker(a, () => hardwareHistory(app))).filter((s) => s.names.includes("In a job not given") && s.made);
    const [last] = (await asAsker(a, () => hardwareHistory(app))).filter((s) => s.names.includes("In a job not given") && !s.made);
    await asAsker(limited, () => stepHardware(app, last!.step));
    await expect(asAsker(limited, () => stepHardware(app, first!.step))).rejects.toMatchObject({ code: "hardware-in-use" });
  });
});

describe("ground", () => {
  const at = { latDeg: 0.5, lonDeg: -29.5 };
  const box = { westDeg: -30, southDeg: 0, eastDeg: -29, northDeg: 1 };
  const grid = (heightM: number) => new Float32Array(100).fill(heightM);
  const bring = (who: Asker, heightM: number) =>
    asAsker(who, () =>
      insertDataset(
        app,
        {
          name: `of ${heightM}`,
          kind: "dtm",
          crs: "EPSG:4326",
          originX: -29.55,
          originY: 0.55,
          stepX: 0.01,
          stepY: -0.01,
          cols: 10,
          rows: 10,
          cellM: 1000,
          sigmaM: 1,
          verticalDatum: "mean sea level",
          source: "test",
        },
        grid(heightM),
      ),
    );
  const groundAt = async (who: Asker): Promise<number | null> => {
    let heightM: number | null = null;
    await asAsker(who, () =>
      eachPlace(app, [at], (_i, grids) => {
        heightM = grids[0]?.tile(0, 0)?.[0] ?? null;
      }),
    );
    return heightM;
  };

  test("that one firm brought in lies beneath its own links alone", async () => {
    expect([await groundAt(a), await groundAt(b)]).toEqual([null, null]);
    const ofA = await bring(a, 11);
    expect([await groundAt(a), await groundAt(b)]).toEqual([11, null]);
    await bring(b, 22);
    expect([await groundAt(a), await groundAt(b)]).toEqual([11, 22]);
    expect((await asAsker(b, () => datasetsIn(app, box))).map((d) => d.name)).toEqual(["of 22"]);
    expect(await asAsker(b, () => datasetsById(app, [ofA]))).toEqual([]);
    expect((await asAsker(a, () => datasetsById(app, [ofA]))).length).toBe(1);
  });

  test("that ships lies beneath everybody's, and is made by the program alone", async () => {
    const foreign = asAsker(a, () => app.execute(sql`UPDATE terrain_dataset SET organisation_id = ${NO_FIRM}`));
    await expect(foreign).rejects.toMatchObject({ cause: { message: expect.stringMatching(/row-level security/) } });
  });
});

test("a verdict that waits says whose it is: the worker works for that firm", async () => {
  const firms = await all.execute<{ ok: boolean }>(sql`
    SELECT bool_and(v.organisation_id = j.organisation_id) AS ok FROM link_verdict v JOIN job j ON j.id = v.job_id`);
  expect(firms.rows[0]!.ok).toBe(true);
});

test("a job that moves to another firm of the same server is a new one there, and the first one stays as it is", async () => {
  const home = programFor((await firstOrganisation(all)).id);
  const from = await asAsker(home, async () => {
    const [demo] = (await listJobs(app)).sort((x, y) => x.number - y.number);
    return { job: demo!, bytes: await bundleBytes(app, demo!), links: (await linksOf(app, demo!.id)).length };
  });
  const url = process.env.DATABASE_WORKER_URL!;
  const worker = openDb(url);
  const pool = new Pool({ connectionString: url, max: 2 });
  try {
    const taken = await asAsker(b, () => takeBundle(worker.db, pool, from.bytes, false));
    expect([taken.state, taken.fault]).toEqual(["done", null]);
    expect(taken.jobId).not.toBe(from.job.id);
    const there = await asAsker(b, async () => ({
      job: await getJob(app, taken.jobId!),
      links: (await linksOf(app, taken.jobId!)).length,
    }));
    expect(there).toMatchObject({ job: { name: from.job.name, organisationId: b.organisationId }, links: from.links });
    // Its ground came along: the first firm's is not beneath it.
    const grounds = await asAsker(b, () => datasetsIn(app, { westDeg: -180, southDeg: -90, eastDeg: 180, northDeg: 90 }));
    expect(grounds.length).toBeGreaterThan(1);
    expect(grounds.every((d) => d.organisationId === b.organisationId)).toBe(true);
    // Again: under the first id it is another firm's still, so that this is one more.
    const again = await asAsker(b, () => takeBundle(worker.db, pool, from.bytes, false));
    expect(again.state).toBe("done");
    expect(again.jobId).not.toBe(taken.jobId);
    expect(await asAsker(home, () => getJob(app, from.job.id))).toMatchObject({ version: from.job.version, revision: from.job.revision });
  } finally {
    await pool.end();
    await worker.close();
  }
});
