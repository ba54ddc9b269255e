"use client";
import { useState } from "react";
import { readNumber } from "../../wording/numbers";

/** How many are at hand, typed in place: kept by Enter or by leaving it, restored by Escape; emptied, nobody counts them. */
export const StockCell = ({ name, stock, count }: { name: string; stock: number | undefined; count: (stock: number | null) => void }) => {
  const [draft, setDraft] = useState<string | null>(null);
  const text = draft ?? (stock === undefined ? "" : String(stock));
  const number = readNumber(text);
  const wrong = text.trim() !== "" && (number === null || !Number.isInteger(number) || number < 0 || number > 100_000);
  const keep = (): void => {
    if (draft === null || wrong) return;
    setDraft(null);
    const next = text.trim() === "" ? null : number;
    if (next !== (stock ?? null)) count(next);
  };
  return (
    <input
      className="typed w-12 text-right"
      inputMode="numeric"
      aria-label={`In stock, ${name}`}
      aria-invalid={wrong}
      title={wrong ? "A whole number, 0 or above" : undefined}
      value={text}
      onChange={(e) => setDraft(e.target.value)}
      onBlur={keep}
      onKeyDown={(e) => {
        if (e.key === "Enter") keep();
        if (e.key === "Escape") setDraft(null);
      }}
    />
  );
};
