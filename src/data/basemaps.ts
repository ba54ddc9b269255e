import { and, desc, eq, isNull, sql } from "drizzle-orm";
import { clientNow } from "./actor";
import { tellJob } from "./changes";
import type { Db } from "./client";
import { basemap } from "./schema-work";

export type BasemapRow = typeof basemap.$inferSelect;

/** The map beneath a job's drawing, if one was given. */
export const basemapOf = async (db: Db, jobId: string): Promise<BasemapRow | null> => {
  const [row] = await db
    .select()
    .from(basemap)
    .where(and(eq(basemap.jobId, jobId), isNull(basemap.deletedAt)))
    .orderBy(desc(basemap.createdAt))
    .limit(1);
  return row ?? null;
};

/** Lays a map beneath the drawing in place of the one that was; null takes it away. */
export const setBasemap = (
  db: Db,
  jobId: string,
  input: { kind: string; name: string; credit: string; address?: string; uploadId?: string } | null,
): Promise<BasemapRow | null> =>
  db.transaction(async (tx) => {
    await tx
      .update(basemap)
      .set({ deletedAt: sql`now()` })
      .where(and(eq(basemap.jobId, jobId), isNull(basemap.deletedAt)));
    await tellJob(tx, { jobId, entity: "basemap", clientId: clientNow() });
    if (input === null) return null;
    const [row] = await tx
      .insert(basemap)
      .values({ jobId, ...input })
      .returning();
    return row!;
  });
