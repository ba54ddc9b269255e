import { eq, sql } from "drizzle-orm";
import { recordChange } from "./changes";
import { NotFound, VersionClash } from "./clash";
import type { Db } from "./client";
import { brief, job } from "./schema";

export interface BriefRow {
  readonly doc: unknown;
  readonly version: number;
}

/** The brief of a job; version 0 while nothing was written. */
export const getBrief = async (db: Db, jobId: string): Promise<BriefRow> => {
  const [row] = await db.select().from(brief).where(eq(brief.jobId, jobId));
  return row === undefined ? { doc: {}, version: 0 } : { doc: row.doc, version: row.version };
};

/** Saves the whole brief on a version. @throws VersionClash with the row as it now stands. */
export const saveBrief = (db: Db, jobId: string, version: number, doc: unknown): Promise<BriefRow> =>
  db.transaction(async (tx) => {
    const [owner] = await tx.select({ id: job.id }).from(job).where(eq(job.id, jobId)).for("update");
    if (owner === undefined) throw new NotFound("job");
    const [before] = await tx.select().from(brief).where(eq(brief.jobId, jobId));
    if ((before?.version ?? 0) !== version) throw new VersionClash("brief", before ?? null);
    if (before === undefined) await tx.insert(brief).values({ jobId, doc });
    else
      await tx
        .update(brief)
        .set({ doc, version: version + 1, updatedAt: sql`now()` })
        .where(eq(brief.jobId, jobId));
    await recordChange(tx, {
      jobId,
      entity: "brief",
      entityId: jobId,
      action: "update",
      before: { name: "Brief", doc: before?.doc ?? {} },
      after: { name: "Brief", doc },
    });
    return { doc, version: version + 1 };
  });
