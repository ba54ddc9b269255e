import { randomUUID } from "node:crypto";
import { sql } from "drizzle-orm";
import { deepEqual } from "fast-equals";
import { z } from "zod";
import {
  editsKind,
  type FieldsOf,
  type InputOf,
  type Kind,
  type KindName,
  kindOf,
  patchOf,
  type RowOf,
  seesKind,
  seesPrices,
  visibleTo,
} from "../contract";
import { askerNow, asOneStep, mayTouch, roleNow, sheetsNow } from "./actor";
import { recordChange, type Tx } from "./changes";
import { NotFound, Refused, VersionClash } from "./clash";
import { type Db, isTaken } from "./client";
import { rulesOf } from "./rules";
import { type Kept, storeOf } from "./stores";

/*
 * The one place that writes what people edit. Every edit locks its job first, checks the version and the rules between
 * rows, writes, logs what was and what is, makes stale what rests on it, and tells who listens.
 */

type Values = Record<string, unknown>;

/** A record as it travels, as the one who works may see it. */
export const told = (kind: string, row: Kept): Values & { id: string; version: number } => ({
  ...visibleTo(roleNow(), kindOf(kind), row.values),
  id: row.id,
  version: row.version,
});

/** @throws Refused when whoever works may not see a kind. */
export const maySee = (kind: string): Kind => {
  const k = kindOf(kind);
  if (!seesKind(kind, k, roleNow(), sheetsNow())) throw new Refused("not-allowed", kind);
  return k;
};

/** @throws Refused when whoever works may not edit a kind. */
export const mayEdit = (kind: string): Kind => {
  const k = maySee(kind);
  if (!editsKind(k, roleNow())) throw new Refused("not-allowed", kind);
  return k;
};

/** Prices are changed by who may see them. */
const refusePrices = (k: Kind, kind: string, fields: Values): void => {
  const priced = (k.prices ?? []).find((f) => f in fields);
  if (priced !== undefined && !seesPrices(roleNow())) throw new Refused("not-allowed", `${kind}.${priced}`);
};

/** What the log keeps of values: never a secret, only that there is one. */
export const logged = (kind: string, title: string, values: Values): Values => {
  const secrets = kindOf(kind).secrets ?? [];
  const hidden = secrets.filter((s) => s in values);
  return {
    title_: title,
    ...Object.fromEntries(Object.entries(values).filter(([key]) => !secrets.includes(key))),
    ...(hidden.length === 0 ? {} : { hidden_: hidden }),
  };
};

export const titleOf = (tx: Tx, kind: string, row: Kept): Promise<string> =>
  rulesOf(kind).title?.(tx, row) ?? Promise.resolve(String(row.values.name ?? ""));

/** Holds a whole record against the rules between its fields. @throws ZodError naming the field. */
export const checkWhole = (kind: string, values: Values): void => {
  const faults = kindOf(kind).check?.(values as never) ?? [];
  if (faults.length > 0)
    throw new z.ZodError(faults.map(({ path, message }) => ({ code: "custom" as const, path: [path], message, input: undefined })));
};

/** Fields that name other records must name ones that stand in the same job. */
export const checkRefs = async (tx: Tx, kind: string, jobId: string, values: Values): Promise<void> => {
  for (const [field, other] of Object.entries(kindOf(kind).refs ?? {})) {
    const id = values[field];
    if (id === null || id === undefined) continue;
    const row = await storeOf(other).read(tx, String(id), false);
    if (row === null || row.deleted || row.jobId !== jobId) throw new Refused("unknown-reference", field);
  }
};

/** Raises what rests on a record that is kept as a document; tables of their own have triggers for it. */
export const makeStale = async (tx: Tx, kind: string, row: Kept): Promise<void> => {
  const k = kindOf(kind);
  if (k.kept !== "document" || k.stale === "nothing") return;
  const which =
    k.stale === "link"
      ? sql`id = ${String(row.values.linkId)}`
      : k.stale === "site"
        ? sql`${String(row.values.siteId)} IN (near_site_id::text, far_site_id::text)`
        : sql`job_id = ${row.jobId}`;
  await tx.execute(sql`SELECT stale_links(ARRAY(SELECT id FROM link WHERE ${which}))`);
};

/** Locks a job, before anything of it: every writer does so in this one order, so that two never block one another for good. */
export const lockJob = async (tx: Tx, jobId: string): Promise<void> => {
  const found = await tx.execute<{ gone: boolean }>(sql`SELECT deleted_at IS NOT NULL AS gone FROM job WHERE id = ${jobId} FOR UPDATE`);
  const [owner] = found.rows;
  if (owner === undefined || owner.gone || !mayTouch(jobId)) throw new NotFound("job");
};

/** What an edit can do to the records of one job. */
export interface Door {
  readonly tx: Tx;
  readonly jobId: string;
  /** @param more.id an id that the client gave; @param more.bytes of kinds that hold a file. */
  readonly create: <K extends KindName>(kind: K, input: InputOf<K>, more?: { id?: string; bytes?: Buffer }) => Promise<RowOf<K>>;
  /** Changes some fields of a record that stands at a version. @throws VersionClash with the row as it stands. */
  readonly patch: <K extends KindName>(kind: K, id: string, version: number, fields: Partial<FieldsOf<K>>) => Promise<RowOf<K>>;
  readonly take: <K extends KindName>(kind: K, id: string, version: number) => Promise<RowOf<K>>;
  readonly bring: <K extends KindName>(kind: K, id: string, version: number) => Promise<RowOf<K>>;
}

const reread = async (tx: Tx, kind: string, id: string): Promise<Kept> => {
  const row = await storeOf(kind).read(tx, id, false);
  if (row === null) throw new NotFound(kind);
  return row;
};

/** The record as it stands, locked. @throws NotFound when it is none of this job, VersionClash when it was changed since. */
const standing = async (tx: Tx, jobId: string, kind: string, id: string, version: number): Promise<Kept> => {
  const row = await storeOf(kind).read(tx, id, true);
  if (row === null || row.jobId !== jobId) throw new NotFound(kind);
  if (row.version !== version) throw new VersionClash(kind, told(kind, row));
  return row;
};

/** Values of a patch that differ from what stands. */
const changed = (before: Values, fields: Values): Values =>
  Object.fromEntries(Object.entries(fields).filter(([key, v]) => v !== undefined && !deepEqual(before[key], v)));

const create = async (tx: Tx, jobId: string, kind: string, input: Values, more: { id?: string; bytes?: Buffer } = {}): Promise<Kept> => {
  const k = mayEdit(kind);
  const store = storeOf(kind);
  const id = k.many ? (more.id ?? randomUUID()) : jobId;
  const before = more.id === undefined && k.many ? null : await store.read(tx, id, true);
  if (before !== null) {
    // Made before, by the same client: making it again is harmless.
    if (k.comesBack && before.jobId === jobId && before.deleted) {
      const back = await put(tx, jobId, kind, id, before.version, false);
      return patch(tx, jobId, kind, id, back.version, k.fields.parse(input) as Values);
    }
    if (k.idByClient && before.jobId === jobId) return before;
    throw new VersionClash(kind, before.jobId === jobId ? told(kind, before) : null);
  }
  const fields = k.fields.parse(input) as Values;
  refusePrices(k, kind, changed(visibleTo(roleNow(), k, fields), fields));
  checkWhole(kind, fields);
  const set = await rulesOf(kind).create?.(tx, jobId, { ...input, ...fields });
  const values: Values = { ...fields, ...(k.fixed.parse({ ...input, ...set }) as Values) };
  await checkRefs(tx, kind, jobId, values);
  try {
    await store.insert(tx, { id, jobId, values, ...(more.bytes === undefined ? {} : { bytes: more.bytes }) });
  } catch (error) {
    // Another firm's row has that id; it is answered as one of another job is.
    if (more.id !== undefined && isTaken(error)) throw new VersionClash(kind, null);
    throw error;
  }
  const row = await reread(tx, kind, id);
  const title = await titleOf(tx, kind, row);
  await recordChange(tx, { jobId, entity: kind, entityId: id, action: "create", before: null, after: logged(kind, title, row.values) });
  await makeStale(tx, kind, row);
  return row;
};

const patch = async (tx: Tx, jobId: string, kind: string, id: string, version: number, fields: Values): Promise<Kept> => {
  const k = mayEdit(kind);
  if (k.appendOnly) throw new Refused("append-only", kind);
  const before = await standing(tx, jobId, kind, id, version);
  if (before.deleted) throw new NotFound(kind);
  const set = changed(before.values, patchOf(k).parse(fields));
  refusePrices(k, kind, set);
  const keys = Object.keys(set);
  if (keys.length === 0) return before;
  const after = { ...before.values, ...set };
  checkWhole(kind, after);
  await checkRefs(tx, kind, jobId, set);
  await rulesOf(kind).patch?.(tx, before, after);
  await storeOf(kind).write(tx, id, set);
  const row = await reread(tx, kind, id);
  const title = await titleOf(tx, kind, row);
  const was = Object.fromEntries(keys.map((key) => [key, before.values[key] ?? null]));
  const is = Object.fromEntries(keys.map((key) => [key, row.values[key] ?? null]));
  await recordChange(tx, {
    jobId,
    entity: kind,
    entityId: id,
    action: "update",
    before: logged(kind, title, was),
    after: logged(kind, title, is),
  });
  await makeStale(tx, kind, row);
  return row;
};

const put = async (tx: Tx, jobId: string, kind: string, id: string, version: number, away: boolean): Promise<Kept> => {
  const k = mayEdit(kind);
  if (k.appendOnly) throw new Refused("append-only", kind);
  const before = await standing(tx, jobId, kind, id, version);
  if (before.deleted === away) return before;
  const rules = rulesOf(kind);
  if (away) await rules.take?.(tx, before, false);
  else {
    await checkRefs(tx, kind, jobId, before.values);
    await rules.bring?.(tx, before);
  }
  await storeOf(kind).write(tx, id, {}, away);
  const row = await reread(tx, kind, id);
  const words = logged(kind, await titleOf(tx, kind, row), {});
  await recordChange(tx, { jobId, entity: kind, entityId: id, action: away ? "delete" : "restore", before: words, after: words });
  await makeStale(tx, kind, row);
  return row;
};

/** The one of a kind that a job has at most one of: made with its start values when somebody first edits it. */
const patchOnly = async (tx: Tx, jobId: string, kind: string, version: number, fields: Values): Promise<Kept> => {
  const k = kindOf(kind);
  if (version === 0 && (await storeOf(kind).read(tx, jobId, true)) === null)
    await storeOf(kind).insert(tx, { id: jobId, jobId, values: k.fields.parse({}) as Values });
  const row = await storeOf(kind).read(tx, jobId, true);
  // Version 0 is what nobody wrote yet: the row just made is that.
  return patch(tx, jobId, kind, jobId, version === 0 && row?.version === 1 ? 1 : version, fields);
};

export const openDoor = (tx: Tx, jobId: string): Door => {
  const as = <K extends KindName>(kind: K, row: Kept): RowOf<K> => told(kind, row) as unknown as RowOf<K>;
  /** What of other records follows one belongs to the same step. */
  const withFollowers = <K extends KindName>(kind: K, work: () => Promise<Kept>): Promise<RowOf<K>> => {
    const { followed } = rulesOf(kind);
    if (followed === undefined) return work().then((row) => as(kind, row));
    return asOneStep(async () => {
      const row = await work();
      await followed(tx, row, (other, id, version, fields) => patch(tx, jobId, other, id, version, { ...fields }));
      return as(kind, row);
    });
  };
  return {
    tx,
    jobId,
    create: async (kind, input, more) => as(kind, await create(tx, jobId, kind, input as Values, more)),
    patch: (kind, id, version, fields) =>
      withFollowers(kind, () =>
        kindOf(kind).many ? patch(tx, jobId, kind, id, version, fields) : patchOnly(tx, jobId, kind, version, fields),
      ),
    take: async (kind, id, version) => as(kind, await put(tx, jobId, kind, id, version, true)),
    bring: async (kind, id, version) => as(kind, await put(tx, jobId, kind, id, version, false)),
  };
};

/** Makes an edit of a job, all of it or nothing, behind those that are under way there. */
export const edit = <T>(db: Db, jobId: string, work: (door: Door) => Promise<T>): Promise<T> =>
  db.transaction(async (tx) => {
    await lockJob(tx, jobId);
    return work(openDoor(tx, jobId));
  });

/** Jobs have no job above them: they are made one after another. */
const JOBS_LOCK = 4610;
export const lockJobs = (tx: Pick<Tx, "execute">): Promise<unknown> => tx.execute(sql`SELECT pg_advisory_xact_lock(${JOBS_LOCK})`);

/** Makes a job. @returns its row. */
export const makeJob = (db: Db, input: InputOf<"job">): Promise<RowOf<"job">> =>
  db.transaction(async (tx) => {
    // Whoever was given some jobs is given no new one.
    if (askerNow()?.jobIds != null) throw new Refused("not-allowed", "job");
    await lockJobs(tx);
    const id = randomUUID();
    return told("job", await create(tx, id, "job", input as Values, { id })) as unknown as RowOf<"job">;
  });
/** All records of a kind that a job has, in the order they were made; of a kind there is one of, that one as it starts. */
export const listRecords = async (db: Db, jobId: string, kind: string): Promise<(Values & { id: string; version: number })[]> => {
  const k = maySee(kind);
  const rows = await storeOf(kind).list(db as unknown as Tx, jobId);
  if (!k.many && rows.length === 0) return [{ ...(k.fields.parse({}) as Values), id: jobId, version: 0 }];
  return rows.map((row) => told(kind, row));
};

/** One record. @throws NotFound when the job has none of that id. */
export const getRecord = async <K extends KindName>(db: Db, jobId: string, kind: K, id: string): Promise<RowOf<K>> => {
  maySee(kind);
  const row = await storeOf(kind).read(db as unknown as Tx, id, false);
  if (row === null || row.jobId !== jobId || row.deleted) throw new NotFound(kind);
  return told(kind, row) as unknown as RowOf<K>;
};
