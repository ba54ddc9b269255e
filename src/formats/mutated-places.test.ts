import { mkdtempSync, rmSync } from "node:fs";
import { tmpdir } from "node:os";
import path from "node:path";
import { strToU8, zipSync } from "fflate";
import { afterAll, beforeAll, describe, expect, test } from "vitest";
import { csvText, gpxText, kmlText, type Placed, readVector, tableRows } from ".";
import { type Row, readsSpoilt, TIMEOUT_MS } from "./testing/mutated";

let dir: string;
beforeAll(() => {
  dir = mkdtempSync(path.join(tmpdir(), "dry-arc-spoilt-"));
});
afterAll(() => rmSync(dir, { recursive: true, force: true }));

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

const geojson = (): string =>
  JSON.stringify({
    type: "FeatureCollection",
    features: things.map((t) => ({
      type: "Feature",
      properties: t.properties,
      geometry: { type: "LineString", coordinates: [...t.points, t.points[0]!].map((p) => [p.lonDeg, p.latDeg]) },
    })),
  });

const ROWS: readonly Row[] = [
  ["GeoJSON", "e.geojson", () => strToU8(geojson()), places],
  ["KML", "f.kml", () => strToU8(kmlText("t", things)), places],
  ["KMZ", "g.kmz", () => zipSync({ "doc.kml": strToU8(kmlText("t", things)) }), places],
  ["GPX", "h.gpx", () => strToU8(gpxText("t", things)), places],
  ["CSV", "i.csv", () => strToU8(csvText(tableRows(things))), places],
];

describe("spoilt files", () => {
  test.each(ROWS)("%s", (...row) => readsSpoilt(dir, row), TIMEOUT_MS);
});
