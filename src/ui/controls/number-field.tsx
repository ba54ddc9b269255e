"use client";
import { readNumber } from "../wording/numbers";
import type { Reader } from "../wording/read";
import { ParsedField } from "./parsed-field";

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
  const of = unit === "" ? "" : ` ${unit}`;
  const read: Reader<number | null> = (text) => {
    const number = readNumber(text);
    if (text.trim() === "") return optional ? { value: null } : { fault: `Type a number${of === "" ? "" : ` in${of}`}.` };
    if (number === null) return { fault: `"${text}" is not a number.` };
    if (whole && !Number.isInteger(number)) return { fault: "It must be whole." };
    return number < least || number > most ? { fault: `Must be ${least} to ${most}${of}.` } : { value: number };
  };
  return (
    <ParsedField
      label={unit === "" ? label : `${label}, ${unit}`}
      inputMode="decimal"
      shown={value === null ? "" : String(Math.round(value * 100) / 100)}
      value={value}
      read={read}
      take={onChange}
    />
  );
};
