/* Where a relay is looked for, and which of those found stands first (ours). */
import type { Verdict } from "../link";

/** How far around both ends high ground is looked for: a share of the path, and at least this. */
const RELAY_AROUND_SHARE = 0.45;
const RELAY_AROUND_LEAST_M = 1500;

/** Reach of the search around both ends of a path, metres. */
export const relayAroundM = (pathM: number): number => Math.max(RELAY_AROUND_LEAST_M, RELAY_AROUND_SHARE * pathM);

export interface RelayLeg {
  readonly verdict: Verdict;
  /** What lacks to the policy; below 0 it is to spare; null where nothing is known. */
  readonly missM: number | null;
  readonly pathM: number;
}

export interface RelayCandidate {
  /** Null on bare ground. */
  readonly siteId: string | null;
  readonly aglM: number;
  /** Both legs are clear with the errors of ground and mounts counted. */
  readonly sure: boolean;
  readonly near: RelayLeg | null;
  readonly far: RelayLeg | null;
}

/** Whether both legs meet the policy as far as is known. */
export const relayServes = (r: RelayCandidate): boolean =>
  r.near !== null && r.far !== null && r.near.verdict !== "short" && r.far.verdict !== "short";

const NO_LEG_M = 1e6;
const lackM = (r: RelayCandidate): number => Math.max(r.near?.missM ?? NO_LEG_M, r.far?.missM ?? NO_LEG_M);
const weight = (r: RelayCandidate): number => (r.siteId === null ? r.aglM : 0) + Math.max(r.near?.pathM ?? 0, r.far?.pathM ?? 0) / 1000;

/**
 * Best relay first: sure ones, then those that serve, then by what lacks. Sites of the job come before bare ground, for
 * they have power and somebody to ask; among ground a metre of mast weighs as a kilometre of the longer leg.
 */
export const byRelayMerit = (a: RelayCandidate, b: RelayCandidate): number => {
  const rank = (r: RelayCandidate): number => (!relayServes(r) ? 2 : r.sure ? 0 : 1);
  if (rank(a) !== rank(b)) return rank(a) - rank(b);
  if (rank(a) === 2) return lackM(a) - lackM(b);
  if ((a.siteId === null) !== (b.siteId === null)) return a.siteId === null ? 1 : -1;
  return weight(a) - weight(b);
};
