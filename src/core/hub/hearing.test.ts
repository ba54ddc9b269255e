import { describe, expect, test } from "vitest";
import { deafPairs, type HearingRemote, levelBetween, preambleDbm } from "./hearing";

/** A panel: 19 dBi, 25 dB down beyond 20 degrees. */
const remote = (linkId: string, bearingDeg: number, distanceM: number, fields: Partial<HearingRemote> = {}): HearingRemote => ({
  linkId,
  bearingDeg,
  distanceM,
  powerDbm: 11,
  gainDbi: 19,
  relativeDb: (off) => (Math.abs(off) < 20 ? -12 * (off / 20) ** 2 : -25),
  ...fields,
});

describe("remotes that hear each other", () => {
  test("the threshold of a preamble: -82 dBm at 20 MHz, 3 dB more for each doubling", () => {
    expect([20, 40, 80, 160].map(preambleDbm)).toEqual([-82, -79, -76, -73]);
  });

  test("one behind the other looks through it to the hub; the nearer looks away: 20 log d + 32.45 + 20 log f by hand", () => {
    // 500 m apart in a row: the far one sends on its axis, the near one listens over its back.
    const level = levelBetween(remote("far", 90, 1000), remote("near", 90, 500), 5600);
    expect(level).toBeCloseTo(11 + 19 + (19 - 25) - (32.45 + 20 * Math.log10(5.6 * 1000) + 20 * Math.log10(0.5)), 1);
  });

  test("opposite each other across the hub both look at it and so at each other", () => {
    const level = levelBetween(remote("a", 0, 400), remote("b", 180, 400), 5600);
    expect(level).toBeCloseTo(11 + 38 - (32.45 + 20 * Math.log10(5600) + 20 * Math.log10(0.8)), 1);
  });

  test("pairs at their hub's sides are deaf to each other even in the open; with more power, and nearer, they are not; one on a spot with another hears it", () => {
    const wide = [remote("a", 150, 1500), remote("b", 260, 1500), remote("c", 150, 1500)];
    const found = deafPairs(wide, 5600, 40);
    expect(found.of).toBe(3);
    expect(found.deaf).toEqual([
      ["a", "b"],
      ["b", "c"],
    ]);
    expect(
      deafPairs(
        wide.map((r) => ({ ...r, relativeDb: () => 0 })),
        5600,
        40,
      ).deaf,
    ).toEqual([]);
    // The one that sends less is not heard, though it hears.
    expect(deafPairs([remote("x", 0, 400), remote("y", 180, 400, { powerDbm: -60 })], 5600, 40).deaf).toHaveLength(1);
    expect(deafPairs([], 5600, 40)).toEqual({ deaf: [], of: 0 });
  });
});
