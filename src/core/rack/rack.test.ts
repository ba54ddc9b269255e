/*
 * The rack against the plain way: every candidate as a whole evaluation of its own, every pair of settings tried. What is
 * written here shares with the rack only what a person would look up: data sheets, rules and the evaluation of a link.
 */
import fc from "fast-check";
import { describe, expect, test } from "vitest";
import { decidingDraws, evaluateLink, type LinkPlan, type LinkResult, lawfulPowers, type PathProfile, preparePath } from "../link";
import type { Radio } from "../radio";
import { sceneOf } from "../testing/random-scene";
import { reversed } from "../testing/reverse";
import { end, plan, profile, radio, seeded } from "../testing/scene";
import { planOfCandidate } from "./candidates";
import { serves } from "./order";
import { type OpenRack, openRack } from "./rack";
import { type Candidate, NO_LIMITS, type Rack, type RackLimits } from "./types";
import { USUAL_GUARD, type WeighedOption } from "./weigh";

const level =
  (heightM = 0) =>
  (): number =>
    heightM;

/** Radios of all sizes from a seed: one family or two, integrated, with coarse power settings so that every pair can be tried. */
const madeRadios = (seed: number): Radio[] => {
  const u = seeded(seed);
  const pick = <T>(of: readonly T[]): T => of[Math.floor(u() * of.length)]!;
  return Array.from({ length: 4 }, (_, i) => {
    const sixty = u() < 0.25;
    const widths = sixty ? [2160] : pick([[20, 40], [40], [20, 40, 80]]);
    const base = sixty ? -66 : -90;
    const most = 10 + Math.floor(u() * 16);
    const by = (rate: number, needs: number) => ({
      phyRateMbps: Object.fromEntries(widths.map((w) => [String(w), (rate * w) / (sixty ? 1080 : 20)])),
      sensitivityDbm: Object.fromEntries(widths.map((w) => [String(w), needs + (sixty ? 0 : 10 * Math.log10(w / 20))])),
    });
    return radio({
      id: `r${i}`,
      name: `Radio ${i}`,
      family: sixty ? "sixty" : pick(["one", "two"]),
      standard: sixty ? "ad" : pick(["n", "ac", "ax"]),
      bandsMhz: sixty
        ? [{ low: 57_240, high: 65_880 }]
        : pick([[{ low: 5150, high: 5850 }], [{ low: 5725, high: 5850 }], [{ low: 2400, high: 2483.5 }]]),
      channelWidthsMhz: widths,
      chains: sixty ? 1 : 2,
      polarisation: sixty ? "single linear V" : "dual linear H+V",
      duplex: sixty ? "TDD, scheduled" : "TDD, contention",
      minTxPowerDbm: Math.floor(u() * 6),
      txPowerStepDb: 5,
      noiseFigureDb: 5 + 4 * u(),
      maxOperatingInputDbm: -36 + 12 * u(),
      radarDetection: u() < 0.7,
      antenna: {
        kind: "integrated",
        form: "panel",
        gainDbi: 8 + 22 * u(),
        azimuthBeamwidthDeg: 10 + 20 * u(),
        elevationBeamwidthDeg: 10 + 20 * u(),
      },
      modulations: [
        { index: 0, modulation: "BPSK", codeRate: "1/2", maxTxPowerDbm: most, ...by(14, base) },
        { index: 4, modulation: "16-QAM", codeRate: "3/4", maxTxPowerDbm: most - 1.5, ...by(86, base + 13) },
        { index: 7, modulation: "64-QAM", codeRate: "5/6", maxTxPowerDbm: most - 3, ...by(144, base + 20) },
      ],
      ethernetPorts: [{ speedMbps: pick([100, 1000]) }],
      maxLinkKm: pick([1, 5, 30]),
      ...(u() < 0.8 ? { priceEur: 20 + Math.floor(200 * u()) } : {}),
      sizeMm: { width: 80 + 600 * u(), height: 80 + 600 * u() },
    });
  });
};

interface Job {
  readonly plan: LinkPlan;
  readonly profile: PathProfile;
  readonly radios: readonly Radio[];
}

const jobOf = (seed: number): Job => {
  const radios = madeRadios(seed);
  const u = seeded(seed + 5000);
  const scene = sceneOf(seed, seed % 3, seed % 2 === 0 ? 0 : 2);
  const start = { radio: radios[0]! };
  const width = radios[0]!.channelWidthsMhz[0]!;
  return {
    radios,
    profile: scene.profile,
    plan: plan(
      { ...scene.plan.near, ...start },
      { ...scene.plan.far, ...start },
      {
        centreMhz: radios[0]!.bandsMhz[0]!.low + width / 2 + 5,
        widthMhz: width,
        needToFarMbps: Math.floor(2 + 60 * u()),
        needToNearMbps: Math.floor(2 + 60 * u()),
        climate: scene.plan.climate,
        water: scene.plan.water,
      },
    ),
  };
};

const rackOf = (job: Job, limits: RackLimits = NO_LIMITS): { open: OpenRack; rack: Rack; all: Candidate[] } => {
  const open = openRack(job.plan, job.profile, { radios: job.radios, antennas: [] });
  const rack = open.arrange(limits);
  return { open, rack, all: everyOf(rack) };
};

const everyOf = (rack: Rack): Candidate[] => [
  ...rack.rows.flatMap((r) => [r.best, ...r.widths, ...r.beats]),
  ...rack.rejected.flatMap((g) => g.candidates),
];

const withPowers = (option: WeighedOption, nearDbm: number, farDbm: number): LinkPlan => ({
  ...option.plan,
  near: { ...option.plan.near, txPowerDbm: nearDbm },
  far: { ...option.plan.far, txPowerDbm: farDbm },
});

/** What a way keeps in nine cases of ten, read off a whole evaluation: the fastest rung inside its window with the guard on both sides. */
const sureRate = (result: LinkResult, which: "toFar" | "toNear"): number => {
  const d = result.service[which]!;
  const kept = result.service.kept![which];
  return Math.max(
    0,
    ...d.rates.map(({ rung, airtime }) =>
      rung.levelDbm + USUAL_GUARD.highDb <= rung.ceilingDbm && rung.marginDb - USUAL_GUARD.lowDb >= kept.neededMarginDb
        ? airtime.airTcpMbps * 0.7
        : 0,
    ),
  );
};

const settingsOf = (r: Radio, lawfulDbm: number): number[] => {
  const out: number[] = [];
  for (let dbm = r.minTxPowerDbm; dbm <= lawfulDbm + 1e-9; dbm += r.txPowerStepDb) out.push(dbm);
  return out.length === 0 ? [r.minTxPowerDbm] : out;
};

describe("against the plain way, on 30 seeded jobs", () => {
  const seeds = Array.from({ length: 30 }, (_, i) => i + 1);

  test.each(seeds)("job %i: the figures of every candidate are those of a whole evaluation", (seed) => {
    const job = jobOf(seed);
    for (const c of rackOf(job).all) {
      const option = c.option as WeighedOption | null;
      if (option === null) continue;
      const result = evaluateLink(planOfCandidate(option), job.profile);
      const kept = result.service.kept!;
      expect(option.multiple).toBeCloseTo(kept.multiple, 9);
      expect([option.toFar.plannedMbps, option.toNear.plannedMbps]).toEqual([
        expect.closeTo(kept.toFar.plannedMbps, 9),
        expect.closeTo(kept.toNear.plannedMbps, 9),
      ]);
      const [far, near] = [result.service.toFar!, result.service.toNear!];
      const levelAt = (d: typeof far, index: number | null): number => (d.ladder.find((r) => r.index === index) ?? d.ladder[0]!).levelDbm;
      expect(option.toFar.levelDbm).toBeCloseTo(levelAt(far, option.toFar.rungIndex), 9);
      expect(option.toNear.levelDbm).toBeCloseTo(levelAt(near, option.toNear.rungIndex), 9);
      if (c.clearance !== null) expect(c.clearance.missM).toBeCloseTo(result.clearance.worst!.missM, 9);
    }
  });

  test.each(seeds)("job %i: no setting of either end keeps more, and none that keeps as much is lower", (seed) => {
    const job = jobOf(seed);
    for (const c of rackOf(job).all.slice(0, 12)) {
      const option = c.option as WeighedOption | null;
      if (option === null || !option.lawful) continue;
      const lawful = lawfulPowers(option.plan, evaluateLink(withPowers(option, 0, 0), job.profile))!;
      // Each way hangs on its own transmitter alone.
      const ways = [
        {
          which: "toFar",
          settings: settingsOf(option.plan.near.radio, lawful.nearDbm),
          got: option.toFar,
          at: (dbm: number) => withPowers(option, dbm, 0),
        },
        {
          which: "toNear",
          settings: settingsOf(option.plan.far.radio, lawful.farDbm),
          got: option.toNear,
          at: (dbm: number) => withPowers(option, 0, dbm),
        },
      ] as const;
      for (const { which, settings, got, at } of ways) {
        const rates = settings.map((dbm) => sureRate(evaluateLink(at(dbm), job.profile), which));
        const most = Math.max(...rates);
        expect(got.sureMbps).toBeCloseTo(most, 9);
        if (most > 0) expect(got.powerDbm).toBeCloseTo(settings[rates.findIndex((r) => r >= most - 1e-9)]!, 9);
      }
    }
  });

  test.each(seeds)("job %i: refused for what it keeps only where every setting keeps too little", (seed) => {
    const job = jobOf(seed);
    const byPath = ["hot", "weak", "rule-cuts", "rain", "slow", "port"];
    for (const c of rackOf(job).all.slice(0, 14)) {
      const option = c.option as WeighedOption | null;
      if (option === null || !option.lawful) continue;
      const { nearDbm, farDbm } = lawfulPowers(option.plan, evaluateLink(withPowers(option, 0, 0), job.profile))!;
      let most = 0;
      for (const a of settingsOf(option.plan.near.radio, nearDbm))
        for (const b of settingsOf(option.plan.far.radio, farDbm))
          most = Math.max(most, evaluateLink(withPowers(option, a, b), job.profile).service.kept!.multiple);
      expect(byPath.includes(c.refusal?.code ?? "")).toBe(most < 1);
    }
  });

  test.each(seeds)("job %i: in the order that is asked for, and everything tried is somewhere", (seed) => {
    const { rack, all } = rackOf(jobOf(seed));
    expect(all).toHaveLength(rack.counts.tried);
    expect(rack.counts.rows + rack.counts.folded + rack.counts.rejected).toBe(rack.counts.tried);
    expect(new Set(all.map((c) => c.id)).size).toBe(all.length);
    // Written apart from the order itself: a string of keys that compare as text.
    const key = (c: Candidate): string => {
      const number = (n: number | null): string => (n === null ? "~" : n.toFixed(9).padStart(24, "0"));
      const tier = !serves(c) ? 2 : c.clearance!.verdict === "short" ? 1 : 0;
      const chance = serves(c) ? 0 : 2 - Math.min(1, c.option!.multiple);
      return [tier, number(chance), number(c.priceEur), number(c.excessDb), number(c.faceCm), number(c.widthMhz)].join(" ");
    };
    const keys = rack.rows.map((r) => key(r.best));
    expect(keys).toEqual([...keys].sort());
    for (const r of rack.rows)
      for (const b of r.beats) {
        expect(serves(r.best)).toBe(true);
        expect((r.best.priceEur ?? Number.POSITIVE_INFINITY) <= (b.priceEur ?? Number.POSITIVE_INFINITY)).toBe(true);
        expect((r.best.faceCm ?? Number.POSITIVE_INFINITY) <= (b.faceCm ?? Number.POSITIVE_INFINITY)).toBe(true);
      }
  });

  test.each(seeds.slice(0, 12))("job %i: drawn, the first twelve serve as often as the section would say", (seed) => {
    const job = jobOf(seed);
    const open = openRack(job.plan, job.profile, { radios: job.radios, antennas: [] });
    while (open.drawNext(NO_LIMITS));
    const rack = open.arrange(NO_LIMITS);
    for (const { best } of rack.rows.slice(0, 12)) {
      expect(best.drawn).not.toBeNull();
      const taken = planOfCandidate(best.option as WeighedOption);
      expect(best.drawn!.serves).toBe(decidingDraws(taken, preparePath(taken, job.profile))!.probabilityServes);
    }
  });
});

describe("rules that hold for every job", () => {
  const anyJob = fc.integer({ min: 100, max: 4000 }).map(jobOf);
  const RUNS = { numRuns: 25 };

  test("looked at from the other end the rack is the same, with its ends exchanged", () => {
    fc.assert(
      fc.property(anyJob, (job) => {
        const there = rackOf(job).rack;
        const back = rackOf({ ...job, ...reversed(job.plan, job.profile) }).rack;
        const swapped = (c: Candidate): string => `${c.pair.far.key}|${c.pair.near.key}@${c.widthMhz} ${c.refusal?.code ?? ""}`;
        const plain = (c: Candidate): string => `${c.pair.near.key}|${c.pair.far.key}@${c.widthMhz} ${c.refusal?.code ?? ""}`;
        expect(back.rows.map((r) => swapped(r.best))).toEqual(there.rows.map((r) => plain(r.best)));
        expect(everyOf(back).map(swapped).sort()).toEqual(everyOf(there).map(plain).sort());
      }),
      RUNS,
    );
  });

  const LIMITS: readonly Partial<RackLimits>[] = [
    { alike: true },
    { priceMost: 200 },
    { bands: ["5"] },
    { portLeastMbps: 1000 },
    { family: "one" },
    { near: { ...NO_LIMITS.near, faceMostCm: 40 } },
    { far: { ...NO_LIMITS.far, faceMostCm: 40 } },
    { onlyType: "a|b" },
    { onlyType: "b|b" },
  ];

  test("a limit takes away exactly what breaks it", () => {
    const breaks = (c: Candidate, l: Partial<RackLimits>): boolean =>
      (l.alike === true && c.pair.near.radio.id !== c.pair.far.radio.id) ||
      (l.priceMost != null && c.priceEur !== null && c.priceEur > l.priceMost) ||
      (l.bands != null && !l.bands.includes(c.band)) ||
      (l.portLeastMbps != null && [c.pair.near, c.pair.far].some((u) => u.radio.ethernetPorts[0]!.speedMbps < l.portLeastMbps!)) ||
      (l.onlyType != null && [c.pair.near.key, c.pair.far.key].sort().join("|") !== l.onlyType) ||
      (l.family != null && c.pair.near.radio.family !== l.family) ||
      (l.near?.faceMostCm != null && c.pair.near.faceCm! > l.near.faceMostCm) ||
      (l.far?.faceMostCm != null && c.pair.far.faceCm! > l.far.faceMostCm);
    fc.assert(
      fc.property(anyJob, fc.constantFrom(...LIMITS), (job, limit) => {
        const { open, all } = rackOf(job);
        const let_in = (list: readonly Candidate[]): string[] => list.flatMap((c) => (c.refusal === null ? [c.id] : [])).sort();
        const limited = everyOf(open.arrange({ ...NO_LIMITS, ...limit }));
        expect(let_in(limited)).toEqual(let_in(all.filter((c) => !breaks(c, limit))));
        // What is counted as tried is what is looked at now, whatever was looked at before.
        const { counts } = open.arrange({ ...NO_LIMITS, ...limit });
        expect(counts.channels).toBe(rackOf(job, { ...NO_LIMITS, ...limit }).rack.counts.channels);
        // Switched off again nothing is lost.
        expect(let_in(everyOf(open.arrange({ ...NO_LIMITS })))).toEqual(let_in(all));
      }),
      RUNS,
    );
  });

  test("an end that stays has what is planned there and nothing else; like for like keeps bracket, straps and where its lead is", () => {
    const covers = (a: Radio, b: Radio): boolean =>
      a.poleDiameterMm!.low <= b.poleDiameterMm!.low && a.poleDiameterMm!.high >= b.poleDiameterMm!.high;
    const hangs = fc.record({
      bracket: fc.constantFrom("Kelp clamp", "kelp CLAMP ", "Wrack strap", undefined),
      connectorPlace: fc.constantFrom("below" as const, "behind" as const, undefined),
    });
    const agrees = (a: string | undefined, b: string | undefined): boolean =>
      a === undefined || b === undefined || a.trim().toLowerCase() === b.trim().toLowerCase();
    const isLike = (a: Radio, b: Radio): boolean =>
      covers(a, b) && agrees(a.bracket, b.bracket) && agrees(a.connectorPlace, b.connectorPlace);
    const range = fc.tuple(fc.integer({ min: 20, max: 40 }), fc.integer({ min: 50, max: 90 })).map(([low, high]) => ({ low, high }));
    fc.assert(
      fc.property(
        anyJob,
        fc.array(range, { minLength: 4, maxLength: 4 }),
        fc.array(hangs, { minLength: 4, maxLength: 4 }),
        fc.constantFrom("near" as const, "far" as const),
        (job, ranges, hung, keep) => {
          const radios = job.radios.map((r, i) => ({ ...r, ...hung[i]!, poleDiameterMm: ranges[i]! }));
          const was = radios[0]!;
          const planned = { ...job.plan, near: { ...job.plan.near, radio: was }, far: { ...job.plan.far, radio: was } };
          const { open, all } = rackOf({ ...job, radios, plan: planned });
          const letIn = (list: readonly Candidate[]): string[] => list.flatMap((c) => (c.refusal === null ? [c.id] : [])).sort();
          expect(letIn(everyOf(open.arrange({ ...NO_LIMITS, alike: true, keep })))).toEqual(
            letIn(all.filter((c) => c.pair[keep].radio.id === was.id)),
          );
          expect(letIn(everyOf(open.arrange({ ...NO_LIMITS, likeForLike: true })))).toEqual(
            letIn(all.filter((c) => [c.pair.near, c.pair.far].every((u) => u.radio.id === was.id || isLike(u.radio, was)))),
          );
        },
      ),
      RUNS,
    );
  });

  test("from stock: as many of each radio as the pair takes, and what nobody counts is not there", () => {
    fc.assert(
      fc.property(anyJob, fc.array(fc.integer({ min: 0, max: 3 }), { minLength: 4, maxLength: 4 }), (job, counts) => {
        const radios = job.radios.map((r, i) => (counts[i] === 3 ? r : { ...r, stock: counts[i]! }));
        const { open, all } = rackOf({ ...job, radios });
        const have = (c: Candidate): boolean => {
          const [a, b] = [c.pair.near.radio.stock ?? 0, c.pair.far.radio.stock ?? 0];
          return c.pair.near === c.pair.far ? a >= 2 : a >= 1 && b >= 1;
        };
        const letIn = (list: readonly Candidate[]): string[] => list.flatMap((c) => (c.refusal === null ? [c.id] : [])).sort();
        expect(letIn(everyOf(open.arrange({ ...NO_LIMITS, stockOnly: true })))).toEqual(letIn(all.filter(have)));
      }),
      RUNS,
    );
  });

  test("what is retired is in no pair, and everything else stays as it was", () => {
    fc.assert(
      fc.property(anyJob, fc.integer({ min: 0, max: 3 }), (job, i) => {
        const gone = job.radios[i]!.id;
        const left = rackOf({ ...job, radios: job.radios.map((r, at) => (at === i ? { ...r, retired: true } : r)) });
        expect(left.all.map((c) => c.id).sort()).toEqual(
          rackOf(job)
            .all.filter((c) => c.pair.near.radio.id !== gone && c.pair.far.radio.id !== gone)
            .map((c) => c.id)
            .sort(),
        );
      }),
      RUNS,
    );
  });

  test("a dearer twin never stands above its twin, and is folded beneath it", () => {
    fc.assert(
      fc.property(anyJob, fc.integer({ min: 0, max: 3 }), (job, i) => {
        const twin = job.radios[i]!;
        const radios = [
          ...job.radios,
          { ...twin, id: "aa-twin", name: "Twin", family: `${twin.family}`, priceEur: (twin.priceEur ?? 100) + 10 },
        ];
        const priced = radios.map((r) => ({ ...r, priceEur: r.priceEur ?? 100 }));
        const { rack } = rackOf({ ...job, radios: priced });
        const lines = rack.rows.map((r) => r.best.pair.key);
        if (rack.rows.some((r) => r.best.pair.key === `${twin.id}|${twin.id}` && serves(r.best)))
          expect(lines).not.toContain("aa-twin|aa-twin");
        const at = (id: string): number => lines.indexOf(`${id}|${id}`);
        if (at("aa-twin") >= 0 && at(twin.id) >= 0) expect(at(twin.id)).toBeLessThan(at("aa-twin"));
      }),
      RUNS,
    );
  });

  test("more hardware never makes the best one worse", () => {
    const worth = (rack: Rack): number[] => {
      const best = rack.rows[0]?.best;
      if (best === undefined) return [3, 0];
      return [
        !serves(best) ? 2 : best.clearance!.verdict === "short" ? 1 : 0,
        serves(best) ? (best.priceEur ?? 1e9) : -best.option!.multiple,
      ];
    };
    fc.assert(
      fc.property(anyJob, fc.integer({ min: 0, max: 1e6 }), (job, seed) => {
        const more = madeRadios(seed)[0]!;
        const few = worth(rackOf(job).rack);
        const many = worth(rackOf({ ...job, radios: [...job.radios, { ...more, id: "more" }] }).rack);
        expect(many[0]! < few[0]! || (many[0] === few[0] && many[1]! <= few[1]! + 1e-9)).toBe(true);
      }),
      RUNS,
    );
  });

  test("whichever way its radios are listed, the order is the same", () => {
    fc.assert(
      fc.property(anyJob, (job) => {
        const ids = (rack: Rack): string[] => rack.rows.map((r) => r.best.id);
        expect(ids(rackOf({ ...job, radios: [...job.radios].reverse() }).rack)).toEqual(ids(rackOf(job).rack));
      }),
      RUNS,
    );
  });
});

describe("worked by hand", () => {
  // 1 km of air, 5 dB short of nothing: level = power - 3.01 (two chains) + 2 x 19 dBi - free space.
  const handPlan = (fields: Partial<LinkPlan> = {}): LinkPlan =>
    plan(end("A", 30), end("B", 30), { needToFarMbps: 20, needToNearMbps: 20, centreMhz: 5775, ...fields });
  const flat = profile(1000, level());
  const one = (r: Radio, fields: Partial<LinkPlan> = {}, limits: Partial<RackLimits> = {}, path = flat): Candidate => {
    const open = openRack({ ...handPlan(fields), near: end("A", 30, { radio: r }), far: end("B", 30, { radio: r }) }, path, {
      radios: [r],
      antennas: [],
    });
    const rack = open.arrange({ ...NO_LIMITS, ...limits });
    return everyOf(rack)[0]!;
  };
  const upper = [{ low: 5725, high: 5850 }];
  const base = (fields: Partial<Radio> = {}): Radio => radio({ bandsMhz: upper, channelWidthsMhz: [40], priceEur: 100, ...fields });

  test("the level is power less chains, plus gains, less 20 log of distance and frequency", () => {
    const c = one(base());
    // First 40 MHz channel of 5725 to 5850 is centred on 5755: 32.45 + 20 log10(5755 MHz x 1 km) = 107.65 dB; air 0.01 dB.
    expect(c.option!.centreMhz).toBe(5755);
    const fixed = -3.01 + 38 - 107.65 - 0.01;
    expect(c.option!.toFar.levelDbm).toBeCloseTo(c.option!.toFar.powerDbm + fixed, 1);
    // 256-QAM needs -64 dBm with 10 dB over it, and 2.1 dB for one case in ten: -51.9 asks for 20.8 dBm, and the radio ends at 19.5.
    // 16-QAM needs -79: -66.9 dBm asks for 5.8, and settings are whole.
    expect(c.option!.toFar.powerDbm).toBe(6);
    expect(c.option!.toFar.modulation).toBe("16-QAM 3/4");
  });

  test("too hot at the lowest setting by the figure over the ceiling that carries the need", () => {
    // At 0 dBm and 20 m: 32.45 + 20 log10(5755 x 0.02) = 73.67; level -3.01 + 38 - 73.67 = -38.7. The ceiling of a radio for -46 is -52.
    const c = one(base({ maxOperatingInputDbm: -46 }), {}, {}, profile(20, level()));
    expect(c.refusal?.code).toBe("hot");
    expect((c.refusal as { overDb: number }).overDb).toBeCloseTo(-38.68 + 52, 1);
  });

  test("too weak by what the slowest rung that carries the need lacks", () => {
    // Without gain at 1 km: 25 - 3.01 - 107.65 - 0.01 = -85.67 dBm. BPSK needs -92 and the job's 10 dB over it: 3.67 dB are missing.
    const bare = base({ antenna: { kind: "integrated", form: "omni", gainDbi: 0, azimuthBeamwidthDeg: 360, elevationBeamwidthDeg: 80 } });
    const c = one(bare, { needToFarMbps: 1, needToNearMbps: 1 });
    expect(c.refusal).toMatchObject({ code: "weak", lacksDb: expect.closeTo(3.67, 1) });
  });

  test("the port: 100 Mbps carry 94.15 of payload, and no more", () => {
    const hundred = base({ ethernetPorts: [{ speedMbps: 100 }] });
    expect(one(hundred, { needToFarMbps: 95, needToNearMbps: 0 }).refusal).toMatchObject({
      code: "port",
      portMbps: expect.closeTo(94.15, 2),
    });
    expect(one(hundred, { needToFarMbps: 94, needToNearMbps: 0 }).refusal).not.toMatchObject({ code: "port" });
  });

  test("airtime: both ways share it, so that twice the half is as much as the whole", () => {
    const whole = one(base(), { needToFarMbps: 60, needToNearMbps: 0 }).option!.multiple;
    const halves = one(base(), { needToFarMbps: 30, needToNearMbps: 30 }).option!.multiple;
    expect(halves).toBeCloseTo(whole, 9);
  });

  test("rules: 6 GHz is closed until its permission is recorded, and a minimum above the limit is never lawful", () => {
    const six = base({ bandsMhz: [{ low: 5925, high: 6425 }] });
    expect(one(six).refusal?.code).toBe("permission");
    expect(one(six).onlyThat).toBe(true);
    // 5470 to 5725 allows 30 dBm EIRP: with 19 dBi that leaves 11 dBm.
    const loud = base({ bandsMhz: [{ low: 5470, high: 5720 }], minTxPowerDbm: 24 });
    expect(one(loud).refusal?.code).toBe("rule-minimum");
  });

  test("radar: a radio that cannot hear it has no channel where it must, and passes over them where others are left", () => {
    const deaf = base({ bandsMhz: [{ low: 5470, high: 5720 }], radarDetection: false });
    expect(one(deaf).refusal?.code).toBe("radar-missing");
    const wide = base({ bandsMhz: [{ low: 5470, high: 5850 }], radarDetection: false });
    expect(one(wide).refusal).toBeNull();
    expect(one(wide).option!.centreMhz).toBe(5755);
  });

  test("rain: 60 GHz over 1.2 km holds in clear air and not the year through", () => {
    const ad = base({
      id: "ad",
      bandsMhz: [{ low: 57_240, high: 65_880 }],
      standard: "ad",
      channelWidthsMhz: [2160],
      chains: 1,
      polarisation: "single linear V",
      duplex: "TDD, scheduled",
      maxOperatingInputDbm: -27,
      antenna: { kind: "integrated", form: "dish", gainDbi: 40, azimuthBeamwidthDeg: 1.4, elevationBeamwidthDeg: 1.4 },
      modulations: [
        { index: 1, modulation: "BPSK", codeRate: "1/2", maxTxPowerDbm: 12, phyRateMbps: { "2160": 385 }, sensitivityDbm: { "2160": -68 } },
      ],
    });
    const c = one(ad, { yearPercent: 99.99 }, {}, profile(1200, level()));
    expect(c.refusal?.code).toBe("rain");
    const { hoursAYear } = c.refusal as { hoursAYear: number };
    // More than the 0.01 % of the year that may be lost (53 minutes), less than ten times that.
    expect(hoursAYear).toBeGreaterThan(0.877);
    expect(hoursAYear).toBeLessThan(8.77);
    expect(one(ad, { yearPercent: 99.9 }, {}, profile(1200, level())).refusal).toBeNull();
    expect(one(ad, { yearPercent: 99.99 }, {}, profile(500, level())).refusal).toBeNull();
  });

  test("limits of an end: pole, supply, cold; what no sheet says is not held against it", () => {
    const stated = base({ poleDiameterMm: { low: 25, high: 60 }, powerKinds: ["802.3at"], temperatureC: { low: -20, high: 55 } });
    const endLimits = (fields: Partial<RackLimits["far"]>): Partial<RackLimits> => ({ far: { ...NO_LIMITS.far, ...fields } });
    expect(one(stated, {}, endLimits({ poleMm: 89 })).refusal).toMatchObject({ code: "pole", figure: "25 to 60", limit: 89, end: "far" });
    expect(one(stated, {}, endLimits({ poleMm: 48 })).refusal).toBeNull();
    expect(one(stated, {}, endLimits({ supplies: ["passive24-2pair"] })).refusal).toMatchObject({ code: "supply" });
    // A source of the larger standard feeds what asks for the smaller.
    expect(one(stated, {}, endLimits({ supplies: ["802.3bt"] })).refusal).toBeNull();
    expect(one(stated, {}, { coldestC: -30 }).refusal).toMatchObject({ code: "cold", figure: -20 });
    expect(one(base(), {}, { ...endLimits({ poleMm: 89, supplies: ["802.3af"] }), coldestC: -60 }).refusal).toBeNull();
  });
});

describe("structures in wind", () => {
  const dish = (beamDeg: number, gainDbi: number): Radio =>
    radio({
      bandsMhz: [{ low: 5725, high: 5850 }],
      channelWidthsMhz: [40],
      antenna: { kind: "integrated", form: "dish", gainDbi, azimuthBeamwidthDeg: beamDeg, elevationBeamwidthDeg: beamDeg },
    });
  const of = (r: Radio, stands: "wall" | "stiff pole" | "thin pole" | "tree" | null): Candidate => {
    const ends = { near: end("A", 30, { radio: r, stands }), far: end("B", 30, { radio: r }) };
    const asked = { needToFarMbps: 5, needToNearMbps: 5, centreMhz: 5755 };
    return everyOf(
      openRack({ ...plan(ends.near, ends.far, asked) }, profile(2000, level()), { radios: [r], antennas: [] }).arrange(NO_LIMITS),
    )[0]!;
  };

  test("a beam narrower than four times the twist is refused with that figure, a tree refuses all", () => {
    expect(of(dish(3.9, 33), "thin pole").refusal).toMatchObject({ code: "wind", twistDeg: 1, beamDeg: 3.9, end: "near" });
    expect(of(dish(4.1, 32), "thin pole").refusal).toBeNull();
    expect(of(dish(3.9, 33), "stiff pole").refusal).toBeNull();
    expect(of(dish(60, 8), "tree").refusal).toMatchObject({ code: "wind", twistDeg: null });
  });

  test("what the twist costs stands in the level: 12 (1 / 5)^2 = 0.48 dB of a 5 degree beam on a thin pole", () => {
    const [still, blown] = [of(dish(5, 30), null), of(dish(5, 30), "thin pole")];
    const fixed = (c: Candidate): number => c.option!.toFar.levelDbm - c.option!.toFar.powerDbm;
    expect(fixed(still) - fixed(blown)).toBeCloseTo(0.48, 1);
    const taken = planOfCandidate(blown.option as WeighedOption);
    const result = evaluateLink(taken, profile(2000, level()));
    expect(result.service.toFar!.terms.find((t) => t.id === "aim-out")).toMatchObject({ inputs: { twistDeg: 1 } });
    expect(result.service.toFar!.terms.reduce((s, t) => s + t.valueDb, 0)).toBeCloseTo(result.service.toFar!.levelDbm, 6);
    expect(result.service.toNear!.terms.find((t) => t.id === "aim-in")!.valueDb).toBeCloseTo(-0.48, 1);
  });
});
