"use client";
import { useEffect, useRef } from "react";
import { tinykeys } from "tinykeys";

export type Keys = Readonly<Record<string, (event: KeyboardEvent) => void>>;

/** True while keys are letters of a field. */
export const isTyping = (target: EventTarget | null): boolean =>
  target instanceof HTMLElement && (target.isContentEditable || ["INPUT", "SELECT", "TEXTAREA"].includes(target.tagName));

/**
 * Keys of a page, as tinykeys writes them ("$mod+Shift+z", "r", "([1-5])"). While something is typed they are letters.
 * @param typingToo also while a field has the keys.
 */
export const useKeys = (keys: Keys, typingToo = false): void => {
  const latest = useRef(keys);
  useEffect(() => {
    latest.current = keys;
  });
  const names = Object.keys(keys).join(" ");
  useEffect(() => {
    const bound = names.split(" ").map((name) => [
      name,
      (event: KeyboardEvent): void => {
        event.preventDefault();
        latest.current[name]?.(event);
      },
    ]);
    return tinykeys(window, Object.fromEntries(bound), { ignore: (event) => !typingToo && isTyping(event.target) });
  }, [names, typingToo]);
};
