import { RAD_PER_DEG } from "../units";

/** A height told by angles, with what the angles' and the distance's errors make of it. */
export interface SightedHeight {
  readonly heightM: number;
  readonly sigmaM: number;
}

/** Standard error of an angle read with a phone or a hand level, and of a paced or mapped distance (ours). */
export const ANGLE_SIGMA_DEG = 0.5;
export const DISTANCE_SIGMA_SHARE = 0.02;

const tan = (deg: number): number => Math.tan(deg * RAD_PER_DEG);
/** Slope of tan at an angle, per degree. */
const tanPerDeg = (deg: number): number => RAD_PER_DEG / Math.cos(deg * RAD_PER_DEG) ** 2;

/**
 * Height of a thing from one place: angles up to its top and to its foot (below the eye is negative) at a known
 * distance: d (tan top - tan foot). @throws RangeError when the top is not above the foot, or an angle is 85 degrees or more.
 */
export const heightBySighting = (distanceM: number, topDeg: number, footDeg: number): SightedHeight => {
  if (!(distanceM > 0)) throw new RangeError(`distance ${distanceM} m must be above 0`);
  if (!(Math.abs(topDeg) < 85 && Math.abs(footDeg) < 85 && topDeg > footDeg))
    throw new RangeError(`angles ${topDeg} and ${footDeg} give no height`);
  const heightM = distanceM * (tan(topDeg) - tan(footDeg));
  const byAngles = distanceM * ANGLE_SIGMA_DEG * Math.hypot(tanPerDeg(topDeg), tanPerDeg(footDeg));
  return { heightM, sigmaM: Math.hypot(byAngles, DISTANCE_SIGMA_SHARE * heightM) };
};

/**
 * Height of a thing that cannot be walked up to: angles to its top from two places in line with it, a known way
 * apart, from one eye height: b / (cot far - cot near) above the eye. @throws RangeError when the nearer angle is not the larger.
 */
export const heightByTwoSightings = (baselineM: number, nearDeg: number, farDeg: number, eyeM: number): SightedHeight => {
  if (!(baselineM > 0)) throw new RangeError(`the way between of ${baselineM} m must be above 0`);
  if (!(nearDeg > farDeg && farDeg > 0 && nearDeg < 85)) throw new RangeError(`angles ${nearDeg} and ${farDeg} give no height`);
  const of = (near: number, far: number): number => baselineM / (1 / tan(far) - 1 / tan(near));
  const aboveM = of(nearDeg, farDeg);
  const step = 0.05;
  const byNear = ((of(nearDeg + step, farDeg) - aboveM) / step) * ANGLE_SIGMA_DEG;
  const byFar = ((of(nearDeg, farDeg - step) - aboveM) / step) * ANGLE_SIGMA_DEG;
  return { heightM: aboveM + eyeM, sigmaM: Math.hypot(byNear, byFar, DISTANCE_SIGMA_SHARE * aboveM) };
};
