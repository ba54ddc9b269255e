import { sql } from "drizzle-orm";
import { Refused } from "./clash";
import type { Db } from "./client";

/* Limits on what may be tried how often. They are counted in the database: every process sees the same ones. */

/**
 * Counts a try before it is made.
 * @param key what is tried, by whom: "sign-in account a@b", "sign-in from 10.0.0.7".
 * @throws Refused "too-many-tries" with the seconds to wait.
 */
export const countTry = async (db: Pick<Db, "execute">, key: string, most: number, withinS: number): Promise<void> => {
  const r = await db.execute<{ count: number; wait: number }>(sql`
    INSERT INTO auth.tries AS t (key, count, since) VALUES (${key}, 1, now())
    ON CONFLICT (key) DO UPDATE SET
      count = CASE WHEN t.since < now() - make_interval(secs => ${withinS}) THEN 1 ELSE t.count + 1 END,
      since = CASE WHEN t.since < now() - make_interval(secs => ${withinS}) THEN now() ELSE t.since END
    RETURNING count, ceil(extract(epoch FROM since + make_interval(secs => ${withinS}) - now()))::int AS wait`);
  const { count, wait } = r.rows[0]!;
  if (count > most) throw new Refused("too-many-tries", "sign-in", { waitS: Math.max(1, wait) });
};

/** What went well is not counted against anybody. */
export const forgetTries = (db: Pick<Db, "execute">, key: string): Promise<unknown> =>
  db.execute(sql`DELETE FROM auth.tries WHERE key = ${key}`);

const KEPT_HOURS = 24;
export const forgetOldTries = async (db: Pick<Db, "execute">): Promise<void> => {
  await db.execute(sql`DELETE FROM auth.tries WHERE since < now() - make_interval(hours => ${KEPT_HOURS})`);
  await db.execute(sql`DELETE FROM auth.challenge WHERE expires_at < now()`);
  await db.execute(sql`DELETE FROM auth.pairing WHERE expires_at < now() - interval '30 days'`);
  await db.execute(sql`DELETE FROM auth.session WHERE expires_at < now()`);
  await db.execute(sql`DELETE FROM auth.verification WHERE expires_at < now()`);
};
