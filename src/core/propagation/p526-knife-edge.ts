/*
 * Recommendation ITU-R P.526-15 §4.1 (single knife-edge) and §5 (finite-width screen, here by the
 * whole Fresnel integral over the screen). Not implemented: rounded obstacle §4.2, two edges §4.3.
 */
import { fresnelIntegral } from "./fresnel-integral";

/** Below this the approximation of eq. (31) is set to zero. */
export const LEAST_V = -0.78;

/** J(v) in dB, approximation P.526-15 eq. (31); 0 for v at or below -0.78. */
export const knifeEdgeLossDb = (v: number): number => {
  if (v <= LEAST_V) return 0;
  const u = v - 0.1;
  return 6.9 + 20 * Math.log10(Math.sqrt(u * u + 1) + u);
};

/** The v whose J(v) is a loss, the inverse of eq. (31); minus infinity for no loss. */
export const vOfEdgeLoss = (lossDb: number): number => {
  if (lossDb <= 0) return Number.NEGATIVE_INFINITY;
  const w = 10 ** ((lossDb - 6.9) / 20);
  return (w - 1 / w) / 2 + 0.1;
};

/** J(v) in dB by the Fresnel integrals, P.526-15 eq. (30). Oscillates about 0 for v below about -0.8. */
export const knifeEdgeLossExactDb = (v: number): number => {
  const { c, s } = fresnelIntegral(v);
  const re = 1 - c - s;
  const im = c - s;
  return -20 * Math.log10(Math.sqrt(re * re + im * im) / 2);
};

/** v of a share of F1 past one edge: v = -sqrt(2) c (P.526-15 eq. (26) with h = -c F1). */
export const vOfShare = (share: number): number => -Math.SQRT2 * share;

/**
 * Loss behind a screen standing on the ground: the field over its top and past both its sides added
 * with their phases (Kirchhoff; Babinet's complement of P.526-15 §5.2). Ground reflection left out.
 * @param topV v of the top edge, positive when it stands above the ray.
 * @param leftV, rightV the screen's sides in the same measure, leftV < rightV.
 * @returns dB, never below 0 (ours: a focusing gain is not planned with).
 */
export const finiteScreenLossDb = (topV: number, leftV: number, rightV: number): number => {
  const l = fresnelIntegral(leftV);
  const r = fresnelIntegral(rightV);
  const t = fresnelIntegral(topV);
  // Integrals of exp(-j pi s^2 / 2) over the blocked part.
  const acrossRe = r.c - l.c;
  const acrossIm = -(r.s - l.s);
  const upRe = t.c + 0.5;
  const upIm = -(t.s + 0.5);
  const re = acrossRe * upRe - acrossIm * upIm;
  const im = acrossRe * upIm + acrossIm * upRe;
  // E/E0 = 1 - (j/2) across up
  const fieldRe = 1 + im / 2;
  const fieldIm = -re / 2;
  return Math.max(0, -10 * Math.log10(fieldRe * fieldRe + fieldIm * fieldIm));
};
