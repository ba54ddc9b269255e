export {
  axisStretches,
  BODY_KINDS,
  type BodyKind,
  isPassing,
  isSolid,
  isSpan,
  isVegetation,
  type PathBody,
  type PreparedOutline,
  prepareOutline,
} from "./body";
export { type Approach, apertureBoundShare, bodyApproach, groundApproach, type TopAt } from "./clearance";
export { effectiveEnd, WALL_OFFSET_M } from "./own-building";
export { type RasterBody, raiseSurface } from "./rasterise";
export { f1RadiusM, makeRay, type Ray, rayBulgeM, rayZM, shareOfPoint } from "./ray";
export { type Shadow, shadowOf } from "./shadow";
export { type PreparedSide, prepareSide, sideApproach } from "./side-ground";
