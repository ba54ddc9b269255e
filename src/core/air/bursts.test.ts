import fc from "fast-check";
import { describe, expect, test } from "vitest";
import { type Burst, mixed } from "./bursts";

/** 100 Mbps down to 3 dB of rise, 40 to 12, none beyond. */
const rate = (riseDb: number): number => (riseDb <= 3 ? 100 : riseDb <= 12 ? 40 : 0);
const ratioOf = (riseDb: number): number => 10 ** (riseDb / 10) - 1;

const bursts = fc.array(
  fc.record({
    ratio: fc.oneof(fc.double({ min: 0, max: 1000, noNaN: true }), fc.constant(Number.POSITIVE_INFINITY)),
    share: fc.double({ min: 0, max: 1, noNaN: true }),
  }),
  { maxLength: 6 },
);

describe("what bursts leave of a rate", () => {
  test("one of them: (1 - a) quiet + a hit", () => {
    const m = mixed([{ ratio: ratioOf(10), share: 0.3 }], rate);
    expect(m).toMatchObject({ quietMbps: 100, hitMbps: 40 });
    expect(m.hitShare).toBeCloseTo(0.3, 12);
    expect(m.meanMbps).toBeCloseTo(0.7 * 100 + 0.3 * 40, 9);
    expect(m.riseDb).toBeCloseTo(10, 9);
  });

  test("two: by the stronger that sends, the weaker taken to send with it", () => {
    const m = mixed(
      [
        { ratio: ratioOf(6), share: 0.5 },
        { ratio: Number.POSITIVE_INFINITY, share: 0.2 },
      ],
      rate,
    );
    expect(m.meanMbps).toBeCloseTo(0.2 * 0 + 0.8 * 0.5 * 40 + 0.8 * 0.5 * 100, 9);
    expect(m.hitMbps).toBe(0);
  });

  test("never better than nothing falling, never worse than all falling all the time; one more never helps", () => {
    fc.assert(
      fc.property(
        bursts,
        fc.record({ ratio: fc.double({ min: 0, max: 1000, noNaN: true }), share: fc.double({ min: 0, max: 1, noNaN: true }) }),
        (list: Burst[], more: Burst) => {
          const m = mixed(list, rate);
          expect(m.meanMbps).toBeLessThanOrEqual(m.quietMbps + 1e-9);
          expect(m.meanMbps).toBeGreaterThanOrEqual(m.hitMbps - 1e-9);
          expect(mixed([...list, more], rate).meanMbps).toBeLessThanOrEqual(m.meanMbps + 1e-9);
        },
      ),
    );
  });

  test("the order in which they are named changes nothing", () => {
    fc.assert(
      fc.property(bursts, (list: Burst[]) => {
        expect(mixed([...list].reverse(), rate).meanMbps).toBeCloseTo(mixed(list, rate).meanMbps, 9);
      }),
    );
  });
});
