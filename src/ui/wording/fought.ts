import { deepEqual } from "fast-equals";
import type { KindName } from "@/contract";
import { fieldWords, valueText } from "./fields";
import type { Units } from "./numbers";

/* What two people made of one field, as lines to choose between: within a group each figure, within a list each row by its name. */

export interface Fought {
  readonly name: string;
  readonly mine: string;
  readonly theirs: string;
}

type Plain = Readonly<Record<string, unknown>>;
const isPlain = (v: unknown): v is Plain => typeof v === "object" && v !== null && !Array.isArray(v);
const isRows = (v: unknown): v is readonly (Plain & { readonly id: string })[] =>
  Array.isArray(v) && v.every((x) => isPlain(x) && typeof x.id === "string");

const UNIT = /(?<=[a-z])(Mbps|Mhz|Dbm|Deg|Km|Mm|MS|Kg|M|N|W|V|C)$/;
/** "labourPerHour" as words; a unit stands with the figure. */
const wordsOf = (key: string): string =>
  key.replace(UNIT, "").replace(/([a-z0-9])([A-Z])/g, (_, a: string, b: string) => `${a} ${b.toLowerCase()}`);

const rowName = (row: Plain): string => String(row.name ?? row.words ?? row.label ?? "a row");

export const foughtOf = (kind: KindName, units: Units, field: string, mine: unknown, theirs: unknown): readonly Fought[] => {
  const name = fieldWords(kind, field);
  if (isPlain(mine) && isPlain(theirs)) {
    const keys = [...new Set([...Object.keys(mine), ...Object.keys(theirs)])].filter((k) => !deepEqual(mine[k], theirs[k]));
    return keys.map((k) => ({
      name: `${name}, ${wordsOf(k)}`,
      mine: valueText(units, k, mine[k]),
      theirs: valueText(units, k, theirs[k]),
    }));
  }
  if (isRows(mine) && isRows(theirs)) {
    const ids = [...new Set([...mine, ...theirs].map((r) => r.id))];
    const lines = ids.flatMap((id) => {
      const [m, t] = [mine.find((r) => r.id === id), theirs.find((r) => r.id === id)];
      if (deepEqual(m, t)) return [];
      const keys = m === undefined || t === undefined ? [] : Object.keys(m).filter((k) => !deepEqual(m[k], t[k]));
      const said = (r: Plain | undefined): string =>
        r === undefined
          ? "not there"
          : keys.length === 0
            ? "there"
            : keys.map((k) => `${wordsOf(k)} ${valueText(units, k, r[k])}`).join(", ");
      return [{ name: `${name}, ${rowName((m ?? t)!)}`, mine: said(m), theirs: said(t) }];
    });
    if (lines.length > 0) return lines;
  }
  return [{ name, mine: valueText(units, field, mine), theirs: valueText(units, field, theirs) }];
};
