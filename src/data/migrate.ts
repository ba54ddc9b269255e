import path from "node:path";
import { fileURLToPath } from "node:url";
import { migrate } from "drizzle-orm/node-postgres/migrator";
import type { Db } from "./client";
import { liftGuards, setGuards } from "./row-guards";

/** Brings the database to the schema of this version, as its owner: what is there is changed without a guard, and guarded after. */
export const migrateDb = async (db: Db): Promise<void> => {
  await liftGuards(db);
  await migrate(db, { migrationsFolder: path.join(path.dirname(fileURLToPath(import.meta.url)), "migrations") });
  await setGuards(db);
};
