/* A job as its radios stand in the air: units on channels, other people's radios, what scans heard. */
import type { LinkPlan } from "../link";
import { type AirPath, airRateAt, type LinkRates, planOnChannel, ratesOf, type WayRates } from "./link-rates";
import type { Channel } from "./mask";
import type { AirField } from "./radios";

export interface AirLink {
  readonly id: string;
  readonly unitId: string;
  /** As it is planned, on its channel of today. */
  readonly plan: LinkPlan;
  readonly path: AirPath;
  readonly nearRadioId: string;
  readonly farRadioId: string;
  /** Voice or control passes it: it is judged by what is left while the others send. */
  readonly urgent: boolean;
  /** What passes each way, Mbps, from the load; null: nobody said, so it is taken to send half the time each way. */
  readonly passes: { readonly toFarMbps: number; readonly toNearMbps: number } | null;
}

export interface AirUnit {
  readonly id: string;
  readonly name: string;
  readonly links: readonly AirLink[];
  readonly channel: Channel;
  readonly locked: boolean;
  /** Remotes ask before each burst and are granted it: whoever hears the grant keeps silent. */
  readonly grant: boolean;
}

/** Somebody's radio that is in no link of the job: the customer's own, or one agreed with a neighbour. */
export interface OtherRadio {
  readonly radioId: string;
  readonly channel: Channel;
  /** Part of the time in which it sends. */
  readonly activity: number;
}

/** What a scan heard at one of the job's radios, turned to its antenna. */
export interface Heard {
  /** The same sender at two ends has one id. */
  readonly id: string;
  readonly name: string;
  readonly channel: Channel;
  readonly levelDbm: number;
  readonly activity: number;
}

export interface AirJob {
  readonly field: AirField;
  readonly units: readonly AirUnit[];
  readonly others: readonly OtherRadio[];
  /** By radio of a link; a radio that is not in it was not scanned for. */
  readonly heard: ReadonlyMap<string, readonly Heard[]>;
  /** Everybody sends all the time: the worst that can be asked. */
  readonly always: boolean;
}

/** A unit on a channel, worked out once for it. */
export interface UnitOn {
  readonly channel: Channel;
  readonly links: readonly {
    readonly link: AirLink;
    readonly plan: LinkPlan;
    readonly rates: LinkRates;
    readonly near: number;
    readonly far: number;
  }[];
  /** By place of a radio in the field: what it sends with, and for what part of the time. */
  readonly sends: ReadonlyMap<number, { readonly powerDbm: number; readonly activity: number }>;
  readonly radios: ReadonlySet<number>;
}

/** A unit of which nobody said what passes sends half the time each way (ours). */
const UNSAID_SHARE = 0.5;

const key = (c: Channel): string => `${c.centreMhz}|${c.widthMhz}`;

/** Makes units on channels, each once. */
export const unitMaker = (job: AirJob): ((unit: AirUnit, channel: Channel) => UnitOn) => {
  const made = new Map<string, UnitOn>();
  return (unit, channel) => {
    const id = `${unit.id}|${key(channel)}`;
    let found = made.get(id);
    if (found === undefined) {
      found = unitOn(job, unit, channel);
      made.set(id, found);
    }
    return found;
  };
};

const unitOn = (job: AirJob, unit: AirUnit, channel: Channel): UnitOn => {
  const sends = new Map<number, { powerDbm: number; activity: number }>();
  const add = (at: number, powerDbm: number, activity: number): void => {
    const known = sends.get(at);
    sends.set(at, { powerDbm, activity: Math.min(1, (known?.activity ?? 0) + activity) });
  };
  const moved = channel.centreMhz !== unit.channel.centreMhz || channel.widthMhz !== unit.channel.widthMhz;
  const links = unit.links.map((link) => {
    const plan = moved ? planOnChannel(link.plan, channel) : link.plan;
    const rates = ratesOf(plan, link.path, link.plan.centreMhz);
    const [near, far] = [job.field.indexOf.get(link.nearRadioId)!, job.field.indexOf.get(link.farRadioId)!];
    const share = (way: WayRates, mbps: number | undefined): number => {
      if (job.always) return rates.shared ? UNSAID_SHARE : 1;
      if (mbps === undefined) return UNSAID_SHARE;
      const full = airRateAt(way, 0);
      // What does not hold is not built as it is: it sends nothing.
      return mbps === 0 || full === 0 ? 0 : Math.min(1, mbps / full);
    };
    add(near, rates.toFar.powerDbm, share(rates.toFar, link.passes?.toFarMbps));
    add(far, rates.toNear.powerDbm, share(rates.toNear, link.passes?.toNearMbps));
    return { link, plan, rates, near, far };
  });
  return { channel, links, sends, radios: new Set(sends.keys()) };
};
