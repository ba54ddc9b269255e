import { and, asc, eq, isNull, sql } from "drizzle-orm";
import { inverse } from "../core/geo";
import { LONGEST_LINK_M, SHORTEST_LINK_M } from "../core/link";
import { recordChange } from "./changes";
import { NotFound, Refused, VersionClash } from "./clash";
import type { Db } from "./client";
import type { DesignRow, LinkWithDesign } from "./jobs";
import { lockJobOf } from "./lock";
import { design, job, link, site } from "./schema";

export type DesignInput = Omit<
  typeof design.$inferInsert,
  "id" | "linkId" | "chosen" | "name" | "version" | "createdAt" | "updatedAt" | "deletedAt"
>;

export const createLink = (
  db: Db,
  jobId: string,
  input: { nearSiteId: string; farSiteId: string; label: string; stage?: string; design: DesignInput },
): Promise<LinkWithDesign> =>
  db.transaction(async (tx) => {
    const [owner] = await tx.select().from(job).where(eq(job.id, jobId)).for("update");
    if (owner === undefined) throw new NotFound("job");
    const sites = await tx.select().from(site).where(eq(site.jobId, jobId));
    const near = sites.find((s) => s.id === input.nearSiteId && s.deletedAt === null);
    const far = sites.find((s) => s.id === input.farSiteId && s.deletedAt === null);
    if (near === undefined || far === undefined) throw new NotFound("site");
    if (near.id === far.id) throw new Refused("same-ends", "farSiteId", { name: near.name });
    const { distanceM } = inverse(near, far);
    if (distanceM < SHORTEST_LINK_M || distanceM > LONGEST_LINK_M) {
      throw new Refused("link-length", "farSiteId", { distanceM, leastM: SHORTEST_LINK_M, mostM: LONGEST_LINK_M });
    }
    const [{ next } = { next: 1 }] = await tx
      .select({ next: sql<number>`coalesce(max(${link.number}), 0)::int + 1` })
      .from(link)
      .where(eq(link.jobId, jobId));
    const [row] = await tx
      .insert(link)
      .values({
        jobId,
        number: next,
        nearSiteId: near.id,
        farSiteId: far.id,
        label: input.label,
        ...(input.stage === undefined ? {} : { stage: input.stage }),
      })
      .returning();
    const [drawn] = await tx
      .insert(design)
      .values({ ...input.design, linkId: row!.id })
      .returning();
    await recordChange(tx, { jobId, entity: "link", entityId: row!.id, action: "create", before: null, after: { ...row, design: drawn } });
    return { ...row!, design: drawn! };
  });

/** Saves a design made on a version. @throws VersionClash with the row as it now stands. */
export const updateDesign = (db: Db, designId: string, version: number, input: Partial<DesignInput>): Promise<DesignRow> =>
  db.transaction(async (tx) => {
    await lockJobOf(tx, "design", designId);
    const [before] = await tx.select().from(design).where(eq(design.id, designId)).for("update");
    if (before === undefined) throw new NotFound("design");
    if (before.version !== version) throw new VersionClash("design", before);
    const [owner] = await tx.select({ jobId: link.jobId }).from(link).where(eq(link.id, before.linkId));
    const [row] = await tx
      .update(design)
      .set({ ...input, version: version + 1, updatedAt: sql`now()` })
      .where(eq(design.id, designId))
      .returning();
    await recordChange(tx, { jobId: owner!.jobId, entity: "design", entityId: designId, action: "update", before, after: row });
    return row!;
  });

/** Designs of a link kept beside the one in force, oldest first. */
export const keptDesigns = (db: Db, linkId: string): Promise<DesignRow[]> =>
  db
    .select()
    .from(design)
    .where(and(eq(design.linkId, linkId), eq(design.chosen, false), isNull(design.deletedAt)))
    .orderBy(asc(design.createdAt));

/** The same of all links of a job. */
export const keptDesignsOf = (db: Db, jobId: string): Promise<DesignRow[]> =>
  db
    .select({ design })
    .from(design)
    .innerJoin(link, eq(link.id, design.linkId))
    .where(and(eq(link.jobId, jobId), isNull(link.deletedAt), eq(design.chosen, false), isNull(design.deletedAt)))
    .orderBy(asc(design.createdAt))
    .then((rows) => rows.map((r) => r.design));

/** Most designs kept beside the one in force. */
export const MOST_KEPT = 8;

/** Keeps a copy of the design in force, to compare with. @param shown its fields as they stand on the screen, when they may not be saved yet. */
export const keepDesign = (db: Db, linkId: string, name: string, shown: Partial<DesignInput> = {}): Promise<DesignRow> =>
  db.transaction(async (tx) => {
    await lockJobOf(tx, "link", linkId);
    const [owner] = await tx.select().from(link).where(eq(link.id, linkId)).for("update");
    if (owner === undefined || owner.deletedAt !== null) throw new NotFound("link");
    const rows = await tx
      .select()
      .from(design)
      .where(and(eq(design.linkId, linkId), isNull(design.deletedAt)));
    const chosen = rows.find((d) => d.chosen);
    if (chosen === undefined) throw new NotFound("design");
    if (rows.length > MOST_KEPT) throw new Refused("too-many-designs", "design", { most: MOST_KEPT });
    const { id: _i, version: _v, createdAt: _c, updatedAt: _u, deletedAt: _d, ...fields } = chosen;
    const taken = new Set(rows.map((d) => d.name));
    const letter = ["B", "C", "D", "E", "F", "G", "H", "I", "J"].find((l) => !taken.has(l)) ?? "kept";
    const [row] = await tx
      .insert(design)
      .values({ ...fields, ...shown, chosen: false, name: name === "" ? letter : name })
      .returning();
    await recordChange(tx, { jobId: owner.jobId, entity: "design", entityId: row!.id, action: "create", before: null, after: row });
    return row!;
  });

/** Takes a kept design away. The one in force stays. */
export const dropDesign = (db: Db, designId: string, version: number): Promise<void> =>
  db.transaction(async (tx) => {
    await lockJobOf(tx, "design", designId);
    const [before] = await tx.select().from(design).where(eq(design.id, designId)).for("update");
    if (before === undefined || before.chosen) throw new NotFound("design");
    if (before.version !== version) throw new VersionClash("design", before);
    const [owner] = await tx.select({ jobId: link.jobId }).from(link).where(eq(link.id, before.linkId));
    const [row] = await tx
      .update(design)
      .set({ deletedAt: sql`now()`, version: version + 1, updatedAt: sql`now()` })
      .where(eq(design.id, designId))
      .returning();
    await recordChange(tx, { jobId: owner!.jobId, entity: "design", entityId: designId, action: "delete", before, after: row });
  });

export const setLinkDeleted = (db: Db, linkId: string, version: number, deleted: boolean): Promise<void> =>
  db.transaction(async (tx) => {
    await lockJobOf(tx, "link", linkId);
    const [before] = await tx.select().from(link).where(eq(link.id, linkId)).for("update");
    if (before === undefined) throw new NotFound("link");
    if (before.version !== version) throw new VersionClash("link", before);
    const [row] = await tx
      .update(link)
      .set({ deletedAt: deleted ? sql`now()` : null, version: version + 1, updatedAt: sql`now()` })
      .where(eq(link.id, linkId))
      .returning();
    await recordChange(tx, {
      jobId: before.jobId,
      entity: "link",
      entityId: linkId,
      action: deleted ? "delete" : "restore",
      before,
      after: row,
    });
  });

/** Ground told by hand for a link, or null for the terrain in force; made on a version. */
export const setGroundTold = (db: Db, linkId: string, version: number, groundTold: unknown): Promise<void> =>
  db.transaction(async (tx) => {
    await lockJobOf(tx, "link", linkId);
    const [before] = await tx.select().from(link).where(eq(link.id, linkId)).for("update");
    if (before === undefined) throw new NotFound("link");
    if (before.version !== version) throw new VersionClash("link", before);
    const [row] = await tx
      .update(link)
      .set({ groundTold, version: version + 1, updatedAt: sql`now()` })
      .where(eq(link.id, linkId))
      .returning();
    await recordChange(tx, { jobId: before.jobId, entity: "link", entityId: linkId, action: "update", before, after: row });
  });
