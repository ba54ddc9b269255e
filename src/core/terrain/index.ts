export { contourStepM } from "./contour-step";
export { bilinearSampler, cutTile, type TerrainGrid } from "./grid";
export { type LevelStretch, levelStretches } from "./level";
export { pathPositions, positionAt } from "./positions";
export { reliefShade } from "./relief";
export { type GroundProfile, LEAST_GAP_M, MAX_PROFILE_POINTS, MIN_STEP_M, NO_DATASET, sampleGround } from "./sample";
export { type SideGround, sampleSide } from "./side";
export { thinnedIndices } from "./thin";
export { neededAmslAt, type SurfaceWindow, viewshed } from "./viewshed";
