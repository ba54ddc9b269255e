"use client";
import { type Remote, wrap } from "comlink";
import { useEffect, useRef, useState } from "react";
import type { LinkPlan, PathProfile } from "@/core/link";
import type { Evaluation } from "./use-evaluation";

/** The last answer with the plan it is about; a newer one may be on its way. */
export interface Answered<Reply> {
  readonly reply: Reply;
  readonly plan: LinkPlan;
}

/** Questions are asked no closer than this. */
const LEAST_APART_MS = 120;

/**
 * A question about the open design, worked out beside the page. Only the newest design is asked about; what was
 * answered last stays until the next answer. Leaving the view ends the worker with whatever it is at.
 * @returns null until the first answer; "failed" when the core refuses the design.
 */
export const useWorkerAnswer = <Worked extends { readonly open: (profile: PathProfile) => void }, Reply>(
  url: string,
  evaluation: Evaluation | null,
  ask: (remote: Remote<Worked>, plan: LinkPlan) => Promise<Reply>,
): Answered<Reply> | "failed" | null => {
  const [answer, setAnswer] = useState<Answered<Reply> | "failed" | null>(null);
  const send = useRef<((e: Evaluation) => void) | null>(null);
  const question = useRef(ask);
  question.current = ask;

  useEffect(() => {
    const worker = new Worker(url);
    const remote = wrap<Worked>(worker) as Remote<Worked>;
    let busy = false;
    let next: Evaluation | null = null;
    let gone = false;
    let opened: PathProfile | null = null;
    let askedAtMs = Number.NEGATIVE_INFINITY;
    const run = async (): Promise<void> => {
      while (next !== null && !gone) {
        // While something is dragged the newest is asked about now and then, not each on the way.
        const waitMs = askedAtMs + LEAST_APART_MS - performance.now();
        if (waitMs > 0) await new Promise((resolve) => setTimeout(resolve, waitMs));
        if (gone) break;
        askedAtMs = performance.now();
        const { plan, path }: Evaluation = next;
        next = null;
        try {
          if (opened !== path.profile) {
            opened = path.profile;
            await (remote.open as unknown as (profile: PathProfile) => Promise<void>)(opened);
          }
          const reply = await question.current(remote, plan);
          if (!gone) setAnswer({ reply, plan });
        } catch {
          // What is wrong with a refused design is said by the sheet.
          if (!gone) setAnswer("failed");
        }
      }
    };
    send.current = (e) => {
      next = e;
      if (busy) return;
      busy = true;
      run().finally(() => {
        busy = false;
      });
    };
    return () => {
      gone = true;
      send.current = null;
      worker.terminate();
    };
  }, [url]);

  useEffect(() => {
    if (evaluation !== null) send.current?.(evaluation);
  }, [evaluation]);
  return answer;
};
