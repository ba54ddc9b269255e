import type { FileHandle } from "node:fs/promises";

/**
 * Writes every byte: a disk that fills up takes a part of a piece without an error, and says so only at the next.
 * @param at where to write; null for behind what was written before. @throws as the disk does (ENOSPC).
 */
export const writeAll = async (file: FileHandle, bytes: Uint8Array, at: number | null = null): Promise<void> => {
  let done = 0;
  while (done < bytes.length) {
    const { bytesWritten } = await file.write(bytes, done, bytes.length - done, at === null ? null : at + done);
    if (bytesWritten <= 0) throw Object.assign(new Error("the disk takes no more"), { code: "ENOSPC" });
    done += bytesWritten;
  }
};
