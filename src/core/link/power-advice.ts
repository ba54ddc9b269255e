import type { Direction, LinkPlan, LinkResult } from "./types";

/** Largest transmit power that keeps both ends under the ceiling of the densest modulation, and whether the radios can go so low. */
export interface PowerAdvice {
  readonly nearDbm: number;
  readonly farDbm: number;
  readonly reachable: boolean;
  /** By how much the lowest settings are still too strong for dense modulations: least and most. */
  readonly tooHotDb: number;
  readonly tooHotMildDb: number;
}

/** The power a radio may be set to at most: its own, and what the rules allow, by its step. */
export const mostLawfulDbm = (d: Direction, radioMostDbm: number, stepDb: number): number => {
  const lawful = d.regulation.status === "allowed" ? d.regulation.maxConductedDbm : Number.POSITIVE_INFINITY;
  if (lawful >= radioMostDbm) return radioMostDbm;
  const step = stepDb > 0 ? stepDb : 1;
  return Math.floor(lawful / step + 1e-9) * step;
};

/** What radio and rules allow at each end; null while the radios do not pair. */
export const lawfulPowers = (plan: LinkPlan, result: LinkResult): { readonly nearDbm: number; readonly farDbm: number } | null => {
  const { toFar, toNear } = result.service;
  if (toFar === null || toNear === null) return null;
  const most = (d: Direction, { radio }: LinkPlan["near"]): number =>
    mostLawfulDbm(d, Math.max(...radio.modulations.map((m) => m.maxTxPowerDbm)), radio.txPowerStepDb);
  return { nearDbm: most(toFar, plan.near), farDbm: most(toNear, plan.far) };
};

export const powerForCeiling = (plan: LinkPlan, result: LinkResult): PowerAdvice | null => {
  const { toFar, toNear } = result.service;
  if (toFar === null || toNear === null) return null;
  const one = (d: Direction, setDbm: number, minDbm: number): { powerDbm: number; overDb: number; overMildDb: number } => {
    const fixedDb = d.levelDbm - (d.terms[0]?.valueDb ?? 0);
    const top = d.ladder[d.ladder.length - 1];
    const ceilingDbm = top?.ceilingDbm ?? d.ceilingDbm;
    return {
      powerDbm: Math.max(minDbm, Math.min(setDbm, Math.floor(ceilingDbm - fixedDb))),
      overDb: minDbm + fixedDb - ceilingDbm,
      overMildDb: minDbm + fixedDb - (top?.ceilingMildDbm ?? d.ceilingDbm),
    };
  };
  const lawful = (d: Direction, setDbm: number, stepDb: number): number => Math.min(setDbm, mostLawfulDbm(d, setDbm, stepDb));
  const a = one(toFar, lawful(toFar, plan.near.txPowerDbm, plan.near.radio.txPowerStepDb), plan.near.radio.minTxPowerDbm);
  const b = one(toNear, lawful(toNear, plan.far.txPowerDbm, plan.far.radio.txPowerStepDb), plan.far.radio.minTxPowerDbm);
  const tooHotDb = Math.max(a.overDb, b.overDb);
  return {
    nearDbm: a.powerDbm,
    farDbm: b.powerDbm,
    reachable: tooHotDb <= 0,
    tooHotDb,
    tooHotMildDb: Math.max(a.overMildDb, b.overMildDb),
  };
};
