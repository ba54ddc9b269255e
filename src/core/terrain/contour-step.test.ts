/* The step between contours follows the relief in view. */
import fc from "fast-check";
import { expect, test } from "vitest";
import { contourStepM } from "./contour-step";

const COLS = 100;
const ground = (height: (x: number, y: number) => number): Float32Array =>
  Float32Array.from({ length: COLS * COLS }, (_, i) => height(i % COLS, Math.floor(i / COLS)));

test("a meadow that rises two metres has lines a quarter of a metre apart", () => {
  expect(
    contourStepM(
      ground((x) => x * 0.02),
      COLS,
      4,
      2,
    ),
  ).toBe(0.25);
});

test("a hill of 45 m fills the view with some sixteen lines and no more", () => {
  const hill = ground((x, y) => 45 * Math.exp(-((x - 50) ** 2 + (y - 50) ** 2) / 800));
  expect(contourStepM(hill, COLS, 4, 2)).toBe(5);
});

test("looked at so closely that a slope would leave room for more, there are still no more lines than a reader counts", () => {
  // 45 m over the view, at 0.1 m to the pixel: its slope alone would be content with half a metre.
  expect(
    contourStepM(
      ground((x) => x * 0.4545),
      COLS,
      4,
      0.1,
    ),
  ).toBe(5);
});

test("a steep side far away does not become one black field: lines of a mean slope stand apart", () => {
  // One in two, drawn at 8 m to the pixel: 14 px between lines are 56 m of height.
  expect(
    contourStepM(
      ground((x) => x * 8),
      COLS,
      16,
      8,
    ),
  ).toBe(100);
});

test("level water, and ground that is not known, still answer", () => {
  expect(
    contourStepM(
      ground(() => 0),
      COLS,
      4,
      2,
    ),
  ).toBe(0.25);
  expect(
    contourStepM(
      ground(() => Number.NaN),
      COLS,
      4,
      2,
    ),
  ).toBe(0.25);
  expect(
    contourStepM(
      ground((x) => (x < 50 ? Number.NaN : 10 + x)),
      COLS,
      4,
      2,
    ),
  ).toBeGreaterThan(0.25);
});

test("more relief never has a finer step", () => {
  fc.assert(
    fc.property(fc.double({ min: 0.001, max: 5, noNaN: true }), fc.double({ min: 1, max: 4, noNaN: true }), (slope, times) => {
      const a = contourStepM(
        ground((x) => x * slope),
        COLS,
        4,
        2,
      );
      const b = contourStepM(
        ground((x) => x * slope * times),
        COLS,
        4,
        2,
      );
      expect(b).toBeGreaterThanOrEqual(a);
    }),
    { numRuns: 40 },
  );
});
