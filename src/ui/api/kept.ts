import { useSyncExternalStore } from "react";

/* Answers that came out of what this device keeps, because the server did not answer in time. */

const kept = new Set<string>();
const listeners = new Set<() => void>();

/** Notes where an answer came from. */
export const noteSource = (path: string, fromHere: boolean): void => {
  if (kept.has(path) === fromHere) return;
  if (fromHere) kept.add(path);
  else kept.delete(path);
  for (const l of listeners) l();
};

const subscribe = (listener: () => void): (() => void) => {
  listeners.add(listener);
  return () => listeners.delete(listener);
};

/** Whether what was last read of an address is what this device had kept of it. */
export const useIsKept = (path: string): boolean =>
  useSyncExternalStore(
    subscribe,
    () => kept.has(path),
    () => false,
  );

/** The same for what is no drawing. */
export const isKeptNow = (path: string): boolean => kept.has(path);
