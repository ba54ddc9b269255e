export { BARRIER_MATERIALS, type Barrier, type BarrierLoss, barrierLoss } from "./barriers";
export { fresnelIntegral } from "./fresnel-integral";
export { freeSpaceLossDb, freeSpaceLossRoundedDb, LIGHT_SPEED_M_S, wavelengthM } from "./p525-free-space";
export { type DiffractionProfile, deltaBullingtonDb, prepareDiffraction } from "./p526-delta-bullington";
export { finiteScreenLossDb, knifeEdgeLossDb, knifeEdgeLossExactDb, LEAST_V, vOfEdgeLoss, vOfShare } from "./p526-knife-edge";
export { roundedObstacleLossDb, twoEdgeLossDb, vOfEdge } from "./p526-obstacles";
export { PHASE_SIGMA_F1, type ScreenLoss, screenLoss, screenSpreadDb } from "./p526-screen";
export { type ShiftScratch, shiftedDiffraction, shiftScratch, thinnedDiffraction } from "./p526-shifted";
export { firstTermLossDb, type GroundType, type Polarisation, sphericalEarthLossDb } from "./p526-spherical-earth";
export { type Permittivity, type Surface, seaWaterConductivity, surfacePermittivity, waterPermittivity } from "./p527-permittivity";
export {
  type Multipath,
  type MultipathInput,
  multipath,
  multipathPercent,
  multipathWorstMonthPercent,
  NEGLIGIBLE_BELOW_KM,
} from "./p530-multipath";
export { type RainExceeded, type RainFading, rainAttenuationDb, rainExceeded, rainFading } from "./p530-rain";
export { gasSpecificAttenuation, vapourPressureHpa } from "./p676-gas";
export {
  earlyLeafLossDb,
  fiturLossDb,
  type LeafLoss,
  type LeafState,
  leafLoss,
  MAX_DEPTH_M,
  THROUGH_LIMIT_GHZ,
  woodlandDbPerM,
  woodlandLossDb,
} from "./p833-vegetation";
export { RAIN_ZONES, type RainZone, zoneRainRateMmH } from "./p837-rain-zones";
export { rainCoefficients, rainDbPerKm, rainKAlpha } from "./p838-rain";
export { worstMonthPercent, yearPercentOfWorstMonth } from "./p841-worst-month";
export { type BuildingType, buildingEntryLossDb } from "./p2109-building-entry";
export { fresnelCoefficient, type ReflectionInput, type ReflectionResult, reflectionPointM, twoRayLevel } from "./reflection";
