import { type ExplainedSymbol, type Explanation, explainTerm, explanationText, type LevelTerm, symbolText } from "@/core/link";
import { distanceText, figure, lengthText, type Units } from "./numbers";

const SPACE = "\u00a0";

/** Column heading of a term on the level line. */
export const termLabel = (t: LevelTerm, units: Units): string => {
  switch (t.id) {
    case "transmit":
      return "Transmit";
    case "chains":
      return "Per chain";
    case "feeder-out":
    case "feeder-in":
      return "Feeder";
    case "connectors-out":
    case "connectors-in":
      return "Connectors";
    case "antenna-out":
    case "antenna-in":
      return String(t.inputs.antenna);
    case "aim-out":
    case "aim-in":
      return "Off its axis";
    case "barrier-out":
    case "barrier-in":
      if (t.inputs.material === undefined) return "Open air";
      return t.inputs.material === "measured" ? "Wall, measured" : `Wall, ${String(t.inputs.material).replace("-", " ")}`;
    case "near-field":
      return "Near field";
    case "free-space":
      return `${distanceText(units, Number(t.inputs.distanceM))} of air`;
    case "gas":
      return "Oxygen, vapour";
    case "diffraction":
      return t.inputs.over === "ground" ? "Over the ground" : `Over ${t.inputs.over}`;
    case "beside":
      return `Beside ${t.inputs.over}`;
    case "own-edge":
      return `Edge of ${t.inputs.over}`;
    case "vegetation":
      return `Leaves, ${t.inputs.over}`;
    case "polarisation":
      return "Polarisation";
    case "radome":
      return "Covers";
  }
};

/** A symbol in the units asked for; every other unit is the same in both. */
export const symbolIn =
  (units: Units) =>
  (s: ExplainedSymbol): string => {
    if (typeof s.value === "string") return s.value;
    if (s.unit === "m") return Math.abs(s.value) < 30 ? lengthText(units, s.value) : distanceText(units, s.value);
    if (s.unit === "C" && units === "imperial") return `${figure(s.value * 1.8 + 32)}${SPACE}°F`;
    return symbolText({ ...s, value: s.value })
      .replace("-", "\u2212")
      .replace(" ", SPACE);
  };

/** The whole explanation in a line: sentence, formula, source, and whether it may be trusted. */
export const explanationLine = (e: Explanation, units: Units): string =>
  [
    explanationText(e, symbolIn(units)),
    e.formula === "" ? "" : `${e.formula}.`,
    `${e.clause}${e.ours && !e.clause.includes("ours") ? "; the rule is our own" : ""}${e.inRange ? "" : "; outside its stated range"}.`,
  ]
    .filter((part) => part !== "")
    .join(" ");

/** How a term came about: sentence with its figures, formula, source. */
export const termExplanation = (t: LevelTerm, units: Units): string => explanationLine(explainTerm(t), units);
