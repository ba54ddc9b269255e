import { figure, type Units } from "../../../wording/numbers";

const CM_PER_INCH = 2.54;
const SPACE = "\u00a0";

/** The side of a face in the unit shown, and from it: centimetres, or inches. */
export const faceIn = <V extends number | null>(units: Units, cm: V): V =>
  (cm === null || units === "metric" ? cm : Math.round((cm / CM_PER_INCH) * 10) / 10) as V;
export const faceFrom = (units: Units, value: number | null): number | null =>
  value === null || units === "metric" ? value : value * CM_PER_INCH;

export const faceText = (cm: number | null, units: Units): string =>
  cm === null ? "not stated" : `${figure(faceIn(units, cm))}${SPACE}${units === "metric" ? "cm" : "in"}`;
