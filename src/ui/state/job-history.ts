"use client";
import { useMemo, useRef, useState } from "react";
import type { UndoneDto } from "@/contract";
import { bodyOf } from "../api/client";
import { useHistory, useRefresh } from "../api/queries";
import { stepText } from "../wording/history";
import { sendEdit } from "./browser-outbox";
import { arriveAll } from "./use-record";

export interface JobHistory {
  readonly canUndo: boolean;
  readonly canRedo: boolean;
  readonly undo: () => void;
  readonly redo: () => void;
  /** Takes back one edit of anybody, or does it again. @throws ApiError when something later rests on it. */
  readonly takeBack: (changeId: number) => Promise<void>;
  /** Makes an edit on the server; the outbox keeps the order. Rejects as the work does. */
  readonly perform: <T>(work: () => Promise<T>) => Promise<T>;
  /** What was last taken back or done again, in words. */
  readonly last: string | null;
}

const never = (): void => undefined;
/** Of a sheet that is not open yet: nothing can be taken back. */
export const STILL_HISTORY: JobHistory = {
  canUndo: false,
  canRedo: false,
  undo: never,
  redo: never,
  takeBack: () => Promise.resolve(),
  perform: (work) => work(),
  last: null,
};

/** Undo and redo across a job: the server keeps what this browser did, over sheets and reloads. */
export const useJobHistory = (jobId: string, onError: (error: unknown) => void, onStep: () => void = () => undefined): JobHistory => {
  const history = useHistory(jobId);
  const refresh = useRefresh();
  const [last, setLast] = useState<string | null>(null);
  const held = useRef({ refresh, onError, onStep });
  held.current = { refresh, onError, onStep };
  const actions = useMemo(() => {
    const send = async (path: string, body: unknown): Promise<UndoneDto> => {
      const done = await sendEdit<UndoneDto>(jobId, "POST", `/api/jobs/${jobId}/${path}`, body);
      arriveAll(done.rows);
      held.current.onStep();
      return done;
    };
    // What could not be taken back is told once; the next time the step before it is.
    const told = new Set<number>();
    const step = (redo: boolean): void => {
      send("undo", redo ? { redo } : { redo, told: [...told] })
        .then(({ step: done }) => setLast(done === null ? null : `${redo ? "done again" : "undone"}: ${stepText(done)}`))
        .catch((error: unknown) => {
          const changeId = bodyOf(error).values?.changeId;
          if (typeof changeId === "number") told.add(changeId);
          held.current.onError(error);
        })
        .finally(() => void held.current.refresh(jobId));
    };
    return {
      perform: async <T>(work: () => Promise<T>): Promise<T> => {
        const result = await work();
        setLast(null);
        return result;
      },
      undo: () => step(false),
      redo: () => step(true),
      takeBack: (changeId: number): Promise<void> =>
        send("history", { changeId })
          .then(() => undefined)
          .finally(() => void held.current.refresh(jobId)),
    };
  }, [jobId]);
  return { ...actions, canUndo: history.data?.canUndo ?? false, canRedo: history.data?.canRedo ?? false, last };
};
