import type { BecomesDto } from "../../contract";
import { NotFound, Refused } from "../../data/clash";
import type { Db } from "../../data/client";
import { jobsOfFirm } from "../../data/people";

/* What bounds a coming in: jobs that are the firm's, and a last day. */

export const DAY_MS = 86_400_000;
const MOST_DAYS = 366;

/** Jobs, each of the firm. @throws NotFound for one that is not. */
export const ownJobIds = async (db: Pick<Db, "select">, organisationId: string, ids: readonly string[]): Promise<string[]> => {
  const jobIds = await jobsOfFirm(db, organisationId, ids);
  if (jobIds.length !== new Set(ids).size) throw new NotFound("job");
  return jobIds;
};

/** What becomes of somebody, with only the jobs that are of the firm. @throws NotFound for one that is not. */
export const ownJobs = async (db: Pick<Db, "select">, organisationId: string, b: BecomesDto): Promise<BecomesDto> =>
  b.jobIds === null ? b : { ...b, jobIds: await ownJobIds(db, organisationId, b.jobIds) };

/**
 * The moment at which a last day ends. @param what it is that opens until then, in words.
 * @throws Refused for a day that is over, or more than a year away.
 */
export const endOfDay = (endsOn: string, what: string): Date => {
  const at = new Date(Date.parse(`${endsOn}T00:00:00Z`) + DAY_MS);
  const days = (at.getTime() - Date.now()) / DAY_MS;
  if (days <= 0) throw new Refused("invalid", "endsOn", {}, "that day is over");
  if (days > MOST_DAYS) throw new Refused("invalid", "endsOn", {}, `${what} opens for a year at most`);
  return at;
};
