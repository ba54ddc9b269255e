import { describe, expect, test } from "vitest";
import {
  areaM2,
  cutInTwo,
  destination,
  heightBySighting,
  heightByTwoSightings,
  pathFrame,
  planeProjection,
  sunGlare,
  sunPosition,
  utmCrsOf,
  widenLine,
} from "./geo";
import { cameraMbps, demandOf, roundedNeedMbps, weighShapes } from "./infra";
import { assembleProfile, evaluateLink, type ObstacleInput, waterOver } from "./link";
import { bodyApproach, f1RadiusM, makeRay, type PathBody, prepareOutline } from "./obstacles";
import type { TerrainGrid } from "./terrain";
import { end, plan } from "./testing/scene";
import { likelySlip } from "./units";

describe("the sun", () => {
  test.each([
    // Reda and Andreas, Solar Position Algorithm, NREL/TP-560-34302, table A5.1: zenith 50.11162, azimuth 194.34024 (pressure 820 mbar).
    [{ latDeg: 39.742476, lonDeg: -105.1786 }, "2003-10-17T19:30:30Z", 194.34024, 90 - 50.11162],
  ])("stands where the published example has it", (at, when, azimuthDeg, elevationDeg) => {
    const sun = sunPosition(at, new Date(when));
    expect(Math.abs(sun.azimuthDeg - azimuthDeg)).toBeLessThan(0.01);
    // The example's thinner air bends the ray a little less.
    expect(Math.abs(sun.elevationDeg - elevationDeg)).toBeLessThan(0.02);
  });

  test("glare stands about the moment at which the sun crosses the bearing", () => {
    const at = { latDeg: 47.3, lonDeg: -19.4 };
    const day = new Date("2026-12-03T00:00:00Z");
    const noonBearing = sunGlare(at, 180, 20, day);
    expect(noonBearing).toHaveLength(1);
    const mid = (noonBearing[0]!.from.getTime() + noonBearing[0]!.to.getTime()) / 2;
    expect(Math.abs(sunPosition(at, new Date(mid)).azimuthDeg - 180)).toBeLessThan(2);
    expect(sunGlare(at, 0, 0, day)).toEqual([]);
  });
});

describe("need", () => {
  const camera = {
    kind: "camera",
    count: 4,
    widthPx: 1920,
    heightPx: 1080,
    framesPerS: 25,
    codec: "h264",
    scene: "usual",
    users: 0,
    downMbps: null,
    upMbps: null,
  } as const;
  test("a camera's rate is its pixels times its bits", () => {
    expect(cameraMbps(camera)).toBeCloseTo(5.184, 3);
    expect(cameraMbps({ ...camera, codec: "h265" })).toBeLessThan(cameraMbps(camera));
  });
  test("cameras load the way back, and hardly cross when the recorder stands beside them", () => {
    const near = demandOf([camera], "near");
    expect(near.peak.toNearMbps).toBeCloseTo(4 * 5.184 * 1.5, 3);
    expect(near.usual.toFarMbps).toBeLessThan(0.5);
    expect(demandOf([camera], "far").usual.toNearMbps).toBeCloseTo(near.usual.toNearMbps / 4, 6);
  });
  test("a typed rate replaces the estimate", () => {
    expect(demandOf([{ ...camera, upMbps: 2 }], "near").peak.toNearMbps).toBe(8);
    expect([roundedNeedMbps(31.1), roundedNeedMbps(50), roundedNeedMbps(103)]).toEqual([32, 50, 110]);
  });
  test("copper stops at its length and between supplies; a clear duct makes fibre fit", () => {
    const q = {
      distanceM: 60,
      needMbps: 30,
      farEnds: 1,
      duct: "clear",
      suppliedApart: false,
      trenchPerM: 120,
      subscriptionPerMonth: 40,
    } as const;
    const of = (key: string, more: object = {}) => weighShapes({ ...q, ...more }).find((s) => s.key === key)!;
    expect(of("copper").verdict).toBe("fits");
    expect(of("copper", { suppliedApart: true })).toMatchObject({ verdict: "no", reason: "separate-supplies" });
    expect(of("copper", { distanceM: 91 })).toMatchObject({ verdict: "no", reason: "too-long-for-copper" });
    expect(of("fibre", { duct: "none" }).cost - of("fibre").cost).toBe(60 * 120);
    expect(of("pair").underTrench).toBeNull();
    expect(of("pair", { duct: "none" }).underTrench).toBe(of("fibre", { duct: "none" }).cost - of("pair").cost);
    expect(of("stretch").verdict).toBe("no");
    expect(of("pair").paybackMonths).toBe(Math.ceil(of("pair").cost / 40));
  });
});

describe("slips of units", () => {
  test.each([
    ["rate", 1250, { least: 1, most: 200 }, "kilo-for-mega", 1.25],
    ["rate", 0.0625, { least: 0.4, most: 20 }, "bytes-for-bits", 0.5],
    ["length", 26, { least: 2, most: 12 }, "feet-for-metres", 7.9248],
    ["length", 149, { least: 2, most: 15 }, "ten-times", 14.9],
  ] as const)("%s %d", (quantity, value, usual, kind, meant) => {
    const slip = likelySlip(quantity, value, usual)!;
    expect(slip.kind).toBe(kind);
    expect(slip.meant).toBeCloseTo(meant, 6);
  });
  test("nothing is asked of a usual value, nor where no slip explains it", () => {
    expect(likelySlip("rate", 50, { least: 1, most: 200 })).toBeNull();
    expect(likelySlip("length", 90_000, { least: 2, most: 12 })).toBeNull();
  });
});

describe("spans", () => {
  const ray = (z: number) =>
    makeRay({ startM: 0, endM: 1000, nearAmslM: z, farAmslM: z, pathM: 1000, kFactor: 4 / 3, wavelengthM: 0.0545 });
  const line: PathBody = {
    id: "l",
    name: "line",
    kind: "line",
    xM: [495, 505, 505, 495],
    yM: [-300, -300, 300, 300],
    baseAmslM: 0,
    heightM: 20,
    crownBaseM: 0,
    freeBelowM: 12,
    growthMPerYear: 0,
    heightSigmaM: 0.5,
    carries: null,
  };
  const near = (z: number) => bodyApproach(ray(z), prepareOutline(line), () => 20, 10)!;
  test("a ray beneath a line has the free air between, as one above it has", () => {
    const r = ray(8);
    const f1M = f1RadiusM(r, 500);
    const bulge = (500 * 500) / (2 * (4 / 3) * 6_371_000);
    expect(near(8)).toMatchObject({ side: "under" });
    expect(near(8).share).toBeCloseTo((12 + bulge - 8) / f1M, 1);
    expect(near(26)).toMatchObject({ side: "over" });
    expect(near(26).share).toBeCloseTo((26 - 20 - bulge) / f1M, 1);
  });
  test("through it the smaller way out counts, down or up", () => {
    expect(near(13).side).toBe("through");
    expect(near(13).share * near(13).f1M).toBeCloseTo(-1, 0);
    expect(near(19).share * near(19).f1M).toBeCloseTo(-1, 0);
    expect(near(16).share).toBeLessThan(near(13).share);
  });
});

test("a point laid off by bearing is where the bearing says", () => {
  expect(destination({ latDeg: 0, lonDeg: 0 }, 90, 111_319.49).lonDeg).toBeCloseTo(1, 5);
});

describe("heights by sightings", () => {
  test("one place and two places give back a known height", () => {
    // A 12 m tree 20 m away on the flat, the eye at 1.6 m.
    const up = (h: number, d: number) => (Math.atan2(h, d) * 180) / Math.PI;
    expect(heightBySighting(20, up(10.4, 20), up(-1.6, 20)).heightM).toBeCloseTo(12, 9);
    expect(heightByTwoSightings(15, up(10.4, 20), up(10.4, 35), 1.6).heightM).toBeCloseTo(12, 9);
  });
  test("the error told covers what half a degree does", () => {
    const up = (h: number, d: number) => (Math.atan2(h, d) * 180) / Math.PI;
    const told = heightByTwoSightings(15, up(10.4, 20), up(10.4, 35), 1.6);
    const off = heightByTwoSightings(15, up(10.4, 20) + 0.5, up(10.4, 35), 1.6);
    expect(told.sigmaM).toBeGreaterThan(Math.abs(off.heightM - told.heightM) * 0.9);
    expect(() => heightByTwoSightings(15, 10, 20, 1.6)).toThrow(RangeError);
    expect(() => heightBySighting(20, 5, 10)).toThrow(RangeError);
  });
});

describe("a surface model", () => {
  const A = { latDeg: 47.3, lonDeg: -19.4 };
  const B = destination(A, 90, 600);
  const frame = pathFrame(A, B);
  const at = (x: number, y: number) => {
    const foot = frame.at(x);
    return destination(foot, foot.azimuthDeg + 90, y);
  };
  // Ground at 10 m; a roof of 9 m from 200 to 220 m; a crown of 7 m that nobody outlined at 400 m.
  const crs = utmCrsOf(A);
  const plane = planeProjection(crs);
  const [x0, y0] = plane.forward(A);
  const size = 640;
  const values = Float32Array.from({ length: size * size }, (_, i) => {
    const p = frame.locate(plane.inverse(x0 - 20 + (i % size), y0 + 320 - Math.floor(i / size)));
    return (
      10 + (p.alongM >= 200 && p.alongM <= 220 && Math.abs(p.acrossM) < 8 ? 9 : 0) + (Math.hypot(p.alongM - 400, p.acrossM) < 4 ? 7 : 0)
    );
  });
  const grid: TerrainGrid = {
    id: "s",
    name: "Surface",
    kind: "dsm",
    crs,
    originX: x0 - 20,
    originY: y0 + 320,
    stepX: 1,
    stepY: -1,
    cols: size,
    rows: size,
    cellM: 1,
    sigmaM: 0.3,
    tileCells: size - 1,
    tile: () => values,
  };
  const roof: ObstacleInput = {
    id: "r",
    name: "Roof",
    kind: "building",
    outline: [at(199, -9), at(221, -9), at(221, 9), at(199, 9)],
    baseAmslM: null,
    heightM: 9,
    crownBaseM: 0,
    growthMPerYear: 0,
    heightSigmaM: 0.3,
    surveyedYear: 2026,
  };
  const heightAt = (p: ReturnType<typeof assembleProfile>, x: number) => p.groundAmslM[p.distanceM.findIndex((d) => d >= x)]!;

  test("what is outlined becomes an obstacle on interpolated ground; what is not stays ground by that name", () => {
    const bare = assembleProfile(A, B, [grid], [], [], 2026);
    expect(heightAt(bare, 210)).toBeCloseTo(19, 1);
    const drawn = assembleProfile(A, B, [grid], [roof], [], 2026);
    expect(heightAt(drawn, 210)).toBeCloseTo(10, 1);
    expect(drawn.bodies[0]!.baseAmslM).toBeCloseTo(10, 1);
    expect(heightAt(drawn, 400)).toBeCloseTo(17, 1);
    const radio = end("A", 5);
    const judged = evaluateLink(plan({ ...radio, mountAglM: 6 }, { ...end("B", 6) }), drawn);
    // The roof, 9 m, beats the crown, 7 m; without it the crown is ground of the surface model.
    expect(judged.clearance.worst).toMatchObject({ ownerName: "Roof", owner: { kind: "body" } });
    const crown = evaluateLink(
      plan({ ...radio, mountAglM: 14 }, { ...end("B", 14) }),
      assembleProfile(A, B, [grid], [{ ...roof, heightM: 2 }], [], 2026),
    );
    expect(crown.clearance.worst).toMatchObject({ ownerName: "surface model", owner: { kind: "ground" } });
  });

  test("ground told by hand: its own heights, no water, and bases on it", () => {
    const told = assembleProfile(A, B, [grid], [roof], [], 2026, {
      kind: "typed",
      sigmaM: 0.4,
      points: [
        { distanceM: 0, heightAmslM: 3 },
        { distanceM: 300, heightAmslM: 9 },
        { distanceM: 600, heightAmslM: 3 },
      ],
    });
    expect(heightAt(told, 150)).toBeCloseTo(6, 1);
    expect(told.bodies[0]!.baseAmslM).toBeCloseTo(7.2, 1);
    expect(told.datasets).toEqual([expect.objectContaining({ name: "heights as told", sigmaM: 0.4 })]);
    const level = assembleProfile(A, B, [], [], [], 2026, { kind: "level", sigmaM: 1, points: [{ distanceM: 0, heightAmslM: 0 }] });
    const over = plan(end("A", 9), end("B", 9));
    expect(evaluateLink({ ...over, water: waterOver(over.water, true) }, level).reflection).toBeNull();
    expect(evaluateLink({ ...over, water: waterOver({ ...over.water, surface: "sea" }, true) }, level).reflection).not.toBeNull();
  });
});

test("an outline is cut where the line crosses it twice, and the parts make up the whole", () => {
  const ring = [
    [0, 0],
    [0, 2],
    [2, 2],
    [2, 0],
  ].map(([x, y]) => ({ latDeg: y! / 1000, lonDeg: x! / 1000 }));
  const p = (x: number, y: number) => ({ latDeg: y / 1000, lonDeg: x / 1000 });
  const parts = cutInTwo(ring, p(0.7, -1), p(0.7, 3))!;
  expect(areaM2(parts[0]) + areaM2(parts[1])).toBeCloseTo(areaM2(ring), 3);
  expect(Math.min(areaM2(parts[0]), areaM2(parts[1])) / areaM2(ring)).toBeCloseTo(0.35, 3);
  expect(cutInTwo(ring, p(0.7, 0.5), p(0.7, 3))).toBeNull();
  expect(areaM2(widenLine([p(0, 0), p(3, 0), p(3, 3)], 4))).toBeCloseTo(4 * (333.96 + 331.72), -2);
});
