/*
 * The losses of a path over bare ground written out plainly, term by term from the texts, for comparing
 * with the fast ones. Shares nothing with them but the coefficient tables (held by the linter).
 */
import oxygen from "../../propagation/tables/p676_oxygen.json" with { type: "json" };
import water from "../../propagation/tables/p676_water_vapour.json" with { type: "json" };
import rain from "../../propagation/tables/p838_coefficients.json" with { type: "json" };

export interface PlainPath {
  readonly dKm: readonly number[];
  readonly heightM: readonly number[];
  readonly nearAmslM: number;
  readonly farAmslM: number;
  readonly fGhz: number;
  readonly k: number;
}

const J = (v: number): number => (v > -0.78 ? 6.9 + 20 * Math.log10(Math.sqrt((v - 0.1) ** 2 + 1) + v - 0.1) : 0);

export const plainFreeSpaceDb = (fGhz: number, dKm: number): number => 20 * Math.log10((4e12 * Math.PI * dKm * fGhz) / 299_792_458);

/** P.526-15 §3.1.1, vertical polarisation over average land. */
const plainFirstTerm = (d: number, h1: number, h2: number, a: number, f: number): number => {
  const [eps, sigma] = [22, 0.003];
  const kh = 0.036 * (a * f) ** (-1 / 3) * ((eps - 1) ** 2 + ((18 * sigma) / f) ** 2) ** (-1 / 4);
  const K = kh * Math.sqrt(eps ** 2 + ((18 * sigma) / f) ** 2);
  const beta = (1 + 1.6 * K ** 2 + 0.67 * K ** 4) / (1 + 4.5 * K ** 2 + 1.53 * K ** 4);
  const X = 21.88 * beta * (f / a ** 2) ** (1 / 3) * d;
  const F = X >= 1.6 ? 11 + 10 * Math.log10(X) - 17.6 * X : -20 * Math.log10(X) - 5.6488 * X ** 1.425;
  const gain = (h: number): number => {
    const B = beta * 0.9575 * (f ** 2 / a) ** (1 / 3) * h;
    const g = B > 2 ? 17.6 * Math.sqrt(B - 1.1) - 5 * Math.log10(B - 1.1) - 8 : 20 * Math.log10(B + 0.1 * B ** 3);
    return Math.max(g, 2 + 20 * Math.log10(K));
  };
  return -F - gain(h1) - gain(h2);
};

/** P.526-15 §3.2. */
const plainSphere = (d: number, h1In: number, h2In: number, a: number, f: number): number => {
  const h1 = Math.max(0.01, h1In);
  const h2 = Math.max(0.01, h2In);
  const horizon = Math.sqrt(2 * a) * (Math.sqrt(h1 / 1000) + Math.sqrt(h2 / 1000));
  if (d >= horizon) return Math.max(0, plainFirstTerm(d, h1, h2, a, f));
  const c = (h1 - h2) / (h1 + h2);
  const m = (250 * d ** 2) / (a * (h1 + h2));
  const inner = Math.min(1, Math.max(-1, ((3 * c) / 2) * Math.sqrt((3 * m) / (m + 1) ** 3)));
  const b = 2 * Math.sqrt((m + 1) / (3 * m)) * Math.cos(Math.PI / 3 + Math.acos(inner) / 3);
  const d1 = (d * (1 + b)) / 2;
  const d2 = d - d1;
  const h = ((h1 - (500 * d1 ** 2) / a) * d2 + (h2 - (500 * d2 ** 2) / a) * d1) / d;
  const need = 17.456 * Math.sqrt((d1 * d2 * 0.299792458) / f / d);
  if (h > need) return 0;
  const aem = 500 * (d / (Math.sqrt(h1) + Math.sqrt(h2))) ** 2;
  const ah = plainFirstTerm(d, h1, h2, aem, f);
  return ah < 0 ? 0 : (1 - h / need) * ah;
};

/** P.526-15 §4.5, the whole delta-Bullington method. */
export const plainDiffractionDb = ({ dKm, heightM, nearAmslM, farAmslM, fGhz, k }: PlainPath): number => {
  const a = 6371 * k;
  const D = dKm[dKm.length - 1]!;
  const lambda = 0.299792458 / fGhz;
  const inner = dKm.map((_, i) => i).slice(1, -1);
  const bullington = (g: readonly number[], ts: number, rs: number): number => {
    const top = (i: number): number => g[i]! + (500 * dKm[i]! * (D - dKm[i]!)) / a;
    const nu = (h: number, d: number): number => h * Math.sqrt((0.002 * D) / (lambda * d * (D - d)));
    const stim = Math.max(...inner.map((i) => (top(i) - ts) / dKm[i]!));
    let edge: number;
    if (stim < (rs - ts) / D) {
      edge = J(Math.max(...inner.map((i) => nu(top(i) - (ts * (D - dKm[i]!) + rs * dKm[i]!) / D, dKm[i]!))));
    } else {
      const srim = Math.max(...inner.map((i) => (top(i) - rs) / (D - dKm[i]!)));
      const at = (rs - ts + srim * D) / (stim + srim);
      edge = J(nu(ts + stim * at - (ts * (D - at) + rs * at) / D, at));
    }
    return edge + (1 - Math.exp(-edge / 6)) * (10 + 0.02 * D);
  };
  let v1 = 0;
  let v2 = 0;
  for (let i = 1; i < dKm.length; i++) {
    const [d0, d1, h0, h1] = [dKm[i - 1]!, dKm[i]!, heightM[i - 1]!, heightM[i]!];
    v1 += (d1 - d0) * (h1 + h0);
    v2 += (d1 - d0) * (h1 * (2 * d1 + d0) + h0 * (d1 + 2 * d0));
  }
  let st = (2 * v1 * D - v2) / D ** 2;
  let sr = (v2 - v1 * D) / D ** 2;
  const over = (i: number): number => heightM[i]! - (nearAmslM * (D - dKm[i]!) + farAmslM * dKm[i]!) / D;
  const hobs = Math.max(...inner.map(over));
  if (hobs > 0) {
    const at = Math.max(...inner.map((i) => over(i) / dKm[i]!));
    const ar = Math.max(...inner.map((i) => over(i) / (D - dKm[i]!)));
    st -= (hobs * at) / (at + ar);
    sr -= (hobs * ar) / (at + ar);
  }
  const t = nearAmslM - Math.min(st, heightM[0]!);
  const r = farAmslM - Math.min(sr, heightM[heightM.length - 1]!);
  const flat = heightM.map(() => 0);
  return bullington(heightM, nearAmslM, farAmslM) + Math.max(plainSphere(D, t, r, a, fGhz) - bullington(flat, t, r), 0);
};

/** P.676 Annex 1, total pressure in. */
export const plainGasDbPerKm = (f: number, totalHpa: number, tK: number, rho: number): number => {
  const e = (rho * tK) / 216.7;
  const p = totalHpa - e;
  const th = 300 / tK;
  let n = 0;
  for (const [f0, a1, a2, a3, a4, a5, a6] of oxygen.lines as number[][]) {
    const s = a1! * 1e-7 * p * th ** 3 * Math.exp(a2! * (1 - th));
    const w = Math.sqrt((a3! * 1e-4 * (p * th ** (0.8 - a4!) + 1.1 * e * th)) ** 2 + 2.25e-6);
    const x = (a5! + a6! * th) * 1e-4 * (p + e) * th ** 0.8;
    n += s * (f / f0!) * ((w - x * (f0! - f)) / ((f0! - f) ** 2 + w ** 2) + (w - x * (f0! + f)) / ((f0! + f) ** 2 + w ** 2));
  }
  for (const [f0, b1, b2, b3, b4, b5, b6] of water.lines as number[][]) {
    const s = b1! * 0.1 * e * th ** 3.5 * Math.exp(b2! * (1 - th));
    const w0 = b3! * 1e-4 * (p * th ** b4! + b5! * e * th ** b6!);
    const w = 0.535 * w0 + Math.sqrt(0.217 * w0 ** 2 + (2.1316e-12 * f0! ** 2) / th);
    n += s * (f / f0!) * (w / ((f0! - f) ** 2 + w ** 2) + w / ((f0! + f) ** 2 + w ** 2));
  }
  const d = 5.6e-4 * (p + e) * th ** 0.8;
  n += f * p * th ** 2 * (6.14e-5 / (d * (1 + (f / d) ** 2)) + (1.4e-12 * p * th ** 1.5) / (1 + 1.9e-5 * f ** 1.5));
  return 0.182 * f * n;
};

/** P.838-3 for horizontal polarisation on a level path, and P.530-17 §2.4.1 for 0.01 % of the year. */
export const plainRain001Db = (f: number, dKm: number, rate: number): number => {
  const L = Math.log10(f);
  const curve = (c: { a: number[]; b: number[]; c: number[]; m: number; c0: number }): number =>
    c.a.reduce((s, a, j) => s + a * Math.exp(-(((L - c.b[j]!) / c.c[j]!) ** 2)), 0) + c.m * L + c.c0;
  const k = 10 ** curve(rain.kH);
  const alpha = curve(rain.aH);
  const below = 0.477 * dKm ** 0.633 * rate ** (0.073 * alpha) * f ** 0.123 - 10.579 * (1 - Math.exp(-0.024 * dKm));
  return k * rate ** alpha * dKm * Math.min(2.5, below <= 0 ? 2.5 : 1 / below);
};
