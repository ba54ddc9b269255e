import type { Pool } from "pg";
import { importOptionsSchema } from "../contract";
import { asClient } from "../data/actor";
import { NotFound, Refused } from "../data/clash";
import { type Db, isUnreachable } from "../data/client";
import { filePath, removeFile } from "../data/files";
import { failImport, getImport } from "../data/imports";
import { dropUnfinished } from "../data/terrain-store";
import { FileFault } from "../formats";
import { importPlaces } from "./import-places";
import { importTerrain } from "./import-terrain";
import { Stopped } from "./stopped";

/** First number of the advisory locks that hold one import to one worker. */
const LOCK_SPACE = 4611;

/**
 * Does one import from where it stands, or finds that nothing is left to do. Only one worker at a time has it: the
 * lock belongs to a connection and is gone when its process is.
 * @throws what says that the database is away; the import is then taken up again.
 */
export const runImport = async (db: Db, pool: Pool, importId: string): Promise<void> => {
  const client = await pool.connect();
  let broken: Error | undefined;
  client.on("error", (error) => {
    broken = error;
  });
  try {
    await client.query("SET statement_timeout = 0");
    const { rows } = await client.query<{ held: boolean }>("SELECT pg_try_advisory_lock($1, hashtext($2)) AS held", [LOCK_SPACE, importId]);
    if (rows[0]?.held !== true) return;
    const row = await getImport(db, importId).catch((error: unknown) => {
      if (error instanceof NotFound) return null;
      throw error;
    });
    if (row === null || (row.state !== "waiting" && row.state !== "running")) {
      if (row?.state === "stopped") await dropUnfinished(db, importId);
      return;
    }
    const path = filePath(row.uploadId ?? "");
    try {
      const options = importOptionsSchema.parse(row.options);
      // The whole import is one edit of the browser that asked for it.
      await asClient(row.clientId, () =>
        options.what === "terrain" ? importTerrain(db, row, options, path) : importPlaces(db, client, row, options, path),
      );
      if (row.uploadId !== null) await removeFile(row.uploadId);
    } catch (error) {
      if (isUnreachable(error) || broken !== undefined) throw error;
      await dropUnfinished(db, importId);
      const stopped = error instanceof Stopped || (error instanceof Refused && error.code === "import-stopped");
      if (stopped) return;
      const known = error instanceof FileFault || error instanceof RangeError;
      const missing = (error as { code?: string }).code === "ENOENT";
      if (!known && !missing) console.error(error);
      await failImport(
        db,
        row,
        missing
          ? "the file is no longer there; bring it in again"
          : known
            ? (error as Error).message
            : "the program failed; its log says more",
      );
    }
  } finally {
    if (broken === undefined) {
      await client.query("SELECT pg_advisory_unlock_all()").catch((error: Error) => {
        broken = error;
      });
    }
    client.release(broken);
  }
};
