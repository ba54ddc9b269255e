/*
 * Recommendation ITU-R P.838-3: specific attenuation of rain, 1 to 1000 GHz. Implemented: k and alpha
 * for horizontal and vertical polarisation and any elevation and tilt, eq. (1) to (5).
 */
import coefficients from "./tables/p838_coefficients.json" with { type: "json" };

interface Curve {
  readonly a: readonly number[];
  readonly b: readonly number[];
  readonly c: readonly number[];
  readonly m: number;
  readonly c0: number;
}

const curve = (q: Curve, logF: number): number => {
  let sum = q.m * logF + q.c0;
  for (let j = 0; j < q.a.length; j++) sum += q.a[j]! * Math.exp(-(((logF - q.b[j]!) / q.c[j]!) ** 2));
  return sum;
};

export interface RainCoefficients {
  readonly kH: number;
  readonly alphaH: number;
  readonly kV: number;
  readonly alphaV: number;
}

/** k and alpha, eq. (2) and (3). @throws RangeError outside 1 to 1000 GHz. */
export const rainCoefficients = (frequencyGhz: number): RainCoefficients => {
  if (!(frequencyGhz >= 1 && frequencyGhz <= 1000)) throw new RangeError(`frequency ${frequencyGhz} GHz is outside 1 to 1000`);
  const logF = Math.log10(frequencyGhz);
  return {
    kH: 10 ** curve(coefficients.kH, logF),
    alphaH: curve(coefficients.aH, logF),
    kV: 10 ** curve(coefficients.kV, logF),
    alphaV: curve(coefficients.aV, logF),
  };
};

/**
 * k and alpha for a path elevation and a polarisation tilt from horizontal, eq. (4) and (5).
 * Tilt 0 horizontal, 90 vertical, 45 slant or circular.
 */
export const rainKAlpha = (frequencyGhz: number, elevationDeg: number, tiltDeg: number): { k: number; alpha: number } => {
  const { kH, alphaH, kV, alphaV } = rainCoefficients(frequencyGhz);
  const factor = Math.cos((elevationDeg * Math.PI) / 180) ** 2 * Math.cos((2 * tiltDeg * Math.PI) / 180);
  const k = (kH + kV + (kH - kV) * factor) / 2;
  return { k, alpha: (kH * alphaH + kV * alphaV + (kH * alphaH - kV * alphaV) * factor) / (2 * k) };
};

/** Specific attenuation in dB/km at a rain rate, eq. (1). */
export const rainDbPerKm = (ka: { k: number; alpha: number }, rainRateMmH: number): number => ka.k * rainRateMmH ** ka.alpha;
