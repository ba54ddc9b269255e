import { afterAll } from "vitest";
import { type Db, openDb } from "../client";

/** The database of the tests, seen as its administrator sees it, open while those of a file run. @throws Error without DATABASE_TEST_URL. */
export const testDb = (): Db => {
  const url = process.env.DATABASE_TEST_URL;
  if (url === undefined) throw new Error("DATABASE_TEST_URL is not set; run npm test");
  const { db, close } = openDb(url);
  afterAll(close);
  return db;
};
