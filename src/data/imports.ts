import { and, desc, eq, inArray, isNull, sql } from "drizzle-orm";
import { clientNow } from "./actor";
import { recordChange, type Tx, tellJob } from "./changes";
import { NotFound, Refused, VersionClash } from "./clash";
import type { Db } from "./client";
import { fileImport, job, upload } from "./schema";

export type UploadRow = typeof upload.$inferSelect;
export type ImportRow = typeof fileImport.$inferSelect;
export type ImportState = "waiting" | "running" | "done" | "failed" | "stopped" | "removed";

export const createUpload = async (db: Db, jobId: string | null, input: { name: string; sizeBytes: number }): Promise<UploadRow> => {
  const [row] = await db
    .insert(upload)
    .values({ jobId, ...input })
    .returning();
  return row!;
};

export const getUpload = async (db: Db, uploadId: string): Promise<UploadRow> => {
  const [row] = await db.select().from(upload).where(eq(upload.id, uploadId));
  if (row === undefined) throw new NotFound("file");
  return row;
};

export const setReceived = (db: Db, uploadId: string, receivedBytes: number): Promise<unknown> =>
  db.update(upload).set({ receivedBytes, updatedAt: new Date() }).where(eq(upload.id, uploadId));

export const createImport = (
  db: Db,
  input: { jobId: string; uploadId: string; fileName: string; what: string; options: unknown },
): Promise<ImportRow> =>
  db.transaction(async (tx) => {
    const [row] = await tx
      .insert(fileImport)
      .values({ ...input, clientId: clientNow() })
      .returning();
    await tellJob(tx, { jobId: input.jobId, entity: "import", clientId: null });
    return row!;
  });

export const getImport = async (db: Db, importId: string): Promise<ImportRow> => {
  const [row] = await db.select().from(fileImport).where(eq(fileImport.id, importId));
  if (row === undefined) throw new NotFound("import");
  return row;
};

export const importsOf = (db: Db, jobId: string): Promise<ImportRow[]> =>
  db.select().from(fileImport).where(eq(fileImport.jobId, jobId)).orderBy(desc(fileImport.createdAt)).limit(50);

/** Imports that were asked for and are not finished: what a worker takes up when it starts. */
export const openImports = (db: Db): Promise<ImportRow[]> =>
  db
    .select()
    .from(fileImport)
    .where(inArray(fileImport.state, ["waiting", "running"]));

/** Imports that ended without success while part of their ground was already written: it is to be taken away. */
export const leftoverImports = async (db: Db): Promise<string[]> => {
  const r = await db.execute<{ id: string }>(sql`
    SELECT f.id FROM file_import f JOIN terrain_dataset d ON d.import_id = f.id
    WHERE NOT d.ready AND f.state IN ('stopped', 'failed')`);
  return r.rows.map((row) => row.id);
};

/**
 * Files that were sent and never used, or whose import is over: nothing asks for them any more.
 * @returns their ids; they are marked as gone.
 */
export const forgetOldUploads = async (db: Db, olderThanHours: number): Promise<string[]> => {
  const r = await db.execute<{ id: string }>(sql`
    UPDATE upload u SET deleted_at = now()
    WHERE u.deleted_at IS NULL AND u.updated_at < now() - make_interval(hours => ${olderThanHours})
      AND NOT EXISTS (SELECT FROM file_import f WHERE f.upload_id = u.id AND f.state NOT IN ('done', 'removed'))
      AND NOT EXISTS (SELECT FROM basemap b WHERE b.upload_id = u.id AND b.deleted_at IS NULL)
    RETURNING u.id`);
  return r.rows.map((row) => row.id);
};

/** Says how far an import is. @returns false when it was stopped meanwhile. */
export const reportProgress = async (db: Db, row: ImportRow, doneShare: number): Promise<boolean> => {
  const [still] = await db
    .update(fileImport)
    .set({ doneShare, state: "running", updatedAt: sql`now()` })
    .where(and(eq(fileImport.id, row.id), inArray(fileImport.state, ["waiting", "running"])))
    .returning({ id: fileImport.id });
  await tellJob(db, { jobId: row.jobId, entity: "import", clientId: null });
  return still !== undefined;
};

/** Ends an import within the transaction that made its rows visible, so that both are there or neither. */
export const finishImport = async (tx: Tx, row: ImportRow, result: unknown): Promise<void> => {
  const [done] = await tx
    .update(fileImport)
    .set({ state: "done", doneShare: 1, result, fault: null, updatedAt: sql`now()` })
    .where(and(eq(fileImport.id, row.id), inArray(fileImport.state, ["waiting", "running"])))
    .returning();
  if (done === undefined) throw new Refused("import-stopped", "import");
  await recordChange(tx, {
    jobId: row.jobId,
    entity: "import",
    entityId: row.id,
    action: "import",
    before: null,
    after: { fileName: row.fileName, what: row.what },
  });
};

export const failImport = async (db: Db, row: ImportRow, fault: string): Promise<void> => {
  await db
    .update(fileImport)
    .set({ state: "failed", fault, updatedAt: sql`now()` })
    .where(and(eq(fileImport.id, row.id), inArray(fileImport.state, ["waiting", "running"])));
  await tellJob(db, { jobId: row.jobId, entity: "import", clientId: null });
};

/** Stops an import that is under way; what it has written is taken away by the worker. */
export const stopImport = (db: Db, importId: string): Promise<void> =>
  db.transaction(async (tx) => {
    const [row] = await tx.select().from(fileImport).where(eq(fileImport.id, importId)).for("update");
    if (row === undefined) throw new NotFound("import");
    if (row.state !== "waiting" && row.state !== "running") throw new Refused("import-not-running", "import", { state: row.state });
    await tx.update(fileImport).set({ state: "stopped", updatedAt: sql`now()` }).where(eq(fileImport.id, importId));
    await tellJob(tx, { jobId: row.jobId, entity: "import", clientId: null });
  });

/** Asks for a failed or stopped import once more. */
export const againImport = (db: Db, importId: string): Promise<ImportRow> =>
  db.transaction(async (tx) => {
    const [row] = await tx
      .update(fileImport)
      .set({ state: "waiting", fault: null, doneShare: 0, updatedAt: sql`now()` })
      .where(and(eq(fileImport.id, importId), inArray(fileImport.state, ["failed", "stopped"])))
      .returning();
    if (row === undefined) throw new Refused("import-not-running", "import", { state: "done" });
    await tellJob(tx, { jobId: row.jobId, entity: "import", clientId: null });
    return row;
  });

const TABLES = ["obstacle", "feature", "site", "terrain_dataset"] as const;

/**
 * Takes everything an import brought away, or brings it back. Rows that were taken away one by one before keep
 * their own time and stay away.
 */
export const setImportRemoved = async (tx: Tx, importId: string, removed: boolean): Promise<void> => {
  const [row] = await tx.select().from(fileImport).where(eq(fileImport.id, importId)).for("update");
  if (row === undefined) throw new NotFound("import");
  if (row.state !== (removed ? "done" : "removed")) throw new VersionClash("import", row);
  if (removed) {
    const used = await tx.execute<{ name: string; number: number }>(sql`
      SELECT s.name, l.number FROM site s JOIN link l ON s.id IN (l.near_site_id, l.far_site_id)
      WHERE s.import_id = ${importId} AND s.deleted_at IS NULL AND l.deleted_at IS NULL LIMIT 1`);
    const first = used.rows[0];
    if (first !== undefined) throw new Refused("site-in-use", "site", { name: first.name, link: first.number });
  }
  for (const name of TABLES) {
    const table = sql.identifier(name);
    await tx.execute(
      removed
        ? sql`UPDATE ${table} SET deleted_at = now() WHERE import_id = ${importId} AND deleted_at IS NULL`
        : sql`UPDATE ${table} SET deleted_at = NULL WHERE import_id = ${importId}
            AND deleted_at = (SELECT f.deleted_at FROM file_import f WHERE f.id = ${importId})`,
    );
  }
  await tx
    .update(fileImport)
    .set({ state: removed ? "removed" : "done", deletedAt: removed ? sql`now()` : null, version: sql`${fileImport.version} + 1` })
    .where(eq(fileImport.id, importId));
  // Ground is shared by all jobs: whatever was computed on it is stale.
  if (row.what === "terrain")
    await tx
      .update(job)
      .set({ revision: sql`${job.revision} + 1` })
      .where(isNull(job.deletedAt));
};

/** The same as an edit of its own, from the list of imports. */
export const removeImport = (db: Db, importId: string, removed: boolean): Promise<void> =>
  db.transaction(async (tx) => {
    const [row] = await tx.select().from(fileImport).where(eq(fileImport.id, importId));
    if (row === undefined) throw new NotFound("import");
    await setImportRemoved(tx, importId, removed);
    await recordChange(tx, {
      jobId: row.jobId,
      entity: "import",
      entityId: importId,
      action: removed ? "delete" : "restore",
      before: { fileName: row.fileName },
      after: { fileName: row.fileName, what: row.what },
    });
  });
