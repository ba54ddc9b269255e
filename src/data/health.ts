import { sql } from "drizzle-orm";
import type { Db } from "./client";

/** Asks the database for a sign of life. */
export const ping = async (db: Db): Promise<void> => {
  await db.execute(sql`SELECT 1`);
};
