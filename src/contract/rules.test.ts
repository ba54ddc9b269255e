import { expect, test } from "vitest";
import shipped from "../core/radio/tables/regulation.json" with { type: "json" };
import { ruleFileSchema } from "./rules";

test("the shipped rules are read through the schema, every field of every row", () => {
  expect(ruleFileSchema.parse(shipped).rows.length).toBe(shipped.rows.length);
});

test.each([
  ["a limit in words", { conductedLimitByBandwidth: "lesser of 24 dBm and 11 dBm + 10 log10(B)" }],
  ["an unknown form of a limit", { conductedLimitByBandwidth: { form: "cubic", capDbm: 24, words: "" } }],
  ["an unknown use", { serves: ["ptp"] }],
  ["gain xor beam", { narrowBy: "gain xor beam" }],
])("%s is a fault of the file, with the row and the field", (_name, fields) => {
  const rows = [shipped.rows[0], { ...shipped.rows[5], ...fields }];
  const read = ruleFileSchema.safeParse({ rows });
  expect(read.success).toBe(false);
  expect(read.error?.issues[0]?.path.slice(0, 3)).toEqual(["rows", 1, Object.keys(fields)[0]]);
});
