"use client";
import type { DaysFields } from "@/contract";
import { readTides } from "@/core/days";
import { PasteField, unreadText } from "../../controls/paste-field";
import { figure, lengthIn, lengthUnit, type Units } from "../../wording/numbers";

/** The harbour's tide table, pasted as it is; what of it the days need is drawn above them. */
export const TidePanel = ({
  tides,
  change,
  units,
}: {
  tides: DaysFields["tides"];
  change: (tides: DaysFields["tides"]) => void;
  units: Units;
}) => {
  const days = [...new Set(tides.map((t) => t.day))];
  const take = (text: string): { said: string; isTaken: boolean } => {
    const { marks, faults } = readTides(text);
    const few = marks.slice(0, 400);
    const lost = faults.length === 0 ? "" : ` Not read: ${unreadText(faults)}.`;
    if (few.length === 0) return { said: `No day with times and heights was found.${lost}`, isTaken: false };
    change([...few]);
    return { said: `${few.length} heights are taken${marks.length > few.length ? ", the first of the table" : ""}.${lost}`, isTaken: true };
  };
  return (
    <section aria-label="Tide table" data-testid="tide">
      <h3 className="m-0 text-body font-bold">
        Tide table{" "}
        <span className="text-line font-said text-ink-2">
          {tides.length === 0
            ? "none kept"
            : `${tides.length} heights on ${days.length === 1 ? days[0] : `${days[0]} to ${days.at(-1)}`}, ${figure(
                lengthIn(units, Math.min(...tides.map((t) => t.heightM))),
                1,
              )} to ${figure(lengthIn(units, Math.max(...tides.map((t) => t.heightM))), 1)} ${lengthUnit(units)}`}
        </span>
      </h3>
      <PasteField
        label="A line a day, by the job's clocks, in metres: 2026-12-03 06:21 0.9 12:40 4.1"
        button="Take the table"
        most={40_000}
        take={take}
      >
        {tides.length > 0 && (
          <button type="button" className="press min-h-6 text-line" onClick={() => change([])}>
            Forget it
          </button>
        )}
      </PasteField>
      <p className="cap m-0">Between high and low water half a cosine is drawn; wind and pressure move it. The harbour knows better.</p>
    </section>
  );
};
