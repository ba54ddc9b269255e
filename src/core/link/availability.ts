/*
 * From margins to shares of the year: rain (P.530-17 §2.4) and clear-air multipath (§2.3) added, as §2.6
 * says. In rain a wet cover in front of a millimetre-wave antenna takes its part of the margin first.
 */
import {
  type Multipath,
  multipathPercent,
  multipathWorstMonthPercent,
  type RainFading,
  rainExceededPercent,
  rainFading,
  worstMonthPercent,
} from "../propagation";
import { polarisationOf } from "./end-gear";
import type { EndPlan, LadderRung, LinkPlan, Outage, Stair, Staircase } from "./types";

export const MINUTES_A_YEAR = 525_960;

/** Millimetre-wave covers when wet, each end (ours: middle of the usual 1 to 2 dB). */
const WET_COVER_DB = 1.5;
const WET_COVER_ABOVE_GHZ = 57;
export const wetCoverDb = (frequencyGhz: number): number => (frequencyGhz >= WET_COVER_ABOVE_GHZ ? 2 * WET_COVER_DB : 0);

/** Tilt of a polarisation from horizontal for rain: dual linear plans on the worse, horizontal one. */
const tiltOf = (polarisation: string): number => {
  if (/slant|circular/.test(polarisation)) return 45;
  return /single.*\bV\b(?! or)|vertical/.test(polarisation) ? 90 : 0;
};

export interface Fading {
  readonly rain: RainFading;
  readonly multipath: Multipath;
  readonly wetDb: number;
}

export const fadingOf = (plan: LinkPlan, tx: EndPlan, pathM: number, elevationDeg: number, multipath: Multipath): Fading => {
  const frequencyGhz = plan.centreMhz / 1000;
  return {
    rain: rainFading(frequencyGhz, pathM / 1000, plan.climate.rainRate001MmH, elevationDeg, tiltOf(polarisationOf(tx))),
    multipath,
    wetDb: wetCoverDb(frequencyGhz),
  };
};

/** Shares of the year, per cent, in which a margin is used up. */
export const lostPercent = (fading: Fading, marginDb: number): { rain: number; multipath: number; all: number } => {
  if (marginDb <= 0) return { rain: 100, multipath: 0, all: 100 };
  const rain = rainExceededPercent(fading.rain, marginDb - fading.wetDb).percent;
  const clear = multipathPercent(fading.multipath, marginDb);
  return { rain, multipath: clear, all: Math.min(100, rain + clear) };
};

export const outageOf = (fading: Fading, marginDb: number): Outage => {
  const lost = lostPercent(fading, marginDb);
  const month =
    marginDb <= 0
      ? 100
      : Math.min(100, worstMonthPercent(Math.min(100, lost.rain)) + multipathWorstMonthPercent(fading.multipath, marginDb));
  return {
    percent: lost.all,
    minutesAYear: (lost.all / 100) * MINUTES_A_YEAR,
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
    const holdsPercent = 100 - lostPercent(fading, rung.marginDb).all;
    const mbps = usableMbps(rung);
    stairs.push({ modulation: rung.modulation, codeRate: rung.codeRate, usableMbps: mbps, holdsPercent });
    if (holdsPercent >= 99) at99Mbps = Math.max(at99Mbps, mbps);
    if (holdsPercent >= 99.9) at999Mbps = Math.max(at999Mbps, mbps);
    if (holdsPercent >= 99.99) at9999Mbps = Math.max(at9999Mbps, mbps);
  }
  return { stairs, at99Mbps, at999Mbps, at9999Mbps };
};
