export { reliefShade } from "./relief";
export { bilinearSampler, cutTile, type TerrainGrid } from "./grid";
export { pathPositions, positionAt, type PathPositions } from "./positions";
export { MAX_PROFILE_POINTS, MIN_STEP_M, NO_DATASET, sampleGround, type GroundProfile } from "./sample";
export { thinnedIndices } from "./thin";
