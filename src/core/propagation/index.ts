export { fresnelIntegral } from "./fresnel-integral";
export { freeSpaceLossDb, freeSpaceLossRoundedDb, LIGHT_SPEED_M_S, wavelengthM } from "./p525-free-space";
export { type DiffractionProfile, deltaBullingtonDb, prepareDiffraction } from "./p526-delta-bullington";
export { finiteScreenLossDb, knifeEdgeLossDb, knifeEdgeLossExactDb, LEAST_V, vOfShare } from "./p526-knife-edge";
export { firstTermLossDb, type GroundType, type Polarisation, sphericalEarthLossDb } from "./p526-spherical-earth";
export { type RainFading, rainAttenuationDb, rainExceededPercent, rainFading } from "./p530-rain";
export { gasSpecificAttenuation, vapourPressureHpa } from "./p676-gas";
export { leafLossDb, MAX_DEPTH_M, THROUGH_LIMIT_GHZ } from "./p833-vegetation";
export { rainCoefficients, rainDbPerKm, rainKAlpha } from "./p838-rain";
