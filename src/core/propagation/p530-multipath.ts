/*
 * Recommendation ITU-R P.530-17 §2.3: fading by clear-air multipath on a narrow channel. Implemented:
 * §2.3.1 deep fading, quick (no local data) and detailed (terrain roughness s_a) forms; §2.3.2 all
 * depths; §2.3.4 worst month to year. Not implemented: §2.3.3 enhancement, §3 to 7 (selective fading,
 * diversity). The refractivity gradient dN1 and s_a are inputs, not read from the maps.
 */
import { needPositive } from "../units";

/** Below this length multipath is reported as negligible (ours). */
export const NEGLIGIBLE_BELOW_KM = 3;
export const MOST_FREQUENCY_GHZ = 45;
/** Largest fade whose share is told; deeper ones are rarer than any figure here. */
const LEAST_PERCENT = 1e-9;

export interface MultipathInput {
  readonly pathKm: number;
  readonly frequencyGhz: number;
  readonly nearAmslM: number;
  readonly farAmslM: number;
  readonly gradientDn1NPerKm: number;
  /** Standard deviation of terrain heights within 110 km; null for the quick form. */
  readonly roughnessSaM: number | null;
  readonly latDeg: number;
}

export interface Multipath {
  /** Occurrence factor p_0, per cent of the worst month at A = 0, eq. (10) or (7). */
  readonly occurrencePercent: number;
  /** Worst month to year, dB, §2.3.4 eq. (29); 10^(-dG/10) is the factor. */
  readonly yearOffsetDb: number;
  readonly form: "quick" | "detailed";
  readonly negligible: boolean;
  /** False below 15/d GHz and above 45 GHz: the figures are then an extrapolation. */
  readonly inRange: boolean;
}

/** @throws RangeError for a length or frequency that is not above 0. */
export const multipath = (i: MultipathInput): Multipath => {
  const d = needPositive("path length, km", i.pathKm);
  const f = needPositive("frequency, GHz", i.frequencyGhz);
  const slopeMrad = Math.abs(i.nearAmslM - i.farAmslM) / d;
  const lowestM = Math.min(i.nearAmslM, i.farAmslM);
  const quick = i.roughnessSaM === null;
  const occurrencePercent = quick
    ? 10 ** (-4.6 - 0.0027 * i.gradientDn1NPerKm) * d ** 3.1 * (1 + slopeMrad) ** -1.29 * f ** 0.8 * 10 ** (-0.00089 * lowestM)
    : 10 ** (-4.4 - 0.0027 * i.gradientDn1NPerKm) *
      (10 + (i.roughnessSaM ?? 0)) ** -0.46 *
      d ** 3.4 *
      (1 + slopeMrad) ** -1.03 *
      f ** 0.8 *
      10 ** (-0.00076 * lowestM);
  const cosine = Math.cos((2 * i.latDeg * Math.PI) / 180);
  const term = Math.abs(cosine) ** 0.7 * (Math.abs(i.latDeg) <= 45 ? 1 : -1);
  const yearOffsetDb = Math.min(10.8, 10.5 - 5.6 * Math.log10(1.1 + term) - 2.7 * Math.log10(d) + 1.7 * Math.log10(1 + slopeMrad));
  return {
    occurrencePercent,
    yearOffsetDb,
    form: quick ? "quick" : "detailed",
    negligible: d < NEGLIGIBLE_BELOW_KM,
    inRange: f >= 15 / d && f <= MOST_FREQUENCY_GHZ,
  };
};

/** Per cent of the worst month in which a fade depth is exceeded, §2.3.2 eq. (13) to (19). */
export const multipathWorstMonthPercent = (m: Multipath, fadeDb: number): number => {
  if (m.negligible) return 0;
  const p0 = m.occurrencePercent;
  const changeDb = 25 + 1.2 * Math.log10(p0); // eq. (13)
  if (fadeDb >= changeDb || changeDb <= 0) return Math.min(100, p0 * 10 ** (-fadeDb / 10)); // eq. (14)
  const a = Math.max(0.01, fadeDb);
  const pt = p0 * 10 ** (-changeDb / 10); // eq. (15)
  const qa = (-20 * Math.log10(-Math.log((100 - pt) / 100))) / changeDb; // eq. (16)
  const qt = (qa - 2) / ((1 + 0.3 * 10 ** (-changeDb / 20)) * 10 ** (-0.016 * changeDb)) - 4.3 * (10 ** (-changeDb / 20) + changeDb / 800); // eq. (17)
  const q = 2 + (1 + 0.3 * 10 ** (-a / 20)) * 10 ** (-0.016 * a) * (qt + 4.3 * (10 ** (-a / 20) + a / 800)); // eq. (18)
  return Math.min(100, 100 * (1 - Math.exp(-(10 ** ((-q * a) / 20))))); // eq. (19)
};

/** Per cent of the year in which a fade depth is exceeded, §2.3.4 eq. (30). 0 when negligible. */
export const multipathPercent = (m: Multipath, fadeDb: number): number => {
  const percent = multipathWorstMonthPercent(m, fadeDb) * 10 ** (-m.yearOffsetDb / 10);
  return percent < LEAST_PERCENT ? 0 : Math.min(100, percent);
};
