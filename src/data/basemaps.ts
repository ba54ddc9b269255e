import { and, desc, eq, isNull } from "drizzle-orm";
import type { InputOf } from "../contract";
import { asOneStep } from "./actor";
import type { Db } from "./client";
import { edit } from "./records";
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

/** Lays a map beneath the drawing in place of the one that was, as one step; null takes it away. */
export const setBasemap = (db: Db, jobId: string, input: InputOf<"basemap"> | null): Promise<BasemapRow | null> =>
  asOneStep(() =>
    edit(db, jobId, async (door) => {
      const here = await door.tx
        .select({ id: basemap.id, version: basemap.version })
        .from(basemap)
        .where(and(eq(basemap.jobId, jobId), isNull(basemap.deletedAt)));
      for (const { id, version } of here) await door.take("basemap", id, version);
      if (input !== null) await door.create("basemap", input);
      return basemapOf(door.tx as unknown as Db, jobId);
    }),
  );
