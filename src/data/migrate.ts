import path from "node:path";
import { fileURLToPath } from "node:url";
import { migrate } from "drizzle-orm/node-postgres/migrator";
import type { Db } from "./client";

/** Brings the database to the schema of this version. */
export const migrateDb = (db: Db): Promise<void> =>
  migrate(db, { migrationsFolder: path.join(path.dirname(fileURLToPath(import.meta.url)), "migrations") });
