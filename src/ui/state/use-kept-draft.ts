import { useCallback, useState } from "react";
import { ownKey } from "./person";

/* What is typed into a form and not sent yet lies in the browser's storage: a killed tab loses none of it. */

const PREFIX = "dry-arc.form.";

/** Under whose name it lies: what one person typed is not shown to another. */
const nameOf = (key: string): string => ownKey(PREFIX) + key;

const readKept = <D extends object>(key: string): Partial<D> => {
  try {
    const kept: unknown = JSON.parse(localStorage.getItem(nameOf(key)) ?? "{}");
    return kept !== null && typeof kept === "object" && !Array.isArray(kept) ? (kept as Partial<D>) : {};
  } catch {
    return {};
  }
};

/** @param key name of the form and of what it is on. @returns what is typed, and how it is set; {} forgets it. */
export const useKeptDraft = <D extends object>(key: string): [Partial<D>, (draft: Partial<D>) => void] => {
  const [draft, setDraft] = useState<Partial<D>>(() => readKept<D>(key));
  const set = useCallback(
    (next: Partial<D>) => {
      setDraft(next);
      try {
        if (Object.keys(next).length === 0) localStorage.removeItem(nameOf(key));
        else localStorage.setItem(nameOf(key), JSON.stringify(next));
      } catch {
        // Storage that is full or shut keeps nothing over a killed tab.
      }
    },
    [key],
  );
  return [draft, set];
};
