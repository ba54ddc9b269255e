import { and, desc, eq, inArray, isNull, lt, notInArray, sql } from "drizzle-orm";
import { deepEqual } from "fast-equals";
import {
  type ChangeDto,
  type FieldChange,
  type HistoryDto,
  isKind,
  kindOf,
  kinds,
  type StepDto,
  seesKind,
  seesPrices,
  type UndoneDto,
} from "../contract";
import { askerNow, clientNow, roleNow, sheetsNow } from "./actor";
import { recordChange, type Tx } from "./changes";
import { NotFound, Refused, VersionClash } from "./clash";
import type { Db } from "./client";
import { setImportRemoved } from "./imports";
import { fieldsOfLog, hiddenOfLog, titleOfLog } from "./old-log";
import { checkRefs, checkWhole, lockJob, logged, makeStale, mayEdit, titleOf, told } from "./records";
import { rulesOf } from "./rules";
import { change } from "./schema";
import { storeOf } from "./stores";

export type ChangeRow = typeof change.$inferSelect;
type Values = Record<string, unknown>;
type Side = "before" | "after";

/** By structure, as a row comes back: nothing is null. */
const same = (a: unknown, b: unknown): boolean => deepEqual(a ?? null, b ?? null);

/** Fields that an edit changed, as they were (side "before") or as it left them (side "after"). */
const changedFields = (c: ChangeRow, side: Side): Values => {
  const before = fieldsOfLog(c.entity, c.before);
  const after = fieldsOfLog(c.entity, c.after);
  const known = kindOf(c.entity).fields.shape;
  const keys = Object.keys(after).filter((k) => k in known && !same(before[k], after[k]));
  // What a side does not tell was as a new one starts: the field came later, or nobody had written yet.
  const start = (k: string): unknown => known[k]!.safeParse(undefined).data ?? null;
  const told = side === "before" ? before : after;
  return Object.fromEntries(keys.map((k) => [k, told[k] ?? start(k)]));
};

/** True when an edit leaves the record taken away, seen from one of its sides. */
const leavesGone = (c: ChangeRow, side: Side): boolean =>
  c.action === "delete" ? side === "after" : c.action === "restore" ? side === "before" : c.action === "create" && side === "before";

/** Brings one edit back to how it was before (or after) it. @throws VersionClash when somebody has changed the same fields since. */
const apply = async (tx: Tx, c: ChangeRow, side: Side): Promise<void> => {
  if (c.entity === "import") return setImportRemoved(tx, c.entityId, (side === "before") === (c.action === "import"));
  mayEdit(c.entity);
  const store = storeOf(c.entity);
  const rules = rulesOf(c.entity);
  const row = await store.read(tx, c.entityId, true);
  if (row === null || row.jobId !== c.jobId) throw new NotFound(c.entity);
  if (c.action !== "update") {
    const gone = leavesGone(c, side);
    if (gone === row.deleted) return;
    if (gone) await rules.take?.(tx, row, c.action === "create");
    else {
      await checkRefs(tx, c.entity, row.jobId, row.values);
      await rules.bring?.(tx, row);
    }
    await store.write(tx, c.entityId, {}, gone);
    return makeStale(tx, c.entity, row);
  }
  const expected = changedFields(c, side === "before" ? "after" : "before");
  for (const [key, value] of Object.entries(expected))
    if (!same(row.values[key], value)) throw new VersionClash(c.entity, told(c.entity, row));
  const set = changedFields(c, side);
  const after = { ...row.values, ...set };
  checkWhole(c.entity, after);
  await checkRefs(tx, c.entity, row.jobId, set);
  await rules.patch?.(tx, row, after);
  await store.write(tx, c.entityId, set);
  await makeStale(tx, c.entity, { ...row, values: after });
};

const log = async (tx: Tx, c: ChangeRow, action: "undo" | "redo"): Promise<void> => {
  const row = c.entity === "import" ? null : await storeOf(c.entity).read(tx, c.entityId, false);
  const title = row === null ? titleOfLog(c.before, c.after) : await titleOf(tx, c.entity, row);
  const words = c.entity === "import" ? { title_: title } : logged(c.entity, title, {});
  await recordChange(tx, { jobId: c.jobId!, entity: c.entity, entityId: c.entityId, action, before: null, after: words, undoes: c.id });
  await tx
    .update(change)
    .set({ undone: action === "undo" })
    .where(eq(change.id, c.id));
};

const MADE = ["undo", "redo"];
/** Kinds that are only added to: what is written in them stays, and undo goes past it. */
const lasting = (): string[] =>
  kinds()
    .filter(([, k]) => k.appendOnly === true)
    .map(([name]) => name);
/** A browser's name is only a name: what another person did under it is not one's own. */
const ofPerson = () => {
  const personId = askerNow()?.personId ?? null;
  return personId === null ? isNull(change.personId) : eq(change.personId, personId);
};
/** What this browser did to the job and may take back: the making of the job itself is none of it. */
const mine = (jobId: string) =>
  and(
    eq(change.jobId, jobId),
    eq(change.clientId, clientNow() ?? ""),
    ofPerson(),
    notInArray(change.action, MADE),
    notInArray(change.entity, lasting()),
    sql`NOT (${change.entity} = 'job' AND ${change.action} = 'create')`,
  );

/** Steps are passed over as a whole: by one edit of each. */
const notOf = (passed: readonly number[]) => {
  if (passed.length === 0) return undefined;
  const steps = sql`(SELECT p.step FROM ${change} p WHERE ${inArray(sql`p.id`, [...passed])} AND p.step IS NOT NULL)`;
  return and(notInArray(change.id, [...passed]), sql`(${change.step} IS NULL OR ${change.step} NOT IN ${steps})`);
};

const lastMade = async (tx: Tx, jobId: string, passed: readonly number[]): Promise<ChangeRow | undefined> => {
  const [row] = await tx
    .select()
    .from(change)
    .where(and(mine(jobId), eq(change.undone, false), notOf(passed)))
    .orderBy(desc(change.id))
    .limit(1);
  return row;
};

/** Steps of one's own that redo looks back over. */
const LOOKED_BACK = 1000;

/** What this browser took back last and may do again; nothing once it has made a new edit since. */
const lastUndone = async (tx: Tx, jobId: string): Promise<ChangeRow | undefined> => {
  const own = await tx
    .select({ action: change.action, undoes: change.undoes })
    .from(change)
    .where(and(eq(change.jobId, jobId), eq(change.clientId, clientNow() ?? ""), ofPerson(), notInArray(change.entity, lasting())))
    .orderBy(desc(change.id))
    .limit(LOOKED_BACK);
  let doneAgain = 0;
  for (const { action, undoes } of own) {
    if (action === "redo") doneAgain++;
    else if (action !== "undo") return undefined;
    else if (doneAgain > 0) doneAgain--;
    else {
      const [row] = await tx
        .select()
        .from(change)
        .where(and(eq(change.id, undoes!), eq(change.undone, true)));
      return row;
    }
  }
  return undefined;
};

const stepOf = (c: ChangeRow): StepDto => ({ entity: c.entity, action: c.action, name: titleOfLog(c.before, c.after) });

const locked = <T>(db: Db, jobId: string, work: (tx: Tx) => Promise<T>): Promise<T> =>
  db.transaction(async (tx) => {
    await lockJob(tx, jobId);
    return work(tx);
  });

/** All edits of the step that an edit belongs to and that stand as it does, oldest first. */
const stepWith = async (tx: Tx, c: ChangeRow): Promise<ChangeRow[]> =>
  c.step === null
    ? [c]
    : tx
        .select()
        .from(change)
        .where(and(eq(change.step, c.step), eq(change.undone, c.undone), notInArray(change.action, MADE)))
        .orderBy(change.id);

/** Takes a whole step back, newest edit first, or does it again, oldest first. @returns what was done, and the rows as they now stand. */
const turn = async (tx: Tx, c: ChangeRow, action: "undo" | "redo"): Promise<UndoneDto> => {
  const edits = await stepWith(tx, c);
  const [first] = edits;
  if (action === "undo") edits.reverse();
  for (const edit of edits) {
    await apply(tx, edit, action === "undo" ? "before" : "after");
    await log(tx, edit, action);
  }
  const touched = new Map(edits.filter((e) => e.entity !== "import").map((e) => [`${e.entity} ${e.entityId}`, e]));
  const rows: UndoneDto["rows"][number][] = [];
  for (const e of touched.values()) {
    const row = await storeOf(e.entity).read(tx, e.entityId, false);
    rows.push({ kind: e.entity, id: e.entityId, row: row === null || row.deleted ? null : told(e.entity, row) });
  }
  return { step: stepOf(first ?? c), rows };
};

const NOTHING: UndoneDto = { step: null, rows: [] };

/**
 * Takes back this browser's newest edit of a job; nothing when there is none.
 * @param known edits whose refusal was told before: where they still cannot be taken back they are passed over.
 * @throws Refused with the edit's number among its values: "overtaken" when somebody has changed the same fields since, or the rule
 * that forbids it.
 */
export const undoLast = (db: Db, jobId: string, known: readonly number[] = []): Promise<UndoneDto> =>
  locked(db, jobId, async (tx) => {
    const passed: number[] = [];
    for (;;) {
      const c = await lastMade(tx, jobId, passed);
      if (c === undefined) return NOTHING;
      try {
        return await tx.transaction((step) => turn(step, c, "undo"));
      } catch (error) {
        if (!(error instanceof VersionClash || error instanceof Refused)) throw error;
        if (!known.includes(c.id)) throw refusalOf(c, error);
        passed.push(c.id);
      }
    }
  });

const refusalOf = (c: ChangeRow, error: VersionClash | Refused): Refused =>
  error instanceof VersionClash
    ? new Refused("overtaken", c.entity, { changeId: c.id, name: titleOfLog(c.before, c.after) })
    : new Refused(error.code, error.path, { ...error.values, changeId: c.id });

/** Does again what this browser last took back; nothing when there is nothing, or a newer edit stands. */
export const redoLast = (db: Db, jobId: string): Promise<UndoneDto> =>
  locked(db, jobId, async (tx) => {
    const c = await lastUndone(tx, jobId);
    return c === undefined ? NOTHING : turn(tx, c, "redo");
  });

/** Takes back, or does again, one edit of anybody. */
export const takeBack = (db: Db, jobId: string, changeId: number): Promise<UndoneDto> =>
  locked(db, jobId, async (tx) => {
    const [c] = await tx
      .select()
      .from(change)
      .where(and(eq(change.id, changeId), eq(change.jobId, jobId)));
    if (c === undefined || !isUndoable(c)) throw new NotFound("change");
    return turn(tx, c, c.undone ? "redo" : "undo");
  });

const isUndoable = (c: ChangeRow): boolean =>
  !MADE.includes(c.action) && !lasting().includes(c.entity) && !(c.entity === "job" && c.action === "create");

/** What an edit changed, from what to what, as the one who asks may see it. */
const fieldChanges = (c: ChangeRow): FieldChange[] => {
  if (c.action !== "update" || !isKind(c.entity)) return [];
  const [from, to] = [changedFields(c, "before"), changedFields(c, "after")];
  const prices: readonly string[] = seesPrices(roleNow()) ? [] : (kindOf(c.entity).prices ?? []);
  return [
    ...Object.keys(to).map((field) => (prices.includes(field) ? { field } : { field, from: short(from[field]), to: short(to[field]) })),
    ...hiddenOfLog(c.after).map((field) => ({ field })),
  ];
};

/** Of what is long only how long it is. */
const short = (value: unknown): unknown =>
  Array.isArray(value)
    ? { count: value.length }
    : value !== null && typeof value === "object"
      ? { count: Object.keys(value).length }
      : typeof value === "string" && value.length > 80
        ? `${value.slice(0, 79)}…`
        : value;

const SHOWN = 100;

/** @param beforeId tells the edits before that one. */
export const historyOf = (db: Db, jobId: string, beforeId?: number): Promise<HistoryDto> =>
  db.transaction(async (tx) => {
    const role = roleNow();
    const seen = [...kinds().flatMap(([name, k]) => (seesKind(name, k, role, sheetsNow()) ? [name] : [])), "import"];
    const rows = await tx
      .select()
      .from(change)
      .where(and(eq(change.jobId, jobId), inArray(change.entity, seen), beforeId === undefined ? undefined : lt(change.id, beforeId)))
      .orderBy(desc(change.id))
      .limit(SHOWN + 1);
    const [made, undone] = [await lastMade(tx, jobId, []), await lastUndone(tx, jobId)];
    return {
      canUndo: made !== undefined,
      canRedo: undone !== undefined,
      more: rows.length > SHOWN,
      changes: rows.slice(0, SHOWN).map(
        (c): ChangeDto => ({
          ...stepOf(c),
          id: c.id,
          entityId: c.entityId,
          at: c.at.toISOString(),
          mine: c.clientId !== null && c.clientId === clientNow() && c.personId === (askerNow()?.personId ?? null),
          by: c.personName ?? (c.clientId === null ? null : c.clientId.slice(0, 4)),
          undone: c.undone,
          undoable: isUndoable(c),
          fields: fieldChanges(c),
        }),
      ),
    };
  });
