import fc from "fast-check";
import { describe, expect, test } from "vitest";
import { ADJACENT_DB, BEYOND_DB, type Channel, maskCorners, maskDb, overlapDb, selectivityDb } from "./mask";

/** The same by counting small steps, from the definition. */
const counted = (standard: string, from: Channel, into: Channel): number => {
  const corners = maskCorners(standard, from.widthMhz);
  const reach = corners.at(-1)![0];
  const step = Math.min(from.widthMhz, into.widthMhz) / 400;
  let whole = 0;
  for (let f = -reach + step / 2; f < reach; f += step) whole += 10 ** (maskDb(corners, f) / 10) * step;
  const off = from.centreMhz - into.centreMhz;
  const low = Math.min(off - reach, -1.5 * into.widthMhz);
  const high = Math.max(off + reach, 1.5 * into.widthMhz);
  let through = 0;
  for (let f = low + step / 2; f < high; f += step)
    through += 10 ** ((maskDb(corners, f - off) + selectivityDb(into.widthMhz, f)) / 10) * step;
  return Math.min(0, 10 * Math.log10(through / whole));
};
const at = (centreMhz: number, widthMhz: number): Channel => ({ centreMhz, widthMhz });
const WIDTHS = [5, 10, 20, 40, 80, 160] as const;

describe("what of a transmitter a receiver takes as its own", () => {
  test("equals numerical integration of mask and selectivity for any widths and offsets", () => {
    fc.assert(
      fc.property(fc.constantFrom(...WIDTHS), fc.constantFrom(...WIDTHS), fc.integer({ min: -600, max: 600 }), (a, b, off) => {
        expect(overlapDb("ac", at(5500, a), at(5500 + off, b))).toBeCloseTo(counted("ac", at(5500, a), at(5500 + off, b)), 1);
      }),
      { numRuns: 120 },
    );
    expect(overlapDb("ad", at(58_320, 2160), at(60_480, 2160))).toBeCloseTo(counted("ad", at(58_320, 2160), at(60_480, 2160)), 1);
  });

  test("corners of the mask are the standard's: 0, -20, -28, -40 dBr at 9, 11, 20, 30 MHz for 20 MHz (17.3.9.3)", () => {
    const corners = maskCorners("n", 20);
    expect(corners).toEqual([
      [9, 0],
      [11, -20],
      [20, -28],
      [30, -40],
    ]);
    expect(maskDb(corners, 10)).toBe(-10);
    expect(maskDb(corners, -15.5)).toBeCloseTo(-24, 9);
    expect(maskDb(corners, 500)).toBe(-40);
    expect(maskCorners("ac", 80).map(([mhz]) => mhz)).toEqual([39, 41, 80, 120]);
    expect(maskCorners("ad", 2160).map(([mhz, db]) => [mhz, db])).toEqual([
      [940, 0],
      [1200, -17],
      [2700, -22],
      [3060, -30],
    ]);
  });

  test("by hand: on one channel all of it, within half the width of a wider one all, half over an edge half, beside it what selectivity and mask leave", () => {
    expect(overlapDb("ac", at(5500, 40), at(5500, 40))).toBeCloseTo(0, 1);
    expect(overlapDb("ac", at(5490, 20), at(5500, 40))).toBeGreaterThan(-0.2);
    // Half of it lies in the channel: 3 dB, and what leaks adds a hundredth.
    expect(overlapDb("ac", at(5520, 40), at(5500, 40))).toBeCloseTo(-3, 1);
    // The next channel: its carrier through -35 dB, and -20 to -28 dBr at the near edge: between -33 and -26.
    const next = overlapDb("ac", at(5540, 40), at(5500, 40));
    expect(next).toBeLessThan(-24);
    expect(next).toBeGreaterThan(ADJACENT_DB);
    // Far off: the carrier through -50 dB and a mask of -40 dBr, of which the whole channel's width comes in.
    const far = overlapDb("ac", at(5700, 40), at(5500, 40));
    expect(far).toBeCloseTo(10 * Math.log10(10 ** (BEYOND_DB / 10) + 1e-4), 0);
  });

  test("is the same from both sides for alike channels, and never more than all", () => {
    fc.assert(
      fc.property(fc.constantFrom(...WIDTHS), fc.integer({ min: 0, max: 400 }), (w, off) => {
        const there = overlapDb("ax", at(5500, w), at(5500 + off, w));
        expect(overlapDb("ax", at(5500 + off, w), at(5500, w))).toBe(there);
        expect(there).toBeLessThanOrEqual(0);
      }),
    );
  });

  test("a width that is none is refused", () => {
    expect(() => overlapDb("ac", at(5500, 0), at(5500, 20))).toThrow(RangeError);
  });
});
