/* Radios of a job against each other: cases by hand, and what must hold of any. */
import fc from "fast-check";
import { describe, expect, test } from "vitest";
import { freeSpaceLossDb } from "../propagation";
import { noiseFloorDbm } from "../radio";
import { airJob, type MadeLink, madeLink, randomLinks, wideRadio } from "../testing/air-scene";
import type { Heard } from "./job";
import { judgeAir } from "./judge";
import { overlapDb } from "./mask";
import { AirField, couplingOf } from "./radios";

const CHANNEL = { centreMhz: 5510, widthMhz: 40 };
const FAR_OFF = { centreMhz: 5755, widthMhz: 40 };
const scheduled = wideRadio({ duplex: "TDD, scheduled" });
const at = (site: string, eastM: number, northM: number, amslM = 20) => ({ site, eastM, northM, amslM });
/** Two links that look the same way, one behind the other, on their own masts. */
const pair = (more: Partial<MadeLink> = {}, second: Partial<MadeLink> = {}): MadeLink[] => [
  { id: "a", near: at("a0", 0, 0), far: at("a1", 1000, 0), channel: CHANNEL, ...more },
  { id: "b", near: at("b0", 3000, 0), far: at("b1", 4000, 0), channel: CHANNEL, ...more, ...second },
];
const judged = (links: readonly MadeLink[], more: Parameters<typeof airJob>[1] = {}) => {
  const job = airJob(links, more);
  return { job, of: (id: string) => judgeAir(job).links.find((l) => l.linkId === id)! };
};

describe("what falls into a receiver", () => {
  test("on one channel by hand: power, both gains off their axes, free space, one of two chains", () => {
    const { job, of } = judged(pair({ radio: scheduled }));
    const { field } = job;
    // The near radio of b looks away from a: its back; the far radio of a looks towards a's near one, away from b.
    const [from, into] = [field.indexOf.get("b/near")!, field.indexOf.get("a/near")!];
    const [B, A] = [field.radios[from]!, field.radios[into]!];
    const expected =
      15 + 19 + B.pattern!.envelopeDb(180, 0) + 19 + A.pattern!.envelopeDb(0, 0) - freeSpaceLossDb(5.51, 3000) - 10 * Math.log10(2);
    const c = of("a").ways[1].contributions.find((x) => x.from === from)!;
    expect(c.carrierDbm).toBeCloseTo(expected, 1);
    expect(c.overlapDb).toBeCloseTo(0, 1);
    const floor = noiseFloorDbm(40, 6);
    expect(c.riseDb).toBeCloseTo(10 * Math.log10(1 + 10 ** ((c.inChannelDbm - floor) / 10)), 9);
    expect(field.explain(from, into)).toMatchObject({ way: "path", distanceM: expect.closeTo(3000, 0), excessDb: null });
  });

  test("on the next channel the same less what mask and selectivity leave", () => {
    const links = pair({ radio: scheduled }, { channel: { centreMhz: 5550, widthMhz: 40 } });
    const { job, of } = judged(links);
    const from = job.field.indexOf.get("b/near")!;
    const same = judged(pair({ radio: scheduled }))
      .of("a")
      .ways[1].contributions.find((x) => x.from === from)!;
    const next = of("a").ways[1].contributions.find((x) => x.from === from);
    const cut = overlapDb("ac", { centreMhz: 5550, widthMhz: 40 }, CHANNEL);
    if (next === undefined) expect(same.inChannelDbm + cut - noiseFloorDbm(40, 6)).toBeLessThan(-20);
    else expect(next.inChannelDbm).toBeCloseTo(same.carrierDbm + cut, 0);
  });

  test("ground between them counts, and what is not looked at is free space", () => {
    const made = pair({ radio: scheduled }).map(madeLink);
    const radios = made.flatMap((m) => m.radios);
    const open = couplingOf(radios[0]!, radios[3]!, { isolationDb: null, excessDb: null });
    const behind = couplingOf(radios[0]!, radios[3]!, { isolationDb: null, excessDb: 22 });
    expect(behind.totalDb).toBeCloseTo(open.totalDb - 22, 9);
    expect(open.excessDb).toBeNull();
  });

  test("far away there is none, and between bands nothing passes", () => {
    const remote = pair({ radio: scheduled }, { near: at("b0", 900_000, 0), far: at("b1", 901_000, 0) });
    expect(
      judged(remote)
        .of("a")
        .ways.flatMap((w) => w.contributions),
    ).toEqual([]);
    const other = pair({}, { channel: { centreMhz: 2437, widthMhz: 40 } });
    expect(
      judged(other)
        .of("a")
        .ways.flatMap((w) => w.contributions),
    ).toEqual([]);
  });
});

/** Three links from one mast to the three winds. */
const mast = (channels: readonly (typeof CHANNEL)[], radio = scheduled): MadeLink[] =>
  channels.map((channel, i) => ({
    id: `m${i}`,
    near: at("mast", 0, 0, 20 + i * 2),
    far: at(`f${i}`, 900 * Math.sin(i * 2.1), 900 * Math.cos(i * 2.1)),
    channel,
    radio,
    powerDbm: 18,
    needMbps: [20, 20] as const,
  }));
const APART = [
  { centreMhz: 5190, widthMhz: 40 },
  { centreMhz: 5510, widthMhz: 40 },
  { centreMhz: 5795, widthMhz: 40 },
];

describe("one mast", () => {
  test("hearing one another on it protects nobody who receives from afar: the far transmitter does not hear, and the near receiver is hit", () => {
    const l = judged(mast([CHANNEL, CHANNEL], wideRadio()), { isolationDb: 60 }).of("m0");
    expect(l.ways[0].contributions[0]).toMatchObject({ relation: "takes turns" });
    expect(l.ways[1].contributions[0]!.relation).not.toBe("takes turns");
    expect(l.ways[1].hitMbps).toBe(0);
  });

  test("40 dB of isolation frees none, whatever the channels: the carrier alone blinds; 80 dB frees all", () => {
    const tight = judged(mast(APART), { isolationDb: 40 });
    for (const id of ["m0", "m1", "m2"]) {
      const l = tight.of(id);
      expect(l.verdict, id).not.toBe("clear");
      expect(l.trouble).toBe("blinded");
      expect(l.ways[1].hitMbps).toBe(0);
      expect(l.ways[1].contributions.some((c) => c.blinds)).toBe(true);
    }
    const free = judged(mast(APART), { isolationDb: 80 });
    for (const id of ["m0", "m1", "m2"]) expect(free.of(id).verdict, id).toBe("clear");
  });

  test("on one channel 60 dB leave the receiver nothing: scheduled radios out of step do not wait", () => {
    const busy = mast([CHANNEL, CHANNEL, CHANNEL]).map((l) => ({ ...l, needMbps: [70, 70] as const }));
    const l = judged(busy, { isolationDb: 60 }).of("m1");
    expect(l.verdict).toBe("short");
    expect(l.trouble).toBe("blinded");
    expect(l.ways[1].hitMbps).toBe(0);
  });

  test("an isolation that is typed stands; one that is estimated is told, and what rests on it alone is tight", () => {
    const { job } = judged(mast(APART), { isolationDb: 55 });
    const [a, b] = [job.field.indexOf.get("m0/near")!, job.field.indexOf.get("m1/near")!];
    expect(job.field.explain(a, b)).toMatchObject({ way: "typed isolation", totalDb: -55 });
    expect(job.field.isGuessed(a, b)).toBe(false);
    const guessed = judged(mast(APART));
    const e = guessed.job.field.explain(a, b);
    expect(e.way).toBe("estimated isolation");
    expect(-e.totalDb).toBeGreaterThanOrEqual(20);
    expect(-e.totalDb).toBeLessThanOrEqual(80);
    expect(guessed.job.field.isGuessed(a, b)).toBe(true);
    // Lower its power until it holds as estimated, and not 10 dB worse.
    const found = Array.from({ length: 40 }, (_, i) =>
      judged(mast(APART).map((l) => ({ ...l, powerDbm: 18 - i, needMbps: [50, 50] as const }))).of("m1"),
    ).find((l) => l.trouble === "isolation");
    expect(found?.trouble).toBe("isolation");
    expect(found?.verdict).toBe("tight");
  });

  test("in step, hubs of one mast do not hurt each other; a remote that hears two sectors is not protected", () => {
    const build = (beat: string | null) => {
      const job = airJob(mast([CHANNEL, CHANNEL, CHANNEL]), { isolationDb: 60 });
      const radios = job.field.radios.map((r) => (r.siteId === "mast" ? { ...r, beat } : r));
      return { ...job, field: new AirField(radios, () => ({ isolationDb: 60, excessDb: null })) };
    };
    const hubIn = (beat: string | null) => judgeAir(build(beat)).links.find((l) => l.linkId === "m1")!;
    const fromHubs = (l: ReturnType<typeof hubIn>) => l.ways[1].contributions.filter((c) => c.inStep);
    expect(fromHubs(hubIn(null))).toHaveLength(0);
    expect(fromHubs(hubIn("x")).length).toBe(2);
    expect(fromHubs(hubIn("x")).every((c) => c.hitShare === 0)).toBe(true);
    expect(hubIn("x").ways[0].contributions.every((c) => !c.inStep)).toBe(true);
  });
});

/** Two links side by side: each of the four radios hears both of the other link. */
const beside = (needMbps: readonly [number, number]): MadeLink[] =>
  [0, 20].map((northM, i) => ({
    id: `s${i}`,
    near: at(`n${i}`, 0, northM),
    far: at(`o${i}`, 500, northM),
    channel: CHANNEL,
    radio: wideRadio({
      antenna: { kind: "integrated", form: "panel", gainDbi: 9, azimuthBeamwidthDeg: 90, elevationBeamwidthDeg: 60 },
    }),
    needMbps,
  }));

describe("taking turns", () => {
  test("two that hear each other share the air: nothing falls, and each leaves the other its part", () => {
    const l = judged(beside([20, 20])).of("s0");
    for (const w of l.ways) for (const c of w.contributions) expect(c).toMatchObject({ relation: "takes turns", hitShare: 0 });
    expect(l.sharesWith).toEqual(["s1"]);
    expect(l.waits).toBeGreaterThan(0);
    expect(l.multiple).toBeLessThan(l.aloneMultiple);
    expect(l.ways[0].meanMbps).toBe(l.ways[0].quietMbps);
  });

  test("together over what may be used, both are short by turns; a fair turn is left in any case", () => {
    const l = judged(beside([18, 18])).of("s0");
    expect(l.aloneMultiple).toBeGreaterThan(1);
    expect(l.trouble).toBe("turns");
    expect(l.multiple).toBeGreaterThanOrEqual(l.aloneMultiple / 2 - 1e-9);
  });

  test("within 3 dB of a threshold the worse of both outcomes is planned", () => {
    // Moved away step by step, it goes from waited for to falling; on the way both are possible and the cost never sinks under either.
    const links = (eastM: number): MadeLink[] => [
      { id: "a", near: at("a0", 0, 0), far: at("a1", 800, 0), channel: CHANNEL, radio: wideRadio(), needMbps: [30, 30] },
      { id: "b", near: at("b0", eastM, 600), far: at("b1", eastM + 700, 600), channel: CHANNEL, radio: wideRadio(), needMbps: [30, 30] },
    ];
    let unsure = 0;
    for (let eastM = 0; eastM <= 20_000; eastM += 200)
      for (const c of judged(links(eastM))
        .of("a")
        .ways.flatMap((w) => w.contributions))
        if (c.unsure) {
          unsure += 1;
          expect(c.hitShare + c.waitShare).toBeGreaterThan(0);
        }
    expect(unsure).toBeGreaterThan(0);
  });
});

describe("what a scan heard", () => {
  const link = pair().slice(0, 1);
  const heard = (levelDbm: number, id = "x"): Heard => ({ id, name: "Sail loft", channel: CHANNEL, levelDbm, activity: 0.4 });
  const withHeard = (list: Record<string, readonly Heard[]>) => judged(link, { heard: new Map(Object.entries(list)) }).of("a");

  test("both ends count apart: heard at the far end alone, its bursts fall there and nowhere else", () => {
    const l = withHeard({ "a/far": [heard(-65)], "a/near": [] });
    expect(l.ways[0].contributions[0]).toMatchObject({ relation: "bursts fall", hitShare: 0.4 });
    expect(l.ways[0].meanMbps).toBeLessThan(l.ways[0].quietMbps);
    // Towards the near end the far radio waits for what it hears, and nothing falls at the near one.
    expect(l.ways[1].meanMbps).toBe(l.ways[1].quietMbps);
    expect(l.waits).toBeGreaterThan(0);
  });

  test("heard by both ends, they take turns and nothing falls", () => {
    const l = withHeard({ "a/far": [heard(-65)], "a/near": [heard(-60)] });
    expect(l.ways[0].contributions[0]).toMatchObject({ relation: "takes turns", hitShare: 0 });
  });

  test("on a channel of its own it does nothing; under the noise by 20 dB it is not told", () => {
    expect(withHeard({ "a/far": [{ ...heard(-65), channel: { centreMhz: 5805, widthMhz: 20 } }] }).ways[0].meanMbps).toBe(
      withHeard({}).ways[0].meanMbps,
    );
    expect(withHeard({ "a/far": [heard(-125)] }).ways[0].contributions).toEqual([]);
  });
});

const CHANNELS = [CHANNEL, FAR_OFF, { centreMhz: 5550, widthMhz: 40 }, { centreMhz: 5180, widthMhz: 20 }];
const seeds = fc.integer({ min: 1, max: 1_000_000 });

describe("of any job", () => {
  test("no radio ever raises a rate: without one of the units all others keep as much or more", () => {
    fc.assert(
      fc.property(seeds, fc.integer({ min: 2, max: 7 }), (seed, count) => {
        const links = randomLinks(seed, count, CHANNELS);
        const all = judgeAir(airJob(links)).links;
        const fewer = judgeAir(airJob(links.slice(1))).links;
        for (const l of fewer) expect(l.multiple).toBeGreaterThanOrEqual(all.find((x) => x.linkId === l.linkId)!.multiple - 1e-9);
        for (const l of all) expect(l.multiple).toBeLessThanOrEqual(l.aloneMultiple + 1e-9);
      }),
      { numRuns: 60 },
    );
  });

  test("in another order and by other names it comes out the same", () => {
    fc.assert(
      fc.property(seeds, (seed) => {
        const links = randomLinks(seed, 5, CHANNELS);
        const plain = judgeAir(airJob(links)).links;
        const renamed = judgeAir(airJob([...links].reverse().map((l) => ({ ...l, id: `z${l.id}` })))).links;
        for (const l of plain) {
          const other = renamed.find((x) => x.linkId === `z${l.linkId}`)!;
          expect(other.multiple).toBeCloseTo(l.multiple, 9);
          expect(other.verdict).toBe(l.verdict);
        }
      }),
      { numRuns: 40 },
    );
  });

  test("turned and moved as a whole it comes out the same", () => {
    fc.assert(
      fc.property(seeds, fc.double({ min: 0, max: 6.28, noNaN: true }), (seed, angle) => {
        const links = randomLinks(seed, 4, CHANNELS);
        const turned = (p: MadeLink["near"]) => ({
          ...p,
          eastM: p.eastM * Math.cos(angle) - p.northM * Math.sin(angle) + 500,
          northM: p.eastM * Math.sin(angle) + p.northM * Math.cos(angle) - 300,
        });
        const a = judgeAir(airJob(links)).links;
        const b = judgeAir(airJob(links.map((l) => ({ ...l, near: turned(l.near), far: turned(l.far) })))).links;
        for (const [i, l] of a.entries()) expect(b[i]!.multiple).toBeCloseTo(l.multiple, 6);
      }),
      { numRuns: 40 },
    );
  });

  test("all sending all the time is never better than as the load says", () => {
    for (let seed = 1; seed <= 20; seed++) {
      const links = randomLinks(seed, 6, CHANNELS).map((l) => ({ ...l, passesMbps: [1, 1] as const }));
      const usual = judgeAir(airJob(links)).links;
      const worst = judgeAir(airJob(links, { always: true })).links;
      for (const [i, l] of usual.entries()) expect(worst[i]!.multiple).toBeLessThanOrEqual(l.multiple + 1e-9);
    }
  });
});
