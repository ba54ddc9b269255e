import type { JobDto } from "@/contract";

export const CLEARANCE_WORD = {
  line: "bare line",
  sixty: "60 % of F1",
  whole: "whole F1",
  "two-condition": "two conditions of P.530",
} as const;

export const policyText = (job: JobDto): string =>
  `${CLEARANCE_WORD[job.clearancePolicy]}, k ${Math.abs(job.kFactor - 4 / 3) < 0.001 ? "4/3" : job.kFactor.toFixed(2)}, trees ${job.treePolicy}`;
