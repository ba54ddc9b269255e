import { type Db, openDb } from "@/data/client";
import { editDb } from "@/data/made-edits";

const globals = globalThis as unknown as { dryArcDb?: Db };

/** The transaction of the edit under way, else the one pool of this process; kept over reloads in development. */
export const db = (): Db => {
  const edit = editDb();
  if (edit !== undefined) return edit;
  const url = process.env.DATABASE_URL;
  if (url === undefined || url === "") throw new Error("DATABASE_URL is not set");
  globals.dryArcDb ??= openDb(url).db;
  return globals.dryArcDb;
};
