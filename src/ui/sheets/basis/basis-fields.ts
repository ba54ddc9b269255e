import type { Basis, JobDto } from "@/contract";
import { CLEARANCE_WORD } from "../../wording/policy";

/** One working rule or assumption as a field: what it is called, how it is typed. */
export type BasisField =
  | { readonly key: keyof Basis; readonly label: string; readonly kind: "number"; readonly optional?: boolean; readonly scale?: number }
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
const number = (key: keyof Basis, label: string, more: { optional?: boolean; scale?: number } = {}): BasisField => ({
  key,
  label,
  kind: "number",
  ...more,
});

/** All of a job's basis in the order it is read. */
export const BASIS_GROUPS: readonly BasisGroup[] = [
  {
    title: "Clearance and trees",
    note: "The policy in force on every link of this job.",
    fields: [
      choice("clearancePolicy", "Clearance", Object.entries(CLEARANCE_WORD)),
      number("kFactor", "k, median"),
      choice("climateZone", "Climate, for the low k", [
        ["temperate", "temperate"],
        ["tropical", "tropical"],
      ]),
      choice("treePolicy", "Trees", [
        ["strict", "strict: none in the zone"],
        ["trim", "trim: cut what the zone needs"],
        ["through", "through: plan with their loss"],
      ]),
      choice("leafState", "Leaves on the day that counts", [
        ["in", "in leaf"],
        ["out", "out of leaf"],
      ]),
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
      number("temperatureC", "Temperature, °C"),
      number("pressureHpa", "Pressure, hPa"),
      number("vapourDensityGm3", "Water vapour, g/m³"),
      number("gradientDn1NPerKm", "dN1, N/km"),
      number("roughnessSaM", "s_a, m", { optional: true }),
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
      number("tideRangeM", "Tide range, m"),
      number("waterRoughnessM", "Waves about the level, m"),
    ],
  },
];

export const basisText = (job: JobDto, f: BasisField): string => {
  const value = (job as unknown as Record<string, unknown>)[f.key];
  if (f.kind === "choice") return String(value);
  return value === null ? "" : String(Math.round(Number(value) * (f.scale ?? 1) * 1e4) / 1e4);
};

/** A typed text as the field's value; undefined when it is no number. */
export const basisValue = (f: BasisField, text: string): unknown => {
  if (f.kind === "choice") return text;
  const clean = text.trim().replace("\u2212", "-").replace(",", ".");
  if (clean === "") return f.optional === true ? null : undefined;
  const value = Number(clean);
  return Number.isNaN(value) ? undefined : value / (f.scale ?? 1);
};
