/*
 * Errors of the ground along a path: a shift common to each dataset and a field that wanders with a length
 * of 20 cells, drawn at 64 knots and interpolated so that its variance is the same everywhere.
 */
import { COMMON_SHARE } from "./limits";
import type { PathProfile } from "./types";
import { STREAM, unitNormals } from "./unit-draws";

const KNOTS = 64;
const CORRELATION_CELLS = 20;

export interface FieldAlong {
  readonly shiftM: Float64Array;
  /** The error of the present draw at one of the places. */
  readonly at: (i: number) => number;
  /** Writes the errors of the present draw into shiftM. */
  readonly fill: () => void;
}

export interface GroundField {
  /** Takes up a draw by its number. */
  readonly draw: (n: number) => void;
  readonly at: (xM: number) => number;
  /** No error of the present draw is higher or lower. */
  readonly highestM: () => number;
  readonly lowestM: () => number;
  readonly nearM: () => number;
  readonly farM: () => number;
  /** The field at fixed places, ready to be filled for each draw. */
  readonly along: (distanceKm: Float64Array) => FieldAlong;
}

/** A link and the same link turned round are drawn alike: the numbers run the same way over the earth. */
export const isTurned = (profile: PathProfile): boolean => profile.nearBearingDeg > profile.farBearingDeg;

/** The wandering field of every draw at the knots, and the largest of each draw either way. */
interface Wander {
  readonly seed: number;
  readonly draws: number;
  readonly rho: number;
  readonly knots: Float64Array;
  readonly most: Float64Array;
}

const wander = (seed: number, draws: number, rho: number): Wander => {
  const units = unitNormals(seed, STREAM.field, draws * KNOTS);
  const renew = Math.sqrt(1 - rho * rho);
  const knots = new Float64Array(draws * KNOTS);
  const most = new Float64Array(draws);
  for (let n = 0; n < draws; n++) {
    const from = n * KNOTS;
    let value = units[from]!;
    let mostM = Math.abs(value);
    knots[from] = value;
    for (let i = 1; i < KNOTS; i++) {
      value = rho * value + renew * units[from + i]!;
      knots[from + i] = value;
      mostM = Math.max(mostM, Math.abs(value));
    }
    most[n] = mostM;
  }
  return { seed, draws, rho, knots, most };
};

/** Longer series are not kept. */
const MOST_KEPT_DRAWS = 10_000;
/** Of the path that was looked at last: the same for every height of its mounts. */
let last: Wander | null = null;

const wanderOf = (seed: number, draws: number, rho: number): Wander => {
  if (last !== null && last.seed === seed && last.draws === draws && last.rho === rho) return last;
  const made = wander(seed, draws, rho);
  if (draws <= MOST_KEPT_DRAWS) last = made;
  return made;
};

export const groundField = (profile: PathProfile, seed: number, draws: number): GroundField => {
  const { datasets, pathM, distanceM, datasetIndex } = profile;
  const common = unitNormals(seed, STREAM.common, draws * Math.max(1, datasets.length));
  const commonM = new Float64Array(datasets.length + 1);
  const spacingM = pathM / (KNOTS - 1);
  const cellM = datasets[datasetIndex[datasetIndex.length >> 1] ?? 0]?.cellM ?? 30;
  const rho = Math.exp(-spacingM / (CORRELATION_CELLS * cellM));
  const { knots, most } = wanderOf(seed, draws, rho);
  let from = 0;
  const fieldShare = Math.sqrt(1 - COMMON_SHARE);
  const turned = isTurned(profile);
  // Points that no dataset covers have no error.
  const outside = datasets.length === 0 || datasetIndex.some((d) => d >= datasets.length);
  let mostKnot = 0;
  // Half way between knots that do not know each other the weights are raised by the root of two.
  const mostNorm = fieldShare * Math.max(0, ...datasets.map((d) => d.sigmaM)) * Math.SQRT2;

  const datasetAt = (xM: number): number => {
    let low = 0;
    let high = distanceM.length - 1;
    while (high - low > 1) {
      const mid = (low + high) >> 1;
      if (distanceM[mid]! <= xM) low = mid;
      else high = mid;
    }
    return Math.min(datasets.length, datasetIndex[low] ?? datasets.length);
  };
  const weights = (xM: number): { knot: number; w0: number; w1: number; dataset: number } => {
    const u = Math.min(KNOTS - 1.000001, Math.max(0, (turned ? pathM - xM : xM) / spacingM));
    const knot = Math.floor(u);
    const t = u - knot;
    const dataset = datasetAt(xM);
    // Interpolation would thin the variance between knots: it is put back.
    const norm = (fieldShare * (datasets[dataset]?.sigmaM ?? 0)) / Math.sqrt((1 - t) ** 2 + t * t + 2 * t * (1 - t) * rho);
    return { knot, w0: (1 - t) * norm, w1: t * norm, dataset };
  };
  const value = (w: ReturnType<typeof weights>): number =>
    commonM[w.dataset]! + w.w0 * knots[from + w.knot]! + w.w1 * knots[from + w.knot + 1]!;
  const near = weights(0);
  const far = weights(pathM);
  return {
    draw: (n) => {
      for (let d = 0; d < datasets.length; d++)
        commonM[d] = Math.sqrt(COMMON_SHARE) * datasets[d]!.sigmaM * common[n * datasets.length + d]!;
      from = n * KNOTS;
      mostKnot = most[n]!;
    },
    highestM: () => {
      let highest = outside ? 0 : Number.NEGATIVE_INFINITY;
      for (let d = 0; d < datasets.length; d++) highest = Math.max(highest, commonM[d]!);
      return highest + mostKnot * mostNorm;
    },
    lowestM: () => {
      let lowest = outside ? 0 : Number.POSITIVE_INFINITY;
      for (let d = 0; d < datasets.length; d++) lowest = Math.min(lowest, commonM[d]!);
      return lowest - mostKnot * mostNorm;
    },
    at: (xM) => value(weights(xM)),
    nearM: () => value(near),
    farM: () => value(far),
    along: (distanceKm) => {
      const n = distanceKm.length;
      const knot = new Uint8Array(n);
      const dataset = new Uint8Array(n);
      const w0 = new Float64Array(n);
      const w1 = new Float64Array(n);
      const shiftM = new Float64Array(n);
      for (let i = 0; i < n; i++) {
        const w = weights(distanceKm[i]! * 1000);
        knot[i] = w.knot;
        dataset[i] = w.dataset;
        w0[i] = w.w0;
        w1[i] = w.w1;
      }
      const shift = (i: number): number => commonM[dataset[i]!]! + w0[i]! * knots[from + knot[i]!]! + w1[i]! * knots[from + knot[i]! + 1]!;
      return {
        shiftM,
        at: shift,
        fill: () => {
          for (let i = 0; i < n; i++) shiftM[i] = shift(i);
        },
      };
    },
  };
};
