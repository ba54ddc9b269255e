/*
 * Recommendation ITU-R P.526-15 §3 (diffraction over a spherical earth). Implemented: §3.1.1 numerical
 * calculation for the first residue term, §3.2 any distance at 10 MHz and above. Ground types: land
 * (22, 0.003 S/m) and sea (80, 5 S/m). Not implemented: nomograms §3.1.2.
 */

export type GroundType = "land" | "sea";
export type Polarisation = "horizontal" | "vertical";

const GROUND = { land: { permittivity: 22, conductivity: 0.003 }, sea: { permittivity: 80, conductivity: 5 } } as const;

/** Normalised surface admittance K, §3.1.1 eq. (12) and (13), frequency in GHz. */
const admittance = (radiusKm: number, frequencyGhz: number, ground: GroundType, polarisation: Polarisation): number => {
  const { permittivity: e, conductivity: s } = GROUND[ground];
  const loss = (18 * s) / frequencyGhz;
  const kH = 0.036 * (radiusKm * frequencyGhz) ** (-1 / 3) * ((e - 1) ** 2 + loss ** 2) ** -0.25;
  return polarisation === "horizontal" ? kH : kH * Math.sqrt(e * e + loss * loss);
};

const heightGainDb = (y: number, beta: number, k: number): number => {
  const b = beta * y;
  const g = b > 2 ? 17.6 * Math.sqrt(b - 1.1) - 5 * Math.log10(b - 1.1) - 8 : 20 * Math.log10(b + 0.1 * b ** 3);
  return Math.max(g, 2 + 20 * Math.log10(k));
};

/** First-term loss for one effective radius, §3.1.1 eq. (14) to (19). Heights in metres, distance in km. */
export const firstTermLossDb = (
  distanceKm: number,
  height1M: number,
  height2M: number,
  radiusKm: number,
  frequencyGhz: number,
  ground: GroundType,
  polarisation: Polarisation,
): number => {
  const k = admittance(radiusKm, frequencyGhz, ground, polarisation);
  const beta = (1 + 1.6 * k ** 2 + 0.67 * k ** 4) / (1 + 4.5 * k ** 2 + 1.53 * k ** 4);
  const x = 21.88 * beta * (frequencyGhz / radiusKm ** 2) ** (1 / 3) * distanceKm;
  const yPerM = 0.9575 * (frequencyGhz ** 2 / radiusKm) ** (1 / 3);
  const fx = x >= 1.6 ? 11 + 10 * Math.log10(x) - 17.6 * x : -20 * Math.log10(x) - 5.6488 * x ** 1.425;
  return -(fx + heightGainDb(yPerM * height1M, beta, k) + heightGainDb(yPerM * height2M, beta, k));
};

/** First term over a path partly over sea: losses weighted by the shares (as P.1812 and P.452 do; P.526 itself names one ground). */
const mixedFirstTermDb = (
  distanceKm: number,
  height1M: number,
  height2M: number,
  radiusKm: number,
  frequencyGhz: number,
  seaShare: number,
  polarisation: Polarisation,
): number => {
  const over = (ground: GroundType): number =>
    firstTermLossDb(distanceKm, height1M, height2M, radiusKm, frequencyGhz, ground, polarisation);
  if (seaShare <= 0) return over("land");
  return seaShare >= 1 ? over("sea") : seaShare * over("sea") + (1 - seaShare) * over("land");
};

/** Least antenna height for the formulas: below it the height gain's logarithm has no value. */
const LEAST_HEIGHT_M = 0.01;

/**
 * Diffraction loss over a smooth spherical earth, §3.2, in dB, never below 0.
 * @param height1M, height2M antenna heights above the smooth earth. @param seaShare of the path over sea, 0 to 1.
 */
export const sphericalEarthLossDb = (
  distanceKm: number,
  height1M: number,
  height2M: number,
  effectiveRadiusKm: number,
  frequencyGhz: number,
  seaShare = 0,
  polarisation: Polarisation = "vertical",
): number => {
  const h1 = Math.max(LEAST_HEIGHT_M, height1M);
  const h2 = Math.max(LEAST_HEIGHT_M, height2M);
  const d = distanceKm;
  const a = effectiveRadiusKm;
  const horizonKm = Math.sqrt(2 * a) * (Math.sqrt(0.001 * h1) + Math.sqrt(0.001 * h2)); // eq. (20)
  if (d >= horizonKm) return Math.max(0, mixedFirstTermDb(d, h1, h2, a, frequencyGhz, seaShare, polarisation));
  const c = (h1 - h2) / (h1 + h2); // eq. (22d)
  const m = (250 * d * d) / (a * (h1 + h2)); // eq. (22e)
  const cosine = ((3 * c) / 2) * Math.sqrt((3 * m) / (m + 1) ** 3);
  const angle = Math.acos(Math.min(1, Math.max(-1, cosine)));
  const b = 2 * Math.sqrt((m + 1) / (3 * m)) * Math.cos(Math.PI / 3 + angle / 3); // eq. (22c)
  const d1 = (d / 2) * (1 + b);
  const d2 = d - d1;
  const clearM = ((h1 - (500 * d1 * d1) / a) * d2 + (h2 - (500 * d2 * d2) / a) * d1) / d; // eq. (22)
  const wavelength = 0.299792458 / frequencyGhz;
  const neededM = 17.456 * Math.sqrt((d1 * d2 * wavelength) / d); // eq. (23)
  if (clearM > neededM) return 0;
  const marginalRadiusKm = 500 * (d / (Math.sqrt(h1) + Math.sqrt(h2))) ** 2; // eq. (24)
  const atHorizonDb = mixedFirstTermDb(d, h1, h2, marginalRadiusKm, frequencyGhz, seaShare, polarisation);
  return atHorizonDb < 0 ? 0 : (1 - clearM / neededM) * atHorizonDb; // eq. (25)
};
