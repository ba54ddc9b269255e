/* Bessel functions of the first kind, Abramowitz and Stegun 9.4.1 to 9.4.6, error below 1e-7. */

const evaluate = (c: readonly number[], t: number): number => c.reduceRight((sum, k) => sum * t + k, 0);

const J0_SMALL = [1, -2.2499997, 1.2656208, -0.3163866, 0.0444479, -0.0039444, 0.00021];
const J1_SMALL = [0.5, -0.56249985, 0.21093573, -0.03954289, 0.00443319, -0.00031761, 0.00001109];
const F0 = [0.79788456, -0.00000077, -0.0055274, -0.00009512, 0.00137237, -0.00072805, 0.00014476];
const T0 = [-0.78539816, -0.04166397, -0.00003954, 0.00262573, -0.00054125, -0.00029333, 0.00013558];
const F1 = [0.79788456, 0.00000156, 0.01659667, 0.00017105, -0.00249511, 0.00113653, -0.00020033];
const T1 = [-2.35619449, 0.12499612, 0.0000565, -0.00637879, 0.00074348, 0.00079824, -0.00029166];

export const besselJ0 = (x: number): number => {
  const a = Math.abs(x);
  if (a <= 3) return evaluate(J0_SMALL, (a / 3) ** 2);
  return (evaluate(F0, 3 / a) * Math.cos(a + evaluate(T0, 3 / a))) / Math.sqrt(a);
};

export const besselJ1 = (x: number): number => {
  const a = Math.abs(x);
  const value = a <= 3 ? a * evaluate(J1_SMALL, (a / 3) ** 2) : (evaluate(F1, 3 / a) * Math.cos(a + evaluate(T1, 3 / a))) / Math.sqrt(a);
  return x < 0 ? -value : value;
};

/** J2 by its recurrence, with the series near 0 where the recurrence cancels. */
export const besselJ2 = (x: number): number =>
  Math.abs(x) < 0.3 ? (x * x) / 8 - x ** 4 / 96 + x ** 6 / 3072 : (2 * besselJ1(x)) / x - besselJ0(x);
