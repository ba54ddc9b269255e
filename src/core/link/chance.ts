/*
 * The chance that a clearance policy is met, by drawing: one truth for verdict, register and the drawing of
 * the doubt. Always the same draws, so that nothing flickers while a mast is dragged. Where no error within
 * five sigma decides anything, nothing is drawn.
 */
import { f1RadiusM } from "../obstacles";
import { type BodySection, clearOfSectionM, heightSigmaOf, sectionOf, sectionsWithin } from "./body-sections";
import type { Condition } from "./conditions";
import { clearanceDraw } from "./draw-clearance";
import { DEFAULT_SEED, type DrawnHeight, drawSource } from "./draws";
import { MET_WITHIN_M } from "./limits";
import { type PreparedBody, type PreparedPath, SHARE_OF_INTEREST } from "./prepare";
import type { LinkPlan } from "./types";

/** Draws of a chance: its own error is then 1.6 in 100 at most, one sigma. */
export const CHANCE_DRAWS = 1000;
const BEYOND_SIGMAS = 5;

/** What the draws of a clearance need: the bodies within reach of the errors, under each condition. */
export interface DrawnBodies {
  readonly parts: readonly { readonly condition: Condition; readonly sections: readonly BodySection[] }[];
  readonly heights: readonly DrawnHeight[];
  /** Five sigma of everything that moves the ground, and a body, against the ray. */
  readonly groundReachM: number;
  readonly bodyReachM: number;
}

/** Bodies that the errors may bring into the zone, and those that count already, under each condition in the same order. */
export const drawnBodies = (plan: LinkPlan, path: PreparedPath, conditions: readonly Condition[]): DrawnBodies => {
  const first = conditions[0]!;
  const groundM = Math.max(0, ...path.profile.datasets.map((d) => d.sigmaM));
  const mountM = Math.max(plan.near.mountSigmaM, plan.far.mountSigmaM);
  const positionM = Math.max(plan.near.positionSigmaM, plan.far.positionSigmaM);
  const commonM = Math.hypot(groundM * Math.SQRT2, mountM, positionM);
  const reachM = (b: PreparedBody): number => BEYOND_SIGMAS * Math.hypot(commonM, heightSigmaOf(b.body, plan));
  const atLeastM = SHARE_OF_INTEREST * f1RadiusM(first.ray, (first.ray.startM + first.ray.endM) / 2);
  const widest = Math.max(...conditions.map((c) => c.share));
  const within = sectionsWithin(first.ray, path.standing, plan, widest, (b) => Math.max(atLeastM, reachM(b)));
  const prepared = within.map((s) => path.standing.find((b) => b.body === s.body)!);
  return {
    parts: conditions.map((condition, i) => ({
      condition,
      sections:
        i === 0
          ? within
          : within.map((s, k) => {
              const at = { atM: s.atM, acrossM: Math.max(0, s.leftM) + Math.min(0, s.rightM) };
              return sectionOf(condition.ray, prepared[k]!, at, plan, condition.share) ?? s;
            }),
    })),
    heights: within.map((s) => ({ bodyIndex: path.profile.bodies.indexOf(s.body), sigmaM: s.sigmaM })),
    groundReachM: BEYOND_SIGMAS * Math.hypot(groundM * Math.SQRT2, mountM),
    bodyReachM: BEYOND_SIGMAS * commonM,
  };
};

export interface Chance {
  readonly met: number;
  /** The same with the errors of ground and obstacles alone. */
  readonly metBySurvey: number;
  /** How many were drawn; 0 where no error within reach decides. */
  readonly draws: number;
}

/** Whether the plan decides by itself: everything is out of reach, or something stands in the way by far. */
const settled = (bodies: DrawnBodies, leaves: boolean, spareM: number, ownerSigmaM: number): boolean => {
  if (Math.abs(spareM) <= BEYOND_SIGMAS * ownerSigmaM) return false;
  if (spareM < 0) return true;
  if (spareM <= bodies.groundReachM) return false;
  return bodies.parts.every(({ condition, sections }) =>
    sections.every(
      (s) =>
        (s.vegetation && !leaves) ||
        clearOfSectionM(s, 0, 0) * s.boundShare - condition.share * s.f1M > Math.hypot(BEYOND_SIGMAS * s.sigmaM, bodies.bodyReachM),
    ),
  );
};

/**
 * @param spareM room beyond the policy as planned; @param sigmaM its own standard error, for knowing when nothing need be drawn.
 * @param seed the same seed gives the same draws.
 */
export const chanceOfClearance = (
  plan: LinkPlan,
  path: PreparedPath,
  conditions: readonly Condition[],
  leaves: boolean,
  spareM: number,
  sigmaM: number,
  draws = CHANCE_DRAWS,
  seed = DEFAULT_SEED,
): Chance => {
  const bodies = drawnBodies(plan, path, conditions);
  if (settled(bodies, leaves, spareM, sigmaM)) {
    const met = spareM >= -MET_WITHIN_M ? 1 : 0;
    return { met, metBySurvey: met, draws: 0 };
  }
  const source = drawSource(plan, path.profile, bodies.heights, draws, seed);
  const clearance = clearanceDraw(path.profile, bodies.parts, source, leaves, bodies.groundReachM);
  let met = 0;
  let metBySurvey = 0;
  for (let n = 0; n < draws; n++) {
    const draw = source.next();
    if (clearance(draw, false, -MET_WITHIN_M).spareM >= -MET_WITHIN_M) met++;
    if (clearance(draw, true, -MET_WITHIN_M).spareM >= -MET_WITHIN_M) metBySurvey++;
  }
  return { met: met / draws, metBySurvey: metBySurvey / draws, draws };
};
