/** Share of the physical aperture that a usual panel or dish turns into gain (ours, for size from gain). */
const EFFICIENCY = 0.6;

/** Half the aperture of an antenna in metres: its diameter where known, else derived from its gain. */
export const halfApertureM = (gainDbi: number, wavelengthM: number, diameterMm: number | null | undefined): number =>
  diameterMm != null && diameterMm > 0 ? diameterMm / 2000 : (wavelengthM / (2 * Math.PI)) * Math.sqrt(10 ** (gainDbi / 10) / EFFICIENCY);

/** Distance from which an aperture's far field may be counted on: 2 D^2 / lambda. */
export const farFieldDistanceM = (apertureM: number, wavelengthM: number): number => (2 * apertureM * apertureM) / wavelengthM;
