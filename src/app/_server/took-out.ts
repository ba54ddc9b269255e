import { askerNow } from "@/data/actor";
import { writeAudit } from "@/data/people";
import { doors } from "./db";
import { addressOf } from "./who";

/** Writes into the book that somebody takes something out of the house; where nobody signs in there is nobody to name. */
export const tookOut = async (
  request: Request,
  what: "took-out-job" | "took-out-quote" | "took-out-pack" | "took-out-places",
  jobId: string,
): Promise<void> => {
  if (askerNow()?.personId != null) await writeAudit(doors(), what, { jobId, from: addressOf(request) });
};
