import { describe, expect, test } from "vitest";
import shipped from "../../demo/hardware.json" with { type: "json" };
import { hardwareFileSchema } from "./hardware";
import { HARDWARE_COLUMNS, readHardwareCsv } from "./hardware-csv";

const known = hardwareFileSchema.parse(shipped);
const read = (text: string) => readHardwareCsv(text, known);
const faultsOf = (text: string): string[] => {
  const r = read(text);
  return "faults" in r ? r.faults.map((f) => `${f.where}: ${f.reason}`) : [];
};
const fileOf = (text: string) => {
  const r = read(text);
  if ("faults" in r) throw new Error(JSON.stringify(r.faults));
  return r.file;
};

describe("own hardware as a table", () => {
  test("a radio has its figures, the modulations of the like one moved, and nothing of what that one is bought by", () => {
    const { radios, antennas } = fileOf(
      "name,like,gain_dbi,max_power_dbm,sensitivity_shift_db,widths_mhz,price_eur,stock,supplies\nKelp Panel,Kittiwake Panel,17.5,20,-1,20 40,88,3,802.3at passive48\n",
    );
    const like = known.radios.find((r) => r.name === "Kittiwake Panel")!;
    expect(antennas).toEqual([]);
    expect(radios[0]).toMatchObject({
      id: "kelp-panel",
      name: "Kelp Panel",
      family: like.family,
      channelWidthsMhz: [20, 40],
      priceEur: 88,
      stock: 3,
    });
    expect(radios[0]!.antenna.gainDbi).toBe(17.5);
    expect(radios[0]!.powerKinds).toEqual(["802.3at", "passive48"]);
    const down = like.modulations[0]!.maxTxPowerDbm - 20;
    radios[0]!.modulations.forEach((m, i) => {
      expect(m.maxTxPowerDbm).toBeCloseTo(like.modulations[i]!.maxTxPowerDbm - down, 9);
      expect(m.sensitivityDbm["20"]).toBeCloseTo(like.modulations[i]!.sensitivityDbm["20"]! - 1, 9);
    });
    expect([like.poleDiameterMm, like.sizeMm, like.temperatureC].every((x) => x !== undefined)).toBe(true);
    expect([radios[0]!.poleDiameterMm, radios[0]!.sizeMm, radios[0]!.temperatureC]).toEqual([undefined, undefined, undefined]);
  });

  test("what it hangs on and where its leads come out: by name and by a word of four, else the row says what it may be", () => {
    const { radios } = fileOf("name,like,bracket,connector_place\nKelp,kittiwake-panel,Kelp clamp,Behind\nWrack,kittiwake-panel,,\n");
    expect(radios.map((r) => [r.bracket, r.connectorPlace])).toEqual([
      ["Kelp clamp", "behind"],
      [undefined, undefined],
    ]);
    expect(faultsOf("name,like,connector_place\nKelp,kittiwake-panel,underneath\n")).toEqual([
      "row 2 Kelp: connector_place: is none of: below, behind, above, side",
    ]);
  });

  test("an antenna; semicolons, decimal commas and a byte order mark are read as well", () => {
    const { antennas } = fileOf(
      "\uFEFFkind;name;low_mhz;high_mhz;gain_dbi;beam_azimuth_deg;form\nantenna;Kelp Dish;5150;5850;24,5;8;dish\n",
    );
    expect(antennas[0]).toMatchObject({
      id: "kelp-dish",
      gainDbi: 24.5,
      azimuthBeamwidthDeg: 8,
      elevationBeamwidthDeg: 8,
      bandsMhz: [{ low: 5150, high: 5850 }],
    });
  });

  test("all or nothing: every fault names its row, its name and its column", () => {
    const faults = faultsOf(
      "name,like,gain_dbi,price_eur,radar_detection\nGood,kittiwake-panel,17,50,yes\nBad,kittiwake-panel,loud,-3,maybe\n,kittiwake-panel,17,,\nLost,nothing-like-it,17,,\n",
    );
    expect(faults).toEqual([
      'row 3 Bad: gain_dbi: "loud" is not a number in dBi',
      'row 3 Bad: radar_detection: "maybe" is not yes or no',
      "row 4: name: is empty",
      'row 5 Lost: like: "nothing-like-it" is no radio that is known',
    ]);
    expect(faultsOf("name,like,price_eur\nBad,kittiwake-panel,-3\n")).toEqual(["row 2 Bad: price_eur: a price is 0 or above"]);
    expect(faultsOf("kind,name,low_mhz,high_mhz,gain_dbi,beam_azimuth_deg\nantenna,A,5850,5150,20,8\n")).toEqual([
      "row 2 A: low_mhz: high must be above low",
    ]);
  });

  test("a name twice, a column that is none, a table without names, an empty one", () => {
    expect(faultsOf("name,like\nKelp,kittiwake-panel\nkelp,kittiwake-panel\n")).toEqual(['row 3 kelp: id: "kelp" is that of row 2, too']);
    expect(faultsOf("name,colour\nKelp,red\n")[0]).toContain('column "colour"');
    expect(faultsOf("gain_dbi\n5\n")).toEqual(['the first row: names no column "name"']);
    expect(faultsOf("name,like\n")).toEqual(["the file: holds no rows"]);
    expect(faultsOf("")).not.toEqual([]);
  });

  test("every column is read by one of its own kind of reader: a word where a figure belongs is refused", () => {
    const figures = Object.entries(HARDWARE_COLUMNS).filter(([, [, must]]) => must.startsWith("a number") || must.startsWith("a whole"));
    expect(figures.length).toBeGreaterThan(15);
    for (const [column] of figures)
      expect(faultsOf(`name,like,${column}\nKelp,kittiwake-panel,much\n`)[0]).toContain(`row 2 Kelp: ${column}: "much" is not`);
  });
});
