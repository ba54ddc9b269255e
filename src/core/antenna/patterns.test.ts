import { describe, expect, test } from "vitest";
import catalogue from "../../../demo/hardware.json" with { type: "json" };
import {
  apertureCut,
  averageGainDbi,
  besselJ0,
  besselJ1,
  besselJ2,
  nearFieldLossDb,
  omniRelativeDb,
  patternOf,
  referenceGainDbi,
  sectorRelativeDb,
} from ".";

test("Bessel functions vanish at their tabled zeros (Abramowitz and Stegun Table 9.5)", () => {
  expect(besselJ0(2.4048255577)).toBeCloseTo(0, 6);
  expect(besselJ1(3.8317059702)).toBeCloseTo(0, 6);
  expect(besselJ2(5.1356223018)).toBeCloseTo(0, 6);
  expect(besselJ2(0.2999)).toBeCloseTo(besselJ2(0.3001), 4);
});

describe("apertures", () => {
  test.each([
    ["round", -17.57],
    ["line", -13.26],
  ] as const)("an even %s aperture has its textbook first side lobe of %f dB", (shape, wantDb) => {
    expect(apertureCut(shape, 10, -5).sideLobeDb).toBeCloseTo(wantDb, 2);
  });

  test.each([
    ["round", -24.64],
    ["line", -23.0],
  ] as const)("a fully tapered %s aperture has %f dB", (shape, wantDb) => {
    expect(apertureCut(shape, 10, -60).sideLobeDb).toBeCloseTo(wantDb, 1);
  });

  test("half power at half the beamwidth, the asked side lobe met, and where it is said to stand", () => {
    const cut = apertureCut("round", 6, -20);
    expect(cut.relativeDb(3)).toBeCloseTo(-3.01, 2);
    expect(cut.relativeDb(cut.sideLobeDeg)).toBeCloseTo(-20, 1);
  });

  test("every dish of the catalogue lies on or below the F.699 envelope beyond its main lobe, and its first side lobe stays", () => {
    const dishes = catalogue.radios.filter((r) => r.antenna.form === "dish");
    expect(dishes.length).toBeGreaterThan(5);
    for (const r of dishes) {
      const shape = r.antenna as { form: string; gainDbi: number; azimuthBeamwidthDeg: number };
      const pattern = patternOf(shape, 5.5);
      expect(Math.abs(pattern.relativeDb(pattern.sideLobe!.atDeg, 0) - pattern.sideLobe!.levelDb), r.id).toBeLessThan(4);
      for (let off = shape.azimuthBeamwidthDeg * 1.001; off < 90; off += 0.05) {
        const over = shape.gainDbi + pattern.relativeDb(off, 0) - referenceGainDbi(shape.gainDbi, off).gainDbi;
        expect(over, `${r.id} at ${off.toFixed(1)}`).toBeLessThan(1e-9);
      }
    }
  });
});

describe("envelopes and hubs", () => {
  test("F.1245 by hand: 29 - 25 log 20 above D/lambda 100, -3 - 5 log(D/lambda) behind below it; under F.699 by 3 dB", () => {
    expect(averageGainDbi(50, 20)).toBeCloseTo(29 - 25 * Math.log10(20), 9);
    expect(averageGainDbi(25, 90)).toBeCloseTo(-3 - 5 * ((25 - 7.7) / 20), 9);
    expect(referenceGainDbi(50, 20).gainDbi - averageGainDbi(50, 20)).toBeCloseTo(3, 9);
  });

  test("F.1336 omni: -3 dB at half the beamwidth, which follows from the gain", () => {
    expect(omniRelativeDb(10, null, 107.6 * 10 ** -1 * 0.5, 5.5)).toBeCloseTo(-3, 6);
  });

  test("F.1336 sector: -3 dB at both half beamwidths on either side of 6 GHz, worst behind, a remote 13 degrees down outside", () => {
    for (const f of [5.5, 10]) {
      expect(sectorRelativeDb(90, 6.9, 45, 0, f)).toBeCloseTo(-3, 6);
      expect(sectorRelativeDb(90, 6.9, 0, 3.45, f)).toBeCloseTo(-3, 6);
    }
    expect(sectorRelativeDb(90, 6.9, 0, 10, 5.5)).toBeLessThan(-10);
    expect(sectorRelativeDb(90, 6.9, 180, 0, 5.5)).toBeLessThan(-20);
  });

  test("F.1336: peak for interference, average for what is wanted: side lobes 3 dB lower, the main lobe one and the same", () => {
    // Above 6 GHz by hand: peak -12 - 15 log x from x = 1; average -15 - 15 log x from 1.152.
    expect(sectorRelativeDb(90, 6.9, 0, 13.8, 10)).toBeCloseTo(-12 - 15 * Math.log10(2), 6);
    expect(sectorRelativeDb(90, 6.9, 0, 13.8, 10, "average")).toBeCloseTo(-15 - 15 * Math.log10(2), 6);
    expect(sectorRelativeDb(90, 6.9, 0, 1.1 * 6.9, 10, "average")).toBeCloseTo(-12 * 1.21, 6);
    for (const f of [2.4, 5.5, 10, 24]) {
      let before = 0;
      for (let el = 0; el <= 60; el += 0.05) {
        const peak = sectorRelativeDb(90, 6.9, 0, el, f);
        const average = sectorRelativeDb(90, 6.9, 0, el, f, "average");
        expect(average).toBeLessThanOrEqual(peak + 1e-9);
        expect(average).toBeGreaterThanOrEqual(peak - 3 - 1e-9);
        if (el > 0) expect(Math.abs(average - before), `${f} GHz, ${el}`).toBeLessThan(0.6);
        before = average;
        expect(omniRelativeDb(9, 8, el, f, "average")).toBeLessThanOrEqual(omniRelativeDb(9, 8, el, f) + 1e-9);
      }
    }
    const p = patternOf({ form: "sector", gainDbi: 17, azimuthBeamwidthDeg: 90, elevationBeamwidthDeg: 6.9 }, 5.5);
    expect(p.envelopeDb(0, 13) - p.relativeDb(0, 13)).toBeCloseTo(3, 6);
  });

  test("measured cuts are read between their points, added for a direction, and end at the back", () => {
    const cut = { angleDeg: [-180, -10, 0, 10, 180], relativeDb: [-30, -6, 0, -6, -30] };
    const p = patternOf({ form: "panel", gainDbi: 15, cuts: { azimuth: cut, elevation: cut } }, 5.5);
    expect(p.relativeDb(5, 0)).toBeCloseTo(-3, 9);
    expect(p.relativeDb(5, -5)).toBeCloseTo(-6, 9);
    expect(p.relativeDb(170, 170)).toBe(-30);
    expect(() => patternOf({ form: "panel", gainDbi: 15, azimuthBeamwidthDeg: 0 }, 5)).toThrow(RangeError);
  });

  test("a beamwidth that no sheet states is derived from the gain and marked", () => {
    const p = patternOf({ form: "dish", gainDbi: 30 }, 5.5);
    expect(p.beamwidthDerived).toBe(true);
    expect(p.azimuthBeamwidthDeg).toBeCloseTo(Math.sqrt(30), 1);
  });

  test("near field: nothing in the far field, never more out than in", () => {
    expect(nearFieldLossDb(500, 0.0545, 19, 19, 0.3, 0.3)).toBe(0);
    // Two 30 dBi dishes a metre apart: 60 - 47.3 dB would be a gain.
    expect(nearFieldLossDb(1, 0.0545, 30, 30, 0.65, 0.65)).toBeGreaterThan(12);
  });
});
