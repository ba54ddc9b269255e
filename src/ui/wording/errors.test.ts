/* Every error has a sentence of its own, in whole words, whatever it carries. */
import { describe, expect, test } from "vitest";
import { ERROR_CODES, type ErrorBody } from "@/contract";
import { errorSentence } from "./errors";

/** What the server sends along with one or another of them. */
const VALUES = {
  name: "Rope Walk",
  job: "Merrow Harbour Trust",
  link: 3,
  number: 12,
  most: 12,
  distanceM: 250_000,
  leastM: 10,
  mostM: 100_000,
  freeMb: 40,
  heldGb: 5.2,
  mostGb: 6,
  status: 404,
  left: 1,
  waitS: 240,
  asked: 3,
  why: "too-far",
};

describe.each(ERROR_CODES)("%s", (code) => {
  const full: ErrorBody = { code, path: "site", message: "the height must be 0 m or above", values: VALUES };

  test("is said in whole sentences, in both units", () => {
    for (const units of ["metric", "imperial"] as const) {
      const words = errorSentence(full, units);
      expect(words).toMatch(/^[A-Z][\s\S]*\.$/);
      expect(words).not.toMatch(/undefined|NaN|null|\[object|!/);
    }
  });

  test("is said too when nothing comes with it", () => {
    expect(errorSentence({ code })).toMatch(/\.$/);
  });
});

test("no two say the same, but those that are one to the user", () => {
  const by = new Map<string, string[]>();
  for (const code of ERROR_CODES) {
    const words = errorSentence({ code, path: "site", values: VALUES });
    by.set(words, [...(by.get(words) ?? []), code]);
  }
  expect([...by.values()].filter((codes) => codes.length > 1)).toEqual([
    ["piece-out-of-order", "piece-too-long"],
    ["cross-site", "host-not-allowed"],
  ]);
});

test("a length is told in the reader's unit", () => {
  const far: ErrorBody = { code: "link-length", values: VALUES };
  expect(errorSentence(far, "metric")).toMatch(/250\.\d+\s?km|250\skm/);
  expect(errorSentence(far, "imperial")).toMatch(/155\.\d+\s?mi|155\smi/);
});

test("a code of another version is no crash, and says that nothing was lost", () => {
  expect(errorSentence({ code: "constructor" as never })).toContain("nothing was lost");
  expect(errorSentence({ code: "something-new" as never })).toContain("nothing was lost");
});
