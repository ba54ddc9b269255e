import { type Approach, apertureBoundShare, bodyApproach, f1RadiusM, groundApproach, type PathBody, type Ray } from "../obstacles";
import { NO_DATASET } from "../terrain";
import type { PreparedPath } from "./prepare";
import type { ClearancePolicy, ClearanceResult, LinkPlan, Verdict, WorstPlace } from "./types";

export const policyShareOf = (policy: ClearancePolicy): number => ({ line: 0, sixty: 0.6, whole: 1 })[policy];

/** Named features within this distance say where the ground stands in the way (ours). */
const FEATURE_REACH_M = 500;
/** Approaches above this share are of no interest to clearance or loss. */
const SHARE_OF_INTEREST = 1.5;
const CLEAR_PROBABILITY = 0.9;
const UNSURE_LOW = 0.2;
const UNSURE_HIGH = 0.8;
/** Share of the terrain variance that shifts a whole dataset together. */
const COMMON_SHARE = 0.6;
/** A policy is met when it is missed by no more than this: figures are shown to a decimetre. */
const MET_WITHIN_M = 0.0005;

export interface BodyApproach extends Approach {
  readonly body: PathBody;
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

const missOf = (ray: Ray, a: Approach, policyShare: number): number => {
  const f1M = a.f1M > 0 ? a.f1M : f1RadiusM(ray, Math.min(ray.endM - 0.01, Math.max(ray.startM + 0.01, a.atM)));
  return f1M * (policyShare - apertureBoundShare(ray, a, policyShare));
};

const asWorst = (ray: Ray, a: Approach, policyShare: number, body: PathBody | null, path: PreparedPath): WorstPlace => ({
  owner: body === null ? { kind: "ground" } : { kind: "body", bodyKind: body.kind, id: body.id },
  ownerName: body === null ? nearestFeature(path, a.atM) : body.name,
  share: a.share,
  atM: a.atM,
  acrossM: a.acrossM,
  zAmslM: a.zAmslM,
  side: a.side,
  f1M: a.f1M,
  missM: missOf(ray, a, policyShare),
});

/** Approaches of all bodies in a year, nearest first, and the worst place over ground and bodies. */
export const approachesOf = (
  path: PreparedPath,
  ray: Ray,
  policyShare: number,
  year: number,
): { bodies: BodyApproach[]; worst: WorstPlace | null } => {
  const found: BodyApproach[] = [];
  for (const b of path.bodies) {
    const a = bodyApproach(ray, b, b.topAt(year), SHARE_OF_INTEREST);
    if (a !== null) found.push({ ...a, body: b.body, vegetation: b.vegetation });
  }
  const bound = (a: Approach): number => apertureBoundShare(ray, a, policyShare);
  found.sort((a, b) => bound(a) - bound(b));
  const ground = groundApproach(ray, path.profile.distanceM, path.profile.groundAmslM);
  const first = found[0];
  if (first !== undefined && (ground === null || bound(first) <= bound(ground))) {
    return { bodies: found, worst: asWorst(ray, first, policyShare, first.body, path) };
  }
  return { bodies: found, worst: ground === null ? null : asWorst(ray, ground, policyShare, null, path) };
};

/** Worst place alone, each body passed over as soon as it cannot be worse than the last found. */
export const worstOf = (path: PreparedPath, ray: Ray, policyShare: number, year: number): WorstPlace | null => {
  const ground = groundApproach(ray, path.profile.distanceM, path.profile.groundAmslM);
  let best = ground;
  let bestBody: PathBody | null = null;
  let bestBound = ground === null ? SHARE_OF_INTEREST : apertureBoundShare(ray, ground, policyShare);
  for (const b of path.bodies) {
    const a = bodyApproach(ray, b, b.topAt(year), SHARE_OF_INTEREST);
    if (a === null) continue;
    const bound = apertureBoundShare(ray, a, policyShare);
    if (bound > bestBound) continue;
    best = a;
    bestBody = b.body;
    bestBound = bound;
  }
  return best === null ? null : asWorst(ray, best, policyShare, bestBody, path);
};

/** Standard normal distribution function, Abramowitz and Stegun 7.1.26, error below 1.5e-7. */
export const normalShare = (z: number): number => {
  const x = Math.abs(z) / Math.SQRT2;
  const t = 1 / (1 + 0.3275911 * x);
  const erf = 1 - ((((1.061405429 * t - 1.453152027) * t + 1.421413741) * t - 0.284496736) * t + 0.254829592) * t * Math.exp(-x * x);
  return z >= 0 ? (1 + erf) / 2 : (1 - erf) / 2;
};

/**
 * Standard errors of the clearance at the worst place. A dataset's common shift moves both mounts and the
 * obstacle together and falls out where one dataset carries all three.
 */
const sigmasAt = (path: PreparedPath, plan: LinkPlan, worst: WorstPlace): { groundM: number; obstacleM: number; mountM: number } => {
  const { profile } = path;
  const t = Math.min(1, Math.max(0, worst.atM / profile.pathM));
  const mountM = Math.hypot((1 - t) * plan.near.mountSigmaM, t * plan.far.mountSigmaM);
  const weights = new Map<number, { sum: number; squares: number }>();
  const add = (xM: number, weight: number): void => {
    const index = path.datasetAt(xM);
    if (index === NO_DATASET) return;
    const w = weights.get(index) ?? { sum: 0, squares: 0 };
    weights.set(index, { sum: w.sum + weight, squares: w.squares + weight * weight });
  };
  add(0, 1 - t);
  add(profile.pathM, t);
  add(worst.atM, -1);
  let groundVariance = 0;
  for (const [index, w] of weights) {
    const sigma = profile.datasets[index]?.sigmaM ?? 0;
    groundVariance += sigma * sigma * (COMMON_SHARE * w.sum * w.sum + (1 - COMMON_SHARE) * w.squares);
  }
  const owner = worst.owner;
  const body = owner.kind === "body" ? profile.bodies.find((b) => b.id === owner.id) : undefined;
  const trimmed = body !== undefined && plan.trims[body.id] !== undefined;
  const obstacleM = body === undefined ? 0 : trimmed ? Math.min(0.3, body.heightSigmaM) : body.heightSigmaM;
  return { groundM: Math.sqrt(groundVariance), obstacleM, mountM };
};

const chanceOf = (spareM: number, sigmaM: number): number => (sigmaM > 0 ? normalShare(spareM / sigmaM) : spareM >= 0 ? 1 : 0);

/** First year of the horizon in which the policy is missed; growth only raises, so the years are searched in order. */
const yearLost = (path: PreparedPath, ray: Ray, plan: LinkPlan, policyShare: number): number | null => {
  for (let years = 1; years <= plan.policy.horizonYears; years++) {
    const year = plan.policy.year + years;
    for (const b of path.bodies) {
      if (b.body.growthMPerYear <= 0) continue;
      const a = bodyApproach(ray, b, b.topAt(year), SHARE_OF_INTEREST);
      if (a !== null && missOf(ray, a, policyShare) > MET_WITHIN_M) return year;
    }
  }
  return null;
};

export const clearanceOf = (path: PreparedPath, ray: Ray, plan: LinkPlan): { result: ClearanceResult; bodies: BodyApproach[] } => {
  const policyShare = policyShareOf(plan.policy.clearance);
  const { year, horizonYears } = plan.policy;
  const today = approachesOf(path, ray, policyShare, year);
  const later = worstOf(path, ray, policyShare, year + horizonYears);
  const { worst } = today;
  const treesInZone = today.bodies.filter((b) => b.vegetation && missOf(ray, b, policyShare) > MET_WITHIN_M).map((b) => b.body.id);
  const base = { policyShare, worst, worstAtHorizon: later, unknownGroundM: path.unknownGroundM, treesInZone };
  if (worst === null || path.unknownGroundM > 0) {
    const verdict: Verdict = worst !== null && worst.missM > MET_WITHIN_M && worst.owner.kind === "body" ? "short" : "unknown";
    const result = { ...base, verdict, lostInYear: null, probability: null, probabilityOfSurvey: null, sigmaM: null, sigmaOf: null };
    return { result, bodies: today.bodies };
  }
  const met = worst.missM <= MET_WITHIN_M;
  const lostInYear = met && later !== null && later.missM > MET_WITHIN_M ? yearLost(path, ray, plan, policyShare) : null;
  const sigmaOf = sigmasAt(path, plan, worst);
  const sigmaM = Math.hypot(sigmaOf.groundM, sigmaOf.obstacleM, sigmaOf.mountM);
  const probability = chanceOf(-worst.missM, sigmaM);
  const probabilityOfSurvey = chanceOf(-worst.missM, Math.hypot(sigmaOf.groundM, sigmaOf.obstacleM));
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
