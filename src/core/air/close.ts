/*
 * The exact search where no link has to be short: first the most spare that the worst link can have, proven by showing that one step
 * more is not to be had, then with that spare the fewest units under radar duty and the fewest changes. Options that cannot stand
 * beside one that is set, or would overlap it on a mast, are struck out at once; what several together do is counted as soon as they are set.
 */
import { SPARE_MOST } from "./objective";
import type { ChannelOption } from "./options";
import type { PairTable } from "./pair-table";

/** Radar counts before all changes together. */
const RADAR_COST = 1024;
const ASK_EVERY = 32;

export const costOf = (o: ChannelOption): number => (o.radar ? RADAR_COST : 0) + (o.today ? 0 : 1);

/** A channel that a unit may be given, as a stretch. */
interface Span {
  readonly u: number;
  readonly o: number;
  readonly lowMhz: number;
  readonly highMhz: number;
}

/** Units of which any two overlap on a mast if their channels do; spans without radar duty, and those of today, by their upper edge. */
interface Mast {
  readonly units: readonly number[];
  readonly free: readonly Span[];
  readonly stay: readonly Span[];
}

/** How many spans at most lie side by side: taken by their upper edges (of one length or not, none more can). */
const sideBySide = (spans: readonly Span[], given: readonly Uint8Array[], choices: Int32Array): number => {
  let count = 0;
  let end = Number.NEGATIVE_INFINITY;
  for (const s of spans)
    if (s.lowMhz >= end - 1e-9 && choices[s.u]! < 0 && given[s.u]![s.o] === 1) {
      count += 1;
      end = s.highMhz;
    }
  return count;
};

/** Units shared out over masts, each in one of them. */
const mastsOf = (table: Pick<PairTable, "together">, options: readonly (readonly ChannelOption[])[]): Mast[] => {
  const left = new Set(options.keys());
  const out: Mast[] = [];
  const span = (u: number, o: number, c: ChannelOption["channel"]): Span => ({
    u,
    o,
    lowMhz: c.centreMhz - c.widthMhz / 2,
    highMhz: c.centreMhz + c.widthMhz / 2,
  });
  while (left.size > 0) {
    const list = [...left];
    const first = list.reduce((a, b) => {
      const count = (u: number): number => list.filter((v) => table.together(u, v)).length;
      return count(b) > count(a) ? b : a;
    });
    const units = [first];
    for (const v of list) if (v !== first && units.every((u) => table.together(u, v))) units.push(v);
    for (const u of units) left.delete(u);
    const spans = (of: (o: ChannelOption) => boolean): Span[] =>
      units.flatMap((u) => options[u]!.flatMap((o, k) => (of(o) ? [span(u, k, o.channel)] : []))).sort((a, b) => a.highMhz - b.highMhz);
    out.push({ units, free: spans((o) => !o.radar), stay: spans((o) => o.today) });
  }
  return out;
};

export class Closing {
  looked = 0;
  stopped = false;
  private readonly n: number;
  private readonly alone: Uint8Array[];
  private readonly costs: Int32Array[];
  /** By unit, option, other unit, its option: spare of the first beside the second alone; 255 for not looked at. */
  private readonly beside: Uint8Array[][][];
  private readonly masts: readonly Mast[];
  /** How often a unit was where it failed: those are set first. */
  private readonly failed: Float64Array;

  constructor(
    private readonly table: Pick<PairTable, "score" | "effects" | "meets" | "together">,
    options: readonly (readonly ChannelOption[])[],
    private readonly goOn: () => boolean,
  ) {
    this.n = options.length;
    const none = new Int32Array(this.n).fill(-1);
    this.alone = options.map((list, u) => Uint8Array.from(list, (_, o) => table.score(u, o, none).spareQuarters));
    this.costs = options.map((list) => Int32Array.from(list, costOf));
    this.masts = mastsOf(table, options);
    this.failed = new Float64Array(this.n).fill(1);
    this.beside = options.map((list) => list.map(() => options.map((other) => new Uint8Array(other.length).fill(255))));
  }

  /** The most spare that each unit can have by itself: nobody can have more at the worst of them. */
  get most(): number {
    return Math.min(SPARE_MOST, ...this.alone.map((a) => Math.max(...a)));
  }

  private spareBeside(u: number, o: number, v: number, p: number): number {
    const known = this.beside[u]![o]![v]!;
    let found = known[p]!;
    if (found === 255) {
      if (this.table.effects(u, o, v, p) === null) found = this.alone[u]![o]!;
      else {
        const two = new Int32Array(this.n).fill(-1);
        two[v] = p;
        found = this.table.score(u, o, two).spareQuarters;
      }
      known[p] = found;
    }
    return found;
  }

  private stop(): boolean {
    this.looked += 1;
    if (this.looked % ASK_EVERY === 0 && !this.goOn()) this.stopped = true;
    return this.stopped;
  }

  /** Choices that leave every unit a spare; null: there are none, or the search was stopped. */
  find(spare: number): Int32Array | null {
    const choices = new Int32Array(this.n).fill(-1);
    const visit = (domains: readonly Uint8Array[], left: number): boolean => {
      if (left === 0) return true;
      const at = this.next(domains, choices);
      for (const o of this.cheapFirst(at, domains[at]!)) {
        if (this.stop()) return false;
        choices[at] = o;
        const next = this.struck(domains, choices, at, o, spare);
        if (next !== null && visit(next, left - 1)) return true;
        choices[at] = -1;
      }
      return false;
    };
    return visit(this.start(spare), this.n) ? choices : null;
  }

  private start(spare: number): Uint8Array[] {
    return this.alone.map((a) => Uint8Array.from(a, (s) => (s >= spare ? 1 : 0)));
  }

  /** The cheapest choices that leave every unit a spare, below a cost; null: none is cheaper, or the search was stopped. */
  cheapest(spare: number, below: number): Int32Array | null {
    let found: Int32Array | null = null;
    let limit = below;
    const choices = new Int32Array(this.n).fill(-1);
    const visit = (given: readonly Uint8Array[], spent: number, left: number): void => {
      if (left === 0) {
        limit = spent;
        found = choices.slice();
        return;
      }
      const domains = this.afforded(given, choices, spent, limit);
      if (domains === null) return;
      const at = this.next(domains, choices);
      for (const o of this.cheapFirst(at, domains[at]!)) {
        if (this.stopped || this.stop()) return;
        choices[at] = o;
        const next = this.struck(domains, choices, at, o, spare);
        if (next !== null) visit(next, spent + this.costs[at]![o]!, left - 1);
        choices[at] = -1;
      }
    };
    visit(this.start(spare), 0, this.n);
    return found;
  }

  /** The open unit with the fewest options left, those where it failed before first. */
  private next(domains: readonly Uint8Array[], choices: Int32Array): number {
    let at = -1;
    let fewest = Number.POSITIVE_INFINITY;
    for (let u = 0; u < this.n; u++) {
      if (choices[u]! >= 0) continue;
      let size = 0;
      for (const set of domains[u]!) size += set;
      const weighed = size / this.failed[u]!;
      if (weighed < fewest) [fewest, at] = [weighed, u];
    }
    return at;
  }

  private cheapFirst(u: number, domain: Uint8Array): number[] {
    return [...domain.keys()].filter((o) => domain[o] === 1).sort((a, b) => this.costs[u]![a]! - this.costs[u]![b]!);
  }

  /** Options that can still come below a cost with every other open unit on its cheapest; null: none of some unit's can. */
  private afforded(given: readonly Uint8Array[], choices: Int32Array, spent: number, limit: number): Uint8Array[] | null {
    const cheapest = new Float64Array(this.n);
    let least = 0;
    for (let u = 0; u < this.n; u++) {
      if (choices[u]! >= 0) continue;
      let low = Number.POSITIVE_INFINITY;
      const d = given[u]!;
      const costs = this.costs[u]!;
      for (let o = 0; o < d.length; o++) if (d[o] === 1 && costs[o]! < low) low = costs[o]!;
      cheapest[u] = low;
      least += low;
    }
    if (!(spent + least < limit) || !(spent + this.byMast(given, choices, cheapest) < limit)) return null;
    return given.map((d, u) => {
      if (choices[u]! >= 0) return d;
      const most = limit - spent - least + cheapest[u]!;
      const costs = this.costs[u]!;
      return d.map((set, o) => (set === 1 && costs[o]! < most ? 1 : 0));
    });
  }

  /**
   * Least cost by masts: of the open units of one only so many can go without radar duty, and only so many stay, as channels of
   * theirs lie side by side.
   */
  private byMast(given: readonly Uint8Array[], choices: Int32Array, cheapest: Float64Array): number {
    let sum = 0;
    for (const { units, free, stay } of this.masts) {
      let own = 0;
      let open = 0;
      for (const u of units)
        if (choices[u]! < 0) {
          own += cheapest[u]!;
          open += 1;
        }
      if (open === 0) continue;
      const radar = Math.max(0, open - sideBySide(free, given, choices));
      const moves = Math.max(0, open - sideBySide(stay, given, choices));
      sum += Math.max(own, radar * RADAR_COST + moves);
    }
    return sum;
  }

  /** Options that are left beside what is set now; null where something set, or some unit's every option, is lost by it. */
  private struck(domains: readonly Uint8Array[], choices: Int32Array, u: number, o: number, spare: number): Uint8Array[] | null {
    for (let v = 0; v < this.n; v++) {
      const p = choices[v]!;
      if (p < 0 || (v !== u && this.table.effects(v, p, u, o) === null)) continue;
      if (this.table.score(v, p, choices).spareQuarters < spare) {
        this.failed[v]! += 1;
        return null;
      }
    }
    const out: Uint8Array[] = [];
    for (let v = 0; v < this.n; v++) {
      const d = domains[v]!;
      if (choices[v]! >= 0) {
        out.push(d);
        continue;
      }
      const left = d.slice();
      let some = false;
      for (let p = 0; p < d.length; p++) {
        if (d[p] === 0) continue;
        const fits =
          !this.table.meets(u, o, v, p) &&
          this.spareBeside(u, o, v, p) >= spare &&
          this.spareBeside(v, p, u, o) >= spare &&
          (this.table.effects(v, p, u, o) === null || this.table.score(v, p, choices).spareQuarters >= spare);
        if (fits) some = true;
        else left[p] = 0;
      }
      if (!some) {
        this.failed[v]! += 1;
        return null;
      }
      out.push(left);
    }
    return out;
  }
}
