import { execFileSync } from "node:child_process";
import { mkdtempSync, readdirSync, readFileSync, rmSync, writeFileSync } from "node:fs";
import { tmpdir } from "node:os";
import path from "node:path";
import { strToU8, zipSync } from "fflate";
import { afterAll, beforeAll, describe, expect, test } from "vitest";
import { csvText, epsgOfWkt, openTerrain, type RawFeature, readVector, type VectorQuestion } from ".";
import { gdalTiff, plainTiff } from "./testing/spoilt";

/* What came in silently wrong, or not at all, before: each as a file that a program or a person really writes. */
let dir: string;
beforeAll(() => {
  dir = mkdtempSync(path.join(tmpdir(), "dry-arc-doors-"));
});
afterAll(() => rmSync(dir, { recursive: true, force: true }));

const put = (name: string, content: string | Uint8Array): string => {
  const file = path.join(dir, name);
  writeFileSync(file, content);
  return file;
};

interface Read {
  readonly features: readonly RawFeature[];
  readonly faults: readonly string[];
  readonly notes: readonly string[];
}
const read = async (name: string, content: string | Uint8Array, question: Partial<VectorQuestion> = {}): Promise<Read> => {
  const out = { features: [] as RawFeature[], faults: [] as string[], notes: [] as string[] };
  await readVector(
    put(name, content),
    name,
    { epsg: null, ...question },
    {
      feature: (f) => void out.features.push(f),
      fault: (f) => void out.faults.push(`${f.row}: ${f.reason}`),
      note: (f) => void out.notes.push(`${f.row}: ${f.reason}`),
    },
  );
  return out;
};
const names = (r: Read): unknown[] => r.features.map((f) => f.properties.name);
const latin1 = (text: string): Uint8Array => new Uint8Array(Buffer.from(text, "latin1"));
const kml = (body: string, head = '<?xml version="1.0" encoding="UTF-8"?>'): string =>
  `${head}<kml xmlns="http://www.opengis.net/kml/2.2" xmlns:gx="http://www.google.com/kml/ext/2.2"><Document>${body}</Document></kml>`;
const point = (name: string, at = "-19.4,47.3"): string =>
  `<Placemark>${name === "" ? "" : `<name>${name}</name>`}<Point><coordinates>${at}</coordinates></Point></Placemark>`;

describe("encodings", () => {
  const csv = "name,lat,lon\nBjörkö,47.3,-19.4\n";
  test.each([
    ["8-bit, undeclared", latin1(csv)],
    ["UTF-8 with its mark", strToU8(`\uFEFF${csv}`)],
    ["UTF-16, little-endian", new Uint8Array(Buffer.from(`\uFEFF${csv}`, "utf16le"))],
    ["UTF-16, big-endian", new Uint8Array(Buffer.from(`\uFEFF${csv}`, "utf16le").swap16())],
    ["UTF-16 without its mark", new Uint8Array(Buffer.from(csv, "utf16le"))],
  ])("a table in %s", async (_what, bytes) => {
    expect(names(await read("a.csv", bytes))).toEqual(["Björkö"]);
  });
  test.each([
    ["as it declares", 'encoding="ISO-8859-1"'],
    ["though it declares another", 'encoding="UTF-8"'],
  ])("XML in 8 bits, %s", async (_what, declared) => {
    expect(names(await read("a.kml", latin1(kml(point("Björkö"), `<?xml version="1.0" ${declared}?>`))))).toEqual(["Björkö"]);
  });
  test("nothing is left beside the file", () => {
    expect(readdirSync(dir).filter((f) => /utf8|unpacked/.test(f))).toEqual([]);
  });
});

describe("tables", () => {
  test("without a row of names the first row is data, and the columns are asked for", async () => {
    const text = "Quay,47.3,-19.4\nMole,47.31,-19.41\n";
    const bare = await read("b.csv", text);
    expect(bare.features).toHaveLength(0);
    expect(bare.faults[0]).toBe("1: no row names its columns: say which hold the position");
    expect(bare.notes[0]).toMatch(/no row of column names/);
    const told = await read("b.csv", text, { latColumn: "column 2", lonColumn: "column 3" });
    expect(told.features.map((f) => [f.row, f.properties["column 1"]])).toEqual([
      [1, "Quay"],
      [2, "Mole"],
    ]);
  });
  test.each([
    ["N 47 17 44 W 19 24 0", 47 + 17 / 60 + 44 / 3600, -19.4],
    ["47 17 44 N, 19 24 0 W", 47 + 17 / 60 + 44 / 3600, -19.4],
    ["47:17:44 -19:24:00", 47 + 17 / 60 + 44 / 3600, -19.4],
    ["27T 394675.5 5239364.5", 47.2996, -22.3931],
  ])("a position written as %s", async (text, latDeg, lonDeg) => {
    const { features, faults } = await read("c.csv", csvText([{ name: "a", position: text }]));
    expect(faults).toEqual([]);
    const { shape } = features[0]!;
    if (shape.type !== "point") throw new Error("no point");
    expect(shape.at.latDeg).toBeCloseTo(latDeg, 3);
    expect(shape.at.lonDeg).toBeCloseTo(lonDeg, 3);
  });
  test("a half of the earth that one letter does not say is not guessed", async () => {
    expect((await read("c.csv", csvText([{ name: "a", position: "27S 394675 5239364" }]))).faults[0]).toMatch(/no latitude and longitude/);
  });
  test("latitude and longitude exchanged, when that was said", async () => {
    const { features } = await read("d.csv", "name,lat,lon\na,-19.4,47.3\n", { swapped: true });
    expect(features[0]!.shape).toMatchObject({ at: { latDeg: 47.3, lonDeg: -19.4 } });
  });
  test("what a spreadsheet would run is written harmless, figures stay figures, and both come back", async () => {
    const text = csvText([{ name: "=1+1", a: "+44 20", b: "-19.4 west", c: "@x", d: "\tx", lat: 47.3, lon: -19.4 }]);
    expect(text.split("\r\n")[1]).toBe("'=1+1,'+44 20,'-19.4 west,'@x,'\tx,47.3,-19.4");
    expect((await read("e.csv", text)).features[0]!.properties).toMatchObject({ name: "=1+1", a: "+44 20", b: "-19.4 west", c: "@x" });
  });
});

const geojson = (geometry: unknown, properties: unknown = { name: "a" }): string =>
  JSON.stringify({ type: "FeatureCollection", features: [{ type: "Feature", properties, geometry }] });
const ring = (...p: [number, number][]): [number, number][] => [...p, p[0]!];

describe("shapes", () => {
  test("courtyards are kept", async () => {
    const outer = ring([-19.4, 47.3], [-19.39, 47.3], [-19.39, 47.31], [-19.4, 47.31]);
    const inner = ring([-19.397, 47.303], [-19.393, 47.303], [-19.393, 47.307], [-19.397, 47.307]);
    const { features } = await read("a.geojson", geojson({ type: "Polygon", coordinates: [outer, inner] }));
    expect(features[0]!.shape).toMatchObject({ type: "polygon", holes: [expect.objectContaining({ length: 4 })] });
    const asKml = kml(
      `<Placemark><Polygon><outerBoundaryIs><LinearRing><coordinates>${outer.join(" ")}</coordinates></LinearRing></outerBoundaryIs><innerBoundaryIs><LinearRing><coordinates>${inner.join(" ")}</coordinates></LinearRing></innerBoundaryIs></Polygon></Placemark>`,
    );
    expect((await read("b.kml", asKml)).features[0]!.shape).toEqual(features[0]!.shape);
  });
  test.each([
    ["an outline that crosses itself", { type: "Polygon", coordinates: [ring([0, 47], [1, 48], [1, 47], [0, 48])] }, /crosses itself/],
    [
      "an outline over the date line",
      { type: "Polygon", coordinates: [ring([179, 47], [-179, 47], [-179, 48], [179, 48])] },
      /180 degrees/,
    ],
    ["a place that is none", { type: "Point", coordinates: [0, 0] }, /without a position/],
    ["a list that is none", { type: "LineString", coordinates: "x" }, /not a list/],
  ])("%s is refused by row", async (_what, geometry, reason) => {
    const { features, faults } = await read("c.geojson", geojson(geometry));
    expect(features).toHaveLength(0);
    expect(faults[0]).toMatch(reason);
  });
  test("texts that no database can keep lose what makes them so, and their row stays", async () => {
    const { features } = await read("d.geojson", geojson({ type: "Point", coordinates: [-19.4, 47.3] }, { name: "a\u0000b\ud800c" }));
    expect(features[0]!.properties.name).toBe("ab\uFFFDc");
  });
  test("a property nested beyond all measure is a word, and no end of the program", async () => {
    const deep = `${"[".repeat(20_000)}${"]".repeat(20_000)}`;
    const { features } = await read(
      "e.geojson",
      `{"type":"FeatureCollection","features":[{"type":"Feature","properties":{"name":"a","x":${deep}},"geometry":{"type":"Point","coordinates":[-19.4,47.3]}}]}`,
    );
    expect(features).toHaveLength(1);
  });
});

describe("KML, KMZ and GPX", () => {
  test("every document of an archive is read, the main one first, and links within it count once", async () => {
    const link =
      "<NetworkLink><Link><href>more/b.kml</href></Link></NetworkLink><NetworkLink><Link><href>http://elsewhere.example/c.kml</href></Link></NetworkLink>";
    const { features, notes } = await read(
      "a.kmz",
      zipSync({
        "more/b.kml": strToU8(kml(point("B"))),
        "doc.kml": strToU8(kml(`${link}${point("A")}`)),
        "files/p.png": new Uint8Array(99),
      }),
    );
    expect(names({ features, faults: [], notes })).toEqual(["A", "B"]);
    expect(notes).toEqual([expect.stringContaining("elsewhere.example/c.kml, which is not fetched")]);
  });
  test("what has no name is called by its kind and count", async () => {
    const gpx =
      '<gpx version="1.1"><wpt lat="47.3" lon="-19.4"><ele>7</ele></wpt><wpt lat="47.31" lon="-19.4"><name>Quay</name></wpt><trk><trkseg><trkpt lat="47.3" lon="-19.4"/><trkpt lat="47.31" lon="-19.4"/></trkseg></trk><rte><rtept lat="47.3" lon="-19.4"/><rtept lat="47.32" lon="-19.4"/></rte></gpx>';
    const { features } = await read("a.gpx", gpx);
    expect(names({ features, faults: [], notes: [] })).toEqual(["Waypoint 1", "Quay", "Track 1", "Route 1"]);
    expect(features[0]!.shape).toMatchObject({ heightM: 7 });
    expect(names(await read("b.kml", kml(point(""))))).toEqual(["Placemark 1"]);
  });
  test("a track of more points than are taken is thinned with a word, and keeps its ends", async () => {
    const n = 50_000;
    const points = Array.from({ length: n }, (_, i) => `<trkpt lat="${(47 + i * 5e-6).toFixed(7)}" lon="-19.4"/>`).join("");
    const { features, notes } = await read("c.gpx", `<gpx version="1.1"><trk><trkseg>${points}</trkseg></trk></gpx>`);
    const { shape } = features[0]!;
    if (shape.type !== "line") throw new Error("no line");
    expect(shape.points.length).toBeLessThanOrEqual(20_000);
    expect(shape.points.at(-1)!.latDeg).toBeCloseTo(47 + (n - 1) * 5e-6, 7);
    expect(notes[0]).toMatch(/^1: its 50000 points were thinned to \d+, at least 2 m apart$/);
  });
  test("tracks with a time for each place are lines", async () => {
    const track =
      "<Placemark><name>T</name><gx:Track><gx:coord>-19.4 47.3 0</gx:coord><gx:coord>-19.41 47.31 0</gx:coord></gx:Track></Placemark>";
    expect((await read("c.kml", kml(track))).features[0]!.shape).toMatchObject({ type: "line", points: { length: 2 } });
  });
  test.each([
    ["elements nested without end", kml("<Folder>".repeat(3000)), /nested deeper/],
    ["entities of its own", `<!DOCTYPE kml [<!ENTITY a "b">]>${kml(point("&a;"))}`, /entities/],
    ["a root that is none", "<html><body/></html>", /root is <html> where <kml> belongs/],
    ["a text that breaks off", kml(point("A")).slice(0, -20), /well-formed/],
  ])("%s: refused in words", async (_what, text, reason) => {
    await expect(read("d.kml", text)).rejects.toThrow(reason);
  });
});

describe("grids", () => {
  const info = (file: string) => JSON.parse(execFileSync("gdalinfo", ["-json", file], { encoding: "utf8" })) as { geoTransform: number[] };
  const valueAt = (file: string, col: number, row: number): number =>
    Number(execFileSync("gdallocationinfo", ["-valonly", file, String(col), String(row)], { encoding: "utf8" }));

  test("without a raster type the values are those of areas: the first cell's middle lies half a step inside", async () => {
    gdalTiff(dir, "area.tif", ["PROFILE=GeoTIFF"]);
    const file = path.join(dir, "bare.tif");
    execFileSync("gdal_translate", [
      "-q",
      "-co",
      "GEOTIFF_KEYS_FLAVOR=STANDARD",
      "-a_ullr",
      "615000",
      "5244000",
      "616920",
      "5242080",
      path.join(dir, "plain.tif"),
      file,
    ]);
    // The key itself is taken out of the directory: its number becomes one that nobody reads.
    const bytes = readFileSync(file);
    const at = bytes.indexOf(Buffer.from([0x01, 0x04, 0, 0, 1, 0]));
    expect(at).toBeGreaterThan(0);
    bytes.writeUInt16LE(4999, at);
    writeFileSync(file, bytes);
    const source = await openTerrain(file, "bare.tif");
    const [x, step] = info(file).geoTransform as [number, number];
    expect(source.originX).toBeCloseTo(x + step / 2, 6);
    await source.close();
  });

  test.each([
    ["big-endian, a row to a strip", ["ENDIANNESS=BIG", "BLOCKYSIZE=1"]],
    ["Zstandard in tiles", ["COMPRESS=ZSTD", "TILED=YES", "BLOCKXSIZE=16", "BLOCKYSIZE=16"]],
    ["LERC over deflate", ["COMPRESS=LERC_DEFLATE", "TILED=YES", "BLOCKXSIZE=16", "BLOCKYSIZE=16"]],
    ["LERC over Zstandard", ["COMPRESS=LERC_ZSTD"]],
    ["LZW with a predictor", ["COMPRESS=LZW", "PREDICTOR=3"]],
  ])("%s: every height as GDAL reads it", async (_what, options) => {
    gdalTiff(dir, "o.tif", options);
    const file = path.join(dir, "o.tif");
    const source = await openTerrain(file, "o.tif");
    const heights = await source.read(0, 0, source.cols, source.rows);
    await source.close();
    for (const [c, r] of [
      [0, 0],
      [63, 0],
      [17, 40],
      [63, 63],
    ] as const)
      expect(heights[r * source.cols + c]).toBeCloseTo(valueAt(file, c, r), 3);
  });

  test("a photo is no grid of heights, and a claim that the file does not bear out is said as it is", async () => {
    writeFileSync(path.join(dir, "plain.tif"), plainTiff());
    execFileSync("gdal_translate", [
      "-q",
      "-ot",
      "Byte",
      "-b",
      "1",
      "-b",
      "1",
      "-b",
      "1",
      "-co",
      "PHOTOMETRIC=RGB",
      path.join(dir, "plain.tif"),
      path.join(dir, "rgb.tif"),
    ]);
    await expect(openTerrain(path.join(dir, "rgb.tif"), "rgb.tif")).rejects.toThrow(/picture in colours/);
    execFileSync("gdal_create", [
      "-q",
      "-of",
      "GTiff",
      "-outsize",
      "200000",
      "200000",
      "-ot",
      "Float32",
      "-a_srs",
      "EPSG:32627",
      "-a_ullr",
      "0",
      "5400000",
      "200000",
      "5200000",
      "-co",
      "SPARSE_OK=TRUE",
      "-co",
      "TILED=YES",
      "-co",
      "BIGTIFF=YES",
      path.join(dir, "huge.tif"),
    ]);
    const began = performance.now();
    await expect(openTerrain(path.join(dir, "huge.tif"), "huge.tif")).rejects.toThrow(/none of its blocks is there/);
    expect(performance.now() - began).toBeLessThan(20_000);
    await expect(
      openTerrain(put("short.asc", "ncols 5000\nnrows 5000\nxllcorner 0\nyllcorner 0\ncellsize 1\n1 2 3"), "short.asc"),
    ).rejects.toThrow(/cannot hold as many/);
  });

  test("an ASCII grid with decimal commas, with its system beside it in an archive", async () => {
    const grid = "ncols 3\nnrows 2\nxllcorner 500000,5\nyllcorner 5200000\ncellsize 10\nNODATA_value -9999\n1,5 2,5 -9999\n4 5,25 6\n";
    const wkt = execFileSync("gdalsrsinfo", ["-o", "wkt_esri", "EPSG:32627"], { encoding: "utf8" });
    expect(epsgOfWkt(wkt)).toBe(32627);
    const source = await openTerrain(put("g.zip", zipSync({ "in/g.asc": strToU8(grid), "in/g.prj": strToU8(wkt) })), "g.zip");
    expect([source.epsg, source.originX, source.cols, source.rows]).toEqual([32627, 500_005.5, 3, 2]);
    expect([...(await source.read(0, 0, 3, 2))]).toEqual([1.5, 2.5, Number.NaN, 4, 5.25, 6]);
    await source.close();
    expect(readdirSync(dir).filter((f) => f.includes("unpacked"))).toEqual([]);
  });

  test("an HGT tile as it is offered, zipped", async () => {
    const tile = new Uint8Array(1201 * 1201 * 2);
    new DataView(tile.buffer).setInt16(2 * (1201 * 3 + 5), 321);
    const source = await openTerrain(put("N47W020.hgt.zip", zipSync({ "N47W020.hgt": tile })), "N47W020.hgt.zip");
    expect([source.format, source.originX, source.originY]).toEqual(["HGT", -20, 48]);
    expect((await source.read(5, 3, 6, 4))[0]).toBe(321);
    await source.close();
    await expect(openTerrain(put("two.zip", zipSync({ "a.hgt": tile, "b.hgt": tile })), "two.zip")).rejects.toThrow(/2 grids/);
  });
});
