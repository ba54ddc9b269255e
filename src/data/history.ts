import { and, desc, eq, gt, inArray, isNull, notInArray, or, sql } from "drizzle-orm";
import type { PgTable } from "drizzle-orm/pg-core";
import { deepEqual } from "fast-equals";
import { clientNow } from "./actor";
import { recordChange, type Tx } from "./changes";
import { NotFound, Refused, VersionClash } from "./clash";
import type { Db } from "./client";
import { setImportRemoved } from "./imports";
import { loggedRow, setColumns } from "./obstacle-edits";
import { PHOTO_HEAD } from "./photos";
import { brief, change, design, job, link, photo, site } from "./schema";

export type ChangeRow = typeof change.$inferSelect;

const TABLES: Readonly<Record<string, PgTable & { id?: unknown }>> = { site, link, design, job, photo };
const NOT_COMPARED = new Set([
  "id",
  "jobId",
  "version",
  "createdAt",
  "updatedAt",
  "deletedAt",
  "revision",
  "design",
  "bytes",
  "linkId",
  "chosen",
  "number",
]);

/** Deep equality of JSON values; absent and null are the same. */
/** By structure, as a row comes back: dates as text, nothing as null. */
const same = (a: unknown, b: unknown): boolean => deepEqual(plain(a), plain(b));
const plain = (value: unknown): unknown => JSON.parse(JSON.stringify(value ?? null));

type Logged = Readonly<Record<string, unknown>> | null;

const keyOf = (entity: string): "id" | "jobId" => (entity === "brief" ? "jobId" : "id");

const rowOf = async (tx: Tx, entity: string, id: string): Promise<Record<string, unknown> | null> => {
  if (entity === "obstacle" || entity === "feature") return loggedRow(tx, entity, id, true);
  if (entity === "photo") {
    const [head] = await tx.select(PHOTO_HEAD).from(photo).where(eq(photo.id, id)).for("update");
    return head === undefined ? null : (JSON.parse(JSON.stringify(head)) as Record<string, unknown>);
  }
  const table = entity === "brief" ? brief : TABLES[entity];
  if (table === undefined) throw new Refused("not-undoable", "change");
  const [row] = await tx
    .select()
    .from(table)
    .where(eq((table as never as Record<string, never>)[keyOf(entity)]!, id))
    .for("update");
  // As the log keeps it: dates as text.
  return row === undefined ? null : (JSON.parse(JSON.stringify(row)) as Record<string, unknown>);
};

const write = async (tx: Tx, entity: string, id: string, fields: Record<string, unknown>): Promise<void> => {
  if (entity === "obstacle" || entity === "feature") return setColumns(tx, entity, id, fields);
  const table = (entity === "brief" ? brief : TABLES[entity]!) as typeof site;
  const { deletedAt, ...rest } = fields;
  await tx
    .update(table)
    .set({
      ...rest,
      ...("deletedAt" in fields ? { deletedAt: deletedAt === null ? null : sql`now()` } : {}),
      version: sql`${table.version} + 1`,
      updatedAt: sql`now()`,
    } as never)
    .where(eq((table as never as Record<string, never>)[keyOf(entity)]!, id));
};

/** Fields that an edit changed, as they were (side "before") or as it left them (side "after"). */
const changedFields = (c: ChangeRow, side: "before" | "after"): Record<string, unknown> => {
  const before = (c.before ?? {}) as Record<string, unknown>;
  const after = (c.after ?? {}) as Record<string, unknown>;
  const keys = Object.keys(after).filter((k) => !NOT_COMPARED.has(k) && !same(before[k], after[k]));
  return Object.fromEntries(keys.map((k) => [k, (side === "before" ? before : after)[k] ?? null]));
};

/** Brings one edit back to how it was before (or after) it. @throws VersionClash when somebody has changed the same fields since. */
const apply = async (tx: Tx, c: ChangeRow, side: "before" | "after"): Promise<void> => {
  if (c.entity === "import") {
    await setImportRemoved(tx, c.entityId, (side === "before") === (c.action === "import"));
    return;
  }
  const row = await rowOf(tx, c.entity, c.entityId);
  if (row === null) throw new NotFound(c.entity);
  const gone =
    c.action === "delete" ? side === "after" : c.action === "restore" ? side === "before" : c.action === "create" && side === "before";
  if (c.action !== "update") {
    if (gone && c.entity === "site") await refuseInUse(tx, c.entityId, row);
    await write(tx, c.entity, c.entityId, { deletedAt: gone ? true : null });
    return;
  }
  const expected = changedFields(c, side === "before" ? "after" : "before");
  for (const [key, value] of Object.entries(expected)) if (!same(row[key], value)) throw new VersionClash(c.entity, row);
  await write(tx, c.entity, c.entityId, changedFields(c, side));
};

const refuseInUse = async (tx: Tx, siteId: string, row: Logged): Promise<void> => {
  const [used] = await tx
    .select()
    .from(link)
    .where(and(or(eq(link.nearSiteId, siteId), eq(link.farSiteId, siteId)), isNull(link.deletedAt)))
    .limit(1);
  if (used !== undefined) throw new Refused("site-in-use", "site", { name: String(row?.name ?? "The site"), link: used.number });
};

const log = async (tx: Tx, c: ChangeRow, action: "undo" | "redo"): Promise<void> => {
  await recordChange(tx, { jobId: c.jobId!, entity: c.entity, entityId: c.entityId, action, before: null, after: null, undoes: c.id });
  await tx
    .update(change)
    .set({ undone: action === "undo" })
    .where(eq(change.id, c.id));
};

const MADE = ["undo", "redo"];

const lastMade = async (tx: Tx, jobId: string): Promise<ChangeRow | undefined> => {
  const [row] = await tx
    .select()
    .from(change)
    .where(and(eq(change.jobId, jobId), eq(change.clientId, clientNow() ?? ""), eq(change.undone, false), notInArray(change.action, MADE)))
    .orderBy(desc(change.id))
    .limit(1);
  return row;
};

/** What was taken back and may be done again: newest first, nothing once a new edit has been made after it. */
const lastUndone = async (tx: Tx, jobId: string): Promise<ChangeRow | undefined> => {
  const mine = and(eq(change.jobId, jobId), eq(change.clientId, clientNow() ?? ""));
  const [newest] = await tx
    .select({ id: sql<number>`coalesce(max(${change.id}), 0)::bigint` })
    .from(change)
    .where(and(mine, eq(change.undone, false), notInArray(change.action, MADE)));
  // The undone edits that came after the newest standing one; the first of them is the next to do again.
  const [row] = await tx
    .select()
    .from(change)
    .where(and(mine, eq(change.undone, true), notInArray(change.action, MADE), gt(change.id, Number(newest?.id ?? 0))))
    .orderBy(change.id)
    .limit(1);
  return row;
};

export interface Step {
  readonly entity: string;
  readonly action: string;
  readonly name: string;
}

const nameIn = (c: ChangeRow): string =>
  String((c.after as Logged)?.name ?? (c.before as Logged)?.name ?? (c.after as Logged)?.fileName ?? "");
const stepOf = (c: ChangeRow): Step => ({ entity: c.entity, action: c.action, name: nameIn(c) });

const locked = <T>(db: Db, jobId: string, work: (tx: Tx) => Promise<T>): Promise<T> =>
  db.transaction(async (tx) => {
    const [owner] = await tx.select({ id: job.id }).from(job).where(eq(job.id, jobId)).for("update");
    if (owner === undefined) throw new NotFound("job");
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

/** Takes a whole step back, newest edit first, or does it again, oldest first. */
const turn = async (tx: Tx, c: ChangeRow, action: "undo" | "redo"): Promise<Step> => {
  const edits = await stepWith(tx, c);
  const [first] = edits;
  if (action === "undo") edits.reverse();
  for (const edit of edits) {
    await apply(tx, edit, action === "undo" ? "before" : "after");
    await log(tx, edit, action);
  }
  return stepOf(first ?? c);
};

/** Takes back this browser's newest edit of a job; null when there is none. */
export const undoLast = (db: Db, jobId: string): Promise<Step | null> =>
  locked(db, jobId, async (tx) => {
    const c = await lastMade(tx, jobId);
    return c === undefined ? null : turn(tx, c, "undo");
  });

/** Does again what this browser last took back; null when there is nothing, or a newer edit stands. */
export const redoLast = (db: Db, jobId: string): Promise<Step | null> =>
  locked(db, jobId, async (tx) => {
    const c = await lastUndone(tx, jobId);
    return c === undefined ? null : turn(tx, c, "redo");
  });

/** Takes back, or does again, one edit of anybody. */
export const takeBack = (db: Db, jobId: string, changeId: number): Promise<Step> =>
  locked(db, jobId, async (tx) => {
    const [c] = await tx
      .select()
      .from(change)
      .where(and(eq(change.id, changeId), eq(change.jobId, jobId)));
    if (c === undefined || MADE.includes(c.action)) throw new NotFound("change");
    return turn(tx, c, c.undone ? "redo" : "undo");
  });

export interface History {
  readonly canUndo: boolean;
  readonly canRedo: boolean;
  readonly changes: readonly (Step & { id: number; at: string; mine: boolean; undone: boolean; undoable: boolean; fields: string[] })[];
}

const SHOWN = 100;
const UNDOABLE = ["site", "link", "design", "job", "brief", "obstacle", "feature", "photo", "import"];

export const historyOf = (db: Db, jobId: string): Promise<History> =>
  db.transaction(async (tx) => {
    const rows = await tx
      .select()
      .from(change)
      .where(and(eq(change.jobId, jobId), inArray(change.entity, UNDOABLE)))
      .orderBy(desc(change.id))
      .limit(SHOWN);
    const [made, undone] = [await lastMade(tx, jobId), await lastUndone(tx, jobId)];
    return {
      canUndo: made !== undefined && !(made.entity === "job" && made.action === "create"),
      canRedo: undone !== undefined,
      changes: rows.map((c) => ({
        ...stepOf(c),
        id: c.id,
        at: c.at.toISOString(),
        mine: c.clientId !== null && c.clientId === clientNow(),
        undone: c.undone,
        undoable: !MADE.includes(c.action) && !(c.entity === "job" && c.action === "create"),
        fields: c.action === "update" ? Object.keys(changedFields(c, "after")) : [],
      })),
    };
  });
