import type { JobDto, PolicyOver } from "@/contract";
import type { LinkPolicy } from "@/core/link";

export const CLEARANCE_WORD = {
  line: "bare line",
  sixty: "60 % of F1",
  whole: "whole F1",
  "two-condition": "two conditions of P.530",
} as const;

export const TREES_WORD = {
  strict: "strict: none in the zone",
  trim: "trim: cut what the zone needs",
  through: "through: plan with their loss",
} as const;

export const LEAF_WORD = { in: "in leaf", out: "out of leaf" } as const;

const kText = (k: number): string => (Math.abs(k - 4 / 3) < 0.001 ? "4/3" : k.toFixed(2));

export const policyText = (job: JobDto): string =>
  `${CLEARANCE_WORD[job.clearancePolicy]}, k ${kText(job.kFactor)}, trees ${job.treePolicy}`;

/** The policy in force on one link, and whether any of it is the link's own. */
export const linkPolicyText = (policy: LinkPolicy, over: PolicyOver): string =>
  `${CLEARANCE_WORD[policy.clearance]}, k ${kText(policy.kFactor)}, trees ${policy.trees}, ${LEAF_WORD[policy.leaf]}${
    Object.keys(over).length > 0 ? ", this link's own" : ""
  }`;
