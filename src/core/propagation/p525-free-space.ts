/*
 * Recommendation ITU-R P.525 (free-space attenuation). Implemented: basic loss between isotropic
 * antennas. Not implemented: field strength and radar forms.
 */

/** Speed of light in vacuum, exact. */
export const LIGHT_SPEED_M_S = 299_792_458;

/** Wavelength in metres of a frequency in GHz. */
export const wavelengthM = (frequencyGhz: number): number => LIGHT_SPEED_M_S / (frequencyGhz * 1e9);

/**
 * Free-space basic transmission loss in dB: 20 log10(4 pi d / lambda), P.525 eq. (3).
 * @throws RangeError for a distance or frequency that is not above 0.
 */
export const freeSpaceLossDb = (frequencyGhz: number, distanceM: number): number => {
  if (!(distanceM > 0)) throw new RangeError(`distance ${distanceM} m must be above 0`);
  if (!(frequencyGhz > 0)) throw new RangeError(`frequency ${frequencyGhz} GHz must be above 0`);
  return 20 * Math.log10((4 * Math.PI * distanceM) / wavelengthM(frequencyGhz));
};

/** The practical form with rounded constant, P.525 eq. (4): 32.4 + 20 log f(MHz) + 20 log d(km). */
export const freeSpaceLossRoundedDb = (frequencyGhz: number, distanceM: number): number =>
  92.4 + 20 * Math.log10(frequencyGhz) + 20 * Math.log10(distanceM / 1000);
