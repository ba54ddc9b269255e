import { open } from "node:fs/promises";
import { LRUCache } from "lru-cache";
import { PMTiles, type Source, TileType } from "pmtiles";
import { filePath } from "../data/files";
import { FileFault, reasonOf } from "../formats";

/* A map of the user's own as one file; it is read in a process of its own. */

/** More of a file at once than any directory or tile of a map takes. */
const MOST_PIECE_BYTES = 64_000_000;

/** A file on this disk, read in pieces. */
const fileSource = (uploadId: string): Source => ({
  getKey: () => uploadId,
  getBytes: async (offset, length) => {
    if (!(length >= 0 && length <= MOST_PIECE_BYTES)) throw new RangeError("a directory of it is larger than any map's");
    const file = await open(filePath(uploadId));
    try {
      const bytes = Buffer.alloc(length);
      const { bytesRead } = await file.read(bytes, 0, length, offset);
      return { data: bytes.buffer.slice(bytes.byteOffset, bytes.byteOffset + bytesRead) as ArrayBuffer };
    } finally {
      await file.close();
    }
  },
});

const opened = new LRUCache<string, PMTiles>({ max: 8 });
const archiveOf = (uploadId: string): PMTiles => {
  let archive = opened.get(uploadId);
  if (archive === undefined) {
    archive = new PMTiles(fileSource(uploadId));
    opened.set(uploadId, archive);
  }
  return archive;
};

const IMAGE: Readonly<Partial<Record<TileType, string>>> = {
  [TileType.Png]: "image/png",
  [TileType.Jpeg]: "image/jpeg",
  [TileType.Webp]: "image/webp",
  [TileType.Avif]: "image/avif",
};

/** Reads the head of a PMTiles file. @throws FileFault when it is none, or holds no tiles that can be drawn. */
export const checkPmtiles = async (uploadId: string): Promise<void> => {
  let type: TileType;
  try {
    type = (await archiveOf(uploadId).getHeader()).tileType;
  } catch (error) {
    opened.delete(uploadId);
    throw new FileFault(`it cannot be read as PMTiles: ${reasonOf(error)}`);
  }
  if (IMAGE[type] === undefined)
    throw new FileFault(
      type === TileType.Mvt
        ? "its tiles are vectors; this version draws tiles that are pictures"
        : "its tiles are of a kind that cannot be drawn",
    );
};

export interface TileBytes {
  readonly bytes: Uint8Array;
  readonly type: string;
}

/** One tile of such a file; null where it has none. */
export const tileOfFile = async (
  uploadId: string,
  at: { readonly z: number; readonly x: number; readonly y: number },
): Promise<TileBytes | null> => {
  const archive = archiveOf(uploadId);
  const type = IMAGE[(await archive.getHeader()).tileType] ?? "application/octet-stream";
  const tile = await archive.getZxy(at.z, at.x, at.y);
  return tile === undefined ? null : { bytes: new Uint8Array(tile.data), type };
};
