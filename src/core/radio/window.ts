import type { Modulation, Radio } from "./hardware";

/** Level that automatic power control is usually set to bring on short links; a target, not a fault line. */
export const USUAL_TARGET_DBM = -55;

/** Below the hottest level at which a receiver still works, this much is kept free. */
const BELOW_OPERATING_DB = 6;
/** 256-QAM and denser need this much less again: at least the first, at most the second. */
const DENSE_LEAST_DB = 6;
const DENSE_MOST_DB = 10;

/** Names of modulations read once each; there are a few dozen of them. */
const dense = new Map<string, boolean>();
const isDense = (modulation: string): boolean => {
  let known = dense.get(modulation);
  if (known === undefined) {
    const points = /(\d+)-?QAM/.exec(modulation);
    known = points !== null && Number(points[1]) >= 256;
    dense.set(modulation, known);
  }
  return known;
};

/** Hottest level per chain planned for a modulation; dense ones have a range, the planned value is its cautious end. */
export const ceilingDbm = (radio: Radio, modulation: Modulation): { plannedDbm: number; mildDbm: number } => {
  const base = radio.maxOperatingInputDbm - BELOW_OPERATING_DB;
  return isDense(modulation.modulation)
    ? { plannedDbm: base - DENSE_MOST_DB, mildDbm: base - DENSE_LEAST_DB }
    : { plannedDbm: base, mildDbm: base };
};
