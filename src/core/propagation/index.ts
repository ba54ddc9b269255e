export { BARRIER_MATERIALS, type Barrier, type BarrierLoss, barrierLoss } from "./barriers";
export { fresnelIntegral } from "./fresnel-integral";
export { freeSpaceLossDb, freeSpaceLossRoundedDb, LIGHT_SPEED_M_S, wavelengthM } from "./p525-free-space";
export { type DiffractionProfile, deltaBullingtonDb, prepareDiffraction } from "./p526-delta-bullington";
export { finiteScreenLossDb, knifeEdgeLossDb, knifeEdgeLossExactDb, LEAST_V, vOfEdgeLoss, vOfShare } from "./p526-knife-edge";
export { roundedObstacleLossDb, twoEdgeLossDb, vOfEdge } from "./p526-obstacles";
export { screenLoss, screenSpreadDb } from "./p526-screen";
export { shiftedDiffraction, shiftScratch, thinnedDiffraction } from "./p526-shifted";
export { sphericalEarthLossDb } from "./p526-spherical-earth";
export { type Permittivity, type Surface, seaWaterConductivity, surfacePermittivity, waterPermittivity } from "./p527-permittivity";
export {
  type Multipath,
  multipath,
  multipathPercent,
  multipathWorstMonthPercent,
} from "./p530-multipath";
export { type RainFading, rainAttenuationDb, rainExceeded, rainFading } from "./p530-rain";
export { gasSpecificAttenuation, vapourPressureHpa } from "./p676-gas";
export {
  earlyLeafLossDb,
  type LeafLoss,
  type LeafState,
  leafLoss,
  THROUGH_LIMIT_GHZ,
  woodlandLossDb,
} from "./p833-vegetation";
export { zoneRainRateMmH } from "./p837-rain-zones";
export { rainCoefficients } from "./p838-rain";
export { worstMonthPercent, yearPercentOfWorstMonth } from "./p841-worst-month";
export { buildingEntryLossDb } from "./p2109-building-entry";
export { fresnelCoefficient, type ReflectionResult, reflectionPointM, twoRayLevel } from "./reflection";
