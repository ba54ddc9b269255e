import { expect, test } from "vitest";
import type { RoofEnd } from "@/contract";
import { aimCut } from "@/core/aim";
import { madeSweep, sheetPattern } from "@/core/aim/testing/sweeps";
import { type RoofEntry, replayRoof } from "@/core/roof";
import { phoneOf, untilPowered } from "@/core/roof/testing/logs";
import { aimOf, sayAim } from "./aim-said";

const BW = 19.1;
const pattern = sheetPattern("patch-panel", BW);
const end = (over: Partial<RoofEnd> = {}): RoofEnd => ({
  siteId: "s",
  name: "Rope Walk",
  aglM: 7,
  lookDeg: 36,
  declinationDeg: -5,
  lookTiltDeg: 0,
  ownAxis: false,
  unit: "Kittiwake Panel",
  antenna: "Kittiwake Panel",
  polarisation: "",
  poleMm: 50,
  level: { dbm: -58, lowDbm: -62, highDbm: -55, leastDbm: -89 },
  azimuth: aimCut(pattern, "azimuth"),
  tilt: aimCut(pattern, "tilt"),
  landmarks: [],
  farEnd: { name: "Harbour Office", offDeg: 0, elevationDeg: 0, distanceM: 900, hidden: false },
  risks: [],
  exposureM: null,
  access: "",
  ...over,
});
const own = replayRoof({ near: { turns: true }, far: { turns: true } }, []).near;
const aim = (e = end()) => aimOf(e, "azimuth", own, false, "scale")!;
const readings = (rows: readonly (readonly [deg: number, dbm: number | null])[]): RoofEntry[] => {
  const p = phoneOf("one");
  return rows.map(([angleDeg, levelDbm]) => p.write({ end: "near", act: "reading", axis: "azimuth", angleDeg, levelDbm }));
};
/** Levels of the sheet's own cut with the peak at a turn, at a level. */
const over = (peakDeg: number, peakDbm: number, degs: readonly number[]): RoofEntry[] =>
  readings(degs.map((d) => [d, Math.round(peakDbm + pattern.relativeDb(d - peakDeg, 0))] as const));

test("before anything is read, and with fewer than five places, no angle is told", () => {
  expect(sayAim(aim(), "azimuth", []).head).toBe("Begin to sweep");
  const few = sayAim(aim(), "azimuth", over(0, -58, [-10, -5, 0, 5]));
  expect([few.head, few.turn, few.words[0]]).toEqual(["Keep sweeping", null, expect.stringContaining("1 more place before")]);
});

test("five readings that end on the peak of the main lobe, within the band, say so", () => {
  const said = sayAim(aim(), "azimuth", over(0, -58, [-15, -10, -5, 5, 0]));
  expect([said.kind, said.head]).toEqual(["peak", "This is the peak"]);
  expect(said.words[0]).toContain("Within the expected band");
});

test("a peak under the plan is called one, with by how much and what to look for", () => {
  const said = sayAim(aim(), "azimuth", over(0, -72, [-15, -10, -5, 5, 10, 0]));
  expect(said.kind).toBe("peak");
  expect(said.words[0]).toMatch(/1\d dB under the plan; tilt or the other end/);
});

test("left is left and right is right, as seen from behind, with the angle from where it stands", () => {
  for (const [peak, word] of [
    [-12, "Turn left"],
    [12, "Turn right"],
  ] as const) {
    const said = sayAim(aim(), "azimuth", over(peak, -58, [-10, -5, 0, 5, 10, 0]));
    expect(said.head).toBe(word);
    expect(Math.sign(said.turn!.deg)).toBe(Math.sign(peak));
    expect(Math.abs(said.turn!.deg - peak)).toBeLessThan(BW * 0.15);
  }
  const tilt = aimOf(end(), "tilt", own, false, "level")!;
  expect(sayAim(tilt, "tilt", over(-8, -58, [-10, -5, 0, 5, 10, 0])).head).toBe("Tilt down");
});

test("while a false peak may be the peak neither is told; the reading that would tell is one that was not taken", () => {
  const degs = [12, 9, 6, 3, 0, -3, -7, -10];
  const p = phoneOf("one");
  untilPowered(p, "near");
  const coarse = replayRoof({ near: { turns: true }, far: { turns: true } }, p.known).near;
  const by = aimOf(end(), "azimuth", coarse, false, "scale")!;
  const said = sayAim(by, "azimuth", over(-31, -58, degs));
  expect([said.kind, said.head, said.turn]).toEqual(["unsure", "Peak or false peak?", null]);
  expect(Math.min(...degs.map((d) => Math.abs(d - said.readAtDeg!)))).toBeGreaterThan(3);
  const further = sayAim(by, "azimuth", over(-31, -58, [...degs, -14]));
  expect([further.kind, further.head]).toEqual(["turn", "Turn left"]);
  expect(-14 + further.turn!.deg).toBeCloseTo(-31, -0.7);
});

test("from the second lobe it is told that it is a false peak, and where the true one lies", () => {
  const said = sayAim(aim(), "azimuth", over(-40, -58, [-60, -50, -40, -30, -20, -10, -8]));
  expect(said.kind).toBe("turn");
  expect(-8 + said.turn!.deg).toBeCloseTo(-40, -0.7);
});

test("steps that miss the beam are told, with the step that does not; silence is told as that", () => {
  expect(sayAim(aim(), "azimuth", over(0, -58, [-60, -30, 0, 30, 60])).head).toBe("Too coarse");
  expect(sayAim(aim(), "azimuth", readings([-15, -10, -5, 0, 5].map((d) => [d, null] as const))).head).toBe("Nothing heard");
});

test("one misread figure is named by its number", () => {
  const rows = over(4, -58, [-15, -10, -5, 0, 5, 10, 15]);
  const bad = rows.map((r, i) => (i === 2 ? { ...r, levelDbm: -95 } : r));
  const said = sayAim(aim(), "azimuth", bad);
  expect(said.misfit).toBe(2);
  expect(said.words.join(" ")).toContain("Reading 3 agrees with none");
});

test("under three degrees of beam the screw is asked for, unless it is how the angle was taken", () => {
  const narrow = sheetPattern("dish", 2);
  const e = end({ azimuth: aimCut(narrow, "azimuth"), tilt: aimCut(narrow, "tilt") });
  expect(aimOf(e, "azimuth", own, false, "scale")!.screw).toBe(true);
  expect(aimOf(e, "azimuth", own, false, "screw")!.screw).toBe(false);
  expect(aim().screw).toBe(false);
});

test("an antenna without a lobe, or a link without a level, has no aim", () => {
  expect(aimOf(end({ azimuth: null }), "azimuth", own, false, "scale")).toBeNull();
  expect(aimOf(end({ level: null }), "azimuth", own, false, "scale")).toBeNull();
});

test("how the coarse aim was taken enters: by compass the start is known better than by nothing", () => {
  const p = phoneOf("one");
  untilPowered(p, "near");
  const ticked = p.known.map((e) => (e.step === "coarse" ? { ...e, way: "phone" as const } : e));
  const by = replayRoof({ near: { turns: true }, far: { turns: true } }, ticked).near;
  expect(aimOf(end(), "azimuth", by, false, "scale")!.expectation.startSigmaDeg).toBe(6);
  expect(aimOf(end(), "tilt", by, false, "level")!.expectation.startSigmaDeg).toBeNull();
});

test("what travels to the phone fits as well as the pattern itself", () => {
  let agree = 0;
  let told = 0;
  for (let seed = 1; seed <= 40; seed++) {
    const sweep = madeSweep(seed, BW, -20);
    if (sweep.readings.length < 6) continue;
    const said = sayAim(
      aim(
        end({
          level: { dbm: sweep.plannedDbm, lowDbm: sweep.plannedDbm - 4, highDbm: sweep.plannedDbm + 4, leastDbm: sweep.leastHeardDbm },
        }),
      ),
      "azimuth",
      readings(sweep.readings.map((r) => [r.angleDeg, r.levelDbm] as const)),
    );
    if (said.turn === null && said.kind !== "peak") continue;
    told++;
    const at = sweep.readings[sweep.readings.length - 1]!.angleDeg + (said.turn?.deg ?? 0);
    agree += Number(Math.abs(at - sweep.peakDeg) < 0.4 * BW);
  }
  expect(told).toBeGreaterThan(10);
  expect(agree / told).toBeGreaterThan(0.85);
});
