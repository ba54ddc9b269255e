/** Boltzmann constant, exact, J/K, and the reference temperature of noise figures. */
const BOLTZMANN = 1.380649e-23;
const REFERENCE_K = 290;

/** Thermal noise k T B in dBm at 290 K, -173.98 dBm in 1 Hz. @param bandwidthMhz above 0. */
export const thermalNoiseDbm = (bandwidthMhz: number): number => {
  if (!(bandwidthMhz > 0)) throw new RangeError(`bandwidth ${bandwidthMhz} MHz must be above 0`);
  return 10 * Math.log10(BOLTZMANN * REFERENCE_K * bandwidthMhz * 1e6 * 1000);
};

/** Receiver noise floor in dBm: thermal noise, noise figure, rise from interference. */
export const noiseFloorDbm = (bandwidthMhz: number, noiseFigureDb: number, riseDb = 0): number =>
  thermalNoiseDbm(bandwidthMhz) + noiseFigureDb + riseDb;

/** Rise of a noise floor in dB by interference heard at a level per chain in the channel; 0 when none is known. */
export const noiseRiseDb = (noiseDbm: number, interferenceDbm: number | null): number =>
  interferenceDbm === null ? 0 : 10 * Math.log10(1 + 10 ** ((interferenceDbm - noiseDbm) / 10));
