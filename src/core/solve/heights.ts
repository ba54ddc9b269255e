/*
 * Heights of both mounts that meet the clearance policy: for each near height the far heights that do. Bodies
 * beneath and beside the ray bound it from below; spans lie over it as strips of their own.
 */
import { effectiveRadiusM } from "../geo";
import { type LinkPlan, MET_WITHIN_M, type PreparedPath, worstOfBodies, worstPlaceOf } from "../link";
import { isSpan } from "../obstacles";

/** Heights are found to this. */
const HEIGHT_WITHIN_M = 0.001;
const MOST_STEPS = 60;
/** Tries by the lever before the interval is halved. */
const POINTED_STEPS = 8;
const LEAST_LEVER = 0.01;
const COLUMNS = 61;

export const withHeights = (plan: LinkPlan, nearAglM: number, farAglM: number): LinkPlan => ({
  ...plan,
  near: { ...plan.near, mountAglM: nearAglM },
  far: { ...plan.far, mountAglM: farAglM },
});

/** What the policy lacks at the worst place, metres; negative is spare. Null when nothing is known of the path. */
export const missAt = (plan: LinkPlan, path: PreparedPath, nearAglM: number, farAglM: number, year: number): number | null =>
  worstPlaceOf(withHeights(plan, nearAglM, farAglM), path, year)?.missM ?? null;

/** Own roofs: a mount below its roof stands on the wall, above it on the roof. Heights above ground, rising. */
const roofsOf = (path: PreparedPath, end: "near" | "far"): number[] => {
  const g = path.profile.groundAmslM;
  const groundM = end === "near" ? g[0]! : g[g.length - 1]!;
  return path.profile.bodies
    .filter((b) => b.carries === end)
    .map((b) => b.baseAmslM + b.heightM - (Number.isNaN(groundM) ? 0 : groundM))
    .filter((h) => h > 0)
    .sort((a, b) => a - b);
};

/** What lacks at a height, and how much of a metre's raise reaches the place that lacks it. */
interface Lack {
  readonly missM: number;
  readonly lever: number;
}

/**
 * Least height from which the policy is met, between two heights on one side of the own roof. What is met stays met
 * when a mount rises: the first tries go where the lack over the lever points, then the interval is halved.
 * @returns null when it is not met at the greatest height either.
 */
const leastMet = (lackAt: (aglM: number) => Lack, fromM: number, toM: number): number | null => {
  const first = lackAt(fromM);
  if (first.missM <= MET_WITHIN_M) return fromM;
  if (lackAt(toM).missM > MET_WITHIN_M) return null;
  let low = fromM;
  let high = toM;
  let lack = first;
  for (let step = 0; step < MOST_STEPS && high - low > HEIGHT_WITHIN_M; step++) {
    const pointed = low + lack.missM / Math.max(lack.lever, LEAST_LEVER) + HEIGHT_WITHIN_M / 4;
    const tried = step < POINTED_STEPS && pointed < high ? pointed : (low + high) / 2;
    const here = lackAt(tried);
    if (here.missM > MET_WITHIN_M) {
      low = tried;
      lack = here;
      continue;
    }
    high = tried;
    const just = tried - HEIGHT_WITHIN_M;
    if (just > low) {
      const under = lackAt(just);
      if (under.missM > MET_WITHIN_M) return high;
      high = just;
    }
  }
  return high;
};

/** Heights of one end that meet the policy, the other end held. */
export interface Interval {
  readonly fromM: number;
  readonly toM: number;
}

/**
 * All heights of one end that meet the policy for bodies that stand, the other end held: up to the top from the
 * least that does, and below the own roof a stretch of its wall.
 */
export const heightsThatMeet = (
  plan: LinkPlan,
  path: PreparedPath,
  end: "near" | "far",
  otherAglM: number,
  topM: number,
  year: number,
): Interval[] => {
  const standing: PreparedPath = { ...path, near: path.near.filter((b) => !isSpan(b.body.kind)) };
  const lackAt = (aglM: number): Lack => {
    const tried = end === "far" ? withHeights(plan, otherAglM, aglM) : withHeights(plan, aglM, otherAglM);
    const worst = worstPlaceOf(tried, standing, year);
    if (worst === null) return { missM: Number.POSITIVE_INFINITY, lever: 1 };
    const t = Math.min(1, Math.max(0, worst.atM / path.profile.pathM));
    return { missM: worst.missM, lever: end === "far" ? t : 1 - t };
  };
  const edges = [0, ...roofsOf(path, end).filter((h) => h < topM), topM];
  const found: Interval[] = [];
  for (let i = 0; i + 1 < edges.length; i++) {
    const fromM = edges[i]!;
    // Just under the roof is still the wall.
    const toM = i + 2 < edges.length ? edges[i + 1]! - HEIGHT_WITHIN_M : edges[i + 1]!;
    if (toM <= fromM) continue;
    const least = leastMet(lackAt, fromM, toM);
    if (least !== null) found.push({ fromM: least, toM });
  }
  return found;
};

/** Far heights that a span forbids at one near height; null when none of them. @param passM height that sends the ray through it. */
const spanStrip = (missOf: (farAglM: number) => number, topM: number, passM: number): Interval | null => {
  const inside = Math.min(topM, Math.max(0, passM));
  if (missOf(inside) <= MET_WITHIN_M) return null;
  const edge = (towards: number): number => {
    if (missOf(towards) > MET_WITHIN_M) return towards;
    let bad = inside;
    let good = towards;
    while (Math.abs(good - bad) > HEIGHT_WITHIN_M) {
      const mid = (bad + good) / 2;
      if (missOf(mid) > MET_WITHIN_M) bad = mid;
      else good = mid;
    }
    return good;
  };
  return { fromM: edge(0), toM: edge(topM) };
};

export interface HeightColumn {
  readonly nearAglM: number;
  /** Far heights that meet the policy for what stands; the last of them reaches to the top. */
  readonly meets: readonly Interval[];
  /** Far heights that a span forbids, span by span. */
  readonly forbidden: readonly Interval[];
}

export interface HeightFrontier {
  readonly year: number;
  readonly nearTopM: number;
  readonly farTopM: number;
  readonly columns: readonly HeightColumn[];
  readonly spans: readonly string[];
}

/** All pairs of heights that meet the policy in a year, as columns of near heights up to the tops given. */
export const heightFrontier = (
  plan: LinkPlan,
  path: PreparedPath,
  tops: { readonly nearM: number; readonly farM: number },
  year: number,
  columns = COLUMNS,
): HeightFrontier => {
  const { pathM, groundAmslM } = path.profile;
  const endGround = (h: number): number => (Number.isNaN(h) ? 0 : h);
  const nearGroundM = endGround(groundAmslM[0]!);
  const farGroundM = endGround(groundAmslM[groundAmslM.length - 1]!);
  const effectiveM = effectiveRadiusM(plan.policy.kFactor);
  const spans = path.near.filter((b) => isSpan(b.body.kind));
  const column = (nearAglM: number): HeightColumn => {
    const forbidden = spans.flatMap((span) => {
      const { xM, baseAmslM, freeBelowM = 0, heightM } = span.body;
      const atM = xM.reduce((sum, x) => sum + x, 0) / xM.length;
      const t = Math.min(0.999, Math.max(0.001, atM / pathM));
      const middleM = baseAmslM + (freeBelowM + heightM) / 2 + (atM * (pathM - atM)) / (2 * effectiveM);
      const passM = (middleM - (1 - t) * (nearGroundM + nearAglM)) / t - farGroundM;
      const missOf = (farAglM: number): number =>
        worstOfBodies(withHeights(plan, nearAglM, farAglM), path, [span], year)?.missM ?? Number.NEGATIVE_INFINITY;
      const strip = spanStrip(missOf, tops.farM, passM);
      return strip === null ? [] : [strip];
    });
    return { nearAglM, meets: heightsThatMeet(plan, path, "far", nearAglM, tops.farM, year), forbidden };
  };
  return {
    year,
    nearTopM: tops.nearM,
    farTopM: tops.farM,
    spans: spans.map((s) => s.body.name),
    columns: Array.from({ length: columns }, (_, i) => column((tops.nearM * i) / (columns - 1))),
  };
};
