import { describe, expect, test } from "vitest";
import { seededRandom } from "../units";
import { findSectors, type RemotePlace, type SearchLimits, type SectorChoice } from "./sectors";

/** A beam of two parabolas with a back, as ITU-R M.2101 and its like describe sectors. */
const beam = (azimuthDeg: number, elevationDeg: number) => (az: number, el: number) =>
  -Math.min(25, Math.min(25, 12 * (az / azimuthDeg) ** 2) + Math.min(18, 12 * (el / elevationDeg) ** 2));

interface Ring {
  readonly remotes: readonly RemotePlace[];
  readonly choices: readonly SectorChoice[];
  readonly limits: SearchLimits;
}

const ringOf = (seed: number): Ring => {
  const u = seededRandom(seed);
  const n = 1 + Math.floor(u() * (seed % 20 === 0 ? 12 : 8));
  const remotes = Array.from({ length: n }, () => ({ bearingDeg: Math.floor(u() * 360), elevationDeg: -Math.floor(u() * 12) / 2 }));
  const choices = Array.from({ length: 1 + Math.floor(u() * 2) }, (_, j): SectorChoice => {
    const relativeDb = j === 0 ? beam(90, 8) : beam(45, 12);
    return {
      id: `c${j}`,
      priceEur: 200 + 150 * j,
      relativeDb,
      promisedDb: j === 0 ? -10 : Number.NEGATIVE_INFINITY,
      // One in ten lies beyond the reach of either.
      marginDb: remotes.map(() => (u() < 0.1 ? -1 : Math.round(u() * 200) / 10)),
      airShare: remotes.map(() => Math.round(u() * 30) / 100),
    };
  });
  return { remotes, choices, limits: { mostSectors: 4, mayUse: seed % 3 === 0 ? 0.35 : 0.7, tiltFromDeg: -6, tiltToDeg: 1 } };
};

/*
 * By itself: of every group of remotes the best place for all of it, whatever else there is; then groups put together, every
 * way of dividing them tried.
 */
const bruteForce = ({ remotes, choices, limits }: Ring) => {
  const n = remotes.length;
  const full = 2 ** n - 1;
  const best = new Float64Array(full + 1).fill(Number.NEGATIVE_INFINITY);
  for (const c of choices) {
    const air = Array.from({ length: full + 1 }, (_, s) => c.airShare.reduce((sum, a, i) => sum + ((s >> i) & 1 ? a : 0), 0));
    for (let axis = 0; axis < 360; axis++)
      for (let tilt = limits.tiltFromDeg; tilt <= limits.tiltToDeg; tilt += 0.5) {
        const margin = remotes.map((r, i) => {
          const az = ((r.bearingDeg - axis + 540) % 360) - 180;
          const level = c.relativeDb(az, r.elevationDeg - tilt);
          return c.marginDb[i]! < 0 || level < c.promisedDb ? Number.NEGATIVE_INFINITY : c.marginDb[i]! + level;
        });
        const least = new Float64Array(full + 1).fill(Number.POSITIVE_INFINITY);
        for (let s = 1; s <= full; s++) {
          const low = 31 - Math.clz32(s & -s);
          least[s] = Math.min(least[s & (s - 1)]!, margin[low]!);
          if (least[s]! > best[s]! && air[s]! <= limits.mayUse + 1e-9) best[s] = least[s]!;
        }
      }
  }
  // Most remotes kept, then the fewest sectors, then the greatest worst margin.
  const bits = (s: number): number => s.toString(2).replaceAll("0", "").length;
  let of = best.map((b, s) => (s === 0 ? Number.POSITIVE_INFINITY : b));
  let answer = { kept: 0, count: 0, worstDb: Number.NEGATIVE_INFINITY };
  for (let k = 1; k <= limits.mostSectors; k++) {
    for (let s = 1; s <= full; s++)
      if (of[s]! >= 0 && (bits(s) > answer.kept || (bits(s) === answer.kept && answer.count === k && of[s]! > answer.worstDb)))
        answer = { kept: bits(s), count: k, worstDb: of[s]! };
    const next = of.slice();
    for (let s = 1; s <= full; s++)
      for (let t = s; t > 0; t = (t - 1) & s) {
        const both = Math.min(best[t]!, of[s ^ t]!);
        if (both > next[s]!) next[s] = both;
      }
    of = next;
  }
  return answer;
};

describe("which sectors take in all remotes", () => {
  test("against every division of every group by itself, on 200 seeded rings: as many kept, as few sectors, the same worst margin", () => {
    let unlike = 0;
    let left = 0;
    for (let seed = 1; seed <= 200; seed++) {
      const ring = ringOf(seed);
      const found = findSectors(ring.remotes, ring.choices, ring.limits);
      const plain = bruteForce(ring);
      const told = `seed ${seed}, ${ring.remotes.length} remotes`;
      expect(ring.remotes.length - found.leftOver.length, told).toBe(plain.kept);
      expect(found.sectors.length, told).toBe(plain.count);
      // Which of equally many are left over decides the margin: only where none is are both the same question.
      if (plain.kept === ring.remotes.length) expect(Math.abs(found.worstDb - plain.worstDb), told).toBeLessThan(0.1);
      if (new Set(found.sectors.map((s) => s.choice)).size > 1) unlike++;
      if (found.leftOver.length > 0) left++;
    }
    // The rings ask what they are meant to ask.
    expect([unlike > 5, left > 20, left < 180]).toEqual([true, true, true]);
  });

  test("what is told of a set holds: every remote of a sector is above the margin there, and its air is enough", () => {
    for (let seed = 300; seed < 340; seed++) {
      const { remotes, choices, limits } = ringOf(seed);
      const { sectors, worstDb, leftOver } = findSectors(remotes, choices, limits);
      expect([...sectors.flatMap((s) => s.remotes), ...leftOver].sort((a, b) => a - b)).toEqual(remotes.map((_, i) => i));
      for (const s of sectors) {
        const c = choices[s.choice]!;
        for (const i of s.remotes) {
          const az = ((remotes[i]!.bearingDeg - s.azimuthDeg + 540) % 360) - 180;
          expect(c.marginDb[i]! + c.relativeDb(az, remotes[i]!.elevationDeg - s.tiltDeg)).toBeGreaterThanOrEqual(worstDb - 1e-5);
        }
        expect(s.remotes.reduce((n, i) => n + c.airShare[i]!, 0)).toBeLessThanOrEqual(limits.mayUse + 1e-9);
      }
    }
  });

  test("one remote: the axis lies on it and the full gain is there; of two antennas that do the cheaper is taken", () => {
    const one: SectorChoice = { id: "a", priceEur: 100, relativeDb: beam(90, 8), promisedDb: -10, marginDb: [12], airShare: [0.2] };
    const found = findSectors([{ bearingDeg: 229, elevationDeg: -13 }], [{ ...one, id: "dear", priceEur: 300 }, one], {
      mostSectors: 4,
      mayUse: 0.7,
      tiltFromDeg: -20,
      tiltToDeg: 5,
    });
    expect(found.sectors).toEqual([{ choice: 1, azimuthDeg: 229, tiltDeg: -13, remotes: [0] }]);
    expect(found.worstDb).toBeCloseTo(12, 9);
  });

  test("beside one that asks for nothing, and so has margin without end, the other's is found all the same", () => {
    const choice: SectorChoice = {
      id: "a",
      priceEur: 1,
      relativeDb: beam(90, 8),
      promisedDb: -10,
      marginDb: [Number.POSITIVE_INFINITY, 7],
      airShare: [0, 0.1],
    };
    const places = [
      { bearingDeg: 10, elevationDeg: 0 },
      { bearingDeg: 40, elevationDeg: 0 },
    ];
    const limits = { mostSectors: 2, mayUse: 0.7, tiltFromDeg: -2, tiltToDeg: 2 };
    expect(findSectors(places, [choice], limits).worstDb).toBeCloseTo(7, 3);
  });

  test("turned by some degrees the answer is turned with it; nobody to serve is no sector", () => {
    const ring = ringOf(12);
    const plain = findSectors(ring.remotes, ring.choices, ring.limits);
    const turned = findSectors(
      ring.remotes.map((r) => ({ ...r, bearingDeg: (r.bearingDeg + 77) % 360 })),
      ring.choices,
      ring.limits,
    );
    expect([turned.sectors.length, turned.leftOver]).toEqual([plain.sectors.length, plain.leftOver]);
    expect(turned.worstDb).toBeCloseTo(plain.worstDb, 6);
    expect(findSectors([], ring.choices, ring.limits).sectors).toEqual([]);
    expect(() =>
      findSectors(
        Array.from({ length: 25 }, () => ring.remotes[0]!),
        ring.choices,
        ring.limits,
      ),
    ).toThrow(RangeError);
  });

  test("many remotes of which few fit: what cannot be for its number or its air is not tried one set after another", () => {
    const remotes = Array.from({ length: 24 }, (_, i): RemotePlace => ({ bearingDeg: i * 15, elevationDeg: -3 }));
    const choice: SectorChoice = {
      id: "a",
      priceEur: 1,
      relativeDb: beam(90, 8),
      promisedDb: -10,
      marginDb: remotes.map(() => 8),
      airShare: remotes.map(() => 0.02),
    };
    const limits = { mostSectors: 1, mayUse: 0.7, tiltFromDeg: -20, tiltToDeg: 5 };
    // 8 dB of the parabola lie 73 degrees to either side: nine or ten of them, 15 degrees apart.
    expect(remotes.length - findSectors(remotes, [choice], limits).leftOver.length).toBe(10);
    // A third of the air each: two of them, whatever the beam takes in.
    const busy = { ...choice, airShare: remotes.map(() => 0.34) };
    expect(findSectors(remotes, [busy], limits).leftOver).toHaveLength(22);
  });
});
