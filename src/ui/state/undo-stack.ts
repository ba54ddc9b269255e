"use client";
import { useCallback, useState } from "react";

/** An edit that was made on the server, with its inverse and its repetition. */
export interface Edit {
  readonly undo: () => Promise<void>;
  readonly redo: () => Promise<void>;
}

/** Undo and redo of edits that live on the server. One at a time; a step that fails stays where it was. */
export const useUndoStack = (onError: (error: unknown) => void) => {
  const [past, setPast] = useState<readonly Edit[]>([]);
  const [future, setFuture] = useState<readonly Edit[]>([]);
  const [busy, setBusy] = useState(false);
  const push = useCallback((edit: Edit) => {
    setPast((p) => [...p, edit]);
    setFuture([]);
  }, []);
  const step = async (run: () => Promise<void>, after: () => void): Promise<void> => {
    if (busy) return;
    setBusy(true);
    try {
      await run();
      after();
    } catch (error) {
      onError(error);
    } finally {
      setBusy(false);
    }
  };
  const last = past[past.length - 1];
  const next = future[0];
  return {
    push,
    canUndo: last !== undefined && !busy,
    canRedo: next !== undefined && !busy,
    undo: () => {
      if (last !== undefined)
        void step(last.undo, () => {
          setPast((p) => p.slice(0, -1));
          setFuture((f) => [last, ...f]);
        });
    },
    redo: () => {
      if (next !== undefined)
        void step(next.redo, () => {
          setFuture((f) => f.slice(1));
          setPast((p) => [...p, next]);
        });
    },
  };
};
