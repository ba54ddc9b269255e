"use client";
import { useMemo, useRef, useState } from "react";
import { useHistory, useRefresh } from "../api/queries";
import { stepText } from "../wording/history";
import { sendEdit } from "./browser-outbox";

export interface JobHistory {
  readonly canUndo: boolean;
  readonly canRedo: boolean;
  readonly undo: () => void;
  readonly redo: () => void;
  /** Makes an edit on the server; the outbox keeps the order. Rejects as the work does. */
  readonly perform: <T>(work: () => Promise<T>) => Promise<T>;
  /** What was last taken back or done again, in words. */
  readonly last: string | null;
}

/** Undo and redo across a job: the server keeps what this browser did, over sheets and reloads. */
export const useJobHistory = (jobId: string, onError: (error: unknown) => void, onStep: () => void = () => undefined): JobHistory => {
  const history = useHistory(jobId);
  const refresh = useRefresh();
  const [last, setLast] = useState<string | null>(null);
  const held = useRef({ refresh, onError, onStep });
  held.current = { refresh, onError, onStep };
  const actions = useMemo(() => {
    const step = (redo: boolean): void => {
      const go = async (): Promise<void> => {
        const { step: done } = await sendEdit<{ step: { entity: string; action: string; name: string } | null }>(
          jobId,
          "POST",
          `/api/jobs/${jobId}/undo`,
          { redo },
        );
        setLast(done === null ? null : `${redo ? "done again" : "undone"}: ${stepText(done)}`);
        await held.current.refresh(jobId);
        held.current.onStep();
      };
      go().catch((error: unknown) => {
        held.current.onError(error);
        void held.current.refresh(jobId);
      });
    };
    return {
      perform: async <T>(work: () => Promise<T>): Promise<T> => {
        const result = await work();
        setLast(null);
        return result;
      },
      undo: () => step(false),
      redo: () => step(true),
    };
  }, [jobId]);
  return { ...actions, canUndo: history.data?.canUndo ?? false, canRedo: history.data?.canRedo ?? false, last };
};
