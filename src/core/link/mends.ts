import { isSpan } from "../obstacles";
import { HIGHEST_RAISE_M, LOWEST_MOUNT_M, MET_WITHIN_M } from "./limits";
import { worstOfBodies, worstPlaceOf } from "./path-state";
import { type PreparedPath, withTrims } from "./prepare";
import type { LinkPlan } from "./types";

/** Raises are rounded up to this, so that the answer holds. */
const ROUND_M = 0.1;
const MAX_STEPS = 24;

const roundUp = (valueM: number): number => Math.ceil(valueM / ROUND_M - 1e-6) * ROUND_M;

export type Ends = "near" | "far" | "both";

export const withMounts = (plan: LinkPlan, ends: Ends, raiseM: number): LinkPlan => ({
  ...plan,
  near: ends === "far" ? plan.near : { ...plan.near, mountAglM: plan.near.mountAglM + raiseM },
  far: ends === "near" ? plan.far : { ...plan.far, mountAglM: plan.far.mountAglM + raiseM },
});

/**
 * Least raise of one or both mounts that meets the policy in a year, or null when none up to
 * HIGHEST_RAISE_M does. Each step lifts by what the worst place lacks, times the lever of that end:
 * the worst place may change, so it is asked again until nothing lacks.
 */
export const raiseToMeet = (plan: LinkPlan, path: PreparedPath, ends: Ends, year: number): number | null => {
  let raiseM = 0;
  for (let step = 0; step < MAX_STEPS; step++) {
    const worst = worstPlaceOf(withMounts(plan, ends, raiseM), path, year);
    if (worst === null) return null;
    if (worst.missM <= MET_WITHIN_M) return roundUp(raiseM);
    const t = Math.min(1, Math.max(0, worst.atM / path.profile.pathM));
    const lever = ends === "both" ? 1 : ends === "far" ? t : 1 - t;
    if (lever < 0.02) return null;
    raiseM += worst.missM / lever + MET_WITHIN_M / 2;
    if (!(raiseM <= HIGHEST_RAISE_M)) return null;
  }
  return null;
};

/** How far down a mount is looked for under a span (ours). */
const DEEPEST_DROP_M = 15;
const DROP_WITHIN_M = 0.001;

/** Least drop, to a millimetre, at which one span alone lets the ray pass beneath it; null when none within the deepest does. */
const dropBeneath = (missAt: (dropM: number) => number, mostM: number): number | null => {
  if (missAt(0) <= MET_WITHIN_M) return 0;
  if (missAt(mostM) > MET_WITHIN_M) return null;
  let low = 0;
  let high = mostM;
  while (high - low > DROP_WITHIN_M) {
    const mid = (low + high) / 2;
    if (missAt(mid) > MET_WITHIN_M) low = mid;
    else high = mid;
  }
  return high;
};

/**
 * Least drop of one mount that passes beneath every span with the policy met, or null. Everything else stands below
 * the ray: going deeper than the spans ask only makes that worse, so one look at the whole decides.
 */
export const lowerToMeet = (plan: LinkPlan, path: PreparedPath, end: "near" | "far", year: number): number | null => {
  const mostM = Math.min(DEEPEST_DROP_M, (end === "near" ? plan.near.mountAglM : plan.far.mountAglM) - LOWEST_MOUNT_M);
  if (mostM <= 0) return null;
  let dropM = 0;
  for (const span of path.near.filter((b) => isSpan(b.body.kind))) {
    const missAt = (m: number): number => worstOfBodies(withMounts(plan, end, -m), path, [span], year)?.missM ?? Number.NEGATIVE_INFINITY;
    const own = dropBeneath(missAt, mostM);
    if (own === null) return null;
    dropM = Math.max(dropM, own);
  }
  const rounded = roundUp(dropM);
  if (rounded <= 0 || rounded > mostM) return null;
  const worst = worstPlaceOf(withMounts(plan, end, -rounded), path, year);
  return worst !== null && worst.missM <= MET_WITHIN_M ? rounded : null;
};

/** Height above ground to which one body must come down to meet the policy in a year; null when it alone does not decide. */
export const trimToMeet = (plan: LinkPlan, path: PreparedPath, bodyId: string, year: number): number | null => {
  const body = path.profile.bodies.find((b) => b.id === bodyId);
  if (body === undefined) return null;
  const growthM = body.growthMPerYear * (year - plan.policy.year);
  let heightM = Math.min(plan.trims[bodyId] ?? body.heightM, body.heightM);
  for (let step = 0; step < MAX_STEPS; step++) {
    const trimmed: LinkPlan = { ...plan, trims: { ...plan.trims, [bodyId]: heightM } };
    const worst = worstPlaceOf(trimmed, withTrims(path, trimmed), year);
    if (worst === null || worst.missM <= MET_WITHIN_M) return Math.floor(heightM / ROUND_M + 1e-6) * ROUND_M;
    if (worst.owner.kind !== "body" || worst.owner.id !== bodyId) return null;
    heightM -= worst.missM + MET_WITHIN_M / 2;
    if (heightM + growthM <= 0.3 || heightM <= 0.3) return null;
  }
  return null;
};
