import { and, eq, isNull, or, sql } from "drizzle-orm";
import { inverse } from "../core/geo";
import { recordChange, type Tx } from "./changes";
import { NotFound, Refused, VersionClash } from "./clash";
import type { Db } from "./client";
import type { SiteRow } from "./jobs";
import { lockJobOf } from "./lock";
import { job, link, site } from "./schema";

/** Two sites closer than this are one spot. */
export const ONE_SPOT_M = 2;

/** What people edit of a site; what is left out keeps its default. */
export type SiteInput = Omit<typeof site.$inferInsert, "id" | "jobId" | "importId" | "version" | "createdAt" | "updatedAt" | "deletedAt">;

const refuseSameSpot = async (tx: Tx, jobId: string, self: string | null, at: { latDeg: number; lonDeg: number }): Promise<void> => {
  const others = await tx
    .select()
    .from(site)
    .where(and(eq(site.jobId, jobId), isNull(site.deletedAt)));
  for (const other of others) {
    if (other.id !== self && inverse(other, at).distanceM < ONE_SPOT_M) throw new Refused("same-spot", "position", { name: other.name });
  }
};

export const createSite = (db: Db, jobId: string, input: SiteInput): Promise<SiteRow> =>
  db.transaction(async (tx) => {
    const [owner] = await tx.select().from(job).where(eq(job.id, jobId)).for("update");
    if (owner === undefined) throw new NotFound("job");
    await refuseSameSpot(tx, jobId, null, input);
    const [row] = await tx
      .insert(site)
      .values({ ...input, jobId })
      .returning();
    await recordChange(tx, { jobId, entity: "site", entityId: row!.id, action: "create", before: null, after: input });
    return row!;
  });

export const updateSite = (db: Db, siteId: string, version: number, input: Partial<SiteInput>): Promise<SiteRow> =>
  db.transaction(async (tx) => {
    await lockJobOf(tx, "site", siteId);
    const [before] = await tx.select().from(site).where(eq(site.id, siteId)).for("update");
    if (before === undefined) throw new NotFound("site");
    if (before.version !== version) throw new VersionClash("site", before);
    if (input.latDeg !== undefined || input.lonDeg !== undefined) {
      await refuseSameSpot(tx, before.jobId, siteId, { latDeg: input.latDeg ?? before.latDeg, lonDeg: input.lonDeg ?? before.lonDeg });
    }
    const [row] = await tx
      .update(site)
      .set({ ...input, version: version + 1, updatedAt: sql`now()` })
      .where(eq(site.id, siteId))
      .returning();
    await recordChange(tx, { jobId: before.jobId, entity: "site", entityId: siteId, action: "update", before, after: row });
    return row!;
  });

/** Takes a site away, or brings it back. A site that still carries a link stays. */
export const setSiteDeleted = (db: Db, siteId: string, version: number, deleted: boolean): Promise<SiteRow> =>
  db.transaction(async (tx) => {
    await lockJobOf(tx, "site", siteId);
    const [before] = await tx.select().from(site).where(eq(site.id, siteId)).for("update");
    if (before === undefined) throw new NotFound("site");
    if (before.version !== version) throw new VersionClash("site", before);
    if (deleted) {
      const [used] = await tx
        .select()
        .from(link)
        .where(and(or(eq(link.nearSiteId, siteId), eq(link.farSiteId, siteId)), isNull(link.deletedAt)))
        .limit(1);
      if (used !== undefined) throw new Refused("site-in-use", "site", { name: before.name, link: used.number });
    }
    const [row] = await tx
      .update(site)
      .set({ deletedAt: deleted ? sql`now()` : null, version: version + 1, updatedAt: sql`now()` })
      .where(eq(site.id, siteId))
      .returning();
    await recordChange(tx, {
      jobId: before.jobId,
      entity: "site",
      entityId: siteId,
      action: deleted ? "delete" : "restore",
      before,
      after: row,
    });
    return row!;
  });
