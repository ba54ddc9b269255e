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
