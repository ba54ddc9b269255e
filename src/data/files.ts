import { createHash } from "node:crypto";
import { mkdir, open, readdir, rm, stat, statfs } from "node:fs/promises";
import path from "node:path";
import { Refused } from "./clash";

/** Where files on their way in and out lie. */
export const filesDir = (): string => path.resolve(process.env.DRYARC_FILES ?? ".data/files");

/** @param uploadId an id out of the database, never a name from outside. */
export const filePath = (uploadId: string): string => path.join(filesDir(), uploadId);

/** Room that is left free on the disk, whatever comes. */
const LEFT_FREE_BYTES = 300_000_000;

/** @throws Refused when the disk has no room for so many bytes more. */
export const needRoom = async (bytes: number): Promise<void> => {
  await mkdir(filesDir(), { recursive: true });
  const fs = await statfs(filesDir());
  const freeBytes = fs.bavail * fs.bsize;
  const least = Number(process.env.DRYARC_LEFT_FREE_BYTES ?? LEFT_FREE_BYTES);
  if (freeBytes - bytes < least) throw new Refused("disk-full", "file", { freeMb: Math.max(0, Math.floor((freeBytes - least) / 1e6)) });
};

export const isDiskFull = (error: unknown): boolean => {
  for (let e: unknown = error; e instanceof Error; e = e.cause)
    if (/^(ENOSPC|EDQUOT|53100)$/.test((e as { code?: string }).code ?? "")) return true;
  return false;
};

/**
 * Writes one piece of a file at its place: all of it, as its checksum says, or an error.
 * @param sha256 what the sender made of the piece. @returns the size so far.
 */
export const writePiece = async (uploadId: string, at: number, bytes: Uint8Array, sha256?: string): Promise<number> => {
  if (sha256 !== undefined && createHash("sha256").update(bytes).digest("hex") !== sha256) throw new Refused("piece-damaged", "file");
  await mkdir(filesDir(), { recursive: true });
  const file = await open(filePath(uploadId), at === 0 ? "w" : "r+");
  try {
    let done = 0;
    while (done < bytes.length) {
      const { bytesWritten } = await file.write(bytes, done, bytes.length - done, at + done);
      if (bytesWritten <= 0) throw Object.assign(new Error("the disk takes no more"), { code: "ENOSPC" });
      done += bytesWritten;
    }
    await file.sync();
    return at + bytes.length;
  } finally {
    await file.close();
  }
};

/** True when a file is there in all its length. */
export const isWhole = async (uploadId: string, sizeBytes: number): Promise<boolean> =>
  stat(filePath(uploadId)).then(
    (s) => s.size === sizeBytes,
    () => false,
  );

/** Removes a file and whatever a reader left beside it. */
export const removeFile = async (uploadId: string): Promise<void> => {
  await rm(filePath(uploadId), { force: true });
  const beside = await readdir(filesDir()).catch(() => []);
  for (const name of beside) if (name.startsWith(`${uploadId}.`)) await rm(path.join(filesDir(), name), { recursive: true, force: true });
};

const UPLOAD = /^[0-9a-f]{8}(?:-[0-9a-f]{4}){3}-[0-9a-f]{12}/;

/** @returns the uploads of which a file, or something a reader left beside it, lies on the disk. */
export const heldFiles = async (): Promise<string[]> => {
  const names = await readdir(filesDir()).catch(() => []);
  return [...new Set(names.flatMap((name) => UPLOAD.exec(name)?.[0] ?? []))];
};

/** Removes files on their way out that nobody fetched: their maker or their asker died. */
export const sweepOut = async (olderThanMs: number): Promise<void> => {
  for (const name of await readdir(filesDir()).catch(() => [])) {
    if (!name.startsWith("out-")) continue;
    const file = path.join(filesDir(), name);
    const age = await stat(file).then(
      (s) => Date.now() - s.mtimeMs,
      () => 0,
    );
    if (age > olderThanMs) await rm(file, { force: true });
  }
};

/** Bytes as they are told of limits. */
export const gigabytes = (bytes: number): number => Math.round(bytes / 1e8) / 10;
