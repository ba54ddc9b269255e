import { open, readFile, rm } from "node:fs/promises";
import nodePath from "node:path";
import { epsgOfWkt } from "../epsg";
import { FileFault } from "../file-fault";
import { unpackTo } from "../zip-read";
import { asciiGridHead, openAsciiGrid } from "./ascii-source";
import { openGeoTiff } from "./geotiff-source";
import { openHgt } from "./hgt-source";
import type { TerrainSource } from "./source";

const firstBytes = async (path: string): Promise<Buffer> => {
  const file = await open(path);
  try {
    const bytes = Buffer.alloc(4);
    const { bytesRead } = await file.read(bytes, 0, 4, 0);
    return bytes.subarray(0, bytesRead);
  } finally {
    await file.close();
  }
};

/** Opens a height file by what it is, its name only where the bytes do not tell. @throws FileFault. */
export const openTerrain = async (path: string, name: string): Promise<TerrainSource> => {
  const head = await firstBytes(path);
  const mark = head.toString("latin1", 0, 2);
  if (mark === "II" || mark === "MM") return openGeoTiff(path);
  if (mark === "PK" && isPacked(name)) return openPacked(path, openTerrain);
  if (/\.hgt$/i.test(name)) return openHgt(path, name);
  if (isAscii(name)) return openAsciiGrid(path);
  throw new FileFault("it is no GeoTIFF, HGT tile or ASCII grid");
};

const isAscii = (name: string): boolean => /\.(asc|grd)$/i.test(name);
const isGrid = (name: string): boolean => /\.(hgt|asc|grd|tiff?)$/i.test(name);
const isPacked = (name: string): boolean => /\.zip$/i.test(name);
const MOST_PACKED = { entries: 200, bytes: 4_000_000_000 };

/** The one grid of an archive, with the system that a .prj beside it names. */
const openPacked = async (path: string, open_: typeof openTerrain): Promise<TerrainSource> => {
  const folder = `${path}.unpacked`;
  const gone = (): Promise<void> => rm(folder, { recursive: true, force: true });
  try {
    const files = await unpackTo(path, folder, (n) => isGrid(n) || /\.prj$/i.test(n), MOST_PACKED);
    const grids = files.filter((f) => isGrid(f.name));
    const [grid] = grids;
    if (grid === undefined) throw new FileFault("it holds no grid of heights (.hgt, .asc, .grd or .tif)");
    if (grids.length > 1) throw new FileFault(`it holds ${grids.length} grids; bring them in one by one`);
    const prj = files.find((f) => /\.prj$/i.test(f.name));
    const source = await open_(grid.file, nodePath.basename(grid.name));
    const epsg = source.epsg ?? (prj === undefined ? null : epsgOfWkt(await readFile(prj.file, "utf8")));
    return { ...source, epsg, close: () => source.close().finally(gone) };
  } catch (error) {
    await gone();
    throw error;
  }
};

/** As openTerrain, for a look at the head: a text grid is not read through, and its heights cannot be asked. */
export const lookAtTerrain = async (path: string, name: string): Promise<TerrainSource> => {
  const head = await firstBytes(path);
  const mark = head.toString("latin1", 0, 2);
  if (mark === "PK" && isPacked(name)) return openPacked(path, lookAtTerrain);
  if (mark === "II" || mark === "MM" || !isAscii(name)) return openTerrain(path, name);
  return {
    format: "ASCII grid",
    ...(await asciiGridHead(path)),
    epsg: null,
    verticalUnit: null,
    read: () => Promise.resolve(new Float32Array(0)),
    close: () => Promise.resolve(),
  };
};

/** True when a file is one of heights, by its bytes and name. */
export const isTerrainFile = async (path: string, name: string): Promise<boolean> => {
  const mark = (await firstBytes(path)).toString("latin1", 0, 2);
  return mark === "II" || mark === "MM" || (mark === "PK" && isPacked(name)) || /\.(hgt|asc|grd)$/i.test(name);
};
