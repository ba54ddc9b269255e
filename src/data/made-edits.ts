import { AsyncLocalStorage } from "node:async_hooks";
import { sql } from "drizzle-orm";
import type { Db } from "./client";

/* An edit has a number that its browser gave it. It is made once, whatever becomes of its answer. */

const KEPT_DAYS = 14;

const held = new AsyncLocalStorage<Db>();

/** The transaction of the edit under way, if there is one. */
export const editDb = (): Db | undefined => held.getStore();

/**
 * Makes an edit, all of it in one transaction, or answers as when it was made before. A repeat that comes while the first
 * is under way waits for it.
 * @param work makes the edit, through editDb(). @returns its answer as JSON has it.
 */
export const onceOnly = (db: Db, editId: string, work: () => Promise<unknown>): Promise<unknown> =>
  db.transaction(async (tx) => {
    const mine = await tx.execute<{ id: string }>(sql`INSERT INTO made_edit (id) VALUES (${editId}) ON CONFLICT DO NOTHING RETURNING id`);
    if (mine.rows.length === 0) {
      const before = await tx.execute<{ answer: unknown }>(sql`SELECT answer FROM made_edit WHERE id = ${editId}`);
      return before.rows[0]?.answer ?? null;
    }
    const answer: unknown = JSON.parse(JSON.stringify((await held.run(tx as unknown as Db, work)) ?? null));
    await tx.execute(sql`UPDATE made_edit SET answer = ${JSON.stringify(answer)}::jsonb WHERE id = ${editId}`);
    return answer;
  });

export const forgetOldEdits = async (db: Db): Promise<void> => {
  await db.execute(sql`DELETE FROM made_edit WHERE at < now() - make_interval(days => ${KEPT_DAYS})`);
};
