import { describe, expect, test } from "vitest";
import { noiseFloorDbm } from "../radio";
import { madeLink } from "../testing/air-scene";
import { gainFromAnywhere, heardBy, type Scan, type ScanRow, UNSAID_BUSY } from "./heard";

const at = (site: string, eastM: number) => ({ site, eastM, northM: 0, amslM: 20 });
const [near] = madeLink({ id: "a", near: at("mast", 0), far: at("shed", 900), channel: { centreMhz: 5500, widthMhz: 20 } }).radios;
const row = (fields: Partial<ScanRow> = {}): ScanRow => ({
  key: "k",
  name: "Loft",
  centreMhz: 5500,
  widthMhz: 20,
  levelDbm: -80,
  busyShare: 0.2,
  isNoise: false,
  ...fields,
});
const scan = (fields: Partial<Scan> = {}): Scan => ({ siteId: "mast", linkId: null, gainDbi: 2, rows: [row()], ...fields });

describe("what a scan says of a radio", () => {
  test("heard by the radio itself, aimed, it stands as it is", () => {
    expect(heardBy(near!, "a", [scan({ linkId: "a" })])).toEqual([
      { id: "k", name: "Loft", channel: { centreMhz: 5500, widthMhz: 20 }, levelDbm: -80, activity: 0.2 },
    ]);
  });

  test("heard with something in the hand it is turned to the antenna: between its back and its main lobe, nine in ten under it", () => {
    const [heard] = heardBy(near!, "a", [scan()]);
    const gain = gainFromAnywhere(near!);
    expect(gain.most).toBeCloseTo(19, 6);
    expect(gain.least).toBeLessThan(gain.planned);
    expect(gain.planned).toBeLessThan(gain.most);
    expect(heard!.levelDbm).toBeCloseTo(-80 - 2 + gain.planned, 9);
    // A scanner with more gain heard it louder: it is weaker at the antenna.
    expect(heardBy(near!, "a", [scan({ gainDbi: 12 })])[0]!.levelDbm).toBeCloseTo(heard!.levelDbm - 10, 9);
    const omni = gainFromAnywhere({ gainDbi: 6, pattern: null, axis: null });
    expect(omni).toEqual({ least: 6, planned: 6, most: 6 });
  });

  test("of several scans the worst counts, of another site none; what is not said to be busy is taken to be so for a third of the time", () => {
    const two = heardBy(near!, "a", [scan({ linkId: "a" }), scan({ linkId: "a", rows: [row({ levelDbm: -70, busyShare: null })] })]);
    expect(two).toHaveLength(1);
    expect(two[0]).toMatchObject({ levelDbm: -70, activity: UNSAID_BUSY.planned });
    expect(heardBy(near!, "a", [scan({ siteId: "shed" })])).toEqual([]);
  });

  test("a radio's own word for the noise counts by what lies above its floor, and only where it is its own", () => {
    const floor = noiseFloorDbm(20, 6);
    const noise = (levelDbm: number, linkId: string | null) =>
      heardBy(near!, "a", [scan({ linkId, rows: [row({ isNoise: true, levelDbm })] })]);
    expect(noise(floor, "a")).toEqual([]);
    expect(noise(floor + 10, null)).toEqual([]);
    const [above] = noise(floor + 10, "a");
    expect(10 ** (above!.levelDbm / 10)).toBeCloseTo(10 ** ((floor + 10) / 10) - 10 ** (floor / 10), 12);
    expect(above!.activity).toBe(1);
  });
});
