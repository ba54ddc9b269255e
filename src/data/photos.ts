import { and, asc, eq, isNull, sql } from "drizzle-orm";
import { recordChange } from "./changes";
import { NotFound, VersionClash } from "./clash";
import type { Db } from "./client";
import { lockJobOf } from "./lock";
import { photo } from "./schema";

export type PhotoRow = Omit<typeof photo.$inferSelect, "bytes">;

export const PHOTO_HEAD = {
  id: photo.id,
  jobId: photo.jobId,
  siteId: photo.siteId,
  fromWhere: photo.fromWhere,
  bearingDeg: photo.bearingDeg,
  takenOn: photo.takenOn,
  note: photo.note,
  mime: photo.mime,
  version: photo.version,
  createdAt: photo.createdAt,
  updatedAt: photo.updatedAt,
  deletedAt: photo.deletedAt,
};

export const photosOf = (db: Db, jobId: string): Promise<PhotoRow[]> =>
  db
    .select(PHOTO_HEAD)
    .from(photo)
    .where(and(eq(photo.jobId, jobId), isNull(photo.deletedAt)))
    .orderBy(asc(photo.createdAt));

export const photoBytes = async (db: Db, jobId: string, photoId: string): Promise<{ mime: string; bytes: Buffer }> => {
  const [row] = await db
    .select({ mime: photo.mime, bytes: photo.bytes })
    .from(photo)
    .where(and(eq(photo.id, photoId), eq(photo.jobId, jobId)));
  if (row === undefined) throw new NotFound("photo");
  return row;
};

export const createPhoto = (
  db: Db,
  input: Pick<PhotoRow, "jobId" | "siteId" | "fromWhere" | "bearingDeg" | "takenOn" | "note" | "mime"> & { bytes: Buffer },
): Promise<PhotoRow> =>
  db.transaction(async (tx) => {
    const [row] = await tx.insert(photo).values(input).returning(PHOTO_HEAD);
    await recordChange(tx, {
      jobId: input.jobId,
      entity: "photo",
      entityId: row!.id,
      action: "create",
      before: null,
      after: { ...row, name: "photo" },
    });
    return row!;
  });

export const updatePhoto = (
  db: Db,
  photoId: string,
  version: number,
  fields: Partial<Pick<PhotoRow, "fromWhere" | "bearingDeg" | "takenOn" | "note" | "siteId">> & { deleted?: boolean | undefined },
): Promise<PhotoRow> =>
  db.transaction(async (tx) => {
    await lockJobOf(tx, "photo", photoId);
    const [before] = await tx.select(PHOTO_HEAD).from(photo).where(eq(photo.id, photoId)).for("update");
    if (before === undefined) throw new NotFound("photo");
    if (before.version !== version) throw new VersionClash("photo", before);
    const { deleted, ...rest } = fields;
    const [row] = await tx
      .update(photo)
      .set({ ...rest, ...(deleted === undefined ? {} : { deletedAt: deleted ? sql`now()` : null }), version: version + 1 })
      .where(eq(photo.id, photoId))
      .returning(PHOTO_HEAD);
    await recordChange(tx, {
      jobId: before.jobId,
      entity: "photo",
      entityId: photoId,
      action: deleted === undefined ? "update" : deleted ? "delete" : "restore",
      before: { ...before, name: "photo" },
      after: { ...row, name: "photo" },
    });
    return row!;
  });
