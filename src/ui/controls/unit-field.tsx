"use client";
import { type ReactNode, useEffect, useId, useState } from "react";
import { FEET_PER_METRE, likelySlip, MILES_PER_KM, type Slip } from "@/core/units";
import { usePreferences } from "../state/preferences";
import { readNumber, significant } from "../wording/numbers";

/** What a quantity can be typed in, each with how much of the base unit one of it is. */
const UNITS = {
  rate: [
    ["Mbit/s", 1],
    ["kbit/s", 1 / 1000],
    ["Gbit/s", 1000],
    ["MB/s", 8],
    ["kB/s", 8 / 1000],
  ],
  height: [
    ["m", 1],
    ["ft", 1 / FEET_PER_METRE],
  ],
  distance: [
    ["m", 1],
    ["km", 1000],
    ["ft", 1 / FEET_PER_METRE],
    ["mi", 1000 / MILES_PER_KM],
  ],
} as const satisfies Record<string, readonly (readonly [string, number])[]>;

type Quantity = keyof typeof UNITS;

const SLIP_WORDS: Readonly<Record<Slip["kind"], string>> = {
  "bits-for-bytes": "bits were meant and bytes chosen",
  "bytes-for-bits": "bytes were meant and bits chosen",
  "kilo-for-mega": "kilobits were typed as megabits",
  "mega-for-kilo": "gigabits were typed as megabits",
  "feet-for-metres": "feet were typed as metres",
  "metres-for-feet": "metres were typed as feet",
  "ten-times": "a decimal point is missing",
  "a-tenth": "a digit is missing",
};

const trimmed = (value: number): string => String(Number(value.toPrecision(6)));

/**
 * A quantity with its unit beside it: typed in any of its units, kept in one (Mbit/s, or metres), shown in the others
 * beneath, and questioned when it looks like a slip between two of them.
 * @param value in the base unit; null while empty.
 */
export const UnitField = ({
  label,
  quantity,
  value,
  onChange,
  usual,
  least = 0,
  most,
  allowEmpty = true,
  disabled = false,
}: {
  label: ReactNode;
  quantity: Quantity;
  value: number | null;
  onChange: (value: number | null) => void;
  usual?: { least: number; most: number };
  least?: number;
  most: number;
  allowEmpty?: boolean;
  disabled?: boolean;
}) => {
  const { units } = usePreferences();
  const options = UNITS[quantity];
  const first = quantity === "rate" || units === "metric" ? options[0][0] : "ft";
  const [unit, setUnit] = useState<string>(first);
  const [draft, setDraft] = useState<string | null>(null);
  const [fault, setFault] = useState<string | null>(null);
  const id = useId();
  useEffect(() => setUnit(first), [first]);
  const size = options.find(([name]) => name === unit)?.[1] ?? 1;
  const shown = draft ?? (value === null ? "" : trimmed(value / size));

  const take = (text: string): void => {
    setDraft(text);
    if (text.trim() === "") {
      setFault(allowEmpty ? null : "A figure is needed.");
      if (allowEmpty) onChange(null);
      return;
    }
    const number = readNumber(text);
    if (number === null) {
      setFault(`"${text}" is not a number.`);
      return;
    }
    const base = number * size;
    if (base < least - 1e-9 || base > most + 1e-9) {
      setFault(`It must be ${trimmed(least / size)} to ${trimmed(most / size)} ${unit}.`);
      return;
    }
    setFault(null);
    onChange(base);
  };
  const others = value === null || fault !== null ? [] : options.filter(([name]) => name !== unit).slice(0, 2);
  const slip =
    value === null || usual === undefined || fault !== null ? null : likelySlip(quantity === "rate" ? "rate" : "length", value, usual);
  return (
    <div className="field">
      <label htmlFor={id} className="text-note text-ink-2">
        {label}
      </label>
      <div className="flex items-baseline gap-1.5">
        <input
          id={id}
          inputMode="decimal"
          value={shown}
          disabled={disabled}
          aria-invalid={fault !== null}
          onChange={(e) => take(e.target.value)}
          onBlur={() => {
            if (fault === null) setDraft(null);
          }}
          onKeyDown={(e) => {
            if (e.key !== "Escape") return;
            setDraft(null);
            setFault(null);
          }}
          className="min-w-0 flex-1"
        />
        <select
          aria-label="Unit"
          value={unit}
          disabled={disabled}
          onChange={(e) => {
            // Another unit asks for the same quantity, written otherwise.
            setUnit(e.target.value);
            setDraft(null);
            setFault(null);
          }}
          style={{ width: "auto" }}
        >
          {options.map(([name]) => (
            <option key={name}>{name}</option>
          ))}
        </select>
      </div>
      {others.length > 0 && <span className="cap">{others.map(([name, of]) => `${significant(value! / of)} ${name}`).join(", ")}</span>}
      {fault !== null && (
        <span role="alert" className="fault">
          {fault}
        </span>
      )}
      {slip !== null && (
        <span className="text-note leading-4" role="status">
          Unusual. Is it {trimmed(slip.meant / size)} {unit}, and {SLIP_WORDS[slip.kind]}?{" "}
          <button
            type="button"
            className="press text-note"
            onClick={() => {
              setDraft(null);
              onChange(slip.meant);
            }}
          >
            Use {trimmed(slip.meant / size)} {unit}
          </button>
        </span>
      )}
    </div>
  );
};
