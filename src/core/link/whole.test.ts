import fc from "fast-check";
import { describe, expect, test } from "vitest";
import { body, box, CLIMATE, end, POLICY, plan, profile, radio, WATER } from "../testing/scene";
import {
  type Direction,
  evaluateLink,
  explainDirection,
  explainPath,
  explainTerm,
  explanationText,
  type LinkPlan,
  monteCarlo,
  type PathProfile,
  pathStateOf,
  preparePath,
  raiseToMeet,
  resultOf,
  serviceOf,
  widthSweep,
} from ".";

const flat = profile(3000, () => 0);
const base = plan(end("A", 20), end("B", 20));
const value = (d: Direction | null, id: string): number => d!.terms.find((t) => t.id === id)!.valueDb;
const row = body({
  ...box(1498, 1503, -18, 18),
  kind: "row",
  name: "Limes",
  heightM: 19.5,
  heightSigmaM: 1,
  growthMPerYear: 0.4,
  crownBaseM: 3,
});

describe("clearance policies", () => {
  test("two conditions: the larger height governs, both are told, and the low k governs a long path", () => {
    const long = profile(60_000, () => 0, [], 2000);
    const two: LinkPlan = { ...base, policy: { ...POLICY, clearance: "two-condition" } };
    const r = evaluateLink({ ...two, near: end("A", 80), far: end("B", 80) }, long);
    const [median, low] = r.clearance.conditions;
    expect([median!.policyShare, low!.policyShare]).toEqual([1, 0.3]);
    expect(low!.kFactor).toBeCloseTo(0.82, 2);
    expect(low!.extended).toBe(true);
    expect(r.clearance.worst!.missM).toBe(Math.max(median!.worst!.missM, low!.worst!.missM));
    const raise = raiseToMeet({ ...two, near: end("A", 200), far: end("B", 200) }, preparePath(two, long), "both", 2026);
    if (raise !== null) {
      const raised = evaluateLink({ ...two, near: end("A", 200 + raise), far: end("B", 200 + raise) }, long);
      for (const c of raised.clearance.conditions) expect(c.worst!.missM).toBeLessThanOrEqual(0.0005);
    }
  });

  test("an isolated edge needs only the bare line at low k, and the tropics ask 0.6 above 30 km", () => {
    const wall = profile(40_000, () => 0, [body({ ...box(20_000, 20_001, -90, 90), heightM: 120 })], 2000);
    const at = (zone: "temperate" | "tropical") =>
      evaluateLink(
        { ...base, near: end("A", 250), far: end("B", 250), policy: { ...POLICY, clearance: "two-condition", climateZone: zone } },
        wall,
      ).clearance.conditions[1]!.policyShare;
    expect(at("tropical")).toBe(0.6);
    // A lone wall on flat ground is isolated, though the flat ground by itself would be extended.
    expect(at("temperate")).toBe(0);
    const low = { ...base, near: end("A", 60), far: end("B", 60), policy: { ...POLICY, clearance: "two-condition" as const } };
    const flatGround = evaluateLink(
      low,
      profile(40_000, () => 0, [], 2000),
    );
    expect(flatGround.clearance.conditions[1]!).toMatchObject({ policyShare: 0.3, extended: true });
    // A row of sheds of one height over a fifth of the path is extended, too.
    const sheds = Array.from({ length: 80 }, (_, i) =>
      body({ ...box(16_000 + i * 100, 16_090 + i * 100, -90, 90), id: `s${i}`, heightM: 120 }),
    );
    const long = evaluateLink(
      { ...base, near: end("A", 250), far: end("B", 250), policy: { ...POLICY, clearance: "two-condition" } },
      profile(40_000, () => 0, sheds, 2000),
    );
    expect(long.clearance.conditions[1]!).toMatchObject({ policyShare: 0.3, extended: true });
  });

  test("trees: strict judges them, through plans with their loss below 10 GHz and is refused above", () => {
    const q = profile(3000, () => 0, [row]);
    const through: LinkPlan = { ...base, policy: { ...POLICY, trees: "through" } };
    expect(evaluateLink(base, q).clearance.verdict).toBe("short");
    const r = evaluateLink(through, q);
    expect(r.clearance.verdict).toBe("clear");
    expect(r.clearance.treesInZone).toEqual(["b"]);
    expect(value(r.service.toFar, "vegetation")).toBeLessThan(-2);
    const sixty = { centreMhz: 24_125, widthMhz: 40 };
    const high = evaluateLink({ ...through, ...sixty }, q);
    expect(high.clearance.verdict).toBe("short");
    expect(high.notes.map((w) => w.code)).toContain("through-refused");
  });

  test("out of leaf the same row takes less by FITU-R, and the band reaches from bare to full leaf", () => {
    const q = profile(3000, () => 0, [body({ ...box(1490, 1510, -40, 40), kind: "row", heightM: 40 })]);
    const of = (leaf: "in" | "out") =>
      evaluateLink({ ...base, policy: { ...POLICY, leaf, trees: "through" } }, q).service.toFar!.terms.find((t) => t.id === "vegetation")!;
    const [inLeaf, out] = [of("in"), of("out")];
    expect(inLeaf.inputs.leastDb).toBeCloseTo(Number(out.inputs.leastDb), 9);
    expect(inLeaf.worseByDb).toBeGreaterThan(0);
    expect(inLeaf.betterByDb).toBeGreaterThan(0);
  });

  test("an end inside a wood looks out through it by the woodland form", () => {
    const wood = body({ ...box(-20, 30, -40, 40), kind: "wood", heightM: 25 });
    const r = evaluateLink(
      { ...base, policy: { ...POLICY, trees: "through" } },
      profile(3000, () => 0, [wood]),
    );
    const term = r.service.toFar!.terms.find((t) => t.id === "vegetation")!;
    expect(term.clause).toContain("P.833 §2.1");
    expect(term.inputs.depthM).toBeCloseTo(30, 6);
  });
});

describe("terms of the level", () => {
  test("the terms add up to the level, whatever is set", () => {
    fc.assert(
      fc.property(
        fc.constantFrom(null, "clear-glass", "brick"),
        fc.double({ min: 0, max: 5, noNaN: true }),
        fc.double({ min: -20, max: 20, noNaN: true }),
        fc.constantFrom("dual linear H+V", "dual slant +45/-45", "single linear V", "single linear H", "circular"),
        (material, lossDb, tiltDeg, polarisation) => {
          const far = end("B", 20, { connectorLossDb: lossDb, feederLossDb: lossDb, radio: radio({ polarisation }) });
          const near = end("A", 20, {
            barrier: material === null ? null : { kind: "material", material },
            aim: { azimuthDeg: 95, tiltDeg },
          });
          const r = evaluateLink(plan(near, far), flat);
          for (const d of [r.service.toFar!, r.service.toNear!]) {
            expect(d.levelDbm).toBeCloseTo(
              d.terms.reduce((s, t) => s + t.valueDb, 0),
              9,
            );
            expect(d.bandLowDbm).toBeLessThan(d.levelDbm);
            expect(d.bandHighDbm).toBeGreaterThan(d.levelDbm);
          }
          expect(JSON.stringify(r)).not.toMatch(/NaN/);
        },
      ),
      { seed: 6, numRuns: 60 },
    );
  });

  test("aim: three decibels at half the beamwidth, and a finding beyond", () => {
    const off = evaluateLink(plan(end("A", 20, { aim: { azimuthDeg: 90 + 9.5, tiltDeg: null } }), end("B", 20)), flat);
    expect(value(off.service.toFar, "aim-out")).toBeCloseTo(-3.01, 1);
    const far = evaluateLink(plan(end("A", 20, { aim: { azimuthDeg: 130, tiltDeg: null } }), end("B", 20)), flat);
    expect(far.notes.find((w) => w.code === "out-of-beam")!.values).toMatchObject({ azimuthOffDeg: -40, elevationOffDeg: 0, end: "near" });
    expect(far.service.verdict).not.toBe("clear");
  });

  test("a wall nobody knows leaves the verdict Unknown; crossed single waves lose 20 dB", () => {
    const r = evaluateLink(plan(end("A", 20), end("B", 20, { barrier: { kind: "unknown", building: "traditional" } })), flat);
    expect(r.service.verdict).toBe("unknown");
    const of = (polarisation: string) => end("X", 20, { radio: radio({ polarisation }) });
    const crossed = evaluateLink(plan(of("single linear V"), of("single linear H")), flat);
    expect(value(crossed.service.toFar, "polarisation")).toBe(-20);
    const dual = evaluateLink(plan(of("dual linear H+V"), of("dual slant +45/-45")), flat);
    expect(value(dual.service.toFar, "polarisation")).toBeCloseTo(0, 9);
  });

  test("interference lifts the noise and what each modulation needs; doubling the width costs 3 dB", () => {
    const quiet = evaluateLink(base, flat).service.toFar!;
    const loud = evaluateLink(plan(end("A", 20), end("B", 20, { interferenceDbm: quiet.noiseDbm })), flat).service.toFar!;
    expect(loud.noiseDbm - quiet.noiseDbm).toBeCloseTo(10 * Math.log10(2), 9);
    expect(loud.ladder[0]!.needsDbm - quiet.ladder[0]!.needsDbm).toBeCloseTo(10 * Math.log10(2), 9);
    const wide = radio({
      modulations: radio().modulations.map((m) => ({
        ...m,
        phyRateMbps: { "40": 30, "80": 65 },
        sensitivityDbm: { "40": -92, "80": -89 },
      })),
    });
    const rows = widthSweep(
      plan(end("A", 20, { radio: wide }), end("B", 20, { radio: wide }), { centreMhz: 5600 }),
      pathStateOf(base, preparePath(base, flat)),
    );
    const [forty, eighty] = [rows.find((w) => w.widthMhz === 40)!, rows.find((w) => w.widthMhz === 80)!];
    expect(forty.snrDb! - eighty.snrDb!).toBeCloseTo(10 * Math.log10(2), 6);
    expect(eighty.highMhz - eighty.lowMhz).toBe(80);
  });

  test("water under the path widens the band and leaves the median alone; inland there is none", () => {
    const dry = evaluateLink({ ...base, water: { ...WATER, surface: "none" } }, flat);
    const wet = evaluateLink(base, flat);
    expect(dry.reflection).toBeNull();
    expect(wet.reflection).toMatchObject({ surface: "sea" });
    expect(wet.service.toFar!.levelDbm).toBe(dry.service.toFar!.levelDbm);
    expect(wet.service.toFar!.bandLowDbm).toBeLessThan(dry.service.toFar!.bandLowDbm);
    const inland = profile(3000, () => 40);
    expect(evaluateLink(base, inland).reflection).toBeNull();
    expect(evaluateLink({ ...base, water: { ...WATER, surface: "fresh" } }, inland).reflection).toMatchObject({ surface: "fresh" });
  });
});

describe("availability", () => {
  test("slower steps hold more of the year, and rates at 99, 99.9, 99.99 % fall", () => {
    const long = evaluateLink(
      { ...base, near: end("A", 60, { txPowerDbm: 25 }), far: end("B", 60, { txPowerDbm: 25 }), centreMhz: 5500 },
      profile(25_000, () => 0, [], 900),
    );
    const s = long.service.toFar!.staircase!;
    expect(s.stairs.length).toBeGreaterThan(0);
    for (let i = 1; i < s.stairs.length; i++) {
      if (s.stairs[i]!.usableMbps > s.stairs[i - 1]!.usableMbps)
        expect(s.stairs[i]!.holdsPercent ?? 99).toBeLessThanOrEqual((s.stairs[i - 1]!.holdsPercent ?? 99) + 1e-9);
    }
    expect(s.at99Mbps).toBeGreaterThanOrEqual(s.at999Mbps);
    expect(s.at999Mbps).toBeGreaterThanOrEqual(s.at9999Mbps);
    expect(long.multipath.negligible).toBe(false);
    expect(
      evaluateLink(
        base,
        profile(1000, () => 0),
      ).multipath.negligible,
    ).toBe(true);
  });

  test("more rain, more minutes; wet covers at 60 GHz take their part", () => {
    const eider = radio({
      bandsMhz: [{ low: 57_000, high: 71_000 }],
      channelWidthsMhz: [2160],
      chains: 1,
      standard: "ad",
      maxOperatingInputDbm: -33,
      minTxPowerDbm: -10,
      antenna: { kind: "integrated", form: "dish", gainDbi: 38, azimuthBeamwidthDeg: 2, elevationBeamwidthDeg: 2 },
      modulations: [
        { index: 1, modulation: "BPSK", codeRate: "1/2", maxTxPowerDbm: 10, phyRateMbps: { "2160": 385 }, sensitivityDbm: { "2160": -68 } },
      ],
    });
    const of = (rain: number): number =>
      evaluateLink(
        plan(end("A", 20, { radio: eider, txPowerDbm: 10 }), end("B", 20, { radio: eider, txPowerDbm: 10 }), {
          centreMhz: 60_480,
          widthMhz: 2160,
          climate: { ...CLIMATE, rainRate001MmH: rain },
        }),
        profile(900, () => 0),
      ).service.toFar!.outage!.minutesAYear!;
    expect(of(60)).toBeGreaterThan(of(28));
    expect(of(28)).toBeGreaterThan(of(10));
  });
});

describe("doubt", () => {
  const q: PathProfile = profile(430, (x) => (x < 200 ? 3.5 : 5), [
    body({ ...box(288, 292, -18, 18), kind: "row", name: "Poplars", heightM: 9.3, baseAmslM: 5, heightSigmaM: 0.93, crownBaseM: 2 }),
  ]);

  test.each([7, 8.5, 9.5, 10.5, 12, 14])(
    "far mast at %f m: the chance by 4000 draws is that of the quick sum within 4 cases in 100",
    (mount) => {
      const p = plan(end("A", 11), end("B", mount));
      const path = preparePath(p, q);
      const drawn = monteCarlo(p, path, { draws: 4000, seed: 3 })!;
      expect(Math.abs(drawn.probabilityClear - evaluateLink(p, q).clearance.probability!)).toBeLessThan(0.04);
      expect(Math.abs(drawn.spareM.p50 + evaluateLink(p, q).clearance.worst!.missM)).toBeLessThan(0.12);
    },
  );

  test("the same seed gives the same figures, another seed nearly so; the clear level's middle is the expected one", () => {
    const p = plan(end("A", 20), end("B", 20), { water: { ...WATER, surface: "none" } });
    const path = preparePath(
      p,
      profile(2000, () => 5),
    );
    const [a, b, c] = [1, 1, 2].map((seed) => monteCarlo(p, path, { seed })!);
    expect(a).toEqual(b);
    // The middle of 500 draws of 2.5 dB is itself known to 0.14 dB; five sigma of the difference of two.
    expect(Math.abs(a!.levelToFarDbm.p50 - c!.levelToFarDbm.p50)).toBeLessThan(1);
    // Aim only takes: 12 x 0.15^2 / 3 in each of two axes at both ends is 0.36 dB; and the middle of 500 draws.
    expect(Math.abs(a!.levelToFarDbm.p50 - (a!.expectedToFarDbm - 0.36))).toBeLessThan(0.6);
    // Independent: power 1, two gains 0.7, reading 2 dB, and a little aim: sigma about 2.5 dB, so 80 % within 6.4 dB.
    expect(a!.levelToFarDbm.p90 - a!.levelToFarDbm.p10).toBeGreaterThan(5.6);
    expect(a!.levelToFarDbm.p90 - a!.levelToFarDbm.p10).toBeLessThan(7.4);
  });

  test("the poplars' height decides the clearance; unknown ground has no spread", () => {
    const p = plan(end("A", 11), end("B", 9.5));
    const drawn = monteCarlo(p, preparePath(p, q))!;
    const most = [...drawn.contributions].sort((x, y) => y.ofClearance - x.ofClearance)[0]!;
    expect(most.input).toBe("obstacle heights");
    expect(most.ofClearance).toBeGreaterThan(0.8);
    const hole = profile(430, (x) => (x > 100 && x < 150 ? Number.NaN : 4));
    expect(monteCarlo(p, preparePath(p, hole))).toBeNull();
  });
});

test("second opinions on one wall, one hill, two walls: each near the whole method where it is meant for it", () => {
  const masts = plan(end("A", 10), end("B", 10));
  const wall = (x: number, id: string) => body({ ...box(x, x + 0.5, -300, 300), id, name: id, heightM: 22 });
  const one = evaluateLink(
    masts,
    profile(4000, () => 0, [wall(2000, "w")], 900),
  ).opinions!;
  // 600 m wide it is not endless: it stands 0.02 m lower in the profile.
  expect(Math.abs(one.heightM - 12 - (2000 * 2000) / (2 * 8_494_667))).toBeLessThan(0.03);
  expect([one.roundedDb, one.twoEdgesDb]).toEqual([null, null]);
  expect(Math.abs(one.edgeDb - one.edgeExactDb)).toBeLessThan(0.3);
  const two = evaluateLink(
    masts,
    profile(4000, () => 0, [wall(1300, "v"), wall(2700, "w")], 900),
  ).opinions!;
  expect(two.twoEdgesDb!).toBeGreaterThan(two.edgeDb);
  expect([two.atM, two.secondAtM].map((m) => Math.round(m! / 100)).sort((a, b) => a - b)).toEqual([13, 27]);
  const hill = evaluateLink(
    masts,
    profile(4000, (x) => 30 - (x - 2000) ** 2 / 8000, [], 900),
  ).opinions!;
  // The parabola x^2 / 8000 has a radius of 4000 m at its apex, which lies between two points 4.4 m apart.
  expect(Math.abs(hill.radiusM! / 4000 - 1)).toBeLessThan(0.1);
  expect(hill.roundedDb!).toBeGreaterThan(hill.edgeDb);
  expect(evaluateLink(plan(end("A", 60), end("B", 60)), flat).opinions).toBeNull();
});

test("every explanation fills its sentence, names a clause, and holds no NaN", () => {
  const q = profile(3000, (x) => (x < 300 ? 4 : 0), [row, body({ ...box(800, 812, 0.5, 20), id: "g", heightM: 40, name: "Gable" })]);
  const p = plan(end("A", 15, { barrier: { kind: "material", material: "brick" } }), end("B", 15), { needToFarMbps: 20 });
  const r = evaluateLink(p, q);
  const all = [...r.service.toFar!.terms.map(explainTerm), ...explainDirection(r.service.toFar!, p), ...explainPath(r)];
  expect(all.length).toBeGreaterThan(20);
  for (const e of all) {
    const text = explanationText(e);
    expect(text, e.id).not.toMatch(/[{}]|NaN|undefined|Infinity/);
    expect(e.clause, e.id).not.toBe("");
  }
});

test("trying a radio without detail gives the same level, rate and verdict", () => {
  const path = preparePath(base, flat);
  const state = pathStateOf(base, path);
  const [quick, whole] = [serviceOf(base, state, false).service.toFar!, serviceOf(base, state).service.toFar!];
  const now = widthSweep(base, state).find((w) => w.widthMhz === base.widthMhz)!;
  expect(now.verdict).toBe(resultOf(base, state).service.verdict);
  expect([quick.levelDbm, quick.plannedMbps, quick.held?.index]).toEqual([whole.levelDbm, whole.plannedMbps, whole.held?.index]);
});
