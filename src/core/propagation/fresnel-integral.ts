/*
 * The complex Fresnel integral F(v) = C(v) + j S(v) = integral from 0 to v of exp(j pi s^2 / 2) ds,
 * as used by P.526-15 §2.7 eq. (7). Power series up to 1.8, continued fraction of the complex error
 * function beyond (Abramowitz and Stegun 7.3.11 to 7.3.14 and 7.1.14).
 */

export interface FresnelPair {
  c: number;
  s: number;
}

const SERIES_LIMIT = 1.8;
const EPSILON = 1e-15;
const MAX_TERMS = 200;

const series = (v: number): FresnelPair => {
  const t = (Math.PI / 2) * v * v;
  let term = v;
  let c = v;
  let s = 0;
  for (let n = 1; n < MAX_TERMS; n++) {
    term *= t / n;
    const part = term / (2 * n + 1);
    const sign = (n >> 1) % 2 === 0 ? 1 : -1;
    if (n % 2 === 1) s += sign * part;
    else c += sign * part;
    if (part < EPSILON * Math.abs(v)) break;
  }
  return { c, s };
};

/** Modified Lentz on erfc((1 - j) sqrt(pi) v / 2). */
const fraction = (v: number): FresnelPair => {
  const pix2 = Math.PI * v * v;
  let bRe = 1;
  const bIm = -pix2;
  let cRe = 1e300;
  let cIm = 0;
  const norm = bRe * bRe + bIm * bIm;
  let dRe = bRe / norm;
  let dIm = -bIm / norm;
  let hRe = dRe;
  let hIm = dIm;
  for (let k = 1, n = -1; k < MAX_TERMS; k++) {
    n += 2;
    const a = -n * (n + 1);
    bRe += 4;
    const eRe = a * dRe + bRe;
    const eIm = a * dIm + bIm;
    const eN = eRe * eRe + eIm * eIm;
    dRe = eRe / eN;
    dIm = -eIm / eN;
    const cN = cRe * cRe + cIm * cIm;
    const nextRe = bRe + (a * cRe) / cN;
    const nextIm = bIm - (a * cIm) / cN;
    cRe = nextRe;
    cIm = nextIm;
    const delRe = cRe * dRe - cIm * dIm;
    const delIm = cRe * dIm + cIm * dRe;
    const hr = hRe * delRe - hIm * delIm;
    hIm = hRe * delIm + hIm * delRe;
    hRe = hr;
    if (Math.abs(delRe - 1) + Math.abs(delIm) < EPSILON) break;
  }
  // h *= (v - j v); result = (1 + j)/2 (1 - exp(j pi v^2 / 2) h)
  const gRe = v * hRe + v * hIm;
  const gIm = v * hIm - v * hRe;
  const cos = Math.cos(pix2 / 2);
  const sin = Math.sin(pix2 / 2);
  const pRe = 1 - (cos * gRe - sin * gIm);
  const pIm = -(cos * gIm + sin * gRe);
  return { c: (pRe - pIm) / 2, s: (pRe + pIm) / 2 };
};

/** C(v) and S(v), odd in v, error below 1e-12. */
export const fresnelIntegral = (v: number): FresnelPair => {
  const size = Math.abs(v);
  if (size === Number.POSITIVE_INFINITY) return { c: 0.5 * Math.sign(v), s: 0.5 * Math.sign(v) };
  const r = size < SERIES_LIMIT ? series(size) : fraction(size);
  return v < 0 ? { c: -r.c, s: -r.s } : r;
};
