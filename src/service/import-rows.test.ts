import { describe, expect, test } from "vitest";
import type { ObstaclesOptions, SitesOptions } from "../contract";
import type { RawFeature } from "../formats";
import { featureOf, metresOf, obstacleOf, siteOf } from "./import-rows";

const OPTIONS: ObstaclesOptions = {
  what: "obstacles",
  epsg: null,
  nameColumn: "label",
  kind: "building",
  kindColumn: null,
  heightColumn: "h",
  heightUnit: "ft",
  heightDefaultM: null,
  heightSigmaM: 1,
  growthMPerYear: 0.4,
  widthM: 4,
  freeBelowM: 6,
  surveyedOn: "2026-01-01",
};
const square = [
  [0, 0],
  [0, 1],
  [1, 1],
  [1, 0],
].map(([x, y]) => ({ latDeg: 47 + y! / 1000, lonDeg: -19 + x! / 1000 }));
const area = (properties: RawFeature["properties"]): RawFeature => ({
  row: 3,
  properties,
  shape: { type: "polygon", outline: square, holes: [] },
});
const made = (properties: RawFeature["properties"], more: Partial<ObstaclesOptions> = {}) =>
  obstacleOf(area(properties), { ...OPTIONS, ...more });

describe("obstacles out of a file", () => {
  test.each([
    ["a number in feet", { h: 20 }, 6.096],
    ["text with a unit", { h: "20 ft" }, 6.096],
    ["a decimal comma", { h: "20,5" }, 20.5 * 0.3048],
    ["metres in a column said to be feet", { h: "12 m" }, 12],
    ["feet written close", { h: "39ft" }, 39 * 0.3048],
  ])("%s", (_what, properties, heightM) => {
    expect(made(properties)).toMatchObject({ value: { heightM: expect.closeTo(heightM, 9), heightSource: "imported", baseAmslM: null } });
  });
  test("a missing height is refused unless one was said, and then told as typed", () => {
    expect(made({ h: "" })).toEqual({ reason: "it has no height" });
    expect(made({ h: "high" })).toEqual({ reason: '"high" is no height' });
    expect(made({ h: "7 storeys" })).toEqual({ reason: '"7 storeys" is no height' });
    expect(made({ h: 0 })).toEqual({ reason: "its height is 0, which says that it is not known" });
    expect(made({ h: "0" }, { heightDefaultM: 7 })).toMatchObject({ value: { heightM: 7, heightSource: "typed" } });
    expect(made({ h: null }, { heightDefaultM: 7 })).toMatchObject({ value: { heightM: 7, heightSource: "typed" } });
  });
  test("a kind that is none, and a height beyond all bounds, are refused by name", () => {
    expect(made({ h: 20, kind2: "castle" }, { kindColumn: "kind2" })).toEqual({ reason: '"castle" is no kind of obstacle' });
    expect(made({ h: 9000 })).toEqual({ reason: "height must be 1000 m or less" });
    expect(made({ h: 20, k: "Hedge" }, { kindColumn: "k" })).toMatchObject({ value: { kind: "hedge" } });
  });
  test("free air is for spans alone, growth for what was said to grow", () => {
    expect(made({ h: 40 }, { kind: "line" })).toMatchObject({ value: { freeBelowM: 6 } });
    expect(made({ h: 40 })).toMatchObject({ value: { freeBelowM: 0, growthMPerYear: 0.4 } });
  });
  test("lines and points get the width that was said", () => {
    const line = obstacleOf({ ...area({ h: 10 }), shape: { type: "line", points: square.slice(0, 2) } }, OPTIONS);
    const tree = obstacleOf({ ...area({ h: 10 }), shape: { type: "point", at: square[0]!, heightM: null } }, OPTIONS);
    expect("value" in line && line.value.outline).toHaveLength(4);
    expect("value" in tree && tree.value.outline).toHaveLength(12);
  });
  test("what this program wrote is read as it was, whatever is said beside it", () => {
    const own = {
      name: "Mill",
      kind: "wall",
      heightM: "3.25",
      baseAmslM: "4.5",
      crownBaseM: "0",
      freeBelowM: "0",
      growthMPerYear: "0",
      heightSigmaM: "0.2",
      surveyedOn: "2025-05-05",
      source: "drawn",
      heightSource: "two sightings",
    };
    expect(made(own, { heightDefaultM: 99, kind: "wood" })).toMatchObject({
      value: {
        name: "Mill",
        kind: "wall",
        heightM: 3.25,
        baseAmslM: 4.5,
        growthMPerYear: 0,
        heightSigmaM: 0.2,
        heightSource: "two sightings",
        surveyedOn: "2025-05-05",
      },
    });
  });
});

describe("sites and named ground out of a file", () => {
  const SITES: SitesOptions = { what: "sites", epsg: null, nameColumn: "n", heightColumn: "mast", heightUnit: "m", heightDefaultM: 6 };
  const point = (properties: RawFeature["properties"]): RawFeature => ({
    row: 1,
    properties,
    shape: { type: "point", at: square[0]!, heightM: null },
  });
  test("a site is a named point with a mount within reason", () => {
    expect(siteOf(point({ n: "A", mast: 9 }), SITES)).toMatchObject({ value: { name: "A", mountAglM: 9, mountingPoints: [] } });
    expect(siteOf(point({ n: "A", mast: "" }), SITES)).toMatchObject({ value: { mountAglM: 6 } });
    expect(siteOf(point({ n: " ", mast: 9 }), SITES)).toEqual({ reason: "it has no name" });
    expect(siteOf(point({ n: "A", mast: 900 }), SITES)).toEqual({ reason: "a mount 900 m above ground is outside 0 to 300 m" });
    expect(siteOf(area({ n: "A" }), SITES)).toEqual({ reason: "a site is a point, this is a line or an area" });
    expect(siteOf(point({ name: "A", mountAglM: 5, mountingPoints: "[{]" }), SITES)).toEqual({
      reason: "its mounting points cannot be read",
    });
  });
  test("an area that names ground gives its rim", () => {
    const rim = featureOf(area({ n: "Fell" }), "n");
    expect("value" in rim && rim.value.points).toHaveLength(5);
    expect(featureOf(area({}), "n")).toEqual({ reason: "it has no name" });
  });
  test("feet of either kind", () => {
    expect(metresOf(100, "ft")).toBeCloseTo(30.48, 9);
    expect(metresOf(100, "us-ft")).toBeCloseTo(30.480061, 6);
  });
});
