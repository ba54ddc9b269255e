import { expect, test } from "vitest";
import { destination, farFromJob, jobReachM } from ".";

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
