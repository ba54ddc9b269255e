import { type Db, openDb } from "@/data/client";
import { editDb } from "@/data/made-edits";

const globals = globalThis as unknown as { dryArcDb?: Db };

/** The one pool of this process, outside any edit under way; kept over reloads in development. */
export const pool = (): Db => {
  const url = process.env.DATABASE_URL;
  if (url === undefined || url === "") throw new Error("DATABASE_URL is not set");
  globals.dryArcDb ??= openDb(url).db;
  return globals.dryArcDb;
};

/** The transaction of the edit under way, else the pool. */
export const db = (): Db => editDb() ?? pool();
