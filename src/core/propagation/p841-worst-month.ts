/*
 * Recommendation ITU-R P.841: share of the average year to share of the worst month and back, with the
 * global values Q1 = 2.85 and beta = 0.13 (rain on terrestrial paths, worldwide). Text: p = 0.30 p_w^1.15.
 */
import { needInRange } from "../units";

const Q1 = 2.85;
const BETA = 0.13;
const MOST_RATIO = 12;

const ratio = (yearPercent: number): number => {
  const low = (Q1 / MOST_RATIO) ** (1 / BETA);
  if (yearPercent <= low) return MOST_RATIO;
  if (yearPercent <= 3) return Q1 * yearPercent ** -BETA;
  const at3 = Q1 * 3 ** -BETA;
  return yearPercent >= 30 ? 1 : at3 * (yearPercent / 3) ** -Math.log10(at3);
};

/** Per cent of the worst month for a per cent of the year. @throws RangeError outside 0 to 100. */
export const worstMonthPercent = (yearPercent: number): number => {
  needInRange("share of the year, per cent", yearPercent, 0, 100);
  return Math.min(100, yearPercent * ratio(yearPercent));
};

/** Per cent of the year for a per cent of the worst month: the inverse, by halving (the forward form rises). */
export const yearPercentOfWorstMonth = (monthPercent: number): number => {
  needInRange("share of the worst month, per cent", monthPercent, 0, 100);
  let low = monthPercent / MOST_RATIO;
  let high = monthPercent;
  for (let i = 0; i < 60; i++) {
    const mid = (low + high) / 2;
    if (worstMonthPercent(mid) < monthPercent) low = mid;
    else high = mid;
  }
  return (low + high) / 2;
};
