import { execFileSync } from "node:child_process";
import { mkdtempSync, readFileSync, rmSync, writeFileSync } from "node:fs";
import { tmpdir } from "node:os";
import path from "node:path";
import { afterAll, beforeAll, describe, expect, test } from "vitest";
import { destination, pathFrame } from "../core/geo";
import { sampleGround } from "../core/terrain";
import { coordinateSystem, FileFault, gridFromTerrainFile, gridToGeoTiff, openTerrain, searchSystems } from ".";

/* Files made by GDAL, a program no one here wrote; positions by PROJ, heights by a bilinear sum of its own. */

let dir: string;
const file = (name: string): string => path.join(dir, name);
const gdal = (tool: string, ...args: string[]): string => execFileSync(tool, args, { encoding: "utf8", stdio: ["pipe", "pipe", "pipe"] });

const COLS = 420;
const ROWS = 380;
const NEAR = { latDeg: 47.31, lonDeg: -19.42 };
const FAR = destination(NEAR, 118, 6000);

const hill = (c: number, r: number): number => 60 + 40 * Math.sin(c / 17) * Math.cos(r / 23) + 12 * Math.sin((c + r) / 5);

beforeAll(() => {
  dir = mkdtempSync(path.join(tmpdir(), "dry-arc-terrain-"));
  const values = Float32Array.from({ length: COLS * ROWS }, (_, i) => hill(i % COLS, Math.floor(i / COLS)));
  // About the path, in UTM 27N, 30 m cells.
  writeFileSync(
    file("base.tif"),
    gridToGeoTiff({ values, cols: COLS, rows: ROWS, originX: 615_000, originY: 5_244_000, stepX: 30, stepY: -30, epsg: 32627 }),
  );
});
afterAll(() => rmSync(dir, { recursive: true, force: true }));

/** Plain values and frame of a file as GDAL tells them. */
const plain = (name: string) => {
  gdal("gdal_translate", "-q", "-of", "ENVI", "-ot", "Float64", file(name), file("plain.dat"));
  const info = JSON.parse(gdal("gdalinfo", "-json", file(name))) as {
    size: [number, number];
    geoTransform: number[];
    bands: { noDataValue?: number }[];
  };
  const bytes = readFileSync(file("plain.dat"));
  return { values: new Float64Array(bytes.buffer.slice(bytes.byteOffset, bytes.byteOffset + bytes.byteLength)), ...info };
};

/** Height at places by hand: PROJ for the coordinates, four neighbours for the height. */
const byHand = (name: string, epsg: number, places: readonly { latDeg: number; lonDeg: number }[]): number[] => {
  const { values, size, geoTransform: g } = plain(name);
  const text = execFileSync("gdaltransform", ["-s_srs", "EPSG:4326", "-t_srs", `EPSG:${epsg}`, "-output_xy"], {
    input: places.map((p) => `${p.lonDeg} ${p.latDeg}`).join("\n"),
    encoding: "utf8",
  });
  return text
    .trim()
    .split("\n")
    .map((line) => {
      const [x, y] = line.split(" ").map(Number) as [number, number];
      const c = (x - g[0]!) / g[1]! - 0.5;
      const r = (y - g[3]!) / g[5]! - 0.5;
      const [c0, r0] = [Math.floor(c), Math.floor(r)];
      const at = (cc: number, rr: number): number => values[rr * size[0] + cc]!;
      const [u, v] = [c - c0, r - r0];
      return (at(c0, r0) * (1 - u) + at(c0 + 1, r0) * u) * (1 - v) + (at(c0, r0 + 1) * (1 - u) + at(c0 + 1, r0 + 1) * u) * v;
    });
};

const profileOf = async (name: string, epsg: number | null = null) => {
  const frame = pathFrame(NEAR, FAR);
  const points = Array.from({ length: 41 }, (_, i) => frame.at((frame.lengthM * i) / 40));
  const grid = await gridFromTerrainFile(file(name), points, epsg);
  const ground = sampleGround(frame, [grid!]);
  return { places: Array.from(ground.distanceM, (d) => frame.at(d)), heights: Array.from(ground.groundAmslM) };
};

describe("profiles over files that GDAL wrote", () => {
  test.each([
    ["UTM zone 27N, deflate, tiled", 32627, ["-co", "COMPRESS=DEFLATE", "-co", "TILED=YES"], []],
    ["degrees, LZW, in strips", 4326, ["-co", "COMPRESS=LZW"], ["-tr", "0.0003", "0.0003"]],
    ["Lambert azimuthal Europe, 16-bit", 3035, ["-ot", "Int16"], ["-tr", "25", "25"]],
    ["Lambert-93, cloud optimised", 2154, ["-of", "COG"], ["-tr", "20", "20"]],
    ["Mercator, PACKBITS", 3857, ["-co", "COMPRESS=PACKBITS"], ["-tr", "40", "40"]],
  ] as const)("%s", async (_name, epsg, write, warp) => {
    gdal(
      "gdalwarp",
      "-q",
      "-overwrite",
      "-t_srs",
      `EPSG:${epsg}`,
      "-r",
      "bilinear",
      "-dstnodata",
      "-9999",
      ...warp,
      file("base.tif"),
      file("warped.tif"),
    );
    gdal("gdal_translate", "-q", ...write, file("warped.tif"), file("made.tif"));
    const { places, heights } = await profileOf("made.tif");
    const expected = byHand("made.tif", epsg, places);
    expect(heights.length).toBeGreaterThan(200);
    heights.forEach((h, i) => {
      expect(Math.abs(h - expected[i]!), `point ${i}`).toBeLessThan(0.01);
    });
  });

  test("a grid whose rows run from south to north", async () => {
    const g = plain("base.tif").geoTransform as [number, number, number, number, number, number];
    const south = g[3] + ROWS * g[5];
    gdal(
      "gdal_translate",
      "-q",
      "-a_ullr",
      String(g[0]),
      String(south),
      String(g[0] + COLS * g[1]),
      String(g[3]),
      file("base.tif"),
      file("up.tif"),
    );
    expect(plain("up.tif").geoTransform[5]).toBeGreaterThan(0);
    const { places, heights } = await profileOf("up.tif");
    byHand("up.tif", 32627, places).forEach((h, i) => {
      expect(Math.abs(heights[i]! - h)).toBeLessThan(0.01);
    });
  });

  test("an HGT tile, big-endian, its corner from its name", async () => {
    gdal(
      "gdalwarp",
      "-q",
      "-overwrite",
      "-t_srs",
      "EPSG:4326",
      "-te",
      "-20.000138889",
      "46.999861111",
      "-18.999861111",
      "48.000138889",
      "-ts",
      "3601",
      "3601",
      "-r",
      "bilinear",
      "-dstnodata",
      "-32768",
      "-ot",
      "Int16",
      file("base.tif"),
      file("tile.tif"),
    );
    gdal("gdal_translate", "-q", "-of", "SRTMHGT", file("tile.tif"), file("N47W020.hgt"));
    const { places, heights } = await profileOf("N47W020.hgt");
    byHand("N47W020.hgt", 4326, places).forEach((h, i) => {
      expect(Math.abs(heights[i]! - h)).toBeLessThan(0.01);
    });
  });

  test("an ASCII grid, whose system must be said", async () => {
    gdal("gdal_translate", "-q", "-of", "AAIGrid", file("base.tif"), file("grid.asc"));
    await expect(profileOf("grid.asc")).rejects.toThrow(/no coordinate system/);
    const { places, heights } = await profileOf("grid.asc", 32627);
    byHand("grid.asc", 32627, places).forEach((h, i) => {
      expect(Math.abs(heights[i]! - h)).toBeLessThan(0.01);
    });
  });
});

describe("what a file says of itself", () => {
  test("no-data, scale and offset, and feet", async () => {
    gdal(
      "gdal_translate",
      "-q",
      "-a_nodata",
      "100",
      "-ot",
      "Int16",
      "-srcwin",
      "0",
      "0",
      "20",
      "20",
      "-scale",
      "0",
      "200",
      "100",
      "300",
      "-a_scale",
      "0.5",
      "-a_offset",
      "10",
      file("base.tif"),
      file("scaled.tif"),
    );
    const raw = plain("scaled.tif").values;
    const source = await openTerrain(file("scaled.tif"), "scaled.tif");
    const heights = await source.read(0, 0, 20, 20);
    await source.close();
    heights.forEach((h, i) => {
      if (raw[i] === 100) expect(h).toBeNaN();
      else expect(h).toBeCloseTo(raw[i]! * 0.5 + 10, 4);
    });
  });

  test("a turned grid, a picture without a place and a broken file are refused in words", async () => {
    gdal(
      "gdal_translate",
      "-q",
      "-a_srs",
      "EPSG:32627",
      "-a_ullr",
      "0",
      "0",
      "1",
      "1",
      "-co",
      "PROFILE=BASELINE",
      file("base.tif"),
      file("nowhere.tif"),
    );
    rmSync(file("nowhere.tfw"), { force: true });
    rmSync(file("nowhere.tif.aux.xml"), { force: true });
    await expect(openTerrain(file("nowhere.tif"), "nowhere.tif")).rejects.toThrow(/no georeference/);
    writeFileSync(file("short.tif"), readFileSync(file("base.tif")).subarray(0, 3000));
    await expect(openTerrain(file("short.tif"), "short.tif")).rejects.toThrow(/cut off/);
    writeFileSync(file("N99W020.hgt"), Buffer.alloc(1201 * 1201 * 2));
    await expect(openTerrain(file("N99W020.hgt"), "N99W020.hgt")).rejects.toThrow(/where it lies/);
    writeFileSync(file("bad.asc"), "ncols 3\nnrows 2\nxllcorner 0\nyllcorner 0\ncellsize 1\n1 2 3 4 five 6\n");
    await expect(openTerrain(file("bad.asc"), "bad.asc")).rejects.toThrow(/value 5 \("five"\)/);
  });

  test("what is written is what GDAL reads back", () => {
    const info = JSON.parse(gdal("gdalinfo", "-json", "-stats", file("base.tif"))) as {
      geoTransform: number[];
      bands: { minimum: number; maximum: number; noDataValue: number }[];
      coordinateSystem: { wkt: string };
    };
    expect(info.geoTransform).toEqual([614_985, 30, 0, 5_244_015, 0, -30]);
    expect(info.coordinateSystem.wkt).toContain("UTM zone 27N");
    expect(info.bands[0]!.noDataValue).toBe(-9999);
    const all = Array.from({ length: COLS * ROWS }, (_, i) => Math.fround(hill(i % COLS, Math.floor(i / COLS))));
    expect(info.bands[0]!.maximum).toBeCloseTo(
      all.reduce((a, b) => Math.max(a, b)),
      2,
    );
  });
});

describe("coordinate systems by code", () => {
  test("a datum whose grid does not ship is told with how far off it may be, or refused", () => {
    expect(coordinateSystem(27700)).toMatchObject({ geographic: false, offM: 5 });
    expect(() => coordinateSystem(2193)).not.toThrow();
    expect(() => coordinateSystem(5773)).toThrow(/not a coordinate system for places/);
    expect(() => coordinateSystem(999_998)).toThrow(FileFault);
  });
  test("are found by words of their name", () => {
    expect(searchSystems("utm zone 27n wgs").some((s) => s.epsg === 32627)).toBe(true);
    expect(searchSystems("32627")[0]!.epsg).toBe(32627);
  });
});
