import { describe, expect, test } from "vitest";
import { body, box, seeded } from "../testing/scene";
import {
  axisStretches,
  bodyApproach,
  effectiveEnd,
  f1RadiusM,
  groundApproach,
  makeRay,
  prepareOutline,
  prepareSide,
  rayZM,
  shareOfPoint,
  sideApproach,
} from ".";

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

  test("ground that slopes across the path equals brute force to 1 % of F1 on 200 seeded slopes", () => {
    const random = seeded(34);
    let beside = 0;
    for (let n = 0; n < 200; n++) {
      const pathM = 100 + 4000 * random();
      const r = ray(pathM, 12 + 10 * random(), 12 + 10 * random());
      const f1 = Math.sqrt(WAVELENGTH_M * pathM) / 2;
      const distanceM = Float64Array.from({ length: 100 }, (_, i) => (pathM * i) / 99);
      const offsetsM = Float64Array.from([-1.5, -1.125, -0.75, -0.375, 0.375, 0.75, 1.125, 1.5], (k) => 2 * k * f1);
      const tilt = (random() - 0.5) * 2.4;
      const wave = 2 + 5 * random();
      const axis = distanceM.map((x) => 8 + 3 * Math.sin((x / pathM) * wave) - 0.3 * f1 * random());
      const height = (i: number, y: number): number => axis[i]! + tilt * y + (0.2 * y * y) / f1;
      const groundAmslM = Array.from(offsetsM, (y) => distanceM.map((_, i) => height(i, y)));
      const under = groundApproach(r, distanceM, axis);
      const got = sideApproach(r, distanceM, prepareSide({ offsetsM, groundAmslM }, axis), under)!;
      if (got.share < 0) continue;
      // Every piece between two lines, a fiftieth at a time.
      const ys = [...offsetsM.slice(0, 4), 0, ...offsetsM.slice(4)];
      let least = Number.POSITIVE_INFINITY;
      for (let i = 0; i < distanceM.length; i++) {
        const x = distanceM[i]!;
        if (x <= 0 || x >= pathM) continue;
        const bulge = (x * (pathM - x)) / (2 * r.effectiveRadiusM);
        for (let j = 1; j < ys.length; j++) {
          for (let s = 0; s <= 50; s++) {
            const y = ys[j - 1]! + ((ys[j]! - ys[j - 1]!) * s) / 50;
            const z = height(i, ys[j - 1]!) + ((height(i, ys[j]!) - height(i, ys[j - 1]!)) * s) / 50;
            least = Math.min(least, shareOfPoint(r, x, y, z + bulge));
          }
        }
      }
      if (got.acrossM !== 0) beside++;
      expect(Math.abs(got.share - least), `slope ${n}`).toBeLessThan(0.01);
    }
    expect(beside).toBeGreaterThan(50);
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
