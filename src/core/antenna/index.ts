export { farFieldDistanceM, halfApertureM } from "./aperture";
export { apertureCut } from "./aperture-pattern";
export { besselJ0, besselJ1, besselJ2 } from "./bessel";
export type { MeasuredCuts } from "./cuts";
export { diameterPerWavelength, referenceGainDbi } from "./f699-reference";
export { averageGainDbi } from "./f1245-average";
export { omniRelativeDb, sectorRelativeDb } from "./f1336-hub";
export { nearFieldLossDb } from "./near-field";
export { type AntennaShape, type Pattern, patternOf } from "./pattern";
