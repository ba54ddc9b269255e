/**
 * Loss against the far-field gains when the antennas stand in one another's near field: the flux of the
 * larger aperture never passes 4 P / A (the bound of RF safety practice, OET-65 §2), and no more than all
 * is received. 0 in the far field. @returns dB, 0 or above (ours, a bound and not a model).
 */
export const nearFieldLossDb = (
  distanceM: number,
  wavelengthM: number,
  gainOutDbi: number,
  gainInDbi: number,
  apertureOutM: number,
  apertureInM: number,
): number => {
  const farFluxDb = (gainDbi: number): number => gainDbi - 10 * Math.log10(4 * Math.PI * distanceM * distanceM);
  const boundDb = (apertureM: number): number => 10 * Math.log10(4 / (Math.PI * (apertureM / 2) ** 2));
  const byFlux = Math.max(0, farFluxDb(gainOutDbi) - boundDb(apertureOutM), farFluxDb(gainInDbi) - boundDb(apertureInM));
  const gainOfAllDb = gainOutDbi + gainInDbi - 20 * Math.log10((4 * Math.PI * distanceM) / wavelengthM);
  return Math.max(byFlux, gainOfAllDb, 0);
};
