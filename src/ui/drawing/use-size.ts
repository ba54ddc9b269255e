"use client";
import { type RefObject, useLayoutEffect, useRef, useState } from "react";

/** Size of an element in CSS pixels, followed as it changes. */
export const useSize = <T extends HTMLElement>(): [RefObject<T | null>, { width: number; height: number }] => {
  const ref = useRef<T>(null);
  const [size, setSize] = useState({ width: 0, height: 0 });
  useLayoutEffect(() => {
    const element = ref.current;
    if (element === null) return;
    const observer = new ResizeObserver(([entry]) => {
      if (entry !== undefined) setSize({ width: Math.round(entry.contentRect.width), height: Math.round(entry.contentRect.height) });
    });
    observer.observe(element);
    return () => observer.disconnect();
  }, []);
  return [ref, size];
};
