export {
  type AxisStretch,
  acrossExtent,
  axisStretches,
  type BodyKind,
  isVegetation,
  type PathBody,
  type PreparedOutline,
  prepareOutline,
} from "./body";
export { type Approach, apertureBoundShare, bodyApproach, groundApproach, type TopAt } from "./clearance";
export { effectiveEnd } from "./own-building";
export { f1RadiusM, makeRay, type Ray, rayBulgeM, rayZM, shareOfPoint } from "./ray";
