import { describe, expect, test } from "vitest";
import { body, box, seeded } from "../testing/scene";
import { axisStretches, bodyApproach, effectiveEnd, f1RadiusM, makeRay, prepareOutline, rayZM, shareOfPoint } from ".";

const WAVELENGTH_M = 0.0545;
const ray = (pathM: number, near: number, far: number) =>
  makeRay({ pathM, startM: 0, endM: pathM, nearAmslM: near, farAmslM: far, wavelengthM: WAVELENGTH_M, kFactor: 4 / 3 });

/** Least share over a body by trying points of its surface: 3-D, flattened earth, nothing clever. */
const bruteShare = (r: ReturnType<typeof ray>, xM: number[], yM: number[], topM: number): number => {
  let least = Number.POSITIVE_INFINITY;
  const n = xM.length;
  for (let i = 0; i < n; i++) {
    const j = (i + 1) % n;
    for (let s = 0; s <= 4000; s++) {
      const t = s / 4000;
      const x = xM[i]! + (xM[j]! - xM[i]!) * t;
      const y = yM[i]! + (yM[j]! - yM[i]!) * t;
      const bulge = (x * (r.pathM - x)) / (2 * r.effectiveRadiusM);
      for (const z of [topM + bulge, Math.min(topM + bulge, rayZM(r, x))]) least = Math.min(least, shareOfPoint(r, x, y, z));
    }
  }
  for (const s of axisStretches(xM, yM)) {
    for (let k = 0; k <= 4000; k++) {
      const x = s.fromM + ((s.toM - s.fromM) * k) / 4000;
      if (x >= 0 && x <= r.pathM) least = Math.min(least, shareOfPoint(r, x, 0, topM + (x * (r.pathM - x)) / (2 * r.effectiveRadiusM)));
    }
  }
  return least;
};

describe("nearest approach in three dimensions", () => {
  test("equals brute-force sampling to 1 % of F1 on 200 seeded scenes that do not block the ray", () => {
    const random = seeded(33);
    let compared = 0;
    for (let n = 0; compared < 200; n++) {
      const pathM = 50 + 8000 * random();
      const r = ray(pathM, 10 + 20 * random(), 10 + 20 * random());
      const cx = pathM * (0.02 + 0.96 * random());
      const cy = (random() - 0.5) * 24;
      const turn = random() * Math.PI;
      const half = [1 + 9 * random(), 1 + 9 * random()] as const;
      const corners = [
        [-1, -1],
        [1, -1],
        [1, 1],
        [-1, 1],
      ] as const;
      const xM = corners.map(([a, b]) => cx + a * half[0] * Math.cos(turn) - b * half[1] * Math.sin(turn));
      const yM = corners.map(([a, b]) => cy + a * half[0] * Math.sin(turn) + b * half[1] * Math.cos(turn));
      const heightM = 4 + 18 * random();
      const got = bodyApproach(r, prepareOutline(body({ xM, yM, heightM })), () => heightM, 1e9)!;
      if (got.side === "through") continue;
      compared++;
      expect(Math.abs(got.share - bruteShare(r, xM, yM, heightM)), `scene ${n}`).toBeLessThan(0.01);
    }
  });

  test("through a body the share is minus the smallest freeing shift over F1 there", () => {
    const r = ray(430, 14, 14);
    const tall = prepareOutline(body({ ...box(200, 204, -1.2, 30), heightM: 40 }));
    const aside = bodyApproach(r, tall, () => 40, 9)!;
    expect(aside.side).toBe("through");
    expect(aside.share * aside.f1M).toBeCloseTo(-1.2, 6);
    const low = bodyApproach(r, prepareOutline(body({ ...box(200, 204, -30, 30), heightM: 14.5 })), () => 14.5, 9)!;
    expect(low.share * low.f1M).toBeCloseTo(-0.5, 2);
  });

  test("a wall 0.3 m behind the antenna has a share of about 4.7 at 5.5 GHz", () => {
    const r = ray(400, 10, 10);
    const wall = bodyApproach(r, prepareOutline(body({ ...box(-8.3, -0.3, -6, 6), heightM: 20 })), () => 20, 99)!;
    expect(wall.share).toBeCloseTo(Math.sqrt(0.6 / (WAVELENGTH_M / 2)), 2);
    expect(wall.share).toBeGreaterThan(4.6);
  });

  test("an outline that only touches the axis with a corner is not crossed twice", () => {
    expect(axisStretches([0, 2, 1], [0, 0, 5])).toEqual([{ fromM: 0, toM: 2 }]);
    expect(axisStretches([0, 2, 1], [-5, -5, 0])).toEqual([]);
  });

  test("a mount inside its outline and below the roof is taken off its wall; above the roof it stays", () => {
    const own = body({ ...box(-6, 4, -5, 5), heightM: 9, carries: "near" });
    expect(effectiveEnd([own], "near", 400, 5)).toEqual({ shiftM: 4.3, wallOf: "body" });
    expect(effectiveEnd([own], "near", 400, 11).shiftM).toBe(0);
  });

  test("F1 at the middle is sqrt(lambda d) / 2", () => {
    expect(f1RadiusM(ray(1000, 0, 0), 500)).toBeCloseTo(Math.sqrt(WAVELENGTH_M * 1000) / 2, 9);
  });
});
