import { sql } from "drizzle-orm";
import type { Db } from "./client";

/** A worker that said nothing for so long is away. */
const AWAY_SECONDS = 15;

/** Says that a process is alive. */
export const beatNow = async (db: Db, id: string): Promise<void> => {
  await db.execute(sql`INSERT INTO beat (id) VALUES (${id}) ON CONFLICT (id) DO UPDATE SET at = now()`);
  await db.execute(sql`DELETE FROM beat WHERE at < now() - interval '1 day'`);
};

/** True when a worker is alive. */
export const workerIsThere = async (db: Db): Promise<boolean> => {
  const r = await db.execute<{ there: boolean }>(
    sql`SELECT EXISTS (SELECT FROM beat WHERE at > now() - make_interval(secs => ${AWAY_SECONDS})) AS there`,
  );
  return r.rows[0]?.there === true;
};
