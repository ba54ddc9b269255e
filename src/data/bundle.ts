import { eq, sql } from "drizzle-orm";
import { mayOpen } from "./actor";
import { recordChange, type Tx } from "./changes";
import { Refused } from "./clash";
import type { Db } from "./client";
import { nextJobNumber } from "./jobs";
import { checkWhole, lockJobs } from "./records";
import { job } from "./schema";
import { storeOf } from "./stores";

/** A record on its way into a database, with the id it is to have there. */
export interface ComingRow {
  readonly kind: string;
  readonly id: string;
  readonly values: Readonly<Record<string, unknown>>;
}

/** Everything of one job but its obstacles, which are too many to hold, in the order in which it can be written. */
export interface JobRows {
  readonly job: ComingRow;
  readonly records: readonly ComingRow[];
}

/** A job of this id, if one is or was here. */
export const jobHere = async (db: Db, jobId: string): Promise<{ name: string; number: number; gone: boolean } | null> => {
  const [here] = await db
    .select({ id: job.id, organisationId: job.organisationId, number: job.number, name: job.name, deletedAt: job.deletedAt })
    .from(job)
    .where(eq(job.id, jobId));
  if (here === undefined) return null;
  // Somebody else's is as good as gone: it is neither told of nor touched.
  return mayOpen(here) ? { name: here.name, number: here.number, gone: here.deletedAt !== null } : { name: "", number: 0, gone: true };
};

/** True when any of these ids is one of a record that is here. @param ids by kind */
export const takenIds = async (db: Db, ids: ReadonlyMap<string, readonly string[]>): Promise<boolean> => {
  for (const [kind, list] of ids) {
    if (list.length === 0) continue;
    const r = await db.execute<{ taken: boolean }>(
      sql`SELECT EXISTS (SELECT FROM ${sql.identifier(storeOf(kind).table)} WHERE id = ANY(${sql.param([...list])}::uuid[])) AS taken`,
    );
    if (r.rows[0]?.taken === true) return true;
  }
  return false;
};

/** Writes a whole job but its obstacles, within a transaction. @throws Refused when a job of this id is here already. */
export const insertJobRows = async (
  tx: Tx,
  rows: JobRows,
  bytesOf: (kind: string, id: string) => Promise<Buffer | null>,
): Promise<string> => {
  await lockJobs(tx);
  const { id, values } = rows.job;
  const [here] = await tx.select({ number: job.number, name: job.name }).from(job).where(eq(job.id, id));
  if (here !== undefined) throw new Refused("job-exists", "job", { name: here.name, number: here.number });
  await storeOf("job").insert(tx, { id, jobId: id, values: { ...values, number: await nextJobNumber(tx) } });
  for (const r of rows.records) {
    checkWhole(r.kind, r.values);
    const bytes = await bytesOf(r.kind, r.id);
    await storeOf(r.kind).insert(tx, { id: r.id, jobId: id, values: r.values, ...(bytes === null ? {} : { bytes }) });
  }
  await recordChange(tx, { jobId: id, entity: "job", entityId: id, action: "create", before: null, after: { title_: values.name } });
  return id;
};
