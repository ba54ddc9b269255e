"use client";
import type { Uncertainty } from "@/core/link";
import type { DoubtWorker } from "@/workers/messages";
import type { Evaluation } from "./use-evaluation";
import { useWorkerAnswer } from "./use-worker-answer";

/** The last answer; null inside when there is no spread to tell. */
export interface Doubt {
  readonly value: Uncertainty | null;
}

const FAILED: Doubt = { value: null };

/** The spread of the open design by drawing its inputs: always the same draws, those that the verdict takes too. */
export const useDoubt = (evaluation: Evaluation | null): Doubt | null => {
  const answer = useWorkerAnswer<DoubtWorker, Doubt>("/workers/doubt.worker.js", evaluation, async (remote, plan) => ({
    value: (await remote.doubt(plan)) as Uncertainty | null,
  }));
  return answer === "failed" ? FAILED : (answer?.reply ?? null);
};

/** How far the band reaches below and above the expected level, of one direction. */
export const bandOffsets = (doubt: Doubt | null, reverse: boolean): { lowDb: number; highDb: number } | null => {
  const value = doubt?.value;
  if (value == null) return null;
  const level = reverse ? value.levelToNearDbm : value.levelToFarDbm;
  const expectedDbm = reverse ? value.expectedToNearDbm : value.expectedToFarDbm;
  return { lowDb: level.p10 - expectedDbm, highDb: level.p90 - expectedDbm };
};
