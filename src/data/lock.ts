import { sql } from "drizzle-orm";
import { mayTouch } from "./actor";
import type { Tx } from "./changes";
import { NotFound } from "./clash";

/** Where the job of a row is found, by kind of row. */
const JOB_OF = {
  site: (id: string) => sql`SELECT job_id FROM site WHERE id = ${id}`,
  link: (id: string) => sql`SELECT job_id FROM link WHERE id = ${id}`,
  design: (id: string) => sql`SELECT l.job_id FROM design d JOIN link l ON l.id = d.link_id WHERE d.id = ${id}`,
  photo: (id: string) => sql`SELECT job_id FROM photo WHERE id = ${id}`,
  obstacle: (id: string) => sql`SELECT job_id FROM obstacle WHERE id = ${id}`,
  feature: (id: string) => sql`SELECT job_id FROM feature WHERE id = ${id}`,
} as const;

/**
 * Locks the job that a row belongs to, before the row itself. Every writer does so in this one order, so that two who
 * write wait for each other and never block one another for good.
 * @throws NotFound when there is no such row, or it is one of another job than the one that is worked on.
 */
export const lockJobOf = async (tx: Tx, entity: keyof typeof JOB_OF, id: string): Promise<void> => {
  const found = await tx.execute<{ id: string }>(sql`SELECT id FROM job WHERE id = (${JOB_OF[entity](id)}) FOR UPDATE`);
  const [owner] = found.rows;
  if (owner === undefined || !mayTouch(owner.id)) throw new NotFound(entity);
};
