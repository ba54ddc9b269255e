import { and, desc, eq, inArray, isNotNull, isNull, sql } from "drizzle-orm";
import { askerNow, clientNow, signedNow } from "./actor";
import { recordChange, type Tx, tellJob } from "./changes";
import { NotFound, Refused, VersionClash } from "./clash";
import type { Db } from "./client";
import { gigabytes } from "./files";
import { forAllJobs } from "./guard";
import { wiredWith } from "./hardware";
import { job } from "./schema";
import { fileImport, upload } from "./schema-work";

export type UploadRow = typeof upload.$inferSelect;
export type ImportRow = typeof fileImport.$inferSelect;

/** Files on their way in: so much at a time for one job, for one person, and for all of a firm. */
export const MOST_JOB_BYTES = Number(process.env.DRYARC_MOST_JOB_BYTES ?? 6_000_000_000);
const MOST_PERSON_BYTES = Number(process.env.DRYARC_MOST_PERSON_BYTES ?? 10_000_000_000);
export const MOST_ALL_BYTES = Number(process.env.DRYARC_MOST_ALL_BYTES ?? 20_000_000_000);

interface Held {
  readonly job: number;
  /** Of whoever asks; 0 where nobody signs in. */
  readonly own: number;
  readonly all: number;
}

/** Bytes that files on their way in, and maps laid beneath, take or will take. */
export const heldBytes = async (db: Pick<Db, "execute">, jobId: string | null): Promise<Held> => {
  const r = await db.execute<{ job: number; own: number; all: number }>(sql`
    SELECT coalesce(sum(size_bytes), 0)::float8 AS all,
      coalesce(sum(size_bytes) FILTER (WHERE person_id = ${askerNow()?.personId ?? null}::uuid), 0)::float8 AS own,
      coalesce(sum(size_bytes) FILTER (WHERE job_id IS NOT DISTINCT FROM ${jobId}::uuid), 0)::float8 AS job
    FROM upload WHERE deleted_at IS NULL`);
  return r.rows[0]!;
};

/** @throws Refused when the files under way would take more than a job, a person, or all of them, may. */
export const createUpload = (db: Db, jobId: string | null, input: { name: string; sizeBytes: number }): Promise<UploadRow> =>
  db.transaction(async (tx) => {
    await tx.execute(sql`SELECT pg_advisory_xact_lock(4613)`);
    const held = await heldBytes(tx, jobId);
    if (held.job + input.sizeBytes > MOST_JOB_BYTES)
      throw new Refused("quota-job", "file", { heldGb: gigabytes(held.job), mostGb: gigabytes(MOST_JOB_BYTES) });
    if (held.own + input.sizeBytes > MOST_PERSON_BYTES)
      throw new Refused("quota-person", "file", { heldGb: gigabytes(held.own), mostGb: gigabytes(MOST_PERSON_BYTES) });
    if (held.all + input.sizeBytes > MOST_ALL_BYTES)
      throw new Refused("quota-all", "file", { heldGb: gigabytes(held.all), mostGb: gigabytes(MOST_ALL_BYTES) });
    const [row] = await tx
      .insert(upload)
      .values({ jobId, personId: askerNow()?.personId ?? null, ...input })
      .returning();
    return row!;
  });

/** @param jobId the job that it must belong to; null for a bundle, which belongs to none yet. */
export const getUpload = async (db: Db, uploadId: string, jobId: string | null): Promise<UploadRow> => {
  const [row] = await db
    .select()
    .from(upload)
    .where(and(eq(upload.id, uploadId), isNull(upload.deletedAt)));
  if (row === undefined || row.jobId !== jobId || !isOwn(row)) throw new NotFound("file");
  return row;
};

/** What belongs to no job belongs to a firm. */
const isOwn = (row: { readonly organisationId: string }): boolean => {
  const who = askerNow();
  return who === null || who.organisationId === row.organisationId;
};

/** A file by its id alone: the program itself asks. */
export const uploadOf = async (db: Db, uploadId: string): Promise<UploadRow | null> => {
  const [row] = await db.select().from(upload).where(eq(upload.id, uploadId));
  return row ?? null;
};

/**
 * Takes the next piece of a file. What came before stays as it is: a piece that was sent again changes nothing.
 * @param write puts the piece in its place; it runs while nobody else writes to the file.
 */
export const takePiece = (
  db: Db,
  uploadId: string,
  jobId: string | null,
  at: number,
  length: number,
  write: () => Promise<unknown>,
): Promise<UploadRow> =>
  db.transaction(async (tx) => {
    const [row] = await tx
      .select()
      .from(upload)
      .where(and(eq(upload.id, uploadId), isNull(upload.deletedAt)))
      .for("update");
    if (row === undefined || row.jobId !== jobId || !isOwn(row)) throw new NotFound("file");
    if (at > row.receivedBytes) throw new Refused("piece-out-of-order", "at", { at, receivedBytes: row.receivedBytes });
    if (at < row.receivedBytes || length === 0) return row;
    if (at + length > row.sizeBytes) throw new Refused("piece-too-long", "at", { sizeBytes: row.sizeBytes });
    await write();
    const [next] = await tx
      .update(upload)
      .set({ receivedBytes: at + length, updatedAt: sql`now()` })
      .where(eq(upload.id, uploadId))
      .returning();
    return next!;
  });

/** Marks a file as gone: nothing asks for it any more. */
export const forgetUpload = (db: Pick<Db, "update">, uploadId: string): Promise<unknown> =>
  db.update(upload).set({ deletedAt: sql`now()` }).where(eq(upload.id, uploadId));

export const createImport = (
  db: Db,
  input: { jobId: string | null; uploadId: string; fileName: string; what: string; options: unknown },
): Promise<ImportRow> =>
  db.transaction(async (tx) => {
    const who = askerNow();
    // Whoever was given some jobs is given no new one.
    if (input.jobId === null && who?.jobIds != null) throw new Refused("not-allowed", "job");
    const [row] = await tx
      .insert(fileImport)
      .values({ ...input, ...signedNow(), clientId: clientNow() })
      .returning();
    await tellImport(tx, row!);
    await tx.execute(sql`SELECT pg_notify(${WORK_CHANNEL}, '')`);
    return row!;
  });

/** A map that was taken away may be brought back for so long. */
const KEPT_MAP_DAYS = 14;

/** Wakes the processes that do the long work. */
export const WORK_CHANNEL = "dryarc_work";

const tellImport = async (tx: Pick<Tx, "execute">, row: Pick<ImportRow, "jobId">): Promise<void> => {
  if (row.jobId !== null) await tellJob(tx, { jobId: row.jobId, entity: "import", id: null, clientId: null });
};

/** @param jobId the job that it must belong to; left out where the program itself asks. */
export const getImport = async (db: Db, importId: string, jobId?: string | null): Promise<ImportRow> => {
  const [row] = await db.select().from(fileImport).where(eq(fileImport.id, importId));
  if (row === undefined || (jobId !== undefined && row.jobId !== jobId) || !isOwn(row)) throw new NotFound("import");
  return row;
};

export const importsOf = (db: Db, jobId: string): Promise<ImportRow[]> =>
  db.select().from(fileImport).where(eq(fileImport.jobId, jobId)).orderBy(desc(fileImport.createdAt)).limit(50);

/** Imports that were asked for and are not finished: what a worker takes up when it starts. */
export const openImports = (db: Db): Promise<ImportRow[]> =>
  db
    .select()
    .from(fileImport)
    .where(inArray(fileImport.state, ["waiting", "running"]))
    .orderBy(fileImport.createdAt);

/** Firms whose imports came to nothing: some of their ground may already be written. */
export const firmsWithLeftovers = async (db: Db): Promise<string[]> => {
  const r = await db.execute<{ firm: string }>(sql`
    SELECT DISTINCT organisation_id AS firm FROM file_import WHERE what = 'terrain' AND state IN ('stopped', 'failed')`);
  return r.rows.map((row) => row.firm);
};

/** Imports that ended without success while part of their ground was already written: it is to be taken away. */
export const leftoverImports = async (db: Db): Promise<string[]> => {
  const r = await db.execute<{ id: string }>(sql`
    SELECT f.id FROM file_import f JOIN terrain_dataset d ON d.import_id = f.id
    WHERE NOT d.ready AND f.state IN ('stopped', 'failed')`);
  return r.rows.map((row) => row.id);
};

/**
 * Files whose import is over, and those sent and never used: nothing asks for them any more.
 * @returns their ids; they are marked as gone.
 */
export const forgetOldUploads = async (db: Db, unusedHours: number): Promise<string[]> => {
  const r = await db.execute<{ id: string }>(sql`
    UPDATE upload u SET deleted_at = now()
    WHERE u.deleted_at IS NULL
      AND NOT EXISTS (SELECT FROM file_import f WHERE f.upload_id = u.id AND f.state IN ('waiting', 'running'))
      AND NOT EXISTS (SELECT FROM basemap b WHERE b.upload_id = u.id
        AND (b.deleted_at IS NULL OR b.updated_at > now() - make_interval(days => ${KEPT_MAP_DAYS})))
      AND (u.updated_at < now() - make_interval(hours => ${unusedHours})
        OR EXISTS (SELECT FROM file_import f WHERE f.upload_id = u.id))
    RETURNING u.id`);
  return r.rows.map((row) => row.id);
};

/** @returns those of the uploads that are marked as gone. */
export const goneUploads = async (db: Db, ids: readonly string[]): Promise<string[]> => {
  if (ids.length === 0) return [];
  const rows = await db
    .select({ id: upload.id })
    .from(upload)
    .where(and(inArray(upload.id, [...ids]), isNotNull(upload.deletedAt)));
  return rows.map((row) => row.id);
};

/** Says how far an import is. @returns false when it was stopped meanwhile. */
export const reportProgress = async (db: Db, row: ImportRow, doneShare: number): Promise<boolean> => {
  const [still] = await db
    .update(fileImport)
    .set({ doneShare, state: "running", updatedAt: sql`now()` })
    .where(and(eq(fileImport.id, row.id), inArray(fileImport.state, ["waiting", "running"])))
    .returning({ id: fileImport.id });
  await tellImport(db, row);
  return still !== undefined;
};

/** Ends an import within the transaction that made its rows visible, so that both are there or neither. */
export const finishImport = async (tx: Tx, row: ImportRow, result: unknown, jobId: string | null = row.jobId): Promise<void> => {
  const [done] = await tx
    .update(fileImport)
    .set({ state: "done", doneShare: 1, result, fault: null, jobId, updatedAt: sql`now()` })
    .where(and(eq(fileImport.id, row.id), inArray(fileImport.state, ["waiting", "running"])))
    .returning();
  if (done === undefined) throw new Refused("import-stopped", "import");
  await recordChange(tx, {
    jobId: done.jobId!,
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
    .set({ state: "failed", fault: keepable(fault), updatedAt: sql`now()` })
    .where(and(eq(fileImport.id, row.id), inArray(fileImport.state, ["waiting", "running"])));
  await tellImport(db, row);
};

const MOST_FAULT = 1000;
/** A sentence that a database can keep, whatever the file put into it. */
const keepable = (text: string): string =>
  // biome-ignore lint/suspicious/noControlCharactersInRegex: those are what is taken out
  text.replace(/[\u0000-\u001f\u007f]|[\uD800-\uDBFF](?![\uDC00-\uDFFF])|(?<![\uD800-\uDBFF])[\uDC00-\uDFFF]/g, " ").slice(0, MOST_FAULT);

/**
 * An import whose reader was ended from outside: it is tried once more, then set aside with a sentence.
 * @param why what ended it, in words.
 */
export const readerEnded = async (db: Db, importId: string, why: string): Promise<void> => {
  const [row] = await db
    .update(fileImport)
    .set({ attempts: sql`${fileImport.attempts} + 1`, updatedAt: sql`now()` })
    .where(and(eq(fileImport.id, importId), inArray(fileImport.state, ["waiting", "running"])))
    .returning();
  if (row !== undefined && row.attempts >= MOST_ATTEMPTS) await failImport(db, row, `${why}, ${MOST_ATTEMPTS} times over; it is set aside`);
};

const MOST_ATTEMPTS = 2;

/** Stops an import that is under way; what it has written is taken away by the worker. */
export const stopImport = (db: Db, importId: string): Promise<void> =>
  db.transaction(async (tx) => {
    const [row] = await tx.select().from(fileImport).where(eq(fileImport.id, importId)).for("update");
    if (row === undefined) throw new NotFound("import");
    if (row.state !== "waiting" && row.state !== "running") throw new Refused("import-not-running", "import", { state: row.state });
    await tx.update(fileImport).set({ state: "stopped", updatedAt: sql`now()` }).where(eq(fileImport.id, importId));
    await tellImport(tx, row);
  });

const TABLES = ["obstacle", "feature", "site", "terrain_dataset", "radio", "antenna", "part"] as const;

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
  // Ground and sheets lie beneath other jobs of the firm, too.
  await forAllJobs(tx);
  for (const name of TABLES) {
    const table = sql.identifier(name);
    // A data sheet that another job plans with stays.
    if (removed && (name === "radio" || name === "antenna")) {
      await tx.execute(sql`UPDATE ${table} t SET deleted_at = now() WHERE t.import_id = ${importId} AND t.deleted_at IS NULL
        AND NOT EXISTS (SELECT FROM design d JOIN link l ON l.id = d.link_id JOIN job j ON j.id = l.job_id
          WHERE t.id IN (d.near_radio_id, d.far_radio_id, d.near_antenna_id, d.far_antenna_id)
            AND j.deleted_at IS NULL AND j.id IS DISTINCT FROM ${row.jobId})`);
      continue;
    }
    if (removed && name === "part") {
      await tx.execute(sql`UPDATE part t SET deleted_at = now() WHERE t.import_id = ${importId} AND t.deleted_at IS NULL
        AND NOT EXISTS (SELECT FROM record r JOIN job j ON j.id = r.job_id
          WHERE ${wiredWith(sql`t.id`)} AND j.deleted_at IS NULL AND j.id IS DISTINCT FROM ${row.jobId})`);
      continue;
    }
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
  if (row.what === "bundle")
    await tx
      .update(job)
      .set({ deletedAt: removed ? sql`now()` : null })
      .where(eq(job.id, row.jobId!));
  if (row.what === "terrain" || row.what === "bundle") await groundChanged(tx);
};

/** Ground is shared by all jobs of a firm: whatever was computed on it is stale. */
export const groundChanged = async (tx: Pick<Tx, "execute">): Promise<void> => {
  await forAllJobs(tx);
  await tx.execute(sql`UPDATE job SET revision = revision + 1 WHERE deleted_at IS NULL AND organisation_id = own_organisation()`);
};

/** The same as an edit of its own, from the list of imports. */
export const removeImport = (db: Db, importId: string, removed: boolean): Promise<void> =>
  db.transaction(async (tx) => {
    const [row] = await tx.select().from(fileImport).where(eq(fileImport.id, importId));
    if (row === undefined || row.jobId === null) throw new NotFound("import");
    await tx.select({ id: job.id }).from(job).where(eq(job.id, row.jobId)).for("update");
    await setImportRemoved(tx, importId, removed);
    await recordChange(tx, {
      jobId: row.jobId!,
      entity: "import",
      entityId: importId,
      action: removed ? "delete" : "restore",
      before: { fileName: row.fileName },
      after: { fileName: row.fileName, what: row.what },
    });
  });
