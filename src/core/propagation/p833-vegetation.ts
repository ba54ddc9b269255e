/*
 * Vegetation beside or in the ray. Implemented: the early exponential form 0.2 f^0.3 d^0.6 (P.833,
 * first editions; CCIR Report 236), brought to zero linearly below 1 m of depth (ours, no jump).
 * Not implemented yet: FITU-R in and out of leaf, the woodland form, the refusal above 10 GHz is the caller's.
 */

/** Depth below which the loss rises linearly. */
const LINEAR_BELOW_M = 1;
export const MAX_DEPTH_M = 400;
/** Above this frequency leaves in wind move the level by tens of dB; a mean is not planned with. */
export const THROUGH_LIMIT_GHZ = 10;

/** Median loss through leaves in dB over a depth in metres; marked out of range at 400 m and above. */
export const leafLossDb = (frequencyGhz: number, depthM: number): { lossDb: number; inRange: boolean } => {
  const at = (d: number): number => 0.2 * (frequencyGhz * 1000) ** 0.3 * d ** 0.6;
  const lossDb = depthM < LINEAR_BELOW_M ? at(LINEAR_BELOW_M) * Math.max(0, depthM) : at(depthM);
  return { lossDb, inRange: depthM < MAX_DEPTH_M };
};
