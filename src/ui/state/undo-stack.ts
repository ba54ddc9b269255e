"use client";
import { useMemo, useRef, useState } from "react";

/** An edit that was made on the server, with its inverse and its repetition. */
export interface Edit {
  readonly undo: () => Promise<unknown>;
  readonly redo: () => Promise<unknown>;
}

export interface UndoStack {
  /** Makes an edit: it is queued behind those under way, so that undo always meets the latest. Rejects as the work does. */
  readonly perform: (work: () => Promise<Edit>) => Promise<void>;
  readonly canUndo: boolean;
  readonly canRedo: boolean;
  readonly undo: () => void;
  readonly redo: () => void;
}

/** Undo and redo of edits that live on the server, one after another. A step that fails stays where it was. */
export const useUndoStack = (onError: (error: unknown) => void): UndoStack => {
  const [past, setPast] = useState<readonly Edit[]>([]);
  const [future, setFuture] = useState<readonly Edit[]>([]);
  const held = useRef<{ past: readonly Edit[]; future: readonly Edit[] }>({ past: [], future: [] });
  const queue = useRef<Promise<unknown>>(Promise.resolve());
  const report = useRef(onError);
  report.current = onError;

  const actions = useMemo(() => {
    const put = (nextPast: readonly Edit[], nextFuture: readonly Edit[]): void => {
      held.current = { past: nextPast, future: nextFuture };
      setPast(nextPast);
      setFuture(nextFuture);
    };
    const enqueue = (work: () => Promise<void>): Promise<void> => {
      const done = queue.current.then(work);
      queue.current = done.catch(() => undefined);
      return done;
    };
    return {
      perform: (work: () => Promise<Edit>) =>
        enqueue(async () => {
          const edit = await work();
          put([...held.current.past, edit], []);
        }),
      undo: (): void => {
        enqueue(async () => {
          const last = held.current.past.at(-1);
          if (last === undefined) return;
          await last.undo();
          put(held.current.past.slice(0, -1), [last, ...held.current.future]);
        }).catch((error: unknown) => report.current(error));
      },
      redo: (): void => {
        enqueue(async () => {
          const [next, ...rest] = held.current.future;
          if (next === undefined) return;
          await next.redo();
          put([...held.current.past, next], rest);
        }).catch((error: unknown) => report.current(error));
      },
    };
  }, []);
  return { ...actions, canUndo: past.length > 0, canRedo: future.length > 0 };
};
