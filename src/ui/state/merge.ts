import { deepEqual } from "fast-equals";

/*
 * Two people changed one record, each from the same beginning: what only one of them changed stands, down to a figure within a group or
 * a row within a list. Where both changed the same to something else it is fought over, and one's own is shown.
 */

export interface Merged<T> {
  readonly value: T;
  readonly fought: boolean;
}

type Plain = Readonly<Record<string, unknown>>;
type Row = Plain & { readonly id: string };

const isPlain = (v: unknown): v is Plain => typeof v === "object" && v !== null && !Array.isArray(v);
const isRows = (v: unknown): v is readonly Row[] =>
  Array.isArray(v) && v.every((x) => isPlain(x) && typeof x.id === "string") && new Set(v.map((x) => x.id)).size === v.length;
/** Words of which each stands once: a set, whatever its order. */
const isSet = (v: unknown): v is readonly string[] =>
  Array.isArray(v) && v.every((x) => typeof x === "string") && new Set(v).size === v.length;

const mergeSets = (base: readonly string[], mine: readonly string[], theirs: readonly string[]): readonly string[] => {
  const kept = mine.filter((x) => theirs.includes(x) || !base.includes(x));
  return [...kept, ...theirs.filter((x) => !base.includes(x) && !mine.includes(x))];
};

const mergeRows = (base: readonly Row[], mine: readonly Row[], theirs: readonly Row[]): Merged<readonly Row[]> => {
  const of = (list: readonly Row[]): ReadonlyMap<string, Row> => new Map(list.map((r) => [r.id, r]));
  const [b, m, t] = [of(base), of(mine), of(theirs)];
  let fought = false;
  const out: Row[] = [];
  const put = (id: string): void => {
    const merged = mergeValue(b.get(id), m.get(id), t.get(id));
    fought ||= merged.fought;
    if (merged.value !== undefined) out.push(merged.value as Row);
  };
  // The order is that of whoever moved something; else what the other added comes last.
  const both = (list: readonly Row[], other: ReadonlyMap<string, Row>): string[] => list.flatMap((r) => (other.has(r.id) ? [r.id] : []));
  const isMoved = !deepEqual(both(mine, b), both(base, m));
  const [first, second, known] = isMoved ? [mine, theirs, m] : [theirs, mine, t];
  for (const { id } of first) put(id);
  for (const { id } of second) if (!known.has(id)) put(id);
  return { value: out, fought };
};

const mergePlain = (base: Plain, mine: Plain, theirs: Plain): Merged<Plain> => {
  let fought = false;
  const out: Record<string, unknown> = {};
  for (const key of new Set([...Object.keys(mine), ...Object.keys(theirs)])) {
    const merged = mergeValue(base[key], mine[key], theirs[key]);
    fought ||= merged.fought;
    if (merged.value !== undefined) out[key] = merged.value;
  }
  return { value: out, fought };
};

export const mergeValue = (base: unknown, mine: unknown, theirs: unknown): Merged<unknown> => {
  if (deepEqual(mine, theirs) || deepEqual(mine, base)) return { value: theirs, fought: false };
  if (deepEqual(theirs, base)) return { value: mine, fought: false };
  // Places on the ground and outlines are lists of figures: they are one thing each, and so is a row that stands without a beginning.
  if (isSet(base) && isSet(mine) && isSet(theirs)) return { value: mergeSets(base, mine, theirs), fought: false };
  if (isRows(base) && isRows(mine) && isRows(theirs)) return mergeRows(base, mine, theirs);
  if (isPlain(base) && isPlain(mine) && isPlain(theirs)) return mergePlain(base, mine, theirs);
  return { value: mine, fought: true };
};

/** A patch on a record carried over to what somebody else made of it. */
export const mergePatch = <F>(base: F, patch: Partial<F>, theirs: F): Merged<Partial<F>> => {
  let fought = false;
  const out: Record<string, unknown> = {};
  for (const [key, mine] of Object.entries(patch)) {
    const merged = mergeValue((base as Plain)[key], mine, (theirs as Plain)[key]);
    fought ||= merged.fought;
    out[key] = merged.value;
  }
  return { value: out as Partial<F>, fought };
};
