/*
 * From levels read while an antenna was turned to where its peak lies: a posterior over peak, level and
 * shape on a grid. It tells the main lobe from a false peak by the shape of what was read, not by how the
 * best of it compares with the plan, for a main lobe may stand far under its plan (a dead chain, water)
 * and a false peak within it. Ours.
 *
 * Likelihood: each reading is normal about the cut's level, by the reading's own noise, its rounding, what
 * the model says of depth and angle, and a share of the step before it (a level that had not settled). A
 * reading where nothing was heard says that the level lay under what the radio decodes.
 */
import { normalShare } from "../units";
import { type AimModel, REACH_BW, STEP_BW, TABLE_LENGTH } from "./model";

export interface SweepReading {
  /** Turn from where the sweep began: right, or up, is positive. */
  readonly angleDeg: number;
  /** Null: nothing was heard. */
  readonly levelDbm: number | null;
}

export interface SweepExpectation {
  /** Level at the peak by the plan, of what is read (a chain, or all), and its sigma. */
  readonly levelDbm: number;
  readonly sigmaDb: number;
  /** Least level at which a reading is had at all. */
  readonly leastHeardDbm: number;
  /** Noise of one reading, dB. */
  readonly readingSigmaDb: number;
  /** Other axis and other end were aimed already; else the whole may lie lower. */
  readonly restIsAimed: boolean;
  /** How well the aim was known where the sweep began (compass, landmark), one sigma; null: not at all. */
  readonly startSigmaDeg: number | null;
}

/** Where the peak lies seen from the best reading: about it, or beyond a null to one side. */
export type LobeAt = "main" | "minus" | "plus";

export interface SweepFit {
  readonly chance: Readonly<Record<LobeAt, number>>;
  readonly lobe: LobeAt;
  /** The peak (where it is not known over all lobes: within the likeliest), from where the sweep began, and half of its 90 % interval. */
  readonly peakDeg: number;
  readonly peakPlusMinusDeg: number;
  /** True where the peak is known to three tenths of the beamwidth, whichever lobe was read. */
  readonly placeKnown: boolean;
  readonly peakLevelDbm: number;
  readonly peakLevelSigmaDb: number;
  /** Level of the fitted cut at any turn, for drawing. */
  readonly levelAt: (angleDeg: number) => number;
  /** The one reading that agrees with none of the others and was left out: likely typed wrong, or something stood in the way. */
  readonly misfit: number | null;
  /** The turn whose reading would tell the lobes apart best, or the peak where only its place is in doubt; null when nothing is. */
  readonly settlesAtDeg: number | null;
}

const BEYOND_BW = 3;
const LEVEL_STEP_DB = 0.5;
const LEVEL_UNDER_DB = 26;
const LEVEL_OVER_DB = 7;
/** Share of main lobes that stand under their plan for a reason the plan does not know; with an end or axis not yet aimed. */
const UNDER_SHARE = { aimed: 0.3, open: 0.6 };
const UNDER_TO_DB = 22;
/** Sigmas about the best level that are summed. */
const LEVEL_REACH = 5;
const ROUNDING_VARIANCE = 1 / 12;
const SETTLING_SHARE = 0.05;
const SURE_SHARE = 0.995;
const LEAST_WEIGHT = 1e-6;
/** Readings heard before one of them is doubted, and by how much the squares must fall without it (four sigma). */
const LEAST_TO_DOUBT = 6;
const MISFIT_SQUARES = 16;
/** Within this of the beamwidth a turn is told. */
export const TELLS_BW = 0.3;
/** From here on a lobe counts as known. */
export const TELLS_SHARE = 0.9;
/** Log of odds beyond which a place is left out. */
const BEYOND_DOUBT = 16;

const LOG_TABLE_STEP = 0.02;
const LOG_TABLE = Float64Array.from({ length: 701 }, (_, i) => Math.log(normalShare(-10 + i * LOG_TABLE_STEP)));
const logShare = (z: number): number => LOG_TABLE[Math.max(0, Math.min(LOG_TABLE.length - 1, Math.round((z + 10) / LOG_TABLE_STEP)))]!;

const levelPrior = (e: SweepExpectation): { levels: Float64Array; logPrior: Float64Array } => {
  const count = Math.round((LEVEL_UNDER_DB + LEVEL_OVER_DB) / LEVEL_STEP_DB) + 1;
  const levels = Float64Array.from({ length: count }, (_, i) => e.levelDbm - LEVEL_UNDER_DB + i * LEVEL_STEP_DB);
  const sigma = Math.max(1, e.sigmaDb);
  const under = e.restIsAimed ? UNDER_SHARE.aimed : UNDER_SHARE.open;
  const logPrior = levels.map((level) => {
    const off = level - e.levelDbm;
    const asPlanned = ((1 - under) * Math.exp(-0.5 * (off / sigma) ** 2)) / (sigma * Math.sqrt(2 * Math.PI));
    // As likely at any level under the plan, with soft ends.
    const below = (under / UNDER_TO_DB) * normalShare((off + UNDER_TO_DB) / 2) * normalShare((-off - 2) / sigma);
    return Math.log(asPlanned + below + 1e-12);
  });
  return { levels, logPrior };
};

const quantilePlace = (weights: Float64Array, share: number): number => {
  let sum = 0;
  for (let j = 0; j < weights.length; j++) {
    const next = sum + weights[j]!;
    if (next >= share) return j - 0.5 + (weights[j]! > 0 ? (share - sum) / weights[j]! : 0.5);
    sum = next;
  }
  return weights.length - 1;
};

/** Share of coarse aims that were at another thing altogether. */
const WRONG_START_SHARE = 0.15;

interface OneFit extends SweepFit {
  /** Sum of squares of what is left, in sigmas, at the likeliest place. */
  readonly squares: number;
}

const fitOnce = (model: AimModel, readings: readonly SweepReading[], e: SweepExpectation): OneFit => {
  const heard = readings.filter((r) => r.levelDbm !== null);
  if (readings.length < 2 || heard.length === 0) throw new RangeError(`a sweep of ${readings.length} readings, ${heard.length} heard`);
  const bw = model.beamwidthDeg;
  const angles = readings.map((r) => r.angleDeg / bw);
  const first = Math.min(...angles) - BEYOND_BW;
  const count = Math.ceil((Math.max(...angles) + BEYOND_BW - first) / STEP_BW) + 1;
  const { levels, logPrior } = levelPrior(e);
  const startLog = Float64Array.from({ length: count }, (_, j) => {
    if (e.startSigmaDeg === null) return 0;
    const sigma = Math.max(STEP_BW, e.startSigmaDeg / bw);
    const near = Math.exp(-0.5 * ((first + j * STEP_BW) / sigma) ** 2) / (sigma * Math.sqrt(2 * Math.PI));
    return Math.log((1 - WRONG_START_SHARE) * near + WRONG_START_SHARE / (count * STEP_BW));
  });
  const own = readings.map((r, i) => {
    const before = i === 0 ? null : readings[i - 1]!.levelDbm;
    const step = before === null || before === undefined || r.levelDbm === null ? 0 : r.levelDbm - before;
    return e.readingSigmaDb ** 2 + ROUNDING_VARIANCE + (SETTLING_SHARE * step) ** 2;
  });
  // Place in a member's table of each reading when the peak is at the first place of the grid; each further place is one step back.
  const places = angles.map((a) => (a - first + REACH_BW) / STEP_BW);
  const n = readings.length;
  const heardDbm = Float64Array.from(readings, (r) => r.levelDbm ?? Number.NaN);
  const logPost = new Float64Array(model.members * count);
  const levelMean = new Float64Array(model.members * count);
  const levelSquare = new Float64Array(model.members * count);
  const quietMean = new Float64Array(n);
  const quietSigma = new Float64Array(n);
  const terms = new Float64Array(levels.length);
  const mostPrior = Math.max(...logPrior) + Math.log(levels.length);
  let most = Number.NEGATIVE_INFINITY;
  for (let m = 0; m < model.members; m++) {
    const offset = m * TABLE_LENGTH;
    for (let j = 0; j < count; j++) {
      let a = 0;
      let b = 0;
      let c = 0;
      let quiet = 0;
      let product = 1;
      for (let i = 0; i < n; i++) {
        const at = Math.max(0, Math.min(TABLE_LENGTH - 1.001, places[i]! - j));
        const low = Math.floor(at);
        const t = at - low;
        const mean = model.meanDb[offset + low]! * (1 - t) + model.meanDb[offset + low + 1]! * t;
        const variance = model.varianceDb2[offset + low]! * (1 - t) + model.varianceDb2[offset + low + 1]! * t + own[i]!;
        if (Number.isNaN(heardDbm[i]!)) {
          quietMean[quiet] = mean;
          quietSigma[quiet++] = Math.sqrt(variance);
          continue;
        }
        const off = heardDbm[i]! - mean;
        a += 1 / variance;
        b += off / variance;
        c += (off * off) / variance;
        product *= variance;
        if (product > 1e100) {
          c += Math.log(product);
          product = 1;
        }
      }
      c += Math.log(product);
      const at = m * count + j;
      // Even at its best level this place is out of the question.
      if (-0.5 * (c - (b * b) / a) + model.logWeight[m]! + startLog[j]! + mostPrior < most - BEYOND_DOUBT) {
        logPost[at] = Number.NEGATIVE_INFINITY;
        continue;
      }
      let top = Number.NEGATIVE_INFINITY;
      // Farther than this from its best level what was heard rules it out.
      const reach = LEVEL_REACH / Math.sqrt(a);
      const from = Math.max(0, Math.min(levels.length - 1, Math.floor((b / a - reach - levels[0]!) / LEVEL_STEP_DB)));
      const until = Math.max(from, Math.min(levels.length - 1, Math.ceil((b / a + reach - levels[0]!) / LEVEL_STEP_DB)));
      for (let k = from; k <= until; k++) {
        const level = levels[k]!;
        let log = logPrior[k]! - 0.5 * (a * level * level - 2 * b * level + c);
        for (let q = 0; q < quiet; q++) log += logShare((e.leastHeardDbm - level - quietMean[q]!) / quietSigma[q]!);
        terms[k] = log;
        if (log > top) top = log;
      }
      let sum = 0;
      let mean = 0;
      let square = 0;
      for (let k = from; k <= until; k++) {
        const weight = Math.exp(terms[k]! - top);
        sum += weight;
        mean += weight * levels[k]!;
        square += weight * levels[k]! ** 2;
      }
      logPost[at] = top + Math.log(sum) + model.logWeight[m]! + startLog[j]!;
      levelMean[at] = mean / sum;
      levelSquare[at] = square / sum;
      if (logPost[at]! > most) most = logPost[at]!;
    }
  }
  let total = 0;
  for (let at = 0; at < logPost.length; at++) {
    logPost[at] = Math.exp(logPost[at]! - most);
    total += logPost[at]!;
  }
  const best = heard.reduce((x, r) => (r.levelDbm! > x.levelDbm! ? r : x)).angleDeg / bw;
  const lobeOf = (m: number, j: number): LobeAt => {
    const off = best - (first + j * STEP_BW);
    if (off < -model.nullBw.minus[m]!) return "plus";
    return off > model.nullBw.plus[m]! ? "minus" : "main";
  };
  const chance = { main: 0, minus: 0, plus: 0 };
  for (let m = 0; m < model.members; m++) for (let j = 0; j < count; j++) chance[lobeOf(m, j)] += logPost[m * count + j]! / total;
  const lobe = (Object.keys(chance) as LobeAt[]).reduce((x, l) => (chance[l] > chance[x] ? l : x));

  const along = new Float64Array(count);
  const anyhow = new Float64Array(count);
  let peakLevel = 0;
  let peakSquare = 0;
  let likeliest = -1;
  let likeliestAt = { m: 0, j: 0 };
  for (let m = 0; m < model.members; m++)
    for (let j = 0; j < count; j++) {
      anyhow[j]! += logPost[m * count + j]! / total;
      if (lobeOf(m, j) !== lobe) continue;
      const weight = logPost[m * count + j]! / total / chance[lobe];
      along[j]! += weight;
      peakLevel += weight * levelMean[m * count + j]!;
      peakSquare += weight * levelSquare[m * count + j]!;
      if (weight > likeliest) {
        likeliest = weight;
        likeliestAt = { m, j };
      }
    }
  const degOf = (place: number): number => (first + place * STEP_BW) * bw;
  const spread = (weights: Float64Array): { low: number; middle: number; high: number } => ({
    low: degOf(quantilePlace(weights, 0.05)),
    middle: degOf(quantilePlace(weights, 0.5)),
    high: degOf(quantilePlace(weights, 0.95)),
  });
  // Best reading near a null: whose lobe it is may be open while the peak is known all the same.
  const whole = spread(anyhow);
  const { low, middle, high } = whole.high - whole.low <= 2 * TELLS_BW * bw ? whole : spread(along);
  const tableAt = (table: Float64Array, m: number, offBw: number): number => {
    const at = Math.max(0, Math.min(TABLE_LENGTH - 1.001, (offBw + REACH_BW) / STEP_BW));
    const whole = Math.floor(at);
    return table[m * TABLE_LENGTH + whole]! * (whole + 1 - at) + table[m * TABLE_LENGTH + whole + 1]! * (at - whole);
  };
  const levelAt = (angleDeg: number): number =>
    levelMean[likeliestAt.m * count + likeliestAt.j]! +
    tableAt(model.meanDb, likeliestAt.m, angleDeg / bw - (first + likeliestAt.j * STEP_BW));
  let squares = 0;
  readings.forEach((r, i) => {
    if (r.levelDbm === null) return;
    const variance = tableAt(model.varianceDb2, likeliestAt.m, angles[i]! - (first + likeliestAt.j * STEP_BW)) + own[i]!;
    squares += (r.levelDbm - levelAt(r.angleDeg)) ** 2 / variance;
  });

  /** Where the lobes would be read most differently, weighed by their chances. */
  const settles = (): number | null => {
    const isNarrow = high - low <= 2 * TELLS_BW * bw;
    if (chance[lobe] > SURE_SHARE) return isNarrow ? null : middle;
    // A lobe that is narrow and not sure is no place to read once more: what tells the lobes apart lies elsewhere.
    if (isNarrow && (chance[lobe] >= TELLS_SHARE || whole.high - whole.low <= 2 * TELLS_BW * bw)) return null;
    const from = Math.min(...angles) - 1.5;
    const until = Math.max(...angles) + 1.5;
    let most = 0;
    let at: number | null = null;
    for (let x = from; x <= until; x += 0.25) {
      const means = { main: 0, minus: 0, plus: 0 };
      let variance = 0;
      for (let m = 0; m < model.members; m++)
        for (let j = 0; j < count; j++) {
          const weight = logPost[m * count + j]! / total;
          if (weight < LEAST_WEIGHT) continue;
          const off = x - (first + j * STEP_BW);
          means[lobeOf(m, j)] += weight * (levelMean[m * count + j]! + tableAt(model.meanDb, m, off));
          variance += weight * tableAt(model.varianceDb2, m, off);
        }
      const told = (Object.keys(means) as LobeAt[]).filter((l) => chance[l] > 0.01);
      // Beneath what is heard all levels look alike.
      const seen = told.map((l) => Math.max(e.leastHeardDbm, means[l] / chance[l]));
      const mean = told.reduce((s, l, i) => s + chance[l] * seen[i]!, 0) / told.reduce((s, l) => s + chance[l], 0);
      const between = told.reduce((s, l, i) => s + chance[l] * (seen[i]! - mean) ** 2, 0);
      const gain = between / (variance + e.readingSigmaDb ** 2 + ROUNDING_VARIANCE);
      if (gain > most) {
        most = gain;
        at = x * bw;
      }
    }
    return at;
  };
  return {
    chance,
    lobe,
    peakDeg: middle,
    peakPlusMinusDeg: Math.max(STEP_BW * bw * 0.5, (high - low) / 2),
    placeKnown: whole.high - whole.low <= 2 * TELLS_BW * bw,
    peakLevelDbm: peakLevel,
    peakLevelSigmaDb: Math.sqrt(Math.max(0.01, peakSquare - peakLevel ** 2)),
    levelAt,
    misfit: null,
    settlesAtDeg: settles(),
    squares,
  };
};

/**
 * The fit; where one reading alone keeps the others from agreeing it is left out and named.
 *
 * @param readings at least two, at least one of them heard; in the order in which they were taken.
 * @throws RangeError where there are fewer.
 */
export const fitSweep = (model: AimModel, readings: readonly SweepReading[], e: SweepExpectation): SweepFit => {
  const whole = fitOnce(model, readings, e);
  const heard = readings.filter((r) => r.levelDbm !== null).length;
  if (heard < LEAST_TO_DOUBT || whole.squares < heard + MISFIT_SQUARES) return whole;
  let best: SweepFit & { squares: number } = whole;
  readings.forEach((r, i) => {
    if (r.levelDbm === null) return;
    const without = fitOnce(model, readings.toSpliced(i, 1), e);
    if (without.squares < Math.min(best.squares, whole.squares - MISFIT_SQUARES)) best = { ...without, misfit: i };
  });
  return best;
};
