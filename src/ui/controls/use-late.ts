"use client";
import { useEffect, useState } from "react";

/** A value that is told only once it has stood for a while; the one before it until then. @param value held by reference. */
export const useLate = <T>(value: T, waitMs: number): T => {
  const [late, setLate] = useState(value);
  useEffect(() => {
    const timer = setTimeout(() => setLate(value), waitMs);
    return () => clearTimeout(timer);
  }, [value, waitMs]);
  return late;
};
