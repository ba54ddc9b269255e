import { eq, sql } from "drizzle-orm";
import type { Db } from "./client";
import { change, job } from "./schema";

type Tx = Parameters<Parameters<Db["transaction"]>[0]>[0];

export type { Tx };

/** Writes an edit into the log and marks everything computed from the job as stale. */
export const recordChange = async (
  tx: Tx,
  input: { jobId: string; entity: string; entityId: string; action: string; before: unknown; after: unknown },
): Promise<void> => {
  await tx.insert(change).values(input);
  await tx
    .update(job)
    .set({ revision: sql`${job.revision} + 1`, updatedAt: sql`now()` })
    .where(eq(job.id, input.jobId));
};
