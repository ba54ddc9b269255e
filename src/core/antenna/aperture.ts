import { DEG_PER_RAD } from "../units";

/** Share of the physical aperture that a usual panel or dish turns into gain (ours, for size from gain). */
const EFFICIENCY = 0.6;

/** Half the aperture of an antenna in metres: its diameter where known, else derived from its gain. */
export const halfApertureM = (gainDbi: number, wavelengthM: number, diameterMm: number | null | undefined): number =>
  diameterMm != null && diameterMm > 0 ? diameterMm / 2000 : (wavelengthM / (2 * Math.PI)) * Math.sqrt(10 ** (gainDbi / 10) / EFFICIENCY);

/** Half-power beamwidth derived from a gain: 27 000 square degrees over the gain (ours; marked as derived). */
export const beamwidthFromGainDeg = (gainDbi: number): number => Math.sqrt(27_000 / 10 ** (gainDbi / 10));

/** Loss by pointing aside within the main lobe: 12 (angle / half-power beamwidth)^2 dB. */
export const aimingLossDb = (offAxisDeg: number, beamwidthDeg: number): number => 12 * (offAxisDeg / beamwidthDeg) ** 2;

/** Distance from which an aperture's far field may be counted on: 2 D^2 / lambda. */
export const farFieldDistanceM = (apertureM: number, wavelengthM: number): number => (2 * apertureM * apertureM) / wavelengthM;

/** Sideways turn that a shift at a distance means, in degrees. */
export const angleOfShiftDeg = (shiftM: number, distanceM: number): number => DEG_PER_RAD * Math.atan2(shiftM, distanceM);
