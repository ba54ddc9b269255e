import { describe, expect, test } from "vitest";
import type { JudgedSector } from "./hub";
import { laterPlace } from "./later";

const sector = (asideDeg: number | null, rates: readonly number[], asked: number): JudgedSector =>
  ({
    edges: { downDeg: 3.5, upDeg: 3.5, asideDeg },
    air: { asked, mayUse: 0.7, remotes: rates.map((backMbps, i) => ({ linkId: `l${i}`, backMbps })) },
  }) as unknown as JudgedSector;
const AIMS = [
  { azimuthDeg: 205, tiltDeg: -3 },
  { azimuthDeg: 130, tiltDeg: -3 },
];

describe("a bearing kept for later", () => {
  test("in a beam it takes of the air by the mean rate of those that hang there", () => {
    const place = laterPlace([sector(45, [100, 300], 0.3), sector(45, [50], 0.1)], AIMS, { bearingDeg: 240, mbps: 20 });
    expect(place).toMatchObject({ sector: 0, besideDeg: 0, airShare: 0.1 });
    expect(place.leftShare).toBeCloseTo(0.3, 9);
  });
  test("where two beams overlap the nearer axis takes it; beside all it is told by how much of the nearest; an omni takes all", () => {
    const two = [sector(45, [100], 0.3), sector(45, [100], 0.1)];
    expect(laterPlace(two, AIMS, { bearingDeg: 165, mbps: 1 }).sector).toBe(1);
    // 295 is 90 off the one and 165 off the other.
    expect(laterPlace(two, AIMS, { bearingDeg: 295, mbps: 1 })).toMatchObject({ sector: 0, besideDeg: 45 });
    // Over north: 350 to 20 is 30.
    expect(laterPlace([sector(20, [100], 0)], [{ azimuthDeg: 350, tiltDeg: 0 }], { bearingDeg: 20, mbps: 1 }).besideDeg).toBeCloseTo(10, 9);
    expect(laterPlace([sector(null, [100], 0.3)], AIMS, { bearingDeg: 10, mbps: 1 }).besideDeg).toBe(0);
  });
  test("nobody there yet, no sector, an air that is over: said, not summed up", () => {
    expect(laterPlace([sector(45, [], 0)], AIMS, { bearingDeg: 205, mbps: 5 })).toMatchObject({
      sector: 0,
      airShare: null,
      leftShare: null,
    });
    expect(laterPlace([], [], { bearingDeg: 0, mbps: 5 }).sector).toBeNull();
    expect(laterPlace([sector(45, [50], Number.POSITIVE_INFINITY)], AIMS, { bearingDeg: 205, mbps: 5 }).leftShare).toBeNull();
  });
});
