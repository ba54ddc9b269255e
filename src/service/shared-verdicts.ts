import { LRUCache } from "lru-cache";
import { type Brief, type HubFields, type LinkVerdict, loadInputOf, type NetworkFields } from "../contract";
import { worseVerdict } from "../core/link";
import { judgePlace, type Load, loadOf } from "../core/load";
import type { Db } from "../data/client";
import { getJob, linksOf, sitesOf } from "../data/jobs";
import { listRecords } from "../data/records";
import { jobDto } from "./dto";

/*
 * What no link knows of itself: whether the air that it shares and the way to it are enough for all that passes. A link whose own
 * air is over is short; one behind a place that is over is not clear.
 */

type Chain = NonNullable<LinkVerdict["chain"]>;

const worstByLink = (load: Load): ReadonlyMap<string, Chain> => {
  const found = new Map<string, Chain>();
  const over = load.places.flatMap((p, i) => (judgePlace(load, "worst", i, 0).verdict === "short" ? [p] : []));
  for (const p of over)
    for (const linkId of p.linkIds)
      if (found.get(linkId)?.code !== "air-over")
        found.set(linkId, { verdict: "short", code: p.kind === "air" ? (p.sectorId === null ? "air-over" : "sector-over") : "port-over" });
  const full = new Set(over.map((p) => p.id));
  // What lies between the feed and the end that a link leads to is its chain, whatever hangs there.
  for (const [siteId, { linkId }] of load.tree.up) {
    const way = load.hopsTo(siteId, { kind: "feed" });
    const first = way?.flat().find((h) => full.has(load.places[h.place]!.id));
    if (first !== undefined && !found.has(linkId))
      found.set(linkId, { verdict: "tight", code: load.places[first.place]!.kind === "feed" ? "feed-over" : "chain-over" });
  }
  return found;
};

const known = new LRUCache<string, { readonly key: string; readonly of: ReadonlyMap<string, Chain> }>({ max: 500 });

/**
 * Verdicts of one job with what its network makes of them.
 * @param stands changes with every edit of the job and every verdict that is worked out: until then what was found stands.
 */
export const withChains = async (
  db: Db,
  jobId: string,
  verdicts: readonly LinkVerdict[],
  stands: string,
): Promise<readonly LinkVerdict[]> => {
  if (verdicts.length === 0) return verdicts;
  let kept = known.get(jobId);
  if (kept?.key !== stands) {
    const [job, sites, links, briefs, networks, hubs] = await Promise.all([
      getJob(db, jobId),
      sitesOf(db, jobId),
      linksOf(db, jobId),
      listRecords(db, jobId, "brief"),
      listRecords(db, jobId, "network"),
      listRecords(db, jobId, "hub"),
    ]);
    const input = loadInputOf(
      { job: jobDto(job), sites, links },
      briefs[0] as unknown as Brief,
      networks[0] as unknown as NetworkFields,
      hubs as unknown as (HubFields & { id: string; siteId: string })[],
      verdicts,
    );
    kept = { key: stands, of: input === null ? new Map() : worstByLink(loadOf(input)) };
    known.set(jobId, kept);
  }
  return verdicts.map((v) => {
    const chain = kept.of.get(v.linkId) ?? null;
    if (chain === null) return v;
    const verdict = worseVerdict(v.verdict, chain.verdict);
    return { ...v, chain, verdict, trouble: v.verdict === "clear" || v.trouble === null ? chain.code : v.trouble };
  });
};
