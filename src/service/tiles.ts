import { open } from "node:fs/promises";
import { PMTiles, type Source, TileType } from "pmtiles";
import type { BasemapRow } from "../data/basemaps";
import { Refused } from "../data/clash";
import { filePath } from "../data/files";
import { FileFault, reasonOf } from "../formats";

const MOST_TILE_BYTES = 3_000_000;
const TILE_TIMEOUT_MS = 8000;

/** A file on this disk, read in pieces. */
const fileSource = (uploadId: string): Source => ({
  getKey: () => uploadId,
  getBytes: async (offset, length) => {
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

const opened = new Map<string, PMTiles>();
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

const fetchTile = async (address: string, at: { z: number; x: number; y: number }): Promise<TileBytes | null> => {
  const url = address.replaceAll("{z}", String(at.z)).replaceAll("{x}", String(at.x)).replaceAll("{y}", String(at.y));
  let response: Response;
  try {
    // A redirect could lead anywhere: it is not followed.
    response = await fetch(url, { redirect: "error", signal: AbortSignal.timeout(TILE_TIMEOUT_MS), headers: { accept: "image/*" } });
  } catch {
    throw new Refused("map-unreachable", "address");
  }
  if (response.status === 404 || response.status === 204) return null;
  const type = response.headers.get("content-type")?.split(";")[0]?.trim() ?? "";
  // Only pictures pass, so that an address cannot be used to read anything else.
  if (!response.ok || !/^image\/(png|jpeg|webp|avif)$/.test(type))
    throw new Refused("map-no-tiles", "address", { status: response.status });
  const bytes = new Uint8Array(await response.arrayBuffer());
  if (bytes.length > MOST_TILE_BYTES) throw new Refused("map-no-tiles", "address", { status: response.status });
  return { bytes, type };
};

/** One tile of a job's own map; null where it has none. */
export const tileOf = async (row: BasemapRow, at: { z: number; x: number; y: number }): Promise<TileBytes | null> => {
  if (row.kind === "xyz") return fetchTile(row.address ?? "", at);
  const archive = archiveOf(row.uploadId ?? "");
  const type = IMAGE[(await archive.getHeader()).tileType] ?? "application/octet-stream";
  const tile = await archive.getZxy(at.z, at.x, at.y);
  return tile === undefined ? null : { bytes: new Uint8Array(tile.data), type };
};
