import { describe, expect, test } from "vitest";
import { type Read, readAddress, readClock, readClockWithin, readFigures, readName, readNames, readSizes, readSubnet } from "./read";

const outOf = <T>(read: Read<T>): T | string => ("value" in read ? read.value : `! ${read.fault}`);

describe("what is typed", () => {
  test.each([
    ["9:30", "09:30"],
    [" 23:59 ", "23:59"],
    ["24:00", "! Write it as 09:30."],
    ["9.30", "! Write it as 09:30."],
    ["9:60", "! Write it as 09:30."],
  ])("clock %s", (text, want) => expect(outOf(readClock(text))).toBe(want));

  test("a clock time within two others", () => {
    expect(outOf(readClockWithin("12:00", null, "13:00"))).toBe("12:00");
    expect(outOf(readClockWithin("13:00", null, "13:00"))).toBe("! It must be before 13:00.");
    expect(outOf(readClockWithin("12:00", "12:00", null))).toBe("! It must be after 12:00.");
    expect(outOf(readClockWithin("noon", "12:00", null))).toBe("! Write it as 09:30.");
  });

  test.each([
    ["22 25; 30,5", [22, 25, 30.5]],
    ["", []],
    ["22 mm", '! "mm" is not a number.'],
    ["0", "! 0 must be above 0 and at most 60."],
    ["61", "! 61 must be above 0 and at most 60."],
  ])("sizes %s", (text, want) => expect(outOf(readSizes(60)(text))).toEqual(want));

  test.each([
    ["1 2 3", [1, 2, 3]],
    ["  ", null],
    ["1 2", "! 2 figures are typed, 3 are asked."],
    ["1", "! One figure is typed, 3 are asked."],
    ["1 x 3", '! "x" must be a number from 0 to 14.'],
    ["1 2 15", '! "15" must be a number from 0 to 14.'],
    ["-1 2 3", '! "-1" must be a number from 0 to 14.'],
  ])("figures %s", (text, want) => expect(outOf(readFigures(3, 14)(text))).toEqual(want));

  test("names, and a name that is needed", () => {
    expect(outOf(readNames(" Ana,, Bo ,"))).toEqual(["Ana", "Bo"]);
    expect(outOf(readName("  Roof "))).toBe("Roof");
    expect(outOf(readName("  "))).toBe("! A name is needed.");
  });

  test.each([
    ["192.168.41.1", "192.168.41.1"],
    ["", null],
    ["192.168.41", "! Write it as 10.0.0.1."],
    ["192.168.41.256", "! Write it as 10.0.0.1."],
    ["192.168.041.1", "! Write it as 10.0.0.1."],
  ])("address %s", (text, want) => expect(outOf(readAddress("10.0.0.1")(text))).toBe(want));

  test.each([
    ["192.168.41.0/24", "192.168.41.0/24"],
    ["192.168.41.0", "! Write it as 192.168.41.0/24."],
    ["192.168.41.0/33", "! Write it as 192.168.41.0/24."],
    ["192.168.300.0/24", "! Write it as 192.168.41.0/24."],
  ])("subnet %s", (text, want) => expect(outOf(readSubnet(text))).toBe(want));
});
