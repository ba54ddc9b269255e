import { describe, expect, test } from "vitest";
import { PARTS, STEP_IDS } from "@/core/roof";
import { phoneOf } from "@/core/roof/testing/logs";
import { angleWords, entryText, PART_WORDS, STEP_WORDS, typedLevel, typedTurn, waitsText } from "../../wording/roof";
import { pitchHz } from "./awake";
import { headingOf } from "./compass";
import { placeOf } from "./roof-place";

describe("typed in a glove", () => {
  test.each([
    ["61", -61],
    ["-61", -61],
    ["−61,5", -61.5],
    [" 61.5 ", -61.5],
    ["", null],
    ["6", -6],
    ["4", null],
    ["0", null],
    ["161", null],
    ["-6l", null],
    ["1e2", null],
    ["61.55", null],
  ])("%s as a level is %s", (text, level) => expect(typedLevel(text)).toBe(level));

  test.each([
    ["12", 12],
    ["0", 0],
    ["1,25", 1.25],
    ["-7", -7],
    ["181", null],
    ["", null],
    ["12°", null],
    ["1.255", null],
  ])("%s as a turn is %s", (text, deg) => expect(typedTurn(text)).toBe(deg));
});

test("every step and part has its words, and no two steps the same", () => {
  expect(new Set(STEP_IDS.map((s) => STEP_WORDS[s][0])).size).toBe(STEP_IDS.length);
  for (const p of PARTS) expect(PART_WORDS[p].length).toBeGreaterThan(3);
});

test("an entry is told by what was done, also a level that was not heard and a peak that somebody insisted on", () => {
  const p = phoneOf("one");
  const text = (e: Parameters<typeof p.write>[0]) => entryText(p.write(e));
  expect(text({ end: "near", act: "reading", axis: "azimuth", angleDeg: -11, levelDbm: null })).toBe("to the side, 11° left: not heard");
  expect(text({ end: "near", act: "peak", axis: "tilt", levelDbm: -57.5, words: "ice" })).toBe("peak up and down: −57.5 dBm, though: ice");
  expect(text({ end: "near", act: "told", step: "again", words: "Bela", levelDbm: -56 })).toBe(
    "Read again of the other end, told by Bela: −56 dBm",
  );
  expect([angleWords("tilt", -0.5), angleWords("azimuth", 0), waitsText([]), waitsText([5, 9])]).toEqual([
    "0.5° down",
    "at the start",
    "",
    "opens after 5, 9",
  ]);
});

test("the tone rises with the level, and stays within what is heard", () => {
  const levels = [-130, -95, -80, -60, -40, 0].map(pitchHz);
  expect(levels).toEqual([...levels].sort((a, b) => a - b));
  expect([levels[0], levels[5]]).toEqual([220, 1320]);
});

test("a bearing is taken from a sensor that knows north, and from no other", () => {
  expect(headingOf({ absolute: true, alpha: 90 })).toBe(270);
  expect(headingOf({ absolute: false, alpha: 90 })).toBeNull();
  expect(headingOf({ absolute: false, alpha: 90, webkitCompassHeading: 41 })).toBe(41);
  expect(headingOf({ absolute: true, alpha: null })).toBeNull();
});

test("the place behind the hash is an end of a link, or nothing", () => {
  const id = "1599720f-3f40-405b-99e4-b2ceb9b1b12f";
  expect(placeOf(`#${id}/far`)).toEqual({ linkId: id, end: "far" });
  for (const hash of ["", "#", `#${id}`, `#${id}/up`, `#${id}/far/x`, "#../near"]) expect(placeOf(hash)).toBeNull();
});
