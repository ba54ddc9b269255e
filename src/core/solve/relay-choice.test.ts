import fc from "fast-check";
import { expect, test } from "vitest";
import { byRelayMerit, type RelayCandidate, type RelayLeg, relayAroundM, relayServes } from ".";

const leg = (missM: number, pathM = 4000, verdict: RelayLeg["verdict"] = missM > 0 ? "short" : "clear"): RelayLeg => ({
  verdict,
  missM,
  pathM,
});
const spot = (fields: Partial<RelayCandidate>): RelayCandidate => ({
  siteId: null,
  aglM: 10,
  sure: true,
  near: leg(-2),
  far: leg(-2),
  ...fields,
});

test("sure before doubtful before short; sites before ground; a metre of mast weighs as a kilometre", () => {
  const order = [
    spot({ siteId: "barn", aglM: 30 }),
    spot({ aglM: 4, near: leg(-1, 9000) }),
    spot({ aglM: 6, near: leg(-1, 8000) }),
    spot({ siteId: "mill", sure: false, near: leg(-0.2, 2000, "tight") }),
    spot({ sure: false, near: leg(3) }),
    spot({ siteId: "inn", sure: false, near: leg(7), far: leg(1) }),
    spot({ sure: false, near: null }),
  ];
  expect([...order].reverse().sort(byRelayMerit)).toEqual(order);
  expect(order.map(relayServes)).toEqual([true, true, true, true, false, false, false]);
});

test("the order is one: whichever way two are asked about, and never round in a circle", () => {
  const legs = fc.oneof(
    fc.constant(null),
    fc.record({
      verdict: fc.constantFrom("clear", "tight", "unknown", "short"),
      missM: fc.integer({ min: -9, max: 90 }),
      pathM: fc.integer({ min: 50, max: 20_000 }),
    }),
  );
  const spots = fc.record({
    siteId: fc.constantFrom(null, "a"),
    aglM: fc.integer({ min: 2, max: 30 }),
    sure: fc.boolean(),
    near: legs,
    far: legs,
  });
  fc.assert(
    fc.property(spots, spots, spots, (a, b, c) => {
      expect(Math.sign(byRelayMerit(a, b))).toBe(-Math.sign(byRelayMerit(b, a)) + 0);
      if (byRelayMerit(a, b) <= 0 && byRelayMerit(b, c) <= 0) expect(byRelayMerit(a, c)).toBeLessThanOrEqual(1e-9);
    }),
  );
});

test("high ground is looked for a share of the path about, and never less than a walk", () => {
  expect([relayAroundM(100), relayAroundM(20_000)]).toEqual([1500, 9000]);
});
