/* The years ahead: what growth takes of the clearance, until when it holds, and when to look again. */
import { clearanceUnder, type LinkPlan, MET_WITHIN_M, type PreparedPath, type Verdict, type WorstPlace } from "../link";

/** As far as growth is followed; nobody knows a tree better (ours). */
export const MOST_YEARS = 30;
/** A chance below this wants another survey first (ours). */
const SURE_ENOUGH = 0.9;

export interface YearOfClearance {
  readonly year: number;
  readonly worst: WorstPlace | null;
  readonly met: boolean;
  /** Chance that the policy is met in that year; null when the ground is unknown. */
  readonly chance: number | null;
  /** Verdict of the year by itself. */
  readonly verdict: Verdict;
}

export interface Outlook {
  readonly years: readonly YearOfClearance[];
  /** Last year in which the policy is met; null when it is not met in the plan's year. */
  readonly clearUntilYear: number | null;
  /** Last year in which it is met in nine draws of ten; null when it is not in the plan's year. */
  readonly sureUntilYear: number | null;
  /** It holds as far as was looked. */
  readonly holds: boolean;
  /** Season in which what grows is to be measured again; null where nothing grows near the ray. */
  readonly surveyAgainYear: number | null;
}

const sureUntil = (rows: readonly YearOfClearance[], from: number): number | null => {
  const first = rows.find((r) => !r.met || (r.chance ?? 0) < SURE_ENOUGH);
  if (first === undefined) return rows[rows.length - 1]!.year;
  return first.year === from ? null : first.year - 1;
};

/** @param years how many years after the plan's are looked at, MOST_YEARS at most. */
export const outlook = (plan: LinkPlan, path: PreparedPath, years: number): Outlook => {
  const from = plan.policy.year;
  const rows: YearOfClearance[] = [];
  for (let year = from; year <= from + Math.min(MOST_YEARS, years); year++) {
    const c = clearanceUnder({ ...plan, policy: { ...plan.policy, year, horizonYears: 0 } }, path);
    rows.push({ year, worst: c.worst, met: c.worst !== null && c.worst.missM <= MET_WITHIN_M, chance: c.probability, verdict: c.verdict });
  }
  const lost = rows.find((r) => !r.met);
  const growing = new Set(path.near.filter((b) => b.body.growthMPerYear > 0).map((b) => b.body.id));
  const grows = growing.size > 0;
  // Measuring a tree again tells nothing where a wall or the ground decides.
  const unsure = rows.find(
    (r) => (!r.met || (r.chance ?? 0) < SURE_ENOUGH) && r.worst?.owner.kind === "body" && growing.has(r.worst.owner.id),
  );
  const last = from + plan.policy.horizonYears;
  return {
    years: rows,
    clearUntilYear: lost === undefined ? rows[rows.length - 1]!.year : lost.year === from ? null : lost.year - 1,
    sureUntilYear: sureUntil(rows, from),
    holds: lost === undefined,
    // The season before it grows doubtful, and at the latest when the job's years are over.
    surveyAgainYear: grows ? Math.max(from, Math.min(last, (unsure?.year ?? last + 1) - 1)) : null,
  };
};
