import { sql } from "drizzle-orm";
import { tellJob } from "./changes";
import type { Db } from "./client";

/** Told by the database's triggers when what a verdict rests on has changed. */
export const VERDICT_CHANNEL = "dryarc_verdict";

/** A worker that took a link on and said nothing for so long has died with it. */
const CLAIM_SECONDS = 20;

export interface Stale {
  readonly linkId: string;
  readonly organisationId: string;
  readonly want: number;
}

/** Takes on some links whose verdict is stale, those that somebody waits for first. */
export const claimStale = async (db: Db, most: number): Promise<Stale[]> => {
  const r = await db.execute<{ link_id: string; organisation_id: string; want: string }>(sql`
    UPDATE link_verdict SET claimed_until = now() + make_interval(secs => ${CLAIM_SECONDS})
    WHERE link_id IN (
      SELECT v.link_id FROM link_verdict v
      WHERE v.have <> v.want AND (v.claimed_until IS NULL OR v.claimed_until < now())
      ORDER BY v.asked_at DESC NULLS LAST, v.job_id, v.link_id LIMIT ${most} FOR UPDATE OF v SKIP LOCKED)
    RETURNING link_id, organisation_id, want`);
  return r.rows.map((row) => ({ linkId: row.link_id, organisationId: row.organisation_id, want: Number(row.want) }));
};

/** Keeps a judgement, unless a newer one is there. */
export const keepJudgement = async (
  db: Db,
  { linkId, want }: Pick<Stale, "linkId" | "want">,
  judgement: unknown,
  program: string,
): Promise<void> => {
  await db.execute(sql`
    UPDATE link_verdict SET have = ${want}, judgement = ${JSON.stringify(judgement)}::jsonb, program = ${program}, claimed_until = NULL
    WHERE link_id = ${linkId} AND (have < ${want} OR program <> ${program})`);
};

/** Says that verdicts of a job are there. */
export const tellVerdicts = (db: Db, jobId: string): Promise<unknown> =>
  tellJob(db, { jobId, entity: "verdict", id: null, clientId: null });

/** Somebody waits for the stale verdicts of these jobs. Rows that an edit holds just now are left to the next asking: it waits for nobody. */
export const askFor = async (db: Db, jobIds: readonly string[]): Promise<void> => {
  await db.execute(sql`
    UPDATE link_verdict SET asked_at = now()
    WHERE link_id IN (
      SELECT link_id FROM link_verdict
      WHERE job_id = ANY(${sql.param([...jobIds])}::uuid[]) AND have <> want
        AND (asked_at IS NULL OR asked_at < now() - interval '3 seconds')
      FOR UPDATE SKIP LOCKED)`);
  await db.execute(sql`SELECT pg_notify(${VERDICT_CHANNEL}, '')`);
};

/** What another program worked out is to be worked out anew. What an edit holds just now comes after, one by one: never two at a time. */
export const verdictsOfOtherProgram = async (db: Db, program: string): Promise<void> => {
  await db.execute(sql`
    UPDATE link_verdict SET want = want + 1
    WHERE link_id IN (SELECT link_id FROM link_verdict WHERE have = want AND program <> ${program} FOR UPDATE SKIP LOCKED)`);
  const left = await db.execute<{ link_id: string }>(sql`SELECT link_id FROM link_verdict WHERE have = want AND program <> ${program}`);
  for (const { link_id } of left.rows)
    await db.execute(sql`UPDATE link_verdict SET want = want + 1 WHERE link_id = ${link_id} AND have = want AND program <> ${program}`);
};

/** How often what a link's verdict rests on has changed; null for a link that is not of this job. */
export const wantOf = async (db: Db, linkId: string, jobId: string): Promise<number | null> => {
  const r = await db.execute<{ want: string }>(sql`SELECT want FROM link_verdict WHERE link_id = ${linkId} AND job_id = ${jobId}`);
  return r.rows[0] === undefined ? null : Number(r.rows[0].want);
};

export interface VerdictRow extends Record<string, unknown> {
  readonly job_id: string;
  readonly link_id: string;
  readonly number: number;
  readonly label: string;
  readonly stage: string;
  readonly near_name: string;
  readonly near_lat: number;
  readonly near_lon: number;
  readonly far_name: string;
  readonly far_lat: number;
  readonly far_lon: number;
  readonly changed_at: Date;
  readonly revision: number;
  readonly want: string;
  readonly have: string;
  readonly judgement: unknown;
}

/** Links of jobs with what is kept of their verdicts, by number. */
export const verdictRows = async (db: Db, jobIds: readonly string[]): Promise<VerdictRow[]> => {
  const r = await db.execute<VerdictRow>(sql`
    SELECT l.job_id, l.id AS link_id, l.number, l.label, l.stage, n.name AS near_name, n.lat_deg AS near_lat, n.lon_deg AS near_lon,
      f.name AS far_name, f.lat_deg AS far_lat, f.lon_deg AS far_lon, greatest(l.updated_at, d.updated_at) AS changed_at,
      j.revision, v.want, v.have, v.judgement
    FROM link l JOIN job j ON j.id = l.job_id JOIN design d ON d.link_id = l.id AND d.chosen AND d.deleted_at IS NULL
      JOIN site n ON n.id = l.near_site_id JOIN site f ON f.id = l.far_site_id JOIN link_verdict v ON v.link_id = l.id
    WHERE l.job_id = ANY(${sql.param([...jobIds])}::uuid[]) AND l.deleted_at IS NULL
    ORDER BY l.number`);
  return r.rows;
};
