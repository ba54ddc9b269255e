"use client";
import { type InputHTMLAttributes, type ReactNode, type SelectHTMLAttributes, useId } from "react";

/** A labelled input with its unit in the label and its fault in words beneath. */
export const Field = ({
  label,
  fault,
  note = null,
  ...input
}: { label: ReactNode; fault?: string | undefined; note?: string | null } & InputHTMLAttributes<HTMLInputElement>) => {
  const id = useId();
  const told = fault !== undefined || note !== null;
  return (
    <label className="field">
      <span id={`${id}name`}>{label}</span>
      <input
        {...input}
        aria-labelledby={`${id}name`}
        aria-invalid={fault !== undefined}
        aria-describedby={told ? `${id}told` : undefined}
      />
      {note !== null && fault === undefined && (
        <span id={`${id}told`} className="cap">
          {note}
        </span>
      )}
      {fault !== undefined && (
        <span id={`${id}told`} role="alert" className="fault">
          {fault}
        </span>
      )}
    </label>
  );
};

export const Choice = ({ label, children, ...select }: { label: ReactNode } & SelectHTMLAttributes<HTMLSelectElement>) => (
  <label className="field">
    <span>{label}</span>
    <select {...select}>{children}</select>
  </label>
);
