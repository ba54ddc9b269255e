/*
 * Vegetation in the ray. Implemented: the early exponential form 0.2 f^0.3 d^0.6 (CCIR Report 236-2,
 * P.833 first editions); FITU-R in leaf 0.39 f^0.39 d^0.25 and out of leaf 0.37 f^0.18 d^0.59
 * (Al-Nuaimi and Stephens 1998); the woodland form of P.833 §2.1 for an end inside a wood, its specific
 * attenuation read off Fig. 2 from memory (low confidence). Frequencies in MHz inside the formulas,
 * depths in metres. Not implemented: the radiative transfer model of P.833 §3.
 */
import { needAtLeast, needPositive } from "../units";

export type LeafState = "in" | "out";

/** Depth below which a loss rises linearly from nothing (ours, no jump). */
const LINEAR_BELOW_M = 1;
export const MAX_DEPTH_M = 400;
/** Above this frequency leaves in wind move the level by tens of dB; a mean is not planned with. */
export const THROUGH_LIMIT_GHZ = 10;
/** FITU-R was fitted between these. */
const FITTED_LOW_GHZ = 10;
const FITTED_HIGH_GHZ = 40;

const eased = (at: (d: number) => number, depthM: number): number =>
  depthM < LINEAR_BELOW_M ? at(LINEAR_BELOW_M) * Math.max(0, depthM) : at(depthM);

/** FITU-R, one leaf state, in dB. */
export const fiturLossDb = (frequencyGhz: number, depthM: number, leaf: LeafState): number => {
  const f = needPositive("frequency, GHz", frequencyGhz) * 1000;
  return eased((d) => (leaf === "in" ? 0.39 * f ** 0.39 * d ** 0.25 : 0.37 * f ** 0.18 * d ** 0.59), needAtLeast("depth, m", depthM, 0));
};

/** Early exponential form, in dB. */
export const earlyLeafLossDb = (frequencyGhz: number, depthM: number): number => {
  const f = needPositive("frequency, GHz", frequencyGhz) * 1000;
  return eased((d) => 0.2 * f ** 0.3 * d ** 0.6, needAtLeast("depth, m", depthM, 0));
};

export interface LeafLoss {
  /** Early form in leaf, FITU-R out of leaf. */
  readonly medianDb: number;
  /** From out-of-leaf to in-leaf FITU-R, widened to hold the median. */
  readonly leastDb: number;
  readonly mostDb: number;
  /** False at 400 m and beyond, and wherever the band's fit (10 to 40 GHz) does not reach. */
  readonly inRange: boolean;
  readonly bandInRange: boolean;
}

/** Loss through leaves over a depth. @throws RangeError for a negative depth or a frequency not above 0. */
export const leafLoss = (frequencyGhz: number, depthM: number, leaf: LeafState): LeafLoss => {
  const out = fiturLossDb(frequencyGhz, depthM, "out");
  const inLeaf = fiturLossDb(frequencyGhz, depthM, "in");
  const medianDb = leaf === "in" ? earlyLeafLossDb(frequencyGhz, depthM) : out;
  return {
    medianDb,
    leastDb: Math.min(out, inLeaf, medianDb),
    mostDb: Math.max(out, inLeaf, medianDb),
    inRange: depthM < MAX_DEPTH_M,
    bandInRange: frequencyGhz >= FITTED_LOW_GHZ && frequencyGhz <= FITTED_HIGH_GHZ,
  };
};

/** Woodland, one end inside: points of specific attenuation in leaf read off Fig. 2 (from memory, +-50 %). */
const FIGURE_2 = [
  [0.1, 0.03],
  [0.3, 0.08],
  [1, 0.2],
  [2, 0.35],
  [5, 0.8],
  [10, 1.3],
  [30, 2.3],
] as const;

/** Specific attenuation through woodland in dB/m, log-log between the points, held at the ends. */
export const woodlandDbPerM = (frequencyGhz: number): number => {
  const f = needPositive("frequency, GHz", frequencyGhz);
  const first = FIGURE_2[0];
  if (f <= first[0]) return first[1];
  for (let i = 1; i < FIGURE_2.length; i++) {
    const [f0, g0] = FIGURE_2[i - 1]!;
    const [f1, g1] = FIGURE_2[i]!;
    if (f <= f1) return g0 * (g1 / g0) ** (Math.log(f / f0) / Math.log(f1 / f0));
  }
  return FIGURE_2[FIGURE_2.length - 1]![1];
};

/**
 * P.833 §2.1 eq. (1): A = A_m (1 - exp(-d gamma / A_m)), A_m = 0.18 f^0.752 (f in MHz, Mulhouse). For a
 * path with one end inside a wood of depth d beyond it.
 */
export const woodlandLossDb = (frequencyGhz: number, depthM: number): number => {
  const most = 0.18 * (needPositive("frequency, GHz", frequencyGhz) * 1000) ** 0.752;
  return most * (1 - Math.exp((-needAtLeast("depth, m", depthM, 0) * woodlandDbPerM(frequencyGhz)) / most));
};
