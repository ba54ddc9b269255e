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
