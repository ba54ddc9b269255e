import { readFile, rm } from "node:fs/promises";
import { tmpdir } from "node:os";
import path from "node:path";
import type { Pool } from "pg";
import type { ImportOptions } from "../../contract";
import type { Db } from "../../data/client";
import { writePiece } from "../../data/files";
import { createImport, createUpload, getImport, type ImportRow, takePiece } from "../../data/imports";
import type { JobRow } from "../../data/jobs";
import { writeBundle } from "../../service/bundle-write";
import { type ExportFormat, type ExportWhat, exportHead, writeExport } from "../../service/export";
import { runImport } from "../run-import";

/* Files brought in and taken out as the application does it, for tests. */

/** Sends a whole file. @returns its id. */
export const sendWhole = async (db: Db, jobId: string | null, name: string, bytes: Uint8Array): Promise<string> => {
  const { id } = await createUpload(db, jobId, { name, sizeBytes: bytes.length });
  await takePiece(db, id, jobId, 0, bytes.length, () => writePiece(id, 0, bytes));
  return id;
};

/** Sends a file and asks for its import. @returns the import's id. */
export const askImport = async (db: Db, jobId: string, name: string, bytes: Uint8Array, options: ImportOptions): Promise<string> => {
  const uploadId = await sendWhole(db, jobId, name, bytes);
  return (await createImport(db, { jobId, uploadId, fileName: name, what: options.what, options })).id;
};

/** Takes a bundle in. @returns the import as it ended. */
export const takeBundle = async (db: Db, pool: Pool, bytes: Uint8Array, asCopy: boolean): Promise<ImportRow> => {
  const uploadId = await sendWhole(db, null, "job.zip", bytes);
  const { id } = await createImport(db, {
    jobId: null,
    uploadId,
    fileName: "job.zip",
    what: "bundle",
    options: { what: "bundle", asCopy },
  });
  await runImport(db, pool, id);
  return getImport(db, id);
};

const written = async (write: (file: string) => Promise<void>): Promise<Buffer> => {
  const file = path.join(tmpdir(), `dry-arc-out-${process.pid}-${Date.now()}-${Math.random()}`);
  try {
    await write(file);
    return await readFile(file);
  } finally {
    await rm(file, { force: true });
  }
};

export const bundleBytes = (db: Db, job: JobRow): Promise<Buffer> => written((file) => writeBundle(db, job, file));

export const exportText = async (db: Db, job: JobRow, what: ExportWhat, format: ExportFormat): Promise<{ text: string; name: string }> => ({
  text: (await written((file) => writeExport(db, job, what, format, file))).toString("utf8"),
  name: exportHead(job, what, format).name,
});
