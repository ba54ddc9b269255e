/*
 * P.526-15 §4.5 over a profile whose heights are moved a little: for the doubt about ground and bodies.
 * The smooth-earth fit is linear in the heights, so its move is added and nothing is prepared anew.
 */
import type { DiffractionProfile } from "./p526-delta-bullington";

/** Room for one moved profile, made once and written over by every draw. */
export interface ShiftScratch {
  readonly topM: Float64Array;
  readonly groundM: Float64Array;
  readonly bulgeM: Float64Array;
}

export const shiftScratch = (p: DiffractionProfile): ShiftScratch => ({
  topM: new Float64Array(p.count),
  groundM: new Float64Array(p.count),
  bulgeM: new Float64Array(p.count),
});

/**
 * The profile with ground and tops moved, and another k.
 * @param groundShiftM move of the ground at each inner point, metres; @param nearShiftM, farShiftM at the ends.
 * @param topShiftM further move of the tops (bodies on the ground); null for none.
 * @param bulgeScale k of the profile over the new k.
 * @returns a profile that lives in the scratch until the next call.
 */
export const shiftedDiffraction = (
  p: DiffractionProfile,
  groundShiftM: Float64Array,
  nearShiftM: number,
  farShiftM: number,
  topShiftM: Float64Array | null,
  bulgeScale: number,
  scratch: ShiftScratch,
): DiffractionProfile => {
  const { count, fromNearKm, pathKm } = p;
  const { topM, groundM, bulgeM } = scratch;
  let v1 = 0;
  let v2 = 0;
  let before = 0;
  let shiftBefore = nearShiftM;
  for (let i = 0; i < count; i++) {
    const d = fromNearKm[i]!;
    const shift = groundShiftM[i]!;
    const bulge = p.bulgeM[i]! * bulgeScale;
    bulgeM[i] = bulge;
    groundM[i] = p.groundM[i]! + shift;
    topM[i] = p.topM[i]! - p.bulgeM[i]! + bulge + shift + (topShiftM === null ? 0 : topShiftM[i]!);
    const step = d - before;
    v1 += step * (shift + shiftBefore);
    v2 += step * (shift * (2 * d + before) + shiftBefore * (d + 2 * before));
    before = d;
    shiftBefore = shift;
  }
  const step = pathKm - before;
  v1 += step * (farShiftM + shiftBefore);
  v2 += step * (farShiftM * (2 * pathKm + before) + shiftBefore * (pathKm + 2 * before));
  return {
    ...p,
    topM,
    groundM,
    bulgeM,
    effectiveRadiusKm: p.effectiveRadiusKm / bulgeScale,
    smoothNearM: p.smoothNearM + (2 * v1 * pathKm - v2) / pathKm ** 2,
    smoothFarM: p.smoothFarM + (v2 - v1 * pathKm) / pathKm ** 2,
    endNearM: p.endNearM + nearShiftM,
    endFarM: p.endFarM + farShiftM,
  };
};

/**
 * The profile with at most so many points beside those that must stay: of each run of neighbours the one
 * nearest to blocking the straight line between two heights. The smooth-earth fit stays that of the whole.
 * @param stay indices of points that are kept in any case.
 * @returns the profile, and for each of its points the index it had.
 */
export const thinnedDiffraction = (
  p: DiffractionProfile,
  nearAmslM: number,
  farAmslM: number,
  mostPoints: number,
  stay: readonly number[] = [],
): { profile: DiffractionProfile; kept: readonly number[] } => {
  const run = Math.max(1, Math.ceil(p.count / mostPoints));
  const chosen = new Set<number>(stay);
  for (let from = 0; from < p.count; from += run) {
    let best = from;
    let bestV = Number.NEGATIVE_INFINITY;
    for (let i = from; i < Math.min(p.count, from + run); i++) {
      const t = p.fromNearKm[i]! / p.pathKm;
      const v = (p.topM[i]! - nearAmslM - (farAmslM - nearAmslM) * t) * p.vPerM[i]!;
      if (v > bestV) {
        bestV = v;
        best = i;
      }
    }
    chosen.add(best);
  }
  const kept = [...chosen].sort((a, b) => a - b);
  const take = (values: Float64Array): Float64Array => Float64Array.from(kept, (i) => values[i]!);
  return {
    kept,
    profile: {
      ...p,
      count: kept.length,
      fromNearKm: take(p.fromNearKm),
      inverseNear: take(p.inverseNear),
      inverseFar: take(p.inverseFar),
      topM: take(p.topM),
      groundM: take(p.groundM),
      bulgeM: take(p.bulgeM),
      vPerM: take(p.vPerM),
    },
  };
};
