import { createHash } from "node:crypto";
import { open } from "node:fs/promises";
import { Zip, ZipDeflate, ZipPassThrough } from "fflate";
import { writeAll } from "./write-all";

export interface ZipWriter {
  /** Writes one file of the archive, piece by piece. @returns its size and checksum. */
  readonly add: (
    name: string,
    pieces: Iterable<Uint8Array> | AsyncIterable<Uint8Array>,
    packed?: boolean,
  ) => Promise<{ bytes: number; sha256: string }>;
  readonly close: () => Promise<void>;
}

/** One moment for every entry: the same content gives the same bytes. */
const FIXED_TIME = new Date("2020-01-01T00:00:00Z");

/** Opens an archive for writing, file after file: nothing is held but the piece under way. */
export const openZip = async (path: string): Promise<ZipWriter> => {
  const out = await open(path, "w");
  let fault: Error | null = null;
  let pending: Uint8Array[] = [];
  const zip = new Zip((error, chunk) => {
    if (error !== null) fault ??= error;
    else pending.push(chunk);
  });
  const flush = async (): Promise<void> => {
    if (fault !== null) throw fault;
    const batch = pending;
    pending = [];
    for (const chunk of batch) await writeAll(out, chunk);
  };
  return {
    add: async (name, pieces, packed = true) => {
      const entry = packed ? new ZipDeflate(name, { level: 6 }) : new ZipPassThrough(name);
      entry.mtime = FIXED_TIME;
      zip.add(entry);
      const hash = createHash("sha256");
      let bytes = 0;
      for await (const piece of pieces) {
        hash.update(piece);
        bytes += piece.length;
        // What is pushed belongs to the packer from then on.
        entry.push(Uint8Array.from(piece), false);
        await flush();
      }
      entry.push(new Uint8Array(0), true);
      await flush();
      return { bytes, sha256: hash.digest("hex") };
    },
    close: async () => {
      try {
        zip.end();
        await flush();
      } finally {
        await out.close();
      }
    },
  };
};
