import fc from "fast-check";
import { describe, expect, test } from "vitest";
import { areaM2, asOneRing, circleAbout, crossesItself, destination, insideOutline, type LatLon, thinLine } from "../geo";
import { axisStretches } from "./body";

const CENTRE = { latDeg: 47.3, lonDeg: -19.4 };
const square = (halfM: number, at: LatLon = CENTRE): LatLon[] => [45, 135, 225, 315].map((deg) => destination(at, deg, halfM * Math.SQRT2));

describe("a courtyard", () => {
  test("is outside, the roof about it inside, and its area is not the roof's", () => {
    const ring = asOneRing(square(20), [square(8)]);
    expect(insideOutline(CENTRE, ring)).toBe(false);
    expect(insideOutline(destination(CENTRE, 90, 14), ring)).toBe(true);
    expect(insideOutline(destination(CENTRE, 90, 25), ring)).toBe(false);
    expect(areaM2(ring)).toBeCloseTo(40 * 40 - 16 * 16, 0);
  });
  test("however it turns, wherever it lies, and with others beside it", () => {
    fc.assert(
      fc.property(fc.integer({ min: 0, max: 360 }), fc.boolean(), fc.boolean(), (deg, turnOuter, turnInner) => {
        const holes = [square(4, destination(CENTRE, deg, 20)), circleAbout(destination(CENTRE, deg + 120, 20), 5)];
        const outer = square(40);
        const ring = asOneRing(turnOuter ? [...outer].reverse() : outer, turnInner ? holes.map((h) => [...h].reverse()) : holes);
        for (const h of holes) expect(insideOutline({ latDeg: mean(h, "latDeg"), lonDeg: mean(h, "lonDeg") }, ring)).toBe(false);
        expect(insideOutline(destination(CENTRE, deg + 240, 20), ring)).toBe(true);
      }),
    );
  });
  test("is seen along a path as free air between two stretches of roof, and its bridge is no gap", () => {
    // A roof from 0 to 40 with a yard from 16 to 24, its bridge on the axis.
    const x = [0, 40, 40, 24, 24, 16, 16, 24, 24, 40, 40, 0];
    const y = [-20, -20, 0, 0, 4, 4, -4, -4, 0, 0, 20, 20];
    const shifted = y.map((v) => v + 1e-9);
    expect(axisStretches(x, shifted).map((s) => [s.fromM, s.toM])).toEqual([
      [0, 16],
      [24, 40],
    ]);
    // The bridge across the axis is crossed twice at one place.
    const across = axisStretches([0, 40, 40, 20, 20, 24, 16, 20, 20, 40, 40, 0], [-20, -20, -10, -10, 6, 8, 8, 6, -10, -10, 20, 20]);
    expect(across).toHaveLength(1);
  });
});

const mean = (ring: readonly LatLon[], key: keyof LatLon): number => ring.reduce((sum, p) => sum + p[key], 0) / ring.length;

describe("outlines that cross themselves", () => {
  test("a bow tie does, a star and a ring do not, and corners that touch do not count", () => {
    const [a, b, c, d] = square(10) as [LatLon, LatLon, LatLon, LatLon];
    expect(crossesItself([a, b, c, d])).toBe(false);
    expect(crossesItself([a, c, b, d])).toBe(true);
    expect(crossesItself(circleAbout(CENTRE, 30, 500))).toBe(false);
    const star = Array.from({ length: 20 }, (_, i) => destination(CENTRE, i * 18, i % 2 === 0 ? 30 : 12));
    expect(crossesItself(star)).toBe(false);
    expect(crossesItself([a, CENTRE, b, c, CENTRE, d])).toBe(false);
  });
  test("as brute force over all pairs of edges finds", () => {
    const turn = (p: LatLon, q: LatLon, r: LatLon): number =>
      Math.sign((q.lonDeg - p.lonDeg) * (r.latDeg - p.latDeg) - (q.latDeg - p.latDeg) * (r.lonDeg - p.lonDeg));
    fc.assert(
      fc.property(
        fc.array(fc.tuple(fc.integer({ min: 0, max: 30 }), fc.integer({ min: 0, max: 30 })), { minLength: 3, maxLength: 12 }),
        (points) => {
          const ring = points.map(([x, y]) => ({ latDeg: 47 + y / 1000, lonDeg: -19 + x / 1000 }));
          const n = ring.length;
          let crosses = false;
          for (let i = 0; i < n; i++)
            for (let k = i + 2; k < n; k++) {
              if (i === 0 && k === n - 1) continue;
              const [a, b, c, d] = [ring[i]!, ring[(i + 1) % n]!, ring[k]!, ring[(k + 1) % n]!];
              crosses ||= turn(a, b, c) * turn(a, b, d) < 0 && turn(c, d, a) * turn(c, d, b) < 0;
            }
          expect(crossesItself(ring)).toBe(crosses);
        },
      ),
    );
  });
  test("one too tangled to be looked through counts as crossing, soon", () => {
    const began = performance.now();
    const tangle = Array.from({ length: 20_000 }, (_, i) => ({
      latDeg: 47 + ((i * 7919) % 1000) / 1000,
      lonDeg: -19 + ((i * 104_729) % 1000) / 1000,
    }));
    expect(crossesItself(tangle)).toBe(true);
    expect(performance.now() - began).toBeLessThan(10_000);
  });
});

test("a thinned line keeps its ends, and no point left out lies farther from a kept one than is said", () => {
  fc.assert(
    fc.property(fc.integer({ min: 50, max: 3000 }), fc.integer({ min: 10, max: 40 }), (n, most) => {
      const line = Array.from({ length: n }, (_, i) => ({ latDeg: 47 + i * 1e-5, lonDeg: -19 + Math.sin(i / 9) * 1e-3 }));
      const { points, apartM } = thinLine(line, most);
      expect(points.length).toBeLessThanOrEqual(most);
      expect([points[0], points.at(-1)]).toEqual([line[0], line.at(-1)]);
      for (const p of line) {
        const near = Math.min(
          ...points.map((q) => 111_195 * Math.hypot(q.latDeg - p.latDeg, (q.lonDeg - p.lonDeg) * Math.cos((p.latDeg * Math.PI) / 180))),
        );
        expect(near).toBeLessThanOrEqual(apartM);
      }
    }),
    { numRuns: 20 },
  );
});
