import { execFileSync } from "node:child_process";
import { mkdtempSync, readFileSync, rmSync, writeFileSync } from "node:fs";
import { tmpdir } from "node:os";
import path from "node:path";
import fc from "fast-check";
import { strToU8, zipSync } from "fflate";
import { afterAll, beforeAll, describe, expect, test } from "vitest";
import { csvText, FileFault, gpxText, kmlText, type Placed, type RawFeature, readVector, tableRows, type VectorQuestion } from ".";

/* Files written by OGR, a program no one here wrote, and read back by it. */

let dir: string;
const file = (name: string): string => path.join(dir, name);
const ogr = (...args: string[]): string => execFileSync("ogr2ogr", args, { encoding: "utf8", stdio: ["pipe", "pipe", "pipe"] });

const things: Placed[] = [
  {
    name: "Smokehouse & Sons <old>",
    shape: "polygon",
    points: [
      [47.3, -19.4],
      [47.3, -19.3998],
      [47.3002, -19.3999],
    ].map(([latDeg, lonDeg]) => ({ latDeg: latDeg!, lonDeg: lonDeg! })),
    properties: { heightM: 7.5, kind: "building", note: 'says "no"' },
  },
  {
    name: "Causeway",
    shape: "line",
    points: [
      [47.31, -19.41],
      [47.312, -19.408],
      [47.313, -19.4],
    ].map(([latDeg, lonDeg]) => ({ latDeg: latDeg!, lonDeg: lonDeg! })),
    properties: {},
  },
  { name: "Old mast", shape: "point", points: [{ latDeg: 47.305123456, lonDeg: -19.39 }], properties: { heightM: 22 } },
];

const readAll = async (name: string, question: Partial<VectorQuestion> = {}) => {
  const features: RawFeature[] = [];
  const faults: { row: number; reason: string }[] = [];
  const format = await readVector(
    file(name),
    name,
    { epsg: null, ...question },
    { feature: (f) => void features.push(f), fault: (f) => void faults.push(f) },
  );
  return { format, features, faults };
};
const pointsOf = (f: RawFeature) => (f.shape.type === "point" ? [f.shape.at] : f.shape.type === "line" ? f.shape.points : f.shape.outline);
const named = (features: readonly RawFeature[], name: string) => features.find((f) => (f.properties.name ?? f.properties.Name) === name)!;

beforeAll(() => {
  dir = mkdtempSync(path.join(tmpdir(), "dry-arc-places-"));
  writeFileSync(file("own.kml"), kmlText("Test & job", things));
  writeFileSync(file("own.gpx"), gpxText("Test", things));
  writeFileSync(file("own.csv"), csvText(tableRows(things.slice(0, 2))));
  writeFileSync(file("points.csv"), csvText(tableRows(things.slice(2))));
});
afterAll(() => rmSync(dir, { recursive: true, force: true }));

const sameShapes = (features: readonly RawFeature[], which: readonly Placed[] = things) => {
  for (const t of which) {
    const got = pointsOf(named(features, t.name));
    expect(got, t.name).toHaveLength(t.points.length);
    const near = (p: { latDeg: number; lonDeg: number }) =>
      got.some((q) => Math.abs(q.latDeg - p.latDeg) < 2e-9 && Math.abs(q.lonDeg - p.lonDeg) < 2e-9);
    for (const p of t.points) expect(near(p), t.name).toBe(true);
  }
};

describe("own files", () => {
  test("KML comes back as it went, and OGR reads the same three places", async () => {
    const { features, faults } = await readAll("own.kml");
    expect(faults).toEqual([]);
    sameShapes(features);
    expect(named(features, things[0]!.name).properties).toMatchObject({ heightM: "7.5", note: 'says "no"' });
    const seen = JSON.parse(ogr("-f", "GeoJSON", "/vsistdout/", file("own.kml"))) as {
      features: { properties: Record<string, unknown>; geometry: { type: string } }[];
    };
    expect(seen.features.map((f) => [f.properties.Name, f.geometry.type.replace("25D", "")])).toEqual([
      ["Smokehouse & Sons <old>", "Polygon"],
      ["Causeway", "LineString"],
      ["Old mast", "Point"],
    ]);
  });

  test("GPX: a waypoint, a route and a track, as OGR counts them", async () => {
    const { features } = await readAll("own.gpx");
    sameShapes(
      features.filter((f) => f.shape.type === "point"),
      things.slice(2),
    );
    const info = execFileSync("ogrinfo", ["-so", "-al", file("own.gpx")], { encoding: "utf8" });
    for (const layer of ["waypoints", "routes", "tracks"])
      expect(info).toMatch(new RegExp(`Layer name: ${layer}[\\s\\S]*?Feature Count: 1\\n`));
  });

  test("CSV: shapes as WKT, which OGR understands; what a spreadsheet would run comes back as text", async () => {
    const { features } = await readAll("own.csv");
    sameShapes(features, things.slice(0, 2));
    const seen = JSON.parse(ogr("-f", "GeoJSON", "/vsistdout/", file("own.csv"), "-oo", "GEOM_POSSIBLE_NAMES=WKT")) as {
      features: { geometry: { type: string } }[];
    };
    expect(seen.features.map((f) => f.geometry.type)).toEqual(["Polygon", "LineString"]);
    writeFileSync(file("formula.csv"), csvText([{ lat: 47.3, lon: -19.4, name: "=1+1" }]));
    expect(readFileSync(file("formula.csv"), "utf8")).toContain("'=1+1");
    expect((await readAll("formula.csv")).features[0]!.properties.name).toBe("=1+1");
  });
});

describe("files that OGR wrote", () => {
  test("GeoJSON in a grid, its system in the old member; in 3-D; as KML, KMZ, GPX and CSV", async () => {
    ogr("-f", "GeoJSON", "-lco", "RFC7946=NO", "-t_srs", "EPSG:32627", "-nlt", "PROMOTE_TO_MULTI", file("grid.geojson"), file("own.kml"));
    sameShapesAbout((await readAll("grid.geojson")).features);
    ogr("-f", "GeoJSON", "-dim", "XYZ", file("high.geojson"), file("own.kml"));
    sameShapes((await readAll("high.geojson")).features);
    ogr("-f", "KML", file("ogr.kml"), file("own.kml"));
    sameShapes((await readAll("ogr.kml")).features);
    writeFileSync(file("ogr.kmz"), zipSync({ "doc.kml": strToU8(readFileSync(file("ogr.kml"), "utf8")), "pic.png": new Uint8Array(10) }));
    expect((await readAll("ogr.kmz")).format).toBe("KMZ");
    ogr("-f", "CSV", "-lco", "GEOMETRY=AS_WKT", file("ogr.csv"), file("own.kml"));
    sameShapes((await readAll("ogr.csv")).features);
    ogr("-f", "GPX", "-where", "OGR_GEOMETRY='POINT'", "-nlt", "POINT", file("ogr.gpx"), file("own.kml"));
    expect(pointsOf((await readAll("ogr.gpx")).features[0]!)[0]!.latDeg).toBeCloseTo(47.305123456, 8);
  });
});

/** Through a grid and back a position may move by a nanodegree or two. */
const sameShapesAbout = (features: readonly RawFeature[]) => {
  for (const t of things) {
    const got = pointsOf(named(features, t.name));
    for (const p of t.points)
      expect(
        got.some((q) => Math.abs(q.latDeg - p.latDeg) < 1e-8 && Math.abs(q.lonDeg - p.lonDeg) < 1e-8),
        t.name,
      ).toBe(true);
  }
};

describe("tables", () => {
  test.each([
    ["decimal", "lat,lon,name\n47.3,-19.4,A\n", {}],
    ["degrees, minutes, seconds", "Latitude;Longitude;name\n47°18'00\"N;19°24'00\"W;A\n", {}],
    ["one column with both", 'where,name\n"47.3, -19.4",A\n', {}],
    ["chosen columns", "a,b,name\n47.3,-19.4,A\n", { latColumn: "a", lonColumn: "b" }],
    ["decimal commas", "lat;lon;name\n47,3;-19,4;A\n", {}],
  ])("%s", async (_what, text, question) => {
    writeFileSync(file("t.csv"), text);
    const { features, faults } = await readAll("t.csv", question);
    expect(faults).toEqual([]);
    expect(pointsOf(features[0]!)[0]!.latDeg).toBeCloseTo(47.3, 9);
    expect(pointsOf(features[0]!)[0]!.lonDeg).toBeCloseTo(-19.4, 9);
    expect(features[0]!.properties.name).toBe("A");
  });

  test("eastings and northings of a grid that was said", async () => {
    const [x, y] = execFileSync("gdaltransform", ["-s_srs", "EPSG:4326", "-t_srs", "EPSG:32627", "-output_xy"], {
      input: "-19.4 47.3",
      encoding: "utf8",
    })
      .trim()
      .split(" ");
    writeFileSync(file("grid.csv"), `easting,northing,name\n${x},${y},A\n`);
    const { features } = await readAll("grid.csv", { epsg: 32627 });
    expect(pointsOf(features[0]!)[0]!.latDeg).toBeCloseTo(47.3, 8);
  });

  test("bad rows are told by their number and reason, the good ones kept", async () => {
    writeFileSync(file("bad.csv"), "lat,lon,name\n91,0,North\n47.3,-19.4,Good\nhere,there,Words\n47,-181,West\n");
    const { features, faults } = await readAll("bad.csv");
    expect(features.map((f) => [f.row, f.properties.name])).toEqual([[3, "Good"]]);
    expect(faults.map((f) => f.row)).toEqual([2, 4, 5]);
    expect(faults[0]!.reason).toMatch(/latitude 91 is outside -90 to 90/);
    expect(faults[1]!.reason).toMatch(/"here, there" is no latitude and longitude/);
    expect(faults[2]!.reason).toMatch(/longitude -181/);
  });
});

test("what is no file of places, hides entities, or unpacks to too much is refused in words", async () => {
  const refused = async (name: string, content: string | Uint8Array, reason: RegExp) => {
    writeFileSync(file(name), content);
    await expect(readAll(name), name).rejects.toThrow(reason);
    await expect(readAll(name), name).rejects.toBeInstanceOf(FileFault);
  };
  await refused("x.kml", "<kml><Document></kml>", /not well-formed/);
  await refused("y.kml", '<!DOCTYPE kml [<!ENTITY a "aaaa">]><kml>&a;</kml>', /entities/);
  await refused("z.gpx", "<html></html>", /root is <html>/);
  await refused("w.geojson", '{"type":"FeatureCollection","features":[{"type":"Feature"', /breaks off as JSON/);
  await refused("v.kmz", zipSync({ "a.txt": strToU8("hello") }), /holds no KML/);
  await refused("u.bin", "\u0001\u0002", /no GeoJSON/);
});

test("features cut out of the stream are those of the whole text, wherever the stretches end", async () => {
  const { streamFeatures } = await import("./vector/feature-stream");
  await fc.assert(
    fc.asyncProperty(
      fc.array(fc.jsonValue(), { maxLength: 6 }),
      fc.jsonValue(),
      fc.integer({ min: 1, max: 40 }),
      fc.boolean(),
      async (list, other, stretch, indented) => {
        // A key of the same name deeper down, and texts full of brackets, must not lead astray.
        const doc = { note: '"features":[{', inner: { features: [1] }, before: other, features: list, after: [{ "}": "]" }] };
        writeFileSync(file("stream.json"), JSON.stringify(doc, null, indented ? 2 : 0));
        const got: unknown[] = [];
        for await (const f of streamFeatures(file("stream.json"), stretch)) got.push(f);
        expect(got).toEqual(JSON.parse(JSON.stringify(list)));
      },
    ),
    { numRuns: 150, seed: 21 },
  );
}, 60_000);
