import { type Explanation, explainDirection, explainPath } from "@/core/link";
import type { Evaluation } from "./use-evaluation";

/** The keys of the sheet. */
export const SECTION_KEYS = [
  { keys: "Tab", does: "Next mast, figure or finding" },
  { keys: "Up, Down", does: "Chosen mast by 0.1 m or 0.5 ft" },
  { keys: "Shift Up, Down", does: "By 1 m or 3 ft" },
  { keys: "Enter, Esc", does: "Take or restore a typed figure" },
  { keys: "Left, Right", does: "On the drawing: move the cursor; Home and End to the ends" },
  { keys: "Page Up, Down", does: "On the drawing: from thing to thing" },
  { keys: "+, \u2212, 0", does: "On the drawing: look closer, wider, at all; Shift with arrows moves" },
  { keys: "T", does: "True shape, or heights drawn taller" },
  { keys: ", .", does: "A year earlier, a year later" },
  { keys: "R", does: "The other direction" },
  { keys: "1 to 9", does: "Level, rate, year, doubt, heights, trees, water, elsewhere, table" },
];

/** Clearance, second opinions and reflection of the path; noise and exposure of the way to the far end. */
export const restsOn = (evaluation: Evaluation | null): readonly Explanation[] => {
  if (evaluation === null) return [];
  const { toFar } = evaluation.result.service;
  const ofDirection = toFar === null ? [] : explainDirection(toFar, evaluation.plan);
  return [...explainPath(evaluation.result), ...ofDirection.filter((e) => e.id === "noise" || e.id === "exposure")];
};

/** What was looked at to come to all this. */
export const lookedAt = (evaluation: Evaluation | null): string => {
  if (evaluation === null) return "";
  const { path, result } = evaluation;
  const down = result.service.toFar?.outage;
  const lost =
    down == null || result.service.toFar?.held === null
      ? ""
      : down.minutesAYear === null
        ? " Rain takes more than 1 % of the year, beyond what the method knows."
        : ` Rain and clear-air fading take about ${down.minutesAYear < 1 ? "no minute" : `${Math.round(down.minutesAYear)} minutes`} a year.`;
  const from = [...new Set(path.profile.datasets.map((d) => d.name))].join(", ");
  return `Looked at: ground${from === "" ? " (none known)" : ` from ${from}`}, ${path.bodies.length} things beside the path, level both ways.${lost}`;
};
