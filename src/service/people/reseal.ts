import { randomBytes } from "node:crypto";
import { existsSync, renameSync, rmSync, writeFileSync } from "node:fs";
import { symmetricDecrypt, symmetricEncrypt } from "better-auth/crypto";
import { desc, sql } from "drizzle-orm";
import type { Db } from "../../data/client";
import { sealing } from "../../data/schema-people";
import { installationKey, keyFile, markOf, nextKeyFile, readKey, signInSecret } from "./secret-key";

/*
 * Another key for the installation. The next key is written down first, then all that is sealed is sealed by it in one transaction that
 * also notes its mark, then it takes the place of the old one. Wherever that is broken off, the mark says which of the two counts.
 */

/** What is sealed: columns of a table, with the key that tells its rows apart. */
const SEALED = [
  { table: sql.raw("auth.two_factor"), columns: ["secret", "backup_codes"] },
  { table: sql.raw("webhook"), columns: ["secret"] },
] as const;

/** Puts the next key in its place, or takes it away, where a change of keys was broken off. */
export const settleKey = async (doors: Db): Promise<void> => {
  const next = nextKeyFile();
  if (!existsSync(next)) return;
  const [last] = await doors.select().from(sealing).orderBy(desc(sealing.at)).limit(1);
  if (last?.mark === markOf(readKey(next))) renameSync(next, keyFile());
  else rmSync(next);
};

/**
 * Seals all that is sealed by a new key. No process of the application may be running: it holds the old one.
 * @returns how many secrets were sealed anew. @throws Error where one does not open by the old key: nothing is changed then.
 */
export const reseal = async (doors: Db): Promise<number> => {
  await settleKey(doors);
  installationKey();
  const [old, next] = [readKey(keyFile()), randomBytes(32)];
  writeFileSync(nextKeyFile(), next.toString("base64url"), { mode: 0o600, flag: "wx" });
  const [from, to] = [signInSecret(old), signInSecret(next)];
  let sealed = 0;
  try {
    await doors.transaction(async (tx) => {
      for (const { table, columns } of SEALED) {
        const rows = await tx.execute<Record<string, string>>(sql`SELECT * FROM ${table} FOR UPDATE`);
        for (const row of rows.rows)
          for (const column of columns) {
            // What ended keeps no secret.
            if (row[column] === "") continue;
            const open = await symmetricDecrypt({ key: from, data: row[column]! });
            const again = await symmetricEncrypt({ key: to, data: open });
            await tx.execute(sql`UPDATE ${table} SET ${sql.identifier(column)} = ${again} WHERE id = ${row.id}`);
            sealed++;
          }
      }
      await tx.insert(sealing).values({ mark: markOf(next) });
    });
  } catch (error) {
    await settleKey(doors);
    throw error;
  }
  renameSync(nextKeyFile(), keyFile());
  return sealed;
};
