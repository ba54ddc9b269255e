import { afterAll } from "vitest";
import { type Db, openDb } from "../client";

/** The database of the tests, open while those of a file run. @throws Error without DATABASE_URL. */
export const testDb = (): Db => {
  const url = process.env.DATABASE_URL;
  if (url === undefined) throw new Error("DATABASE_URL is not set; run npm test");
  const { db, close } = openDb(url);
  afterAll(close);
  return db;
};
