import { describe, expect, test } from "vitest";
import { end, plan } from "../testing/scene";
import { assembleProfile, evaluateLink } from ".";
import { stepsApart, typedGround, typedStepM } from "./ground-under";

/** The first pair of points that is not apart; null when all are. A millimetre apart they stay so when rounded to a tenth of it. */
const clash = (d: Float64Array): number | null => {
  for (let i = 1; i < d.length; i++) if (!(d[i]! - d[i - 1]! > 0.00099)) return i;
  return null;
};

describe("ground told by hand", () => {
  test("every length from 5 m to 20 km in steps of 1 cm: points distinct and rising, from 0 to the end", { timeout: 180_000 }, () => {
    const wrong: number[] = [];
    for (let cm = 500; cm <= 2_000_000; cm++) {
      const lengthM = cm / 100;
      const distanceM = stepsApart(lengthM, [0], typedStepM(lengthM));
      if (distanceM[0] !== 0 || distanceM[distanceM.length - 1] !== lengthM || clash(distanceM) !== null) wrong.push(lengthM);
    }
    expect(wrong).toEqual([]);
  });

  test("typed heights keep their places, also when they lie on a step, on an end or on each other", () => {
    for (const lengthM of [200, 503.7, 499.9999, 8123.456]) {
      const at = [0, 0.0004, 10, 10, 10.0005, 77.7, lengthM - 0.0002, lengthM];
      const points = at.map((distanceM, i) => ({ distanceM, heightAmslM: i }));
      const { distanceM, groundAmslM } = typedGround(lengthM, { kind: "typed", sigmaM: 1, points }).ground;
      expect(clash(distanceM)).toBeNull();
      expect([...distanceM]).toEqual(expect.arrayContaining([0, 10, 77.7, lengthM]));
      expect(groundAmslM.every((h) => Number.isFinite(h))).toBe(true);
    }
  });

  test("level ground told between two places: a result for every length, never NaN", { timeout: 60_000 }, () => {
    const near = { latDeg: 51.5, lonDeg: -2.3 };
    const told = { kind: "level" as const, sigmaM: 0.5, points: [{ distanceM: 0, heightAmslM: 40 }] };
    for (let i = 0; i <= 400; i++) {
      const far = { latDeg: 51.5, lonDeg: i === 400 ? -2.2928 : -2.2999 + i * 0.000137 };
      const q = assembleProfile(near, far, [], [], [], 2026, told);
      expect(clash(q.distanceM), `${far.lonDeg}`).toBeNull();
      const r = evaluateLink(plan(end("A", 10), end("B", 10), { needToFarMbps: 5, needToNearMbps: 5 }), q);
      expect(Number.isFinite(r.service.toFar!.levelDbm), `${far.lonDeg}`).toBe(true);
      expect(JSON.stringify(r)).not.toContain("NaN");
    }
  });
});
