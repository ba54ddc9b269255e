import { asc, isNull, sql } from "drizzle-orm";
import type { Db } from "./client";
import { antenna, radio } from "./schema";

export interface RadioSheet {
  readonly id: string;
  readonly name: string;
  readonly bandKey: string;
  readonly family: string;
}

export const listRadios = (db: Db) => db.select().from(radio).where(isNull(radio.deletedAt)).orderBy(asc(radio.bandKey), asc(radio.name));
export const listAntennas = (db: Db) => db.select().from(antenna).where(isNull(antenna.deletedAt)).orderBy(asc(antenna.name));

/** Says whether the catalogue is the one it was: every write of a sheet changes it. */
export const hardwareKey = async (db: Db): Promise<string> => {
  const r = await db.execute<{ key: string }>(sql`
    SELECT md5(coalesce((SELECT string_agg(id || ' ' || version || ' ' || xmin::text || coalesce(deleted_at::text, ''), ',' ORDER BY id) FROM radio), '') || '|' ||
      coalesce((SELECT string_agg(id || ' ' || version || ' ' || xmin::text || coalesce(deleted_at::text, ''), ',' ORDER BY id) FROM antenna), '')) AS key`);
  return r.rows[0]?.key ?? "";
};

/** Writes data sheets, all or none; a sheet of the same id is replaced and its version rises. */
export const saveHardware = (
  db: Db,
  input: { radios: readonly RadioSheet[]; antennas: readonly { id: string; name: string }[]; source: string },
): Promise<void> =>
  db.transaction(async (tx) => {
    for (const sheet of input.radios) {
      const row = { name: sheet.name, bandKey: sheet.bandKey, family: sheet.family, sheet, source: input.source };
      await tx
        .insert(radio)
        .values({ id: sheet.id, ...row })
        .onConflictDoUpdate({
          target: radio.id,
          set: { ...row, version: sql`${radio.version} + 1`, updatedAt: sql`now()`, deletedAt: null },
        });
    }
    for (const sheet of input.antennas) {
      const row = { name: sheet.name, sheet, source: input.source };
      await tx
        .insert(antenna)
        .values({ id: sheet.id, ...row })
        .onConflictDoUpdate({
          target: antenna.id,
          set: { ...row, version: sql`${antenna.version} + 1`, updatedAt: sql`now()`, deletedAt: null },
        });
    }
  });

type Sheets<T> = readonly { readonly source: string; readonly sheet: T }[];

/** Adds data sheets that are not here, within a transaction; what is here stays as it is. */
export const addHardware = async (
  tx: Pick<Db, "insert">,
  given: { readonly radios: Sheets<{ id: string; name: string }>; readonly antennas: Sheets<{ id: string; name: string }> },
  importId: string,
): Promise<void> => {
  for (const { source, sheet } of given.radios) {
    const { id, name, bandKey, family } = sheet as RadioSheet;
    await tx
      .insert(radio)
      .values({ id, name, bandKey, family, sheet, source, importId })
      .onConflictDoUpdate({
        // A sheet that was taken away before comes back as the bundle has it.
        target: radio.id,
        set: { name, bandKey, family, sheet, source, importId, deletedAt: null },
        setWhere: sql`${radio.deletedAt} IS NOT NULL`,
      });
  }
  for (const { source, sheet } of given.antennas) {
    const { id, name } = sheet;
    await tx
      .insert(antenna)
      .values({ id, name, sheet, source, importId })
      .onConflictDoUpdate({
        target: antenna.id,
        set: { name, sheet, source, importId, deletedAt: null },
        setWhere: sql`${antenna.deletedAt} IS NOT NULL`,
      });
  }
};
