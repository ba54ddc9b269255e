import { LRUCache } from "lru-cache";
import {
  type AirTold,
  airToldOf,
  airVerdictOf,
  type Brief,
  type HubFields,
  judgeSites,
  type LinkVerdict,
  loadInputOf,
  type NetworkFields,
  passesOf,
  type SiteWiring,
  sectorsShared,
  urgentOf,
  wiringTold,
} from "../contract";
import { judgeAir } from "../core/air";
import { worseVerdict } from "../core/link";
import { judgePlace, type Load, loadOf } from "../core/load";
import { partsOf } from "../core/wiring";
import type { Db } from "../data/client";
import { getJob, linksOf, sitesOf } from "../data/jobs";
import { listRecords } from "../data/records";
import { tellVerdicts } from "../data/verdict-store";
import { airOf } from "./air";
import { hardwareDto, jobDto, partsDto } from "./dto";

/*
 * What no link knows of itself: what others' radios make of its channel, and whether the air that it shares and the way to it are
 * enough for all that passes. A link whose own air is over is short; one behind a place that is over is not clear.
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

type Wired = NonNullable<LinkVerdict["wiring"]>;

/** What the wiring of each link's ends comes to, where any is planned. */
const wiredOf = async (db: Db, jobId: string, hubs: Parameters<typeof sectorsShared>[1]): Promise<ReadonlyMap<string, Wired>> => {
  const wirings = (await listRecords(db, jobId, "wiring")) as unknown as SiteWiring[];
  if (wirings.length === 0) return new Map();
  const [sites, links, parts, { radios }] = await Promise.all([sitesOf(db, jobId), linksOf(db, jobId), partsDto(db), hardwareDto(db)]);
  const judged = judgeSites({ sites, links }, wirings, partsOf(parts, radios));
  const sectors = sectorsShared(links, hubs);
  return new Map(
    links.flatMap((l): [string, Wired][] => {
      const own = sectors.get(l.id);
      const told = wiringTold(l, judged, (siteId) =>
        own?.siteId === siteId ? new Set([...sectors].flatMap(([id, s]) => (s.id === own.id ? [id] : []))) : new Set(),
      );
      return told === null ? [] : [[l.id, told]];
    }),
  );
};

interface Shared {
  readonly wired: ReadonlyMap<string, Wired>;
  readonly chains: ReadonlyMap<string, Chain>;
  readonly air: ReadonlyMap<string, AirTold>;
}

const known = new LRUCache<string, { readonly key: string; readonly of: Promise<Shared> }>({ max: 500 });

const sharedOf = async (db: Db, jobId: string, verdicts: readonly LinkVerdict[]): Promise<Shared> => {
  const [job, sites, links, briefs, networks, hubs] = await Promise.all([
    getJob(db, jobId),
    sitesOf(db, jobId),
    linksOf(db, jobId),
    listRecords(db, jobId, "brief"),
    listRecords(db, jobId, "network"),
    listRecords(db, jobId, "hub"),
  ]);
  const inputWith = (all: readonly LinkVerdict[]) =>
    loadInputOf(
      { job: jobDto(job), sites, links },
      briefs[0] as unknown as Brief,
      networks[0] as unknown as NetworkFields,
      hubs as unknown as (HubFields & { id: string; siteId: string })[],
      all,
    );
  const alone = inputWith(verdicts);
  const wired = await wiredOf(db, jobId, hubs as unknown as Parameters<typeof sectorsShared>[1]);
  if (alone === null) return { wired, chains: new Map(), air: new Map() };
  const load = loadOf(alone);
  // What is asked of the links is what they send; what the air leaves of them is what the network has.
  const { built, read } = await airOf(db, jobId, verdicts, { passes: passesOf(load), urgent: urgentOf(load) }, () => {
    known.delete(jobId);
    void tellVerdicts(db, jobId);
  });
  const air = airToldOf(read, built, judgeAir(built.job));
  const beside = inputWith(verdicts.map((v) => ({ ...v, inAir: air.get(v.linkId) ?? null })));
  return { wired, chains: beside === null ? new Map() : worstByLink(loadOf(beside)), air };
};

/** A verdict with what is found besides: the worse is shown, and told by its own trouble where that is the worst. */
const withFound = (v: LinkVerdict, found: { readonly verdict: LinkVerdict["verdict"]; readonly code: string } | null): LinkVerdict => {
  if (found === null) return v;
  const verdict = worseVerdict(v.verdict, found.verdict);
  return {
    ...v,
    verdict,
    trouble: v.verdict === "clear" || v.trouble === null || (verdict !== v.verdict && v.verdict !== "unknown") ? found.code : v.trouble,
  };
};

/**
 * Verdicts of one job with what its air and its network make of them.
 * @param stands changes with every edit of the job and every verdict that is worked out: until then what was found stands.
 */
export const withShared = async (
  db: Db,
  jobId: string,
  verdicts: readonly LinkVerdict[],
  stands: string,
): Promise<readonly LinkVerdict[]> => {
  if (verdicts.length === 0) return verdicts;
  let kept = known.get(jobId);
  if (kept?.key !== stands) {
    // Whoever asks meanwhile waits for the same.
    const of = sharedOf(db, jobId, verdicts);
    kept = { key: stands, of };
    known.set(jobId, kept);
    of.catch(() => known.delete(jobId));
  }
  const { wired, chains, air } = await kept.of;
  return verdicts.map((v) => {
    const inAir = air.get(v.linkId) ?? null;
    const chain = chains.get(v.linkId) ?? null;
    const wiring = wired.get(v.linkId) ?? null;
    const found = withFound(withFound(v, inAir === null ? null : airVerdictOf(inAir)), chain);
    // A camera that stays dark is told at its site; a radio that does, or a plan that stops, is the link's.
    const dark = wiring?.holdsUp === true ? ({ verdict: "short", code: "wiring-short" } as const) : null;
    return { ...withFound(found, dark), inAir, chain, wiring };
  });
};
