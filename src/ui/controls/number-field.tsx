"use client";
import { useState } from "react";
import { readNumber } from "../wording/numbers";
import { Field } from "./field";

/** A number in one unit: what cannot be read, or is out of range, stays as typed with the reason; the last good one stays in force. */
export const NumberField = ({
  label,
  value,
  least,
  most,
  unit = "",
  optional = false,
  whole = false,
  onChange,
}: {
  label: string;
  value: number | null;
  least: number;
  most: number;
  unit?: string;
  optional?: boolean;
  whole?: boolean;
  onChange: (value: number | null) => void;
}) => {
  const [draft, setDraft] = useState<string | null>(null);
  const faultOf = (text: string): string | undefined => {
    const number = readNumber(text);
    if (text.trim() === "") return optional ? undefined : `Type a number${unit === "" ? "" : ` in ${unit}`}.`;
    if (number === null) return `"${text}" is not a number.`;
    if (whole && !Number.isInteger(number)) return "It must be whole.";
    return number < least || number > most ? `Must be ${least} to ${most}${unit === "" ? "" : ` ${unit}`}.` : undefined;
  };
  const text = draft ?? (value === null ? "" : String(Math.round(value * 100) / 100));
  const fault = draft === null ? undefined : faultOf(text);
  return (
    <Field
      label={unit === "" ? label : `${label}, ${unit}`}
      inputMode="decimal"
      value={text}
      fault={fault}
      onChange={(e) => {
        setDraft(e.target.value);
        if (faultOf(e.target.value) === undefined) onChange(readNumber(e.target.value));
      }}
      onBlur={() => {
        if (fault === undefined) setDraft(null);
      }}
      onKeyDown={(e) => {
        if (e.key === "Escape") setDraft(null);
      }}
    />
  );
};
