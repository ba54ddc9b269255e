"use client";
import { startTransition, useEffect, useRef, useState } from "react";

/** While something is dragged, what stands beside the drawing follows this often. */
export const PACE_MS = 120;

/**
 * A value for what need not follow every frame: at once once it is let go, and while it moves every 120 ms at most.
 * @param moves something is being dragged.
 */
export const usePaced = <T>(value: T, moves: boolean): T => {
  const [paced, setPaced] = useState(value);
  const newest = useRef(value);
  newest.current = value;
  const passedAtMs = useRef(Number.NEGATIVE_INFINITY);
  useEffect(() => {
    const pass = (): void => {
      passedAtMs.current = performance.now();
      startTransition(() => setPaced(newest.current));
    };
    const waitMs = moves ? passedAtMs.current + PACE_MS - performance.now() : 0;
    if (waitMs <= 0) {
      pass();
      return;
    }
    const timer = setTimeout(pass, waitMs);
    return () => clearTimeout(timer);
    // biome-ignore lint/correctness/useExhaustiveDependencies: each new value is one to be passed on
  }, [value, moves]);
  return paced;
};
