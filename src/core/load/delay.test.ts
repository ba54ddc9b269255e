import { describe, expect, it } from "vitest";
import type { Access } from "../radio";
import { seededRandom } from "../units";
import { delayOf, hopDelay } from "./delay";

/*
 * The same as runs of events, written apart from the formula. Contention: stations with counters and windows that double; frames:
 * a gate every 5 ms, and what was there before it goes in its order.
 */

const SECONDS = 300;
const p95 = (ms: number[]): number => ms.sort((a, b) => a - b)[Math.floor(ms.length * 0.95)]!;
const arrivalsOf = (random: () => number, perUs: number): number[] => {
  const times: number[] = [];
  for (let t = 0; ; ) {
    t += -Math.log(1 - random()) / perUs;
    if (t > SECONDS * 1e6) return times;
    times.push(t);
  }
};

const DIFS_US = 34;
const SLOT_US = 9;
/** What one burst takes with the waiting that the model counts in it. */
const WAITS_US = DIFS_US + 7.5 * SLOT_US;

const contention = (
  stations: number,
  load: number,
  burstUs: number,
  seed: number,
): { readonly waits: readonly (readonly [number, number])[]; readonly p95Ms: number } => {
  const random = seededRandom(seed);
  const each = Array.from({ length: stations }, () => ({
    arrivals: arrivalsOf(random, load / burstUs / stations),
    next: 0,
    window: 16,
    counter: -1,
  }));
  const onAir = burstUs - WAITS_US;
  const waits: (readonly [number, number])[] = [];
  let now = 0;
  const draw = (w: number): number => Math.floor(random() * w);
  for (;;) {
    const waiting = each.filter((s) => s.next < s.arrivals.length && s.arrivals[s.next]! <= now);
    if (waiting.length === 0) {
      const soonest = Math.min(...each.map((s) => s.arrivals[s.next] ?? Number.POSITIVE_INFINITY));
      if (!Number.isFinite(soonest)) break;
      now = soonest;
      continue;
    }
    for (const s of waiting) if (s.counter < 0) s.counter = draw(s.window);
    const senders = waiting.filter((s) => s.counter === 0);
    if (senders.length === 0) {
      now += SLOT_US;
      for (const s of waiting) s.counter -= 1;
      continue;
    }
    now += DIFS_US + onAir;
    if (senders.length === 1) {
      const s = senders[0]!;
      waits.push([s.arrivals[s.next]!, now]);
      s.next += 1;
      s.window = 16;
      s.counter = -1;
    } else
      for (const s of senders) {
        s.window = Math.min(1024, s.window * 2);
        s.counter = draw(s.window);
      }
  }
  return { waits, p95Ms: p95(waits.map(([a, b]) => (b - a) / 1000)) };
};

const FRAME_US = 5000;
const framed = (arrivals: readonly number[], burstUs: number): (readonly [number, number])[] => {
  const out: (readonly [number, number])[] = [];
  let free = 0;
  for (const t of arrivals) {
    const gate = Math.ceil(t / FRAME_US) * FRAME_US;
    free = Math.max(free, gate) + burstUs;
    out.push([t, free]);
  }
  return out;
};
const inFrames = (load: number, burstUs: number, seed: number): number =>
  p95(framed(arrivalsOf(seededRandom(seed), load / burstUs), burstUs).map(([a, b]) => (b - a) / 1000));

describe("delay over a link", () => {
  it.each([
    [1, 0.2],
    [1, 0.5],
    [1, 0.8],
    [4, 0.2],
    [4, 0.4],
    [8, 0.3],
    [8, 0.5],
  ])("%i stations that listen first, %f of the air taken: 95 in 100 within 25 % of the run of events", (stations, load) => {
    const told = hopDelay({ access: "contention", load, burstUs: 2600 }).mostMs;
    expect(Math.abs(told / contention(stations, load, 2600, 5).p95Ms - 1)).toBeLessThan(0.25);
  });

  it.each([
    [0.1, 300],
    [0.4, 300],
    [0.7, 300],
    [0.4, 2500],
    [0.7, 2500],
    [0.85, 1000],
  ])("frames of 5 ms, %f taken by bursts of %i us: 95 in 100 within 25 % of the run of events", (load, burstUs) => {
    const told = hopDelay({ access: "scheduled", load, burstUs }).mostMs;
    expect(Math.abs(told / inFrames(load, burstUs, 3) - 1)).toBeLessThan(0.25);
  });

  it("several in a row: 95 in 100 within 25 % of the same bursts led through one after the other", () => {
    for (const [a, b] of [
      [0.3, 0.3],
      [0.6, 0.2],
      [0.5, 0.7],
    ] as const) {
      const first = framed(arrivalsOf(seededRandom(9), a / 800), 800);
      // Others share the second link; this one's bursts are followed through both.
      const random = seededRandom(10);
      const others = arrivalsOf(random, Math.max(1e-9, b / 800 - a / 800));
      const followed = new Map(first.map(([start, end]) => [end, start]));
      const second = framed(
        [...first.map(([, end]) => end), ...others].sort((x, y) => x - y),
        800,
      );
      const whole = second.flatMap(([at, end]) => (followed.has(at) ? [(end - followed.get(at)!) / 1000] : []));
      const load = Math.max(a, b);
      const told = delayOf([
        { access: "scheduled", load: a, burstUs: 800 },
        { access: "scheduled", load, burstUs: 800 },
      ]).mostMs;
      expect(Math.abs(told / p95(whole) - 1), `${a} then ${load}`).toBeLessThan(0.25);
    }
  });

  it("is at least what the bursts take on the air, grows with the load, and has no end where the air is over", () => {
    const delay = (load: number, access: Access = "contention") => delayOf([{ access, load, burstUs: 1000 }]);
    expect(delay(0).leastMs).toBeCloseTo(1, 9);
    expect(delay(0).mostMs).toBeCloseTo(1, 3);
    // Nothing else on the air: any moment of the frame is as likely.
    expect(delay(0, "scheduled").mostMs).toBeCloseTo(1 + 0.95 * 5, 3);
    for (const access of ["contention", "scheduled"] as const) {
      let before = 0;
      for (const load of [0, 0.1, 0.3, 0.5, 0.7, 0.9, 0.99]) {
        const { mostMs, jitterMs, leastMs } = delay(load, access);
        expect(mostMs).toBeGreaterThanOrEqual(before);
        expect(jitterMs).toBeCloseTo(mostMs - leastMs, 9);
        before = mostMs;
      }
    }
    expect(delay(1).mostMs).toBe(Number.POSITIVE_INFINITY);
    expect(() => delay(-0.1)).toThrow(RangeError);
  });
});
