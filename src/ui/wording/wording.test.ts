import fc from "fast-check";
import { describe, expect, test } from "vitest";
import { evaluatePrepared, findings, preparePath } from "@/core/link";
import { body, box, end, plan, profile } from "@/core/testing/scene";
import { findingText, mendText } from "./findings";
import { cutMiddle } from "./names";
import { alongText, bearingText, chanceText, distanceText, figure, latLonText, lengthText, signed } from "./numbers";
import { termExplanation, termLabel } from "./terms";

describe("figures", () => {
  test.each([
    [figure(-0.04, 1), "0.0"],
    [figure(-59.5), "\u221260"],
    [figure(Number.NaN), "unknown"],
    [signed(2.345, 1), "+2.3"],
    [bearingText(359.96), "000.0°"],
    [bearingText(84.8), "084.8°"],
    [distanceText("metric", 3100.7), "3,101\u00a0m"],
    [distanceText("metric", 19_203), "19.20\u00a0km"],
    [distanceText("imperial", 430), "1411\u00a0ft"],
    [distanceText("imperial", 20_000), "12.43\u00a0mi"],
    [alongText("metric", 4937), "4,937\u00a0m"],
    [lengthText("imperial", 1.84), "6.0\u00a0ft"],
    [chanceText(0.034), "about 3 cases in 100"],
    [chanceText(0.9999), "more than 99 cases in 100"],
    [latLonText({ latDeg: 47.3, lonDeg: -19.4 }), "47.300000° N, 19.400000° W"],
    [cutMiddle("Merrow Harbour Trust Office", 20).length, 20],
  ])("%s", (got, want) => expect(got).toBe(want));
});

describe("sentences", () => {
  test("every finding, mend and term of a hard scene has words, and none of them holds NaN or undefined", () => {
    fc.assert(
      fc.property(
        fc.double({ min: 1, max: 30, noNaN: true }),
        fc.double({ min: 5, max: 25, noNaN: true }),
        fc.constantFrom("row", "building", "wood", "crown"),
        fc.constantFrom(11, 25),
        fc.boolean(),
        (mount, heightM, kind, power, hole) => {
          const q = profile(900, (x) => (hole && x > 700 ? Number.NaN : 3), [
            body({ ...box(400, 405, -9, 9), kind, heightM, growthMPerYear: 0.5, name: "it" }),
          ]);
          const p = plan(end("A", mount, { mountMaxAglM: 9, txPowerDbm: power }), end("B", mount), {
            needToFarMbps: 500,
            needToNearMbps: 500,
          });
          const path = preparePath(p, q);
          const result = evaluatePrepared(p, path);
          const words = findings(p, path, result).flatMap((f) => {
            const text = findingText(f, "imperial", "A");
            // A code without a sentence would come back as it went in.
            expect(text).not.toBe(f.code);
            return [text, ...f.mends.flatMap((m) => Object.values(mendText(m, "metric")))];
          });
          for (const t of result.service.toFar!.terms) words.push(termLabel(t, "metric"), termExplanation(t, "metric"));
          for (const w of words) expect(w).not.toMatch(/NaN|undefined|null|Infinity/);
        },
      ),
      { numRuns: 60, seed: 3 },
    );
  });
});

test("what nobody gave a name is told by what it is", () => {
  const trim = (name: string | null) =>
    mendText(
      { code: "trim", name, amount: 4.4, lastYear: null, amountToday: null, brings: null } as unknown as Parameters<typeof mendText>[0],
      "metric",
    ).words.replaceAll("\u00a0", " ");
  expect(trim("Poplar row")).toBe("Plan a trim of Poplar row to 4.4 m");
  expect(trim("")).toBe("Plan a trim of the tree to 4.4 m");
  expect(trim(null)).toBe("Plan a trim of the tree to 4.4 m");
});
