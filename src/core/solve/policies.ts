/* What another policy would say of the same path: every school, its verdict and what it costs. */
import { evaluatePrepared, type LinkPlan, type LinkPolicy, type PreparedPath, type Verdict, type WorstPlace } from "../link";

export type PolicyChange = Partial<Pick<LinkPolicy, "clearance" | "trees" | "leaf" | "kFactor">>;

export interface PolicyOutcome {
  readonly change: PolicyChange;
  /** It is the one in force. */
  readonly inForce: boolean;
  readonly verdict: Verdict;
  readonly clearanceVerdict: Verdict;
  readonly worst: WorstPlace | null;
  /** Lower of both directions, dBm per receive chain; null while the radios do not pair. */
  readonly levelDbm: number | null;
}

const SCHOOLS: readonly PolicyChange[] = [
  { clearance: "line" },
  { clearance: "sixty" },
  { clearance: "whole" },
  { clearance: "two-condition" },
  { trees: "strict" },
  { trees: "trim" },
  { trees: "through" },
  { leaf: "in" },
  { leaf: "out" },
];

export const withPolicy = (plan: LinkPlan, change: PolicyChange): LinkPlan => ({ ...plan, policy: { ...plan.policy, ...change } });

/** Every school of clearance, trees and leaves, each with the rest of the policy as it is. */
export const policyOutcomes = (plan: LinkPlan, path: PreparedPath): PolicyOutcome[] =>
  SCHOOLS.map((change) => {
    const changed = withPolicy(plan, change);
    const r = evaluatePrepared(changed, path);
    const { toFar, toNear } = r.service;
    return {
      change,
      inForce: Object.entries(change).every(([key, value]) => plan.policy[key as keyof LinkPolicy] === value),
      verdict: r.verdict,
      clearanceVerdict: r.clearance.verdict,
      worst: r.clearance.worst,
      levelDbm: toFar === null || toNear === null ? null : Math.min(toFar.levelDbm, toNear.levelDbm),
    };
  });
