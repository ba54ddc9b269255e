import { type Ray, rayBulgeM, rayZM } from "../obstacles";
import { NO_DATASET } from "../terrain";
import { heightSigmaOf } from "./body-sections";
import { COMMON_SHARE } from "./limits";
import type { PreparedPath } from "./prepare";
import type { LinkPlan, WorstPlace } from "./types";

/** What each error moves the clearance by at the worst place, metres: one standard error each. */
export interface SigmaOf {
  readonly groundM: number;
  readonly obstacleM: number;
  readonly mountM: number;
  readonly positionM: number;
}

/** How much of the room at the worst place lies upwards and how much aside: shares of the way to it. */
const directionOf = (path: PreparedPath, year: number, ray: Ray, worst: WorstPlace): { up: number; aside: number } => {
  const rayAmslM = rayZM(ray, worst.atM) - rayBulgeM(ray, worst.atM);
  if (worst.side === "through") {
    // Through it: the way out that is nearest.
    const owner = worst.owner;
    const body = owner.kind === "body" ? path.standing.find((b) => b.body.id === owner.id) : undefined;
    if (body === undefined || body.body.freeBelowM !== undefined) return { up: 1, aside: 0 };
    const outM = -worst.share * worst.f1M;
    return outM < body.topAt(year)(worst.atM) - rayAmslM - 0.01 ? { up: 0, aside: 1 } : { up: 1, aside: 0 };
  }
  const upM = worst.zAmslM - rayAmslM;
  const awayM = Math.hypot(upM, worst.acrossM);
  return awayM > 0 ? { up: Math.abs(upM) / awayM, aside: Math.abs(worst.acrossM) / awayM } : { up: 1, aside: 0 };
};

/**
 * Standard errors of the clearance at the worst place. A dataset's common shift moves both mounts and the
 * obstacle together and falls out where one dataset carries all three.
 */
export const sigmasAt = (path: PreparedPath, plan: LinkPlan, ray: Ray, worst: WorstPlace): SigmaOf => {
  const { profile } = path;
  const t = Math.min(1, Math.max(0, worst.atM / profile.pathM));
  const toward = directionOf(path, plan.policy.year, ray, worst);
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
  return {
    groundM: toward.up * Math.sqrt(groundVariance),
    obstacleM: body === undefined ? 0 : toward.up * heightSigmaOf(body, plan),
    mountM: toward.up * Math.hypot((1 - t) * plan.near.mountSigmaM, t * plan.far.mountSigmaM),
    positionM: toward.aside * Math.hypot((1 - t) * plan.near.positionSigmaM, t * plan.far.positionSigmaM),
  };
};
