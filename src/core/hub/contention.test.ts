import fc from "fast-check";
import { describe, expect, test } from "vitest";
import { seededRandom } from "../units";
import { sharedChannel, type Turn } from "./contention";

/*
 * The same channel as a run of events, written apart from the formula: every station has a counter that stands still while
 * the channel is busy; who comes to nought sends; who meets another loses the whole burst and doubles its window.
 */
const simulated = (turns: readonly Turn[], tripUs: number, grant: boolean, seed: number, seconds: number): number[] => {
  const random = seededRandom(seed);
  const stations = turns.map((t) => ({ ...t, window: 16, counter: 0, bits: 0 }));
  const draw = (window: number): number => Math.floor(random() * window);
  for (const s of stations) s.counter = draw(s.window);
  const [sifs, slot] = [16, 9 + 2 * tripUs];
  const difs = sifs + 18;
  const [request, granted] = [28, 28];
  let nowUs = 0;
  while (nowUs < seconds * 1e6) {
    const senders = stations.filter((s) => s.counter === 0);
    if (senders.length === 0) {
      nowUs += slot;
      for (const s of stations) s.counter -= 1;
    } else if (senders.length === 1) {
      const s = senders[0]!;
      nowUs += difs + (grant ? request + sifs + granted + sifs : 0) + s.burstUs;
      s.bits += s.payloadBits;
      s.window = 16;
      s.counter = draw(s.window);
    } else {
      nowUs += difs + (grant ? request : Math.max(...senders.map((s) => s.burstUs))) + sifs + 9 + 32;
      for (const s of senders) {
        s.window = Math.min(1024, s.window * 2);
        s.counter = draw(s.window);
      }
    }
  }
  return stations.map((s) => s.bits / nowUs);
};

/** A burst of some packets at a rate, with preamble and answer. */
const turn = (packets: number, phyMbps: number): Turn => ({
  burstUs: 52 + (packets * 1562 * 8) / phyMbps + 16 + 32,
  payloadBits: packets * 1448 * 8,
});

describe("several stations on one channel", () => {
  const RATES = [780, 60, 390, 130, 520, 26, 260, 650, 97, 195, 325, 39];

  test.each([1, 2, 3, 4, 5, 6, 7, 8, 9, 10, 11, 12])("%i stations at unlike rates: within 3 % of the run of events", (n) => {
    const turns = RATES.slice(0, n).map((mbps) => turn(Math.max(1, Math.min(64, Math.floor((5484 * mbps) / 12_496))), mbps));
    for (const grant of [false, true]) {
      const told = sharedChannel(turns, 3, grant).mbps;
      const run = simulated(turns, 3, grant, 7 + n, 400);
      const all = (list: readonly number[]): number => list.reduce((a, b) => a + b, 0);
      expect(Math.abs(all(told) / all(run) - 1), `${n} stations, grant ${grant}`).toBeLessThan(0.03);
      // Turns are equal: each gets what its burst holds, whatever its rate.
      told.forEach((mbps, i) => {
        expect(Math.abs(mbps / run[i]! - 1)).toBeLessThan(0.15);
        expect(mbps / told[0]!).toBeCloseTo(turns[i]!.payloadBits / turns[0]!.payloadBits, 9);
      });
    }
  });

  test("alone a station waits seven and a half slots on average, and meets nobody", () => {
    const one = turn(32, 400);
    const { mbps, collisionShare } = sharedChannel([one], 0, false);
    expect(collisionShare).toBe(0);
    expect(mbps[0]).toBeCloseTo(one.payloadBits / (one.burstUs + 34 + 7.5 * 9), 6);
  });

  test("one more station never gives the others more; a longer trip and slower bursts never give anybody more", () => {
    const any = fc.record({ packets: fc.integer({ min: 1, max: 64 }), mbps: fc.integer({ min: 6, max: 1200 }) });
    fc.assert(
      fc.property(fc.array(any, { minLength: 2, maxLength: 12 }), fc.boolean(), fc.integer({ min: 0, max: 30 }), (list, grant, trip) => {
        const turns = list.map((t) => turn(t.packets, t.mbps));
        const all = sharedChannel(turns, trip, grant).mbps;
        const fewer = sharedChannel(turns.slice(0, -1), trip, grant).mbps;
        fewer.forEach((mbps, i) => {
          expect(all[i]!).toBeLessThanOrEqual(mbps + 1e-9);
        });
        const farther = sharedChannel(turns, trip + 10, grant).mbps;
        farther.forEach((mbps, i) => {
          expect(mbps).toBeLessThanOrEqual(all[i]! + 1e-9);
        });
        const slower = sharedChannel(
          turns.map((t, i) => (i === 0 ? { ...t, burstUs: t.burstUs * 2 } : t)),
          trip,
          grant,
        ).mbps;
        slower.forEach((mbps, i) => {
          expect(mbps).toBeLessThanOrEqual(all[i]! + 1e-9);
        });
      }),
      { numRuns: 60 },
    );
  });

  test("nobody gets nothing; a burst of no length is refused", () => {
    expect(sharedChannel([], 0, false).mbps).toEqual([]);
    expect(() => sharedChannel([{ burstUs: 0, payloadBits: 1 }], 0, false)).toThrow(RangeError);
  });
});
