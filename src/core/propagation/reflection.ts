/*
 * Two rays over a spherical earth: the direct one and one reflected from level water or ground. Geometry
 * of the point by P.526-15 §3.2 eq. (22b) to (22e), divergence after P.1144 use in UHF practice (Beckmann
 * and Spizzichino §11), Fresnel coefficients with the complex permittivity of P.527, roughness after
 * Ament. The reflected ray widens the band of the level; it never moves the median (ours).
 */
import { needPositive } from "../units";
import { LIGHT_SPEED_M_S } from "./p525-free-space";
import type { Permittivity } from "./p527-permittivity";

export interface ReflectionInput {
  readonly pathM: number;
  /** Antenna heights above the reflecting surface at its level of the moment. */
  readonly nearHeightM: number;
  readonly farHeightM: number;
  readonly effectiveRadiusM: number;
  readonly frequencyGhz: number;
  readonly surface: Permittivity;
  readonly polarisation: "horizontal" | "vertical";
  /** Standard deviation of the surface about its level (waves, grass). */
  readonly roughnessM: number;
  /** Loss of each antenna towards an angle below the direct ray, dB; the reflected ray is weakened by both. */
  readonly nearDiscriminationDb: (belowDeg: number) => number;
  readonly farDiscriminationDb: (belowDeg: number) => number;
}

export interface ReflectionResult {
  /** Level of both rays together against the direct ray alone, dB; null when an antenna is below the surface or beyond its horizon. */
  readonly relativeDb: number | null;
  /** Strongest and weakest that any phase would give. */
  readonly bestDb: number;
  readonly worstDb: number;
  readonly atM: number;
  readonly grazingDeg: number;
  readonly extraPathM: number;
  /** Size of the reflected ray against the direct one, 0 to 1. */
  readonly size: number;
}

/** Distance of the reflection point from the near end, §3.2 eq. (22b). Heights above the surface. */
export const reflectionPointM = (pathM: number, nearHeightM: number, farHeightM: number, effectiveRadiusM: number): number => {
  const sum = nearHeightM + farHeightM;
  if (!(sum > 0)) return pathM / 2;
  const c = (nearHeightM - farHeightM) / sum;
  const m = (pathM * pathM) / (4 * effectiveRadiusM * sum);
  const cosine = ((3 * c) / 2) * Math.sqrt((3 * m) / (m + 1) ** 3);
  const b = 2 * Math.sqrt((m + 1) / (3 * m)) * Math.cos(Math.PI / 3 + Math.acos(Math.min(1, Math.max(-1, cosine))) / 3);
  return (pathM / 2) * (1 + b);
};

/** Fresnel reflection coefficient at a grazing angle, as real and imaginary part. */
export const fresnelCoefficient = (
  surface: Permittivity,
  grazingRad: number,
  polarisation: "horizontal" | "vertical",
): { re: number; im: number } => {
  const sin = Math.sin(grazingRad);
  const cos2 = Math.cos(grazingRad) ** 2;
  // Root of (eps - cos^2), eps = real - j imaginary: the branch with a negative imaginary part.
  const a = surface.real - cos2;
  const b = -surface.imaginary;
  const r = Math.hypot(a, b);
  const rootRe = Math.sqrt((r + a) / 2);
  const rootIm = -Math.sqrt(Math.max(0, (r - a) / 2));
  const [leadRe, leadIm] = polarisation === "horizontal" ? [sin, 0] : [surface.real * sin, -surface.imaginary * sin];
  const nRe = leadRe - rootRe;
  const nIm = leadIm - rootIm;
  const dRe = leadRe + rootRe;
  const dIm = leadIm + rootIm;
  const d2 = dRe * dRe + dIm * dIm;
  return { re: (nRe * dRe + nIm * dIm) / d2, im: (nIm * dRe - nRe * dIm) / d2 };
};

/** @throws RangeError for a path or frequency that is not above 0. */
export const twoRayLevel = (i: ReflectionInput): ReflectionResult => {
  const d = needPositive("path, m", i.pathM);
  const wavelengthM = LIGHT_SPEED_M_S / (needPositive("frequency, GHz", i.frequencyGhz) * 1e9);
  const d1 = reflectionPointM(d, i.nearHeightM, i.farHeightM, i.effectiveRadiusM);
  const d2 = d - d1;
  const none = { bestDb: 0, worstDb: 0, atM: d1, grazingDeg: 0, extraPathM: 0, size: 0 };
  if (!(i.nearHeightM > 0 && i.farHeightM > 0)) return { relativeDb: null, ...none };
  // Heights above the plane that touches the earth at the point.
  const h1 = i.nearHeightM - (d1 * d1) / (2 * i.effectiveRadiusM);
  const h2 = i.farHeightM - (d2 * d2) / (2 * i.effectiveRadiusM);
  if (!(h1 > 0 && h2 > 0 && d1 > 0 && d2 > 0)) return { relativeDb: null, ...none };
  const grazingRad = Math.atan((h1 + h2) / d);
  const extraPathM = Math.sqrt(d * d + (h1 + h2) ** 2) - Math.sqrt(d * d + (h1 - h2) ** 2);
  const divergence = 1 / Math.sqrt(1 + (2 * d1 * d2) / (i.effectiveRadiusM * d * Math.tan(grazingRad)));
  const phaseSpread = (4 * Math.PI * i.roughnessM * Math.sin(grazingRad)) / wavelengthM;
  const smooth = Math.exp(-(phaseSpread * phaseSpread) / 2);
  const directRad = Math.atan((h2 - h1) / d);
  const belowNearDeg = ((grazingRad + directRad) * 180) / Math.PI;
  const belowFarDeg = ((grazingRad - directRad) * 180) / Math.PI;
  const lossDb = i.nearDiscriminationDb(belowNearDeg) + i.farDiscriminationDb(belowFarDeg);
  const coefficient = fresnelCoefficient(i.surface, grazingRad, i.polarisation);
  const strength = smooth * divergence * 10 ** (-lossDb / 20);
  const size = strength * Math.hypot(coefficient.re, coefficient.im);
  const phase = Math.atan2(coefficient.im, coefficient.re) - (2 * Math.PI * extraPathM) / wavelengthM;
  const re = 1 + size * Math.cos(phase);
  const im = size * Math.sin(phase);
  return {
    relativeDb: 10 * Math.log10(Math.max(1e-6, re * re + im * im)),
    bestDb: 20 * Math.log10(1 + size),
    worstDb: 20 * Math.log10(Math.max(1e-3, 1 - size)),
    atM: d1,
    grazingDeg: (grazingRad * 180) / Math.PI,
    extraPathM,
    size,
  };
};
