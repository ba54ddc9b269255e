/*
 * Solid bodies on and beside a path as finite screens in its diffraction profile (ours, on P.526-15 §4.5.4
 * and §5.2). Each has one loss S by itself, from its top and both its true sides. In the profile it stands
 * as high as an endless edge with that loss would: exactly its top where it is as wide as the zone, lower
 * as the ray nears its side, gone where it costs nothing. So nothing jumps when a body leaves the axis.
 * The median is the least of the whole profile at once and of one body alone over the rest.
 */
import { type Shadow, shadowOf } from "../obstacles";
import { type DiffractionProfile, deltaBullingtonDb, LEAST_V, screenLoss, vOfEdgeLoss } from "../propagation";
import type { PreparedBody } from "./prepare";

/** A solid body of a path: its silhouette, and the inner points of the profile that stand for its top. */
export interface Screen {
  readonly prepared: PreparedBody;
  readonly shadow: Shadow;
  readonly from: number;
  readonly to: number;
}

/** A screen for one pair of heights. */
export interface ScreenAt {
  readonly index: number;
  /** v of its top where that is greatest, and of its sides. */
  readonly topV: number;
  readonly leftV: number;
  readonly rightV: number;
  readonly lossDb: number;
  /** How much lower it stands in the profile than its top, in v. */
  readonly dropV: number;
  readonly atKm: number;
  readonly topAmslM: number;
}

/** So many bodies are tried as the one that stands alone (ours); behind the strongest the rest only add to the rest. */
const MOST_ALONE = 3;

/** Silhouettes of the solid bodies that may come into the zone. @param reachF1 bodies farther aside, in F1, are left out. */
export const shadowsOf = (
  bodies: readonly PreparedBody[],
  pathM: number,
  wavelengthM: number,
  reachF1: number,
): { prepared: PreparedBody; shadow: Shadow }[] =>
  bodies.flatMap((prepared) => {
    const shadow = shadowOf(prepared.body, pathM, wavelengthM);
    return shadow === null || shadow.leftF1 > reachF1 || shadow.rightF1 < -reachF1 ? [] : [{ prepared, shadow }];
  });

/** Inner points of a profile that lie in a stretch; the profile has a point at each of its ends. */
export const pointsOf = (p: DiffractionProfile, fromM: number, toM: number): { from: number; to: number } => {
  const nearest = (xM: number): number => {
    let low = 0;
    let high = p.count - 1;
    while (high - low > 1) {
      const mid = (low + high) >> 1;
      if (p.fromNearKm[mid]! * 1000 <= xM) low = mid;
      else high = mid;
    }
    return Math.abs(p.fromNearKm[high]! * 1000 - xM) < Math.abs(p.fromNearKm[low]! * 1000 - xM) ? high : low;
  };
  const from = nearest(fromM);
  return { from, to: Math.max(from, nearest(toM)) };
};

/**
 * The screens that cost something between two heights, costliest first.
 * @param topAmslM top of each screen; @param asideM move of the ray to the right at its place; null for none.
 */
export const screensAt = (
  p: DiffractionProfile,
  screens: readonly Pick<Screen, "shadow" | "from" | "to">[],
  nearAmslM: number,
  farAmslM: number,
  topAmslM: (index: number) => number,
  asideM: ((xM: number) => number) | null,
): ScreenAt[] => {
  const slope = (farAmslM - nearAmslM) / p.pathKm;
  const out: ScreenAt[] = [];
  for (let index = 0; index < screens.length; index++) {
    const { shadow, from, to } = screens[index]!;
    const top = topAmslM(index);
    let topV = Number.NEGATIVE_INFINITY;
    let best = from;
    const look = (k: number): void => {
      const v = (top + p.bulgeM[k]! - nearAmslM - slope * p.fromNearKm[k]!) * p.vPerM[k]!;
      if (v > topV) {
        topV = v;
        best = k;
      }
    };
    look(from);
    look((from + to) >> 1);
    look(to);
    if (topV <= LEAST_V) continue;
    const movedV = asideM === null ? 0 : asideM(p.fromNearKm[best]! * 1000) * p.vPerM[best]!;
    const leftV = Math.SQRT2 * shadow.leftF1 - movedV;
    const rightV = Math.SQRT2 * shadow.rightF1 - movedV;
    const { lossDb } = screenLoss(topV, leftV, rightV);
    if (lossDb <= 0) continue;
    const dropV = Math.max(0, topV - vOfEdgeLoss(lossDb));
    out.push({ index, topV, leftV, rightV, lossDb, dropV, atKm: p.fromNearKm[best]!, topAmslM: top });
  }
  return out.sort((a, b) => b.lossDb - a.lossDb);
};

/** The profile with the screens on it, but one. Written into `topM` (room for the profile's points). */
export const raised = (
  p: DiffractionProfile,
  screens: readonly Pick<Screen, "from" | "to">[],
  at: readonly ScreenAt[],
  skip: ScreenAt | null,
  nearAmslM: number,
  farAmslM: number,
  topM: Float64Array,
): DiffractionProfile => {
  topM.set(p.topM);
  const slope = (farAmslM - nearAmslM) / p.pathKm;
  for (const s of at) {
    if (s === skip) continue;
    const { from, to } = screens[s.index]!;
    for (let k = from; k <= to; k++) {
      const fullM = s.topAmslM + p.bulgeM[k]!;
      const line = nearAmslM + slope * p.fromNearKm[k]!;
      const v = (fullM - line) * p.vPerM[k]! - s.dropV;
      if (v <= LEAST_V) continue;
      const heightM = s.dropV === 0 ? fullM : line + v / p.vPerM[k]!;
      if (heightM > topM[k]!) topM[k] = heightM;
    }
  }
  return { ...p, topM };
};

export interface Obstructed {
  /** The whole profile at once, and the median. */
  readonly allDb: number;
  readonly medianDb: number;
  /** The body that stands alone over the rest, when that is the median; otherwise the costliest. */
  readonly edge: ScreenAt | null;
  readonly restDb: number;
  readonly aloneIsMedian: boolean;
}

/** Loss over ground and screens. @param topM room for the profile's points. */
export const obstructedDb = (
  p: DiffractionProfile,
  screens: readonly Pick<Screen, "from" | "to">[],
  at: readonly ScreenAt[],
  nearAmslM: number,
  farAmslM: number,
  topM: Float64Array,
): Obstructed => {
  if (at.length === 0) {
    const allDb = deltaBullingtonDb(p, nearAmslM, farAmslM);
    return { allDb, medianDb: allDb, edge: null, restDb: allDb, aloneIsMedian: false };
  }
  const allDb = deltaBullingtonDb(raised(p, screens, at, null, nearAmslM, farAmslM, topM), nearAmslM, farAmslM);
  let medianDb = allDb;
  let edge = at[0]!;
  let restDb = Number.NaN;
  let aloneIsMedian = false;
  for (const s of at.slice(0, MOST_ALONE)) {
    const rest = at.length === 1 ? p : raised(p, screens, at, s, nearAmslM, farAmslM, topM);
    const own = deltaBullingtonDb(rest, nearAmslM, farAmslM);
    if (Number.isNaN(restDb)) restDb = own;
    if (s.lossDb + own >= medianDb) continue;
    medianDb = s.lossDb + own;
    edge = s;
    restDb = own;
    aloneIsMedian = true;
  }
  return { allDb, medianDb, edge, restDb, aloneIsMedian };
};
