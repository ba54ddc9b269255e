/*
 * Recommendation ITU-R P.530-17 §2.4.1: rain attenuation exceeded for a share of the year, and its
 * inverse. Distance factor capped at 2.5 as the text says. Stated validity: paths to 60 km, 1 to 100 GHz,
 * 0.001 % to 1 % of the year. Not implemented: worst month, clear-air multipath (§2.3).
 */
import { rainDbPerKm, rainKAlpha } from "./p838-rain";

export const MAX_RAIN_PATH_KM = 60;
export const LEAST_PERCENT = 0.001;
export const MOST_PERCENT = 1;

export interface RainFading {
  /** Attenuation exceeded 0.01 % of the year. */
  readonly a001Db: number;
  readonly frequencyGhz: number;
  /** False outside the stated validity; the figures are then an extrapolation. */
  readonly inRange: boolean;
}

/** Distance factor r, §2.4.1 eq. (32), at most 2.5. */
export const distanceFactor = (pathKm: number, rainRateMmH: number, alpha: number, frequencyGhz: number): number => {
  const divisor =
    0.477 * pathKm ** 0.633 * rainRateMmH ** (0.073 * alpha) * frequencyGhz ** 0.123 - 10.579 * (1 - Math.exp(-0.024 * pathKm));
  return divisor < 0.4 ? 2.5 : 1 / divisor;
};

/** Attenuation exceeded for 0.01 % of the year. */
export const rainFading = (
  frequencyGhz: number,
  pathKm: number,
  rainRate001MmH: number,
  elevationDeg: number,
  polarisationTiltDeg: number,
): RainFading => {
  const inRange = pathKm <= MAX_RAIN_PATH_KM && frequencyGhz >= 1 && frequencyGhz <= 100;
  if (rainRate001MmH <= 0) return { a001Db: 0, frequencyGhz, inRange };
  const ka = rainKAlpha(frequencyGhz, elevationDeg, polarisationTiltDeg);
  const r = distanceFactor(pathKm, rainRate001MmH, ka.alpha, frequencyGhz);
  return { a001Db: rainDbPerKm(ka, rainRate001MmH) * pathKm * r, frequencyGhz, inRange };
};

interface Scale {
  readonly c1: number;
  readonly c2: number;
  readonly c3: number;
}

/** §2.4.1 eq. (34) to (37). */
const scale = (frequencyGhz: number): Scale => {
  const c0 = frequencyGhz >= 10 ? 0.12 + 0.4 * Math.log10((frequencyGhz / 10) ** 0.8) : 0.12;
  return {
    c1: 0.07 ** c0 * 0.12 ** (1 - c0),
    c2: 0.855 * c0 + 0.546 * (1 - c0),
    c3: 0.139 * c0 + 0.043 * (1 - c0),
  };
};

/** Attenuation exceeded for p per cent of the year, eq. (33). */
export const rainAttenuationDb = (fading: RainFading, percent: number): number => {
  const { c1, c2, c3 } = scale(fading.frequencyGhz);
  return fading.a001Db * c1 * percent ** -(c2 + c3 * Math.log10(percent));
};

/** A share of the year, or which end of the method's validity it lies beyond. */
export interface RainExceeded {
  readonly percent: number;
  /** "above": more often than 1 % of the year; "below": more rarely than 0.001 %, the percent is then 0. */
  readonly bound: "above" | "below" | null;
}

/**
 * Share of the year, in per cent, for which an attenuation is exceeded: the inverse of eq. (33). Beyond 0.001 % and
 * 1 %, the ends of its validity, only the bound is known.
 */
export const rainExceeded = (fading: RainFading, attenuationDb: number): RainExceeded => {
  if (fading.a001Db <= 0) return { percent: 0, bound: "below" };
  if (rainAttenuationDb(fading, MOST_PERCENT) > attenuationDb) return { percent: MOST_PERCENT, bound: "above" };
  if (rainAttenuationDb(fading, LEAST_PERCENT) <= attenuationDb) return { percent: 0, bound: "below" };
  // log A = log(A001 c1) - c2 u - c3 u^2 with u = log10 p; the falling root.
  const { c1, c2, c3 } = scale(fading.frequencyGhz);
  const q = Math.log10(attenuationDb / (fading.a001Db * c1));
  const u = (-c2 + Math.sqrt(Math.max(0, c2 * c2 - 4 * c3 * q))) / (2 * c3);
  return { percent: 10 ** u, bound: null };
};
