import { expect, test } from "vitest";
import { plainDiffractionDb, plainFreeSpaceDb, plainGasDbPerKm, plainRain001Db } from "../testing/plain/path-loss";
import { end, plan, profile, radio, seeded } from "../testing/scene";
import { evaluateLink } from ".";

/** Rough ground out of a few waves and steps, so that many paths are blocked. */
const roughGround = (random: () => number, pathM: number): ((x: number) => number) => {
  const waves = Array.from({ length: 4 }, () => [random() * 40, (random() * 12 * Math.PI) / pathM, random() * 6] as const);
  const step = [random() * pathM, random() * 60] as const;
  return (x) => waves.reduce((h, [size, turn, phase]) => h + size * Math.sin(turn * x + phase), 60) + (x > step[0] ? step[1] : 0);
};

test("the fast path equals the plain one on 150 seeded rough profiles, many with more than 10 dB of diffraction", () => {
  const random = seeded(150);
  let blocked = 0;
  let worst = 0;
  for (let n = 0; n < 150; n++) {
    const pathM = 300 + 60_000 * random() ** 2;
    const points = 40 + Math.floor(random() * 400);
    const ground = roughGround(random, pathM);
    const q = profile(pathM, ground, [], points);
    const centreMhz = 5170 + 20 * Math.floor(random() * 30);
    const p = plan(end("A", 2 + 40 * random(), { radio: radio({ maxLinkKm: 100 }) }), end("B", 2 + 40 * random()), { centreMhz });
    const r = evaluateLink(p, q);
    const value = (id: string): number => -r.service.toFar!.terms.find((t) => t.id === id)!.valueDb;
    const fGhz = centreMhz / 1000;
    const slow = plainDiffractionDb({
      dKm: [...q.distanceM].map((d) => d / 1000),
      heightM: [...q.groundAmslM],
      nearAmslM: r.geometry.nearAmslM,
      farAmslM: r.geometry.farAmslM,
      fGhz,
      k: 4 / 3,
    });
    if (slow > 10) blocked++;
    worst = Math.max(worst, Math.abs(value("diffraction") - slow));
    // Both do the same arithmetic in another order: a millionth of a decibel.
    expect(Math.abs(value("diffraction") - slow), `profile ${n}`).toBeLessThan(1e-6);
    expect(value("free-space")).toBeCloseTo(plainFreeSpaceDb(fGhz, pathM / 1000), 9);
    expect(value("gas")).toBeCloseTo((plainGasDbPerKm(fGhz, 1013, 283.15, 7.5) * pathM) / 1000, 9);
    // The plain form is for a level path; slopes of a few degrees change k and alpha by up to 2 %.
    expect(Math.abs(r.service.toFar!.outage!.a001Db / plainRain001Db(fGhz, pathM / 1000, 28) - 1)).toBeLessThan(0.02);
  }
  expect(blocked).toBeGreaterThan(30);
  expect(worst).toBeGreaterThan(-1);
});
