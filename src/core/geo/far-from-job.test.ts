import { describe, expect, test } from "vitest";
import { destination, farFromJob, farFromPlaces, jobReachM } from ".";

const centre = { latDeg: 47.3, lonDeg: -19.4 };

test("a left-out W, exchanged figures or a left-out sign are offered; a neighbour is not asked about", () => {
  for (const slip of [
    { latDeg: 47.301, lonDeg: 19.401 },
    { latDeg: -47.301, lonDeg: -19.401 },
    { latDeg: 19.401, lonDeg: 47.301 },
    { latDeg: -19.401, lonDeg: 47.301 },
  ]) {
    const far = farFromJob(slip, [centre])!;
    expect(far.distanceM).toBeGreaterThan(1e6);
    expect(far.meant!.latDeg).toBeCloseTo(47.301, 6);
    expect(far.meant!.lonDeg).toBeCloseTo(-19.401, 6);
  }
  expect(farFromJob(destination(centre, 80, 15_000), [centre])).toBeNull();
  expect(farFromJob({ latDeg: 0, lonDeg: 0 }, [centre])!.meant).toBeNull();
  expect(farFromJob({ latDeg: 0, lonDeg: 0 }, [])).toBeNull();
});

test("the reach grows with the job, from 20 km to 100 km, and both sides of it are told apart", () => {
  expect(jobReachM([centre])).toBe(20_000);
  const wide = [centre, destination(centre, 10, 19_200)];
  expect(jobReachM(wide)).toBeCloseTo(57_600, 0);
  expect(jobReachM([centre, destination(centre, 10, 90_000)])).toBe(100_000);
  expect(farFromJob(destination(centre, 190, 57_500), wide)).toBeNull();
  expect(farFromJob(destination(centre, 190, 57_700), wide)).not.toBeNull();
});

describe("many places at once", () => {
  const harbour = { latDeg: 47.3, lonDeg: -19.4 };
  const many = Array.from({ length: 2000 }, (_, i) => ({ latDeg: 47.2 + (i % 50) / 250, lonDeg: -19.5 + Math.floor(i / 50) / 200 }));
  test.each([
    ["a job of one place", [harbour]],
    ["a job of two thousand", many],
  ])("%s: what a link could reach is near, what was exchanged is found out", (_what, known) => {
    const far = farFromPlaces(known);
    expect(far({ latDeg: 47.9, lonDeg: -19.4 })).toBeNull();
    expect(far({ latDeg: -19.4, lonDeg: 47.3 })).toMatchObject({ meant: { latDeg: 47.3, lonDeg: -19.4 } });
    expect(far({ latDeg: 47.3, lonDeg: 19.4 })).toMatchObject({ meant: { latDeg: 47.3, lonDeg: -19.4 } });
    expect(far({ latDeg: 12, lonDeg: 77 })).toMatchObject({ meant: null });
  });
  test("a job without places knows no far", () => {
    expect(farFromPlaces([])({ latDeg: 1, lonDeg: 1 })).toBeNull();
  });
});
