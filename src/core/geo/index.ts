export type { LatLon } from "./geodesic";
export { bearingsBetween, destination, geodesicLine, inverse } from "./geodesic";
export { declination, type Declination } from "./magnetic";
export { EARTH_RADIUS_KM, bulgeM, effectiveRadiusM, elevationAngleDeg, kFromGradient } from "./earth";
export { pathFrame, type PathFrame } from "./path-frame";
export { parseLatLon, LATITUDE_LIMIT_DEG, LONGITUDE_LIMIT_DEG } from "./coordinates";
export { planeProjection, projDefinition, utmCrsOf, type PlaneProjection } from "./projection";
