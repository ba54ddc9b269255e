/*
 * The power of one way by one of three schools, over the rungs it may stand on. Settings step from the radio's least;
 * what is held is held with the margin asked for and beneath the ceiling.
 */
import type { TemplateRung } from "./templates";
import type { PowerSchool } from "./types";

export interface PowerRange {
  readonly leastDbm: number;
  readonly stepDb: number;
  /** Most that radio and rules allow; below the least where the rules allow less than the radio can. */
  readonly mostDbm: number;
}

/** How far the level may lie off its median and still be counted on. */
export interface LevelGuard {
  readonly lowDb: number;
  readonly highDb: number;
}

export const NO_GUARD: LevelGuard = { lowDb: 0, highDb: 0 };
const TINY_DB = 1e-9;

const settingAtOrAbove = (dbm: number, { leastDbm, stepDb }: PowerRange): number =>
  dbm <= leastDbm ? leastDbm : leastDbm + Math.ceil((dbm - leastDbm) / stepDb - TINY_DB) * stepDb;
const settingAtOrBelow = (dbm: number, { leastDbm, stepDb }: PowerRange): number =>
  dbm <= leastDbm ? leastDbm : leastDbm + Math.floor((dbm - leastDbm) / stepDb + TINY_DB) * stepDb;

/** The highest setting that is allowed; the least one where even that is not. */
export const topSetting = (range: PowerRange): number => settingAtOrBelow(range.mostDbm, range);

/** The fastest rung held at a setting when the level lies anywhere within the guard; null when none is. */
export const rungAt = (
  rungs: readonly TemplateRung[],
  setDbm: number,
  fixedDb: number,
  marginDb: number,
  guard: LevelGuard,
): TemplateRung | null => {
  let best: TemplateRung | null = null;
  for (const r of rungs) {
    const levelDbm = Math.min(setDbm, r.mostPowerDbm) + fixedDb;
    if (levelDbm + guard.highDb > r.ceilingDbm || levelDbm - r.needsDbm - guard.lowDb < marginDb) continue;
    if (best === null || r.plannedMbps > best.plannedMbps) best = r;
  }
  return best;
};

/** Settings of one rung from least to most that hold it; null when none does. */
const settingsOf = (r: TemplateRung, range: PowerRange, fixedDb: number, marginDb: number, guard: LevelGuard): [number, number] | null => {
  const wantedDbm = r.needsDbm + marginDb + guard.lowDb - fixedDb;
  if (wantedDbm > r.mostPowerDbm + TINY_DB) return null;
  const low = settingAtOrAbove(wantedDbm - TINY_DB, range);
  const top = topSetting(range);
  if (low > top + TINY_DB) return null;
  const hottestDbm = r.ceilingDbm - guard.highDb - fixedDb;
  if (Math.min(low, r.mostPowerDbm) > hottestDbm + TINY_DB) return null;
  // Above its own most the radio sends no more: the ceiling then holds for every setting.
  return [low, r.mostPowerDbm <= hottestDbm + TINY_DB ? top : Math.min(top, settingAtOrBelow(hottestDbm, range))];
};

/**
 * The setting of a school.
 * @param fixedDb gains and losses between transmitter and receiver; @param targetDbm level aimed at by "target".
 * @returns the least setting where nothing is held because it is too strong, the most where it is too weak.
 */
export const settingOf = (
  school: PowerSchool,
  rungs: readonly TemplateRung[],
  range: PowerRange,
  fixedDb: number,
  marginDb: number,
  guard: LevelGuard,
  targetDbm: number,
): number => {
  const top = topSetting(range);
  if (school === "target") return Math.min(top, settingAtOrBelow(targetDbm - fixedDb, range));
  let best: { mbps: number; from: number; to: number } | null = null;
  // Where nothing is held through the guard, what is held at the median counts.
  for (const g of [guard, NO_GUARD]) {
    for (const r of rungs) {
      const span = settingsOf(r, range, fixedDb, marginDb, g);
      if (span === null) continue;
      const [from, to] = span;
      if (best === null || r.plannedMbps > best.mbps || (r.plannedMbps === best.mbps && from < best.from))
        best = { mbps: r.plannedMbps, from, to };
    }
    if (best !== null) break;
  }
  if (best !== null) return school === "enough" ? best.from : best.to;
  const patient = Math.max(...rungs.map((r) => r.ceilingDbm));
  return range.leastDbm + fixedDb > patient ? range.leastDbm : top;
};
