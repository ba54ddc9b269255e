// Timings of what a survey brings in: terrain and footprints through the queue's worker, the corridor query over
// 200,000 footprints, and a viewshed of a million cells. On the database named by DATABASE_URL; what it makes it takes away.
import { type ChildProcess, spawn } from "node:child_process";
import { closeSync, mkdirSync, openSync, readFileSync, writeSync } from "node:fs";
import { sql } from "drizzle-orm";
import type { ImportOptions } from "../src/contract";
import { destination, effectiveRadiusM, pathFrame } from "../src/core/geo";
import { raiseSurface } from "../src/core/obstacles";
import { neededAmslAt, viewshed } from "../src/core/terrain";
import { seededRandom } from "../src/core/units";
import { openDb } from "../src/data/client";
import { filePath } from "../src/data/files";
import { createImport, createUpload, getImport } from "../src/data/imports";
import { migrateDb } from "../src/data/migrate";
import { obstaclesAlong } from "../src/data/obstacles";
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

const url = process.env.DATABASE_URL;
if (url === undefined) throw new Error("DATABASE_URL is not set");
process.env.DRYARC_FILES ??= ".data/bench-files";
mkdirSync(process.env.DRYARC_FILES, { recursive: true });
const { db, close } = openDb(url);
await migrateDb(db);
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
  const worker: ChildProcess = spawn("node", ["build/worker.mjs"], { stdio: "ignore", env: process.env });
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
  let found = 0;
  const times: number[] = [];
  for (let i = 0; i < 15; i++) {
    const started = performance.now();
    found = (await obstaclesAlong(db, job.id, points, reach)).length;
    times.push(performance.now() - started);
  }
  times.sort((a, b) => a - b);
  console.log(
    `corridor 10 km x 60 m over 200,000 footprints   ${times[0]!.toFixed(1)} ms best, ${times[7]!.toFixed(1)} ms median, ${found} found   aim 10 ms`,
  );
}
await db.execute(sql`DELETE FROM obstacle WHERE job_id = ${job.id}`);
await db.execute(
  sql`DELETE FROM terrain_tile t USING terrain_dataset d WHERE d.id = t.dataset_id AND d.import_id IN (SELECT id FROM file_import WHERE job_id = ${job.id})`,
);
await db.execute(sql`DELETE FROM terrain_dataset WHERE import_id IN (SELECT id FROM file_import WHERE job_id = ${job.id})`);
await db.execute(sql`UPDATE job SET deleted_at = now() WHERE id = ${job.id}`);
await close();
