import { execFileSync } from "node:child_process";
import { readFileSync, writeFileSync } from "node:fs";
import path from "node:path";
import { zipSync } from "fflate";
import { gridToGeoTiff } from "../geotiff-write";

/* Files as other programs write them, and the same spoilt at random from a seed. */

/** Bytes changed, cut, doubled, swapped, or set to what numbers overflow at. */
export const spoil = (source: Uint8Array, random: () => number): Uint8Array => {
  let bytes = Uint8Array.from(source);
  const at = (): number => Math.floor(random() * bytes.length);
  for (let n = 1 + Math.floor(random() * 6); n > 0 && bytes.length > 4; n--) {
    const kind = Math.floor(random() * 6);
    if (kind === 0) bytes[at()] = Math.floor(random() * 256);
    else if (kind === 1) bytes = bytes.slice(0, at());
    else if (kind === 2) bytes.fill(random() < 0.5 ? 255 : 0, at(), at() + 8);
    else if (kind === 3) {
      const from = at();
      const piece = bytes.slice(from, from + 1 + Math.floor(random() * 64));
      bytes = Uint8Array.from([...bytes.slice(0, from), ...piece, ...bytes.slice(from)]);
    } else if (kind === 4) {
      const a = at();
      const b = at();
      [bytes[a], bytes[b]] = [bytes[b]!, bytes[a]!];
    } else {
      const from = at();
      bytes = Uint8Array.from([...bytes.slice(0, from), ...bytes.slice(from + 1 + Math.floor(random() * 32))]);
    }
  }
  return bytes;
};

const SIDE = 64;

/** A small grid as this program writes it, in a projected system. */
export const plainTiff = (): Uint8Array =>
  gridToGeoTiff({
    values: Float32Array.from({ length: SIDE * SIDE }, (_, i) => i % 97),
    cols: SIDE,
    rows: SIDE,
    originX: 615_000,
    originY: 5_244_000,
    stepX: 30,
    stepY: -30,
    epsg: 32627,
  });

/** The same grid as GDAL writes it with some options. */
export const gdalTiff = (dir: string, name: string, options: readonly string[], format = "GTiff"): Uint8Array => {
  const plain = path.join(dir, "plain.tif");
  writeFileSync(plain, plainTiff());
  const out = path.join(dir, name);
  execFileSync("gdal_translate", ["-q", "-of", format, ...options.flatMap((o) => ["-co", o]), plain, out]);
  return readFileSync(out);
};

/** A few places as OGR writes them in one of its formats. */
export const ogrPlaces = (dir: string, format: string, name: string, options: readonly string[] = []): Uint8Array => {
  const source = path.join(dir, "places.geojson");
  const features = Array.from({ length: 8 }, (_, i) => {
    const [x, y] = [-19.4 + i * 0.002, 47.3 + i * 0.001];
    const ring = [
      [x, y],
      [x + 0.0008, y],
      [x + 0.0008, y + 0.0005],
      [x, y + 0.0005],
      [x, y],
    ];
    const geometry = i % 2 === 0 || format === "GPX" ? { type: "Point", coordinates: [x, y] } : { type: "Polygon", coordinates: [ring] };
    return { type: "Feature", properties: { name: `Place ${i}`, h: 5 + i }, geometry };
  });
  writeFileSync(source, JSON.stringify({ type: "FeatureCollection", features }));
  const out = path.join(dir, name);
  execFileSync("ogr2ogr", ["-f", format, ...options, out, source]);
  return readFileSync(out);
};

export interface SpoiltSource {
  readonly what: string;
  readonly name: string;
  readonly bytes: Uint8Array;
  /** Its part of the files of its importer. */
  readonly share: number;
}

/** One good file of every kind that is taken in, as GDAL, OGR and plain tools write them. */
export const goodFiles = (dir: string): SpoiltSource[] => {
  const kml = ogrPlaces(dir, "KML", "a.kml");
  const asc = gdalTiff(dir, "a.asc", [], "AAIGrid");
  return [
    {
      what: "GeoTIFF, LZW in tiles",
      share: 0.25,
      name: "b.tif",
      bytes: gdalTiff(dir, "lzw.tif", ["COMPRESS=LZW", "TILED=YES", "BLOCKXSIZE=16", "BLOCKYSIZE=16"]),
    },
    {
      what: "GeoTIFF, Zstandard",
      share: 0.25,
      name: "c.tif",
      bytes: gdalTiff(dir, "zstd.tif", ["COMPRESS=ZSTD", "TILED=YES", "BLOCKXSIZE=16", "BLOCKYSIZE=16"]),
    },
    {
      what: "GeoTIFF, LERC",
      share: 0.25,
      name: "d.tif",
      bytes: gdalTiff(dir, "lerc.tif", ["COMPRESS=LERC_ZSTD", "TILED=YES", "BLOCKXSIZE=16", "BLOCKYSIZE=16"]),
    },
    { what: "GeoTIFF, big-endian strips", share: 0.25, name: "e.tif", bytes: gdalTiff(dir, "be.tif", ["ENDIANNESS=BIG", "BLOCKYSIZE=1"]) },
    { what: "ASCII grid", share: 0.75, name: "f.asc", bytes: asc },
    {
      what: "ASCII grid, zipped with its .prj",
      share: 0.25,
      name: "g.zip",
      bytes: zipSync({ "a.asc": asc, "a.prj": readFileSync(path.join(dir, "a.prj")) }),
    },
    {
      what: "HGT, zipped",
      share: 0.2,
      name: "h.zip",
      bytes: zipSync({ "N47W020.hgt": new Uint8Array(1201 * 1201 * 2).map((_, i) => (i % 2 === 0 ? 0 : i % 90)) }),
    },
    { what: "GeoJSON", share: 1, name: "i.geojson", bytes: ogrPlaces(dir, "GeoJSON", "a.geojson") },
    { what: "KML", share: 1, name: "j.kml", bytes: kml },
    { what: "KMZ", share: 1, name: "k.kmz", bytes: zipSync({ "doc.kml": kml, "more/b.kml": kml }) },
    { what: "GPX", share: 1, name: "l.gpx", bytes: ogrPlaces(dir, "GPX", "a.gpx", ["-dsco", "GPX_USE_EXTENSIONS=YES"]) },
    { what: "CSV", share: 0.75, name: "m.csv", bytes: ogrPlaces(dir, "CSV", "a.csv", ["-lco", "GEOMETRY=AS_WKT"]) },
    {
      what: "CSV in UTF-16",
      share: 0.25,
      name: "n.csv",
      bytes: new Uint8Array(Buffer.from(`\uFEFFname,lat,lon,h\r\nÖstra,47.3,-19.4,7\r\n`, "utf16le")),
    },
  ];
};
