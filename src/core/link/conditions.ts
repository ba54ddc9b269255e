/*
 * The clearance policy as conditions: one ray and one share of F1 each. The two-condition rule is
 * P.530-17 §2.2.2.1: whole F1 at the median k, and at the low k a share that depends on climate and on
 * whether the obstacle is isolated or extended.
 */
import { type Approach, bodyApproach, f1RadiusM, groundApproach, type Ray, rayBulgeM, rayZM, sideApproach } from "../obstacles";
import { leavesCount } from "./clearance";
import { kLowOf } from "./defaults";
import { type PreparedPath, SHARE_OF_INTEREST } from "./prepare";
import type { ClearancePolicy, LinkPlan } from "./types";

export interface Condition {
  readonly ray: Ray;
  readonly share: number;
  /** Nearest approach of the ground: the same in every year. */
  readonly ground: Approach | null;
  readonly extended: boolean | null;
}

/** Share of F1 at the median k. */
export const policyShareOf = (policy: ClearancePolicy): number => ({ line: 0, sixty: 0.6, whole: 1, "two-condition": 1 })[policy];

const ISOLATED_SHARE = 0;
const EXTENDED_SHARE = 0.3;
const TROPICAL_SHARE = 0.6;
const TROPICAL_ABOVE_M = 30_000;
/** An obstacle is extended when what lies within 0.3 F1 of the worst share fills more than this share of the path (ours). */
const EXTENDED_PATH_SHARE = 0.1;
const WITHIN_SHARE = 0.3;

/** Whether the ground and what stands on it come near the worst share over a long stretch. */
const isExtended = (plan: LinkPlan, path: PreparedPath, ray: Ray, ground: Approach | null): boolean => {
  const { distanceM, groundAmslM, pathM } = path.profile;
  const leaves = leavesCount(plan);
  const bodies = path.near.flatMap((b) => {
    if (b.vegetation && !leaves) return [];
    const a = bodyApproach(ray, b, b.topAt(plan.policy.year), SHARE_OF_INTEREST);
    return a === null ? [] : [{ share: a.share, lengthM: b.stretches.reduce((sum, s) => sum + s.toM - s.fromM, 0) }];
  });
  const worst = { share: Math.min(ground?.share ?? Number.POSITIVE_INFINITY, ...bodies.map((b) => b.share)) };
  if (!Number.isFinite(worst.share)) return false;
  let lengthM = bodies.reduce((sum, b) => sum + (b.share <= worst.share + WITHIN_SHARE ? b.lengthM : 0), 0);
  for (let i = 1; i < distanceM.length; i++) {
    const x = distanceM[i]!;
    const f1M = f1RadiusM(ray, x);
    if (f1M <= 0) continue;
    const share = (rayZM(ray, x) - groundAmslM[i]! - rayBulgeM(ray, x)) / f1M;
    if (share <= worst.share + WITHIN_SHARE) lengthM += x - distanceM[i - 1]!;
  }
  return lengthM > EXTENDED_PATH_SHARE * pathM;
};

/** @param rayAt the plan's ray for a k. */
export const conditionsOf = (plan: LinkPlan, path: PreparedPath, rayAt: (kFactor: number) => Ray): Condition[] => {
  const { policy } = plan;
  const { distanceM, groundAmslM, pathM } = path.profile;
  const over = (ray: Ray): Approach | null => {
    const under = groundApproach(ray, distanceM, groundAmslM);
    return path.side === null ? under : sideApproach(ray, distanceM, path.side, under);
  };
  const medianRay = rayAt(policy.kFactor);
  const median: Condition = { ray: medianRay, share: policyShareOf(policy.clearance), ground: over(medianRay), extended: null };
  if (policy.clearance !== "two-condition") return [median];
  const ray = rayAt(Math.min(policy.kFactor, kLowOf(policy.kLow, pathM / 1000)));
  const ground = over(ray);
  if (policy.climateZone === "tropical" && pathM > TROPICAL_ABOVE_M)
    return [median, { ray, share: TROPICAL_SHARE, ground, extended: null }];
  const extended = isExtended(plan, path, ray, ground);
  return [median, { ray, share: extended ? EXTENDED_SHARE : ISOLATED_SHARE, ground, extended }];
};
