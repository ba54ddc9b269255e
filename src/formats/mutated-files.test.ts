import { closeSync, mkdtempSync, openSync, rmSync, writeFileSync, writeSync } from "node:fs";
import { tmpdir } from "node:os";
import path from "node:path";
import { strToU8, zipSync } from "fflate";
import { afterAll, beforeAll, describe, expect, test } from "vitest";
import { seededRandom } from "../core/units";
import { coordinateSystem, csvText, FileFault, gpxText, kmlText, openTerrain, type Placed, readVector, tableRows } from ".";
import { gdalTiff, plainTiff, spoil } from "./testing/spoilt";

/* Files spoilt at random, from a seed: whatever is in them, a reader answers with places, heights or a sentence. */

const FILES = 2000;
/** A file of a few kilobytes that takes longer has hung. */
const MOST_MS = 3000;
const MOST_GROWTH_BYTES = 500_000_000;

let dir: string;
beforeAll(() => {
  dir = mkdtempSync(path.join(tmpdir(), "dry-arc-spoilt-"));
});
afterAll(() => rmSync(dir, { recursive: true, force: true }));

/** A few bytes changed in place: a tile of 3 MB has no structure but its size. */
const patch = (file: string, random: () => number): void => {
  const handle = openSync(file, "r+");
  const bytes = new Uint8Array(4).map(() => Math.floor(random() * 256));
  for (let n = 0; n < 4; n++) writeSync(handle, bytes, 0, 4, Math.floor(random() * 1201 * 600 * 2));
  closeSync(handle);
};

const things: Placed[] = Array.from({ length: 6 }, (_, i) => ({
  name: `Place ${i}`,
  shape: (["point", "line", "polygon"] as const)[i % 3]!,
  points: Array.from({ length: i % 3 === 0 ? 1 : 4 }, (_p, k) => ({
    latDeg: 47.3 + 0.001 * (k % 2) + i / 1000,
    lonDeg: -19.4 + (0.001 * k) / 2,
  })),
  properties: { heightM: 5 + i, kind: "building" },
}));

const places = async (file: string, name: string): Promise<void> => {
  let count = 0;
  await readVector(
    file,
    name,
    { epsg: null },
    {
      feature: (f) => {
        count++;
        const points = f.shape.type === "point" ? [f.shape.at] : f.shape.type === "line" ? f.shape.points : f.shape.outline;
        for (const p of points)
          if (!(Math.abs(p.latDeg) <= 90 && Math.abs(p.lonDeg) <= 180))
            throw new Error(`a place out of range came through: ${p.latDeg}, ${p.lonDeg}`);
      },
      fault: (f) => {
        if (f.reason === "") throw new Error("a refusal without a reason");
      },
    },
  );
  expect(count).toBeLessThan(10_000);
};

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
const geojson = (): string =>
  JSON.stringify({
    type: "FeatureCollection",
    features: things.map((t) => ({
      type: "Feature",
      properties: t.properties,
      geometry: { type: "LineString", coordinates: [...t.points, t.points[0]!].map((p) => [p.lonDeg, p.latDeg]) },
    })),
  });

const ROWS: readonly (readonly [string, string, () => Uint8Array, (file: string, name: string) => Promise<void>])[] = [
  ["GeoTIFF, plain", "a.tif", plainTiff, heights],
  ["GeoTIFF, LZW in tiles", "b.tif", () => gdalTiff(dir, "lzw.tif", ["COMPRESS=LZW", ...TILED]), heights],
  ["GeoTIFF, Zstandard", "z.tif", () => gdalTiff(dir, "zstd.tif", ["COMPRESS=ZSTD", ...TILED]), heights],
  ["GeoTIFF, LERC", "l.tif", () => gdalTiff(dir, "lerc.tif", ["COMPRESS=LERC", ...TILED]), heights],
  ["GeoTIFF, big-endian strips", "y.tif", () => gdalTiff(dir, "be.tif", ["ENDIANNESS=BIG", "BLOCKYSIZE=1"]), heights],
  ["HGT", "N47W020.hgt", () => new Uint8Array(1201 * 1201 * 2).map((_, i) => i % 3), heights],
  [
    "ASCII grid",
    "d.asc",
    () => strToU8(`ncols 12\nnrows 9\nxllcorner 1\nyllcorner 2\ncellsize 5\nNODATA_value -9999\n${"3.5 ".repeat(108)}`),
    heights,
  ],
  ["GeoJSON", "e.geojson", () => strToU8(geojson()), places],
  ["KML", "f.kml", () => strToU8(kmlText("t", things)), places],
  ["KMZ", "g.kmz", () => zipSync({ "doc.kml": strToU8(kmlText("t", things)) }), places],
  ["GPX", "h.gpx", () => strToU8(gpxText("t", things)), places],
  ["CSV", "i.csv", () => strToU8(csvText(tableRows(things))), places],
];

describe("spoilt files", () => {
  test.each(ROWS)(
    "%s",
    async (what, name, make, read) => {
      const base = make();
      const random = seededRandom(4242);
      const before = process.memoryUsage().rss;
      let refused = 0;
      const file = path.join(dir, name);
      writeFileSync(file, base);
      for (let n = 0; n < FILES; n++) {
        if (what === "HGT" && n % 20 !== 0) patch(file, random);
        else writeFileSync(file, what === "HGT" ? base.subarray(0, Math.floor(random() * base.length * 1.2)) : spoil(base, random));
        const started = performance.now();
        try {
          await read(file, name);
        } catch (error) {
          if (!(error instanceof FileFault))
            throw new Error(`file ${n}: ${error instanceof Error ? (error.stack ?? error.message) : String(error)}`);
          expect(error.message.length).toBeGreaterThan(10);
          refused++;
        }
        expect(performance.now() - started, `file ${n}`).toBeLessThan(MOST_MS);
      }
      expect(process.memoryUsage().rss - before).toBeLessThan(MOST_GROWTH_BYTES);
      expect(refused).toBeGreaterThan(0);
    },
    180_000,
  );
});
