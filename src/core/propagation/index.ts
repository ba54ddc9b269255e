export { freeSpaceLossDb, freeSpaceLossRoundedDb, LIGHT_SPEED_M_S, wavelengthM } from "./p525-free-space";
export { fresnelIntegral } from "./fresnel-integral";
export { finiteScreenLossDb, knifeEdgeLossDb, knifeEdgeLossExactDb, LEAST_V, vOfShare } from "./p526-knife-edge";
export { firstTermLossDb, sphericalEarthLossDb, type GroundType, type Polarisation } from "./p526-spherical-earth";
export { deltaBullingtonDb, prepareDiffraction, type DiffractionProfile } from "./p526-delta-bullington";
export { gasSpecificAttenuation, vapourPressureHpa } from "./p676-gas";
export { rainCoefficients, rainDbPerKm, rainKAlpha } from "./p838-rain";
export { rainAttenuationDb, rainExceededPercent, rainFading, type RainFading } from "./p530-rain";
export { leafLossDb, MAX_DEPTH_M, THROUGH_LIMIT_GHZ } from "./p833-vegetation";
