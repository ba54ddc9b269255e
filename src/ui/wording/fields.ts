import { isKind, toldOf } from "@/contract";
import { figure, lengthIn, lengthUnit, significant, type Units } from "./numbers";

/** What a field of a kind is called; what a kind no longer has goes by its own name. */
export const fieldWords = (kind: string, field: string): string =>
  (isKind(kind) ? (toldOf(kind).words.fields as Readonly<Record<string, string>>)[field] : undefined) ?? field;

const SPACE = " ";
/** The unit that a number's name ends in, as it is written. Longer endings stand first. */
const UNITS: readonly (readonly [string, string])[] = [
  ["NPerKm", "N/km"],
  ["MPerYear", "m a year"],
  ["CostPerM", "a metre"],
  ["MmH", "mm/h"],
  ["Gm3", "g/m³"],
  ["Hpa", "hPa"],
  ["Mbps", "Mbps"],
  ["Mhz", "MHz"],
  ["Dbm", "dBm"],
  ["Percent", "%"],
  ["Deg", "°"],
  ["Db", "dB"],
  ["Years", "years"],
  ["C", "°C"],
];

const numberText = (units: Units, field: string, value: number): string => {
  if (field === "latDeg" || field === "lonDeg" || field.startsWith("centreL")) return `${figure(value, 6)}°`;
  const unit = UNITS.find(([ending]) => field.endsWith(ending));
  if (unit !== undefined) return `${significant(value)}${unit[1] === "°" ? "" : SPACE}${unit[1]}`;
  if (/[a-z]M$/.test(field)) return `${significant(lengthIn(units, value))}${SPACE}${lengthUnit(units)}`;
  return significant(value);
};

/** A value as history and clashes tell it: with its unit, in few words. */
export const valueText = (units: Units, field: string, value: unknown): string => {
  if (value === null || value === undefined || value === "") return "none";
  if (typeof value === "number") return numberText(units, field, value);
  if (typeof value === "boolean") return value ? "yes" : "no";
  if (typeof value === "string") return value.length > 40 ? `${value.slice(0, 39)}…` : value;
  const { count } = value as { count?: unknown };
  const n = Array.isArray(value) ? value.length : typeof count === "number" ? count : Object.keys(value as object).length;
  return n === 0 ? "none" : String(n);
};
