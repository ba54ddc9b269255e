import { randomUUID } from "node:crypto";
import { isDeepStrictEqual } from "node:util";
import { and, asc, eq, isNull, type SQL, sql } from "drizzle-orm";
import type { HardwareStepDto } from "../contract";
import { clientNow } from "./actor";
import { NotFound, Refused } from "./clash";
import type { Db } from "./client";
import { forAllJobs } from "./guard";
import { change } from "./schema";
import { antenna, NO_FIRM, part, radio } from "./schema-shared";

export interface RadioSheet {
  readonly id: string;
  readonly name: string;
  readonly bandKey: string;
  readonly family: string;
}

type Kind = "radio" | "antenna" | "part";
const TABLES = { radio, antenna, part } as const;

const OWN = sql`(SELECT own_organisation())`;

/** Sheets that count for whoever works: the firm's own, and of those that ship the ones that it has none of its own of. */
const inForce = (kind: Kind): SQL => {
  const table = TABLES[kind];
  const name = sql.identifier(kind);
  return sql`(${table.organisationId} = ${OWN} OR (${table.organisationId} = ${NO_FIRM}
    AND NOT EXISTS (SELECT FROM ${name} AS own WHERE own.organisation_id = ${OWN} AND own.id = ${table.id})))`;
};
const standingNow = (kind: Kind) => and(isNull(TABLES[kind].deletedAt), inForce(kind));

export const listRadios = (db: Db) => db.select().from(radio).where(standingNow("radio")).orderBy(asc(radio.bandKey), asc(radio.name));
export const listParts = (db: Db) => db.select().from(part).where(standingNow("part")).orderBy(asc(part.kind), asc(part.name));
export const listAntennas = (db: Db) => db.select().from(antenna).where(standingNow("antenna")).orderBy(asc(antenna.name));

/** Sheets of what is wired, as they are kept. */
export interface KeptPart {
  readonly id: string;
  readonly name: string;
  readonly kind: string;
}

/** Names every write of a table's sheets that whoever works may see. */
const keyOf = (kind: Kind): SQL =>
  sql`coalesce((SELECT string_agg(id || ' ' || version || ' ' || xmin::text || coalesce(deleted_at::text, ''), ',' ORDER BY id, organisation_id)
    FROM ${sql.identifier(kind)} WHERE organisation_id IN (${OWN}, ${NO_FIRM})), '')`;

/** Says whether the parts are those they were. */
export const partsKey = async (db: Db): Promise<string> => {
  const r = await db.execute<{ key: string }>(sql`SELECT md5(${keyOf("part")}) AS key`);
  return r.rows[0]?.key ?? "";
};

/** Says whether the catalogue is the one it was: every write of a sheet changes it. */
export const hardwareKey = async (db: Db): Promise<string> => {
  const r = await db.execute<{ key: string }>(sql`SELECT md5(${keyOf("radio")} || '|' || ${keyOf("antenna")}) AS key`);
  return r.rows[0]?.key ?? "";
};

/** Source of the sheets that come with the program. */
export const SHIPPED = "catalogue";

type Tx = Parameters<Parameters<Db["transaction"]>[0]>[0];
/** A sheet as the log keeps it; null where there is none. */
interface Logged {
  readonly sheet: { readonly id: string; readonly name: string };
  readonly source: string;
}

/**
 * The catalogue belongs to no job: its edits come one after another by a lock of their own. What rests on a sheet may lie in jobs that
 * whoever edits it was not given: this transaction works for all of the firm.
 */
const lockCatalogue = async (tx: Pick<Db, "execute">): Promise<void> => {
  await tx.execute(sql`SELECT pg_advisory_xact_lock(hashtext('dry-arc catalogue'))`);
  await forAllJobs(tx);
};

const standing = async (tx: Tx, kind: Kind, id: string): Promise<Logged | null> => {
  const table = TABLES[kind];
  const [row] = await tx
    .select({ sheet: table.sheet, source: table.source, deletedAt: table.deletedAt })
    .from(table)
    .where(and(eq(table.id, id), inForce(kind)));
  return row === undefined || row.deletedAt !== null ? null : { sheet: row.sheet as Logged["sheet"], source: row.source };
};

const write = async (tx: Tx, kind: Kind, { sheet, source }: Logged): Promise<void> => {
  if (kind === "radio") {
    const { bandKey, family } = sheet as RadioSheet;
    const row = { name: sheet.name, bandKey, family, sheet, source };
    await tx
      .insert(radio)
      .values({ id: sheet.id, ...row })
      .onConflictDoUpdate({
        target: [radio.organisationId, radio.id],
        set: { ...row, version: sql`${radio.version} + 1`, updatedAt: sql`now()`, deletedAt: null },
      });
  } else if (kind === "part") {
    const row = { name: sheet.name, kind: (sheet as KeptPart).kind, sheet, source };
    await tx
      .insert(part)
      .values({ id: sheet.id, ...row })
      .onConflictDoUpdate({
        target: [part.organisationId, part.id],
        set: { ...row, version: sql`${part.version} + 1`, updatedAt: sql`now()`, deletedAt: null },
      });
  } else {
    const row = { name: sheet.name, sheet, source };
    await tx
      .insert(antenna)
      .values({ id: sheet.id, ...row })
      .onConflictDoUpdate({
        target: [antenna.organisationId, antenna.id],
        set: { ...row, version: sql`${antenna.version} + 1`, updatedAt: sql`now()`, deletedAt: null },
      });
  }
};

/**
 * Writes data sheets, all or none, as one step of the catalogue's log; a sheet of the same id is replaced and its version rises,
 * one that is the same already stays as it is. What ships with the program is not a step that people could take back.
 */
export const saveHardware = (
  db: Db,
  input: {
    readonly radios?: readonly RadioSheet[];
    readonly antennas?: readonly { readonly id: string; readonly name: string }[];
    readonly parts?: readonly KeptPart[];
    readonly source: string;
  },
): Promise<void> =>
  db.transaction(async (tx) => {
    await lockCatalogue(tx);
    const step = randomUUID();
    const given = [
      ...(input.radios ?? []).map((sheet) => ["radio", sheet] as const),
      ...(input.antennas ?? []).map((sheet) => ["antenna", sheet] as const),
      ...(input.parts ?? []).map((sheet) => ["part", sheet] as const),
    ];
    for (const [kind, sheet] of given) {
      const before = await standing(tx, kind, sheet.id);
      const after: Logged = { sheet, source: input.source };
      if (isDeepStrictEqual(before, JSON.parse(JSON.stringify(after)))) continue;
      await write(tx, kind, after);
      if (input.source !== "own") continue;
      await tx.insert(change).values({
        jobId: null,
        entity: kind,
        entityId: sheet.id,
        action: before === null ? "create" : "patch",
        before,
        after,
        clientId: clientNow(),
        step,
      });
    }
  });

interface MarkedSheet {
  readonly id: string;
  readonly name: string;
  readonly stock?: number | undefined;
  readonly retired?: boolean | undefined;
}
/** What a firm says of a sheet beside its figures. */
const marksOf = (sheet: MarkedSheet): Pick<MarkedSheet, "stock" | "retired"> => ({
  ...(sheet.stock === undefined ? {} : { stock: sheet.stock }),
  ...(sheet.retired === true ? { retired: true } : {}),
});

/**
 * Brings sheets that ship with the program up to what ships now: those that are new come in, those that ship otherwise than they stand
 * are replaced with their count and whether they are retired kept. Sheets of one's own and sheets taken away stay as they are.
 * @param alsoNew false: only those that a firm has a copy of, counted or retired. @returns how many were written.
 */
export const refreshShipped = (
  db: Db,
  shipped: { readonly radios: readonly RadioSheet[]; readonly antennas: readonly MarkedSheet[]; readonly parts: readonly KeptPart[] },
  alsoNew = true,
): Promise<number> =>
  db.transaction(async (tx) => {
    await lockCatalogue(tx);
    let written = 0;
    for (const [kind, sheets] of [
      ["radio", shipped.radios],
      ["antenna", shipped.antennas],
      ["part", shipped.parts],
    ] as const) {
      const table = TABLES[kind];
      const rows = await tx
        .select({ id: table.id, sheet: table.sheet, source: table.source, deletedAt: table.deletedAt })
        .from(table)
        .where(eq(table.organisationId, OWN));
      const there = new Map(rows.map((r) => [r.id, r]));
      for (const sheet of sheets) {
        const row = there.get(sheet.id);
        if (row === undefined ? !alsoNew : row.source !== SHIPPED || row.deletedAt !== null) continue;
        const next = { ...sheet, ...(row === undefined ? {} : marksOf(row.sheet as MarkedSheet)) };
        if (row !== undefined && isDeepStrictEqual(row.sheet, JSON.parse(JSON.stringify(next)))) continue;
        await write(tx, kind, { sheet: next, source: SHIPPED });
        written++;
      }
    }
    return written;
  });

/** What a firm says of a sheet beside its figures; null or false takes it back. */
export interface SheetMarks {
  readonly stock?: number | null | undefined;
  readonly retired?: boolean | undefined;
}

/** Counts what is at hand of a radio or an antenna, or retires it, also one that ships: a step that can be taken back. */
export const markSheet = (db: Db, kind: Kind, id: string, marks: SheetMarks): Promise<void> =>
  db.transaction(async (tx) => {
    await lockCatalogue(tx);
    const before = await standing(tx, kind, id);
    if (before === null) throw new NotFound(kind);
    const {
      stock: wasStock,
      retired: wasRetired,
      ...sheet
    } = before.sheet as Logged["sheet"] & { readonly stock?: number; readonly retired?: boolean };
    const stock = marks.stock === undefined ? wasStock : (marks.stock ?? undefined);
    const retired = marks.retired ?? wasRetired === true;
    const after: Logged = { ...before, sheet: { ...sheet, ...(stock === undefined ? {} : { stock }), ...(retired ? { retired } : {}) } };
    if (isDeepStrictEqual(before, after)) return;
    await write(tx, kind, after);
    await tx
      .insert(change)
      .values({ jobId: null, entity: kind, entityId: id, action: "patch", before, after, clientId: clientNow(), step: randomUUID() });
  });

const MOST_STEPS = 30;

/** The last steps of the catalogue, newest first. */
export const hardwareHistory = async (db: Db): Promise<readonly HardwareStepDto[]> => {
  const rows = await db.execute<{ step: string; at: string; mine: boolean; undone: boolean; names: string[]; made: boolean }>(sql`
    SELECT step, max(at)::text AS at, bool_and(client_id IS NOT DISTINCT FROM ${clientNow()}) AS mine, bool_or(undone) AS undone,
      array_agg(coalesce(after -> 'sheet' ->> 'name', before -> 'sheet' ->> 'name') ORDER BY id) AS names, bool_and(action = 'create') AS made
    FROM change WHERE job_id IS NULL AND organisation_id = ${OWN} AND entity IN ('radio', 'antenna', 'part') AND step IS NOT NULL
    GROUP BY step ORDER BY max(id) DESC LIMIT ${MOST_STEPS}`);
  return rows.rows.map((r) => ({ ...r, at: new Date(r.at).toISOString() }));
};

/** Of a record "r": it is a wiring with that part. */
export const wiredWith = (partId: SQL): SQL => sql`(r.kind = 'wiring' AND r.deleted_at IS NULL
  AND (r.doc -> 'places' @> jsonb_build_array(jsonb_build_object('partId', ${partId}::text))
    OR r.doc -> 'leads' @> jsonb_build_array(jsonb_build_object('cableId', ${partId}::text))))`;

const refusePartInUse = async (tx: Tx, { sheet }: Logged): Promise<void> => {
  const used = await tx.execute<{ name: string }>(sql`
    SELECT j.name FROM record r JOIN job j ON j.id = r.job_id
    WHERE ${wiredWith(sql`${sheet.id}`)} AND j.deleted_at IS NULL AND j.organisation_id = ${OWN} LIMIT 1`);
  const job = used.rows[0]?.name;
  if (job !== undefined) throw new Refused("hardware-in-use", "part", { name: sheet.name, job });
};

const refuseInUse = async (tx: Tx, kind: Kind, logged: Logged): Promise<void> => {
  if (kind === "part") return refusePartInUse(tx, logged);
  const { sheet } = logged;
  const where =
    kind === "radio"
      ? sql`d.near_radio_id = ${sheet.id} OR d.far_radio_id = ${sheet.id}`
      : sql`d.near_antenna_id = ${sheet.id} OR d.far_antenna_id = ${sheet.id}`;
  const used = await tx.execute<{ name: string }>(sql`
    SELECT j.name FROM design d JOIN link l ON l.id = d.link_id JOIN job j ON j.id = l.job_id
    WHERE d.deleted_at IS NULL AND l.deleted_at IS NULL AND j.deleted_at IS NULL AND j.organisation_id = ${OWN} AND (${where}) LIMIT 1`);
  const job = used.rows[0]?.name;
  if (job !== undefined) throw new Refused("hardware-in-use", kind, { name: sheet.name, job });
};

const ofStep = (step: string) => and(eq(change.step, step), isNull(change.jobId), eq(change.organisationId, OWN));

/**
 * Takes a step of the catalogue back, or does it again, all or none.
 * @throws NotFound for a step that is none; Refused "hardware-changed" where a sheet was changed since, "hardware-in-use" where a
 * design has what would go.
 */
export const stepHardware = (db: Db, step: string): Promise<void> =>
  db.transaction(async (tx) => {
    await lockCatalogue(tx);
    const rows = await tx.select().from(change).where(ofStep(step)).orderBy(asc(change.id));
    if (rows.length === 0) throw new NotFound("edit");
    for (const row of rows) {
      const kind = row.entity as Kind;
      const [from, to] = (row.undone ? [row.before, row.after] : [row.after, row.before]) as [Logged | null, Logged | null];
      const now = await standing(tx, kind, row.entityId);
      if (!isDeepStrictEqual(now, from)) throw new Refused("hardware-changed", kind, { name: (from ?? to)!.sheet.name });
      if (to !== null) await write(tx, kind, to);
      else {
        await refuseInUse(tx, kind, from!);
        await tx
          .update(TABLES[kind])
          .set({ deletedAt: sql`now()` })
          .where(and(eq(TABLES[kind].id, row.entityId), eq(TABLES[kind].organisationId, OWN)));
      }
    }
    await tx.update(change).set({ undone: !rows[0]!.undone }).where(ofStep(step));
  });

type Sheets<T> = readonly { readonly source: string; readonly sheet: T }[];

/** Adds data sheets that are not here, within a transaction, as the firm's own; what is here stays as it is. */
export const addHardware = async (
  tx: Tx,
  given: {
    readonly radios: Sheets<{ id: string; name: string }>;
    readonly antennas: Sheets<{ id: string; name: string }>;
    readonly parts: Sheets<KeptPart>;
  },
  importId: string,
): Promise<void> => {
  await lockCatalogue(tx);
  for (const [kind, sheets] of [
    ["radio", given.radios],
    ["part", given.parts],
    ["antenna", given.antennas],
  ] as const) {
    const table = TABLES[kind];
    for (const { source, sheet } of sheets) {
      if ((await standing(tx, kind, sheet.id)) !== null) continue;
      // A sheet that was taken away before comes back as the bundle has it.
      await write(tx, kind, { sheet, source });
      await tx
        .update(table)
        .set({ importId })
        .where(and(eq(table.id, sheet.id), eq(table.organisationId, OWN)));
    }
  }
};
