/*
 * Recommendation ITU-R F.1336-5: reference patterns of hub antennas. Implemented: omni §2.1 peak and §2.2 average
 * side lobes (k = 0.7 below 3 GHz, 0 above); sector 400 MHz to 6 GHz §3.1 (k = 0.7); sector 6 to 70 GHz §3.2.1 peak and
 * §3.2.2 average. Peak envelopes are for interference, average ones for wanted signals off the axis: side lobes 3 dB
 * lower, down to which the main lobe runs on (constants 1.152 and -15 above 6 GHz). Below 6 GHz and for omnis the
 * average is taken so from the peak, which could not be checked. Not implemented: low-cost antennas §4.
 */
import { needPositive } from "../units";

const K_PEAK = 0.7;
const OMNI_K_LIMIT_GHZ = 3;
const SECTOR_LIMIT_GHZ = 6;

/** Omni, elevation only, dB below the peak. @param beamwidthDeg in elevation; null derives it from the gain. */
export const omniRelativeDb = (
  gainDbi: number,
  beamwidthDeg: number | null,
  elevationOffDeg: number,
  frequencyGhz: number,
  lobes: SideLobes = "peak",
): number => {
  const theta3 = beamwidthDeg ?? 107.6 * 10 ** (-0.1 * gainDbi);
  const peakDb = omniPeakDb(theta3, elevationOffDeg, frequencyGhz);
  return lobes === "peak" ? peakDb : averageOf(peakDb, Math.min(90, Math.abs(elevationOffDeg)) / theta3);
};

const omniPeakDb = (theta3: number, elevationOffDeg: number, frequencyGhz: number): number => {
  const k = frequencyGhz < OMNI_K_LIMIT_GHZ ? K_PEAK : 0;
  const theta = Math.min(90, Math.abs(elevationOffDeg));
  const theta4 = theta3 * Math.sqrt(1 - Math.log10(k + 1) / 1.2);
  if (theta < theta4) return -12 * (theta / theta3) ** 2;
  if (theta < theta3) return -12 + 10 * Math.log10(k + 1);
  return -12 + 10 * Math.log10((theta / theta3) ** -1.5 + k);
};

const LAMBDA_H = 3 * (1 - 0.5 ** -K_PEAK);
const X_K = Math.sqrt(1 - 0.36 * K_PEAK);
const UP_AT_4 = 4 ** -1.5 + K_PEAK;

/** §3.1.1: in azimuth, x beamwidths off the axis. */
const lowAcross = (x: number, g180: number): number => Math.max(g180, x <= 0.5 ? -12 * x * x : -12 * x ** (2 - K_PEAK) - LAMBDA_H);

/** §3.1.1: in elevation, x beamwidths off the axis. */
const lowUp = (x: number, theta3: number, g180: number): number => {
  if (x < X_K) return -12 * x * x;
  if (x < 4) return -12 + 10 * Math.log10(x ** -1.5 + K_PEAK);
  if (x >= 90 / theta3) return g180;
  const c = (10 * Math.log10(((180 / theta3) ** 1.5 * UP_AT_4) / (1 + 8 * K_PEAK))) / Math.log10(22.5 / theta3);
  const lambdaV = 12 - c * Math.log10(4) - 10 * Math.log10(UP_AT_4);
  return -lambdaV - c * Math.log10(x);
};

const lowSector = (phi3: number, theta3: number, azimuthDeg: number, elevationDeg: number): number => {
  const g180 = -12 + 10 * Math.log10(1 + 8 * K_PEAK) - 15 * Math.log10(180 / theta3);
  const atSide = lowAcross(Math.abs(azimuthDeg) / phi3, g180);
  const back = lowAcross(180 / phi3, g180);
  const share = back < 0 ? (atSide - back) / (0 - back) : 1;
  return atSide + share * lowUp(Math.abs(elevationDeg) / theta3, theta3, g180);
};

const highSector = (phi3: number, theta3: number, azimuthDeg: number, elevationDeg: number): number => {
  const phi = (azimuthDeg * Math.PI) / 180;
  const theta = (elevationDeg * Math.PI) / 180;
  const alpha = Math.atan2(Math.tan(theta), Math.sin(phi));
  const psi = (Math.acos(Math.min(1, Math.max(-1, Math.cos(phi) * Math.cos(theta)))) * 180) / Math.PI;
  const psiAlpha = 1 / Math.sqrt((Math.cos(alpha) / phi3) ** 2 + (Math.sin(alpha) / theta3) ** 2);
  const x = psi / psiAlpha;
  return x < 1 ? -12 * x * x : -12 - 15 * Math.log10(x);
};

export type SideLobes = "peak" | "average";
const AVERAGE_UNDER_PEAK_DB = 3;

/** The average pattern under a peak one: the main lobe -12 x^2 runs on until it meets the side lobes, 3 dB lower. */
const averageOf = (peakDb: number, x: number): number => Math.min(peakDb, Math.max(-12 * x * x, peakDb - AVERAGE_UNDER_PEAK_DB));

/** Sector, both angles off its axis, dB below the peak. Beamwidths between half-power points. */
export const sectorRelativeDb = (
  azimuthBeamwidthDeg: number,
  elevationBeamwidthDeg: number,
  azimuthOffDeg: number,
  elevationOffDeg: number,
  frequencyGhz: number,
  lobes: SideLobes = "peak",
): number => {
  const phi3 = needPositive("azimuth beamwidth, degrees", azimuthBeamwidthDeg);
  const theta3 = needPositive("elevation beamwidth, degrees", elevationBeamwidthDeg);
  const shape = frequencyGhz <= SECTOR_LIMIT_GHZ ? lowSector : highSector;
  const peakDb = Math.min(0, shape(phi3, theta3, azimuthOffDeg, elevationOffDeg));
  return lobes === "peak" ? peakDb : averageOf(peakDb, Math.hypot(azimuthOffDeg / phi3, elevationOffDeg / theta3));
};
