"use client";
import { type InputHTMLAttributes, useState } from "react";
import { Field } from "../../controls/field";

/** A password, which may be shown while it is typed. Managers of passwords may fill it, and it may be pasted. */
export const PasswordField = (
  p: { label: string; fault?: string | undefined; note?: string | null } & InputHTMLAttributes<HTMLInputElement>,
) => {
  const [shown, setShown] = useState(false);
  return (
    <div className="relative">
      <Field {...p} type={shown ? "text" : "password"} autoCapitalize="none" spellCheck={false} />
      <button
        type="button"
        className="press absolute right-0 top-[22px] min-h-6 min-w-6 text-note"
        aria-pressed={shown}
        aria-label={`Show ${p.label.toLowerCase()}`}
        onClick={() => setShown(!shown)}
      >
        {shown ? "Hide" : "Show"}
      </button>
    </div>
  );
};
