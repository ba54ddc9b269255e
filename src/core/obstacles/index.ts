export {
  acrossExtent,
  type AxisStretch,
  axisStretches,
  type BodyKind,
  isVegetation,
  type PathBody,
  type PreparedOutline,
  prepareOutline,
} from "./body";
export { apertureBoundShare, bodyApproach, groundApproach, type Approach, type TopAt } from "./clearance";
export { f1RadiusM, makeRay, type Ray, rayBulgeM, rayZM, shareOfPoint } from "./ray";
export { effectiveEnd } from "./own-building";
