export * from "./brief";
export * from "./ground";
export * from "./kind";
export { isProblem, mountPosition, planOf, profileFromDto } from "./plan";
export { type LonLat, latLons, lonLats } from "./positions";
export * from "./quick-path";
export * from "./records";
export * from "./schemas";
export type * from "./types";
