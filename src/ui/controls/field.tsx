"use client";
import { type InputHTMLAttributes, type ReactNode, type SelectHTMLAttributes, useId } from "react";

/** A labelled input with its unit in the label and its fault in words beneath. */
export const Field = ({
  label,
  fault,
  note = null,
  ...input
}: { label: ReactNode; fault?: string | undefined; note?: string | null } & InputHTMLAttributes<HTMLInputElement>) => {
  const faultId = useId();
  return (
    <label className="field">
      <span>{label}</span>
      <input {...input} aria-invalid={fault !== undefined} aria-describedby={fault === undefined ? undefined : faultId} />
      {note !== null && fault === undefined && <span className="cap">{note}</span>}
      {fault !== undefined && (
        <span id={faultId} role="alert" className="fault">
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
