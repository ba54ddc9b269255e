import fc from "fast-check";
import { describe, expect, test } from "vitest";
import {
  barrierLoss,
  buildingEntryLossDb,
  deltaBullingtonDb,
  freeSpaceLossDb,
  fresnelCoefficient,
  gasSpecificAttenuation,
  knifeEdgeLossDb,
  type Multipath,
  multipath,
  multipathPercent,
  multipathWorstMonthPercent,
  prepareDiffraction,
  rainFading,
  reflectionPointM,
  roundedObstacleLossDb,
  shiftedDiffraction,
  shiftScratch,
  sphericalEarthLossDb,
  surfacePermittivity,
  thinnedDiffraction,
  twoEdgeLossDb,
  twoRayLevel,
  vOfEdge,
  waterPermittivity,
  woodlandLossDb,
  worstMonthPercent,
  yearPercentOfWorstMonth,
  zoneRainRateMmH,
} from ".";

describe("one hill, two edges, sea", () => {
  test("a rounded obstacle of no radius is a knife edge, and rounding costs more the rounder it is", () => {
    const v = vOfEdge(10, 1000, 3000, 0.05);
    expect(roundedObstacleLossDb(10, 1000, 3000, 1e-6, 0.05).lossDb).toBeCloseTo(knifeEdgeLossDb(v), 1);
    const at = (r: number) => roundedObstacleLossDb(10, 1000, 3000, r, 0.05).lossDb;
    expect(at(50)).toBeLessThan(at(500));
    expect(roundedObstacleLossDb(-1, 1000, 3000, 10, 0.05).inRange).toBe(false);
  });

  test("two edges: the same from both ends, and the far lesser edge is worth nothing", () => {
    fc.assert(
      fc.property(
        fc.double({ min: 100, max: 5000, noNaN: true }),
        fc.double({ min: 100, max: 5000, noNaN: true }),
        fc.double({ min: 100, max: 5000, noNaN: true }),
        fc.double({ min: 1, max: 60, noNaN: true }),
        fc.double({ min: 1, max: 60, noNaN: true }),
        (a, b, c, h1, h2) => {
          expect(twoEdgeLossDb(a, b, c, h1, h2, 0.05).lossDb).toBeCloseTo(twoEdgeLossDb(c, b, a, h2, h1, 0.05).lossDb, 6);
        },
      ),
      { seed: 2, numRuns: 80 },
    );
    expect(twoEdgeLossDb(1000, 500, 1000, 30, -60, 0.05).lossDb).toBeCloseTo(knifeEdgeLossDb(vOfEdge(30, 1000, 1500, 0.05)), 6);
  });

  test("a path half over sea lies between land and sea", () => {
    const of = (share: number) => sphericalEarthLossDb(60, 20, 20, 8500, 1.5, share);
    expect(of(0.5)).toBeCloseTo((of(0) + of(1)) / 2, 9);
  });
});

describe("clear-air multipath", () => {
  const m = multipath({
    pathKm: 50,
    frequencyGhz: 7,
    nearAmslM: 100,
    farAmslM: 100,
    gradientDn1NPerKm: -300,
    roughnessSaM: 20,
    latDeg: 47,
  });

  test("occurrence by hand from the detailed form", () => {
    const k = 10 ** (-4.4 + 0.0027 * 300) * 30 ** -0.46;
    expect(m.occurrencePercent).toBeCloseTo(k * 50 ** 3.4 * 7 ** 0.8 * 10 ** (-0.00076 * 100), 9);
    // dG by hand: |cos 94 deg|^0.7 = 0.1552, north of 45 degrees with the minus sign.
    expect(m.yearOffsetDb).toBeCloseTo(
      10.5 - 5.6 * Math.log10(1.1 - Math.abs(Math.cos((94 * Math.PI) / 180)) ** 0.7) - 2.7 * Math.log10(50),
      9,
    );
  });

  test("the share falls with the fade, without a step where the two forms meet, and is 63 % of the month at no fade", () => {
    const changeDb = 25 + 1.2 * Math.log10(m.occurrencePercent);
    const below = multipathWorstMonthPercent(m, changeDb - 0.001);
    expect(Math.abs(below / multipathWorstMonthPercent(m, changeDb + 0.001) - 1)).toBeLessThan(0.005);
    expect(multipathWorstMonthPercent(m, 0)).toBeGreaterThan(60);
    for (let a = 0; a < 45; a += 0.5) expect(multipathWorstMonthPercent(m, a + 0.5)).toBeLessThan(multipathWorstMonthPercent(m, a));
    // Deep fades: ten times rarer for each 10 dB.
    expect(multipathPercent(m, 40) / multipathPercent(m, 30)).toBeCloseTo(0.1, 6);
  });

  test("below 3 km it is negligible; below 15/d GHz and above 45 GHz it is marked", () => {
    const at = (pathKm: number, frequencyGhz: number): Multipath =>
      multipath({ pathKm, frequencyGhz, nearAmslM: 10, farAmslM: 10, gradientDn1NPerKm: -250, roughnessSaM: null, latDeg: 47 });
    expect(multipathPercent(at(2.9, 5.5), 10)).toBe(0);
    expect([at(10, 1.4).inRange, at(10, 1.6).inRange, at(10, 44).inRange, at(10, 46).inRange]).toEqual([false, true, true, false]);
  });
});

describe("monotony over the whole range", () => {
  const distance = fc.double({ min: 0.05, max: 49, noNaN: true });
  const frequency = fc.double({ min: 2, max: 86, noNaN: true });

  test("free space, gas and rain up to 50 km rise with distance; rain rises with its rate", () => {
    fc.assert(
      fc.property(distance, frequency, fc.double({ min: 1, max: 120, noNaN: true }), (d, f, rate) => {
        const more = d * 1.02;
        expect(freeSpaceLossDb(f, more * 1000)).toBeGreaterThan(freeSpaceLossDb(f, d * 1000));
        const gas = gasSpecificAttenuation(f, 1003, 283, 7.5);
        expect(gas.oxygenDbPerKm + gas.waterDbPerKm).toBeGreaterThan(0);
        const at = (km: number, r: number) => rainFading(f, km, r, 0, 0).a001Db;
        // At low frequencies or weak rain, beyond some 38 km, the text's own distance factor can fall faster
        // than path and rain rise: there the formula is not monotone, and the figures are small.
        if (f < 5 || rate < 20) return;
        expect(at(more, rate)).toBeGreaterThanOrEqual(at(d, rate) * 0.999);
        if (d < 10) expect(at(d, rate * 1.05)).toBeGreaterThan(at(d, rate));
      }),
      { seed: 530, numRuns: 200 },
    );
  });

  test("oxygen takes more at a total pressure that is higher, vapour more when there is more of it", () => {
    fc.assert(
      fc.property(
        frequency,
        fc.double({ min: 700, max: 1000, noNaN: true }),
        fc.double({ min: 1, max: 25, noNaN: true }),
        (f, hPa, rho) => {
          const at = (p: number, w: number) => gasSpecificAttenuation(f, p, 288, w);
          // In the wings of the lines; on a line's very centre pressure widens it and takes its height.
          if (f < 50 || f > 70) expect(at(hPa * 1.05, rho).oxygenDbPerKm).toBeGreaterThan(at(hPa, rho).oxygenDbPerKm);
          expect(at(hPa, rho * 1.1).waterDbPerKm).toBeGreaterThan(at(hPa, rho).waterDbPerKm);
        },
      ),
      { seed: 676, numRuns: 100 },
    );
  });

  test("diffraction over moved ground: lifting everything together changes nothing, another k does", () => {
    const n = 200;
    const distanceM = Float64Array.from({ length: n }, (_, i) => (i * 12_000) / (n - 1));
    const ground = distanceM.map((x) => 20 * Math.sin(x / 900) + 40);
    const p = prepareDiffraction({ distanceM, topAmslM: ground, groundAmslM: ground, frequencyGhz: 5.5, effectiveRadiusM: 8_494_667 });
    const room = shiftScratch(p);
    const lifted = shiftedDiffraction(p, new Float64Array(p.count).fill(7), 7, 7, null, 1, room);
    expect(deltaBullingtonDb(lifted, 52 + 7, 55 + 7)).toBeCloseTo(deltaBullingtonDb(p, 52, 55), 9);
    // The same by preparing it anew for another k and another ground.
    const wave = Float64Array.from({ length: p.count }, (_, i) => 3 * Math.sin(i / 11));
    const moved = ground.map((h, i) => h + (i === 0 ? 1 : i === n - 1 ? -2 : wave[i - 1]!));
    const anew = prepareDiffraction({
      distanceM,
      topAmslM: moved,
      groundAmslM: moved,
      frequencyGhz: 5.5,
      effectiveRadiusM: 0.8 * 6_371_000,
    });
    const shifted = shiftedDiffraction(p, wave, 1, -2, null, 8_494_667 / (0.8 * 6_371_000), room);
    expect(deltaBullingtonDb(shifted, 52, 55)).toBeCloseTo(deltaBullingtonDb(anew, 52, 55), 6);
  });

  test("a thinned profile loses at most 0.1 dB against the whole", () => {
    const n = 4000;
    const distanceM = Float64Array.from({ length: n }, (_, i) => (i * 20_000) / (n - 1));
    for (let seed = 0; seed < 20; seed++) {
      const ground = distanceM.map((x) => 25 * Math.sin(x / (700 + 40 * seed)) + 12 * Math.sin(x / 130 + seed) + 60);
      const p = prepareDiffraction({ distanceM, topAmslM: ground, groundAmslM: ground, frequencyGhz: 5.5, effectiveRadiusM: 8.5e6 });
      const { profile: thin, kept } = thinnedDiffraction(p, 80, 90, 512, [7, 3001]);
      expect(thin.count).toBeLessThanOrEqual(514);
      for (const stay of [7, 3001]) expect(kept).toContain(stay);
      expect(Math.abs(deltaBullingtonDb(thin, 80, 90) - deltaBullingtonDb(p, 80, 90)), `seed ${seed}`).toBeLessThan(0.1);
    }
  });
});

describe("months, rain zones, buildings", () => {
  test("worst month: the text's p = 0.30 p_w^1.15, and there and back", () => {
    for (const pw of [0.02, 0.1, 1, 4]) expect(Math.abs(yearPercentOfWorstMonth(pw) / (0.3 * pw ** 1.15) - 1)).toBeLessThan(0.02);
    fc.assert(
      fc.property(fc.double({ min: 1e-5, max: 60, noNaN: true }), (p) => {
        expect(yearPercentOfWorstMonth(worstMonthPercent(p)) / p).toBeCloseTo(1, 3);
      }),
      { seed: 841 },
    );
  });

  test("between the table's percentages the rain rate falls steadily; zones and shares outside are refused by value", () => {
    expect(zoneRainRateMmH("E", 0.02)).toBeLessThan(22);
    expect(zoneRainRateMmH("E", 0.02)).toBeGreaterThan(12);
    expect(() => zoneRainRateMmH("I", 0.01)).toThrow(/zone I/);
    expect(() => zoneRainRateMmH("E", 2)).toThrow(/2 %/);
  });

  test("building entry: at 50 % the power sum of both medians and 0.5, rising with probability and elevation", () => {
    // By hand at 1 GHz (log f = 0), level path: 10 log(10^1.264 + 10^0.91 + 10^-0.3).
    expect(buildingEntryLossDb(1, "traditional", 0.5)).toBeCloseTo(10 * Math.log10(10 ** 1.264 + 10 ** 0.91 + 10 ** -0.3), 3);
    expect(buildingEntryLossDb(1, "thermally_efficient", 0.5)).toBeGreaterThan(buildingEntryLossDb(1, "traditional", 0.5) + 10);
    expect(buildingEntryLossDb(5, "traditional", 0.9)).toBeGreaterThan(buildingEntryLossDb(5, "traditional", 0.1) + 10);
    expect(buildingEntryLossDb(5, "traditional", 0.5, 30)).toBeGreaterThan(buildingEntryLossDb(5, "traditional", 0.5));
  });

  test("a wall: measured as it is, a material by its range, unknown by statistics and marked", () => {
    expect(barrierLoss({ kind: "measured", lossDb: 9 }, 5.5)).toMatchObject({ medianDb: 9, unknown: false });
    expect(barrierLoss({ kind: "material", material: "coated-glass" }, 5.5)).toMatchObject({ leastDb: 20, mostDb: 35, inRange: true });
    expect(barrierLoss({ kind: "material", material: "brick" }, 60).inRange).toBe(false);
    expect(barrierLoss({ kind: "unknown", building: "traditional" }, 5.5).unknown).toBe(true);
    expect(() => barrierLoss({ kind: "material", material: "cheese" }, 5.5)).toThrow(/cheese/);
  });

  test("woodland rises to its ceiling and never beyond", () => {
    const most = 0.18 * 5500 ** 0.752;
    expect(woodlandLossDb(5.5, 1e5)).toBeCloseTo(most, 6);
    expect(woodlandLossDb(5.5, 20)).toBeLessThan(woodlandLossDb(5.5, 40));
  });
});

describe("reflection over water", () => {
  /** Independent: the path off a circle of the effective earth that is shortest, by golden search; lengths by plain trigonometry. */
  const brute = (d: number, h1: number, h2: number, a: number): { d1: number; extra: number } => {
    const at = (s: number, h: number): [number, number] => [(a + h) * Math.sin(s / a), (a + h) * Math.cos(s / a)];
    const [p, q] = [at(0, h1), at(d, h2)];
    const length = (s: number): number => {
      const r = at(s, 0);
      return Math.hypot(r[0] - p[0], r[1] - p[1]) + Math.hypot(q[0] - r[0], q[1] - r[1]);
    };
    let [lo, hi] = [0, d];
    for (let i = 0; i < 200; i++) {
      const [m1, m2] = [lo + (hi - lo) * 0.382, lo + (hi - lo) * 0.618];
      if (length(m1) < length(m2)) hi = m2;
      else lo = m1;
    }
    const s = (lo + hi) / 2;
    return { d1: s, extra: length(s) - Math.hypot(q[0] - p[0], q[1] - p[1]) };
  };

  test.each([
    [3100, 14.5, 15],
    [6400, 20, 14],
    [12_000, 60, 25],
    [19_000, 120, 40],
  ])("over %i m from %f and %f m the point and the longer way equal the shortest path by brute force", (d, h1, h2) => {
    const a = (4 / 3) * 6_371_000;
    const want = brute(d, h1, h2, a);
    expect(Math.abs(reflectionPointM(d, h1, h2, a) - want.d1)).toBeLessThan(2);
    const sea = surfacePermittivity("sea", 5.5, 10);
    const r = twoRayLevel({
      pathM: d,
      nearHeightM: h1,
      farHeightM: h2,
      effectiveRadiusM: a,
      frequencyGhz: 5.5,
      surface: sea,
      polarisation: "horizontal",
      roughnessM: 0,
      nearDiscriminationDb: () => 0,
      farDiscriminationDb: () => 0,
    });
    // A hundredth of a wavelength (54 mm).
    expect(Math.abs(r.extraPathM - want.extra)).toBeLessThan(0.0006);
    expect(r.size).toBeLessThan(1);
  });

  // The demo's table: worst level over a tide of 1.5 m, near 14.5 m AMSL, 3.1 km, 5.5 GHz.
  test.each([
    [9, 3.2, 0.2],
    [15, 1.2, 0.2],
    [21, -2.0, 0.2],
    [12, -17, 4],
    [18, -16, 4],
  ])("Pilot Station at %f m AMSL: worst over the tide about %f dB", (farM, wantDb, within) => {
    const sea = surfacePermittivity("sea", 5.5, 10);
    let worst = Number.POSITIVE_INFINITY;
    for (let tide = -0.75; tide <= 0.75; tide += 0.01) {
      const r = twoRayLevel({
        pathM: 3100,
        nearHeightM: 14.5 - tide,
        farHeightM: farM - tide,
        effectiveRadiusM: (4 / 3) * 6_371_000,
        frequencyGhz: 5.5,
        surface: sea,
        polarisation: "vertical",
        roughnessM: 0,
        nearDiscriminationDb: () => 0,
        farDiscriminationDb: () => 0,
      });
      worst = Math.min(worst, r.relativeDb!);
    }
    expect(Math.abs(worst - wantDb)).toBeLessThan(within);
  });

  test("coefficients: -1 at grazing, (n - 1)/(n + 1) straight down, and no antenna under water", () => {
    const glass = { real: 4, imaginary: 0 };
    for (const pol of ["horizontal", "vertical"] as const) {
      expect(fresnelCoefficient(glass, 1e-5, pol).re).toBeCloseTo(-1, 3);
      expect(Math.hypot(fresnelCoefficient(glass, Math.PI / 2, pol).re, 0)).toBeCloseTo(1 / 3, 9);
    }
    // Brewster: no vertical reflection at atan(1/n) above the surface.
    expect(Math.abs(fresnelCoefficient(glass, Math.atan(0.5), "vertical").re)).toBeLessThan(1e-9);
    const under = twoRayLevel({
      pathM: 1000,
      nearHeightM: -1,
      farHeightM: 5,
      effectiveRadiusM: 8.5e6,
      frequencyGhz: 5,
      surface: glass,
      polarisation: "vertical",
      roughnessM: 0,
      nearDiscriminationDb: () => 0,
      farDiscriminationDb: () => 0,
    });
    expect(under.relativeDb).toBeNull();
  });

  test("water at 25 C: static permittivity 78.4 (CRC Handbook), sea water conducts", () => {
    expect(waterPermittivity(0.1, 25, 0).real).toBeCloseTo(78.4, 0);
    expect(waterPermittivity(1, 15, 35).imaginary).toBeGreaterThan(60);
  });
});
