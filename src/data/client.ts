import { drizzle, type NodePgDatabase } from "drizzle-orm/node-postgres";
import type { PoolConfig } from "pg";
import { GuardedPool } from "./guard";
import * as base from "./schema";
import * as shared from "./schema-shared";
import * as work from "./schema-work";

const schema = { ...base, ...shared, ...work };

export type Db = NodePgDatabase<typeof schema>;

const CONNECT_TIMEOUT_MS = 5000;
const STATEMENT_TIMEOUT_MS = 20_000;
/** A connection that is kept keeps its plans; one that is opened anew makes them anew. */
const IDLE_MS = 300_000;

/**
 * Opens a pool. Nothing connects until the first query.
 * @param sendsAhead a connection takes the next statement before it has answered the last; COPY and cursors do not go over such.
 */
export const openDb = (url: string, mostConnections = 10, sendsAhead = false): { db: Db; close: () => Promise<void> } => {
  const pool = new GuardedPool({
    connectionString: url,
    max: mostConnections,
    connectionTimeoutMillis: CONNECT_TIMEOUT_MS,
    idleTimeoutMillis: IDLE_MS,
    statement_timeout: STATEMENT_TIMEOUT_MS,
    pipeline: sendsAhead,
  } as PoolConfig);
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
