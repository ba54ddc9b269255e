export { isProblem, type PlanProblem, planOf, profileFromDto } from "./plan";
export * from "./schemas";
export type * from "./types";
