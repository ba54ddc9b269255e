/*
 * Channels that a unit may be given: those of its radios, allowed at both ends without a permission that is still open, of the
 * widths that the job's school takes, and with or without radar duty as the job has chosen.
 */
import { askerOf, type EndPlan, type LinkPlan } from "../link";
import { channelCentresMhz, commonTable, regulate } from "../radio";
import type { AirLink, AirUnit, UnitOn } from "./job";
import { hasChannel, keptBy, rateAt } from "./link-rates";
import type { Channel } from "./mask";

export type WidthSchool = "narrowest" | "widest";
export type RadarSchool = "avoid" | "fallback";

export interface ChannelOption {
  readonly channel: Channel;
  readonly radar: boolean;
  /** It is the unit's channel of today. */
  readonly today: boolean;
  /** How often the need fits while nobody disturbs. */
  readonly aloneMultiple: number;
}

export interface RuledChannel {
  readonly allowed: boolean;
  readonly radar: boolean;
  /** What is wrong with it, of the first end at which something is. */
  readonly why: "forbidden" | "permission" | "radar detection" | "power" | null;
  readonly waitS: number | null;
  readonly silenceMin: number | null;
}

const ruledEnd = (plan: LinkPlan, e: EndPlan): RuledChannel => {
  const rule = regulate(plan.policy.domain, plan.centreMhz, plan.widthMhz, askerOf(plan, e), e.feederLossDb + e.connectorLossDb);
  const no = (why: RuledChannel["why"]): RuledChannel => ({ allowed: false, radar: false, why, waitS: null, silenceMin: null });
  if (rule.status !== "allowed") return no("forbidden");
  if (rule.permission !== null && rule.permission.state !== "covers") return no("permission");
  if (rule.radarDetection && !rule.radarWaived && !e.radio.radarDetection) return no("radar detection");
  if (rule.maxConductedDbm < e.radio.minTxPowerDbm) return no("power");
  return { allowed: true, radar: rule.radarDetection, why: null, waitS: rule.radarWaitS, silenceMin: rule.nonOccupancyMin };
};

/** A link's channel under the rules, both ends together. */
export const ruledChannel = (plan: LinkPlan, channel: Channel): RuledChannel => {
  const moved = { ...plan, ...channel };
  const [near, far] = [ruledEnd(moved, plan.near), ruledEnd(moved, plan.far)];
  if (!near.allowed) return near;
  if (!far.allowed) return far;
  const most = (a: number | null, b: number | null): number | null => (a === null ? b : b === null ? a : Math.max(a, b));
  return {
    allowed: true,
    radar: near.radar || far.radar,
    why: null,
    waitS: most(near.waitS, far.waitS),
    silenceMin: most(near.silenceMin, far.silenceMin),
  };
};

/** A width that carries the need so often leaves room for others (ours). */
const ROOM_MULTIPLE = 1.5;

/** How often the need of all links of a unit fits on a channel, undisturbed. */
export const aloneOn = (on: UnitOn): number => {
  let used = 0;
  let port = Number.POSITIVE_INFINITY;
  for (const { plan, rates } of on.links) {
    const kept = keptBy(plan, rates, rateAt(rates.toFar, 0), rateAt(rates.toNear, 0));
    used += 1 / kept;
    port = Math.min(port, keptBy(plan, rates, Number.POSITIVE_INFINITY, Number.POSITIVE_INFINITY));
  }
  return Math.min(used === 0 ? Number.POSITIVE_INFINITY : 1 / used, port);
};

const widthsOf = (links: readonly AirLink[]): number[] =>
  [...new Set(links.flatMap((l) => l.plan.near.radio.channelWidthsMhz))]
    .filter((w) => links.every((l) => [l.plan.near, l.plan.far].every((e) => e.radio.channelWidthsMhz.includes(w))))
    .sort((a, b) => a - b);

/** Centres on which all links of a unit can work at a width. */
export const centresOf = (unit: AirUnit, widthMhz: number): number[] => {
  const first = unit.links[0];
  if (first === undefined) return [];
  const { near, far } = first.plan;
  return channelCentresMhz(near.radio.bandsMhz, commonTable(near.radio, far.radio).standard, widthMhz).filter((centreMhz) =>
    unit.links.every((l) => hasChannel(l.plan, { centreMhz, widthMhz })),
  );
};

/**
 * @param on units on channels, kept by whoever asks.
 * @returns empty for a unit without links; a locked one has its channel of today alone.
 */
export const optionsOf = (
  unit: AirUnit,
  on: (unit: AirUnit, channel: Channel) => UnitOn,
  widths: WidthSchool,
  radar: RadarSchool,
): ChannelOption[] => {
  const ruled = (channel: Channel): RuledChannel | null => {
    let radarDuty = false;
    for (const l of unit.links) {
      const r = ruledChannel(l.plan, channel);
      if (!r.allowed) return r;
      radarDuty ||= r.radar;
    }
    return { allowed: true, radar: radarDuty, why: null, waitS: null, silenceMin: null };
  };
  const option = (channel: Channel, radarDuty: boolean): ChannelOption => ({
    channel,
    radar: radarDuty,
    today: channel.centreMhz === unit.channel.centreMhz && channel.widthMhz === unit.channel.widthMhz,
    aloneMultiple: aloneOn(on(unit, channel)),
  });
  const stay = option(unit.channel, ruled(unit.channel)?.radar ?? false);
  if (unit.links.length === 0) return [];
  if (unit.locked) return [stay];
  const all: ChannelOption[] = [];
  for (const widthMhz of widthsOf(unit.links))
    for (const centreMhz of centresOf(unit, widthMhz)) {
      const r = ruled({ centreMhz, widthMhz });
      if (r?.allowed === true) all.push(option({ centreMhz, widthMhz }, r.radar));
    }
  const free = all.filter((o) => !o.radar);
  // Radar is not avoided where there is nothing else.
  const kept = radar === "avoid" && free.some((o) => o.aloneMultiple >= 1) ? free : all;
  const carrying = kept.filter((o) => o.aloneMultiple >= 1);
  const widthsThat = (least: number): number[] => carrying.filter((o) => o.aloneMultiple >= least).map((o) => o.channel.widthMhz);
  const narrowest = Math.min(...widthsThat(1));
  // One that just carries it leaves nothing to others: then the widths up to the first with room, too.
  const roomy = Math.min(...widthsThat(ROOM_MULTIPLE));
  const wanted =
    carrying.length === 0
      ? kept
      : widths === "narrowest"
        ? kept.filter(
            (o) =>
              o.channel.widthMhz >= narrowest &&
              o.channel.widthMhz <= (Number.isFinite(roomy) ? roomy : Math.max(...widthsThat(1))) &&
              o.aloneMultiple >= 1,
          )
        : carrying;
  if (wanted.length === 0) return [stay];
  // What stands is always one of the choices while it is allowed: nothing is moved without a reason.
  return wanted.some((o) => o.today) || ruled(unit.channel)?.allowed !== true ? wanted : [...wanted, stay];
};
