import { type ChangeDto, type FieldChange, isKind, type StepDto, toldOf } from "@/contract";
import { fieldWords, valueText } from "./fields";
import type { Units } from "./numbers";

const ACTION: Readonly<Record<string, string>> = {
  create: "added",
  update: "changed",
  delete: "taken away",
  restore: "brought back",
  import: "taken in",
  undo: "undone",
  redo: "done again",
};

/** What an edit was of: "site Rope Walk", "design 3, Harbour Office to Rope Walk". */
const subject = (s: StepDto): string => {
  const what = isKind(s.entity) ? toldOf(s.entity).words.one : s.entity;
  // The job and its brief there are one of: their names say nothing.
  return s.name === "" || s.entity === "brief" || s.entity === "job" || s.entity === "limits" ? what : `${what} ${s.name}`;
};

const fieldText = (kind: string, c: FieldChange, units: Units): string => {
  const name = fieldWords(kind, c.field);
  if (!("to" in c)) return name;
  const [from, to] = [valueText(units, c.field, c.from), valueText(units, c.field, c.to)];
  // What is long or nested is told by its count alone, which may be the same.
  return from === to ? name : `${name} ${from} to ${to}`;
};

const MOST_FIELDS = 3;

/** One edit in a few words: "site Rope Walk, changed: mount height 7 m to 7.5 m". */
export const stepText = (s: StepDto & { readonly fields?: readonly FieldChange[] }, units: Units = "metric"): string => {
  const fields = [...new Set((s.fields ?? []).map((f) => fieldText(s.entity, f, units)))];
  const more = fields.length > MOST_FIELDS ? " and more" : "";
  return `${subject(s)}, ${ACTION[s.action] ?? s.action}${fields.length === 0 ? "" : `: ${fields.slice(0, MOST_FIELDS).join(", ")}${more}`}`;
};

/** Edits of one hand to the same fields of one thing, one after another. */
export interface Fold {
  readonly first: ChangeDto;
  /** All of them, newest first. */
  readonly all: readonly ChangeDto[];
}

const alike = (a: ChangeDto, b: ChangeDto): boolean =>
  a.entity === b.entity &&
  a.action === b.action &&
  a.by === b.by &&
  a.undone === b.undone &&
  (a.action === "update" ? a.entityId === b.entityId && a.fields.map((f) => f.field).join() === b.fields.map((f) => f.field).join() : true);

/** Folds what is alike: forty nudges of one mast are one line. */
export const folded = (changes: readonly ChangeDto[]): Fold[] => {
  const out: { first: ChangeDto; all: ChangeDto[] }[] = [];
  for (const c of changes) {
    const last = out.at(-1);
    if (last !== undefined && alike(last.first, c)) last.all.push(c);
    else out.push({ first: c, all: [c] });
  }
  return out;
};

/** A fold in a few words: of updates from the first value to the last, of others how many. */
export const foldText = ({ first, all }: Fold, units: Units = "metric"): string => {
  if (all.length === 1) return stepText(first, units);
  if (first.action !== "update") {
    const what = isKind(first.entity) ? toldOf(first.entity).words.many : `${first.entity}s`;
    return `${all.length} ${what}, ${ACTION[first.action] ?? first.action}`;
  }
  const oldest = all[all.length - 1]!;
  const fields = first.fields.map((f): FieldChange => {
    const was = oldest.fields.find((o) => o.field === f.field);
    return "to" in f && was !== undefined && "from" in was ? { field: f.field, from: was.from, to: f.to } : { field: f.field };
  });
  return `${stepText({ ...first, fields }, units)} (${all.length} edits)`;
};
