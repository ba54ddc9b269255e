import { open } from "node:fs/promises";
import { FileFault } from "../file-fault";
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
  if (/\.hgt$/i.test(name)) return openHgt(path, name);
  if (isAscii(name)) return openAsciiGrid(path);
  throw new FileFault("it is no GeoTIFF, HGT tile or ASCII grid");
};

const isAscii = (name: string): boolean => /\.(asc|grd)$/i.test(name);

/** As openTerrain, for a look at the head: a text grid is not read through, and its heights cannot be asked. */
export const lookAtTerrain = async (path: string, name: string): Promise<TerrainSource> => {
  const head = await firstBytes(path);
  const mark = head.toString("latin1", 0, 2);
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
  return mark === "II" || mark === "MM" || /\.(hgt|asc|grd)$/i.test(name);
};
