import fc from "fast-check";
import { describe, expect, test } from "vitest";
import { diameterPerWavelength, farFieldDistanceM, halfApertureM, referenceGainDbi } from ".";

describe("F.699 reference pattern", () => {
  test("is the peak on the axis, never rises off it, never passes the peak", () => {
    fc.assert(
      fc.property(fc.double({ min: 15, max: 50, noNaN: true }), fc.double({ min: 0, max: 179, noNaN: true }), (peak, angle) => {
        expect(referenceGainDbi(peak, 0).gainDbi).toBeCloseTo(peak, 9);
        const here = referenceGainDbi(peak, angle).gainDbi;
        expect(here).toBeLessThanOrEqual(peak);
        expect(referenceGainDbi(peak, angle + 1).gainDbi).toBeLessThanOrEqual(here + 1e-9);
      }),
    );
  });

  // By hand from the text: 32 - 25 log 20 at D/lambda above 100; -10 dBi from 48 degrees; 10 - 10 log(D/lambda) below 100.
  test.each([
    [50, 20, 32 - 25 * Math.log10(20)],
    [50, 60, -10],
    [25, 60, 10 - 10 * Math.log10(10 ** ((25 - 7.7) / 20))],
  ])("%f dBi at %f degrees is %f dBi", (peak, angle, want) => {
    expect(referenceGainDbi(peak, angle).gainDbi).toBeCloseTo(want, 9);
  });

  test("a low-gain panel is marked as outside what the pattern was made for", () => {
    expect(referenceGainDbi(13, 5).inRange).toBe(false);
    expect(diameterPerWavelength(47.7)).toBeCloseTo(100, 6);
  });
});

test("apertures: a known diameter is halved, an unknown one follows from the gain, the far field from both", () => {
  expect(halfApertureM(29.5, 0.0545, 650)).toBeCloseTo(0.325, 9);
  // G = eta (pi D / lambda)^2 with eta 0.6.
  const d = 2 * halfApertureM(25, 0.0545, null);
  expect(10 * Math.log10(0.6 * ((Math.PI * d) / 0.0545) ** 2)).toBeCloseTo(25, 9);
  expect(farFieldDistanceM(0.65, 0.0545)).toBeCloseTo((2 * 0.65 ** 2) / 0.0545, 9);
});
