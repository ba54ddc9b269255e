import { type Approach, apertureBoundShare, bodyApproach, f1RadiusM, type PathBody, type Ray } from "../obstacles";
import { THROUGH_LIMIT_GHZ } from "../propagation";
import { normalShare } from "../units";
import { chanceOfClearance } from "./chance";
import { sigmasAt } from "./clearance-sigma";
import type { Condition } from "./conditions";
import { CLEAR_PROBABILITY, MET_WITHIN_M, UNSURE_HIGH, UNSURE_LOW } from "./limits";
import { type PreparedBody, type PreparedPath, SHARE_OF_INTEREST } from "./prepare";
import type { ClearanceResult, LinkPlan, Verdict, WorstPlace } from "./types";

/** Named features within this distance say where the ground stands in the way (ours). */
const FEATURE_REACH_M = 500;
/** Name of ground that is only known as a surface with whatever stands on it. */
export const SURFACE_MODEL = "surface model";

export interface BodyApproach extends Approach {
  readonly body: PathBody;
  readonly prepared: PreparedBody;
  readonly vegetation: boolean;
}

const nearestFeature = (path: PreparedPath, atM: number): string | null => {
  let best: string | null = null;
  let bestM = FEATURE_REACH_M;
  for (const f of path.profile.features) {
    const awayM = Math.hypot(f.alongM - atM, f.acrossM);
    if (awayM < bestM) {
      bestM = awayM;
      best = f.name;
    }
  }
  return best;
};

/** Ground that a surface model gives may be a roof or a crown that nobody outlined. */
const surfaceName = (path: PreparedPath, atM: number): string | null =>
  path.profile.datasets[path.datasetAt(atM)]?.kind === "dsm" ? SURFACE_MODEL : null;

/** Normal share below a spare: the chance by one place alone. */
const shareBelow = (spareM: number, sigmaM: number): number => (sigmaM > 0 ? normalShare(spareM / sigmaM) : spareM >= 0 ? 1 : 0);

const missOf = (ray: Ray, a: Approach, policyShare: number): number => {
  const f1M = a.f1M > 0 ? a.f1M : f1RadiusM(ray, Math.min(ray.endM - 0.01, Math.max(ray.startM + 0.01, a.atM)));
  return f1M * (policyShare - apertureBoundShare(ray, a, policyShare));
};

/** Under the policy "through" leaves are a loss and not an obstacle; above 10 GHz that policy is refused. */
export const leavesCount = (plan: LinkPlan): boolean => plan.policy.trees !== "through" || plan.centreMhz / 1000 > THROUGH_LIMIT_GHZ;

const judged = (b: PreparedBody, leaves: boolean): boolean => leaves || !b.vegetation;

const asWorst = ({ ray, share: policyShare }: Condition, a: Approach, body: PathBody | null, path: PreparedPath): WorstPlace => ({
  owner: body === null ? { kind: "ground" } : { kind: "body", bodyKind: body.kind, id: body.id },
  ownerName: body === null ? (nearestFeature(path, a.atM) ?? surfaceName(path, a.atM)) : body.name,
  share: a.share,
  atM: a.atM,
  acrossM: a.acrossM,
  zAmslM: a.zAmslM,
  side: a.side,
  f1M: a.f1M,
  missM: missOf(ray, a, policyShare),
  kFactor: ray.kFactor,
  policyShare,
});

/** Approaches of all bodies in a year, nearest first, and the worst place over ground and bodies. */
export const approachesOf = (
  path: PreparedPath,
  condition: Condition,
  leaves: boolean,
  year: number,
): { bodies: BodyApproach[]; worst: WorstPlace | null } => {
  const { ray, share: policyShare, ground } = condition;
  const found: BodyApproach[] = [];
  for (const b of path.near) {
    const a = bodyApproach(ray, b, b.topAt(year), SHARE_OF_INTEREST);
    if (a !== null) found.push({ ...a, body: b.body, prepared: b, vegetation: b.vegetation });
  }
  const bound = (a: Approach): number => apertureBoundShare(ray, a, policyShare);
  found.sort((a, b) => bound(a) - bound(b));
  const first = found.find((b) => leaves || !b.vegetation);
  if (first !== undefined && (ground === null || bound(first) <= bound(ground))) {
    return { bodies: found, worst: asWorst(condition, first, first.body, path) };
  }
  return { bodies: found, worst: ground === null ? null : asWorst(condition, ground, null, path) };
};

/** Worst place alone, each body passed over as soon as it cannot be worse than the last found. */
export const worstOf = (
  path: PreparedPath,
  condition: Condition,
  leaves: boolean,
  year: number,
  growingOnly = false,
): WorstPlace | null => {
  const { ray, share: policyShare, ground } = condition;
  let best = ground;
  let bestBody: PathBody | null = null;
  let bestBound = ground === null ? SHARE_OF_INTEREST : apertureBoundShare(ray, ground, policyShare);
  for (const b of path.near) {
    if (!judged(b, leaves) || (growingOnly && b.body.growthMPerYear <= 0)) continue;
    const a = bodyApproach(ray, b, b.topAt(year), SHARE_OF_INTEREST);
    if (a === null) continue;
    const bound = apertureBoundShare(ray, a, policyShare);
    if (bound > bestBound) continue;
    best = a;
    bestBody = b.body;
    bestBound = bound;
  }
  return best === null ? null : asWorst(condition, best, bestBody, path);
};

/** Of several conditions' worst places the one that lacks most: the larger height governs. */
export const governing = (places: readonly (WorstPlace | null)[]): WorstPlace | null => {
  let most: WorstPlace | null = null;
  for (const w of places) if (w !== null && (most === null || w.missM > most.missM)) most = w;
  return most;
};

/** First year of the horizon in which the policy is missed; growth only raises, so the years are searched in order. */
const yearLost = (path: PreparedPath, conditions: readonly Condition[], plan: LinkPlan): number | null => {
  const leaves = leavesCount(plan);
  for (let years = 1; years <= plan.policy.horizonYears; years++) {
    const year = plan.policy.year + years;
    for (const b of path.near) {
      if (b.body.growthMPerYear <= 0 || !judged(b, leaves)) continue;
      for (const { ray, share } of conditions) {
        const a = bodyApproach(ray, b, b.topAt(year), SHARE_OF_INTEREST);
        if (a !== null && missOf(ray, a, share) > MET_WITHIN_M) return year;
      }
    }
  }
  return null;
};

/**
 * Clearance of a path under its policy's conditions (the first is that of the median k).
 * @param draw false takes the chance from the worst place alone, for searches over thousands of pairs.
 * @returns the result, and every body near the ray by its approach under the first condition.
 */
export const clearanceOf = (
  path: PreparedPath,
  conditions: readonly Condition[],
  plan: LinkPlan,
  draw = true,
): { result: ClearanceResult; bodies: BodyApproach[] } => {
  const { year, horizonYears } = plan.policy;
  const leaves = leavesCount(plan);
  const first = conditions[0]!;
  const today = approachesOf(path, first, leaves, year);
  const others = conditions.slice(1).map((c) => worstOf(path, c, leaves, year));
  const worst = governing([today.worst, ...others]);
  // Only what grows can be worse in later years than today.
  const later =
    horizonYears === 0 ? worst : governing([worst, ...conditions.map((c) => worstOf(path, c, leaves, year + horizonYears, true))]);
  const treesInZone = today.bodies.filter((b) => b.vegetation && missOf(first.ray, b, first.share) > MET_WITHIN_M).map((b) => b.body.id);
  const base = {
    conditions: conditions.map((c, i) => ({
      kFactor: c.ray.kFactor,
      policyShare: c.share,
      worst: i === 0 ? today.worst : others[i - 1]!,
      extended: c.extended,
    })),
    policyShare: worst?.policyShare ?? first.share,
    worst,
    worstAtHorizon: later,
    unknownGroundM: path.unknownGroundM,
    treesInZone,
  };
  if (worst === null || path.unknownGroundM > 0) {
    const verdict: Verdict = worst !== null && worst.missM > MET_WITHIN_M && worst.owner.kind === "body" ? "short" : "unknown";
    const result = { ...base, verdict, lostInYear: null, probability: null, probabilityOfSurvey: null, sigmaM: null, sigmaOf: null };
    return { result, bodies: today.bodies };
  }
  const met = worst.missM <= MET_WITHIN_M;
  const lostInYear = met && later !== null && later.missM > MET_WITHIN_M ? yearLost(path, conditions, plan) : null;
  const governs = conditions.find((c) => c.ray.kFactor === worst.kFactor && c.share === worst.policyShare) ?? first;
  const sigmaOf = sigmasAt(path, plan, governs.ray, worst);
  const sigmaM = Math.hypot(sigmaOf.groundM, sigmaOf.obstacleM, sigmaOf.mountM, sigmaOf.positionM);
  const drawn = draw
    ? chanceOfClearance(plan, path, conditions, leaves, -worst.missM, sigmaM)
    : {
        met: shareBelow(-worst.missM, sigmaM),
        metBySurvey: shareBelow(-worst.missM, Math.hypot(sigmaOf.groundM, sigmaOf.obstacleM)),
        draws: 0,
      };
  const probability = drawn.met;
  const probabilityOfSurvey = drawn.metBySurvey;
  const unsure = probabilityOfSurvey > UNSURE_LOW && probabilityOfSurvey < UNSURE_HIGH;
  let verdict: Verdict = "clear";
  if (unsure) verdict = "unknown";
  else if (!met) verdict = "short";
  else if (probability < CLEAR_PROBABILITY || lostInYear !== null) verdict = "tight";
  return {
    result: { ...base, verdict, lostInYear, probability, probabilityOfSurvey, sigmaM, sigmaOf },
    bodies: today.bodies,
  };
};
