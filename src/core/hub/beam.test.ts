import fc from "fast-check";
import { describe, expect, test } from "vitest";
import { patternOf } from "../antenna";
import { beamEdges, blindRadiusM, offAxis, offBy, placeInBeam } from "./beam";

const SECTOR = patternOf({ form: "sector", gainDbi: 16, azimuthBeamwidthDeg: 90, elevationBeamwidthDeg: 6.9 }, 5.6);

describe("where a remote lies in a beam", () => {
  test("a beam ends at half its beamwidth on each side, where the pattern has lost half its power", () => {
    const edges = beamEdges(SECTOR);
    expect(edges.downDeg).toBeCloseTo(6.9 / 2, 1);
    expect(edges.upDeg).toBeCloseTo(6.9 / 2, 1);
    expect(edges.asideDeg).toBeCloseTo(45, 0);
    expect(SECTOR.relativeDb(0, -edges.downDeg!)).toBeCloseTo(-3, 6);
    // All round there is no side to be beside of.
    expect(beamEdges(patternOf({ form: "omni", gainDbi: 10, elevationBeamwidthDeg: 9 }, 5.6)).asideDeg).toBeNull();
    expect(() => beamEdges(SECTOR, 1)).toThrow(RangeError);
  });

  test("under, over and beside it by as many degrees as geometry says", () => {
    const edges = beamEdges(SECTOR);
    const aim = { azimuthDeg: 205, tiltDeg: -3 };
    const under = placeInBeam(SECTOR, edges, aim, 220, -13);
    expect(under.where).toBe("under");
    expect(under.byDeg).toBeCloseTo(13 - 3 - 3.45, 1);
    expect(placeInBeam(SECTOR, edges, aim, 205, 4)).toMatchObject({ where: "over" });
    const beside = placeInBeam(SECTOR, edges, { azimuthDeg: 350, tiltDeg: 0 }, 60, 0);
    expect([beside.where, Math.round(beside.byDeg)]).toEqual(["beside", 25]);
    expect(placeInBeam(SECTOR, edges, aim, 205, -3)).toMatchObject({ where: "in", byDeg: 0 });
  });

  test("off is the same whichever way round the circle is told; on the axis nothing is lost", () => {
    fc.assert(
      fc.property(
        fc.integer({ min: -720, max: 720 }),
        fc.integer({ min: -720, max: 720 }),
        fc.integer({ min: -20, max: 20 }),
        (a, b, t) => {
          const off = offBy(a, b);
          expect(off).toBeGreaterThanOrEqual(-180);
          expect(off).toBeLessThan(180);
          expect((((a + off - b) % 360) + 360) % 360).toBe(0);
          expect(offAxis({ azimuthDeg: a, tiltDeg: t }, a, t)).toEqual({ azimuthDeg: 0, elevationDeg: 0 });
        },
      ),
    );
  });

  test("the ring that the beam looks over: from the mount's height and the lower edge; none where it looks down all the way", () => {
    const edges = beamEdges(SECTOR);
    expect(blindRadiusM(20, { azimuthDeg: 0, tiltDeg: -3 }, edges)).toBeCloseTo(20 / Math.tan(((3 + edges.downDeg!) * Math.PI) / 180), 6);
    expect(blindRadiusM(20, { azimuthDeg: 0, tiltDeg: 10 }, edges)).toBe(Number.POSITIVE_INFINITY);
    expect(blindRadiusM(20, { azimuthDeg: 0, tiltDeg: -88 }, edges)).toBeNull();
  });
});
