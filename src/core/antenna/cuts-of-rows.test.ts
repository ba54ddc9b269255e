import fc from "fast-check";
import { expect, test } from "vitest";
import { type CutRow, cutsOfRows } from "./cuts-of-rows";
import { patternOf } from "./pattern";

const rows = (plane: string, points: readonly (readonly [number, number])[], from = 2): CutRow[] =>
  points.map(([angle, gain], i) => ({ line: from + i, plane, angle: String(angle), gain: String(gain) }));
const AZ = [
  [-180, -10],
  [-10, 12],
  [0, 20],
  [10, 12],
  [180, -10],
] as const;

test("gains in dBi become levels below the peak, sorted, whichever way they are listed", () => {
  const read = cutsOfRows([
    ...rows("Azimuth", [...AZ].reverse()),
    ...rows("el", [
      [-30, -15],
      [0, 0],
      [30, -15],
    ]),
  ]);
  if (!("cuts" in read)) throw new Error(JSON.stringify(read));
  expect(read.cuts.azimuth).toEqual({ angleDeg: [-180, -10, 0, 10, 180], relativeDb: [-30, -8, 0, -8, -30] });
  expect(read.cuts.elevation.relativeDb).toEqual([-15, 0, -15]);
  // The pattern is then the cut itself, at its points and straight between them.
  const pattern = patternOf({ form: "panel", gainDbi: 20, azimuthBeamwidthDeg: 12, elevationBeamwidthDeg: 30, cuts: read.cuts }, 5.5);
  expect(pattern.kind).toBe("measured cuts");
  expect(pattern.relativeDb(10, 0)).toBeCloseTo(-8, 9);
  expect(pattern.relativeDb(5, 0)).toBeCloseTo(-4, 9);
});

test("angles of a whole turn are told to both sides of the axis", () => {
  const read = cutsOfRows([
    ...rows("azimuth", [
      [0, 0],
      [90, -20],
      [350, -3],
      [270, -21],
    ]),
    ...rows("elevation", [
      [-9, -3],
      [0, 0],
      [9, -3],
    ]),
  ]);
  if (!("cuts" in read)) throw new Error(JSON.stringify(read));
  expect(read.cuts.azimuth.angleDeg).toEqual([-90, -10, 0, 90]);
});

test("what is wrong is told by its line and column, and nothing is taken", () => {
  const bad: CutRow[] = [
    { line: 2, plane: "sideways", angle: "0", gain: "1" },
    { line: 3, plane: "azimuth", angle: "361", gain: "1" },
    { line: 4, plane: "azimuth", angle: "0", gain: "much" },
    { line: 5, plane: "azimuth", angle: "0", gain: "1" },
    { line: 6, plane: "azimuth", angle: "0,0", gain: "2" },
  ];
  const read = cutsOfRows(bad);
  expect("faults" in read && read.faults.map((f) => [f.line, f.column])).toEqual([
    [2, "plane"],
    [3, "angle"],
    [4, "gain"],
    [6, "angle"],
    [0, "plane"],
    [0, "plane"],
  ]);
});

test("the peak is 0 and nothing lies above it, whatever the gains", () => {
  const cut = fc.uniqueArray(fc.tuple(fc.integer({ min: -180, max: 180 }), fc.double({ min: -60, max: 40, noNaN: true })), {
    minLength: 3,
    maxLength: 60,
    selector: ([a]) => a,
  });
  fc.assert(
    fc.property(cut, cut, (az, el) => {
      const read = cutsOfRows([...rows("az", az), ...rows("el", el)]);
      if (!("cuts" in read)) throw new Error(JSON.stringify(read));
      for (const c of [read.cuts.azimuth, read.cuts.elevation]) {
        expect(Math.max(...c.relativeDb)).toBe(0);
        expect([...c.angleDeg].sort((a, b) => a - b)).toEqual(c.angleDeg);
      }
    }),
  );
});
