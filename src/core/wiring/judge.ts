import { type Verdict, worseVerdict } from "../link";
import { earthFindings } from "./check-earth";
import { leadsFindings } from "./check-leads";
import { loopFindings } from "./check-network";
import { powerFindings } from "./check-power";
import { sunFindings } from "./check-sun";
import { type Arrival, type Feeds, feedsOf } from "./feeds";
import type { WiringFinding } from "./finding";
import { type Wired, type WiringGraph, wire } from "./graph";
import type { Parts } from "./part";
import type { SunPlan } from "./sun";

/* One end judged whole. */

export interface JudgedWiring {
  readonly wired: Wired;
  readonly feeds: Feeds;
  /** Stops first, then by how bad they are. */
  readonly findings: readonly WiringFinding[];
  readonly verdict: Verdict;
  /** The supply that decides: the one that does not fit, else the one with least to spare. */
  readonly decides: Arrival | null;
}

const RANK = { short: 0, unknown: 1, tight: 2 } as const;
export const worstFirst = <F extends WiringFinding>(findings: readonly F[]): F[] =>
  [...findings].sort((a, b) => Number(b.stop) - Number(a.stop) || RANK[a.verdict] - RANK[b.verdict]);

/** Part of the least volts that is to spare; less than none where it is too little. */
const spare = (a: Arrival): number =>
  a.volts === null || a.window === null ? Number.POSITIVE_INFINITY : (a.volts - a.window.low) / a.window.low;

const decidesOf = (feeds: Feeds, findings: readonly WiringFinding[]): Arrival | null => {
  const all = [...feeds.arrivals.values()].filter((a) => a.gives.scheme !== "mains");
  const named = findings.filter((f) => f.verdict === "short" && f.placeId !== null);
  for (const f of named) {
    const at = all.find(
      (a) => a.end.placeId === f.placeId && (a.fit !== "fits" || a.collapses || f.code.startsWith("volts") || f.code === "start-low"),
    );
    if (at !== undefined) return at;
  }
  return all.filter((a) => Number.isFinite(spare(a))).sort((a, b) => spare(a) - spare(b))[0] ?? all[0] ?? null;
};

/** @param sun of a site that has a battery; @param latDeg of the site. */
export const judgeWiring = (graph: WiringGraph, parts: Parts, sun: SunPlan | null = null, latDeg = 0): JudgedWiring => {
  const wired = wire(graph, parts);
  const feeds = feedsOf(wired);
  const findings = worstFirst([
    ...powerFindings(wired, feeds),
    ...leadsFindings(wired, feeds),
    ...earthFindings(wired, feeds),
    ...loopFindings(wired),
    ...sunFindings(wired, feeds, sun, latDeg),
  ]);
  return {
    wired,
    feeds,
    findings,
    verdict: findings.reduce<Verdict>((v, f) => worseVerdict(v, f.verdict), "clear"),
    decides: decidesOf(feeds, findings),
  };
};
