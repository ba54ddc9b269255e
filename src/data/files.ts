import { mkdir, open, rm } from "node:fs/promises";
import path from "node:path";

/** Where files on their way in lie until they are taken in. */
const filesDir = (): string => path.resolve(process.env.DRYARC_FILES ?? ".data/files");

/** @param uploadId an id out of the database, never a name from outside. */
export const filePath = (uploadId: string): string => path.join(filesDir(), uploadId);

/** Writes one piece of a file at its place. @returns the size so far. */
export const writePiece = async (uploadId: string, at: number, bytes: Uint8Array): Promise<number> => {
  await mkdir(filesDir(), { recursive: true });
  const file = await open(filePath(uploadId), at === 0 ? "w" : "r+");
  try {
    await file.write(bytes, 0, bytes.length, at);
    return at + bytes.length;
  } finally {
    await file.close();
  }
};

export const removeFile = (uploadId: string): Promise<void> => rm(filePath(uploadId), { force: true });
