"use client";
import { useEffect, useLayoutEffect, useRef, useState } from "react";
import { readNumber } from "../wording/numbers";

/**
 * A figure that can be typed: pressing it, or Enter on it, opens it in place. Escape restores. Arrow keys nudge.
 * A value out of range stays as typed, with the reason beneath; the last good value stays in force.
 */
export const TypedFigure = ({
  value,
  now = () => value,
  digits = 1,
  unit,
  label,
  least,
  most,
  step,
  bigStep,
  onChange,
  className = "",
}: {
  value: number;
  /** The value at the moment of a press, where the one shown may lie a little behind it. */
  now?: () => number;
  digits?: number;
  unit: string;
  label: string;
  least: number;
  most: number;
  step: number;
  bigStep: number;
  onChange: (value: number) => void;
  className?: string;
}) => {
  const [draft, setDraft] = useState<string | null>(null);
  const [fault, setFault] = useState<string | null>(null);
  const input = useRef<HTMLInputElement>(null);
  /** Escape restores the figure and chooses it whole, before another key can come. */
  const reselect = useRef(false);
  useLayoutEffect(() => {
    if (!reselect.current) return;
    reselect.current = false;
    input.current?.select();
  });
  const shown = value.toFixed(digits).replace("-", "\u2212");

  useEffect(() => {
    if (draft === null) setFault(null);
  }, [draft]);

  const take = (text: string): boolean => {
    const number = readNumber(text);
    if (number === null) {
      setFault(`"${text}" is not a number.`);
      return false;
    }
    if (number < least || number > most) {
      setFault(`${label} must be ${least.toFixed(digits)} to ${most.toFixed(digits)} ${unit}.`);
      return false;
    }
    setFault(null);
    onChange(number);
    return true;
  };
  const nudge = (by: number): void => {
    const next = Math.min(most, Math.max(least, Math.round((now() + by) * 1e6) / 1e6));
    setDraft(null);
    onChange(next);
  };

  return (
    <span className={`relative inline-flex items-baseline gap-1 ${className}`}>
      <input
        ref={input}
        className="typed"
        style={{ width: `${Math.max(3, (draft ?? shown).length) + 0.6}ch`, textAlign: "right" }}
        aria-label={`${label}, ${unit}`}
        aria-invalid={fault !== null}
        inputMode="decimal"
        value={draft ?? shown}
        onFocus={(event) => event.target.select()}
        onChange={(event) => {
          setDraft(event.target.value);
          take(event.target.value);
        }}
        onBlur={() => {
          if (fault === null) setDraft(null);
        }}
        onKeyDown={(event) => {
          if (event.key === "Enter") {
            if (take(draft ?? shown)) {
              setDraft(null);
              input.current?.select();
            }
          } else if (event.key === "Escape") {
            setDraft(null);
            setFault(null);
            if (draft === null) input.current?.select();
            else reselect.current = true;
          } else if (event.key === "ArrowUp" || event.key === "ArrowDown") {
            event.preventDefault();
            nudge((event.key === "ArrowUp" ? 1 : -1) * (event.shiftKey ? bigStep : step));
          }
        }}
      />
      <span className="font-mono">{unit}</span>
      {fault !== null && (
        <span
          role="alert"
          className="absolute left-0 top-full z-20 w-max max-w-[220px] border border-short bg-paper px-2 py-1 text-note font-normal leading-4 text-short-figure"
        >
          {fault}
        </span>
      )}
    </span>
  );
};
