// The process that does the long work: takes imports from the queue, one at a time.
import { Pool } from "pg";
import { openDb } from "../data/client";
import { removeFile } from "../data/files";
import { forgetOldUploads, leftoverImports, openImports } from "../data/imports";
import { dropUnfinished } from "../data/terrain-store";
import { IMPORT_QUEUE, type ImportWork, openQueue } from "./queue";
import { runImport } from "./run-import";

/** How often it looks for imports that a dead worker or a lost database left behind. */
const SWEEP_MS = 3000;

/** A file that was sent and never taken in is kept this long. */
const KEEP_FILES_HOURS = 48;

const url = process.env.DATABASE_URL;
if (url === undefined || url === "") {
  console.error("dry-arc: DATABASE_URL is not set.");
  process.exit(1);
}
const { db } = openDb(url);
const pool = new Pool({ connectionString: url, max: 2, connectionTimeoutMillis: 5000 });
pool.on("error", () => undefined);

/** Imports under way in this process. */
const busy = new Set<string>();
const once = async (importId: string): Promise<void> => {
  if (busy.has(importId)) return;
  busy.add(importId);
  try {
    await runImport(db, pool, importId);
  } catch (error) {
    console.error(`import ${importId} waits: ${error instanceof Error ? error.message : String(error)}`);
  } finally {
    busy.delete(importId);
  }
};

const start = async (): Promise<void> => {
  for (;;) {
    try {
      const boss = await openQueue(url, true);
      await boss.work<ImportWork>(IMPORT_QUEUE, { batchSize: 1, pollingIntervalSeconds: 0.5 }, async ([job]) => {
        if (job !== undefined) await once(job.data.importId);
      });
      return;
    } catch {
      await new Promise((resolve) => setTimeout(resolve, 1000));
    }
  }
};
await start();
console.log("worker ready");
for (;;) {
  // What is open and not in this process's hands was left behind; one at a time.
  const left = await openImports(db).catch(() => []);
  for (const id of await leftoverImports(db).catch(() => [])) if (!busy.has(id)) await dropUnfinished(db, id).catch(() => undefined);
  for (const id of await forgetOldUploads(db, KEEP_FILES_HOURS).catch(() => [])) await removeFile(id).catch(() => undefined);
  for (const row of left) if (busy.size === 0) await once(row.id);
  await new Promise((resolve) => setTimeout(resolve, SWEEP_MS));
}
