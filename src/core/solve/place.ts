/* What a path comes to from another spot of one end. */
import { evaluatePrepared, type LinkPlan, type PathProfile, preparePath, raiseToMeet, type Verdict } from "../link";

export interface PlaceOutcome {
  readonly aglM: number;
  readonly verdict: Verdict;
  /** What the policy lacks today and in the last year of the horizon; negative is spare, null where the ground is unknown. */
  readonly missM: number | null;
  readonly missLastYearM: number | null;
  readonly worstName: string | null;
  /** Raise of this end that would do for the last year; 0 when none is needed, null when none does. */
  readonly raiseM: number | null;
  /** Lower of both directions, dBm per receive chain. */
  readonly levelDbm: number | null;
}

/** @param aglM height of the moved mount above its own ground. */
export const placeOutcome = (plan: LinkPlan, profile: PathProfile, end: "near" | "far", aglM: number): PlaceOutcome => {
  const moved: LinkPlan = { ...plan, [end]: { ...plan[end], mountAglM: aglM } };
  const path = preparePath(moved, profile);
  const { clearance, service } = evaluatePrepared(moved, path);
  const { worst, worstAtHorizon } = clearance;
  const { toFar, toNear } = service;
  return {
    aglM,
    verdict: clearance.verdict,
    missM: worst?.missM ?? null,
    missLastYearM: worstAtHorizon?.missM ?? null,
    worstName: (worstAtHorizon ?? worst)?.ownerName ?? null,
    raiseM: raiseToMeet(moved, path, end, plan.policy.year + plan.policy.horizonYears),
    levelDbm: toFar === null || toNear === null ? null : Math.min(toFar.levelDbm, toNear.levelDbm),
  };
};

/** Best spot first: one that needs no raise by what it spares, then by the least raise, then by what it lacks. */
export const byMerit = (a: PlaceOutcome, b: PlaceOutcome): number => {
  const raise = (p: PlaceOutcome): number => p.raiseM ?? Number.POSITIVE_INFINITY;
  if (raise(a) !== raise(b)) return raise(a) - raise(b);
  return (a.missLastYearM ?? Number.POSITIVE_INFINITY) - (b.missLastYearM ?? Number.POSITIVE_INFINITY);
};
