import fc from "fast-check";
import { describe, expect, test } from "vitest";
import { seeded } from "../testing/scene";
import {
  deltaBullingtonDb,
  earlyLeafLossDb,
  finiteScreenLossDb,
  freeSpaceLossDb,
  fresnelIntegral,
  gasSpecificAttenuation,
  knifeEdgeLossDb,
  knifeEdgeLossExactDb,
  leafLoss,
  prepareDiffraction,
  rainAttenuationDb,
  rainExceeded,
  rainFading,
  sphericalEarthLossDb,
  vapourPressureHpa,
} from ".";

/** Independent: composite Simpson over the defining integral. */
const simpson = (f: (x: number) => number, a: number, b: number, n = 20_000): number => {
  const h = (b - a) / n;
  let sum = f(a) + f(b);
  for (let i = 1; i < n; i++) sum += f(a + i * h) * (i % 2 === 0 ? 2 : 4);
  return (sum * h) / 3;
};

describe("Fresnel integral", () => {
  test.each([0.3, 1, 1.799, 1.801, 3, 6.5, -2.2])("C and S at %f equal the defining integral by Simpson's rule", (v) => {
    const got = fresnelIntegral(v);
    expect(got.c).toBeCloseTo(
      simpson((x) => Math.cos((Math.PI * x * x) / 2), 0, v),
      9,
    );
    expect(got.s).toBeCloseTo(
      simpson((x) => Math.sin((Math.PI * x * x) / 2), 0, v),
      9,
    );
  });

  test("the approximation of eq. (31) keeps within half a dB of the exact J between -0.7 and 10", () => {
    for (let v = -0.7; v <= 10; v += 0.05) expect(Math.abs(knifeEdgeLossDb(v) - knifeEdgeLossExactDb(v))).toBeLessThan(0.5);
  });

  test("a screen without sides is a knife edge; one without top blocks nothing it does not reach", () => {
    expect(finiteScreenLossDb(1.2, -1e5, 1e5)).toBeCloseTo(knifeEdgeLossExactDb(1.2), 2);
    expect(finiteScreenLossDb(-1e5, -1, 1)).toBeCloseTo(0, 2);
  });

  test("a narrow screen's loss equals the field summed over the open area by brute force", () => {
    // Open area: the plane less the screen; the plane alone gives (1 - j) times itself over two.
    const c = (a: number, b: number) => simpson((x) => Math.cos((Math.PI * x * x) / 2), a, b, 4000);
    const s = (a: number, b: number) => -simpson((x) => Math.sin((Math.PI * x * x) / 2), a, b, 4000);
    const across = [c(-0.4, 0.9), s(-0.4, 0.9)];
    const up = [0.5 + c(0, 0.7), -0.5 + s(0, 0.7)];
    const blocked = [across[0]! * up[0]! - across[1]! * up[1]!, across[0]! * up[1]! + across[1]! * up[0]!];
    const field = [1 + blocked[1]! / 2, -blocked[0]! / 2];
    const lossDb = -10 * Math.log10(field[0]! ** 2 + field[1]! ** 2);
    expect(finiteScreenLossDb(0.7, -0.4, 0.9)).toBeCloseTo(Math.max(0, lossDb), 6);
  });
});

/** Plain delta-Bullington written out term by term from P.526-15 §4.5, sharing nothing with the fast one. */
const plainDeltaBullington = (dKm: number[], h: number[], hts: number, hrs: number, aeKm: number, fGhz: number): number => {
  const d = dKm[dKm.length - 1]!;
  const lam = 0.299792458 / fGhz;
  const edge = (v: number) => (v > -0.78 ? 6.9 + 20 * Math.log10(Math.sqrt((v - 0.1) ** 2 + 1) + v - 0.1) : 0);
  const inner = dKm.map((_, i) => i).slice(1, -1);
  const bull = (g: number[], ts: number, rs: number): number => {
    const top = (i: number) => g[i]! + (500 / aeKm) * dKm[i]! * (d - dKm[i]!);
    const str = (rs - ts) / d;
    const stim = Math.max(...inner.map((i) => (top(i) - ts) / dKm[i]!));
    let luc: number;
    if (stim < str) {
      const v = Math.max(
        ...inner.map((i) => (top(i) - (ts * (d - dKm[i]!) + rs * dKm[i]!) / d) * Math.sqrt((0.002 * d) / (lam * dKm[i]! * (d - dKm[i]!)))),
      );
      luc = edge(v);
    } else {
      const srim = Math.max(...inner.map((i) => (top(i) - rs) / (d - dKm[i]!)));
      const db = (rs - ts + srim * d) / (stim + srim);
      luc = edge((ts + stim * db - (ts * (d - db) + rs * db) / d) * Math.sqrt((0.002 * d) / (lam * db * (d - db))));
    }
    return luc + (1 - Math.exp(-luc / 6)) * (10 + 0.02 * d);
  };
  let v1 = 0;
  let v2 = 0;
  for (let i = 1; i < dKm.length; i++) {
    v1 += (dKm[i]! - dKm[i - 1]!) * (h[i]! + h[i - 1]!);
    v2 += (dKm[i]! - dKm[i - 1]!) * (h[i]! * (2 * dKm[i]! + dKm[i - 1]!) + h[i - 1]! * (dKm[i]! + 2 * dKm[i - 1]!));
  }
  let hst = (2 * v1 * d - v2) / d ** 2;
  let hsr = (v2 - v1 * d) / d ** 2;
  const hob = (i: number) => h[i]! - (hts * (d - dKm[i]!) + hrs * dKm[i]!) / d;
  const hobs = Math.max(...inner.map(hob));
  if (hobs > 0) {
    const at = Math.max(...inner.map((i) => hob(i) / dKm[i]!));
    const ar = Math.max(...inner.map((i) => hob(i) / (d - dKm[i]!)));
    hst -= (hobs * at) / (at + ar);
    hsr -= (hobs * ar) / (at + ar);
  }
  const t = hts - Math.min(hst, h[0]!);
  const r = hrs - Math.min(hsr, h[h.length - 1]!);
  const smooth = bull(
    h.map(() => 0),
    t,
    r,
  );
  return bull(h, hts, hrs) + Math.max(sphericalEarthLossDb(d, t, r, aeKm, fGhz) - smooth, 0);
};

describe("P.526-15 delta-Bullington", () => {
  test("equals the plain form on 200 seeded profiles", () => {
    const random = seeded(526);
    for (let n = 0; n < 200; n++) {
      const km = 0.2 + 40 * random();
      const points = 8 + Math.floor(150 * random());
      const dKm = Array.from({ length: points }, (_, i) => (km * i) / (points - 1));
      const h = dKm.map(() => 120 * random() ** 3);
      const hts = h[0]! + 1 + 60 * random();
      const hrs = h[points - 1]! + 1 + 60 * random();
      const fGhz = 1 + 60 * random();
      const groundAmslM = Float64Array.from(h);
      const p = prepareDiffraction({
        distanceM: Float64Array.from(dKm, (d) => d * 1000),
        topAmslM: groundAmslM,
        groundAmslM,
        frequencyGhz: fGhz,
        effectiveRadiusM: 8_500_000,
      });
      expect(deltaBullingtonDb(p, hts, hrs), `profile ${n}`).toBeCloseTo(plainDeltaBullington(dKm, h, hts, hrs, 8500, fGhz), 6);
    }
  });

  test("a line that just touches (equal slopes) gives the touching edge, not 0/0", () => {
    const distanceM = Float64Array.from([0, 1000, 2000]);
    const ground = Float64Array.from([0, 0, 0]);
    const top = Float64Array.from([0, 10 - (500 * 1 * 1) / 8500, 0]);
    const p = prepareDiffraction({ distanceM, topAmslM: top, groundAmslM: ground, frequencyGhz: 5, effectiveRadiusM: 8_500_000 });
    const edge = knifeEdgeLossDb(0);
    expect(deltaBullingtonDb(p, 10, 10)).toBeCloseTo(edge + (1 - Math.exp(-edge / 6)) * 10.04, 3);
  });

  test("a profile with an unknown height is refused by name", () => {
    const h = Float64Array.from([0, Number.NaN, 0]);
    expect(() =>
      prepareDiffraction({
        distanceM: Float64Array.from([0, 1, 2]),
        topAmslM: h,
        groundAmslM: h,
        frequencyGhz: 5,
        effectiveRadiusM: 8.5e6,
      }),
    ).toThrow(RangeError);
  });

  test("spherical earth: no loss well inside the horizon, and continuous across it", () => {
    expect(sphericalEarthLossDb(3, 30, 30, 8500, 5)).toBe(0);
    const horizonKm = Math.sqrt(2 * 8500) * 2 * Math.sqrt(0.03);
    const step = sphericalEarthLossDb(horizonKm * 1.0001, 30, 30, 8500, 5) - sphericalEarthLossDb(horizonKm * 0.9999, 30, 30, 8500, 5);
    expect(Math.abs(step)).toBeLessThan(0.1);
  });
});

describe("gas, rain, leaves", () => {
  // Models page, demo air: about these dB/km at the 60 GHz channel centres (P.676 line by line, 1013 hPa total, 10 C, 7.5 g/m3).
  test.each([
    [58.32, 13.0],
    [60.48, 15.1],
    [62.64, 12.4],
    [64.8, 4.5],
    [66.96, 1.3],
    [69.12, 0.6],
  ])("air at %f GHz takes about %f dB/km", (fGhz, want) => {
    const e = vapourPressureHpa(7.5, 283.15);
    const gas = gasSpecificAttenuation(fGhz, 1013 - e, 283.15, 7.5);
    const got = gas.oxygenDbPerKm + gas.waterDbPerKm;
    expect(Math.abs(got - want)).toBeLessThan(0.04 * want + 0.05);
  });

  test("rain: the inverse gives back the percentage, the attenuation falls with it", () => {
    const fading = rainFading(60.48, 0.43, 28, 0.5, 90);
    expect(rainAttenuationDb(fading, 0.01)).toBeCloseTo(fading.a001Db, 1);
    for (const percent of [0.0012, 0.01, 0.1, 0.9]) {
      expect(rainExceeded(fading, rainAttenuationDb(fading, percent)).percent).toBeCloseTo(percent, 6);
    }
    fc.assert(
      fc.property(
        fc.double({ min: 0.002, max: 0.99, noNaN: true }),
        (p) => rainAttenuationDb(fading, p) < rainAttenuationDb(fading, p * 0.9),
      ),
    );
  });

  test("leaves: linear below a metre, no jump at it, out of range at 400 m, median inside its band", () => {
    expect(earlyLeafLossDb(5.5, 0)).toBe(0);
    expect(earlyLeafLossDb(5.5, 1.0001) - earlyLeafLossDb(5.5, 0.9999)).toBeLessThan(0.001);
    expect(leafLoss(5.5, 4, "in").medianDb).toBeCloseTo(0.2 * 5500 ** 0.3 * 4 ** 0.6, 9);
    expect(leafLoss(5.5, 4, "out").medianDb).toBeCloseTo(0.37 * 5500 ** 0.18 * 4 ** 0.59, 9);
    expect(leafLoss(5.5, 400, "in").inRange).toBe(false);
    expect([leafLoss(5.5, 9, "in").bandInRange, leafLoss(24, 9, "in").bandInRange]).toEqual([false, true]);
    fc.assert(
      fc.property(fc.double({ min: 2, max: 80, noNaN: true }), fc.double({ min: 0, max: 390, noNaN: true }), (f, d) => {
        for (const leaf of ["in", "out"] as const) {
          const l = leafLoss(f, d, leaf);
          expect(l.leastDb).toBeLessThanOrEqual(l.medianDb);
          expect(l.mostDb).toBeGreaterThanOrEqual(l.medianDb);
        }
      }),
    );
  });

  test("free space rises with distance and refuses none", () => {
    fc.assert(fc.property(fc.double({ min: 1, max: 1e5, noNaN: true }), (d) => freeSpaceLossDb(5.5, d * 1.01) > freeSpaceLossDb(5.5, d)));
    expect(() => freeSpaceLossDb(5.5, 0)).toThrow(RangeError);
  });
});
