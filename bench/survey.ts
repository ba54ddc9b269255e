// Timings of what a survey brings in: terrain and footprints through the queue's worker, the corridor query over
// 200,000 footprints, and a viewshed of a million cells. On the database named by DATABASE_TEST_URL; what it makes it takes away.
import { type ChildProcess, spawn } from "node:child_process";
import { closeSync, mkdirSync, openSync, readFileSync, writeSync } from "node:fs";
import { sql } from "drizzle-orm";
import type { ImportOptions } from "../src/contract";
import { destination, effectiveRadiusM, pathFrame, planeProjection } from "../src/core/geo";
import { raiseSurface } from "../src/core/obstacles";
import { neededAmslAt, viewshed } from "../src/core/terrain";
import { seededRandom } from "../src/core/units";
import { asAsker, programFor } from "../src/data/actor";
import { openDb } from "../src/data/client";
import { filePath } from "../src/data/files";
import { createImport, createUpload, getImport } from "../src/data/imports";
import { obstacleTile } from "../src/data/obstacle-tiles";
import { obstaclesAlong } from "../src/data/obstacles";
import { firstOrganisation } from "../src/data/people";
import { makeJob } from "../src/data/records";
import { gridToGeoTiff } from "../src/formats";

const FOOTPRINTS = 200_000;
const SIDE = 7200;

{
  const size = 1000;
  const surfaceAmslM = Float32Array.from(
    { length: size * size },
    (_, i) => 40 + 25 * Math.sin((i % size) / 40) * Math.cos(Math.floor(i / size) / 55),
  );
  // A town of 900 blocks, 8 cells a side.
  const random = seededRandom(3);
  raiseSurface(
    surfaceAmslM,
    size,
    size,
    Array.from({ length: 900 }, () => {
      const [c, r] = [random() * size, random() * size];
      return { cols: [c, c + 8, c + 8, c], rows: [r, r, r + 8, r + 8], baseAmslM: null, heightM: 4 + random() * 12 };
    }),
  );
  const window = { surfaceAmslM, cols: size, rows: size, stepM: 5 };
  const from = { col: 480.3, row: 511.7, amslM: 95 };
  const radiusM = effectiveRadiusM(4 / 3);
  const times = Array.from({ length: 9 }, () => {
    const started = performance.now();
    viewshed(window, from, radiusM);
    return performance.now() - started;
  }).sort((a, b) => a - b);
  const needed = viewshed(window, from, radiusM);
  let same = 0;
  let all = 0;
  for (let r = 3; r < size; r += 11) {
    for (let c = 5; c < size; c += 11) {
      const at = surfaceAmslM[r * size + c]! + 4;
      all++;
      if (at >= needed[r * size + c]! === at >= neededAmslAt(window, from, c, r, radiusM)) same++;
    }
  }
  console.log(
    `viewshed of 1000 x 1000 cells   ${times[0]!.toFixed(0)} ms best, ${times[4]!.toFixed(0)} ms median   aim 150 ms; agrees with a ray to each cell in ${((100 * same) / all).toFixed(1)} % of ${all} cells`,
  );
}

const url = process.env.DATABASE_TEST_URL;
if (url === undefined) throw new Error("DATABASE_TEST_URL is not set");
process.env.DRYARC_FILES ??= ".data/bench-files";
mkdirSync(process.env.DRYARC_FILES, { recursive: true });
const { db, close } = openDb(url);
const firm = await firstOrganisation(db);
const job = await makeJob(db, {
  name: "Bench",
  place: "",
  visitOn: "2026-12-03",
  centreLatDeg: 46,
  centreLonDeg: -25,
  ruleDomain: "FCC-like",
  rainRate001MmH: 28,
});

const brought = async (name: string, options: ImportOptions, write: (file: number) => number): Promise<{ id: string; bytes: number }> => {
  const row = await createUpload(db, job.id, { name, sizeBytes: 1 });
  const file = openSync(filePath(row.id), "w");
  const bytes = write(file);
  closeSync(file);
  await db.execute(sql`UPDATE upload SET size_bytes = ${bytes}, received_bytes = ${bytes} WHERE id = ${row.id}`);
  return { id: (await createImport(db, { jobId: job.id, uploadId: row.id, fileName: name, what: options.what, options })).id, bytes };
};

/** Readers that a worker has started. */
const readersOf = (pid: number): number[] => {
  try {
    return readFileSync(`/proc/${pid}/task/${pid}/children`, "utf8").trim().split(" ").filter(Boolean).map(Number);
  } catch {
    return [];
  }
};
const peakMb = (pid: number): number => {
  try {
    return Number(/VmHWM:\s+(\d+)/.exec(readFileSync(`/proc/${pid}/status`, "utf8"))?.[1] ?? 0) / 1024;
  } catch {
    return 0;
  }
};

/** Runs a worker until an import is over. @returns seconds of the import and the most memory a reader held. */
const run = async (id: string): Promise<{ seconds: number; mostMb: number }> => {
  const worker: ChildProcess = spawn("node", ["build/worker.mjs"], {
    stdio: "ignore",
    env: { ...process.env, DATABASE_URL: process.env.DATABASE_WORKER_URL },
  });
  let started = 0;
  let mostMb = 0;
  for (;;) {
    const row = await getImport(db, id);
    if (row.state === "running" && started === 0) started = performance.now();
    mostMb = Math.max(mostMb, ...readersOf(worker.pid!).map(peakMb));
    if (row.state === "done" || row.state === "failed") {
      worker.kill();
      if (row.state === "failed") throw new Error(row.fault ?? "failed");
      return { seconds: (performance.now() - started) / 1000, mostMb };
    }
    await new Promise((resolve) => setTimeout(resolve, 20));
  }
};

{
  const { id, bytes } = await brought(
    "big.tif",
    {
      what: "terrain",
      name: "Bench",
      epsg: null,
      kind: "dtm",
      verticalUnit: "m",
      verticalDatum: "mean sea level",
      datumOffsetM: 0,
      sigmaM: 1,
    },
    (file) => {
      const values = Float32Array.from({ length: SIDE * SIDE }, (_, i) => 100 + ((i * 2654435761) % 4096) / 64);
      const tif = gridToGeoTiff({ values, cols: SIDE, rows: SIDE, originX: 500_000, originY: 5_100_000, stepX: 5, stepY: -5, epsg: 32626 });
      return writeSync(file, tif);
    },
  );
  const { seconds, mostMb } = await run(id);
  console.log(
    `terrain, GeoTIFF of ${(bytes / 1e6).toFixed(0)} MB   ${seconds.toFixed(1)} s, ${(bytes / 1e6 / seconds).toFixed(1)} MB/s; worker at most ${mostMb.toFixed(0)} MB   aim under 500 MB`,
  );
}
{
  const { id, bytes } = await brought(
    "houses.geojson",
    {
      what: "obstacles",
      epsg: null,
      nameColumn: null,
      kind: "building",
      kindColumn: null,
      heightColumn: "h",
      heightUnit: "m",
      heightDefaultM: null,
      heightSigmaM: 1,
      growthMPerYear: 0,
      widthM: 4,
      freeBelowM: 0,
      surveyedOn: "2026-01-01",
    },
    (file) => {
      let n = writeSync(file, '{"type":"FeatureCollection","features":[');
      for (let from = 0; from < FOOTPRINTS; from += 1000) {
        const part = Array.from({ length: 1000 }, (_, k) => {
          const i = from + k;
          const [x, y] = [-25.2 + (i % 500) * 0.0004, 45.9 + Math.floor(i / 500) * 0.0003];
          const ring = [
            [x, y],
            [x + 0.00015, y],
            [x + 0.00015, y + 0.0001],
            [x, y + 0.0001],
            [x, y],
          ];
          return JSON.stringify({ type: "Feature", properties: { h: 4 + (i % 9) }, geometry: { type: "Polygon", coordinates: [ring] } });
        }).join(",");
        n += writeSync(file, (from === 0 ? "" : ",") + part);
      }
      return n + writeSync(file, "]}");
    },
  );
  const { seconds, mostMb } = await run(id);
  console.log(
    `footprints, GeoJSON of ${(bytes / 1e6).toFixed(0)} MB   ${seconds.toFixed(1)} s, ${(FOOTPRINTS / seconds).toFixed(0)} rows/s; worker at most ${mostMb.toFixed(0)} MB`,
  );
}
{
  await db.execute(sql`ANALYZE obstacle`);
  const near = { latDeg: 45.91, lonDeg: -25.19 };
  const frame = pathFrame(near, destination(near, 55, 10_000));
  const points = Array.from({ length: 26 }, (_, i) => frame.at((frame.lengthM * i) / 25));
  const reach = { latDeg: 30 / 111_320, lonDeg: 30 / 111_320 / Math.cos((46 * Math.PI) / 180) };
  const guarded = openDb(process.env.DATABASE_URL!);
  const asApp = <T>(work: () => Promise<T>): Promise<T> => asAsker(programFor(firm.id), work);
  const told = async (what: string, ask: (of: typeof db) => Promise<number>, aim: string): Promise<void> => {
    const timesOf = async (work: () => Promise<number>): Promise<{ times: number[]; found: number }> => {
      const times: number[] = [];
      let found = 0;
      for (let i = 0; i < 41; i++) {
        const started = performance.now();
        found = await work();
        times.push(performance.now() - started);
      }
      return { times: times.sort((x, y) => x - y), found };
    };
    const free = await timesOf(() => ask(db));
    const { times, found } = await timesOf(() => asApp(() => ask(guarded.db)));
    if (found !== free.found || found === 0) throw new Error(`${what}: ${found} found beneath the guard, ${free.found} without`);
    console.log(
      `${what}   ${times[0]!.toFixed(1)} ms best, ${times[20]!.toFixed(1)} ms median, ${found} found; without the guard of rows ${free.times[20]!.toFixed(1)} ms   ${aim}`,
    );
  };
  await told(
    "corridor 10 km x 60 m over 200,000 footprints",
    (of) => obstaclesAlong(of, job.id, points, reach).then((rows) => rows.length),
    "aim 10 ms, and 1.2 times what it is without",
  );
  // A tile of 2 km beneath the same line, in the plane of its zone.
  const [east, north] = planeProjection("EPSG:32626").forward(frame.at(3000));
  const square = { west: east, south: north, sideM: 2000 };
  const box = { westDeg: -25.2, southDeg: 45.9, eastDeg: -25.12, northDeg: 45.96 };
  await told("tile of 2 km", (of) => obstacleTile(of, job.id, 32626, square, box, 4).then((tile) => tile.length), "");
  await guarded.close();
}
await db.execute(sql`DELETE FROM obstacle WHERE job_id = ${job.id}`);
await db.execute(
  sql`DELETE FROM terrain_tile t USING terrain_dataset d WHERE d.id = t.dataset_id AND d.import_id IN (SELECT id FROM file_import WHERE job_id = ${job.id})`,
);
await db.execute(sql`DELETE FROM terrain_dataset WHERE import_id IN (SELECT id FROM file_import WHERE job_id = ${job.id})`);
await db.execute(sql`UPDATE job SET deleted_at = now() WHERE id = ${job.id}`);
await close();
