/*
 * What all radios of a job make of each other on given channels: at every receiver what falls into its channel, who waits for whom,
 * and what is left of each link's need. A unit is what has one channel: a link, or a sector with all that hangs on it.
 */
import type { LinkPlan, Verdict } from "../link";
import { type Burst, mixed } from "./bursts";
import { type Contribution, effectsOn, type Hit, type Sender } from "./effects";
import { type AirJob, type AirUnit, type UnitOn, unitMaker } from "./job";
import { keptBy, rateAt, type WayRates } from "./link-rates";
import type { Channel } from "./mask";
import { ISOLATION_DOUBT_DB } from "./radios";

export interface WayAir {
  readonly transmitter: number;
  readonly receiver: number;
  readonly quietMbps: number;
  readonly hitMbps: number;
  readonly meanMbps: number;
  readonly floorDbm: number;
  readonly levelDbm: number | null;
  /** With all of them sending, dB; what blinds is told apart. */
  readonly riseDb: number;
  readonly hitShare: number;
  /** Somebody on its own mast leaves it nothing while he sends: by his carrier, or by what of it is in the channel. */
  readonly blinded: boolean;
  /** Loudest first; what is 20 dB under the noise and waits for nobody is left out. */
  readonly contributions: readonly Contribution[];
}

export type AirTrouble = "blinded" | "noise" | "turns" | "bursts" | "isolation" | "alone";

export interface LinkAir {
  readonly linkId: string;
  readonly unitId: string;
  readonly ways: readonly [WayAir, WayAir];
  /** Part of the air that may be used which its unit asks for, alone and as it is. */
  readonly askedAlone: number;
  readonly asked: number;
  /** Part of what may be used that is left to others it waits for. */
  readonly waits: number;
  /** Units and strangers that it shares its air with. */
  readonly sharesWith: readonly string[];
  /** How often its need fits: undisturbed, as planned, while all others send. */
  readonly aloneMultiple: number;
  readonly multiple: number;
  readonly hitMultiple: number;
  readonly verdict: Verdict;
  readonly trouble: AirTrouble | null;
}

export interface JudgedAir {
  readonly links: readonly LinkAir[];
  readonly byUnit: ReadonlyMap<string, readonly LinkAir[]>;
}

/** What one way's contributions leave of its rate. */
export const leftOf = (way: WayRates, contributions: readonly Pick<Contribution, "riseDb" | "hitShare" | "blinds">[]) => {
  const bursts: Burst[] = contributions.map((c) => ({
    ratio: c.blinds ? Number.POSITIVE_INFINITY : 10 ** (c.riseDb / 10) - 1,
    share: c.hitShare,
  }));
  return mixed(bursts, (riseDb) => rateAt(way, riseDb));
};

/** Less than this of what is kept alone is worse. */
const WORSE_SHARE = 0.9;

const share = (needMbps: number | null, mbps: number): number =>
  needMbps === null || needMbps === 0 ? 0 : mbps <= 0 ? Number.POSITIVE_INFINITY : needMbps / mbps;

/** Part of what may be used of the air that one link's need takes at given rates. */
export const usedBy = (plan: LinkPlan, shared: boolean, farMbps: number, nearMbps: number): number => {
  const [far, near] = [share(plan.needToFarMbps, farMbps), share(plan.needToNearMbps, nearMbps)];
  return shared ? far + near : Math.max(far, near);
};

/** Part of all the air that the job's school lets be used, on the rung in use. */
export const mayUseOf = (plan: LinkPlan, way: WayRates): number => {
  const top = way.rungs[0];
  if (top === undefined) return plan.policy.throughput === "headroom" ? 1 - plan.policy.freeShare : 1;
  return top.airTcpMbps === 0 ? 1 : Math.min(1, top.plannedMbps / top.airTcpMbps);
};

/** What is left of the air beside those that are waited for: what they leave, but never less than a fair turn. */
export const leftAir = (waited: number, mayUse: number, count: number): number => Math.max(1 - waited / mayUse, 1 / (1 + count));

const wayAir = (job: AirJob, hit: Hit, senders: readonly Sender[], doubtDb: number): WayAir => {
  const { way, transmitter, receiver } = hit;
  const contributions = effectsOn(hit, senders, job.heard, doubtDb);
  const left = leftOf(way, contributions);
  const falling = contributions.filter((c) => c.hitShare > 0);
  return {
    transmitter,
    receiver,
    quietMbps: left.quietMbps,
    hitMbps: left.hitMbps,
    meanMbps: left.meanMbps,
    floorDbm: way.floorDbm,
    levelDbm: way.levelDbm,
    riseDb: 10 * Math.log10(1 + falling.reduce((sum, c) => sum + 10 ** (c.riseDb / 10) - 1, 0)),
    hitShare: left.hitShare,
    blinded: falling.some((c) => c.blinds || (c.from !== null && hit.field.onOneMast(c.from, receiver) && rateAt(way, c.riseDb) === 0)),
    contributions,
  };
};

/** Whom a link waits for, the worse end of it, and how many they are. */
export const waitedOf = (ways: readonly Pick<WayAir, "contributions">[]): { readonly share: number; readonly of: readonly string[] } => {
  const most = new Map<string, number>();
  const of = new Set<string>();
  for (const w of ways)
    for (const c of w.contributions)
      if (c.waitShare > 0) {
        const id = c.from === null ? `heard:${c.heard!.id}` : `radio:${c.from}`;
        most.set(id, Math.max(most.get(id) ?? 0, c.waitShare));
        of.add(c.unitId ?? id);
      }
  let sum = 0;
  for (const s of most.values()) sum += s;
  return { share: sum, of: [...of] };
};

const judgeOnce = (job: AirJob, on: (u: AirUnit) => UnitOn, doubtDb: number): LinkAir[] => {
  const senders: Sender[] = [];
  for (const u of job.units) {
    const made = on(u);
    for (const [at, s] of made.sends) senders.push({ at, channel: made.channel, ...s, unitId: u.id });
  }
  for (const o of job.others) {
    const at = job.field.indexOf.get(o.radioId);
    if (at !== undefined)
      senders.push({
        at,
        channel: o.channel,
        powerDbm: job.field.radios[at]!.powerDbm,
        activity: job.always ? 1 : o.activity,
        unitId: o.radioId,
      });
  }
  const out: LinkAir[] = [];
  for (const unit of job.units) {
    const own = on(unit);
    const of = { field: job.field, own, grant: unit.grant };
    const made = own.links.map(({ link, plan, rates, near, far }) => {
      const ways: readonly [WayAir, WayAir] = [
        wayAir(job, { ...of, transmitter: near, receiver: far, way: rates.toFar }, senders, doubtDb),
        wayAir(job, { ...of, transmitter: far, receiver: near, way: rates.toNear }, senders, doubtDb),
      ];
      const waited = waitedOf(ways);
      const mayUse = Math.min(mayUseOf(plan, rates.toFar), mayUseOf(plan, rates.toNear));
      return { link, plan, rates, ways, waited, mayUse, left: leftAir(waited.share, mayUse, waited.of.length) };
    });
    type Which = "quietMbps" | "meanMbps" | "hitMbps";
    const asks = (which: Which, left: boolean): number =>
      made.reduce((sum, m) => sum + usedBy(m.plan, m.rates.shared, m.ways[0][which], m.ways[1][which]) / (left ? m.left : 1), 0);
    const [alone, asked, hit, unshared] = [
      asks("quietMbps", false),
      asks("meanMbps", true),
      asks("hitMbps", true),
      asks("meanMbps", false),
    ];
    for (const m of made) {
      const port = keptBy(m.plan, m.rates, Number.POSITIVE_INFINITY, Number.POSITIVE_INFINITY);
      const aloneMultiple = Math.min(1 / alone, port);
      const multiple = Math.min(1 / asked, port);
      const hitMultiple = Math.min(1 / hit, port);
      const blinded = m.ways.some((w) => w.blinded);
      let verdict: Verdict = "clear";
      let trouble: AirTrouble | null = null;
      // One that is short by itself is told of here only where the air makes it worse.
      const worse = aloneMultiple >= 1 || multiple < WORSE_SHARE * aloneMultiple;
      if (multiple < 1 && worse) {
        verdict = "short";
        trouble = blinded ? "blinded" : Math.min(1 / unshared, port) >= Math.min(1, aloneMultiple) ? "turns" : "noise";
      } else if (aloneMultiple < 1) trouble = "alone";
      else if (blinded) {
        // What is left between carries it, as long as nobody sends more: that is no plan for a mast.
        verdict = "tight";
        trouble = "blinded";
      } else if (hitMultiple < 1 && m.link.urgent) {
        verdict = "tight";
        trouble = "bursts";
      }
      out.push({
        linkId: m.link.id,
        unitId: unit.id,
        ways: m.ways,
        askedAlone: alone,
        asked: unshared,
        waits: m.waited.share / m.mayUse,
        sharesWith: m.waited.of,
        aloneMultiple,
        multiple,
        hitMultiple,
        verdict,
        trouble,
      });
    }
  }
  return out;
};

/**
 * @param channels by unit; left out: as it is planned.
 * @param maker of units on channels, kept between calls while the job is the same: what is dragged is only laid anew.
 */
export const judgeAir = (
  job: AirJob,
  channels: ReadonlyMap<string, Channel> = new Map(),
  maker: (unit: AirUnit, channel: Channel) => UnitOn = unitMaker(job),
): JudgedAir => {
  const on = (u: AirUnit): UnitOn => maker(u, channels.get(u.id) ?? u.channel);
  const links = judgeOnce(job, on, 0);
  const byUnit = new Map<string, LinkAir[]>();
  // What only holds while the estimate of a mast's isolation is right is not sure.
  const guessed = links.some((l) =>
    l.ways.some((w) => w.contributions.some((c) => c.from !== null && job.field.isGuessed(c.from, w.receiver))),
  );
  const worse = guessed ? judgeOnce(job, on, ISOLATION_DOUBT_DB) : links;
  links.forEach((l, i) => {
    const unsure = l.verdict === "clear" && l.trouble === null && worse[i]!.verdict === "short";
    const told: LinkAir = unsure ? { ...l, verdict: "tight", trouble: "isolation" } : l;
    const list = byUnit.get(l.unitId);
    if (list === undefined) byUnit.set(l.unitId, [told]);
    else list.push(told);
  });
  return { links: [...byUnit.values()].flat(), byUnit };
};
