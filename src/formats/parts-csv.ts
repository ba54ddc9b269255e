/*
 * Own parts as a table: one row a part, one column a figure. Simple things only: a device with one port, a protector, a cable, a
 * switch of equal ports, an injector, a small part by name and price. What has stranger ports comes as JSON.
 */
import Papa from "papaparse";
import { ownSheetId } from "../core/radio";
import { isCleanText } from "./clean-text";
import type { HardwareFile, RowFault } from "./hardware";
import { partSchema } from "./parts";

const MOST_ROWS = 500;
const MOST_FAULTS = 20;

/** A table of parts says so by this column. */
export const PART_COLUMN = "part_kind";

const COLUMNS = [
  PART_COLUMN,
  "name",
  "id",
  "takes",
  "gives",
  "port_w",
  "total_w",
  "ports",
  "powered_ports",
  "port_mbps",
  "draw_w",
  "start_w",
  "poe_class",
  "low_v",
  "high_v",
  "most_v",
  "pairs",
  "schemes",
  "awg",
  "ohm_per_km",
  "material",
  "category",
  "shield",
  "outdoor",
  "cord",
  "metal",
  "hole_mm",
  "price_eur",
  "price_per_m",
  "stock",
] as const;
type Column = (typeof COLUMNS)[number];
type Row = Partial<Record<Column, string>>;

/** Fields of a sheet by the column that they come from, to name it in a fault. */
const COLUMN_OF: readonly (readonly [RegExp, Column])[] = [
  [/takes/, "takes"],
  [/gives$|gives\.\d/, "gives"],
  [/giveW/, "port_w"],
  [/totalGiveW/, "total_w"],
  [/speedMbps/, "port_mbps"],
  [/drawMostW/, "draw_w"],
  [/startW/, "start_w"],
  [/poeClass/, "poe_class"],
  [/inputVolts.*low/, "low_v"],
  [/inputVolts/, "high_v"],
  [/surge\.mostV/, "most_v"],
  [/schemes/, "schemes"],
  [/pairs/, "pairs"],
  [/awg/, "awg"],
  [/ohmPerKm/, "ohm_per_km"],
  [/material/, "material"],
  [/category/, "category"],
  [/pricePerM/, "price_per_m"],
  [/priceEur/, "price_eur"],
  [/stock/, "stock"],
  [/holeMm/, "hole_mm"],
  [/^kind/, PART_COLUMN],
  [/^id/, "id"],
  [/^name/, "name"],
];
const columnOf = (path: string): string => COLUMN_OF.find(([pattern]) => pattern.test(path))?.[1] ?? path;

class Unreadable extends Error {
  constructor(
    readonly column: Column,
    text: string,
    wanted: string,
  ) {
    super(`"${text}" is not ${wanted}`);
  }
}

const number = (row: Row, column: Column): number | undefined => {
  const text = row[column];
  if (text === undefined) return undefined;
  const n = Number(text.replace("−", "-").replace(",", "."));
  if (!Number.isFinite(n)) throw new Unreadable(column, text, "a number");
  return n;
};
const yes = (row: Row, column: Column): boolean => {
  const text = row[column];
  if (text === undefined || /^(no|n|false|0)$/i.test(text)) return false;
  if (/^(yes|y|true|1)$/i.test(text)) return true;
  throw new Unreadable(column, text, "yes or no");
};
const list = (row: Row, column: Column): string[] => row[column]?.split(/[\s;]+/).filter((w) => w !== "") ?? [];
/** Without what was left out. */
const plain = (sheet: Record<string, unknown>): Record<string, unknown> =>
  Object.fromEntries(Object.entries(sheet).filter(([, v]) => v !== undefined));

const MAINS = { id: "ac", name: "mains", medium: "mains", takes: ["mains"] };

const portsOf = (row: Row): Record<string, unknown>[] => {
  const speedMbps = number(row, "port_mbps") ?? 1000;
  const gives = list(row, "gives");
  const given = { gives, giveW: number(row, "port_w") };
  switch (row[PART_COLUMN]) {
    case "switch": {
      const count = number(row, "ports") ?? 5;
      const powered = gives.length === 0 ? 0 : (number(row, "powered_ports") ?? count);
      if (!Number.isInteger(count) || count < 1 || count > 60)
        throw new Unreadable("ports", row.ports ?? "", "a whole number from 1 to 60");
      return [
        MAINS,
        ...Array.from({ length: count }, (_, i) =>
          plain({ id: String(i + 1), name: String(i + 1), medium: "copper", speedMbps, ...(i < powered ? given : {}) }),
        ),
      ];
    }
    case "injector":
      return [
        MAINS,
        { id: "lan", name: "in", medium: "copper", speedMbps, side: "lan" },
        plain({ id: "fed", name: "out", medium: "copper", speedMbps, side: "fed", ...given }),
      ];
    case "surge":
      return [
        { id: "1", name: "line", medium: "copper", speedMbps, straightTo: "2" },
        { id: "2", name: "gear", medium: "copper", speedMbps, straightTo: "1" },
      ];
    case "camera":
    case "access-point":
    case "phone":
    case "control":
    case "other":
      return [{ id: "1", name: "lan", medium: "copper", speedMbps, takes: list(row, "takes") }];
    default:
      return [];
  }
};

const sheetOf = (row: Row): Record<string, unknown> => {
  const kind = row[PART_COLUMN];
  const [low, high] = [number(row, "low_v"), number(row, "high_v")];
  const takes = list(row, "takes");
  if ((low === undefined) !== (high === undefined))
    throw new Unreadable(low === undefined ? "low_v" : "high_v", "", "a number: low_v and high_v come together");
  if (low !== undefined && takes.length === 0) throw new Unreadable("takes", "", "a kind of supply, and volts belong to one");
  const isCable = kind === "cable" || kind === "fibre";
  return plain({
    id: row.id ?? ownSheetId(row.name ?? "part"),
    name: row.name,
    kind,
    ports: portsOf(row),
    drawMostW: number(row, "draw_w"),
    startW: number(row, "start_w"),
    poeClass: number(row, "poe_class"),
    totalGiveW: number(row, "total_w"),
    ...(low !== undefined && high !== undefined && takes.length > 0
      ? { inputVolts: Object.fromEntries(takes.map((t) => [t, { low, high }])) }
      : {}),
    ...(row.outdoor === undefined || isCable ? {} : { outdoor: yes(row, "outdoor") }),
    ...(kind === "plug" ? { shielded: yes(row, "shield") } : {}),
    ...(isCable
      ? {
          cable: plain({
            awg: number(row, "awg"),
            ohmPerKm: number(row, "ohm_per_km"),
            material: row.material ?? (kind === "fibre" ? "glass" : "copper"),
            category: row.category,
            pairs: number(row, "pairs"),
            shield: yes(row, "shield"),
            outdoor: yes(row, "outdoor"),
            cord: yes(row, "cord"),
            metal: yes(row, "metal"),
            pricePerM: number(row, "price_per_m"),
          }),
        }
      : {}),
    ...(kind === "surge"
      ? {
          surge: {
            mostV: number(row, "most_v"),
            pairs: number(row, "pairs") ?? 4,
            speedMbps: number(row, "port_mbps") ?? 1000,
            schemes: list(row, "schemes"),
          },
        }
      : {}),
    holeMm: number(row, "hole_mm"),
    priceEur: number(row, "price_eur"),
    stock: number(row, "stock"),
  });
};

/** True when a table is one of parts. */
export const isPartsTable = (text: string): boolean =>
  (/^[^\r\n]*/.exec(text)?.[0] ?? "").split(/[,;\t]/).some((h) => h.trim().replace(/"/g, "") === PART_COLUMN);

/** Reads a table of parts, all of it or nothing; faults name the row and the column. */
export const readPartsCsv = (text: string): { file: HardwareFile } | { faults: RowFault[] } => {
  const read = Papa.parse<Record<string, string>>(text, { header: true, skipEmptyLines: "greedy", transformHeader: (h) => h.trim() });
  const unknown = (read.meta.fields ?? []).filter((f) => !(COLUMNS as readonly string[]).includes(f));
  if (unknown.length > 0)
    return { faults: [{ where: "the header", reason: `has columns that are not known: ${unknown.slice(0, 5).join(", ")}` }] };
  if (read.data.length > MOST_ROWS) return { faults: [{ where: "the table", reason: `has more than ${MOST_ROWS} rows` }] };
  const faults: RowFault[] = [];
  const parts: HardwareFile["parts"] = [];
  const seen = new Map<string, number>();
  for (const [i, raw] of read.data.entries()) {
    const line = i + 2;
    const row: Row = Object.fromEntries(
      Object.entries(raw).flatMap(([k, v]) => (typeof v !== "string" || v.trim() === "" ? [] : [[k, v.trim()]])),
    );
    const say = (column: string, reason: string): void => void faults.push({ where: `row ${line}, ${column}`, reason });
    const unclean = Object.entries(row).find(([, v]) => !isCleanText(v ?? ""));
    if (unclean !== undefined) {
      say(unclean[0], "holds characters that cannot be shown");
      continue;
    }
    try {
      const checked = partSchema.safeParse(sheetOf(row));
      if (!checked.success) {
        for (const issue of checked.error.issues) say(columnOf(issue.path.join(".")), issue.message);
        continue;
      }
      const twin = seen.get(checked.data.id);
      if (twin !== undefined) say("id", `"${checked.data.id}" is that of row ${twin}, too`);
      seen.set(checked.data.id, line);
      parts.push(checked.data);
    } catch (error) {
      if (!(error instanceof Unreadable)) throw error;
      say(error.column, error.message);
    }
  }
  if (faults.length > 0) return { faults: faults.slice(0, MOST_FAULTS) };
  return parts.length === 0
    ? { faults: [{ where: "the table", reason: "holds no parts" }] }
    : { file: { radios: [], antennas: [], parts } };
};
