/*
 * Channels for all units of a job. Nothing that is added ever makes a link better, so that a part of an assignment, with each unit
 * that is still open on the best of its options as things stand, is never worse than the whole: branch and bound on that, from the
 * best of seeded starts mended one unit at a time. It is exact only when the bound has closed.
 */
import { seededRandom } from "../units";
import { Closing, costOf } from "./close";
import { type AirJob, type AirUnit, unitMaker } from "./job";
import type { Channel } from "./mask";
import { compareScores, type Score, SPARE_MOST } from "./objective";
import { type ChannelOption, optionsOf, type RadarSchool, type WidthSchool } from "./options";
import { PairTable, type UnitScore } from "./pair-table";

export interface AssignQuestion {
  readonly job: AirJob;
  readonly widths: WidthSchool;
  readonly radar: RadarSchool;
  readonly seed?: number;
  /** Asked again and again; false ends the search with what it has. */
  readonly goOn?: () => boolean;
  readonly told?: (share: number) => void;
}

export interface Assignment {
  readonly channels: ReadonlyMap<string, Channel>;
  readonly score: Score;
  /** As things stand today. */
  readonly today: Score;
  /** Nothing can be better than this. */
  readonly bound: Score;
  readonly exact: boolean;
  /** Units that may use no channel at all, or that are short of their need on every one of them, undisturbed. */
  readonly without: readonly { readonly unitId: string; readonly why: "no channel" | "short alone" }[];
  readonly looked: number;
  readonly starts: number;
}

const STARTS = 6;
const ASK_EVERY = 16;

interface Search {
  readonly table: PairTable;
  readonly options: readonly (readonly ChannelOption[])[];
}

const IDEAL: Score = { short: 0, lackTenths: 0, meets: 0, spareQuarters: SPARE_MOST, radar: 0, changes: 0 };

const plus = (s: Score, u: UnitScore, o: ChannelOption): Score => ({
  short: s.short + u.short,
  lackTenths: s.lackTenths + u.lackTenths,
  meets: s.meets + u.meets,
  spareQuarters: Math.min(s.spareQuarters, u.spareQuarters),
  radar: s.radar + (o.radar ? 1 : 0),
  changes: s.changes + (o.today ? 0 : 1),
});

/** Score of a part of an assignment: of units that have an option. */
export const scoreOfChoices = ({ table, options }: Search, choices: ArrayLike<number>): Score => {
  let s = IDEAL;
  for (let u = 0; u < options.length; u++) {
    const o = choices[u]!;
    if (o >= 0) s = plus(s, table.score(u, o, choices), options[u]![o]!);
  }
  return s;
};

/** One unit at a time is set to the best of its options until none can be bettered. */
const mend = (search: Search, choices: Int32Array, goOn: () => boolean): Score => {
  let best = scoreOfChoices(search, choices);
  for (let bettered = true; bettered; ) {
    bettered = false;
    for (let u = 0; u < choices.length; u++) {
      const stood = choices[u]!;
      let kept = stood;
      for (let o = 0; o < search.options[u]!.length; o++) {
        if (o === stood) continue;
        choices[u] = o;
        const s = scoreOfChoices(search, choices);
        if (compareScores(s, best) < 0) {
          best = s;
          kept = o;
          bettered = true;
        }
      }
      choices[u] = kept;
      if (!goOn()) return best;
    }
  }
  return best;
};

/** From the units in some order, each on the option that is best beside those before it. */
const built = (search: Search, order: readonly number[]): Int32Array => {
  const choices = new Int32Array(order.length).fill(-1);
  for (const u of order) {
    let best: { o: number; s: Score } | null = null;
    for (let o = 0; o < search.options[u]!.length; o++) {
      choices[u] = o;
      const s = scoreOfChoices(search, choices);
      if (best === null || compareScores(s, best.s) < 0) best = { o, s };
    }
    choices[u] = best!.o;
  }
  return choices;
};

const compareUnits = (a: UnitScore, b: UnitScore): number =>
  a.short - b.short || a.lackTenths - b.lackTenths || a.meets - b.meets || b.spareQuarters - a.spareQuarters;

/**
 * The best that a part of an assignment can come to. Each open unit is scored on every option beside those that are set; its best is
 * taken by what it lacks first and then by radar and changes among those with as much spare as any whole can have.
 */
const boundOf = (search: Search, choices: Int32Array, scores: readonly (readonly UnitScore[])[]): Score => {
  const { options, table } = search;
  let s = IDEAL;
  let spare = SPARE_MOST;
  for (let u = 0; u < options.length; u++) {
    const o = choices[u]!;
    if (o >= 0) {
      s = plus(s, table.score(u, o, choices), options[u]![o]!);
      spare = Math.min(spare, s.spareQuarters);
    }
  }
  const open: number[] = [];
  for (let u = 0; u < options.length; u++) if (choices[u]! < 0) open.push(u);
  const least = new Map<number, UnitScore>();
  for (const u of open) {
    let best: UnitScore | null = null;
    for (const x of scores[u]!) if (best === null || compareUnits(x, best) < 0) best = x;
    least.set(u, best!);
    spare = Math.min(spare, best!.spareQuarters);
  }
  for (const u of open) {
    const want = least.get(u)!;
    let [radar, changes] = [Number.POSITIVE_INFINITY, Number.POSITIVE_INFINITY];
    scores[u]!.forEach((x, o) => {
      if (x.short !== want.short || x.lackTenths !== want.lackTenths || x.meets !== want.meets || x.spareQuarters < spare) return;
      const opt = options[u]![o]!;
      const [r, c] = [opt.radar ? 1 : 0, opt.today ? 0 : 1];
      if (r < radar || (r === radar && c < changes)) [radar, changes] = [r, c];
    });
    s = {
      short: s.short + want.short,
      lackTenths: s.lackTenths + want.lackTenths,
      meets: s.meets + want.meets,
      spareQuarters: spare,
      radar: s.radar + radar,
      changes: s.changes + changes,
    };
  }
  return { ...s, spareQuarters: spare };
};

interface Start {
  readonly choices: Int32Array;
  readonly score: Score;
}

interface Closed {
  readonly choices: Int32Array;
  readonly score: Score;
  readonly bound: Score;
  readonly exact: boolean;
  readonly looked: number;
}

const closed = (search: Search, start: Start, goOn: () => boolean): Closed => {
  const { options, table } = search;
  const n = options.length;
  let best = start;
  let looked = 0;
  let stopped = false;
  let open: Score | null = null;
  const leaveOpen = (s: Score): void => {
    if (open === null || compareScores(s, open) < 0) open = s;
  };
  const empty = new Int32Array(n).fill(-1);
  const first = options.map((list, u) => list.map((_, o) => table.score(u, o, empty)));
  const root = boundOf(search, empty, first);
  const visit = (choices: Int32Array, scores: readonly (readonly UnitScore[])[], depth: number): void => {
    if (depth === n) {
      const s = scoreOfChoices(search, choices);
      if (compareScores(s, best.score) < 0) best = { choices: choices.slice(), score: s };
      return;
    }
    // The one with fewest good options first: what must fail fails soon.
    let at = -1;
    let fewest = Number.POSITIVE_INFINITY;
    for (let u = 0; u < n; u++) {
      if (choices[u]! >= 0) continue;
      const good = scores[u]!.filter((x) => x.short === 0).length;
      if (good < fewest) [fewest, at] = [good, u];
    }
    const next: { o: number; bound: Score; scores: UnitScore[][]; choices: Int32Array }[] = [];
    for (let o = 0; o < options[at]!.length; o++) {
      looked += 1;
      if (looked % ASK_EVERY === 0 && !goOn()) stopped = true;
      if (stopped) break;
      const set = choices.slice();
      set[at] = o;
      const moved = scores.map((list, v) =>
        set[v]! >= 0
          ? (list as UnitScore[])
          : list.map((x, p) => (table.effects(v, p, at, o) === null && !table.meets(v, p, at, o) ? x : table.score(v, p, set))),
      );
      const bound = boundOf(search, set, moved);
      if (compareScores(bound, best.score) < 0) next.push({ o, bound, scores: moved, choices: set });
    }
    if (stopped) {
      leaveOpen(boundOf(search, choices, scores));
      return;
    }
    next.sort((a, b) => compareScores(a.bound, b.bound));
    for (const x of next) {
      if (compareScores(x.bound, best.score) >= 0) continue;
      if (stopped) leaveOpen(x.bound);
      else visit(x.choices, x.scores, depth + 1);
    }
  };
  if (compareScores(root, best.score) < 0) visit(empty, first, 0);
  const left = open as Score | null;
  const bound = left !== null && compareScores(left, best.score) < 0 ? left : best.score;
  return { ...best, bound, exact: compareScores(bound, best.score) >= 0, looked };
};

/** A spare of once the need: nobody is short. Nor may two channels of one mast overlap here. */
const ONCE = 4;

const closedWithoutShort = (search: Search, start: Start, goOn: () => boolean): Closed | null => {
  const { options, table } = search;
  const closing = new Closing(table, options, goOn);
  const done = (choices: Int32Array, bound: Score | null): Closed => {
    const score = scoreOfChoices(search, choices);
    return { choices, score, bound: bound ?? score, exact: bound === null, looked: closing.looked };
  };
  let best = start.choices;
  let have = start.score.short === 0 && start.score.meets === 0 ? start.score.spareQuarters : 0;
  let top = closing.most;
  if (have < ONCE) {
    const some = closing.find(ONCE);
    // Somebody must be short, or overlap on a mast: that is searched for otherwise.
    if (some === null && !closing.stopped) return null;
    if (some === null) return done(best, { ...IDEAL, spareQuarters: top });
    best = some;
    have = scoreOfChoices(search, best).spareQuarters;
  }
  while (have < top) {
    const ask = Math.ceil((have + top + 1) / 2);
    const found = closing.find(ask);
    if (closing.stopped && found === null) return done(best, { ...scoreOfChoices(search, best), spareQuarters: top, radar: 0, changes: 0 });
    if (found === null) top = ask - 1;
    else {
      best = found;
      have = Math.max(have, scoreOfChoices(search, best).spareQuarters);
    }
  }
  const cost = options.reduce((sum, list, u) => sum + costOf(list[best[u]!]!), 0);
  const choices = closing.cheapest(have, cost) ?? best;
  return done(choices, closing.stopped ? { ...scoreOfChoices(search, choices), radar: 0, changes: 0 } : null);
};

/** Groups of units that do something to each other on some options; each is searched by itself. */
const groupsOf = (table: PairTable, options: readonly (readonly ChannelOption[])[]): number[][] => {
  const n = options.length;
  const group = Array.from({ length: n }, (_, i) => i);
  const find = (i: number): number => (group[i] === i ? i : find(group[i]!));
  const meet = (u: number, v: number): boolean =>
    options[u]!.some((_, o) => options[v]!.some((_x, p) => table.effects(u, o, v, p) !== null || table.effects(v, p, u, o) !== null));
  for (let u = 0; u < n; u++) for (let v = u + 1; v < n; v++) if (find(u) !== find(v) && meet(u, v)) group[find(v)] = find(u);
  const out = new Map<number, number[]>();
  for (let u = 0; u < n; u++) out.set(find(u), [...(out.get(find(u)) ?? []), u]);
  return [...out.values()];
};

const within = (search: Search, units: readonly number[]): Search => {
  const table = search.table;
  const whole = new Int32Array(search.options.length).fill(-1);
  const widen = (choices: ArrayLike<number>): Int32Array => {
    const all = whole.slice();
    units.forEach((u, i) => {
      all[u] = choices[i]!;
    });
    return all;
  };
  return {
    options: units.map((u) => search.options[u]!),
    table: {
      score: (u: number, o: number, choices: ArrayLike<number>) => table.score(units[u]!, o, widen(choices)),
      effects: (u: number, o: number, v: number, p: number) => table.effects(units[u]!, o, units[v]!, p),
      meets: (u: number, o: number, v: number, p: number) => table.meets(units[u]!, o, units[v]!, p),
      together: (u: number, v: number) => table.together(units[u]!, units[v]!),
    } as PairTable,
  };
};

/** A proposal for all units that are not locked. */
export const assign = (q: AssignQuestion): Assignment => {
  const goOn = q.goOn ?? (() => true);
  const on = unitMaker(q.job);
  const units = q.job.units.filter((u) => u.links.length > 0);
  const job = { ...q.job, units };
  const options = units.map((u) => optionsOf(u, on, q.widths, q.radar));
  const table = new PairTable(job, options, (u, o) => on(units[u]!, o.channel));
  const search: Search = { table, options };
  const todayOn = options.map((list, u) => (list.some((o) => o.today) ? list : [...list, todayOption(units[u]!, list)]));
  const today = scoreOfChoices(
    { table: new PairTable(job, todayOn, (u, o) => on(units[u]!, o.channel)), options: todayOn },
    Int32Array.from(todayOn, (list) => list.findIndex((o) => o.today)),
  );
  const choices = new Int32Array(units.length).fill(-1);
  let exact = true;
  let looked = 0;
  let bound = IDEAL;
  const random = seededRandom(q.seed ?? 1);
  const groups = groupsOf(table, options);
  groups.forEach((group, g) => {
    const part = within(search, group);
    const stay = Int32Array.from(part.options, (list) =>
      Math.max(
        0,
        list.findIndex((o) => o.today),
      ),
    );
    let best: { choices: Int32Array; score: Score } = { choices: stay, score: mend(part, stay, goOn) };
    for (let start = 1; start < STARTS && goOn(); start++) {
      const order = group.map((_, i) => [random(), i] as const).sort((a, b) => a[0] - b[0]);
      const made = built(
        part,
        order.map(([, i]) => i),
      );
      const score = mend(part, made, goOn);
      if (compareScores(score, best.score) < 0) best = { choices: made, score };
    }
    const found = closedWithoutShort(part, best, goOn) ?? closed(part, best, goOn);
    exact &&= found.exact;
    looked += found.looked;
    bound = {
      short: bound.short + found.bound.short,
      lackTenths: bound.lackTenths + found.bound.lackTenths,
      meets: bound.meets + found.bound.meets,
      spareQuarters: Math.min(bound.spareQuarters, found.bound.spareQuarters),
      radar: bound.radar + found.bound.radar,
      changes: bound.changes + found.bound.changes,
    };
    group.forEach((u, i) => {
      choices[u] = found.choices[i]!;
    });
    q.told?.((g + 1) / groups.length);
  });
  return {
    channels: new Map(units.map((u, i) => [u.id, options[i]![choices[i]!]!.channel])),
    score: scoreOfChoices(search, choices),
    today,
    bound,
    exact,
    without: units.flatMap((u, i): Assignment["without"] => {
      const list = options[i]!;
      const none = list.length === 1 && list[0]!.today && !u.locked;
      if (list.every((o) => o.aloneMultiple < 1)) return [{ unitId: u.id, why: "short alone" }];
      return none ? [{ unitId: u.id, why: "no channel" }] : [];
    }),
    looked,
    starts: STARTS,
  };
};

const todayOption = (unit: AirUnit, list: readonly ChannelOption[]): ChannelOption => ({
  channel: unit.channel,
  radar: list.some((o) => o.radar && o.channel.centreMhz === unit.channel.centreMhz),
  today: true,
  aloneMultiple: 0,
});
