import type { Db } from "../data/client";
import type { JobRow } from "../data/jobs";
import { airOf, NO_LOAD } from "./air";
import { verdictsOfKept } from "./verdicts";

/** Loss by ground and bodies between the ends of a job's radios, by their keys. */
export const airLosses = async (db: Db, job: JobRow): Promise<{ readonly losses: Readonly<Record<string, number>> }> => {
  const verdicts = await verdictsOfKept(db, job.id);
  const { read } = await airOf(db, job.id, verdicts, NO_LOAD);
  return { losses: Object.fromEntries(read.losses) };
};
