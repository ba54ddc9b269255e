"use client";
import { useEffect, useState } from "react";
import { flushSync } from "react-dom";

export interface Paper {
  /** True while the paper is wanted: on its way to a printer, or into a file. */
  readonly out: boolean;
  /** Lays it out, lets something be done with it, and takes it away again. */
  readonly lay: <T>(work: (paper: HTMLElement) => T) => T;
}

/** The sheet as it goes on paper: laid out when the browser prints, and for a file. */
export const usePaper = (): Paper => {
  const [out, setOut] = useState(false);
  useEffect(() => {
    const before = (): void => flushSync(() => setOut(true));
    const after = (): void => setOut(false);
    window.addEventListener("beforeprint", before);
    window.addEventListener("afterprint", after);
    return () => {
      window.removeEventListener("beforeprint", before);
      window.removeEventListener("afterprint", after);
    };
  }, []);
  return {
    out,
    lay: (work) => {
      flushSync(() => setOut(true));
      try {
        const paper = document.querySelector<HTMLElement>(".paper-sheet");
        if (paper === null) throw new Error("nothing was laid out");
        return work(paper);
      } finally {
        setOut(false);
      }
    },
  };
};
