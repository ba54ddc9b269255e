"use client";
import { type ReactNode, useState } from "react";

/** Lines that could not be read, the first three by their number. */
export const unreadText = (faults: readonly { readonly line: number; readonly text: string }[]): string =>
  `${faults
    .slice(0, 3)
    .map((f) => `line ${f.line} "${f.text}"`)
    .join(", ")}${faults.length > 3 ? ` and ${faults.length - 3} more` : ""}`;

/** A list that is pasted and taken as a whole; what was made of it is said. @param take returns what is said, and whether anything was taken. */
export const PasteField = ({
  label,
  button,
  most,
  take,
  children,
}: {
  label: ReactNode;
  button: string;
  most: number;
  take: (text: string) => { readonly said: string; readonly isTaken: boolean };
  /** Beside the button. */
  children?: ReactNode;
}) => {
  const [text, setText] = useState("");
  const [said, setSaid] = useState<string | null>(null);
  return (
    <>
      <label className="field">
        <span>{label}</span>
        <textarea
          rows={3}
          className="border border-rule bg-paper p-1 font-mono text-line"
          value={text}
          maxLength={most}
          onChange={(e) => setText(e.target.value)}
        />
      </label>
      <p className="m-0 mt-1 flex flex-wrap gap-x-4">
        <button
          type="button"
          className="press min-h-6 text-line"
          disabled={text.trim() === ""}
          onClick={() => {
            const answer = take(text);
            setSaid(answer.said);
            if (answer.isTaken) setText("");
          }}
        >
          {button}
        </button>
        {children}
        {said !== null && <span role="status">{said}</span>}
      </p>
    </>
  );
};
