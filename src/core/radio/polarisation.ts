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

interface Wave {
  readonly dual: boolean;
  readonly form: "vertical" | "horizontal" | "slant" | "circular" | "turnable" | "unknown";
}

const waveOf = (words: string): Wave => {
  const dual = words.includes("dual");
  if (words.includes("circular")) return { dual, form: "circular" };
  if (words.includes("slant")) return { dual, form: "slant" };
  if (words.includes("V or H")) return { dual, form: "turnable" };
  if (dual) return { dual, form: "vertical" };
  if (/\bV\b|vertical/.test(words)) return { dual, form: "vertical" };
  return { dual, form: /\bH\b|horizontal/.test(words) ? "horizontal" : "unknown" };
};

/**
 * Loss per chain between two antennas by what their data sheets say. Two dual antennas separate the
 * streams again whatever their turn; a single wave on one turned by 45 degrees loses half.
 */
export const matchPolarisation = (out: string, into: string): PolarisationMatch => {
  if (out === into) return { lossDb: 0, note: out.includes("V or H") ? "by turning" : "same" };
  const a = waveOf(out);
  const b = waveOf(into);
  if (a.form === "unknown" || b.form === "unknown") return { lossDb: 0, note: "not stated" };
  if (a.form === "turnable" || b.form === "turnable") return { lossDb: 0, note: "by turning" };
  if (a.dual && b.dual) return { lossDb: 0, note: "same" };
  if ((a.form === "circular") !== (b.form === "circular")) return { lossDb: HALF_DB, note: "circular" };
  if (a.form === b.form) return { lossDb: 0, note: "same" };
  if (a.form === "slant" || b.form === "slant") return { lossDb: HALF_DB, note: "turned" };
  return a.dual || b.dual ? { lossDb: 0, note: "same" } : { lossDb: CROSSED_DB, note: "crossed" };
};
