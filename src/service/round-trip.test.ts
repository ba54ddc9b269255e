import { execFileSync } from "node:child_process";
import { createHash } from "node:crypto";
import { mkdirSync, mkdtempSync, rmSync, writeFileSync } from "node:fs";
import { tmpdir } from "node:os";
import path from "node:path";
import { sql } from "drizzle-orm";
import { strFromU8, unzipSync, zipSync } from "fflate";
import { Pool } from "pg";
import { afterAll, beforeAll, describe, expect, test } from "vitest";
import { type ImportOptions, obstacleFieldsSchema } from "../contract";
import { type Db, openDb } from "../data/client";
import { getImport, removeImport } from "../data/imports";
import { getJob, type JobRow, listJobs, sitesOf } from "../data/jobs";
import { migrateDb } from "../data/migrate";
import { featuresOf, obstaclesOf } from "../data/obstacles";
import { create, createJob } from "../data/testing/edits";
import { hashedName } from "../formats";
import { runImport } from "../jobs/run-import";
import { askImport, bundleBytes, exportText, takeBundle } from "../jobs/testing/bring";
import { obstacleDto, siteDto } from "./dto";
import type { ExportFormat, ExportWhat } from "./export";
import { verdictsOf } from "./verdicts";

/* Every export taken in again equals the original; a whole job moves to another database and back. */
const url = process.env.DATABASE_TEST_URL;
if (url === undefined) throw new Error("DATABASE_TEST_URL is not set; run npm test");
const dir = mkdtempSync(path.join(tmpdir(), "dry-arc-trip-"));
const EVERYWHERE = { westDeg: -180, southDeg: -90, eastDeg: 180, northDeg: 90 };
let db: Db;
let close: () => Promise<void>;
let pool: Pool;
let demo: JobRow;

beforeAll(async () => {
  process.env.DRYARC_FILES ??= path.join(dir, "files");
  mkdirSync(process.env.DRYARC_FILES, { recursive: true });
  ({ db, close } = openDb(url));
  pool = new Pool({ connectionString: url, max: 2 });
  demo = (await listJobs(db)).find((j) => j.name === "Merrow Harbour Trust")!;
});
afterAll(async () => {
  await pool.end();
  await close();
  rmSync(dir, { recursive: true, force: true });
});

const emptyJob = (name: string): Promise<JobRow> => createJob(db, name, { centreLatDeg: 47.3, centreLonDeg: -19.4 });

const takeIn = async (job: JobRow, name: string, text: string, options: ImportOptions): Promise<void> => {
  const id = await askImport(db, job.id, name, Buffer.from(text), options);
  await runImport(db, pool, id);
  const done = await getImport(db, id);
  expect(done.fault).toBeNull();
  expect(done.result).toMatchObject({ refused: 0 });
};

const shared = { epsg: null, nameColumn: null };
const OPTIONS: Readonly<Record<"sites" | "obstacles" | "features", ImportOptions>> = {
  sites: { what: "sites", ...shared, heightColumn: null, heightUnit: "m", heightDefaultM: 1 },
  obstacles: {
    what: "obstacles",
    ...shared,
    kind: "wall",
    kindColumn: null,
    heightColumn: null,
    heightUnit: "m",
    heightDefaultM: null,
    heightSigmaM: 9,
    growthMPerYear: 3,
    widthM: 1,
    freeBelowM: 0,
    surveyedOn: "1999-01-01",
  },
  features: { what: "features", ...shared, nameColumn: "name" },
};

/** Nine decimals of a degree are a tenth of a millimetre: what the files keep. An outline may start and turn anywhere. */
const ringKey = (ring: readonly (readonly [number, number])[]): string =>
  ring
    .map(([x, y]) => `${x.toFixed(9)},${y.toFixed(9)}`)
    .sort()
    .join(" ");

const contents = async (jobId: string, what: ExportWhat): Promise<string[]> => {
  if (what === "sites") {
    return (await sitesOf(db, jobId))
      .map((row) => {
        const { id: _i, version: _v, latDeg, lonDeg, ...rest } = siteDto(row);
        return JSON.stringify({ at: [latDeg.toFixed(9), lonDeg.toFixed(9)], ...Object.fromEntries(Object.entries(rest).sort()) });
      })
      .sort();
  }
  if (what === "obstacles") {
    return (await obstaclesOf(db, jobId, EVERYWHERE, 1e6)).rows
      .map((row) => {
        const { id: _i, version: _v, outline, ...rest } = obstacleDto(row);
        return JSON.stringify({ ring: ringKey(outline), ...Object.fromEntries(Object.entries(rest).sort()) });
      })
      .sort();
  }
  return (await featuresOf(db, jobId))
    .map((f) => JSON.stringify([f.name, f.points.map((p) => [p.latDeg.toFixed(9), p.lonDeg.toFixed(9)])]))
    .sort();
};

describe("a part of a job, out and in again", () => {
  test.each([
    ["sites", "geojson"],
    ["sites", "kml"],
    ["sites", "csv"],
    ["obstacles", "geojson"],
    ["obstacles", "kml"],
    ["obstacles", "csv"],
    ["features", "geojson"],
    ["features", "kml"],
    ["features", "csv"],
    ["features", "gpx"],
  ] as const)("%s as %s", async (what, format) => {
    const file = await exportText(db, demo, what, format as ExportFormat);
    const job = await emptyJob(`${what} by ${format}`);
    await takeIn(job, file.name, file.text, OPTIONS[what]);
    const [went, came] = [await contents(demo.id, what), await contents(job.id, what)];
    expect(went.length).toBeGreaterThan(3);
    expect(came).toEqual(went);
  });

  test("OGR opens every one of them and counts the same", async () => {
    for (const what of ["sites", "links", "obstacles", "features"] as const) {
      for (const format of ["geojson", "kml", "gpx", "csv"] as const) {
        const file = await exportText(db, demo, what, format);
        const at = path.join(dir, file.name);
        writeFileSync(at, file.text);
        const info = execFileSync("ogrinfo", ["-ro", "-so", "-al", at], { encoding: "utf8" });
        const counted = [...info.matchAll(/Feature Count: (\d+)/g)].map((m) => Number(m[1]));
        const expected = what === "links" ? 14 : (await contents(demo.id, what)).length;
        // GPX tells a route's points and a track's points as layers of their own.
        expect(
          format === "gpx" ? counted.includes(expected) || counted[0]! + counted[1]! === expected : counted[0] === expected,
          `${what} ${format}: ${counted}`,
        ).toBe(true);
      }
    }
  });
});

describe("a whole job", () => {
  const elsewhere = "elsewhere";
  let other: { db: Db; pool: Pool; close: () => Promise<void> };
  beforeAll(async () => {
    execFileSync("node", ["bin/db.mjs", "start", elsewhere], { stdio: "ignore" });
    const address = execFileSync("node", ["bin/db.mjs", "url", elsewhere, "admin"], { encoding: "utf8" }).trim();
    other = { ...openDb(address), pool: new Pool({ connectionString: address, max: 2 }) };
    await migrateDb(other.db);
  });
  afterAll(async () => {
    await other.pool.end();
    await other.close();
    execFileSync("node", ["bin/db.mjs", "stop", elsewhere], { stdio: "ignore" });
    rmSync(path.join(".data", elsewhere), { recursive: true, force: true });
  });

  test("moves to another database: the same bytes come out there, and the same verdicts", async () => {
    const [first] = await sitesOf(db, demo.id);
    const about = { siteId: first!.id, fromWhere: "antenna height" as const, bearingDeg: 78, takenOn: "2026-07-15" };
    const photo = { ...about, note: "towards the rope walk", mime: "image/jpeg" as const };
    await create(db, demo.id, "photo", photo, Buffer.from([0xff, 0xd8, 0xff, 1, 2, 3]));
    const out = await bundleBytes(db, await getJob(db, demo.id));
    const first_ = await takeBundle(other.db, other.pool, out, false);
    expect(first_.fault).toBeNull();
    const jobId = demo.id;
    expect(first_).toMatchObject({ state: "done", jobId, result: { jobId, differing: [] } });
    const back = await bundleBytes(other.db, await getJob(other.db, jobId));
    const [a, b] = [unzipSync(out), unzipSync(back)];
    expect(Object.keys(b).sort()).toEqual(Object.keys(a).sort());
    for (const name of Object.keys(a)) expect(Buffer.compare(Buffer.from(a[name]!), Buffer.from(b[name]!)), name).toBe(0);
    expect(Buffer.compare(Buffer.from(out), Buffer.from(back))).toBe(0);

    // The part of a grid begins elsewhere, so the last digits of its positions differ; on the 19 km path that changes
    // which of equal points are thinned, and the diffraction by a hundredth of a decibel.
    const rounded = (_k: string, v: unknown): unknown => (typeof v === "number" ? v.toFixed(1) : v);
    // Names of strangers' networks leave hashed.
    const hashed = (text: string): string => text.replaceAll("Sail loft", hashedName("Sail loft"));
    const verdicts = async (d: Db) =>
      (await verdictsOf(d, await getJob(d, jobId))).map(({ changedAt: _c, ...v }) => hashed(JSON.stringify(v, rounded)));
    const [here, there] = [await verdicts(db), await verdicts(other.db)];
    expect(here).toHaveLength(14);
    expect(there).toEqual(here);
    // The terrain inside is what any program opens.
    const tif = Object.keys(a).find((n) => n.endsWith(".tif"))!;
    writeFileSync(path.join(dir, "part.tif"), a[tif]!);
    expect(execFileSync("gdalinfo", [path.join(dir, "part.tif")], { encoding: "utf8" })).toContain("UTM zone 27N");

    expect((await takeBundle(other.db, other.pool, out, false)).fault).toMatch(/is here already/);
    const copy = await takeBundle(other.db, other.pool, out, true);
    expect(copy.jobId).not.toBe(jobId);
    expect((await verdictsOf(other.db, await getJob(other.db, copy.jobId!))).map((v) => v.verdict)).toEqual(
      (await verdictsOf(db, await getJob(db, jobId))).map((v) => v.verdict),
    );
  });

  test("a changed byte, a missing part or a foreign zip is refused by name, and nothing is written", async () => {
    const out = unzipSync(await bundleBytes(db, await getJob(db, demo.id)));
    const jobs = async () => Number((await other.db.execute<{ n: string }>(sql`SELECT count(*) AS n FROM job`)).rows[0]!.n);
    const before = await jobs();
    const refused = async (files: Record<string, Uint8Array>, reason: RegExp) => {
      expect(await takeBundle(other.db, other.pool, zipSync(files, { level: 1 }), true)).toMatchObject({
        state: "failed",
        fault: expect.stringMatching(reason),
      });
    };
    const sites = strFromU8(out["sites.json"]!);
    await refused(
      { ...out, "sites.json": Buffer.from(sites.replace("Ice House", "Ice Mouse")) },
      /sites\.json inside it was changed or damaged/,
    );
    const { "links.json": _gone, ...without } = out;
    await refused(without, /lacks links\.json/);
    await refused({ "hello.txt": Buffer.from("hello") }, /lacks manifest\.json/);
    expect((await takeBundle(other.db, other.pool, Buffer.from("no zip"), false)).fault).toMatch(/no archive/);
    expect(await jobs()).toBe(before);
  });

  test("a refused bundle changes nothing: no ground, no hardware, no job", async () => {
    const out = unzipSync(await bundleBytes(db, await getJob(db, demo.id)));
    const tables = [
      "job",
      "site",
      "link",
      "design",
      "obstacle",
      "feature",
      "photo",
      "terrain_dataset",
      "terrain_tile",
      "radio",
      "antenna",
      "change",
    ];
    const counts = async (): Promise<string> => {
      const r = await other.db.execute<{ n: string }>(
        sql.raw(`SELECT concat_ws(' ', ${tables.map((t) => `(SELECT count(*) FROM ${t})`).join(", ")}) AS n`),
      );
      return r.rows[0]!.n;
    };
    await other.db.execute(
      sql`DELETE FROM antenna WHERE id NOT IN (SELECT near_antenna_id FROM design WHERE near_antenna_id IS NOT NULL UNION SELECT far_antenna_id FROM design WHERE far_antenna_id IS NOT NULL)`,
    );
    const before = await counts();
    // All is well but the very last thing that is written: a link between a site and itself.
    const links = JSON.parse(strFromU8(out["links.json"]!)) as { id: string; number: number }[];
    links[1]!.number = links[0]!.number;
    const changed = Buffer.from(JSON.stringify(links));
    const manifest = JSON.parse(strFromU8(out["manifest.json"]!)) as { files: Record<string, { bytes: number; sha256: string }> };
    manifest.files["links.json"] = { bytes: changed.length, sha256: createHash("sha256").update(changed).digest("hex") };
    const zip = zipSync({ ...out, "links.json": changed, "manifest.json": Buffer.from(JSON.stringify(manifest)) }, { level: 1 });
    expect((await takeBundle(other.db, other.pool, zip, true)).state).toBe("failed");
    expect(await counts()).toBe(before);
  });

  test("terrain of the same id but another extent comes in beside what is here, and hides none of it", async () => {
    const out = await bundleBytes(db, await getJob(db, demo.id));
    const [first] = (
      await other.db.execute<{ id: string }>(sql`SELECT id FROM terrain_dataset WHERE deleted_at IS NULL ORDER BY cell_m LIMIT 1`)
    ).rows;
    // What is here under that id now lies elsewhere.
    await other.db.execute(sql`UPDATE terrain_dataset SET origin_x = origin_x + 40000 WHERE id = ${first!.id}`);
    const taken = await takeBundle(other.db, other.pool, out, true);
    expect(taken).toMatchObject({ state: "done", fault: null });
    const came = await other.db.execute<{ id: string }>(sql`SELECT id FROM terrain_dataset WHERE import_id = ${taken.id}`);
    expect(came.rows).toHaveLength(1);
    expect(came.rows[0]!.id).not.toBe(first!.id);
    expect((await verdictsOf(other.db, await getJob(other.db, taken.jobId!))).map((v) => v.verdict)).toEqual(
      (await verdictsOf(db, await getJob(db, demo.id))).map((v) => v.verdict),
    );
    // It goes as one: the job, and the ground that came with it; and comes back as one.
    await removeImport(other.db, taken.id, true);
    await expect(getJob(other.db, taken.jobId!)).rejects.toThrow(/does not exist/);
    const left = async () =>
      (await other.db.execute(sql`SELECT id FROM terrain_dataset WHERE import_id = ${taken.id} AND deleted_at IS NULL`)).rows.length;
    expect(await left()).toBe(0);
    await removeImport(other.db, taken.id, false);
    expect((await getJob(other.db, taken.jobId!)).id).toBe(taken.jobId);
    expect(await left()).toBe(1);
  });

  test("courtyards go along", async () => {
    const job = await emptyJob("Courtyard");
    const at = (x: number, y: number): [number, number] => [-19.4 + x / 1e4, 47.3 + y / 1e4];
    const holes = [[at(3, 3), at(6, 3), at(6, 6), at(3, 6)]];
    const fields = obstacleFieldsSchema.parse({
      kind: "building",
      outline: [at(0, 0), at(9, 0), at(9, 9), at(0, 9)],
      holes,
      heightM: 8,
      surveyedOn: "2026-01-01",
    });
    await create(db, job.id, "obstacle", fields);
    const there = await takeBundle(other.db, other.pool, await bundleBytes(db, job), false);
    const rows = (await obstaclesOf(other.db, there.jobId!, EVERYWHERE, 10)).rows.map(obstacleDto);
    expect(rows.map((o) => o.holes.map((h) => h.map(([x, y]) => [Number(x.toFixed(6)), Number(y.toFixed(6))])))).toEqual([
      holes.map((h) => h.map(([x, y]) => [Number(x.toFixed(6)), Number(y.toFixed(6))])),
    ]);
    for (const format of ["geojson", "kml", "csv"] as const) {
      const again = await emptyJob(`Courtyard by ${format}`);
      const file = await exportText(db, job, "obstacles", format);
      await takeIn(again, file.name, file.text, OPTIONS.obstacles);
      expect(
        (await obstaclesOf(db, again.id, EVERYWHERE, 10)).rows.map((o) => o.holes.length),
        format,
      ).toEqual([1]);
    }
  });
});
