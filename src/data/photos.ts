import { and, eq } from "drizzle-orm";
import { NotFound } from "./clash";
import type { Db } from "./client";
import { photo } from "./schema";

export const photoBytes = async (db: Db, jobId: string, photoId: string): Promise<{ mime: string; bytes: Buffer }> => {
  const [row] = await db
    .select({ mime: photo.mime, bytes: photo.bytes })
    .from(photo)
    .where(and(eq(photo.id, photoId), eq(photo.jobId, jobId)));
  if (row === undefined) throw new NotFound("photo");
  return row;
};
