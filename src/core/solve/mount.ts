/* What a hub comes to from one spot: at which height most of its remotes are served, then cleared, then seen (ours). */
import { planUnder, type TriedRemote } from "../hub";
import { clearanceUnder, pathStateOf, preparePath, serviceOf } from "../link";
import { needInRange } from "../units";

export interface MountOutcome {
  readonly aglM: number;
  /** Need kept with the sector turned to it; the policy met; the bare line free. */
  readonly served: number;
  readonly cleared: number;
  readonly seen: number;
  readonly of: number;
  /** Remotes that are not served from there. */
  readonly lost: readonly string[];
}

const MOST_HEIGHTS = 12;

/** Heights from low to high, both among them, at most a dozen. */
export const heightsBetween = (lowM: number, highM: number): number[] => {
  const steps = Math.max(1, Math.min(MOST_HEIGHTS - 1, Math.ceil(highM - lowM)));
  return lowM >= highM
    ? [highM]
    : Array.from({ length: steps + 1 }, (_, i) => Math.round((lowM + ((highM - lowM) * i) / steps) * 100) / 100);
};

/** Better of two: more served, more cleared, more seen, then lower. */
export const byMount = (a: MountOutcome, b: MountOutcome): number =>
  b.served - a.served || b.cleared - a.cleared || b.seen - a.seen || a.aglM - b.aglM;

/**
 * @param remotes each with its path sampled from the spot.
 * @returns the best height between two. @throws RangeError for heights below 0.
 */
export const mountOutcome = (remotes: readonly TriedRemote[], lowM: number, highM: number): MountOutcome => {
  needInRange("lowest mount, m", lowM, 0, 500);
  needInRange("highest mount, m", highM, 0, 500);
  const paths = remotes.map((r) => preparePath(planUnder(r, { hub: null, remote: null, aim: null }), r.profile));
  const outcomes = heightsBetween(lowM, highM).map((aglM): MountOutcome => {
    let [served, cleared, seen] = [0, 0, 0];
    const lost: string[] = [];
    remotes.forEach((r, i) => {
      const plan = planUnder(r, { hub: null, remote: null, aim: null, mountAglM: aglM });
      const path = paths[i]!;
      const line = clearanceUnder({ ...plan, policy: { ...plan.policy, clearance: "line" } }, path).worst;
      const isSeen = line === null || line.missM <= 0;
      if (isSeen) seen += 1;
      const state = pathStateOf(plan, path, false);
      // What is unknown is not cleared.
      if (state.clearance.verdict === "clear" || state.clearance.verdict === "tight") cleared += 1;
      const { kept, toFar, toNear } = serviceOf(plan, state, false).service;
      const holds = kept === null ? toFar?.held != null && toNear?.held != null : kept.multiple >= 1;
      if (holds) served += 1;
      else lost.push(r.name);
    });
    return { aglM, served, cleared, seen, of: remotes.length, lost };
  });
  return [...outcomes].sort(byMount)[0]!;
};
