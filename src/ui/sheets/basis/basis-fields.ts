import type { Basis, JobDto } from "@/contract";
import { figure, lengthIn, lengthUnit, metresFrom, readNumber, type Units } from "../../wording/numbers";
import { CLEARANCE_WORD, LEAF_WORD, TREES_WORD } from "../../wording/policy";

/** What is shown in the units of the person: the unit then stands in the label. */
type Measure = "length" | "temperature";

const inBase = (measure: Measure, units: Units, shown: number): number =>
  measure === "length" ? metresFrom(units, shown) : units === "metric" ? shown : ((shown - 32) * 5) / 9;
const shownOf = (measure: Measure, units: Units, base: number): number =>
  measure === "length" ? lengthIn(units, base) : units === "metric" ? base : (base * 9) / 5 + 32;
const unitOf = (measure: Measure, units: Units): string => (measure === "length" ? lengthUnit(units) : units === "metric" ? "°C" : "°F");

/** One working rule or assumption as a field: what it is called, how it is typed. */
export type BasisField =
  | {
      readonly key: keyof Basis;
      readonly label: string;
      readonly kind: "number";
      readonly optional?: boolean;
      readonly scale?: number;
      readonly measure?: Measure;
    }
  | {
      readonly key: keyof Basis;
      readonly label: string;
      readonly kind: "choice";
      readonly options: readonly (readonly [value: string, words: string])[];
    };

export interface BasisGroup {
  readonly title: string;
  readonly note: string;
  readonly fields: readonly BasisField[];
}

const choice = (key: keyof Basis, label: string, options: readonly (readonly [string, string])[]): BasisField => ({
  key,
  label,
  kind: "choice",
  options,
});
const number = (key: keyof Basis, label: string, more: { optional?: boolean; scale?: number; measure?: Measure } = {}): BasisField => ({
  key,
  label,
  kind: "number",
  ...more,
});

/** All of a job's basis in the order it is read. */
export const BASIS_GROUPS: readonly BasisGroup[] = [
  {
    title: "Clearance and trees",
    note: "In force on every link that has none of its own. Low k counts in the two-condition rule; its table is of low confidence.",
    fields: [
      choice("clearancePolicy", "Clearance", Object.entries(CLEARANCE_WORD)),
      number("kFactor", "k, median"),
      number("kLow20", "k, low, to 20 km"),
      number("kLow50", "k, low, at 50 km"),
      number("kLow100", "k, low, at 100 km"),
      choice("climateZone", "Climate, for the low k", [
        ["temperate", "temperate"],
        ["tropical", "tropical"],
      ]),
      choice("treePolicy", "Trees", Object.entries(TREES_WORD)),
      choice("leafState", "Leaves on the day that counts", Object.entries(LEAF_WORD)),
      number("horizonYears", "Years it must last"),
    ],
  },
  {
    title: "Rate and margin",
    note: "How much of the modelled rate is planned with.",
    fields: [
      choice("throughputSchool", "Planning rate", [
        ["third", "a third of the air rate"],
        ["headroom", "modelled, with a share kept free"],
        ["full", "all of it: best case only"],
      ]),
      number("freeShare", "Share kept free, %", { scale: 100 }),
      number("marginDb", "Margin a modulation must keep, dB"),
      choice("ruleDomain", "Rules (check the local regulator)", [
        ["cautious", "cautious"],
        ["FCC-like", "FCC-like"],
        ["ETSI-like", "ETSI-like"],
      ]),
    ],
  },
  {
    title: "Air and rain",
    note: "dN1 and s_a are not read from data; leave s_a empty for the quick form.",
    fields: [
      number("rainRate001MmH", "Rain passed 0.01 % of the year, mm/h"),
      number("temperatureC", "Temperature", { measure: "temperature" }),
      number("pressureHpa", "Pressure, hPa"),
      number("vapourDensityGm3", "Water vapour, g/m³"),
      number("gradientDn1NPerKm", "dN1, N/km"),
      number("roughnessSaM", "s_a", { optional: true, measure: "length" }),
    ],
  },
  {
    title: "Water",
    note: "A second ray off level water widens the band of the level.",
    fields: [
      choice("waterSurface", "Level stretches are", [
        ["auto", "sea where at sea level"],
        ["none", "not counted"],
        ["sea", "sea"],
        ["fresh", "fresh water"],
        ["wet-ground", "wet ground"],
        ["dry-ground", "dry ground"],
      ]),
      number("tideRangeM", "Tide range", { measure: "length" }),
      number("waterRoughnessM", "Waves about the level", { measure: "length" }),
    ],
  },
];

/** Label with the unit it is shown in, and beneath it the same value in the other unit. */
export const basisLabel = (f: BasisField, units: Units): string =>
  f.kind === "number" && f.measure !== undefined ? `${f.label}, ${unitOf(f.measure, units)}` : f.label;
export const basisOther = (job: JobDto, f: BasisField, units: Units): string | null => {
  const value = (job as unknown as Record<string, unknown>)[f.key];
  if (f.kind === "choice" || f.measure === undefined || typeof value !== "number") return null;
  const other = units === "metric" ? "imperial" : "metric";
  return `${figure(shownOf(f.measure, other, value), f.measure === "length" ? 2 : 1)} ${unitOf(f.measure, other)}`;
};

export const basisText = (job: JobDto, f: BasisField, units: Units): string => {
  const value = (job as unknown as Record<string, unknown>)[f.key];
  if (f.kind === "choice") return String(value);
  if (value === null) return "";
  const shown = f.measure === undefined ? Number(value) * (f.scale ?? 1) : shownOf(f.measure, units, Number(value));
  return String(Math.round(shown * 1e4) / 1e4);
};

/** A typed text as the field's value; undefined when it is no number. */
export const basisValue = (f: BasisField, text: string, units: Units): unknown => {
  if (f.kind === "choice") return text;
  if (text.trim() === "") return f.optional === true ? null : undefined;
  const value = readNumber(text);
  if (value === null) return undefined;
  return f.measure === undefined ? value / (f.scale ?? 1) : inBase(f.measure, units, value);
};
