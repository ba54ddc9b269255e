/*
 * Recommendation ITU-R P.2109-1: building entry loss of a random place inside a building, 80 MHz to
 * 100 GHz. For when nothing is known of the wall; a measured value or a material is always better.
 */
import { needInRange, normalQuantile } from "../units";
import coefficients from "./tables/p2109_coefficients.json" with { type: "json" };

export type BuildingType = "traditional" | "thermally_efficient";

/**
 * Loss not exceeded with a probability, eq. (1) to (10).
 * @param elevationDeg of the path at the facade. @throws RangeError outside 0.08 to 100 GHz.
 */
export const buildingEntryLossDb = (frequencyGhz: number, type: BuildingType, probability: number, elevationDeg = 0): number => {
  const f = needInRange("frequency, GHz", frequencyGhz, 0.08, 100);
  const k = coefficients[type];
  const log = Math.log10(f);
  const horizontalDb = k.r + k.s * log + k.t * log * log; // eq. (8)
  const mu1 = horizontalDb + 0.212 * Math.abs(elevationDeg); // eq. (4), (9)
  const sigma1 = k.u + k.v * log;
  const mu2 = k.w + k.x * log;
  const sigma2 = k.y + k.z * log;
  const z = normalQuantile(probability);
  const sum = 10 ** (0.1 * (z * sigma1 + mu1)) + 10 ** (0.1 * (z * sigma2 + mu2)) + 10 ** -0.3; // eq. (1) to (3)
  return 10 * Math.log10(sum);
};
