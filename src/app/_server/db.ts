import { type Db, openDb } from "@/data/client";

const globals = globalThis as unknown as { dryArcDb?: Db };

/** The one pool of this process; kept over reloads in development. */
export const db = (): Db => {
  const url = process.env.DATABASE_URL;
  if (url === undefined || url === "") throw new Error("DATABASE_URL is not set");
  globals.dryArcDb ??= openDb(url).db;
  return globals.dryArcDb;
};
