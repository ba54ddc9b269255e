"use client";
import { type KeyboardEvent, type ReactNode, type SyntheticEvent, useRef } from "react";

const isText = (target: EventTarget): boolean =>
  target instanceof HTMLTextAreaElement ||
  (target instanceof HTMLInputElement && !["checkbox", "radio", "file", "range", "button"].includes(target.type));

/** What typing within the scope edits. */
export interface Typed {
  readonly begin: (how: "typing") => void;
  readonly end: () => void;
  readonly cancel: () => void;
}

/**
 * Fields within it make one edit of what is typed in each: it begins with the first letter, is finished by Enter or by
 * leaving the field, and Escape restores. What is typed is shown as it is typed.
 */
export const TypingScope = ({ of, className, children }: { of: Typed; className?: string; children: ReactNode }) => {
  const typing = useRef(false);
  const begin = (event: SyntheticEvent): void => {
    if (!isText(event.target)) return;
    typing.current = true;
    of.begin("typing");
  };
  const end = (): void => {
    if (!typing.current) return;
    typing.current = false;
    of.end();
  };
  const onKey = (event: KeyboardEvent): void => {
    if (event.key === "Enter" && !(event.target instanceof HTMLTextAreaElement)) end();
    else if (event.key === "Escape" && typing.current) {
      typing.current = false;
      of.cancel();
      // The first Escape is for what is typed; a dialog around it closes with the next.
      event.stopPropagation();
    }
  };
  return (
    // biome-ignore lint/a11y/noStaticElementInteractions: it only listens to the fields within it
    <div className={className ?? "contents"} onInputCapture={begin} onBlur={end} onKeyDown={onKey}>
      {children}
    </div>
  );
};
