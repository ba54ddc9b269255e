/*
 * Standard normal distribution. Share below z by the complementary error function in Chebyshev form
 * (relative error below 1.2e-7); its inverse by two Newton steps from Abramowitz and Stegun 26.2.23.
 */

/** Complementary error function, relative error below 1.2e-7 everywhere. */
const erfc = (x: number): number => {
  const z = Math.abs(x);
  const t = 1 / (1 + z / 2);
  const series =
    -z * z -
    1.26551223 +
    t *
      (1.00002368 +
        t *
          (0.37409196 +
            t *
              (0.09678418 +
                t * (-0.18628806 + t * (0.27886807 + t * (-1.13520398 + t * (1.48851587 + t * (-0.82215223 + t * 0.17087277))))))));
  const value = t * Math.exp(series);
  return x >= 0 ? value : 2 - value;
};

/** Share of the standard normal distribution below z. */
export const normalShare = (z: number): number => erfc(-z / Math.SQRT2) / 2;

/** z below which a share of the standard normal distribution lies. @param share above 0 and below 1. @throws RangeError. */
export const normalQuantile = (share: number): number => {
  if (!(share > 0 && share < 1)) throw new RangeError(`share ${share} must lie between 0 and 1`);
  const tail = Math.min(share, 1 - share);
  const t = Math.sqrt(-2 * Math.log(tail));
  let z = t - (2.515517 + t * (0.802853 + t * 0.010328)) / (1 + t * (1.432788 + t * (0.189269 + t * 0.001308)));
  if (share < 0.5) z = -z;
  for (let i = 0; i < 2; i++) z -= (normalShare(z) - share) * Math.sqrt(2 * Math.PI) * Math.exp((z * z) / 2);
  return z;
};
