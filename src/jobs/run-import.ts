import type { Pool, PoolClient } from "pg";
import { z } from "zod";
import { bundleOptionsSchema, importOptionsSchema } from "../contract";
import { type Asker, asAsker, asClient, programFor } from "../data/actor";
import { NotFound, Refused } from "../data/clash";
import { type Db, isUnreachable } from "../data/client";
import { filePath, isDiskFull, isWhole, removeFile } from "../data/files";
import { failImport, forgetUpload, getImport, type ImportRow, uploadOf } from "../data/imports";
import { logFault } from "../data/log";
import { dropUnfinished } from "../data/terrain-store";
import { FileFault } from "../formats";
import { importBundle } from "./import-bundle";
import { importPlaces } from "./import-places";
import { importTerrain } from "./import-terrain";
import { Stopped } from "./stopped";

const optionsSchema = z.discriminatedUnion("what", [...importOptionsSchema.options, bundleOptionsSchema]);

/** Why an import came to nothing, in words for who brought the file. */
const sentenceOf = (error: unknown): string => {
  if (error instanceof FileFault || error instanceof RangeError) return error.message;
  if (error instanceof Refused && error.code === "job-exists")
    return `job ${error.values.number}, ${error.values.name}, is here already; bring it in as a copy`;
  if ((error as { code?: string }).code === "ENOENT") return "the file is no longer there; bring it in again";
  if (isDiskFull(error)) return "the disk is full; make room and bring it in again";
  logFault("import", error);
  return "the program failed; its log says more";
};

/** Nothing asks for the file of an import that is over. */
const dropFile = async (db: Db, row: ImportRow): Promise<void> => {
  if (row.uploadId === null) return;
  await forgetUpload(db, row.uploadId);
  await removeFile(row.uploadId);
};

/** Who asked for an import. What asking for one needs was checked when it was asked for. */
const askerOf = (row: ImportRow): Asker => ({
  ...programFor(row.organisationId),
  personId: row.personId,
  name: row.personName ?? "",
});

/** Brings a file in, on behalf of whoever asked for it: the whole of it is one edit of theirs. */
const bringIn = async (db: Db, client: PoolClient, row: ImportRow): Promise<void> => {
  if (row.state !== "waiting" && row.state !== "running") {
    if (row.state === "stopped") await dropUnfinished(db, row.id);
    return;
  }
  const path = filePath(row.uploadId ?? "");
  const file = row.uploadId === null ? null : await uploadOf(db, row.uploadId);
  if (file === null || !(await isWhole(file.id, file.sizeBytes))) throw new FileFault("the file did not come in whole; bring it in again");
  const options = optionsSchema.parse(row.options);
  if (options.what === "bundle") await importBundle(db, client, row, options.asCopy, path);
  else if (options.what === "terrain") await importTerrain(db, row, options, path);
  else await importPlaces(db, client, row, options, path);
  await dropFile(db, row);
};

/** Ends an import that came to nothing. */
const setAside = async (db: Db, row: ImportRow, error: unknown): Promise<void> => {
  await dropUnfinished(db, row.id);
  const stopped = error instanceof Stopped || (error instanceof Refused && error.code === "import-stopped");
  // Its state first: an import that is taken up again without its file would say the wrong thing.
  if (!stopped) await failImport(db, row, sentenceOf(error));
  await dropFile(db, row);
};

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
  const lost = (error: Error): void => {
    broken = error;
  };
  client.on("error", lost);
  try {
    await client.query("SET statement_timeout = 0");
    const { rows } = await client.query<{ held: boolean }>("SELECT pg_try_advisory_lock($1, hashtext($2)) AS held", [LOCK_SPACE, importId]);
    if (rows[0]?.held !== true) return;
    const row = await getImport(db, importId).catch((error: unknown) => {
      if (error instanceof NotFound) return null;
      throw error;
    });
    if (row === null) return;
    const answered = asAsker(askerOf(row), () => asClient(row.clientId, () => bringIn(db, client, row)));
    await answered.catch(async (error: unknown) => {
      if (isUnreachable(error) || broken !== undefined) throw error;
      await asAsker(askerOf(row), () => setAside(db, row, error));
    });
  } finally {
    if (broken === undefined) {
      await client.query("SELECT pg_advisory_unlock_all()").catch((error: Error) => {
        broken = error;
      });
    }
    client.removeListener("error", lost);
    client.release(broken);
  }
};
