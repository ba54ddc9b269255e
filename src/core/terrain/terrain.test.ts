import { describe, expect, test } from "vitest";
import { destination, pathFrame, planeProjection, utmCrsOf } from "../geo";
import { seeded } from "../testing/scene";
import { bilinearSampler, cutTile, NO_DATASET, sampleGround, type TerrainGrid, thinnedIndices } from ".";

const grid = (fields: {
  cols: number;
  rows: number;
  cellM: number;
  x0: number;
  y0: number;
  crs: string;
  h: (x: number, y: number) => number;
  up?: boolean;
  tileCells?: number;
}): TerrainGrid => {
  const { cols, rows, cellM, x0, y0, h, up = false, tileCells = 16 } = fields;
  const stepY = up ? cellM : -cellM;
  const values = Float32Array.from({ length: cols * rows }, (_, i) => h(x0 + (i % cols) * cellM, y0 + Math.floor(i / cols) * stepY));
  return {
    id: `${cellM}`,
    name: `${cellM} m`,
    kind: "dtm",
    crs: fields.crs,
    originX: x0,
    originY: y0,
    stepX: cellM,
    stepY,
    cols,
    rows,
    cellM,
    sigmaM: 1,
    tileCells,
    tile: (r, c) => cutTile(values, cols, rows, tileCells, r, c),
  };
};

describe("grids", () => {
  test.each([false, true])("a plane is sampled exactly across tile seams (rows running north: %s)", (up) => {
    const g = grid({ cols: 70, rows: 50, cellM: 30, x0: 1000, y0: 9000, crs: "EPSG:32627", h: (x, y) => 0.02 * x - 0.01 * y, up });
    const sample = bilinearSampler(g);
    const random = seeded(4);
    for (let i = 0; i < 500; i++) {
      const x = 1000 + 69 * 30 * random();
      const y = 9000 + (up ? 1 : -1) * 49 * 30 * random();
      expect(Math.abs(sample(x, y) - (0.02 * x - 0.01 * y))).toBeLessThan(0.001);
    }
    expect(sample(999, 9000)).toBeNaN();
    expect(sample(1000 + 69 * 30, 9000)).toBeCloseTo(0.02 * (1000 + 69 * 30) - 90, 3);
  });
});

describe("ground profile", () => {
  const near = { latDeg: 47.3, lonDeg: -19.4 };
  const far = destination(near, 80, 2000);
  const crs = utmCrsOf(near);
  const [x0, y0] = planeProjection(crs).forward(near);
  const coarse = grid({ cols: 200, rows: 200, cellM: 30, x0: x0 - 1000, y0: y0 + 3000, crs, h: () => 10 });
  const fine = grid({ cols: 300, rows: 300, cellM: 2, x0: x0 + 700, y0: y0 + 450, crs, h: () => 20 });

  test("the finest dataset that knows a place wins, at half its cell", () => {
    const p = sampleGround(pathFrame(near, far), [coarse, fine]);
    const inFine = p.distanceM.filter((_, i) => p.datasetIndex[i] === 1);
    expect(inFine.length).toBeGreaterThan(590);
    expect(Math.max(...inFine.slice(1).map((d, i) => d - inFine[i]!))).toBeLessThan(1.001);
    // The edge of the finer survey is met to its own step, not to the coarse one.
    const firstFine = inFine[0]!;
    const before = p.distanceM[p.distanceM.indexOf(firstFine) - 1]!;
    expect(firstFine - before).toBeLessThan(1.001);
    expect(p.distanceM[p.distanceM.length - 1]).toBeCloseTo(2000, 6);
  });

  test("what nobody surveyed stays unknown", () => {
    const p = sampleGround(pathFrame(near, destination(near, 80, 9000)), [coarse]);
    expect(p.groundAmslM[p.groundAmslM.length - 1]).toBeNaN();
    expect(p.datasetIndex[p.datasetIndex.length - 1]).toBe(NO_DATASET);
  });

  test("thinning keeps every peak, every marked point and both ends", () => {
    const random = seeded(9);
    const n = 9000;
    const d = Float64Array.from({ length: n }, (_, i) => i);
    const h = Float64Array.from({ length: n }, (_, i) => 20 * Math.sin(i / 80) + (i % 500 === 250 ? 30 : 0) + 0.001 * random());
    const keep = new Uint8Array(n);
    keep[1234] = 1;
    const kept = new Set(thinnedIndices(d, h, keep, 6500));
    for (let i = 1; i < n - 1; i++) if (h[i]! > h[i - 1]! && h[i]! > h[i + 1]!) expect(kept.has(i)).toBe(true);
    expect([kept.has(0), kept.has(n - 1), kept.has(1234)]).toEqual([true, true, true]);
    expect(thinnedIndices(d, h, keep, n)).toBeNull();
  });
});
