import { figure, type Units } from "../../../wording/numbers";

const CM_PER_INCH = 2.54;
const SPACE = "\u00a0";

/** The side of a face: centimetres, or inches. */
export const faceText = (cm: number | null, units: Units): string =>
  cm === null ? "not stated" : units === "metric" ? `${figure(cm)}${SPACE}cm` : `${figure(cm / CM_PER_INCH)}${SPACE}in`;
