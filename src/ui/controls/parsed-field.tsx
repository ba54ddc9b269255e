"use client";
import { type ReactNode, useState } from "react";
import type { Read, Reader } from "../wording/read";
import { Field } from "./field";

/**
 * A field whose words are read to a value. What cannot be read stays as typed with the reason; the last good value stays in force.
 * Escape puts back what stood before the typing. A list is taken when it is left or by Enter, so that half a list is never one.
 */
export const ParsedField = <T,>({
  label,
  shown,
  value,
  read,
  take,
  whenLeft = false,
  bare = false,
  note = null,
  ...input
}: {
  label: ReactNode;
  /** The value that stands, as it is written. */
  shown: string;
  /** The value itself, where it is finer than it is written; Escape puts back this one. */
  value?: T;
  read: Reader<T>;
  take: (value: T) => void;
  /** Taken when it is left, not letter by letter. */
  whenLeft?: boolean;
  /** In a table: its label is read aloud only. */
  bare?: boolean;
  note?: string | null;
  placeholder?: string;
  inputMode?: "decimal" | "numeric" | "text";
  maxLength?: number;
}) => {
  const [typing, setTyping] = useState<{ readonly text: string; readonly before: Read<T> } | null>(null);
  const faultOf = (text: string): string | undefined => {
    const answer = read(text);
    return "fault" in answer ? answer.fault : undefined;
  };
  const fault = typing === null ? undefined : faultOf(typing.text);
  const takeOver = (text: string): void => {
    const answer = read(text);
    if ("value" in answer && text !== shown) take(answer.value);
  };
  const leave = (): void => {
    if (typing === null || fault !== undefined) return;
    if (whenLeft) takeOver(typing.text);
    setTyping(null);
  };
  const typed = {
    ...input,
    value: typing?.text ?? shown,
    onChange: (e: { target: { value: string } }) => {
      setTyping({ text: e.target.value, before: typing?.before ?? (value === undefined ? read(shown) : { value }) });
      if (!whenLeft) takeOver(e.target.value);
    },
    onBlur: leave,
    onKeyDown: (e: { key: string }) => {
      if (e.key === "Escape" && typing !== null) {
        if (!whenLeft && "value" in typing.before) take(typing.before.value);
        setTyping(null);
      }
      if (e.key === "Enter") leave();
    },
  };
  if (!bare) return <Field label={label} note={note} fault={fault} {...typed} />;
  return (
    <>
      <input aria-label={String(label)} className="typed w-36" aria-invalid={fault !== undefined} {...typed} />
      {fault !== undefined && (
        <span role="alert" className="v-short block">
          {fault}
        </span>
      )}
    </>
  );
};
