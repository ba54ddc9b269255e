export { isProblem, planOf, type PlanProblem, profileFromDto } from "./plan";
export * from "./schemas";
export type * from "./types";
