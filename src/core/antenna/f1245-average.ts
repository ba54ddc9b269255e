/*
 * Recommendation ITU-R F.1245-3 §2: average side-lobe envelope of a point-to-point antenna, 1 to 86 GHz,
 * for interference summed over many. D/lambda from the gain as in F.699.
 */
import { diameterPerWavelength } from "./f699-reference";

/** Envelope gain in dBi at an angle off the axis. */
export const averageGainDbi = (peakGainDbi: number, offAxisDeg: number): number => {
  const phi = Math.abs(offAxisDeg);
  const dl = diameterPerWavelength(peakGainDbi);
  const g1 = 2 + 15 * Math.log10(dl);
  const phiM = (20 / dl) * Math.sqrt(Math.max(0, peakGainDbi - g1));
  const main = peakGainDbi - 2.5e-3 * (dl * phi) ** 2;
  if (phi < phiM) return main;
  if (dl > 100) {
    const phiR = Math.max(phiM, 12.02 * dl ** -0.6);
    if (phi < phiR) return g1;
    return phi < 48 ? 29 - 25 * Math.log10(phi) : -13;
  }
  const side = phi < 48 ? 39 - 5 * Math.log10(dl) - 25 * Math.log10(phi) : -3 - 5 * Math.log10(dl);
  return Math.min(peakGainDbi, side);
};
