export { aimingLossDb, angleOfShiftDeg, beamwidthFromGainDeg, farFieldDistanceM, halfApertureM } from "./aperture";
export { diameterPerWavelength, referenceGainDbi } from "./f699-reference";
