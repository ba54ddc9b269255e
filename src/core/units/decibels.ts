/** Ratio of two powers in decibels. @param ratio dimensionless, above 0. */
export const dbFromRatio = (ratio: number): number => 10 * Math.log10(ratio);

/** Power in milliwatts of a level in dBm. */
export const mwFromDbm = (levelDbm: number): number => 10 ** (levelDbm / 10);

/** Level in dBm of a power in milliwatts. @param powerMw above 0. */
export const dbmFromMw = (powerMw: number): number => 10 * Math.log10(powerMw);

/**
 * Loss of several ways taken at once, their powers added (phases unknown).
 * @param lossesDb loss of each way in dB; Infinity for a closed way.
 * @returns the loss of all together in dB.
 */
export const powerSumDb = (lossesDb: readonly number[]): number => {
  let power = 0;
  for (const lossDb of lossesDb) power += 10 ** (-lossDb / 10);
  return -10 * Math.log10(power);
};
