import { mkdtempSync, rmSync } from "node:fs";
import { tmpdir } from "node:os";
import path from "node:path";
import { strToU8 } from "fflate";
import { afterAll, beforeAll, describe, test } from "vitest";
import { coordinateSystem, openTerrain } from ".";
import { type Row, readsSpoilt, TIMEOUT_MS } from "./testing/mutated";
import { gdalTiff, plainTiff } from "./testing/spoilt";

let dir: string;
beforeAll(() => {
  dir = mkdtempSync(path.join(tmpdir(), "dry-arc-spoilt-"));
});
afterAll(() => rmSync(dir, { recursive: true, force: true }));

const heights = async (file: string, name: string): Promise<void> => {
  const source = await openTerrain(file, name);
  try {
    if (source.epsg !== null) coordinateSystem(source.epsg);
    for (let top = 0; top < Math.min(source.rows, 200); top += 100) {
      const values = await source.read(0, top, Math.min(source.cols, 300), Math.min(source.rows, top + 100));
      for (const h of values)
        if (h === Number.POSITIVE_INFINITY || h === Number.NEGATIVE_INFINITY) throw new Error("a height without bound came through");
    }
  } finally {
    await source.close();
  }
};

const TILED = ["TILED=YES", "BLOCKXSIZE=16", "BLOCKYSIZE=16"];
const ROWS: readonly Row[] = [
  ["GeoTIFF, plain", "a.tif", plainTiff, heights],
  ["GeoTIFF, LZW in tiles", "b.tif", (to) => gdalTiff(to, "lzw.tif", ["COMPRESS=LZW", ...TILED]), heights],
  ["GeoTIFF, Zstandard", "z.tif", (to) => gdalTiff(to, "zstd.tif", ["COMPRESS=ZSTD", ...TILED]), heights],
  ["GeoTIFF, LERC", "l.tif", (to) => gdalTiff(to, "lerc.tif", ["COMPRESS=LERC", ...TILED]), heights],
  ["GeoTIFF, big-endian strips", "y.tif", (to) => gdalTiff(to, "be.tif", ["ENDIANNESS=BIG", "BLOCKYSIZE=1"]), heights],
  ["HGT", "N47W020.hgt", () => new Uint8Array(1201 * 1201 * 2).map((_, i) => i % 3), heights],
  [
    "ASCII grid",
    "d.asc",
    () => strToU8(`ncols 12\nnrows 9\nxllcorner 1\nyllcorner 2\ncellsize 5\nNODATA_value -9999\n${"3.5 ".repeat(108)}`),
    heights,
  ],
];

describe("spoilt files", () => {
  test.each(ROWS)("%s", (...row) => readsSpoilt(dir, row), TIMEOUT_MS);
});
