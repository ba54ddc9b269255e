/*
 * From margins to shares of the year: rain (P.530-17 §2.4) and clear-air multipath (§2.3) added, as §2.6
 * says. In rain a wet cover in front of a millimetre-wave antenna takes its part of the margin first.
 * The rain method speaks of 0.001 to 1 % of the year: past either end a bound is carried, never a figure.
 */
import {
  type Multipath,
  multipathPercent,
  multipathWorstMonthPercent,
  type RainFading,
  rainExceeded,
  rainFading,
  worstMonthPercent,
} from "../propagation";
import { rainTiltDeg } from "../radio";
import { polarisationOf } from "./end-gear";
import type { EndPlan, LadderRung, LinkPlan, Outage, Stair, Staircase } from "./types";

export const MINUTES_A_YEAR = 525_960;

/** Millimetre-wave covers when wet, each end (ours: middle of the usual 1 to 2 dB). */
const WET_COVER_DB = 1.5;
const WET_COVER_ABOVE_GHZ = 57;
export const wetCoverDb = (frequencyGhz: number): number => (frequencyGhz >= WET_COVER_ABOVE_GHZ ? 2 * WET_COVER_DB : 0);

export interface Fading {
  readonly rain: RainFading;
  readonly multipath: Multipath;
  readonly wetDb: number;
}

export const fadingOf = (plan: LinkPlan, tx: EndPlan, pathM: number, elevationDeg: number, multipath: Multipath): Fading => {
  const frequencyGhz = plan.centreMhz / 1000;
  return {
    rain: rainFading(frequencyGhz, pathM / 1000, plan.climate.rainRate001MmH, elevationDeg, rainTiltDeg(polarisationOf(tx))),
    multipath,
    wetDb: wetCoverDb(frequencyGhz),
  };
};

export interface Lost {
  /** Shares of the year, per cent; null: more than 1 %, beyond what the rain method knows. */
  readonly rain: number | null;
  readonly multipath: number;
  readonly all: number | null;
  /** Rain is rarer than the 0.001 % the method reaches. */
  readonly rarer: boolean;
}

/** Shares of the year in which a margin is used up; a margin that is not there is used up all of it. */
export const lostPercent = (fading: Fading, marginDb: number): Lost => {
  if (marginDb <= 0) return { rain: 100, multipath: 0, all: 100, rarer: false };
  const multipath = multipathPercent(fading.multipath, marginDb);
  const rain = rainExceeded(fading.rain, marginDb - fading.wetDb);
  if (rain.bound === "above") return { rain: null, multipath, all: null, rarer: false };
  return { rain: rain.percent, multipath, all: Math.min(100, rain.percent + multipath), rarer: rain.bound === "below" };
};

export const outageOf = (fading: Fading, marginDb: number): Outage => {
  const lost = lostPercent(fading, marginDb);
  const rainMonth = lost.rain === null ? null : marginDb <= 0 ? 100 : worstMonthPercent(Math.min(100, lost.rain));
  const month =
    rainMonth === null ? null : Math.min(100, rainMonth + (marginDb <= 0 ? 0 : multipathWorstMonthPercent(fading.multipath, marginDb)));
  return {
    percent: lost.all,
    rarer: lost.rarer,
    minutesAYear: lost.all === null ? null : (lost.all / 100) * MINUTES_A_YEAR,
    rainPercent: lost.rain,
    multipathPercent: lost.multipath,
    worstMonthPercent: month,
    marginDb,
    a001Db: fading.rain.a001Db,
    inRange: fading.rain.inRange && (fading.multipath.negligible || fading.multipath.inRange),
  };
};

/** Share of the year for each modulation, fastest last; a rung too strong for clear air is left out. */
export const staircaseOf = (fading: Fading, ladder: readonly LadderRung[], usableMbps: (rung: LadderRung) => number): Staircase => {
  const stairs: Stair[] = [];
  let at99Mbps = 0;
  let at999Mbps = 0;
  let at9999Mbps = 0;
  for (const rung of ladder) {
    if (rung.state === "too-strong" || rung.marginDb <= 0) continue;
    const lost = lostPercent(fading, rung.marginDb).all;
    const holdsPercent = lost === null ? null : 100 - lost;
    const mbps = usableMbps(rung);
    stairs.push({ modulation: rung.modulation, codeRate: rung.codeRate, usableMbps: mbps, holdsPercent });
    if (holdsPercent === null) continue;
    if (holdsPercent >= 99) at99Mbps = Math.max(at99Mbps, mbps);
    if (holdsPercent >= 99.9) at999Mbps = Math.max(at999Mbps, mbps);
    if (holdsPercent >= 99.99) at9999Mbps = Math.max(at9999Mbps, mbps);
  }
  return { stairs, at99Mbps, at999Mbps, at9999Mbps };
};

const DEEPEST_FADE_DB = 120;
const FADE_WITHIN_DB = 0.005;

/** Fading with rain a factor heavier than planned, in R0.01: its attenuation grows by the factor to the power alpha. */
const withRain = (fading: Fading, rateFactor: number, alpha: number): Fading => ({
  ...fading,
  rain: { ...fading.rain, a001Db: fading.rain.a001Db * rateFactor ** alpha },
});

/** Alpha of P.838 lies between 0.7 and 1.3 from 5 to 90 GHz; the doubt about the rain is far greater (ours). */
const RAIN_ALPHA = 1;

/**
 * Least margin with which a share of the year is held, dB; infinite when none is known to do.
 * @param yearPercent 99 to 99.999. @param rainFactor the rain's rate over the planned one.
 */
export const marginForYear = (fading: Fading, yearPercent: number, rainFactor = 1): number => {
  const f = rainFactor === 1 ? fading : withRain(fading, rainFactor, RAIN_ALPHA);
  const mayLose = 100 - yearPercent + 1e-9;
  const holds = (marginDb: number): boolean => (lostPercent(f, marginDb).all ?? 100) <= mayLose;
  if (!holds(DEEPEST_FADE_DB)) return Number.POSITIVE_INFINITY;
  let low = 0;
  let high = DEEPEST_FADE_DB;
  while (high - low > FADE_WITHIN_DB) {
    const mid = (low + high) / 2;
    if (holds(mid)) high = mid;
    else low = mid;
  }
  return high;
};
