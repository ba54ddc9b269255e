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

const VOLTS: ReadonlySet<WiringFinding["code"]> = new Set(["volts-low", "volts-high", "start-low", "no-wake"]);

/** How much a supply decides, the most first: one that stops the plan, one that does not fit, then by its least part to spare. */
export const supplyRank = (a: Arrival, findings: readonly WiringFinding[]): number => {
  const short = findings.filter((f) => f.placeId === a.end.placeId && f.verdict === "short");
  const isBad = a.fit !== "fits" || a.collapses || short.some((f) => VOLTS.has(f.code));
  const spare = a.volts === null || a.window === null ? 50 : (a.volts - a.window.low) / Math.max(1, a.window.low);
  return (isBad ? (short.some((f) => f.stop) ? -200 : -100) : 0) + spare;
};

const decidesOf = (feeds: Feeds, findings: readonly WiringFinding[]): Arrival | null =>
  [...feeds.arrivals.values()]
    .filter((a) => a.gives.scheme !== "mains")
    .map((arrival) => ({ arrival, rank: supplyRank(arrival, findings) }))
    .sort((a, b) => a.rank - b.rank)[0]?.arrival ?? null;

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
