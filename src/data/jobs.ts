import { and, asc, desc, eq, inArray, isNull, sql } from "drizzle-orm";
import { askerNow, mayOpen } from "./actor";
import { NotFound } from "./clash";
import type { Db } from "./client";
import { design, job, link, site } from "./schema";

export type JobRow = typeof job.$inferSelect;
export type SiteRow = typeof site.$inferSelect;
export type LinkRow = typeof link.$inferSelect;
export type DesignRow = typeof design.$inferSelect;
export type LinkWithDesign = LinkRow & { design: DesignRow };

/** Jobs that whoever works may open. */
export const openJobs = () => {
  const who = askerNow();
  return and(
    isNull(job.deletedAt),
    who === null ? undefined : eq(job.organisationId, who.organisationId),
    who === null || who.jobIds === null ? undefined : inArray(job.id, [...who.jobIds]),
  );
};

/** The next number of a job in the firm that this transaction works for. */
export const nextJobNumber = async (tx: Pick<Db, "select">): Promise<number> => {
  const [{ next } = { next: 1 }] = await tx
    .select({ next: sql<number>`coalesce(max(${job.number}), 0)::int + 1` })
    .from(job)
    .where(sql`${job.organisationId} = own_organisation()`);
  return next;
};

export const listJobs = (db: Db): Promise<JobRow[]> => db.select().from(job).where(openJobs()).orderBy(desc(job.number));

export const getJob = async (db: Db, jobId: string): Promise<JobRow> => {
  const [row] = await db
    .select()
    .from(job)
    .where(and(eq(job.id, jobId), isNull(job.deletedAt)));
  // A job of others is not there.
  if (row === undefined || !mayOpen(row)) throw new NotFound("job");
  return row;
};

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
  if (row === undefined || !mayOpen(row.job)) throw new NotFound("link");
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
