import { type ChildProcess, execFileSync, spawn } from "node:child_process";
import { existsSync, mkdirSync, mkdtempSync, readFileSync, rmSync, writeFileSync } from "node:fs";
import { tmpdir } from "node:os";
import path from "node:path";
import { sql } from "drizzle-orm";
import { Pool } from "pg";
import { afterAll, afterEach, beforeAll, describe, expect, test } from "vitest";
import type { ImportOptions } from "../contract";
import { pathFrame } from "../core/geo";
import { sampleGround } from "../core/terrain";
import { asClient } from "../data/actor";
import { Refused } from "../data/clash";
import { type Db, openDb } from "../data/client";
import { filePath } from "../data/files";
import { redoLast, undoLast } from "../data/history";
import { createUpload, forgetOldUploads, forgetUpload, getImport, removeImport, stopImport } from "../data/imports";
import { type JobRow, sitesOf } from "../data/jobs";
import { gridsAlong } from "../data/terrain-store";
import { create, createJob } from "../data/testing/edits";
import { gridToGeoTiff } from "../formats";
import { removeLeftFiles } from "./left-files";
import { runImport } from "./run-import";
import { askImport } from "./testing/bring";

/* On the real database of the test command; the worker is the real process, and is killed. */
const url = process.env.DATABASE_TEST_URL;
if (url === undefined) throw new Error("DATABASE_TEST_URL is not set; run npm test");
let db: Db;
let close: () => Promise<void>;
let pool: Pool;
let job: JobRow;
let worker: ChildProcess | null = null;
const dir = mkdtempSync(path.join(tmpdir(), "dry-arc-imports-"));

const openAll = (): void => {
  ({ db, close } = openDb(url));
  pool = new Pool({ connectionString: url, max: 2 });
  pool.on("error", () => undefined);
};
beforeAll(async () => {
  process.env.DRYARC_FILES ??= path.join(dir, "files");
  mkdirSync(process.env.DRYARC_FILES, { recursive: true });
  openAll();
  job = await createJob(db, "Imports", { centreLatDeg: 46, centreLonDeg: -25 });
});
afterEach(() => {
  worker?.kill("SIGKILL");
  worker = null;
});
afterAll(async () => {
  // What was brought in lies far from the demo, and is taken away all the same.
  await db.execute(sql`UPDATE terrain_dataset SET deleted_at = now() WHERE import_id IS NOT NULL`);
  await pool.end();
  await close();
  rmSync(dir, { recursive: true, force: true });
});

const startWorker = (): ChildProcess => {
  worker = spawn("node", ["build/worker.mjs"], {
    env: { ...process.env, DATABASE_URL: process.env.DATABASE_WORKER_URL },
    stdio: "ignore",
    detached: true,
  });
  const made = worker;
  made.kill = (signal) => {
    try {
      // Its readers are processes of their own: the whole group goes.
      process.kill(-made.pid!, signal ?? "SIGKILL");
    } catch {
      return false;
    }
    return true;
  };
  return made;
};

const brought = (name: string, bytes: Uint8Array, options: ImportOptions): Promise<string> => askImport(db, job.id, name, bytes, options);

const until = async <T>(ask: () => Promise<T>, good: (v: T) => boolean, what: string): Promise<T> => {
  const end = Date.now() + 60_000;
  for (;;) {
    const value = await ask().catch(() => null);
    if (value !== null && good(value)) return value;
    if (Date.now() > end) throw new Error(`waited in vain for ${what}: ${JSON.stringify(value)}`);
    await new Promise((resolve) => setTimeout(resolve, 50));
  }
};
const stateOf = (id: string) => getImport(db, id).then((r) => r.state);
const count = async (text: string): Promise<number> => Number((await db.execute<{ n: string }>(sql.raw(text))).rows[0]!.n);

const COLS = 3000;
const ROWS = 2400;
const hill = (c: number, r: number): number => Math.fround(100 + 30 * Math.sin(c / 40) + 20 * Math.cos(r / 31));
let made: Uint8Array | null = null;
const bigTerrain = (): Uint8Array => {
  made ??= gridToGeoTiff({
    values: Float32Array.from({ length: COLS * ROWS }, (_, i) => hill(i % COLS, Math.floor(i / COLS))),
    cols: COLS,
    rows: ROWS,
    originX: 500_000,
    originY: 5_100_000,
    stepX: 10,
    stepY: -10,
    epsg: 32626,
  });
  return made;
};
const TERRAIN: ImportOptions = {
  what: "terrain",
  name: "Test grid",
  epsg: null,
  kind: "dtm",
  verticalUnit: "m",
  verticalDatum: "ellipsoid",
  datumOffsetM: -50,
  sigmaM: 0.5,
};
const OBSTACLES: ImportOptions = {
  what: "obstacles",
  epsg: null,
  nameColumn: "name",
  kind: "building",
  kindColumn: null,
  heightColumn: "h",
  heightUnit: "ft",
  heightDefaultM: null,
  heightSigmaM: 1,
  growthMPerYear: 0,
  widthM: 4,
  freeBelowM: 0,
  surveyedOn: "2026-01-01",
};
const footprints = (n: number): Uint8Array => {
  const features = Array.from({ length: n }, (_, i) => {
    const [x, y] = [-25 + (i % 400) * 0.0005, 46 + Math.floor(i / 400) * 0.0005];
    const ring = [
      [x, y],
      [x + 0.0002, y],
      [x + 0.0002, y + 0.0002],
      [x, y + 0.0002],
      [x, y],
    ];
    return JSON.stringify({
      type: "Feature",
      properties: { name: `House ${i}`, h: i % 100 === 7 ? "tall" : 10 + (i % 20) },
      geometry: { type: "Polygon", coordinates: [ring] },
    });
  });
  return Buffer.from(`{"type":"FeatureCollection","features":[${features.join(",")}]}`);
};

/** Heights along a path across the test grid as the database gives them. */
const alongGrid = async () => {
  const near = { latDeg: 46.0, lonDeg: -26.9 };
  const far = { latDeg: 45.95, lonDeg: -26.75 };
  const frame = pathFrame(near, far);
  const points = Array.from({ length: 41 }, (_, i) => frame.at((frame.lengthM * i) / 40));
  return { frame, ground: sampleGround(frame, await gridsAlong(db, points)) };
};

/** The server killed as a power cut would, and started again; this test's own connections with it. */
const killDatabase = async (): Promise<void> => {
  const pid = Number(readFileSync(".data/test/pg/postmaster.pid", "utf8").split("\n")[0]);
  process.kill(pid, "SIGKILL");
  await close().catch(() => undefined);
  await pool.end().catch(() => undefined);
  for (let i = 0; ; i++) {
    try {
      execFileSync("node", ["bin/db.mjs", "start", "test"], { stdio: "ignore" });
      break;
    } catch (error) {
      // Children of the killed server let go of its memory a moment later.
      if (i > 20) throw error;
      await new Promise((resolve) => setTimeout(resolve, 500));
    }
  }
  openAll();
};

describe("terrain", () => {
  test("a worker killed half way leaves nothing visible; the next one goes on and finishes", async () => {
    const id = await brought("grid.tif", bigTerrain(), TERRAIN);
    startWorker();
    await until(
      () => getImport(db, id),
      (r) => r.doneShare > 0.15 && r.doneShare < 1,
      "a part of the import",
    );
    worker?.kill("SIGKILL");
    const half = await count(
      `SELECT count(*) AS n FROM terrain_tile t JOIN terrain_dataset d ON d.id = t.dataset_id WHERE d.import_id = '${id}'`,
    );
    expect(half).toBeGreaterThan(0);
    expect((await alongGrid()).ground.groundAmslM.every((h) => Number.isNaN(h))).toBe(true);

    startWorker();
    await until(
      () => stateOf(id),
      (s) => s === "done",
      "the end of the import",
    );
    expect(
      await count(`SELECT count(*) AS n FROM terrain_tile t JOIN terrain_dataset d ON d.id = t.dataset_id WHERE d.import_id = '${id}'`),
    ).toBe(12 * 10);
    expect(await count(`SELECT count(*) AS n FROM terrain_dataset WHERE import_id = '${id}' AND ready`)).toBe(1);
    // Every height as it was in the file, its datum's offset added.
    const { frame, ground } = await alongGrid();
    const { planeProjection } = await import("../core/geo");
    const utm = planeProjection("EPSG:32626");
    let checked = 0;
    ground.distanceM.forEach((d, i) => {
      const [x, y] = utm.forward(frame.at(d));
      const [c, r] = [(x - 500_000) / 10, (5_100_000 - y) / 10];
      const [c0, r0] = [Math.floor(c), Math.floor(r)];
      const [u, v] = [c - c0, r - r0];
      const hand =
        (hill(c0, r0) * (1 - u) + hill(c0 + 1, r0) * u) * (1 - v) + (hill(c0, r0 + 1) * (1 - u) + hill(c0 + 1, r0 + 1) * u) * v - 50;
      expect(Math.abs(ground.groundAmslM[i]! - hand)).toBeLessThan(0.01);
      checked++;
    });
    expect(checked).toBeGreaterThan(500);
    await removeImport(db, id, true);
    expect((await alongGrid()).ground.groundAmslM.every((h) => Number.isNaN(h))).toBe(true);
    await removeImport(db, id, false);
    expect((await alongGrid()).ground.groundAmslM.some((h) => Number.isNaN(h))).toBe(false);
    await removeImport(db, id, true);
  });

  test("the database killed in the middle: the same worker finishes when it is back", async () => {
    const id = await brought("again.tif", bigTerrain(), { ...TERRAIN, name: "Again" });
    startWorker();
    await until(
      () => getImport(db, id),
      (r) => r.doneShare > 0.15 && r.doneShare < 1,
      "a part of the import",
    );
    await killDatabase();
    await until(
      () => stateOf(id),
      (s) => s === "done",
      "the end of the import",
    );
    expect(
      await count(`SELECT count(*) AS n FROM terrain_tile t JOIN terrain_dataset d ON d.id = t.dataset_id WHERE d.import_id = '${id}'`),
    ).toBe(120);
    await removeImport(db, id, true);
  });

  test("a stopped import leaves nothing behind; a spoilt file says why", async () => {
    const id = await brought("stop.tif", bigTerrain(), TERRAIN);
    const running = runImport(db, pool, id);
    await until(
      () => getImport(db, id),
      (r) => r.doneShare > 0.05,
      "its first tiles",
    );
    await stopImport(db, id);
    await running;
    expect(await stateOf(id)).toBe("stopped");
    expect(await count(`SELECT count(*) AS n FROM terrain_dataset WHERE import_id = '${id}'`)).toBe(0);
    const bad = await brought("bad.tif", bigTerrain().subarray(0, 4000), TERRAIN);
    await runImport(db, pool, bad);
    expect(await getImport(db, bad)).toMatchObject({ state: "failed", fault: expect.stringMatching(/cut off|beyond the end/) });
  });
});

describe("footprints", () => {
  test("killed in the middle none is there; then all, and the bad ones listed by row", async () => {
    const id = await brought("houses.geojson", footprints(60_000), OBSTACLES);
    const rows = () => count(`SELECT count(*) AS n FROM obstacle WHERE import_id = '${id}' AND deleted_at IS NULL`);
    startWorker();
    await until(
      () => getImport(db, id),
      (r) => r.doneShare > 0.05 && r.doneShare < 1,
      "a part of the import",
    );
    worker?.kill("SIGKILL");
    expect(await rows()).toBe(0);
    startWorker();
    await until(
      () => stateOf(id),
      (s) => s === "done",
      "the end of the import",
    );
    expect(await rows()).toBe(59_400);
    const { result } = await getImport(db, id);
    expect(result).toMatchObject({ kept: 59_400, refused: 600 });
    expect((result as { faults: { row: number; reason: string }[] }).faults[0]).toEqual({ row: 8, reason: '"tall" is no height' });
    // Feet became metres; there is no ground there, so none was made up.
    const [one] = (
      await db.execute<{ height_m: number; base_amsl_m: number | null }>(
        sql`SELECT height_m, base_amsl_m FROM obstacle WHERE import_id = ${id} AND name = 'House 5'`,
      )
    ).rows;
    expect(one!.height_m).toBeCloseTo(15 * 0.3048, 9);
    expect(one!.base_amsl_m).toBeNull();
    await removeImport(db, id, true);
    expect(await rows()).toBe(0);
  });
});

test("footprints with the database killed in the middle: none is there, then all", async () => {
  const id = await brought("again.geojson", footprints(60_000), OBSTACLES);
  const rows = () => count(`SELECT count(*) AS n FROM obstacle WHERE import_id = '${id}'`);
  startWorker();
  await until(
    () => getImport(db, id),
    (r) => r.doneShare > 0.05 && r.doneShare < 1,
    "a part of the import",
  );
  await killDatabase();
  expect([0, 59_400]).toContain(await rows());
  await until(
    () => stateOf(id),
    (s) => s === "done",
    "the end of the import",
  );
  expect(await rows()).toBe(59_400);
  await removeImport(db, id, true);
});

test("files that nobody asks for any more are forgotten, and that of a failed import is gone at once", async () => {
  const spare = await createUpload(db, job.id, { name: "spare.csv", sizeBytes: 3 });
  const failed = await brought("bad.csv", Buffer.from("a,b\n1,2\n"), { what: "features", epsg: null, nameColumn: "a" });
  await runImport(db, pool, failed);
  const { state, uploadId } = await getImport(db, failed);
  expect(state).toBe("failed");
  expect(existsSync(filePath(uploadId!))).toBe(false);
  expect(await forgetOldUploads(db, 48)).not.toContain(spare.id);
  await db.execute(sql`UPDATE upload SET updated_at = now() - interval '3 days' WHERE id = ${spare.id}`);
  expect(await forgetOldUploads(db, 48)).toContain(spare.id);
});

test("a file whose process ended after it was forgotten and before it was removed is gone with the next sweep", async () => {
  const [left, wanted] = [
    await createUpload(db, job.id, { name: "left.csv", sizeBytes: 3 }),
    await createUpload(db, job.id, { name: "wanted.csv", sizeBytes: 3 }),
  ];
  for (const { id } of [left, wanted]) writeFileSync(filePath(id), "a,b");
  mkdirSync(`${filePath(left.id)}.read`);
  await forgetUpload(db, left.id);
  await removeLeftFiles(db, 48);
  expect([filePath(left.id), `${filePath(left.id)}.read`, filePath(wanted.id)].map((f) => existsSync(f))).toEqual([false, false, true]);
});

describe("sites", () => {
  test("come from a table, refuse what stands on another, and go as one step of the browser that asked", async () => {
    const me = "client-imports";
    await create(db, job.id, "site", { name: "Here already", latDeg: 46.1, lonDeg: -25.1, mountAglM: 5, mountMaxAglM: null });
    const csv = 'name,lat,lon,mast\nOne,46.2,-25.2,20\nTwin,46.1,-25.1,5\nTwo,"46°18\'00""N","25°12\'00""W",\nNowhere,96,0,5\n';
    const id = await asClient(me, () =>
      brought("sites.csv", Buffer.from(csv), {
        what: "sites",
        epsg: null,
        nameColumn: "name",
        heightColumn: "mast",
        heightUnit: "ft",
        heightDefaultM: 6,
      }),
    );
    await runImport(db, pool, id);
    const names = async () => (await sitesOf(db, job.id)).map((s) => s.name).sort();
    expect(await names()).toEqual(["Here already", "One", "Two"]);
    expect((await sitesOf(db, job.id)).find((s) => s.name === "One")!.mountAglM).toBeCloseTo(6.096, 6);
    expect((await getImport(db, id)).result).toMatchObject({
      kept: 2,
      refused: 2,
      faults: [
        { row: 5, reason: expect.stringContaining("latitude 96") },
        { row: 3, reason: "Here already already stands on this spot" },
      ],
    });
    await asClient(me, () => undoLast(db, job.id));
    expect(await names()).toEqual(["Here already"]);
    await asClient(me, () => redoLast(db, job.id));
    expect(await names()).toEqual(["Here already", "One", "Two"]);
    await expect(stopImport(db, id)).rejects.toBeInstanceOf(Refused);
  });
});

describe("a file that ends its reader", () => {
  test("twice is set aside with a sentence, while the next goes on", async () => {
    const bad = await brought("deadly.tif", bigTerrain(), { ...TERRAIN, name: "Deadly" });
    const parent = startWorker();
    const readers = (): number[] =>
      readFileSync(`/proc/${parent.pid}/task/${parent.pid}/children`, "utf8").trim().split(" ").filter(Boolean).map(Number);
    // Whoever works for this worker ends, as a file could make it, until that happened twice while it was read.
    await until(
      async () => {
        for (const pid of readers()) process.kill(pid, "SIGKILL");
        return getImport(db, bad);
      },
      (r) => r.state === "failed",
      "the bad one set aside",
    );
    const good = await brought("good.csv", Buffer.from("name,lat,lon\nQuay,46,-25\n"), {
      what: "features",
      epsg: null,
      nameColumn: "name",
    });
    await until(
      () => stateOf(good),
      (s) => s === "done",
      "the next one",
    );
    const row = await getImport(db, bad);
    expect(row.fault).toBe("the process that read it ended, 2 times over; it is set aside");
    expect(await count(`SELECT count(*) AS n FROM terrain_dataset WHERE import_id = '${bad}' AND ready`)).toBe(0);
    // What it had written, and its file, go with the next sweep.
    await until(
      () => count(`SELECT count(*) AS n FROM terrain_dataset WHERE import_id = '${bad}'`),
      (n) => n === 0,
      "a sweep",
    );
    await until(
      async () => existsSync(filePath(row.uploadId!)),
      (there) => !there,
      "its file gone",
    );
  });
});
