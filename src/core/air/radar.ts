/*
 * Minutes a year that radar takes from a channel, by detections counted over days that were watched. Detections come as they come
 * (Poisson); 90 % interval after F. Garwood, Biometrika 28 (1936): by the chi-squared distribution, here through its sum.
 */
import { needAtLeast, needInRange } from "../units";

/** What one detection costs: leaving the channel, listening before the next is used, and the old one left alone. */
export interface RadarCost {
  readonly moveS: number;
  readonly waitS: number;
  readonly silenceMin: number;
}

const CHANNEL_MOVE_S = 10;

export const radarCostOf = (moveS: number | undefined, waitOfNextS: number | null, silenceMin: number | null): RadarCost => ({
  moveS: moveS ?? CHANNEL_MOVE_S,
  waitS: waitOfNextS ?? 0,
  silenceMin: silenceMin ?? 30,
});

/** Chance of at most n when so many are expected. */
const atMost = (n: number, expected: number): number => {
  let term = Math.exp(-expected);
  let sum = term;
  for (let k = 1; k <= n; k++) {
    term *= expected / k;
    sum += term;
  }
  return Math.min(1, sum);
};

/** The expected count at which a chance is met: it falls as more are expected. */
const solve = (chanceAt: (expected: number) => number, chance: number): number => {
  let [low, high] = [0, 1];
  while (chanceAt(high) > chance) high *= 2;
  for (let i = 0; i < 80; i++) {
    const mid = (low + high) / 2;
    if (chanceAt(mid) > chance) low = mid;
    else high = mid;
  }
  return (low + high) / 2;
};

const MOST_COUNTED = 500;

/** Counts between which the true mean lies in 90 of 100. With none seen the upper one is that at which none has one chance in ten. */
export const poisson90 = (seen: number): readonly [number, number] => {
  const n = needInRange("detections", Math.round(seen), 0, MOST_COUNTED);
  if (n === 0) return [0, Math.LN10];
  return [solve((e) => atMost(n - 1, e), 0.95), solve((e) => atMost(n, e), 0.05)];
};

export const LEAST_WATCHED_DAYS = 30;
const DAYS_A_YEAR = 365.25;

export interface RadarYear {
  readonly seen: number;
  readonly watchedDays: number;
  /** Detections a year: expected, and the 90 % interval. */
  readonly perYear: number;
  readonly perYearLow: number;
  readonly perYearHigh: number;
  /** Minutes a year without the channel in use: moving and listening. */
  readonly minutes: number;
  readonly minutesLow: number;
  readonly minutesHigh: number;
  readonly tooFew: boolean;
}

/** Null where nothing was watched. @throws RangeError for more than 500 detections or days below 0. */
export const radarYear = (seen: number, watchedDays: number, cost: RadarCost): RadarYear | null => {
  if (needAtLeast("days watched", watchedDays, 0) === 0) return null;
  const [low, high] = poisson90(seen);
  const perDay = DAYS_A_YEAR / watchedDays;
  const each = (cost.moveS + cost.waitS) / 60;
  return {
    seen,
    watchedDays,
    perYear: seen * perDay,
    perYearLow: low * perDay,
    perYearHigh: high * perDay,
    minutes: seen * perDay * each,
    minutesLow: low * perDay * each,
    minutesHigh: high * perDay * each,
    tooFew: watchedDays < LEAST_WATCHED_DAYS,
  };
};
