/*
 * What each option of each unit does to each option of every other, worked out when first asked for and kept as plain numbers: the
 * search only adds up. The same sums as in judge.ts, over the same effects; a test holds the one against the other.
 */
import { type Contribution, effectsOn, type Sender } from "./effects";
import type { AirJob, UnitOn } from "./job";
import { leftAir, mayUseOf, waitedOf } from "./judge";
import { keptBy, type WayRates } from "./link-rates";
import { commonMhz } from "./mask";
import { heldMultiple, heldTo, lackOf, meetOnMast, spareOf } from "./objective";
import type { ChannelOption } from "./options";

/** What one unit comes to; see Score. */
export interface UnitScore {
  readonly short: number;
  readonly lackTenths: number;
  readonly meets: number;
  readonly spareQuarters: number;
}

/** What one sender's unit does to one link: bursts on each way as ratio and share, strongest first, and what is waited for. */
interface LinkEffect {
  readonly far: Float64Array;
  readonly near: Float64Array;
  readonly wait: number;
  readonly waits: number;
}
type Effects = readonly LinkEffect[];

/** Rungs of a way, fastest first: the ratio to which the noise may be joined, and what is carried then. */
interface Steps {
  readonly ratio: Float64Array;
  readonly mbps: Float64Array;
}

interface LinkOn {
  readonly far: Steps;
  readonly near: Steps;
  readonly needFar: number;
  readonly needNear: number;
  readonly shared: boolean;
  readonly mayUse: number;
  readonly port: number;
}

const stepsOf = (way: WayRates): Steps => ({
  // What just holds is held: the least above its own edge.
  ratio: Float64Array.from(way.rungs, (r) => 10 ** (r.roomDb / 10) - 1 + 1e-12),
  mbps: Float64Array.from(way.rungs, (r) => r.plannedMbps),
});

const rate = (s: Steps, ratio: number): number => {
  for (let i = 0; i < s.ratio.length; i++) if (s.ratio[i]! >= ratio) return s.mbps[i]!;
  return 0;
};

const burstsOf = (contributions: readonly Contribution[]): Float64Array => {
  const falling = contributions
    .filter((c) => c.hitShare > 0)
    .map((c) => [c.blinds ? Number.POSITIVE_INFINITY : 10 ** (c.riseDb / 10) - 1, c.hitShare] as const)
    .filter(([ratio]) => ratio > 0)
    .sort((a, b) => b[0] - a[0]);
  return Float64Array.from(falling.flat());
};

const NO_HEARD: AirJob["heard"] = new Map();
const MOST_BURSTS = 256;
/** A channel that overlaps every other. */
const ANYWHERE = { centreMhz: 0, widthMhz: 1_000_000 };
const MOST_KINDS = 4096;
const OFF_PARTS = 10;
const OFF_PLACES = 1_000_000;

export class PairTable {
  private readonly on: UnitOn[][];
  private readonly links: LinkOn[][][];
  private readonly base: Effects[][];
  /** By unit and option: options of one width and power are alike but for where they lie. */
  private readonly alike: number[][];
  private readonly held: number[];
  /** Units that have radios on one mast, out of step. */
  private readonly onOneMast: boolean[][];
  private readonly pairs: Map<number, Effects | null>[][];
  private readonly ratio = new Float64Array(MOST_BURSTS);
  private readonly share = new Float64Array(MOST_BURSTS);
  private readonly sums = new Float64Array(MOST_BURSTS);
  private readonly met: Effects[] = [];

  constructor(
    readonly job: AirJob,
    readonly options: readonly (readonly ChannelOption[])[],
    make: (unit: number, option: ChannelOption) => UnitOn,
  ) {
    this.on = options.map((list, u) => list.map((o) => make(u, o)));
    this.links = this.on.map((list) =>
      list.map((on) =>
        on.links.map(({ plan, rates }) => ({
          far: stepsOf(rates.toFar),
          near: stepsOf(rates.toNear),
          needFar: plan.needToFarMbps ?? 0,
          needNear: plan.needToNearMbps ?? 0,
          shared: rates.shared,
          mayUse: Math.min(mayUseOf(plan, rates.toFar), mayUseOf(plan, rates.toNear)),
          port: keptBy(plan, rates, Number.POSITIVE_INFINITY, Number.POSITIVE_INFINITY),
        })),
      ),
    );
    this.alike = this.on.map((list) => {
      const kinds = new Map<string, number>();
      return list.map((on) => {
        const kind = [on.channel.widthMhz, ...[...on.sends.values()].flatMap((s) => [s.powerDbm, s.activity])].join("|");
        if (!kinds.has(kind)) kinds.set(kind, kinds.size);
        return kinds.get(kind)!;
      });
    });
    this.onOneMast = job.units.map((a) => job.units.map((b) => a !== b && meetOnMast(job.field, a, ANYWHERE, b, ANYWHERE)));
    this.held = options.map((list) => heldTo(Math.max(0, ...list.map((o) => o.aloneMultiple))));
    this.pairs = options.map(() => options.map(() => new Map()));
    const others = job.others.flatMap((other): Sender[] => {
      const at = job.field.indexOf.get(other.radioId);
      if (at === undefined) return [];
      const activity = job.always ? 1 : other.activity;
      return [{ at, channel: other.channel, powerDbm: job.field.radios[at]!.powerDbm, activity, unitId: other.radioId }];
    });
    this.base = options.map((list, u) => list.map((_, o) => this.effectsBy(u, o, others, job.heard)));
  }

  private effectsBy(u: number, o: number, senders: readonly Sender[], heard: AirJob["heard"]): Effects {
    const own = this.on[u]![o]!;
    const of = { field: this.job.field, own, grant: this.job.units[u]!.grant };
    return own.links.map(({ rates, near, far }): LinkEffect => {
      const toFar = effectsOn({ ...of, transmitter: near, receiver: far, way: rates.toFar }, senders, heard, 0);
      const toNear = effectsOn({ ...of, transmitter: far, receiver: near, way: rates.toNear }, senders, heard, 0);
      const waited = waitedOf([{ contributions: toFar }, { contributions: toNear }]);
      return { far: burstsOf(toFar), near: burstsOf(toNear), wait: waited.share, waits: waited.of.length };
    });
  }

  /** Null: the one does nothing to the other. */
  effects(u: number, o: number, v: number, p: number): Effects | null {
    const other = this.on[v]![p]!;
    const off = Math.abs(this.on[u]![o]!.channel.centreMhz - other.channel.centreMhz);
    const key = (this.alike[u]![o]! * MOST_KINDS + this.alike[v]![p]!) * OFF_PLACES + Math.round(off * OFF_PARTS);
    const known = this.pairs[u]![v]!;
    let found = known.get(key);
    if (found === undefined) {
      const unitId = this.job.units[v]!.id;
      const senders = [...other.sends].map(([at, s]): Sender => ({ at, channel: other.channel, ...s, unitId }));
      const made = this.effectsBy(u, o, senders, NO_HEARD);
      found = made.every((e) => e.far.length === 0 && e.near.length === 0 && e.waits === 0) ? null : made;
      known.set(key, found);
    }
    return found;
  }

  /** Whether two units have radios on one mast, so that their channels may not overlap. */
  together(u: number, v: number): boolean {
    return this.onOneMast[u]![v]!;
  }

  /** Whether two options overlap on a mast that both hang on. */
  meets(u: number, o: number, v: number, p: number): boolean {
    return this.onOneMast[u]![v]! && commonMhz(this.on[u]![o]!.channel, this.on[v]![p]!.channel) > 0;
  }

  /** Mean rate of one way of a link under all that fall on it: see bursts.ts. */
  private meanOf(steps: Steps, base: LinkEffect, i: number, way: "far" | "near"): number {
    const { ratio, share, sums, met } = this;
    let n = 0;
    for (let m = -1; m < met.length; m++) {
      const of = m < 0 ? base[way] : met[m]![i]![way];
      for (let k = 0; k < of.length && n < MOST_BURSTS; k += 2) {
        const r = of[k]!;
        let at = n;
        while (at > 0 && ratio[at - 1]! < r) {
          ratio[at] = ratio[at - 1]!;
          share[at] = share[at - 1]!;
          at -= 1;
        }
        ratio[at] = r;
        share[at] = of[k + 1]!;
        n += 1;
      }
    }
    let weaker = 0;
    for (let k = n - 1; k >= 0; k--) {
      weaker += ratio[k]!;
      sums[k] = weaker;
    }
    let free = 1;
    let mean = 0;
    for (let k = 0; k < n; k++) {
      mean += free * share[k]! * rate(steps, sums[k]!);
      free *= 1 - share[k]!;
    }
    return mean + free * rate(steps, 0);
  }

  /** @param choices by unit: the option, or -1 for one that is not there yet. */
  score(u: number, o: number, choices: ArrayLike<number>): UnitScore {
    const links = this.links[u]![o]!;
    const base = this.base[u]![o]!;
    const { met } = this;
    met.length = 0;
    let meets = 0;
    for (let v = 0; v < choices.length; v++) {
      if (v === u || choices[v]! < 0) continue;
      const e = this.effects(u, o, v, choices[v]!);
      if (e !== null) met.push(e);
      if (this.meets(u, o, v, choices[v]!)) meets += 1;
    }
    let asked = 0;
    for (let i = 0; i < links.length; i++) {
      const l = links[i]!;
      let { wait, waits } = base[i]!;
      for (const m of met) {
        wait += m[i]!.wait;
        waits += m[i]!.waits;
      }
      const far = l.needFar === 0 ? 0 : l.needFar / this.meanOf(l.far, base[i]!, i, "far");
      const near = l.needNear === 0 ? 0 : l.needNear / this.meanOf(l.near, base[i]!, i, "near");
      asked += (l.shared ? far + near : Math.max(far, near)) / leftAir(wait, l.mayUse, waits);
    }
    let [short, lackTenths, spareQuarters] = [0, 0, Number.POSITIVE_INFINITY];
    for (const l of links) {
      const multiple = heldMultiple(Math.min(1 / asked, l.port), this.held[u]!);
      if (multiple < 1) short += 1;
      lackTenths += lackOf(l.needFar + l.needNear, multiple);
      spareQuarters = Math.min(spareQuarters, spareOf(multiple));
    }
    return { short, lackTenths, meets, spareQuarters };
  }
}
