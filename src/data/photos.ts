import { and, eq, ne, sql } from "drizzle-orm";
import { NotFound, Refused } from "./clash";
import type { Db } from "./client";
import { gigabytes } from "./files";
import { photo } from "./schema";

export const photoBytes = async (db: Db, jobId: string, photoId: string): Promise<{ mime: string; bytes: Buffer }> => {
  const [row] = await db
    .select({ mime: photo.mime, bytes: photo.bytes })
    .from(photo)
    .where(and(eq(photo.id, photoId), eq(photo.jobId, jobId)));
  if (row === undefined) throw new NotFound("photo");
  return row;
};

/** Photos of one job, those that were taken away with them: they can be brought back. */
const MOST_BYTES = Number(process.env.DRYARC_MOST_PHOTO_BYTES ?? 4_000_000_000);

/**
 * Whether a job has room for a photo. One that is here already, and was sent again, takes none.
 * @throws Refused "quota-photos"
 */
export const needPhotoRoom = async (db: Pick<Db, "select">, jobId: string, sizeBytes: number, id: string | undefined): Promise<void> => {
  const [row] = await db
    .select({ held: sql<number>`coalesce(sum(octet_length(${photo.bytes})), 0)::float8` })
    .from(photo)
    .where(and(eq(photo.jobId, jobId), ...(id === undefined ? [] : [ne(photo.id, id)])));
  if (row!.held + sizeBytes > MOST_BYTES)
    throw new Refused("quota-photos", "photo", { heldGb: gigabytes(row!.held), mostGb: gigabytes(MOST_BYTES) });
};
