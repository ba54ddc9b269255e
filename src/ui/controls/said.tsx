"use client";
import { useEffect } from "react";

const SHOWN_MS = 9000;

/** What just came of something, over the foot of a drawing. It goes by itself and is not printed. */
export const Said = ({ words, close }: { words: string | null; close: () => void }) => {
  // biome-ignore lint/correctness/useExhaustiveDependencies: the time begins with the words
  useEffect(() => {
    if (words === null) return;
    const timer = setTimeout(close, SHOWN_MS);
    return () => clearTimeout(timer);
  }, [words]);
  if (words === null) return null;
  return (
    <p
      role="status"
      className="no-print absolute inset-x-3 bottom-[118px] z-[5] m-0 flex gap-3 border border-ink bg-paper px-3 py-1.5 text-line"
    >
      <span className="flex-1">{words}</span>
      <button type="button" className="press" onClick={close}>
        Close
      </button>
    </p>
  );
};
