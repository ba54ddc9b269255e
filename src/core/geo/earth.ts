import { DEG_PER_RAD } from "../units";

/** Mean Earth radius of the ITU-R path models (P.526-15 §3, P.530): 6371 km. */
export const EARTH_RADIUS_KM = 6371;

/** Effective earth radius in metres for an effective-earth factor k (P.526-15 §1, a_e = k a). */
export const effectiveRadiusM = (kFactor: number): number => kFactor * EARTH_RADIUS_KM * 1000;

/** k from the refractivity gradient dN/dh in N-units per km: k = 157 / (157 + dN/dh), P.453 and P.310. */
export const kFromGradient = (gradientNPerKm: number): number => 157 / (157 + gradientNPerKm);

/** Mean surface refractivity by height in N-units, P.453-14 eq. (8): 315 exp(-h / 7.35). */
export const referenceRefractivityN = (heightKm: number): number => 315 * Math.exp(-heightKm / 7.35);

/**
 * Elevation angle of the ray at an end above its local horizontal, exact over a sphere of the effective
 * radius: tan e = ((a + h2) cos t - (a + h1)) / ((a + h2) sin t) with t = d / a. The parabolic form of
 * P.526-15, (h2 - h1)/d - d/(2 a_e), differs by under 0.001 degrees up to 100 km (tested).
 */
export const elevationAngleDeg = (ownAmslM: number, otherAmslM: number, distanceM: number, kFactor: number): number => {
  const radiusM = effectiveRadiusM(kFactor);
  const turnRad = distanceM / radiusM;
  // cos t - 1 by its half angle, so that short paths lose no digits.
  const dropM = -2 * (radiusM + otherAmslM) * Math.sin(turnRad / 2) ** 2;
  return DEG_PER_RAD * Math.atan2(otherAmslM - ownAmslM + dropM, (radiusM + otherAmslM) * Math.sin(turnRad));
};
