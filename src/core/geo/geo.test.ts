import fc from "fast-check";
import { describe, expect, test } from "vitest";
import { pathPositions, positionAt } from "../terrain";
import {
  bearingsBetween,
  declination,
  destination,
  elevationAngleDeg,
  inverse,
  parseLatLon,
  pathFrame,
  planeProjection,
  utmCrsOf,
} from ".";

const A = { latDeg: 47.3, lonDeg: -19.4 };

describe("positions", () => {
  test("the path frame gives back along and across of points laid off by geodesics", () => {
    fc.assert(
      fc.property(
        fc.double({ min: 0, max: 359, noNaN: true }),
        fc.double({ min: 100, max: 90_000, noNaN: true }),
        fc.double({ min: -0.1, max: 1.1, noNaN: true }),
        fc.double({ min: -800, max: 800, noNaN: true }),
        (bearing, lengthM, share, acrossM) => {
          const frame = pathFrame(A, destination(A, bearing, lengthM));
          const foot = frame.at(share * lengthM);
          const point = destination(foot, foot.azimuthDeg + 90, acrossM);
          const got = frame.locate(point);
          // Laid off square by the direct problem, found by the inverse: within a millimetre.
          expect(Math.abs(got.alongM - share * lengthM)).toBeLessThan(0.001);
          expect(Math.abs(got.acrossM - acrossM)).toBeLessThan(0.001);
        },
      ),
      { numRuns: 60, seed: 7 },
    );
  });

  test("interpolated positions stay within 1 mm of the exact projection, 100 km across a zone", () => {
    const frame = pathFrame(A, destination(A, 62, 100_000));
    const projection = planeProjection(utmCrsOf(A));
    const positions = pathPositions(frame, projection);
    const xy = new Float64Array(2);
    for (let s = 0; s <= 1000; s++) {
      const d = (frame.lengthM * s) / 1000;
      positionAt(positions, d, xy);
      const [x, y] = projection.forward(frame.at(d));
      expect(Math.hypot(xy[0]! - x, xy[1]! - y)).toBeLessThan(0.001);
    }
  });

  test("both bearings of a link, and its length, follow from one geodesic", () => {
    const b = destination(A, 78.4, 430);
    const got = bearingsBetween(A, b);
    expect(got.distanceM).toBeCloseTo(430, 6);
    expect(got.nearDeg).toBeCloseTo(78.4, 6);
    expect(got.farDeg).toBeCloseTo((inverse(b, A).azimuthAtADeg + 360) % 360, 9);
  });

  test("elevation angles of both ends add up to minus the bend of the path", () => {
    const sumDeg = elevationAngleDeg(10, 200, 19_200, 4 / 3) + elevationAngleDeg(200, 10, 19_200, 4 / 3);
    expect(sumDeg).toBeCloseTo((-19_200 / (8_494_667 * 1)) * (180 / Math.PI), 3);
  });

  test("the exact elevation angle stays within a thousandth of a degree of the parabola up to 100 km", () => {
    for (const d of [100, 5000, 30_000, 100_000]) {
      const parabola = Math.atan((200 - 10) / d - d / (2 * (4 / 3) * 6_371_000)) * (180 / Math.PI);
      expect(Math.abs(elevationAngleDeg(10, 200, d, 4 / 3) - parabola)).toBeLessThan(0.001);
    }
  });

  test("declination says when the model's years are over", () => {
    expect(declination(A, new Date("2026-12-03T12:00:00Z")).inModelYears).toBe(true);
    expect(declination(A, new Date("2033-01-01T12:00:00Z")).inModelYears).toBe(false);
  });
});

describe("typed positions", () => {
  test.each([
    ["47.3, -19.4", 47.3, -19.4],
    ["47.3 N 19.4 W", 47.3, -19.4],
    ["47°18'00\"N 19°24'00\"W", 47.3, -19.4],
    ["19.4W 47.3N", 47.3, -19.4],
    ["-0.5 S".replace("-", ""), Number.NaN, 0],
  ])("%s", (text, latDeg, lonDeg) => {
    const got = parseLatLon(text);
    if (Number.isNaN(latDeg)) expect(got).toEqual({ error: "form" });
    else expect(got).toEqual({ latDeg: expect.closeTo(latDeg, 9), lonDeg: expect.closeTo(lonDeg, 9) });
  });

  test("what is out of range is named with its value", () => {
    expect(parseLatLon("95, 10")).toEqual({ error: "latitude", receivedDeg: 95 });
    expect(parseLatLon("47.3, 191")).toEqual({ error: "longitude", receivedDeg: 191 });
    expect(parseLatLon("by the harbour")).toEqual({ error: "form" });
  });
});
