"use client";
import { startTransition, useEffect, useRef, useState } from "react";

/** While something is dragged, what stands beside the drawing follows this often. */
const PACE_MS = 120;

/**
 * A value for what need not follow every frame: at once when nothing moves, and every 120 ms at most while something does.
 * @param moves something is being dragged.
 */
export const usePaced = <T>(value: T, moves: boolean): T => {
  const [paced, setPaced] = useState(value);
  const passedAtMs = useRef(Number.NEGATIVE_INFINITY);
  useEffect(() => {
    const pass = (): void => {
      passedAtMs.current = performance.now();
      startTransition(() => setPaced(value));
    };
    const waitMs = moves ? passedAtMs.current + PACE_MS - performance.now() : 0;
    if (waitMs <= 0) {
      pass();
      return;
    }
    // A newer value takes this one's place, and what is left of its wait.
    const timer = setTimeout(pass, waitMs);
    return () => clearTimeout(timer);
  }, [value, moves]);
  return paced;
};
