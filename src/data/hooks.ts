import { and, asc, desc, eq, inArray, isNull, sql } from "drizzle-orm";
import { NotFound } from "./clash";
import type { Db } from "./client";
import { change, job } from "./schema";
import { webhook, webhookDue } from "./schema-hooks";

/* Addresses of other programs that are told of changes: one line for each change and address, written with the change. */

export type HookRow = typeof webhook.$inferSelect;

const MOST_LISTED = 100;
/** Changes that one call tells of. */
export const MOST_AT_ONCE = 200;
/** How long a call may be under way before another process takes it up. */
const CLAIM = sql.raw("interval '30 seconds'");
/** The wait after one failure doubles with each, up to six hours; after so many it is left alone until an owner says otherwise. */
const WAIT_S = 15;
const MOST_WAIT_S = 21_600;
export const MOST_FAILURES = 15;
const KEPT_DAYS = 7;

/** Puts a change down for every address that wants it. */
export const putDown = (tx: Pick<Db, "execute">, changeId: number, jobId: string): Promise<unknown> =>
  tx.execute(sql`
    INSERT INTO webhook_due (webhook_id, organisation_id, change_id)
    SELECT id, organisation_id, ${changeId}::bigint FROM webhook
    WHERE organisation_id = (SELECT organisation_id FROM job WHERE job.id = ${jobId}::uuid) AND ended_at IS NULL
      AND (job_ids IS NULL OR job_ids @> to_jsonb(${jobId}::text))`);

export const hooksOf = (db: Db, organisationId: string): Promise<(HookRow & { due: number })[]> =>
  db
    .select({
      hook: webhook,
      due: sql<number>`(SELECT count(*)::int FROM webhook_due WHERE webhook_due.webhook_id = ${webhook.id})`,
    })
    .from(webhook)
    .where(and(eq(webhook.organisationId, organisationId), isNull(webhook.endedAt)))
    .orderBy(desc(webhook.createdAt), asc(webhook.id))
    .limit(MOST_LISTED)
    .then((rows) => rows.map((r) => ({ ...r.hook, due: r.due })));

export const hookOf = async (db: Db, organisationId: string, id: string): Promise<HookRow> => {
  const [row] = await db
    .select()
    .from(webhook)
    .where(and(eq(webhook.id, id), eq(webhook.organisationId, organisationId), isNull(webhook.endedAt)));
  if (row === undefined) throw new NotFound("webhook");
  return row;
};

/** Ends an address: what it was still to be told goes with it. @returns it. @throws NotFound */
export const endHookOf = (db: Db, organisationId: string, id: string): Promise<HookRow> =>
  db.transaction(async (tx) => {
    const [row] = await tx
      .update(webhook)
      .set({ endedAt: sql`now()`, secret: "" })
      .where(and(eq(webhook.id, id), eq(webhook.organisationId, organisationId), isNull(webhook.endedAt)))
      .returning();
    if (row === undefined) throw new NotFound("webhook");
    await tx.delete(webhookDue).where(eq(webhookDue.webhookId, id));
    return row;
  });

/** Takes an address in hand that has something to be told and may be called now; null when there is none. */
export const claimHook = async (db: Db): Promise<HookRow | null> => {
  const found = await db.execute<{ id: string }>(sql`
    UPDATE webhook SET claimed_until = now() + ${CLAIM} WHERE id = (
      SELECT h.id FROM webhook h
      WHERE h.ended_at IS NULL AND h.paused_at IS NULL AND h.next_at <= now() AND (h.claimed_until IS NULL OR h.claimed_until < now())
        AND EXISTS (SELECT FROM webhook_due d WHERE d.webhook_id = h.id)
      ORDER BY h.next_at LIMIT 1 FOR UPDATE SKIP LOCKED)
    RETURNING id`);
  const [id] = found.rows;
  if (id === undefined) return null;
  const [row] = await db.select().from(webhook).where(eq(webhook.id, id.id));
  return row ?? null;
};

/** The call that an address is told next: the one that failed before, or the oldest changes that are in none. */
export const callFor = (db: Db, hookId: string): Promise<{ readonly callId: string; readonly changeIds: readonly number[] }> =>
  db.transaction(async (tx) => {
    const tried = await tx
      .select({ callId: webhookDue.callId, changeId: webhookDue.changeId })
      .from(webhookDue)
      .where(and(eq(webhookDue.webhookId, hookId), sql`${webhookDue.callId} IS NOT NULL`))
      .orderBy(asc(webhookDue.changeId));
    if (tried.length > 0) return { callId: tried[0]!.callId!, changeIds: tried.map((r) => r.changeId) };
    const made = await tx.execute<{ call_id: string; change_id: string }>(sql`
      WITH call AS (SELECT gen_random_uuid() AS id),
        first AS (SELECT change_id FROM webhook_due WHERE webhook_id = ${hookId} ORDER BY change_id LIMIT ${MOST_AT_ONCE})
      UPDATE webhook_due d SET call_id = call.id FROM call, first
      WHERE d.webhook_id = ${hookId} AND d.change_id = first.change_id RETURNING d.call_id, d.change_id`);
    const changeIds = made.rows.map((r) => Number(r.change_id)).sort((a, b) => a - b);
    return { callId: made.rows[0]?.call_id ?? "", changeIds };
  });

export interface ToldChange {
  readonly seq: number;
  readonly jobId: string;
  readonly jobName: string;
  readonly entity: string;
  readonly entityId: string;
  readonly action: string;
  readonly at: Date;
}

/** Changes by their numbers, as the firm sees them: what is not its own is not there. */
export const changesBy = async (db: Db, ids: readonly number[]): Promise<ToldChange[]> => {
  const rows = await db
    .select({
      seq: change.id,
      jobId: change.jobId,
      jobName: job.name,
      entity: change.entity,
      entityId: change.entityId,
      action: change.action,
      at: change.at,
    })
    .from(change)
    .innerJoin(job, eq(job.id, change.jobId))
    .where(inArray(change.id, [...ids]))
    .orderBy(asc(change.id));
  return rows.map((r) => ({ ...r, jobId: r.jobId! }));
};

/** A call was taken: what it told of is done with. */
export const callTaken = (db: Db, hookId: string, callId: string, answer: string): Promise<unknown> =>
  db.transaction(async (tx) => {
    await tx.delete(webhookDue).where(and(eq(webhookDue.webhookId, hookId), eq(webhookDue.callId, callId)));
    await tx
      .update(webhook)
      .set({ failures: 0, claimedUntil: null, lastOkAt: sql`now()`, lastAnswer: answer, nextAt: sql`now()` })
      .where(eq(webhook.id, hookId));
  });

/** A call failed: the next try is later, or never until an owner says so. @param forGood it said that it wants no more. */
export const callFailed = (db: Db, hookId: string, answer: string, forGood: boolean): Promise<unknown> =>
  db.execute(sql`
    UPDATE webhook SET failures = failures + 1, claimed_until = NULL, last_answer = ${answer},
      next_at = now() + least(${MOST_WAIT_S}::float8, ${WAIT_S} * 2.0 ^ failures) * interval '1 second',
      paused_at = CASE WHEN ${forGood} OR failures + 1 >= ${MOST_FAILURES} THEN now() ELSE NULL END
    WHERE id = ${hookId}`);

/** An owner says that an address is there again. */
export const resumeHook = (db: Db, hookId: string): Promise<unknown> =>
  db.update(webhook).set({ failures: 0, pausedAt: null, claimedUntil: null, nextAt: sql`now()` }).where(eq(webhook.id, hookId));

/** Takes away what has waited too long, and counts it. */
export const dropOldDue = (db: Db): Promise<unknown> =>
  db.execute(sql`
    WITH old AS (DELETE FROM webhook_due WHERE at < now() - ${KEPT_DAYS} * interval '1 day' RETURNING webhook_id),
      counted AS (SELECT webhook_id, count(*)::int AS n FROM old GROUP BY webhook_id)
    UPDATE webhook SET dropped = dropped + counted.n FROM counted WHERE webhook.id = counted.webhook_id`);
