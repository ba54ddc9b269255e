import { drizzle, type NodePgDatabase } from "drizzle-orm/node-postgres";
import { GuardedPool } from "./guard";
import * as base from "./schema";
import * as shared from "./schema-shared";
import * as work from "./schema-work";

const schema = { ...base, ...shared, ...work };

export type Db = NodePgDatabase<typeof schema>;

const CONNECT_TIMEOUT_MS = 5000;
const STATEMENT_TIMEOUT_MS = 20_000;

/** Opens a pool. Nothing connects until the first query. */
export const openDb = (url: string, mostConnections = 10): { db: Db; close: () => Promise<void> } => {
  const pool = new GuardedPool({
    connectionString: url,
    max: mostConnections,
    connectionTimeoutMillis: CONNECT_TIMEOUT_MS,
    statement_timeout: STATEMENT_TIMEOUT_MS,
  });
  // A server that goes away breaks idle connections; the next query says so in its own words.
  pool.on("error", () => undefined);
  return { db: drizzle(pool, { schema }), close: () => pool.end() };
};

/** True when a failure means that the database cannot be reached, not that a statement was wrong. */
export const isUnreachable = (error: unknown): boolean => {
  for (let e: unknown = error; e instanceof Error; e = e.cause) {
    const code = (e as { code?: string }).code ?? "";
    if (/^(ECONN|EPIPE|ETIMEDOUT|ENOTFOUND|57P0|08)/.test(code)) return true;
    if (/timeout exceeded when trying to connect|Connection terminated|ECONNREFUSED|is not queryable/i.test(e.message)) return true;
  }
  return false;
};

const hasCode = (error: unknown, code: string): boolean => {
  for (let e: unknown = error; e instanceof Error; e = e.cause) if ((e as { code?: string }).code === code) return true;
  return false;
};

/** True when a row names another that does not exist (a radio, an antenna, a job). */
export const isBrokenReference = (error: unknown): boolean => hasCode(error, "23503");

/** True when a row of that id is there already, seen or not. */
export const isTaken = (error: unknown): boolean => hasCode(error, "23505");
