"use client";
import { useMemo, useRef } from "react";
import type { DesignFields } from "@/contract";
import type { Finding } from "@/core/link";
import type { ClearsFrom } from "../../drawing/section-props";

const NEVER_CLEAR: ClearsFrom = { nearAglM: null, farAglM: null };

/**
 * The heights from which the path is clear, by what is found. While an end is dragged its own stays where it was known, and the
 * other end's is not known until it is let go.
 */
export const useClearsFrom = (found: readonly Finding[], drag: boolean, design: DesignFields, settled: DesignFields): ClearsFrom => {
  const before = useRef<ClearsFrom>(NEVER_CLEAR);
  const { nearMountAglM, farMountAglM } = design;
  return useMemo(() => {
    if (drag)
      return {
        nearAglM: nearMountAglM === settled.nearMountAglM ? null : before.current.nearAglM,
        farAglM: farMountAglM === settled.farMountAglM ? null : before.current.farAglM,
      };
    const mend = (code: "raise-near" | "raise-far"): number | null => {
      // What the structure forbids is no button, but it is still told where the path clears.
      const raise = found.flatMap((f) => f.mends).find((m) => m.code === code && m.amountToday !== null);
      if (raise === undefined || raise.amountToday === null) return null;
      return (code === "raise-near" ? nearMountAglM : farMountAglM) + raise.amountToday;
    };
    before.current = { nearAglM: mend("raise-near"), farAglM: mend("raise-far") };
    return before.current;
  }, [found, drag, nearMountAglM, farMountAglM, settled.nearMountAglM, settled.farMountAglM]);
};
