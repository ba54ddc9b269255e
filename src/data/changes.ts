import { eq, sql } from "drizzle-orm";
import { isKind, kindOf } from "../contract";
import { clientNow, mayTouch, signedNow, stepNow } from "./actor";
import { NotFound } from "./clash";
import type { Db } from "./client";
import { putDown } from "./hooks";
import { change, job } from "./schema";

type Tx = Parameters<Parameters<Db["transaction"]>[0]>[0];

export type { Tx };

/** Channel on which every edit of a job is told, with who made it. */
export const JOB_CHANNEL = "dryarc_job";

export interface JobNews {
  readonly jobId: string;
  /** What changed: an entity of the log, or "import" while one is under way. */
  readonly entity: string;
  /** Which one; null when it is more than one. */
  readonly id: string | null;
  readonly clientId: string | null;
}

/** Tells every listener, once the transaction is through. */
export const tellJob = (tx: Pick<Tx, "execute">, news: JobNews): Promise<unknown> =>
  tx.execute(sql`SELECT pg_notify(${JOB_CHANNEL}, ${JSON.stringify(news)})`);

/** Whether an edit changed nothing but words that no figure rests on. */
const onlyWords = (input: { readonly entity: string; readonly action: string; readonly after: unknown }): boolean => {
  const words: readonly string[] = (isKind(input.entity) ? kindOf(input.entity).noFigures : undefined) ?? [];
  const fields = Object.keys((input.after ?? {}) as object).filter((key) => key !== "title_");
  return input.action === "update" && fields.length > 0 && fields.every((key) => words.includes(key));
};

/** Writes an edit into the log, marks everything computed from the job as stale, and tells who listens. */
export const recordChange = async (
  tx: Tx,
  input: { jobId: string; entity: string; entityId: string; action: string; before: unknown; after: unknown; undoes?: number },
): Promise<void> => {
  if (!mayTouch(input.jobId)) throw new NotFound(input.entity);
  const clientId = clientNow();
  const [made] = await tx
    .insert(change)
    .values({ ...input, ...signedNow(), clientId, step: stepNow() })
    .returning({ id: change.id });
  await putDown(tx, made!.id, input.jobId);
  await tx
    .update(job)
    .set({ ...(onlyWords(input) ? {} : { revision: sql`${job.revision} + 1` }), updatedAt: sql`now()` })
    .where(eq(job.id, input.jobId));
  await tellJob(tx, { jobId: input.jobId, entity: input.entity, id: input.entityId, clientId });
};
