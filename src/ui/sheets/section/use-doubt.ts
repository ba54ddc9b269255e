"use client";
import { type Remote, wrap } from "comlink";
import { useDeferredValue, useEffect, useRef, useState } from "react";
import type { Uncertainty } from "@/core/link";
import type { DoubtWorker } from "@/workers/messages";
import type { Evaluation } from "./use-evaluation";

const DRAWS = 500;
/** One seed for good: the same draws come again, and figures stand still while a mast is dragged. */
const SEED = 20_261;

/** The last answer; null inside when there is no spread to tell. */
export interface Doubt {
  readonly value: Uncertainty | null;
}

/**
 * The spread of the open design by drawing its inputs, worked out beside the page. Only the newest design is
 * asked for; what was answered last stays until the next answer.
 */
export const useDoubt = (evaluation: Evaluation | null): Doubt | null => {
  const settled = useDeferredValue(evaluation);
  const [doubt, setDoubt] = useState<Doubt | null>(null);
  const ask = useRef<((e: Evaluation) => void) | null>(null);

  useEffect(() => {
    const worker = new Worker("/workers/doubt.worker.js");
    const remote = wrap<DoubtWorker>(worker) as Remote<DoubtWorker>;
    let busy = false;
    let next: Evaluation | null = null;
    let gone = false;
    let opened: Evaluation["path"]["profile"] | null = null;
    const run = async (): Promise<void> => {
      while (next !== null && !gone) {
        const { plan, path } = next;
        next = null;
        if (opened !== path.profile) {
          opened = path.profile;
          await remote.open(opened);
        }
        // A design the core refuses has no spread; what is wrong with it is said by the sheet.
        const value = await remote.doubt({ plan, draws: DRAWS, seed: SEED }).catch(() => null);
        if (!gone) setDoubt({ value });
      }
    };
    ask.current = (e) => {
      next = e;
      if (busy) return;
      busy = true;
      run().finally(() => {
        busy = false;
      });
    };
    return () => {
      gone = true;
      ask.current = null;
      worker.terminate();
    };
  }, []);

  useEffect(() => {
    if (settled !== null) ask.current?.(settled);
  }, [settled]);
  return doubt;
};

/** How far the band reaches below and above the expected level, of one direction. */
export const bandOffsets = (doubt: Doubt | null, reverse: boolean): { lowDb: number; highDb: number } | null => {
  const value = doubt?.value;
  if (value == null) return null;
  const level = reverse ? value.levelToNearDbm : value.levelToFarDbm;
  const expectedDbm = reverse ? value.expectedToNearDbm : value.expectedToFarDbm;
  return { lowDb: level.p10 - expectedDbm, highDb: level.p90 - expectedDbm };
};
