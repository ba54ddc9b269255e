/* One meaning of kept, one verdict; ports, rules and the bounds of the year, over whole evaluations. */
import { describe, expect, test } from "vitest";
import { sceneOf } from "../testing/random-scene";
import { CLIMATE, end, POLICY, plan, profile, radio } from "../testing/scene";
import {
  apply,
  DEFAULT_DRAWS,
  decidingDraws,
  evaluateLink,
  evaluatePrepared,
  findings,
  type LinkPlan,
  monteCarlo,
  observe,
  pathStateOf,
  preparePath,
  verdictOf,
  widthSweep,
} from ".";

const level = profile(140, () => 4);
const fast = radio({
  channelWidthsMhz: [20, 40, 80],
  modulations: [
    {
      index: 0,
      modulation: "BPSK",
      codeRate: "1/2",
      maxTxPowerDbm: 25,
      phyRateMbps: { "40": 30, "80": 65 },
      sensitivityDbm: { "40": -92, "80": -89 },
    },
    {
      index: 4,
      modulation: "16-QAM",
      codeRate: "3/4",
      maxTxPowerDbm: 23,
      phyRateMbps: { "40": 180, "80": 390 },
      sensitivityDbm: { "40": -79, "80": -76 },
    },
    {
      index: 9,
      modulation: "256-QAM",
      codeRate: "5/6",
      maxTxPowerDbm: 19.5,
      phyRateMbps: { "40": 400, "80": 866 },
      sensitivityDbm: { "40": -64, "80": -61 },
    },
  ],
});
const pair = (r = fast, fields: Partial<LinkPlan> = {}, powerDbm = -5): LinkPlan =>
  plan(end("A", 10, { radio: r, txPowerDbm: powerDbm }), end("B", 10, { radio: r, txPowerDbm: powerDbm }), { widthMhz: 80, ...fields });

describe("ports", () => {
  test("a full-duplex port caps each way alone: 20 + 60 over a 100 Mbps unit at 140 m leaves room", () => {
    const r = evaluateLink(pair({ ...fast, ethernetPorts: [{ speedMbps: 100 }] }, { needToFarMbps: 20, needToNearMbps: 60 }), level);
    const kept = r.service.kept!;
    // 100 Mbps of Ethernet pass 94.1 of TCP (1448 of 1538 octets): 60 of them are asked.
    expect(kept.multiple).toBeGreaterThan(1);
    expect(1 / Math.max(60 / 94.15, kept.usedShare)).toBeCloseTo(kept.multiple, 2);
    expect(kept.toNear.portMbps).toBeCloseTo((100 * 1448) / 1538, 6);
    expect(findings(pair(), preparePath(pair(), level), r).map((f) => f.code)).not.toContain("too-slow");
  });

  test("the port that the cable goes into counts: the powered one unless another is told", () => {
    const two = {
      ...fast,
      ethernetPorts: [
        { speedMbps: 1000, powerIn: false },
        { speedMbps: 100, powerIn: true },
      ],
    };
    const of = (portIndex: number | null) => {
      const p = pair(two, { needToFarMbps: 20, needToNearMbps: 20 });
      return evaluateLink({ ...p, near: { ...p.near, portIndex }, far: { ...p.far, portIndex } }, level).service.kept!.toFar.portMbps;
    };
    expect(of(null)).toBeCloseTo(94.15, 1);
    expect(of(0)).toBeCloseTo(941.5, 0);
    expect(of(1)).toBeCloseTo(94.15, 1);
  });

  test("a faster port never changes the stated downtime of a need that both pass", () => {
    const rain = { ...CLIMATE, rainRate001MmH: 60 };
    const big = radio({
      ...fast,
      bandsMhz: [{ low: 57_000, high: 71_000 }],
      channelWidthsMhz: [2160],
      standard: "ad",
      antenna: { kind: "integrated", form: "dish", gainDbi: 38, azimuthBeamwidthDeg: 2, elevationBeamwidthDeg: 2 },
      minTxPowerDbm: -10,
      maxOperatingInputDbm: -20,
      modulations: [1, 4, 8, 12].map((index, i) => ({
        index,
        modulation: `MCS ${index}`,
        codeRate: "1/2",
        maxTxPowerDbm: 10,
        phyRateMbps: { "2160": [385, 1155, 2310, 4620][i]! },
        sensitivityDbm: { "2160": [-68, -64, -61, -53][i]! },
      })),
    });
    const of = (speedMbps: number) => {
      const p = pair(
        { ...big, ethernetPorts: [{ speedMbps }] },
        { centreMhz: 60_480, widthMhz: 2160, needToFarMbps: 600, climate: rain },
        10,
      );
      return evaluateLink(
        p,
        profile(900, () => 0),
      ).service.toFar!;
    };
    const [slow, quick] = [of(1000), of(10_000)];
    expect(quick.outage!.minutesAYear).toBe(slow.outage!.minutesAYear);
    // And it is no more than what the staircase says of a rate that is greater than the need.
    const stair = slow
      .staircase!.stairs.filter((s) => s.usableMbps >= 600)
      .reduce((a, b) => ((b.holdsPercent ?? 0) > (a.holdsPercent ?? 0) ? b : a));
    expect(slow.outage!.percent!).toBeLessThanOrEqual(100 - stair.holdsPercent! + 1e-9);
  });
});

describe("what the year's method knows", () => {
  const sixty = (gainDbi: number) =>
    radio({
      bandsMhz: [{ low: 57_000, high: 71_000 }],
      channelWidthsMhz: [2160],
      standard: "ad",
      chains: 1,
      minTxPowerDbm: -10,
      maxOperatingInputDbm: -20,
      antenna: { kind: "integrated", form: "dish", gainDbi, azimuthBeamwidthDeg: 2, elevationBeamwidthDeg: 2 },
      modulations: [
        { index: 1, modulation: "BPSK", codeRate: "1/2", maxTxPowerDbm: 10, phyRateMbps: { "2160": 385 }, sensitivityDbm: { "2160": -68 } },
      ],
    });
  const outageAt = (marginDb: number) => {
    const q = profile(800, () => 0);
    const at = (gain: number) =>
      evaluateLink(pair(sixty(gain), { centreMhz: 60_480, widthMhz: 2160, policy: { ...POLICY, domain: "FCC-like" } }, 10), q).service
        .toFar!;
    const base = at(30);
    return at(30 + (marginDb - base.ladder[0]!.marginDb) / 2).outage!;
  };

  test("no cliff beside the wet covers: from 0 to 1 % the bound is carried, never a figure", () => {
    for (const margin of [0.5, 2.9, 3.05, 3.3]) {
      const o = outageAt(margin);
      expect(o.marginDb).toBeCloseTo(margin, 6);
      expect([o.percent, o.minutesAYear, o.rainPercent], `${margin}`).toEqual([null, null, null]);
    }
    expect(outageAt(-0.5).percent).toBe(100);
    let before = Number.POSITIVE_INFINITY;
    for (let margin = 4; margin < 60; margin += 0.5) {
      const o = outageAt(margin);
      if (o.percent === null) continue;
      expect(o.percent).toBeLessThanOrEqual(Math.min(1, before) + 1e-9);
      before = o.percent;
    }
    expect(outageAt(80)).toMatchObject({ rarer: true });
  });

  test("a stair that holds an unknown share counts for none of the marks, and a share beyond the method keeps nothing", () => {
    const q = profile(800, () => 0);
    const p = pair(sixty(24), { centreMhz: 60_480, widthMhz: 2160, needToFarMbps: 50 }, 10);
    const s = evaluateLink(p, q).service;
    for (const d of [s.toFar!, s.toNear!]) {
      for (const stair of d.staircase!.stairs) if (stair.holdsPercent === null) expect(d.staircase!.at99Mbps).toBe(0);
    }
    expect(evaluateLink({ ...p, yearPercent: 99.9999 }, q).service.kept!.multiple).toBe(0);
  });
});

describe("kept", () => {
  test("a link whose three older answers differ: margin without a year, one way without a school, both ways without a year", () => {
    // 60 GHz over 1.1 km in heavy rain: 10 dB hold in clear air, 99.9 % of the year asks for more.
    const r = radio({
      bandsMhz: [{ low: 57_000, high: 71_000 }],
      channelWidthsMhz: [2160],
      standard: "ad",
      chains: 1,
      minTxPowerDbm: -10,
      maxOperatingInputDbm: -20,
      ethernetPorts: [{ speedMbps: 10_000 }],
      antenna: { kind: "integrated", form: "dish", gainDbi: 38, azimuthBeamwidthDeg: 2, elevationBeamwidthDeg: 2 },
      modulations: [
        { index: 1, modulation: "BPSK", codeRate: "1/2", maxTxPowerDbm: 10, phyRateMbps: { "2160": 385 }, sensitivityDbm: { "2160": -68 } },
        {
          index: 9,
          modulation: "QPSK",
          codeRate: "3/4",
          maxTxPowerDbm: 10,
          phyRateMbps: { "2160": 2502 },
          sensitivityDbm: { "2160": -59 },
        },
      ],
    });
    const p = pair(
      r,
      { centreMhz: 64_800, widthMhz: 2160, needToFarMbps: 500, needToNearMbps: 300, climate: { ...CLIMATE, rainRate001MmH: 60 } },
      10,
    );
    const q = profile(1100, () => 0);
    const s = evaluateLink(p, q).service;
    const { toFar, toNear } = s;
    const margin10 = toFar!.rates.filter((x) => x.rung.marginDb >= 10).map((x) => x.airtime.tcpMbps);
    const oneWay = Math.max(...margin10) / 500;
    const bothWays = 1 / (500 / toFar!.plannedMbps + 300 / toNear!.plannedMbps);
    expect(s.kept!.toFar.yearMarginDb!).toBeGreaterThan(10);
    const kept = s.kept!.multiple;
    expect(new Set([oneWay, bothWays, kept].map((x) => x.toFixed(2))).size).toBe(3);
    // By hand: both ways share the air on the rung whose margin carries the year, 70 % of it planned.
    const rung = toFar!.rates.filter((x) => x.rung.marginDb >= s.kept!.toFar.yearMarginDb!).at(-1);
    const planned = rung === undefined ? 0 : rung.airtime.airTcpMbps * 0.7;
    expect(kept).toBeCloseTo(planned / 800, 6);
  });

  test("verdict of the service: under 1 Short, kept but in fewer than 90 of 100 draws Tight, else Clear", () => {
    const tryNeed = (needMbps: number) => {
      const p = plan(end("A", 20, { txPowerDbm: 11 }), end("B", 20, { txPowerDbm: 11 }), {
        needToFarMbps: needMbps,
        needToNearMbps: 1,
        water: { surface: "none", tideRangeM: 0, roughnessM: 0 },
      });
      const path = preparePath(
        p,
        profile(1900, () => 0),
      );
      const result = evaluatePrepared(p, path);
      const drawn = decidingDraws(p, path)!;
      const found = observe(p, result, () => 0, { serves: drawn.probabilityServes });
      return {
        kept: result.service.kept!.multiple,
        serves: drawn.probabilityServes!,
        draws: drawn.draws,
        usual: monteCarlo(p, path)!.probabilityServes!,
        many: () => monteCarlo(p, path, { draws: 40_000, seed: 71 })!.probabilityServes!,
        verdict: verdictOf(found, "service"),
        codes: found.map((f) => f.code),
      };
    };
    const most = tryNeed(1).kept;
    const over = tryNeed(most * 2);
    expect(over.kept).toBeLessThan(1);
    expect(over.verdict).toBe("short");
    // Just what the present rung carries: in some draws it falls to a slower one.
    const just = Array.from({ length: 40 }, (_, i) => tryNeed(most * (0.3 + i / 60))).filter((x) => x.kept >= 1);
    for (const x of just) expect(x.verdict, JSON.stringify(x)).toBe(x.serves >= 0.9 ? "clear" : "tight");
    // So near to 90 in 100 that 500 draws cannot tell, 4,000 decide, and lie by the share of ten times as many.
    const near = just.filter((x) => x.usual >= 0.88 && x.usual <= 0.92);
    expect(near.length).toBeGreaterThan(0);
    for (const x of just) expect(x.draws).toBe(near.includes(x) ? 4000 : 500);
    expect(Math.abs(near[0]!.serves - near[0]!.many())).toBeLessThan(0.02);
    expect(just.some((x) => x.verdict === "tight")).toBe(true);
    expect(just.some((x) => x.verdict === "clear")).toBe(true);
  });
});

describe("one verdict", () => {
  test("is the worst of the findings and nothing else, on 150 seeded scenes", () => {
    for (let seed = 1; seed <= 150; seed++) {
      const s = sceneOf(seed, seed % 4, 2);
      const p = { ...s.plan, needToFarMbps: seed % 3 === 0 ? null : 20 + seed, near: { ...s.plan.near, txPowerDbm: (seed % 7) * 5 } };
      const path = preparePath(p, s.profile);
      const r = evaluatePrepared(p, path);
      const found = findings(p, path, r);
      expect(r.verdict, `seed ${seed}`).toBe(verdictOf(found));
      expect(found[0]!.verdict, `seed ${seed}`).toBe(r.verdict);
      if (r.clearance.verdict !== "clear")
        expect(found.some((f) => f.about === "clearance" && f.verdict === r.clearance.verdict)).toBe(true);
    }
  });

  test("a clear path with an overloaded receiver is Short", () => {
    const p = pair(radio(), { widthMhz: 40, needToFarMbps: 10, needToNearMbps: 10 }, 25);
    const r = evaluateLink(p, level);
    expect([r.clearance.verdict, r.service.verdict, r.verdict]).toEqual(["clear", "short", "short"]);
  });

  test("the width's own row of the sweep has the link's verdict", () => {
    const p = pair(fast, { needToFarMbps: 20, needToNearMbps: 60 });
    const path = preparePath(p, level);
    const r = evaluatePrepared(p, path);
    expect(widthSweep(p, pathStateOf(p, path)).find((w) => w.widthMhz === 80)!.verdict).toBe(r.service.verdict);
  });
});

describe("the level is that of the power that is set", () => {
  test.each([-5, 0, 7, 14, 19, 25])("columns add up to the level at %i dBm, over and under what the rules allow", (txPowerDbm) => {
    const p = pair(radio(), { widthMhz: 40, needToFarMbps: 5, needToNearMbps: 5 }, txPowerDbm);
    const r = evaluateLink(
      p,
      profile(3000, () => 0),
    );
    for (const d of [r.service.toFar!, r.service.toNear!]) {
      expect(d.terms.reduce((s, t) => s + t.valueDb, 0)).toBeCloseTo(d.levelDbm, 9);
      expect(d.terms[0]!.valueDb).toBeLessThanOrEqual(txPowerDbm);
    }
    const limit = r.service.toFar!.regulation;
    if (limit.status !== "allowed") throw new Error("refused");
    const over = findings(
      p,
      preparePath(
        p,
        profile(3000, () => 0),
      ),
      r,
    ).find((f) => f.code === "over-rule");
    expect(over !== undefined).toBe(r.service.toFar!.sentPowerDbm > limit.maxConductedDbm);
    if (over !== undefined) {
      expect(over.verdict).toBe("short");
      const mend = over.mends.find((m) => m.code === "legal-power")!.action!;
      if (mend.type !== "power") throw new Error("no power");
      expect(mend.nearDbm).toBeLessThanOrEqual(limit.maxConductedDbm);
      expect(mend.nearDbm).toBeGreaterThan(limit.maxConductedDbm - 1);
    }
  });
});

describe("mends suffice", () => {
  test("every button does away with its finding, on 80 seeded scenes, and asks for nothing the rules forbid", () => {
    let tried = 0;
    for (let seed = 1; seed <= 80; seed++) {
      const s = sceneOf(seed, 1 + (seed % 2), 2);
      const p = {
        ...s.plan,
        needToFarMbps: 40,
        needToNearMbps: 10,
        near: { ...s.plan.near, mountMaxAglM: s.plan.near.mountAglM + 3, txPowerDbm: seed % 5 === 0 ? 25 : 11 },
      };
      const path = preparePath(p, s.profile);
      for (const f of findings(p, path, evaluatePrepared(p, path))) {
        for (const m of f.mends) {
          if (m.action === null || m.action.type === "look") continue;
          tried++;
          const after = apply(p, m.action);
          const r = evaluateLink(after, s.profile);
          const now = observe(after, r, () => 0, null);
          expect(
            now.some((x) => x.code === f.code && x.verdict === f.verdict),
            `seed ${seed}: ${f.code} by ${m.code}`,
          ).toBe(false);
          if (f.code !== "over-rule")
            expect(now.filter((x) => x.code === "over-rule").length).toBeLessThanOrEqual(
              evaluateLink(p, s.profile).verdict === "short" ? 2 : 0,
            );
          expect(after.near.mountAglM).toBeLessThanOrEqual(p.near.mountMaxAglM + 1e-9);
        }
      }
    }
    expect(tried).toBeGreaterThan(40);
  });

  test("what is not enough says what it brings of what lacks and is no button", () => {
    const far = plan(end("A", 200, { txPowerDbm: 5 }), end("B", 200, { txPowerDbm: 5 }), { needToFarMbps: 5, needToNearMbps: 5 });
    const q = profile(40_000, () => 0, [], 800);
    const path = preparePath(far, q);
    const weak = findings(far, path, evaluatePrepared(far, path)).find((f) => f.code === "too-weak" || f.code === "thin-margin")!;
    const told = weak.mends.find((m) => m.brings !== null);
    expect(weak.mends.every((m) => m.action === null || m.action.type === "look")).toBe(told !== undefined);
    if (told !== undefined) expect(told.brings!.db).toBeLessThan(told.brings!.ofDb);
  });
});

test("500 draws or more stand behind the drawn share", () => expect(DEFAULT_DRAWS).toBeGreaterThanOrEqual(500));
