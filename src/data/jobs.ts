import { and, asc, desc, eq, inArray, isNull, sql } from "drizzle-orm";
import { recordChange } from "./changes";
import { NotFound, VersionClash } from "./clash";
import type { Db } from "./client";
import { design, job, link, site } from "./schema";

export type JobRow = typeof job.$inferSelect;
export type SiteRow = typeof site.$inferSelect;
export type LinkRow = typeof link.$inferSelect;
export type DesignRow = typeof design.$inferSelect;
export type LinkWithDesign = LinkRow & { design: DesignRow };

export const listJobs = (db: Db): Promise<JobRow[]> => db.select().from(job).where(isNull(job.deletedAt)).orderBy(desc(job.number));

export const getJob = async (db: Db, jobId: string): Promise<JobRow> => {
  const [row] = await db
    .select()
    .from(job)
    .where(and(eq(job.id, jobId), isNull(job.deletedAt)));
  if (row === undefined) throw new NotFound("job");
  return row;
};

export interface NewJob {
  readonly name: string;
  readonly place: string;
  readonly visitOn: string;
  readonly centreLatDeg: number;
  readonly centreLonDeg: number;
  readonly ruleDomain: string;
  readonly rainRate001MmH: number;
  readonly tideRangeM?: number;
  readonly stage?: string;
}

export const createJob = (db: Db, input: NewJob): Promise<JobRow> =>
  db.transaction(async (tx) => {
    // Two jobs made at once must not take the same number.
    await tx.execute(sql`SELECT pg_advisory_xact_lock(4610)`);
    const [{ next } = { next: 1 }] = await tx.select({ next: sql<number>`coalesce(max(${job.number}), 0)::int + 1` }).from(job);
    const [row] = await tx
      .insert(job)
      .values({ ...input, number: next })
      .returning();
    await recordChange(tx, { jobId: row!.id, entity: "job", entityId: row!.id, action: "create", before: null, after: input });
    return row!;
  });

/** Working rules and assumptions of a job, made on a version. @throws VersionClash with the row as it now stands. */
export const updateJob = (
  db: Db,
  jobId: string,
  version: number,
  input: Partial<Omit<typeof job.$inferInsert, "id" | "number" | "version" | "revision" | "createdAt" | "updatedAt" | "deletedAt">>,
): Promise<JobRow> =>
  db.transaction(async (tx) => {
    const [before] = await tx.select().from(job).where(eq(job.id, jobId)).for("update");
    if (before === undefined || before.deletedAt !== null) throw new NotFound("job");
    if (before.version !== version) throw new VersionClash("job", before);
    await tx
      .update(job)
      .set({ ...input, version: version + 1 })
      .where(eq(job.id, jobId));
    await recordChange(tx, { jobId, entity: "job", entityId: jobId, action: "update", before, after: input });
    const [row] = await tx.select().from(job).where(eq(job.id, jobId));
    return row!;
  });

export const sitesOf = (db: Db, jobId: string): Promise<SiteRow[]> =>
  db
    .select()
    .from(site)
    .where(and(eq(site.jobId, jobId), isNull(site.deletedAt)))
    .orderBy(asc(site.createdAt), asc(site.name));

export const linksOf = async (db: Db, jobId: string): Promise<LinkWithDesign[]> => {
  const rows = await db
    .select()
    .from(link)
    .innerJoin(design, and(eq(design.linkId, link.id), eq(design.chosen, true), isNull(design.deletedAt)))
    .where(and(eq(link.jobId, jobId), isNull(link.deletedAt)))
    .orderBy(asc(link.number));
  return rows.map((r) => ({ ...r.link, design: r.design }));
};

/** @param jobId the job that it must belong to; left out where the program itself asks. */
export const getLink = async (
  db: Db,
  linkId: string,
  jobId?: string,
): Promise<{ link: LinkWithDesign; job: JobRow; near: SiteRow; far: SiteRow }> => {
  const [row] = await db
    .select()
    .from(link)
    .innerJoin(design, and(eq(design.linkId, link.id), eq(design.chosen, true), isNull(design.deletedAt)))
    .innerJoin(job, eq(job.id, link.jobId))
    .where(
      and(eq(link.id, linkId), isNull(link.deletedAt), isNull(job.deletedAt), jobId === undefined ? undefined : eq(link.jobId, jobId)),
    );
  if (row === undefined) throw new NotFound("link");
  const sites = await db
    .select()
    .from(site)
    .where(inArray(site.id, [row.link.nearSiteId, row.link.farSiteId]));
  const near = sites.find((s) => s.id === row.link.nearSiteId);
  const far = sites.find((s) => s.id === row.link.farSiteId);
  if (near === undefined || far === undefined) throw new NotFound("site");
  return { link: { ...row.link, design: row.design }, job: row.job, near, far };
};

/** Where a job is at home: its sites, or its centre while it has none. */
export const placesOf = async (db: Db, jobId: string): Promise<{ latDeg: number; lonDeg: number }[]> => {
  const sites = await db
    .select({ latDeg: site.latDeg, lonDeg: site.lonDeg })
    .from(site)
    .where(and(eq(site.jobId, jobId), isNull(site.deletedAt)));
  if (sites.length > 0) return sites;
  const owner = await getJob(db, jobId);
  return [{ latDeg: owner.centreLatDeg, lonDeg: owner.centreLonDeg }];
};
