import { type Db, openDb } from "@/data/client";
import { editDb } from "@/data/made-edits";

const globals = globalThis as unknown as { dryArcDb?: Db; dryArcDoors?: Db };

const CONNECTIONS = 10;

const named = (name: string): string => {
  const url = process.env[name];
  if (url === undefined || url === "") throw new Error(`${name} is not set`);
  return url;
};

/** The one pool of this process, outside any edit under way; kept over reloads in development. */
export const pool = (): Db => {
  globals.dryArcDb ??= openDb(named("DATABASE_URL"), CONNECTIONS, true).db;
  return globals.dryArcDb;
};

/** The transaction of the edit under way, else the pool. */
export const db = (): Db => editDb() ?? pool();

/** Who there is and what lets them in: another role of the database, the only one that may look there. */
export const doors = (): Db => {
  globals.dryArcDoors ??= openDb(named("DATABASE_DOOR_URL"), CONNECTIONS, true).db;
  return globals.dryArcDoors;
};
