import { describe, expect, test } from "vitest";
import { seededRandom } from "../units";
import { poisson90, radarCostOf, radarYear } from "./radar";

describe("minutes a year that radar takes", () => {
  // Garwood's limits for 90 %, as tabled in every text on counting: n, lower, upper.
  test.each([
    [1, 0.0513, 4.7439],
    [2, 0.3554, 6.2958],
    [5, 1.9701, 10.513],
    [10, 5.4254, 16.962],
    [50, 38.965, 63.287],
  ])("%i seen: %f to %f", (n, low, high) => {
    const [a, b] = poisson90(n);
    expect(a).toBeCloseTo(low, 2);
    expect(b).toBeCloseTo(high, 2);
  });

  test("none seen: up to 2.3", () => {
    expect(poisson90(0)[0]).toBe(0);
    expect(poisson90(0)[1]).toBeCloseTo(-Math.log(0.1), 9);
  });

  test("the interval holds the true mean in nine of ten drawn counts or more", () => {
    const u = seededRandom(5);
    for (const mean of [1, 4, 12]) {
      let held = 0;
      for (let i = 0; i < 2000; i++) {
        let n = -1;
        for (let t = 0; t < 1; n++) t += -Math.log(1 - u()) / mean;
        const [low, high] = poisson90(n);
        if (low <= mean && mean <= high) held += 1;
      }
      expect(held / 2000).toBeGreaterThan(0.89);
    }
  });

  test("two in 45 days, 10 s to leave and 60 s of listening: 16 a year, 19 minutes; under 30 days too few", () => {
    const cost = radarCostOf(10, 60, 30);
    const year = radarYear(2, 45, cost)!;
    expect(year.perYear).toBeCloseTo((2 * 365.25) / 45, 9);
    expect(year.minutes).toBeCloseTo((2 * 365.25 * 70) / 45 / 60, 9);
    expect(year.minutesLow).toBeLessThan(year.minutes);
    expect(year.tooFew).toBe(false);
    expect(radarYear(2, 12, cost)!.tooFew).toBe(true);
    expect(radarYear(0, 0, cost)).toBeNull();
    expect(() => radarYear(501, 10, cost)).toThrow(RangeError);
    expect(radarCostOf(undefined, null, null)).toEqual({ moveS: 10, waitS: 0, silenceMin: 30 });
  });
});
