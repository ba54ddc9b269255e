/** What a data sheet says of polarisation, read once. */
export interface Polarisation {
  readonly dual: boolean;
  readonly form: "linear" | "vertical" | "horizontal" | "slant" | "circular" | "turnable" | "unknown";
}

/** Forms a data sheet may use, in order. */
const FORMS: readonly (readonly [RegExp, Polarisation])[] = [
  [/^dual linear( H\+V| V\+H)?$/, { dual: true, form: "linear" }],
  [/^dual slant( \+45\/-45)?$/, { dual: true, form: "slant" }],
  [/^dual circular$/, { dual: true, form: "circular" }],
  [/^(single )?linear V or H by turning the feed$/, { dual: false, form: "turnable" }],
  [/^(single )?(linear )?(V|vertical)$/, { dual: false, form: "vertical" }],
  [/^(single )?(linear )?(H|horizontal)$/, { dual: false, form: "horizontal" }],
  [/^(single )?slant( \+45| -45)?$/, { dual: false, form: "slant" }],
  [/^(single )?circular$/, { dual: false, form: "circular" }],
  [/^(not stated)?$/, { dual: false, form: "unknown" }],
];

/** @returns null for words that are no known form: a fault of the sheet, told at the door. */
export const parsePolarisation = (words: string): Polarisation | null => FORMS.find(([form]) => form.test(words.trim()))?.[1] ?? null;

const UNKNOWN: Polarisation = { dual: false, form: "unknown" };
/** The same behind the door: words that slipped in from before the door was there are not stated. */
export const polarisationFromSheet = (words: string): Polarisation => parsePolarisation(words) ?? UNKNOWN;

/** How well two polarisations answer one another. */
export interface PolarisationMatch {
  /** Loss per receive chain, dB. */
  readonly lossDb: number;
  /** What the words of the data sheets left open. */
  readonly note: "same" | "turned" | "crossed" | "circular" | "by turning" | "not stated";
}

/** A linear wave on an antenna turned by 90 degrees: the usual cross-polar discrimination of such antennas (ours). */
const CROSSED_DB = 20;
const HALF_DB = 10 * Math.log10(2);

/**
 * Loss per chain between two antennas by what their data sheets say. Two dual antennas separate the
 * streams again whatever their turn; a single wave on one turned by 45 degrees loses half.
 */
export const matchPolarisation = (a: Polarisation, b: Polarisation): PolarisationMatch => {
  if (a.form === "unknown" || b.form === "unknown") return { lossDb: 0, note: "not stated" };
  if (a.form === "turnable" || b.form === "turnable") return { lossDb: 0, note: "by turning" };
  if (a.dual && b.dual) return { lossDb: 0, note: "same" };
  if ((a.form === "circular") !== (b.form === "circular")) return { lossDb: HALF_DB, note: "circular" };
  if (a.form === b.form) return { lossDb: 0, note: "same" };
  if (a.form === "slant" || b.form === "slant") return { lossDb: HALF_DB, note: "turned" };
  return a.dual || b.dual ? { lossDb: 0, note: "same" } : { lossDb: CROSSED_DB, note: "crossed" };
};

/** Tilt from horizontal that rain is worked out for: the worse, horizontal one unless the wave is known to stand. */
export const rainTiltDeg = (p: Polarisation): number => (p.form === "slant" || p.form === "circular" ? 45 : p.form === "vertical" ? 90 : 0);

/** The polarisation a mirror is worked out for: the horizontal part is reflected most, whoever has one plans for it. */
export const mirrorPolarisation = (p: Polarisation): "horizontal" | "vertical" =>
  p.dual || p.form === "slant" || p.form === "horizontal" ? "horizontal" : "vertical";
