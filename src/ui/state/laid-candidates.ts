"use client";
import { create } from "zustand";
import { createJSONStorage, persist } from "zustand/middleware";
import type { DesignFields } from "@/contract";

/** Something found in the rack of a link that is to be looked at over its section. */
export interface LaidCandidate {
  readonly id: string;
  readonly name: string;
  /** What it would set of the design. */
  readonly fields: Partial<DesignFields>;
}

interface Laid {
  readonly byLink: Readonly<Record<string, readonly LaidCandidate[]>>;
  /** The link whose section is about to open with them; null once it has. */
  readonly justLaid: string | null;
  readonly lay: (linkId: string, candidates: readonly LaidCandidate[]) => void;
}

/** Candidates laid over sections, kept for as long as the tab is: nothing of them is planned yet. */
export const useLaid = create<Laid>()(
  persist(
    (set) => ({
      byLink: {},
      justLaid: null,
      lay: (linkId, candidates) =>
        set(({ byLink: { [linkId]: _before, ...others } }) => ({
          byLink: candidates.length === 0 ? others : { ...others, [linkId]: candidates },
        })),
    }),
    { name: "dry-arc.laid", storage: createJSONStorage(() => sessionStorage), partialize: ({ byLink }) => ({ byLink }) },
  ),
);

const NONE: readonly LaidCandidate[] = [];
export const laidOn = (laid: Laid, linkId: string): readonly LaidCandidate[] => laid.byLink[linkId] ?? NONE;
