/* The proposal against every assignment tried, and its figures against the judge's own. */
import { describe, expect, test } from "vitest";
import { airJob, type MadeLink, randomLinks, wideRadio } from "../testing/air-scene";
import { seededRandom } from "../units";
import { type AssignQuestion, assign, scoreOfChoices } from "./assign";
import { type AirJob, unitMaker } from "./job";
import { judgeAir } from "./judge";
import { movesOf } from "./moves";
import { compareScores, heldTo, type Score, scoreOf } from "./objective";
import { type ChannelOption, optionsOf } from "./options";
import { PairTable } from "./pair-table";

const TODAY = [5510, 5550, 5590, 5755].map((centreMhz) => ({ centreMhz, widthMhz: 40 }));

/** A job of which each unit has so many channels of 40 MHz: bands cut to hold them. */
const smallJob = (seed: number, units: number, channels: number, part = 1): AirJob => {
  const bands = [
    { low: 5490, high: 5490 + 40 * (channels - 2) },
    { low: 5735, high: 5815 },
  ];
  const radio = wideRadio({ channelWidthsMhz: [40], bandsMhz: bands });
  const u = seededRandom(seed * 7 + 1);
  return airJob(
    randomLinks(seed, units, TODAY).map((l) => ({
      ...l,
      radio,
      channel: { centreMhz: bands[u() < 0.5 ? 0 : 1]!.low + 20, widthMhz: 40 },
      needMbps: [part * (10 + 50 * u()), part * (10 + 40 * u())] as const,
    })),
  );
};

const opened = (job: AirJob) => {
  const on = unitMaker(job);
  const options = job.units.map((u) => optionsOf(u, on, "narrowest", "fallback"));
  const table = new PairTable(job, options, (u, o) => on(job.units[u]!, o.channel));
  return { on, options, table };
};

/** Every assignment, one after the other. */
const tried = (table: PairTable, options: readonly (readonly ChannelOption[])[]): Score => {
  const choices = new Int32Array(options.length);
  let best: Score | null = null;
  for (;;) {
    const s = scoreOfChoices({ table, options }, choices);
    if (best === null || compareScores(s, best) < 0) best = s;
    let u = 0;
    while (u < options.length && choices[u] === options[u]!.length - 1) choices[u++] = 0;
    if (u === options.length) return best;
    choices[u]! += 1;
  }
};

/** The same score from a whole judgement. */
const judgedScore = (job: AirJob, options: readonly (readonly ChannelOption[])[], choices: ArrayLike<number>): Score => {
  const of = (u: AirJob["units"][number]): number => job.units.indexOf(u);
  const chosen = (u: AirJob["units"][number]): ChannelOption => options[of(u)]![choices[of(u)]!]!;
  const channels = new Map(job.units.map((u) => [u.id, chosen(u).channel]));
  return scoreOf(
    job,
    judgeAir(job, channels),
    (u) => channels.get(u.id)!,
    (u) => chosen(u).radar,
    (u) => !chosen(u).today,
    (u) => heldTo(Math.max(0, ...options[of(u)]!.map((o) => o.aloneMultiple))),
  );
};

describe("the objective", () => {
  test("is the same added up from pairs as from a whole judgement, on drawn assignments", () => {
    for (let seed = 1; seed <= 40; seed++) {
      const job = smallJob(seed, 6, 6);
      const { options, table } = opened(job);
      const u = seededRandom(seed);
      for (let i = 0; i < 10; i++) {
        const choices = options.map((list) => Math.floor(u() * list.length));
        expect(scoreOfChoices({ table, options }, choices), `${seed}/${i}`).toEqual(judgedScore(job, options, choices));
      }
    }
  });

  test("fewest short come first, then what they lack, overlap on a mast, spare, radar, changes", () => {
    const s: Score = { short: 1, lackTenths: 10, meets: 2, spareQuarters: 4, radar: 2, changes: 3 };
    const better: Partial<Score>[] = [{ short: 0 }, { lackTenths: 9 }, { meets: 0 }, { spareQuarters: 5 }, { radar: 1 }, { changes: 2 }];
    better.forEach((b, i) => {
      const worseLater = Object.assign(
        {},
        ...better.slice(i + 1).map((x) => Object.fromEntries(Object.entries(x).map(([k]) => [k, k === "spareQuarters" ? 0 : 99]))),
      );
      expect(compareScores({ ...s, ...worseLater, ...b }, s), JSON.stringify(b)).toBeLessThan(0);
    });
    expect(compareScores(s, { ...s })).toBe(0);
  });
});

describe("the assignment", () => {
  test("equals the best of all that there are, on 200 seeded jobs of up to 6 units and 8 channels, and says so", () => {
    for (let seed = 1; seed <= 200; seed++) {
      // Most are small enough to be tried in a blink; every fortieth is of full size.
      const full = seed % 40 === 0;
      const [units, channels] = full ? [6, 8] : [2 + (seed % 4), 3 + (seed % 5)];
      const job = smallJob(seed, units, channels);
      const { options, table } = opened(job);
      const found = assign({ job, widths: "narrowest", radar: "fallback", seed });
      expect(found.exact, String(seed)).toBe(true);
      expect(found.score, String(seed)).toEqual(full ? found.bound : tried(table, options));
      const choices = job.units.map((u, i) =>
        options[i]!.findIndex(
          (o) => o.channel.centreMhz === found.channels.get(u.id)!.centreMhz && o.channel.widthMhz === found.channels.get(u.id)!.widthMhz,
        ),
      );
      expect(scoreOfChoices({ table, options }, choices)).toEqual(found.score);
      expect(compareScores(found.score, found.today)).toBeLessThanOrEqual(0);
    }
  }, 240_000);

  test("one of full size, six units and eight channels, against all 262 144", () => {
    const job = smallJob(80, 6, 8, 0.3);
    const { options, table } = opened(job);
    expect(options.every((o) => o.length === 8)).toBe(true);
    const found = assign({ job, widths: "narrowest", radar: "fallback" });
    expect(found.exact).toBe(true);
    expect(found.score).toEqual(tried(table, options));
  }, 120_000);

  const question = (links: readonly MadeLink[], more: Partial<AssignQuestion> = {}): AssignQuestion => ({
    job: airJob(links),
    widths: "narrowest",
    radar: "fallback",
    ...more,
  });

  test("locked units stay, whatever it costs, and the others make way", () => {
    const links = randomLinks(11, 5, TODAY).map((l, i) => ({ ...l, channel: TODAY[0]!, locked: i === 0 || i === 1 }));
    const found = assign(question(links));
    expect(found.channels.get("u0")).toEqual(TODAY[0]);
    expect(found.channels.get("u1")).toEqual(TODAY[0]);
    const free = assign(question(links.map((l) => ({ ...l, locked: false }))));
    expect(compareScores(free.score, found.score)).toBeLessThanOrEqual(0);
  });

  test("what stands well is not moved without a reason", () => {
    const [one] = randomLinks(3, 1, TODAY);
    const found = assign(question([{ ...one!, channel: { centreMhz: 5755, widthMhz: 20 }, needMbps: [2, 2] }]));
    expect(found.score).toMatchObject({ short: 0, changes: 0, radar: 0 });
  });

  test("radar is avoided where there is something else, and taken where there is nothing", () => {
    const links = randomLinks(5, 3, TODAY).map((l) => ({ ...l, needMbps: [3, 3] as const }));
    expect(assign(question(links, { radar: "avoid" })).score.radar).toBe(0);
    const only = wideRadio({ bandsMhz: [{ low: 5470, high: 5725 }] });
    expect(
      assign(
        question(
          links.map((l, i) => ({ ...l, radio: only, channel: TODAY[i]! })),
          { radar: "avoid" },
        ),
      ).score.radar,
    ).toBe(3);
  });

  test("the narrowest that carries, or the widest that is free", () => {
    const [one] = randomLinks(3, 1, TODAY);
    const link = { ...one!, needMbps: [5, 5] as const };
    expect(assign(question([link])).channels.get("u0")!.widthMhz).toBe(20);
    const on = unitMaker(airJob([link]));
    const widest = optionsOf(airJob([link]).units[0]!, on, "widest", "fallback").map((o) => o.channel.widthMhz);
    expect(Math.max(...widest)).toBe(80);
  });

  test("what no channel can carry is named, and is not counted against the channels", () => {
    const links = randomLinks(9, 3, TODAY).map((l, i) => ({ ...l, needMbps: i === 0 ? ([5000, 5000] as const) : ([5, 5] as const) }));
    const found = assign(question(links));
    expect(found.without).toContainEqual({ unitId: "u0", why: "short alone" });
    expect(found.score.short).toBe(0);
  });

  test("one that has no other channel under the rules is named", () => {
    const stuck = wideRadio({ bandsMhz: [{ low: 5925, high: 6425 }] });
    const [a, b] = randomLinks(4, 2, TODAY);
    const found = assign(question([{ ...a!, radio: stuck, channel: { centreMhz: 6105, widthMhz: 40 } }, b!]));
    expect(found.without).toContainEqual({ unitId: "u0", why: "no channel" });
    expect(found.channels.get("u0")).toEqual({ centreMhz: 6105, widthMhz: 40 });
  });

  test("stopped before its bound has closed it says so, with what it has and what could be better", () => {
    const links = randomLinks(36, 12, TODAY);
    let asked = 0;
    const found = assign(question(links, { goOn: () => ++asked < 40 }));
    expect(found.exact).toBe(false);
    expect(compareScores(found.bound, found.score)).toBeLessThanOrEqual(0);
    expect(compareScores(found.score, found.today)).toBeLessThanOrEqual(0);
    expect(found.channels.size).toBe(12);
  });

  test("a job without links is assigned in no time", () => {
    const found = assign(question([]));
    expect(found.channels.size).toBe(0);
    expect(found.exact).toBe(true);
  });
});

describe("single moves", () => {
  test("the best first, each with the score of the whole job, the one that stands among them", () => {
    const job = smallJob(12, 4, 6);
    const id = job.units[0]!.id;
    const moves = movesOf(job, id, "narrowest", "fallback");
    expect(moves.length).toBeGreaterThan(3);
    for (let i = 1; i < moves.length; i++) expect(compareScores(moves[i - 1]!.score, moves[i]!.score)).toBeLessThanOrEqual(0);
    expect(moves.some((m) => m.channel.centreMhz === job.units[0]!.channel.centreMhz && m.score.changes === 0)).toBe(true);
    expect(movesOf(job, "nobody", "narrowest", "fallback")).toEqual([]);
  });
});
