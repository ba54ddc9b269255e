export * from "./brief";
export * from "./ground";
export { isProblem, mountPosition, type PlanProblem, planOf, profileFromDto } from "./plan";
export { type LonLat, latLons, lonLats } from "./positions";
export * from "./schemas";
export type * from "./types";
