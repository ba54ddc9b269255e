/*
 * How much of the need a link keeps: the greatest multiple of it, both ways at once in the ratio asked, that fits
 * the common airtime by the job's throughput school and each port's own cap (each way alone), each way on a rung
 * inside its window that holds for the need's share of the year. The job's margin and the fade are not added: the
 * larger governs. One function for verdict, section, rack, hub and load (ours).
 */
import { plannedRateMbps } from "../radio";
import { type Fading, fadingOf, marginForYear } from "./availability";
import { LEAST_YEAR_PERCENT, MOST_YEAR_PERCENT } from "./limits";
import type { PathState } from "./path-state";
import type { Direction, EndPlan, Kept, KeptWay, LadderRung, LinkPlan } from "./types";

/** What one way may stand on, made once and asked for any move of level and rain. */
export interface Way {
  readonly needMbps: number;
  readonly rungs: readonly { readonly rung: LadderRung; readonly plannedMbps: number }[];
  readonly portMbps: number;
  readonly shared: boolean;
  /** Least margin that holds the year's share with rain a factor heavier; infinite when none is known to. */
  readonly yearMarginDb: (rainFactor: number) => number;
}

const byState = new WeakMap<PathState, Map<string, Fading>>();

/** Fading of one way, kept per path state: the same for every radio of one polarisation and frequency. */
export const fadingOnce = (plan: LinkPlan, tx: EndPlan, state: PathState): Fading => {
  const key = `${plan.centreMhz}|${tx.radio.polarisation}|${tx.antenna?.polarisation ?? ""}|${plan.climate.rainRate001MmH}`;
  let known = byState.get(state);
  if (known === undefined) {
    known = new Map();
    byState.set(state, known);
  }
  let fading = known.get(key);
  if (fading === undefined) {
    fading = fadingOf(plan, tx, state.rayM, Math.abs(state.nearTiltDeg), state.multipath);
    known.set(key, fading);
  }
  return fading;
};

/** Planned rates of every rung by the job's school; the port is not part of the air. */
export const wayOf = (plan: LinkPlan, d: Direction, fading: Fading): Way => {
  const { throughput, freeShare } = plan.policy;
  const margins = new Map<number, number>();
  return {
    needMbps: d.needMbps ?? 0,
    rungs: d.rates.map(({ rung, airtime }) => ({
      rung,
      plannedMbps: plannedRateMbps(throughput, rung.phyRateMbps, airtime.airTcpMbps, freeShare),
    })),
    portMbps: d.rates[0]?.airtime.portTcpMbps ?? 0,
    shared: d.rates[0]?.airtime.sharedAirtime ?? true,
    yearMarginDb: (rainFactor) => {
      let margin = margins.get(rainFactor);
      if (margin === undefined) {
        const known = plan.yearPercent >= LEAST_YEAR_PERCENT && plan.yearPercent <= MOST_YEAR_PERCENT;
        margin = known ? marginForYear(fading, plan.yearPercent, rainFactor) : Number.POSITIVE_INFINITY;
        margins.set(rainFactor, margin);
      }
      return margin;
    },
  };
};

/** The fastest rung that one way holds the year through when its level is moved; null when none does. */
const rungOf = (plan: LinkPlan, way: Way, moveDb: number, wantedDb: number): Way["rungs"][number] | null => {
  const leastDb = Math.max(plan.policy.marginDb, wantedDb);
  let best: Way["rungs"][number] | null = null;
  for (const r of way.rungs) {
    if (r.rung.levelDbm + moveDb > r.rung.ceilingDbm || r.rung.marginDb + moveDb < leastDb) continue;
    if (best === null || r.plannedMbps > best.plannedMbps) best = r;
  }
  return best;
};

const shareOf = (needMbps: number, plannedMbps: number | undefined): number =>
  needMbps === 0 ? 0 : plannedMbps === undefined || plannedMbps <= 0 ? Number.POSITIVE_INFINITY : needMbps / plannedMbps;

/** The multiple of both needs that two rates keep at once; infinite when nothing is asked. */
export const multipleOf = (
  needFarMbps: number,
  needNearMbps: number,
  farMbps: number | undefined,
  nearMbps: number | undefined,
  shared: boolean,
  portFarMbps: number,
  portNearMbps: number,
): number => {
  const far = shareOf(needFarMbps, farMbps);
  const near = shareOf(needNearMbps, nearMbps);
  const air = shared ? far + near : Math.max(far, near);
  return 1 / Math.max(air, shareOf(needFarMbps, portFarMbps), shareOf(needNearMbps, portNearMbps));
};

/** The multiple kept when both levels and the rain are moved; infinite when nothing is asked. */
export const keptMultiple = (
  plan: LinkPlan,
  toFar: Way,
  toNear: Way,
  moveFarDb: number,
  moveNearDb: number,
  yearMarginFarDb: number,
  yearMarginNearDb: number,
): number => {
  const rate = (way: Way, moveDb: number, yearMarginDb: number): number | undefined =>
    way.needMbps === 0 ? 0 : rungOf(plan, way, moveDb, yearMarginDb)?.plannedMbps;
  return multipleOf(
    toFar.needMbps,
    toNear.needMbps,
    rate(toFar, moveFarDb, yearMarginFarDb),
    rate(toNear, moveNearDb, yearMarginNearDb),
    toFar.shared,
    toFar.portMbps,
    toNear.portMbps,
  );
};

const keptWay = (plan: LinkPlan, way: Way): KeptWay => {
  const yearMarginDb = way.yearMarginDb(1);
  const best = rungOf(plan, way, 0, yearMarginDb);
  return {
    needMbps: way.needMbps,
    rungIndex: best?.rung.index ?? null,
    modulation: best === null ? null : `${best.rung.modulation} ${best.rung.codeRate}`.trim(),
    plannedMbps: best?.plannedMbps ?? 0,
    portMbps: way.portMbps,
    yearMarginDb: Number.isFinite(yearMarginDb) ? yearMarginDb : null,
    neededMarginDb: Math.max(plan.policy.marginDb, yearMarginDb),
  };
};

export interface Ways {
  readonly toFar: Way;
  readonly toNear: Way;
}

export const waysOf = (plan: LinkPlan, state: PathState, toFar: Direction, toNear: Direction): Ways => ({
  toFar: wayOf(plan, toFar, fadingOnce(plan, plan.near, state)),
  toNear: wayOf(plan, toNear, fadingOnce(plan, plan.far, state)),
});

/** @returns null when no rate is asked for. */
export const keptOf = (plan: LinkPlan, { toFar, toNear }: Ways): Kept | null => {
  if (plan.needToFarMbps === null && plan.needToNearMbps === null) return null;
  const far = keptWay(plan, toFar);
  const near = keptWay(plan, toNear);
  const airFar = shareOf(far.needMbps, far.plannedMbps);
  const airNear = shareOf(near.needMbps, near.plannedMbps);
  const usedShare = toFar.shared ? airFar + airNear : Math.max(airFar, airNear);
  const portFar = shareOf(far.needMbps, far.portMbps);
  const portNear = shareOf(near.needMbps, near.portMbps);
  const most = Math.max(usedShare, portFar, portNear);
  return {
    multiple: most === 0 ? Number.POSITIVE_INFINITY : 1 / most,
    yearPercent: plan.yearPercent,
    usedShare,
    narrowest: most === usedShare ? (Number.isFinite(usedShare) ? "air" : "no rung") : most === portFar ? "port to far" : "port to near",
    toFar: far,
    toNear: near,
  };
};

/** The slowest rung that carries one way's need beside what the other takes of the air; the first without a need; undefined when none does. */
export const outageRung = (d: Direction, other: Direction): LadderRung | undefined => {
  const need = d.needMbps ?? 0;
  if (need === 0) return d.ladder[0];
  if (need > (d.rates[0]?.airtime.portTcpMbps ?? 0)) return undefined;
  const shared = d.rates[0]?.airtime.sharedAirtime ?? true;
  const otherRate = other.rates.find((r) => r.rung.index === other.held?.index)?.airtime.airTcpMbps;
  const taken = shared ? shareOf(other.needMbps ?? 0, otherRate) : 0;
  return d.rates.find((r) => need / r.airtime.airTcpMbps + taken <= 1)?.rung;
};

/** R0.01 is drawn lognormal about what was typed (ours). */
const RAIN_SIGMA = 0.2;
const RAIN_STEPS = 12;
const RAIN_REACH_SIGMAS = 3;

/** Margin that the year asks for, by how many sigma the rain is heavier than typed: a table with straight lines between. */
export const marginsByRain = (way: Way): ((sigmas: number) => number) => {
  const table = Array.from({ length: RAIN_STEPS + 1 }, (_, i) =>
    way.yearMarginDb(Math.exp(RAIN_SIGMA * RAIN_REACH_SIGMAS * ((2 * i) / RAIN_STEPS - 1))),
  );
  return (sigmas) => {
    const u = Math.min(RAIN_STEPS - 1e-9, Math.max(0, ((sigmas / RAIN_REACH_SIGMAS + 1) * RAIN_STEPS) / 2));
    const i = Math.floor(u);
    const [a, b] = [table[i]!, table[i + 1]!];
    return Number.isFinite(a) && Number.isFinite(b) ? a + (b - a) * (u - i) : Math.max(a, b);
  };
};
