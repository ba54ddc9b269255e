import { expect, test } from "vitest";
import { destination, type LatLon } from "../geo";
import { offAim, type SeenFrom, seenFrom } from "./seen";

const HOME = { latDeg: 47.3, lonDeg: -19.4 };
const DEG = 180 / Math.PI;
const at = (bearingDeg: number, distanceM: number): LatLon => destination(HOME, bearingDeg, distanceM);
/** A square house of a width, its nearest side across the line of sight. */
const house = (
  id: string,
  bearingDeg: number,
  distanceM: number,
  wideM: number,
  heightM: number,
  kind: "building" | "wood" = "building",
) => {
  const middle = at(bearingDeg, distanceM + wideM / 2);
  const half = (wideM / 2) * Math.SQRT2;
  return {
    id,
    name: id,
    kind,
    outline: [45, 135, 225, 315].map((turn) => destination(middle, bearingDeg + turn, half)),
    baseAmslM: 0,
    heightM,
  };
};
const look = (more: Partial<SeenFrom> = {}) =>
  seenFrom({
    mount: { ...HOME, amslM: 10 },
    aimDeg: 80,
    farEnd: { ...at(80, 800), name: "B", amslM: 14 },
    halfDeg: 40,
    kFactor: 4 / 3,
    groundAt: () => 0,
    bodies: [],
    landmarks: [],
    ...more,
  });

test.each([
  [10, 80, -70],
  [350, 10, -20],
  [10, 350, 20],
  [80, 80, 0],
  [260, 80, -180],
])("a bearing of %d from an aim of %d lies %d degrees off", (bearing, aim, off) => expect(offAim(bearing, aim)).toBeCloseTo(off, 9));

test("over a flat earth angles are those of the plain triangle", () => {
  const seen = look({ bodies: [house("shed", 92, 200, 20, 6)], landmarks: [{ ...at(60, 400), name: "light", amslM: 30 }] });
  expect(seen.farEnd.offDeg).toBeCloseTo(0, 3);
  expect(seen.farEnd.elevationDeg).toBeCloseTo(Math.atan(4 / 800) * DEG, 1);
  const [shed] = seen.bodies;
  expect((shed!.fromDeg + shed!.toDeg) / 2).toBeCloseTo(12, 1);
  // Nearest corners 200 m off, 20 m apart.
  expect(shed!.toDeg - shed!.fromDeg).toBeCloseTo(2 * Math.atan(10 / 200) * DEG, 1);
  expect(shed!.topDeg).toBeCloseTo(Math.atan((6 - 10) / 200) * DEG, 1);
  expect(shed!.baseDeg).toBeCloseTo(Math.atan(-10 / 200) * DEG, 1);
  expect(seen.landmarks[0]).toMatchObject({ name: "light", hidden: false });
  expect(seen.landmarks[0]!.offDeg).toBeCloseTo(-20, 1);
});

test("what stands nearest is drawn last, what lies behind one or out of the picture not at all", () => {
  const seen = look({
    bodies: [
      house("near", 80, 100, 20, 20),
      house("far", 85, 600, 20, 20),
      house("behind", 260, 100, 20, 20),
      house("aside", 150, 100, 20, 20),
    ],
  });
  expect(seen.bodies.map((b) => b.id)).toEqual(["far", "near"]);
});

test("a rise hides what stands behind it and is lower, and not what is higher", () => {
  // 30 m high between 300 and 350 m.
  const groundAt = (p: LatLon): number => {
    const away = Math.hypot((p.latDeg - HOME.latDeg) * 111_200, (p.lonDeg - HOME.lonDeg) * 111_200 * Math.cos((47.3 * Math.PI) / 180));
    return away > 300 && away < 350 ? 30 : 0;
  };
  const seen = look({
    groundAt,
    bodies: [house("low", 75, 500, 20, 20), house("tower", 85, 500, 20, 60)],
    landmarks: [
      { ...at(70, 600), name: "hidden", amslM: 12 },
      { ...at(90, 600), name: "above", amslM: 80 },
    ],
  });
  expect(seen.bodies.map((b) => b.id)).toEqual(["tower"]);
  expect(seen.landmarks.map((l) => [l.name, l.hidden])).toEqual([
    ["hidden", true],
    ["above", false],
  ]);
  const middle = seen.ridgeDeg[(seen.ridgeDeg.length - 1) / 2]!;
  expect(middle).toBeGreaterThan(Math.atan(20 / 350) * DEG - 0.1);
  expect(middle).toBeLessThan(Math.atan(20 / 300) * DEG + 0.1);
});

test("ground that nobody knows is no line against the sky, and what stands on it is told by its own height", () => {
  const seen = look({
    groundAt: () => Number.NaN,
    bodies: [{ ...house("x", 80, 200, 20, 8), baseAmslM: null }, house("y", 85, 200, 20, 8)],
  });
  expect(seen.ridgeDeg.every((v) => Number.isNaN(v))).toBe(true);
  expect(seen.bodies.map((b) => b.id)).toEqual(["y"]);
});
