/* Edits in words: what, from what to what; and what is alike folded. */
import { describe, expect, test } from "vitest";
import type { ChangeDto, FieldChange } from "@/contract";
import { valueText } from "./fields";
import { folded, foldText, stepText } from "./history";

let next = 100;
const change = (fields: readonly FieldChange[], more: Partial<ChangeDto> = {}): ChangeDto => ({
  id: next--,
  entity: "site",
  entityId: "a",
  action: "update",
  name: "Rope Walk",
  at: "2026-11-01T10:00:00Z",
  mine: true,
  by: "abcd",
  undone: false,
  undoable: true,
  fields,
  ...more,
});
const mount = (from: number, to: number, more?: Partial<ChangeDto>) => change([{ field: "mountAglM", from, to }], more);

test.each([
  ["mountAglM", 7.5, "7.5 m", "24.6 ft"],
  ["nearPowerDbm", -3, "−3 dBm", "−3 dBm"],
  ["centreMhz", 5580, "5580 MHz", "5580 MHz"],
  ["growthMPerYear", 0.3, "0.3 m a year", "0.3 m a year"],
  ["latDeg", 47.3, "47.300000°", "47.300000°"],
  ["nearAimTiltDeg", 1.5, "1.5°", "1.5°"],
  ["temperatureC", 10, "10 °C", "10 °C"],
  ["kFactor", 4 / 3, "1.33", "1.33"],
  ["notes", "", "none", "none"],
  ["farMountId", null, "none", "none"],
  ["devices", { count: 3 }, "3", "3"],
  ["permissions", [], "none", "none"],
] as const)("%s of %j reads with its unit", (field, value, metric, imperial) => {
  expect(valueText("metric", field, value).replaceAll("\u00a0", " ")).toBe(metric);
  expect(valueText("imperial", field, value).replaceAll("\u00a0", " ")).toBe(imperial);
});

describe("an edit", () => {
  test("says what, from what to what; of a long list of fields the first; of a hidden one only its name", () => {
    expect(stepText(mount(7, 7.5)).replaceAll("\u00a0", " ")).toBe("site Rope Walk, changed: mount height 7 m to 7.5 m");
    expect(stepText(change([{ field: "mastCostPerM" }]))).toBe("site Rope Walk, changed: cost of mast");
    expect(stepText({ entity: "job", action: "update", name: "Merrow", fields: [{ field: "marginDb", from: 10, to: 8 }] })).toContain(
      "basis of the job, changed: margin",
    );
    const many = ["name", "notes", "power", "owner"].map((field) => ({ field, from: "a", to: "b" }));
    expect(stepText(change(many))).toBe("site Rope Walk, changed: name a to b, notes a to b, power a to b and more");
    expect(stepText({ entity: "import", action: "import", name: "town.csv" })).toBe("import town.csv, taken in");
  });
});

describe("folding", () => {
  test("forty nudges of one mast are one line, from the first height to the last", () => {
    const nudges = Array.from({ length: 40 }, (_, i) => mount(11 - (i + 1) * 0.1, 11 - i * 0.1));
    const [fold, ...others] = folded([change([{ field: "name", from: "A", to: "B" }]), ...nudges]).slice(1);
    expect(others).toEqual([]);
    expect(fold!.all).toHaveLength(40);
    expect(foldText(fold!).replaceAll("\u00a0", " ")).toBe("site Rope Walk, changed: mount height 7 m to 11 m (40 edits)");
  });

  test("another thing, another field, another hand or what was taken back stays apart", () => {
    const apart = [
      mount(1, 2),
      mount(1, 2, { entityId: "b" }),
      change([{ field: "notes", from: "", to: "x" }]),
      mount(1, 2, { by: "efgh" }),
      mount(1, 2, { undone: true }),
    ];
    expect(folded(apart)).toHaveLength(5);
  });

  test("many of a kind that were added are counted", () => {
    const added = ["a", "b", "c"].map((entityId) => change([], { action: "create", entity: "obstacle", entityId, name: "" }));
    expect(foldText(folded(added)[0]!)).toBe("3 obstacles, added");
  });
});
