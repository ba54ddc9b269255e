export { LATITUDE_LIMIT_DEG, LONGITUDE_LIMIT_DEG, parseLatLon } from "./coordinates";
export { bulgeM, EARTH_RADIUS_KM, effectiveRadiusM, elevationAngleDeg, kFromGradient, referenceRefractivityN } from "./earth";
export type { LatLon } from "./geodesic";
export { bearingsBetween, destination, geodesicLine, inverse } from "./geodesic";
export { type Declination, declination } from "./magnetic";
export { type PathFrame, pathFrame } from "./path-frame";
export { type PlaneProjection, planeProjection, projDefinition, utmCrsOf } from "./projection";
