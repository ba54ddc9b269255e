/*
 * Recommendation ITU-R F.699-7 §2.1: reference radiation pattern of a point-to-point antenna, 1 to
 * 70 GHz, for D/lambda at most 100 and above. D/lambda is taken from the gain (recommends 3). One cut,
 * the same in every plane. Low-gain panels lie outside what it was made for and are marked.
 */

const D_PER_LAMBDA_LEAST = 5;

/** D/lambda of a gain: 20 log(D/lambda) = G - 7.7. */
export const diameterPerWavelength = (gainDbi: number): number => 10 ** ((gainDbi - 7.7) / 20);

/** Envelope gain in dBi at an angle off the main axis, and whether the pattern is meant for such an antenna. */
export const referenceGainDbi = (peakGainDbi: number, offAxisDeg: number): { gainDbi: number; inRange: boolean } => {
  const phi = Math.abs(offAxisDeg);
  const dl = diameterPerWavelength(peakGainDbi);
  const inRange = dl >= D_PER_LAMBDA_LEAST;
  const g1 = 2 + 15 * Math.log10(dl);
  const phiM = (20 / dl) * Math.sqrt(Math.max(0, peakGainDbi - g1));
  const main = peakGainDbi - 2.5e-3 * (dl * phi) ** 2;
  if (dl > 100) {
    const phiR = 15.85 * dl ** -0.6;
    if (phi < phiM) return { gainDbi: main, inRange };
    if (phi < phiR) return { gainDbi: g1, inRange };
    return { gainDbi: phi < 48 ? 32 - 25 * Math.log10(phi) : -10, inRange };
  }
  const phiEdge = 100 / dl;
  if (phi < phiM) return { gainDbi: main, inRange };
  if (phi < phiEdge) return { gainDbi: Math.min(peakGainDbi, g1), inRange };
  const side = phi < 48 ? 52 - 10 * Math.log10(dl) - 25 * Math.log10(phi) : 10 - 10 * Math.log10(dl);
  return { gainDbi: Math.min(peakGainDbi, side), inRange };
};
