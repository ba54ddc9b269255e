/* Who waits for whom, against a run of events that knows only levels and thresholds. */
import { describe, expect, test } from "vitest";
import { seededRandom } from "../units";
import { type Hears, hears, hitShareOf, type Relation, relationOf, type Talker, thresholdOf, waitShareOf } from "./listening";

const on = (centreMhz: number, widthMhz: number, standard = "ac", access: Talker["access"] = "contention"): Talker => ({
  standard,
  access,
  channel: { centreMhz, widthMhz },
});

describe("thresholds", () => {
  test.each([
    [20, -82],
    [40, -79],
    [80, -76],
    [160, -73],
  ])("a preamble %i MHz wide is waited for from %i dBm (17.3.10.6, 21.3.18.5)", (w, dbm) => {
    const t = thresholdOf(on(5500, w), on(5500, w, "ax"))!;
    expect(t.of).toBe("preamble");
    expect(t.dbm).toBeCloseTo(dbm, 0);
  });

  test("energy of anything else from -62 dBm in 20 MHz; nothing on another channel; scheduled and fixed frames never listen", () => {
    expect(thresholdOf(on(5500, 20), on(5500, 20, "single carrier QAM", "fixed-frame"))).toEqual({ dbm: -62, of: "energy" });
    // Partly over each other: no first 20 MHz in common.
    expect(thresholdOf(on(5500, 40), on(5520, 40))).toMatchObject({ of: "energy" });
    expect(thresholdOf(on(5500, 20), on(5600, 20))).toBeNull();
    expect(thresholdOf(on(5500, 20, "ac", "scheduled"), on(5500, 20))).toBeNull();
    expect(thresholdOf(on(5500, 20, "x", "fixed-frame"), on(5500, 20))).toBeNull();
  });

  test("within 3 dB it is not sure, on both sides; beyond it is", () => {
    const t = { dbm: -79, of: "preamble" } as const;
    const all: readonly (readonly [number, Hears])[] = [
      [-83, "no"],
      [-82, "unsure"],
      [-79, "unsure"],
      [-76, "unsure"],
      [-75, "yes"],
    ];
    for (const [dbm, expected] of all) expect(hears(dbm, t), String(dbm)).toBe(expected);
    expect(hears(0, null)).toBe("no");
  });
});

/**
 * Two transmitters with bursts of one length. A listener with something to send waits while it hears the other, then a random time.
 * @returns the part of the wanted bursts' time on which the other sends, and the part of all time the wanted one cannot begin.
 */
const run = (wantedHears: boolean, otherHears: boolean, activity: number, seed: number) => {
  const u = seededRandom(seed);
  const burst = 1;
  const gap = (share: number): number => -Math.log(1 - u()) * burst * ((1 - share) / share);
  // The wanted one has something to send half of the time.
  const wantedShare = 0.5;
  const until = 60_000;
  let [wantedAt, otherAt] = [gap(wantedShare), gap(activity)];
  let [wantedEnd, otherEnd] = [-1, -1];
  let [sent, hit] = [0, 0];
  const spans: [number, number][] = [];
  while (Math.min(wantedAt, otherAt) < until) {
    if (otherAt <= wantedAt) {
      if (otherHears && wantedEnd > otherAt) {
        otherAt = wantedEnd + 0.01 + gap(activity) * 0.05;
        continue;
      }
      otherEnd = otherAt + burst;
      spans.push([otherAt, otherEnd]);
      if (wantedEnd > otherAt) hit += Math.min(wantedEnd, otherEnd) - otherAt;
      otherAt = otherEnd + gap(activity);
    } else {
      if (wantedHears && otherEnd > wantedAt) {
        wantedAt = otherEnd + 0.01 + gap(wantedShare) * 0.05;
        continue;
      }
      wantedEnd = wantedAt + burst;
      sent += burst;
      if (otherEnd > wantedAt) hit += Math.min(wantedEnd, otherEnd) - wantedAt;
      wantedAt = wantedEnd + gap(wantedShare);
    }
  }
  return { hitShare: hit / sent, otherShare: spans.reduce((s, [a, b]) => s + b - a, 0) / until };
};

describe("every case of who hears whom, in a run of events", () => {
  const cases: readonly (readonly [boolean, boolean, Relation])[] = [
    [true, true, "takes turns"],
    [true, false, "waits for it"],
    [false, true, "it waits"],
    [false, false, "bursts fall"],
  ];
  test.each(cases)("wanted hears %s, other hears %s: %s", (wanted, other, relation) => {
    expect(relationOf(wanted, other)).toBe(relation);
    for (const activity of [0.1, 0.3, 0.5]) {
      const found = run(wanted, other, activity, 7);
      const told = hitShareOf(relation, found.otherShare);
      // Told as it comes, to a twentieth.
      expect(told).toBeGreaterThan(found.hitShare - 0.05);
      expect(told).toBeLessThan(found.hitShare + 0.07);
    }
  });

  test("hearing one another nobody falls on anybody, and each leaves the other its time", () => {
    expect(run(true, true, 0.5, 3).hitShare).toBe(0);
    expect(hitShareOf("takes turns", 0.8)).toBe(0);
    expect(waitShareOf("takes turns", 0.3)).toBe(0.3);
    expect(waitShareOf("waits for it", 0.3)).toBe(0.3);
    expect(waitShareOf("it waits", 0.3)).toBe(0);
    expect(waitShareOf("bursts fall", 0.3)).toBe(0);
  });

  test("who sends nothing harms nobody; who never stops falls on all that does not wait", () => {
    for (const r of ["takes turns", "waits for it", "it waits", "bursts fall"] as const) expect(hitShareOf(r, 0)).toBe(0);
    expect(hitShareOf("bursts fall", 1)).toBe(1);
    expect(hitShareOf("waits for it", 1)).toBe(1);
  });
});
