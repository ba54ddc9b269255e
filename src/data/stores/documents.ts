import { and, asc, eq, isNull, sql } from "drizzle-orm";
import { kindOf } from "../../contract";
import { brief } from "../schema";
import { record } from "../schema-work";
import type { Kept, Store } from "./store";

/** Values of a document, with the start value of what came since it was written. */
const filled = (name: string, doc: unknown): Record<string, unknown> => {
  const k = kindOf(name);
  const known = { ...(doc as Record<string, unknown>) };
  const { data } = k.fields.partial().safeParse(known);
  return { ...known, ...(data ?? {}) };
};

/** Kinds as documents of one table. */
export const documentStore = (name: string): Store => {
  const kept = (row: typeof record.$inferSelect): Kept => ({
    id: row.id,
    jobId: row.jobId,
    version: row.version,
    deleted: row.deletedAt !== null,
    values: filled(name, row.doc),
  });
  return {
    table: "record",
    read: async (tx, id, lock) => {
      const query = tx
        .select()
        .from(record)
        .where(and(eq(record.id, id), eq(record.kind, name)));
      const [row] = await (lock ? query.for("update") : query);
      return row === undefined ? null : kept(row);
    },
    list: async (tx, jobId) => {
      const rows = await tx
        .select()
        .from(record)
        .where(and(eq(record.jobId, jobId), eq(record.kind, name), isNull(record.deletedAt)))
        .orderBy(asc(record.createdAt), asc(record.id));
      return rows.map(kept);
    },
    insert: async (tx, row) => {
      const parent = kindOf(name).parent;
      const parentId = parent === "site" || parent === "link" ? (row.values[`${parent}Id`] as string) : null;
      await tx
        .insert(record)
        .values({ id: row.id, kind: name, jobId: row.jobId, parentId, doc: row.values, createdAt: sql`clock_timestamp()` });
    },
    write: async (tx, id, values, deleted) => {
      await tx
        .update(record)
        .set({
          doc: sql`${record.doc} || ${JSON.stringify(values)}::jsonb`,
          ...(deleted === undefined ? {} : { deletedAt: deleted ? sql`now()` : null }),
          version: sql`${record.version} + 1`,
          updatedAt: sql`now()`,
        })
        .where(and(eq(record.id, id), eq(record.kind, name)));
    },
  };
};

/** The brief: a document under the id of its job. */
export const briefStore: Store = {
  table: "brief",
  read: async (tx, id, lock) => {
    const query = tx.select().from(brief).where(eq(brief.jobId, id));
    const [row] = await (lock ? query.for("update") : query);
    return row === undefined
      ? null
      : { id, jobId: id, version: row.version, deleted: row.deletedAt !== null, values: kindOf("brief").fields.parse(row.doc) };
  },
  list: async (tx, jobId) => {
    const row = await briefStore.read(tx, jobId, false);
    return row === null ? [] : [row];
  },
  insert: async (tx, row) => {
    await tx.insert(brief).values({ jobId: row.jobId, doc: row.values });
  },
  write: async (tx, id, values) => {
    await tx
      .update(brief)
      .set({ doc: sql`${brief.doc} || ${JSON.stringify(values)}::jsonb`, version: sql`${brief.version} + 1`, updatedAt: sql`now()` })
      .where(eq(brief.jobId, id));
  },
};
