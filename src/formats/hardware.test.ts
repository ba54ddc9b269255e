import { describe, expect, test } from "vitest";
import catalogue from "../../demo/hardware.json" with { type: "json" };
import { readHardwareFile } from ".";

const first = catalogue.radios[0]!;

describe("hardware file", () => {
  test("the catalogue that ships is read whole, and a sheet written is the sheet read", () => {
    const read = readHardwareFile(JSON.stringify(catalogue));
    if (!("file" in read)) throw new Error(JSON.stringify(read.faults));
    expect(read.file.radios).toHaveLength(31);
    expect(read.file.antennas).toHaveLength(14);
    expect(read.file.radios[0]).toEqual(first);
  });

  test.each([
    ["not json at all", "the file", "is not JSON"],
    ["{}", "the file", "holds no radios"],
    [JSON.stringify({ radios: [first, { ...first, noiseFigureDb: "six" }] }), "radios[1] dovekie-pair: noiseFigureDb", "number"],
    [
      JSON.stringify({ radios: [{ ...first, bandsMhz: [{ low: 5000, high: 4000 }] }] }),
      "radios[0] dovekie-pair: bandsMhz.0",
      "high must be above low",
    ],
    [JSON.stringify({ antennas: [{ id: "Bad Id", name: "x" }] }), "antennas[0] Bad Id: id", "small letters"],
  ])("%s: the fault names row, field and reason", (text, where, reason) => {
    const read = readHardwareFile(text);
    if (!("faults" in read)) throw new Error("taken");
    expect(read.faults[0]!.where).toBe(where);
    expect(read.faults[0]!.reason).toContain(reason);
  });
});
