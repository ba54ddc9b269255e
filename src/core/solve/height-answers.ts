/* Single answers out of all pairs of heights: both ends alike, one end alone, the cheapest within what the structures carry. */
import { HIGHEST_RAISE_M, type LinkPlan, MET_WITHIN_M, type PreparedPath } from "../link";
import { heightsThatMeet, missAt, withHeights } from "./heights";

/** Answers are rounded up to this, so that they hold. */
const ROUND_M = 0.1;
/** Steps by which an answer climbs out of a span's strip. */
const CLIMB_M = 0.25;
const NEARS_TRIED = 41;

export type HeightAnswerKind = "both" | "near" | "far" | "cheapest";

export interface HeightAnswer {
  readonly kind: HeightAnswerKind;
  readonly nearAglM: number;
  readonly farAglM: number;
  /** In the site's own money; null where no cost of a metre is known of an end that rises. */
  readonly cost: number | null;
  /** False when a structure's stated limit is passed. */
  readonly withinLimits: boolean;
}

export interface HeightAnswers {
  readonly year: number;
  /** In the order both, far, near, cheapest; a kind that has no answer is left out. */
  readonly answers: readonly HeightAnswer[];
  /** What still lacks with both mounts as high as is looked at; null when some pair does. */
  readonly lacksAtTopM: number | null;
  readonly topNearM: number;
  readonly topFarM: number;
}

export interface MastCosts {
  /** Cost of one metre of mast; null when the site does not say. */
  readonly nearPerM: number | null;
  readonly farPerM: number | null;
}

/** As high as is looked at: what the structure carries, else the highest raise above today's mount. */
export const topsOf = (plan: LinkPlan): { nearM: number; farM: number } => ({
  nearM: Math.max(plan.near.mountAglM, plan.near.mountMaxAglM ?? plan.near.mountAglM + HIGHEST_RAISE_M),
  farM: Math.max(plan.far.mountAglM, plan.far.mountMaxAglM ?? plan.far.mountAglM + HIGHEST_RAISE_M),
});

const roundUp = (m: number): number => Math.round(Math.ceil(m / ROUND_M - 1e-6) * ROUND_M * 100) / 100;

const costOf = (plan: LinkPlan, costs: MastCosts, nearAglM: number, farAglM: number): number | null => {
  const up = [nearAglM - plan.near.mountAglM, farAglM - plan.far.mountAglM];
  const perM = [costs.nearPerM, costs.farPerM];
  let sum = 0;
  for (let i = 0; i < 2; i++) {
    if (up[i]! <= 1e-9) continue;
    if (perM[i] === null) return null;
    sum += up[i]! * perM[i]!;
  }
  return sum;
};

/** Least raise of both mounts by the same amount, spans counted; null when none up to the highest raise does. */
const raiseBoth = (plan: LinkPlan, path: PreparedPath, year: number): number | null => {
  const miss = (raiseM: number): number => missAt(plan, path, plan.near.mountAglM + raiseM, plan.far.mountAglM + raiseM, year) ?? 1;
  for (let raiseM = 0; raiseM <= HIGHEST_RAISE_M; raiseM += CLIMB_M) {
    if (miss(raiseM) > MET_WITHIN_M) continue;
    let low = Math.max(0, raiseM - CLIMB_M);
    let high = raiseM;
    while (high - low > ROUND_M / 8) {
      const mid = (low + high) / 2;
      if (miss(mid) <= MET_WITHIN_M) high = mid;
      else low = mid;
    }
    return high;
  }
  return null;
};

/** Least height of one end at or above today's, the other held, spans counted. */
const raiseOne = (
  plan: LinkPlan,
  path: PreparedPath,
  end: "near" | "far",
  otherAglM: number,
  topM: number,
  year: number,
): number | null => {
  const nowM = end === "near" ? plan.near.mountAglM : plan.far.mountAglM;
  const met = (aglM: number): boolean =>
    ((end === "near" ? missAt(plan, path, aglM, otherAglM, year) : missAt(plan, path, otherAglM, aglM, year)) ?? 1) <= MET_WITHIN_M;
  for (const { fromM, toM } of heightsThatMeet(plan, path, end, otherAglM, topM, year)) {
    for (let h = Math.max(fromM, nowM); h <= toM; h += CLIMB_M) {
      if (!met(h)) continue;
      // Climbed out of a strip: down again to its edge.
      let low = Math.max(fromM, nowM, h - CLIMB_M);
      let high = h;
      while (high - low > ROUND_M / 8) {
        const mid = (low + high) / 2;
        if (met(mid)) high = mid;
        else low = mid;
      }
      return high;
    }
  }
  return null;
};

/**
 * Heights for both ends that meet the policy in a year. Nothing is gained by lowering a mount: answers never go below
 * today's. The cheapest weighs metres of mast by the sites' costs, or alike where none is known, within both limits.
 */
export const heightAnswers = (plan: LinkPlan, path: PreparedPath, costs: MastCosts, year: number): HeightAnswers => {
  const limits = topsOf(plan);
  const free = { nearM: plan.near.mountAglM + HIGHEST_RAISE_M, farM: plan.far.mountAglM + HIGHEST_RAISE_M };
  const [near0, far0] = [plan.near.mountAglM, plan.far.mountAglM];
  const answers: HeightAnswer[] = [];
  const add = (kind: HeightAnswerKind, nearAglM: number, farAglM: number): void => {
    const near = nearAglM > near0 ? roundUp(nearAglM) : near0;
    const far = farAglM > far0 ? roundUp(farAglM) : far0;
    // Rounded up into a span, or past the roof's edge, it would not hold.
    if ((missAt(plan, path, near, far, year) ?? 1) > MET_WITHIN_M) return;
    const withinLimits =
      near <= (plan.near.mountMaxAglM ?? Number.POSITIVE_INFINITY) + 1e-9 &&
      far <= (plan.far.mountMaxAglM ?? Number.POSITIVE_INFINITY) + 1e-9;
    answers.push({ kind, nearAglM: near, farAglM: far, cost: costOf(plan, costs, near, far), withinLimits });
  };
  const both = raiseBoth(plan, path, year);
  if (both !== null) add("both", near0 + both, far0 + both);
  const far = raiseOne(plan, path, "far", near0, free.farM, year);
  if (far !== null) add("far", near0, far);
  const near = raiseOne(plan, path, "near", far0, free.nearM, year);
  if (near !== null) add("near", near, far0);
  const cheapest = cheapestPair(plan, path, costs, limits, year);
  if (cheapest !== null) add("cheapest", cheapest.nearAglM, cheapest.farAglM);
  const atTop = missAt(plan, path, free.nearM, free.farM, year);
  return {
    year,
    answers,
    lacksAtTopM: answers.length === 0 ? atTop : null,
    topNearM: free.nearM,
    topFarM: free.farM,
  };
};

const cheapestPair = (
  plan: LinkPlan,
  path: PreparedPath,
  costs: MastCosts,
  tops: { readonly nearM: number; readonly farM: number },
  year: number,
): { nearAglM: number; farAglM: number } | null => {
  const weights = { nearPerM: costs.nearPerM ?? costs.farPerM ?? 1, farPerM: costs.farPerM ?? costs.nearPerM ?? 1 };
  let best: { nearAglM: number; farAglM: number; cost: number } | null = null;
  const tryNear = (nearAglM: number): void => {
    const farAglM = raiseOne(withHeights(plan, nearAglM, plan.far.mountAglM), path, "far", nearAglM, tops.farM, year);
    if (farAglM === null) return;
    const cost = costOf(plan, weights, nearAglM, farAglM) ?? 0;
    if (best === null || cost < best.cost - 1e-9) best = { nearAglM, farAglM, cost };
  };
  const fromM = plan.near.mountAglM;
  const stepM = (tops.nearM - fromM) / (NEARS_TRIED - 1);
  if (stepM <= 0) {
    tryNear(fromM);
    return best;
  }
  for (let i = 0; i < NEARS_TRIED; i++) tryNear(fromM + i * stepM);
  const coarse = best as { nearAglM: number } | null;
  if (coarse === null) return null;
  for (let i = -8; i <= 8; i++) {
    const nearAglM = coarse.nearAglM + (i * stepM) / 8;
    if (nearAglM >= fromM && nearAglM <= tops.nearM) tryNear(nearAglM);
  }
  return best;
};
