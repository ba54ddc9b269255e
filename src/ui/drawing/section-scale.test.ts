/* The scale of the section: everything in it has its place, there and back, whole and closer. */
import fc from "fast-check";
import { describe, expect, test } from "vitest";
import { preparePath, rayOf } from "@/core/link";
import { rayBulgeM, rayZM } from "@/core/obstacles";
import { sceneOf } from "@/core/testing/random-scene";
import { closerScale, DRAWING_LEFT, DRAWING_RIGHT, sectionScale } from "./section-scale";
import { distanceTicks, heightTicks } from "./ticks";

const scene = fc
  .record({
    seed: fc.integer({ min: 1, max: 60 }),
    width: fc.integer({ min: 320, max: 1600 }),
    height: fc.integer({ min: 160, max: 700 }),
    trueShape: fc.boolean(),
  })
  .map(({ seed, width, height, trueShape }) => {
    const { plan, profile } = sceneOf(seed, seed % 6, 6, 1);
    const path = preparePath(plan, profile);
    const { ray } = rayOf(plan, path);
    return { path, ray, width, height, trueShape, scale: sectionScale(path, plan, ray, width, height, trueShape) };
  });

describe("the scale of the section", () => {
  test("holds ground, both antennas and the ray between them, inside the drawing; pixels lead back to metres", () => {
    fc.assert(
      fc.property(scene, ({ path, ray, width, height, scale }) => {
        const { pathM, distanceM, groundAmslM } = path.profile;
        expect(scale.x(0)).toBeGreaterThanOrEqual(DRAWING_LEFT - 1e-6);
        expect(scale.x(pathM)).toBeLessThanOrEqual(Math.max(width, DRAWING_LEFT + 50 + DRAWING_RIGHT) - DRAWING_RIGHT + 1e-6);
        const inside = (z: number): void => {
          expect(scale.y(z)).toBeGreaterThanOrEqual(-1e-6);
          expect(scale.y(z)).toBeLessThanOrEqual(Math.max(height, 138) + 1e-6);
          expect(scale.atY(scale.y(z))).toBeCloseTo(z, 6);
        };
        distanceM.forEach((x, i) => {
          inside(groundAmslM[i]! + rayBulgeM(ray, x));
          expect(scale.atX(scale.x(x))).toBeCloseTo(x, 6);
        });
        inside(rayZM(ray, ray.startM));
        inside(rayZM(ray, ray.endM));
      }),
      { numRuns: 60 },
    );
  });

  test("heights are drawn taller by the factor that is told; in true shape by none", () => {
    fc.assert(
      fc.property(scene, ({ scale, trueShape }) => {
        const [perX, perY] = [scale.x(1) - scale.x(0), scale.y(0) - scale.y(1)];
        expect(perY / perX).toBeCloseTo(scale.exaggeration, 6);
        expect(scale.metresPerPxY).toBeCloseTo(1 / perY, 9);
        if (trueShape) expect(scale.exaggeration).toBe(1);
        expect(scale.exaggeration).toBeGreaterThanOrEqual(1);
      }),
      { numRuns: 60 },
    );
  });

  test("closer both axes grow alike, and the place looked at stays where it was", () => {
    fc.assert(
      fc.property(
        scene,
        fc.double({ min: 1, max: 40, noNaN: true }),
        fc.double({ min: 0, max: 1, noNaN: true }),
        ({ scale, path }, k, at) => {
          const [px, py] = [scale.x(at * path.profile.pathM), scale.y(scale.lowestM + at * (scale.highestM - scale.lowestM))];
          const near = closerScale(scale, { k, tx: px * (1 - k), ty: py * (1 - k) });
          expect(near.x(at * path.profile.pathM)).toBeCloseTo(px, 6);
          expect(near.atX(px)).toBeCloseTo(scale.atX(px), 6);
          expect(near.atY(py)).toBeCloseTo(scale.atY(py), 6);
          expect((near.y(0) - near.y(1)) / (near.x(1) - near.x(0))).toBeCloseTo(scale.exaggeration, 6);
          expect(near.lowestM).toBeGreaterThanOrEqual(scale.lowestM);
        },
      ),
      { numRuns: 60 },
    );
  });
});

describe("ticks", () => {
  const round = (text: string): number => Number(text.replace("−", "-"));

  test("of distance stand on the path, at round figures of the unit that is named, a few of them", () => {
    const metresOf = { m: 1, km: 1000, ft: 0.3048, mi: 1609.344 } as const;
    fc.assert(
      fc.property(
        fc.double({ min: 5, max: 60_000, noNaN: true }),
        fc.constantFrom("metric" as const, "imperial" as const),
        (pathM, units) => {
          const { ticks, unit } = distanceTicks(pathM, units);
          expect(ticks.length).toBeGreaterThanOrEqual(4);
          expect(ticks.length).toBeLessThanOrEqual(20);
          for (const t of ticks) {
            expect(t.atM).toBeGreaterThanOrEqual(0);
            expect(t.atM).toBeLessThanOrEqual(pathM * (1 + 1e-9));
            expect(round(t.text) * metresOf[unit as keyof typeof metresOf]).toBeCloseTo(t.atM, 0);
          }
        },
      ),
    );
  });

  test("of height say where they stand, below sea level with a minus sign of type", () => {
    expect(heightTicks(-12, 20, "metric").map((t) => [t.atM, t.text])).toEqual([
      [-10, "−10"],
      [0, "0"],
      [10, "10"],
      [20, "20"],
    ]);
    for (const t of heightTicks(0, 30, "imperial")) expect(t.atM / 0.3048).toBeCloseTo(round(t.text), 9);
  });
});
