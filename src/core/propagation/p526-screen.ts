/*
 * Finite screens, P.526-15 §5.2 (Kirchhoff; Babinet), with the phases of the ways round it damped (ours):
 * positions and heights are never known to a fraction of a wavelength, so the power is averaged over
 * errors of 0.2 F1 across and upwards, independent of each other. What is fast and accidental in the
 * exact sum falls out; what is slow stays, and nothing jumps.
 */
import { type Complex, passedUpTo, TABLE_REACH_V } from "./fresnel-table";
import { finiteScreenLossDb, knifeEdgeLossDb, LEAST_V } from "./p526-knife-edge";

/** Least error counted on, as a share of F1 (ours). */
export const PHASE_SIGMA_F1 = 0.2;
const SIGMA_V = Math.SQRT2 * PHASE_SIGMA_F1;
/** The rule of the trapezoid over three sigma either way: exact to 1e-3 up to v = 12. */
const HALF_NODES = 8;
const SPACING_V = (3 * SIGMA_V) / HALF_NODES;
const NODES = 2 * HALF_NODES + 1;
const WEIGHT = ((): Float64Array => {
  const w = Float64Array.from({ length: NODES }, (_, i) =>
    Math.exp((-((i - HALF_NODES) ** 2) * SPACING_V * SPACING_V) / (2 * SIGMA_V * SIGMA_V)),
  );
  const sum = w.reduce((a, b) => a + b, 0);
  return w.map((x) => x / sum);
})();

interface EdgeMoments {
  /** Mean of the part that passes up to the edge, and mean of its power. */
  re: number;
  im: number;
  power: number;
}

/** Where the mean power and J(v) part ways (v below -0.5), this share of J is the least that is divided by. */
const LEAST_MEAN_SHARE = 0.7;
const NOTHING_BELOW: EdgeMoments = { re: 0, im: 0, power: 0 };
const lower: Complex = { re: 0, im: 0 };
const higher: Complex = { re: 0, im: 0 };
const left: EdgeMoments = { re: 0, im: 0, power: 0 };
const right: EdgeMoments = { re: 0, im: 0, power: 0 };
const top: EdgeMoments = { re: 0, im: 0, power: 0 };

/** The part up to an edge; far off it is a step, its wave counted in the power alone: its phase is lost. */
const passed = (v: number, moveV: number, out: Complex): void => {
  if (Math.abs(v) <= TABLE_REACH_V) passedUpTo(v + moveV, out);
  else {
    out.re = v > 0 ? 1 : 0;
    out.im = 0;
  }
};

const waveOf = (v: number): number => (Math.abs(v) <= TABLE_REACH_V ? 0 : 1 / (2 * Math.PI * Math.PI * v * v));

/** Moments of two edges that move together. @returns the mean of the one times the other, its real part. */
const moments = (lowV: number, highV: number, low: EdgeMoments, high: EdgeMoments): number => {
  low.re = low.im = high.re = high.im = 0;
  low.power = waveOf(lowV);
  high.power = waveOf(highV);
  let both = 0;
  for (let k = 0; k < NODES; k++) {
    const moveV = (k - HALF_NODES) * SPACING_V;
    const w = WEIGHT[k]!;
    passed(lowV, moveV, lower);
    passed(highV, moveV, higher);
    low.re += w * lower.re;
    low.im += w * lower.im;
    low.power += w * (lower.re * lower.re + lower.im * lower.im);
    high.re += w * higher.re;
    high.im += w * higher.im;
    high.power += w * (higher.re * higher.re + higher.im * higher.im);
    both += w * (lower.re * higher.re + lower.im * higher.im);
  }
  return both;
};

const lossOf = (power: number): number => -10 * Math.log10(Math.max(1e-12, power));

/** J(v) over the mean loss of the same edge alone: what makes a single edge exactly that of §4.1. */
const toEdge = (v: number, meanDb: number): number => {
  if (v > TABLE_REACH_V) return 1;
  const edgeDb = knifeEdgeLossDb(v);
  return edgeDb / Math.max(meanDb, LEAST_MEAN_SHARE * edgeDb, 1e-9);
};

export interface ScreenLoss {
  /** Mean loss behind the screen, dB, 0 or more. */
  readonly lossDb: number;
  /** Mean share of the power that the covered part of the zone carries: 1 deep behind, 0 far beside. */
  readonly covered: number;
}

const NOTHING: ScreenLoss = { lossDb: 0, covered: 0 };
/**
 * Loss behind a screen that stands on the ground, with its true edges, in the measure of v.
 * Where one edge alone decides, the loss is exactly its J(v) (§4.1): the mean is taken relative to the
 * mean of each edge by itself.
 * @param topV v of its top, positive above the ray. @param leftV, rightV of its sides, leftV < rightV, negative left of the ray.
 */
export const screenLoss = (topV: number, leftV: number, rightV: number): ScreenLoss => {
  const edgeDb = knifeEdgeLossDb(topV);
  if (edgeDb <= 0 || rightV <= leftV || leftV >= -LEAST_V || rightV <= LEAST_V) return NOTHING;
  const cross = moments(leftV, rightV, left, right);
  moments(Number.NEGATIVE_INFINITY, topV, NOTHING_BELOW, top);
  const acrossRe = right.re - left.re;
  const acrossIm = right.im - left.im;
  const covered = Math.max(0, (left.power + right.power - 2 * cross) * top.power);
  const openDb = lossOf(1 - 2 * (acrossRe * top.re - acrossIm * top.im) + covered);
  const exactly =
    toEdge(topV, lossOf(1 - 2 * top.re + top.power)) *
    toEdge(-leftV, lossOf(left.power)) *
    toEdge(rightV, lossOf(1 - 2 * right.re + right.power));
  // Past a side the loss is never more than that of an endless wall with that edge: 0 from 0.55 F1 on.
  const lossDb = Math.max(0, Math.min(openDb * exactly, edgeDb, knifeEdgeLossDb(-leftV), knifeEdgeLossDb(rightV)));
  return { lossDb, covered: Math.min(1, covered) };
};

/** By how much the undamped sum of the ways (§5.2 at the very place) differs from the mean, dB; an endless edge has only one way. */
export const screenSpreadDb = (topV: number, leftV: number, rightV: number): number => {
  const { lossDb } = screenLoss(topV, leftV, rightV);
  if (lossDb <= 0) return 0;
  const endlessDb = finiteScreenLossDb(topV, -ENDLESS_V, ENDLESS_V) - knifeEdgeLossDb(topV);
  return Math.abs(finiteScreenLossDb(topV, leftV, rightV) - lossDb - endlessDb);
};

const ENDLESS_V = 1e5;
