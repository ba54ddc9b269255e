export { farFieldDistanceM, halfApertureM } from "./aperture";
export { diameterPerWavelength, referenceGainDbi } from "./f699-reference";
