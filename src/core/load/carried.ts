/* What a planned link carries each way: the rung that keeps its need through the year, else the one that its level holds. */
import { type Direction, type Kept, type LinkPlan, type PathState, serviceOf } from "../link";
import { accessOf } from "../radio";
import type { Carried, CarriedWay } from "./network";

const wayOf = (d: Direction | null, keptRung: number | null): CarriedWay | null => {
  const index = keptRung ?? d?.held?.index ?? null;
  const at = index === null ? undefined : d?.rates.find((r) => r.rung.index === index);
  return at === undefined
    ? null
    : {
        airMbps: at.airtime.airTcpMbps,
        phyMbps: at.rung.phyRateMbps,
        portMbps: at.airtime.portMbps,
        burstUs: at.airtime.burstUs + at.airtime.parts.answersUs,
      };
};

/** Null where one way holds nothing. */
export const carriedOf = (
  plan: Pick<LinkPlan, "near">,
  service: { readonly kept: Kept | null; readonly toFar: Direction | null; readonly toNear: Direction | null },
): Carried | null => {
  const toFar = wayOf(service.toFar, service.kept?.toFar.rungIndex ?? null);
  const toNear = wayOf(service.toNear, service.kept?.toNear.rungIndex ?? null);
  if (toFar === null || toNear === null) return null;
  const shared = service.toFar?.airtime?.sharedAirtime ?? service.toFar?.rates[0]?.airtime.sharedAirtime ?? true;
  return { access: accessOf(plan.near.radio.duplex), shared, toFar, toNear };
};

/** The same on every other width that both radios have, where a link stands on it. Whether such a channel is free is not asked here. */
export const carriedOnWidths = (plan: LinkPlan, state: PathState): { readonly widthMhz: number; readonly carried: Carried }[] =>
  plan.near.radio.channelWidthsMhz
    .filter((w) => w !== plan.widthMhz && plan.far.radio.channelWidthsMhz.includes(w))
    .flatMap((widthMhz) => {
      const other = { ...plan, widthMhz };
      const carried = carriedOf(other, serviceOf(other, state, false).service);
      return carried === null ? [] : [{ widthMhz, carried }];
    });
