import fc from "fast-check";
import { describe, expect, test } from "vitest";
import { seededRandom } from "../../core/units";
import { type HeardNetwork, iwScanText, iwSurveyText } from "./iw-write";
import { readScan } from "./read-scan";
import { addressKey, hashedName, MOST_ROWS } from "./rows";
import { FIVE_GHZ, SAMPLES, SIX_GHZ, SURVEY_AND_CUT, TWO_GHZ_CRLF, WIDE } from "./samples";
import { scanCsv } from "./scan-csv";

describe("the text of a scan", () => {
  test("5 GHz: width by the operation that is told, how busy by the load", () => {
    const read = readScan(FIVE_GHZ, false);
    expect(read).toMatchObject({ form: "scan", faults: [] });
    expect(read.rows).toEqual([
      {
        key: addressKey("02:00:00:00:10:01"),
        name: "Loft upstairs",
        centreMhz: 5210,
        widthMhz: 80,
        levelDbm: -61,
        busyShare: 102 / 255,
        isNoise: false,
      },
      {
        key: addressKey("02:00:00:00:10:02"),
        name: "Back office",
        centreMhz: 5240,
        widthMhz: 20,
        levelDbm: -78,
        busyShare: null,
        isNoise: false,
      },
    ]);
  });

  test("2.4 GHz with carriage returns: a hidden name is none, 40 MHz downwards lies 10 below", () => {
    const { rows, faults } = readScan(TWO_GHZ_CRLF, false);
    expect(faults).toEqual([]);
    expect(rows[0]).toMatchObject({ name: "", centreMhz: 2427, widthMhz: 40, levelDbm: -44 });
    expect(rows[1]).toMatchObject({ centreMhz: 2412, widthMhz: 20 });
  });

  test("6 GHz by its first 20 MHz; 160 MHz by either form", () => {
    expect(readScan(SIX_GHZ, false).rows).toMatchObject([{ centreMhz: 5975, widthMhz: 20, name: "Gallery" }]);
    expect(readScan(WIDE, false).rows).toMatchObject([
      { centreMhz: 5570, widthMhz: 160 },
      { centreMhz: 5570, widthMhz: 160 },
    ]);
  });

  test("a survey gives noise and how busy a channel is; what is missing or cut off is told with its line", () => {
    const { rows, faults } = readScan(SURVEY_AND_CUT, false);
    expect(rows).toMatchObject([
      { isNoise: true, centreMhz: 5500, levelDbm: -93 },
      { name: "Sail loft", busyShare: 0.25, isNoise: false },
    ]);
    expect(faults).toEqual([
      { line: 10, reason: 'a channel without its line "frequency"' },
      { line: 16, reason: 'a network without its line "signal" in dBm' },
    ]);
  });

  test("names are left out where that is asked, and the address never stays", () => {
    const { rows } = readScan(FIVE_GHZ, true);
    expect(rows.map((r) => r.name)).toEqual(["", ""]);
    expect(JSON.stringify(rows)).not.toContain("02:00:00");
    expect(rows[0]!.key).toBe(addressKey("02:00:00:00:10:01".toUpperCase()));
    expect(rows[0]!.key).toMatch(/^[0-9a-f]{10}$/);
  });

  test("what the simulated scanner writes is read back as it was", () => {
    const primary = fc.constantFrom(5180, 5260, 5500, 5660, 2412, 5955);
    const network = fc
      .record({
        n: fc.integer({ min: 0, max: 255 }),
        name: fc.string({ minLength: 0, maxLength: 20, unit: fc.constantFrom(..."abcdefgh XYZ019") }),
        primaryMhz: primary,
        widthMhz: fc.constantFrom(20, 40, 80, 160) as fc.Arbitrary<HeardNetwork["widthMhz"]>,
        levelDbm: fc.integer({ min: -100, max: -20 }),
        busy: fc.option(fc.integer({ min: 0, max: 255 }), { nil: null }),
      })
      .map(({ n, name, primaryMhz, widthMhz, levelDbm, busy }): HeardNetwork => {
        const wide = primaryMhz < 3000 ? 20 : widthMhz;
        return {
          address: `02:00:00:00:00:${n.toString(16).padStart(2, "0")}`,
          name: name.trim(),
          primaryMhz,
          centreMhz: primaryMhz + (wide === 20 ? 0 : wide / 2 - 10),
          widthMhz: wide,
          levelDbm,
          busyShare: busy === null ? null : busy / 255,
        };
      });
    fc.assert(
      fc.property(fc.array(network, { minLength: 1, maxLength: 8 }), (list) => {
        const read = readScan(iwScanText("wlan0", list), false);
        expect(read.faults).toEqual([]);
        expect(read.rows).toEqual(
          list.map((n) => ({
            key: addressKey(n.address),
            name: n.name,
            centreMhz: n.centreMhz,
            widthMhz: n.widthMhz,
            levelDbm: n.levelDbm,
            busyShare: n.busyShare,
            isNoise: false,
          })),
        );
      }),
      { numRuns: 200 },
    );
    const survey = readScan(iwSurveyText("wlan0", [{ mhz: 5500, noiseDbm: -95, activeMs: 100, busyMs: 40 }]), false);
    expect(survey).toMatchObject({ form: "survey", rows: [{ centreMhz: 5500, levelDbm: -95, isNoise: true }], faults: [] });
  });

  test("2,000 mutants of the samples: no crash, every row within bounds, or a sentence", () => {
    const u = seededRandom(14);
    const texts = Object.values(SAMPLES);
    const junk = ["\u0000", "NaN", "99999999", "-", ":", "BSS ", "\n\n", "freq: ", "\t", "é", "Survey data from ", "1e999", "dBm"];
    for (let i = 0; i < 2000; i++) {
      let text = texts[Math.floor(u() * texts.length)]!;
      for (let k = 0; k <= Math.floor(u() * 4); k++) {
        const at = Math.floor(u() * text.length);
        const cut = Math.floor(u() * 30);
        text =
          u() < 0.5 ? text.slice(0, at) + text.slice(at + cut) : text.slice(0, at) + junk[Math.floor(u() * junk.length)] + text.slice(at);
      }
      const read = readScan(text, u() < 0.5);
      for (const r of read.rows) {
        expect(r.centreMhz).toBeGreaterThanOrEqual(2300);
        expect(r.centreMhz).toBeLessThanOrEqual(72_000);
        expect(r.levelDbm).toBeGreaterThanOrEqual(-120);
        expect(r.levelDbm).toBeLessThanOrEqual(20);
        if (r.busyShare !== null) expect(r.busyShare).toBeLessThanOrEqual(1);
      }
      if (read.rows.length === 0) expect(read.faults.length).toBeGreaterThan(0);
      for (const f of read.faults) expect(f.reason).not.toBe("");
    }
  });

  test("more than can be taken is said", () => {
    const many = Array.from(
      { length: MOST_ROWS + 3 },
      (_, i) =>
        `BSS 02:00:00:00:${(i >> 8).toString(16).padStart(2, "0")}:${(i & 255).toString(16).padStart(2, "0")}(on w)\n\tfreq: 5500\n\tsignal: -70.00 dBm`,
    );
    const read = readScan(many.join("\n"), false);
    expect(read.rows).toHaveLength(MOST_ROWS);
    expect(read.faults[0]!.reason).toContain("only the first");
  });
});

describe("a scan as a table", () => {
  test("columns by their usual names, commas for points, percent for shares", () => {
    const read = readScan('Frequency;Bandwidth;RSSI;SSID;utilization\n5500;40;-71,5;"Sail; loft";45\n2412;;-60;;\n', false);
    expect(read).toMatchObject({ form: "csv", faults: [] });
    expect(read.rows).toMatchObject([
      { centreMhz: 5500, widthMhz: 40, levelDbm: -71.5, name: "Sail; loft", busyShare: 0.45 },
      { centreMhz: 2412, widthMhz: 20, levelDbm: -60, name: "", busyShare: null },
    ]);
  });

  test.each([
    ["mhz,dbm\n91,-70", "line 2: the frequency 91 MHz is outside 2300 to 72000 MHz"],
    ["mhz,width,dbm\n5500,37,-70", "line 2: the width 37 MHz is none of 5, 10, 20, 40, 80, 160, 320, 2160 MHz"],
    ["mhz,dbm\n5500,loud", "line 2: the level NaN dBm is outside -120 to 20 dBm"],
    ["a,b\n1,2", "line 1: the first line must name a column for the frequency (mhz) and one for the level (dbm)"],
    ["mhz,dbm", "line 1: the table has no row"],
    ["", "line 1: the first line must name a column for the frequency (mhz) and one for the level (dbm)"],
  ])("%j is told: %s", (text, said) => {
    const { rows, faults } = readScan(text, false);
    expect(rows).toEqual([]);
    expect(`line ${faults[0]!.line}: ${faults[0]!.reason}`).toBe(said);
  });

  test("what is written out is read again, with strangers' names hashed, and hashed once only", () => {
    const { rows } = readScan(FIVE_GHZ, false);
    const csv = scanCsv(rows);
    expect(csv).not.toContain("Loft upstairs");
    const again = readScan(csv, false);
    expect(again.rows.map(({ name: _n, ...r }) => r)).toEqual(rows.map(({ name: _n, ...r }) => r));
    expect(again.rows[0]!.name).toBe(hashedName("Loft upstairs"));
    expect(hashedName(hashedName("Loft upstairs"))).toBe(hashedName("Loft upstairs"));
    expect(hashedName("")).toBe("");
  });
});
