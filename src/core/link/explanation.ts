/*
 * Where a figure comes from, in one place for the level line, the printed pack and the command line: a
 * plain sentence with {symbols} in it, the symbols with values and units, the formula and the clause.
 * The words are metric; whoever shows them may convert by the unit of each symbol.
 */

export type ExplainedUnit =
  | "m"
  | "km"
  | "MHz"
  | "GHz"
  | "dB"
  | "dBm"
  | "dBi"
  | "dB/km"
  | "deg"
  | "C"
  | "hPa"
  | "g/m3"
  | "Mbps"
  | "us"
  | "percent"
  | "minutes"
  | "W/m2"
  | "mm/h"
  | "";

export interface ExplainedSymbol {
  /** The key that stands in braces in the sentence. */
  readonly key: string;
  readonly symbol: string;
  readonly meaning: string;
  readonly value: number | string;
  readonly unit: ExplainedUnit;
}

export interface Explanation {
  readonly id: string;
  readonly sentence: string;
  /** Empty when the figure is typed or read off a sheet. */
  readonly formula: string;
  readonly symbols: readonly ExplainedSymbol[];
  readonly clause: string;
  /** True when the rule is our own and not a recommendation's. */
  readonly ours: boolean;
  readonly inRange: boolean;
}

const DIGITS: Readonly<Record<ExplainedUnit, number>> = {
  m: 1,
  km: 2,
  MHz: 0,
  GHz: 3,
  dB: 1,
  dBm: 1,
  dBi: 1,
  "dB/km": 3,
  deg: 1,
  C: 0,
  hPa: 0,
  "g/m3": 1,
  Mbps: 0,
  us: 0,
  percent: 3,
  minutes: 0,
  "W/m2": 2,
  "mm/h": 0,
  "": 2,
};
const UNIT_WORDS: Readonly<Partial<Record<ExplainedUnit, string>>> = {
  deg: "°",
  C: "°C",
  "g/m3": "g/m³",
  us: "µs",
  percent: "%",
  minutes: "minutes",
  "W/m2": "W/m²",
};

/** Shares of the year want three digits below 1 %, none above. */
const percentDigits = (value: number): number => (value === 0 || value >= 10 ? 0 : value >= 1 ? 1 : 3);

/** One symbol's value with its unit, metric. */
export const symbolText = (s: ExplainedSymbol): string => {
  if (typeof s.value === "string") return s.value;
  if (s.unit === "minutes" && s.value < 1.5) return s.value < 1 ? "less than a minute" : "a minute";
  if (s.unit === "percent" && s.value > 0 && s.value < 0.0005) return "under 0.001 %";
  const digits = s.unit === "" && Number.isInteger(s.value) ? 0 : s.unit === "percent" ? percentDigits(s.value) : DIGITS[s.unit];
  const unit = UNIT_WORDS[s.unit] ?? s.unit;
  const figure = s.value.toFixed(digits);
  return unit === "" ? figure : unit === "°" ? `${figure}°` : `${figure} ${unit}`;
};

/** The sentence with its symbols filled in. @param show how to write a symbol; metric when left out. */
export const explanationText = (e: Explanation, show: (s: ExplainedSymbol) => string = symbolText): string =>
  e.sentence.replace(/\{(\w+)\}/g, (whole, key: string) => {
    const found = e.symbols.find((s) => s.key === key);
    return found === undefined ? whole : show(found);
  });
