"use client";
import { ChevronLeft, ChevronRight } from "lucide-react";

/** Which year the drawing shows: this one, or a later one with what grows grown. */
export const YearChoice = ({
  year,
  first,
  last,
  choose,
}: {
  year: number;
  first: number;
  last: number;
  choose: (year: number) => void;
}) => (
  <fieldset aria-label="Year drawn" className="flex flex-none items-center">
    <button
      type="button"
      aria-label="A year earlier"
      title="A year earlier (,)"
      className="flex h-6 w-6 items-center justify-center disabled:text-hair"
      disabled={year <= first}
      onClick={() => choose(year - 1)}
    >
      <ChevronLeft size={15} aria-hidden="true" />
    </button>
    <span className={`figure text-line ${year === first ? "" : "bg-ink px-1 text-paper"}`} data-testid="year-drawn">
      {year}
    </span>
    <button
      type="button"
      aria-label="A year later"
      title="A year later (.)"
      className="flex h-6 w-6 items-center justify-center disabled:text-hair"
      disabled={year >= last}
      onClick={() => choose(year + 1)}
    >
      <ChevronRight size={15} aria-hidden="true" />
    </button>
  </fieldset>
);
