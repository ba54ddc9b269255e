import { asc, eq, getTableColumns, getTableName, isNull, type SQL, sql } from "drizzle-orm";
import type { PgColumn, PgTable } from "drizzle-orm/pg-core";
import { kindOf } from "../../contract";
import type { Kept, Store } from "./store";

/* Kinds in columns of a table: a field has the name of its column's property. */

type Columns = Record<string, PgColumn>;

/** Keys of a kind, as its table has them. */
const keysOf = (name: string): readonly string[] => {
  const k = kindOf(name);
  return [...Object.keys(k.fixed.shape), ...Object.keys(k.fields.shape)];
};

/**
 * @param jobOf where the job of a row stands, when not in a column of its own.
 * @param idColumn the property that names a row, when not "id".
 */
export const columnStore = (name: string, table: PgTable, jobOf?: SQL<string>): Store => {
  const columns = getTableColumns(table) as Columns;
  const keys = keysOf(name);
  for (const key of keys) if (columns[key] === undefined) throw new RangeError(`${name} has no column ${key}`);
  const { id, version, deletedAt, createdAt, jobId } = columns;
  const selection = {
    ...Object.fromEntries(keys.map((key) => [key, columns[key]!])),
    id: id!,
    version: version!,
    deletedAt: deletedAt!,
    jobOfRow: (jobOf ?? jobId!) as PgColumn,
  };
  const kept = (row: Record<string, unknown>): Kept => ({
    id: String(row.id),
    jobId: String(row.jobOfRow),
    version: Number(row.version),
    deleted: row.deletedAt !== null,
    values: Object.fromEntries(keys.map((key) => [key, row[key]])),
  });
  return {
    table: getTableName(table),
    read: async (tx, rowId, lock) => {
      const query = tx.select(selection).from(table).where(eq(id!, rowId));
      const [row] = await (lock ? query.for("update") : query);
      return row === undefined ? null : kept(row);
    },
    list: async (tx, ofJob) => {
      const rows = await tx
        .select(selection)
        .from(table)
        .where(sql`${jobOf ?? jobId!} = ${ofJob} AND ${isNull(deletedAt!)}`)
        .orderBy(asc(createdAt!), asc(id!));
      return rows.map(kept);
    },
    insert: async (tx, row) => {
      // Rows made in one transaction keep their order.
      const own = { ...row.values, id: row.id, createdAt: sql`clock_timestamp()`, ...(jobId === undefined ? {} : { jobId: row.jobId }) };
      await tx.insert(table).values((row.bytes === undefined ? own : { ...own, bytes: row.bytes }) as never);
    },
    write: async (tx, rowId, values, deleted) => {
      await tx
        .update(table)
        .set({
          ...values,
          ...(deleted === undefined ? {} : { deletedAt: deleted ? sql`now()` : null }),
          version: sql`${version!} + 1`,
          updatedAt: sql`now()`,
        } as never)
        .where(eq(id!, rowId));
    },
  };
};
