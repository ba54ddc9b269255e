import { LRUCache } from "lru-cache";
import {
  type AirBuilt,
  type AirFields,
  type AirRead,
  airJobOf,
  type HubFields,
  isProblem,
  type LinkVerdict,
  lossKey,
  mountPosition,
  planOf,
  type ScanFields,
} from "../contract";
import { inverse } from "../core/geo";
import { type LinkPlan, LONGEST_LINK_M, pathStateOf, preparePath, SHORTEST_LINK_M } from "../core/link";
import type { Db } from "../data/client";
import { getJob, type JobRow, linksOf, type SiteRow, sitesOf } from "../data/jobs";
import { groundStamp } from "../data/obstacles";
import { listRecords } from "../data/records";
import { hardwareDto, jobDto, linkDto, siteDto } from "./dto";
import { profileBetween } from "./profile";

/* The radios of a job in the air, with the ground between them: sampled once for each way, and kept while the ground is the same. */

/** Whatever stands between, something is scattered over it (ours). */
const MOST_EXCESS_DB = 50;
/** Ways that are worked out while somebody waits; the others follow, and are free space until then. */
export const MOST_AT_ONCE = 120;

const kept = new LRUCache<string, { readonly stamp: string; readonly of: Map<string, number> }>({ max: 200 });

const template = (plan: LinkPlan, nearAglM: number, farAglM: number): LinkPlan => ({
  ...plan,
  near: { ...plan.near, mountAglM: nearAglM, barrier: null },
  far: { ...plan.far, mountAglM: farAglM, barrier: null },
});

interface End {
  readonly at: { readonly latDeg: number; readonly lonDeg: number };
  readonly aglM: number;
}

const endOf = (key: string, sites: ReadonlyMap<string, SiteRow>): End | null => {
  const [siteId = "", mountId = "", aglM = ""] = key.split("/");
  const site = sites.get(siteId);
  return site === undefined ? null : { at: mountPosition(site, mountId === "" ? null : mountId), aglM: Number(aglM) };
};

/** Loss beyond free space between two ends, dB; null where nobody knows the ground, or the way is too short or long to be looked at. */
const excessBetween = async (db: Db, job: JobRow, plan: LinkPlan, a: End, b: End): Promise<number | null> => {
  const { distanceM } = inverse(a.at, b.at);
  if (distanceM < SHORTEST_LINK_M || distanceM > LONGEST_LINK_M) return null;
  const profile = await profileBetween(db, job, a.at, b.at, null);
  if (profile.groundAmslM.every((h) => Number.isNaN(h))) return null;
  const moved = template(plan, a.aglM, b.aglM);
  const { obstruction } = pathStateOf(moved, preparePath(moved, profile), false);
  const excess = -obstruction.reduce((sum, t) => sum + t.valueDb, 0);
  return Number.isFinite(excess) ? Math.min(MOST_EXCESS_DB, Math.max(0, excess)) : null;
};

/** What the load says of the links: what passes each, and over which voice or control goes. */
export type AirLoad = Pick<AirRead, "passes" | "urgent">;
export const NO_LOAD: AirLoad = { passes: new Map(), urgent: new Set() };

/** Everything of a job that stands in the air, as records. */
const readOf = async (db: Db, jobId: string, verdicts: readonly LinkVerdict[], load: AirLoad) => {
  const [row, sites, links, hubs, airs, scans, hardware] = await Promise.all([
    getJob(db, jobId),
    sitesOf(db, jobId),
    linksOf(db, jobId),
    listRecords(db, jobId, "hub"),
    listRecords(db, jobId, "air"),
    listRecords(db, jobId, "scan"),
    hardwareDto(db),
  ]);
  const job = { job: jobDto(row), sites: sites.map(siteDto), links: links.map(linkDto) };
  const read: Omit<AirRead, "losses"> = {
    job,
    hardware,
    hubs: hubs as unknown as (HubFields & { id: string; siteId: string })[],
    air: airs[0] as unknown as AirFields,
    scans: scans as unknown as (ScanFields & { siteId: string })[],
    verdicts,
    ...load,
  };
  return { row, sites: new Map(sites.map((s) => [s.id, s])), read };
};

/** What is still to be worked out, and what is known. */
const fill = async (
  db: Db,
  job: JobRow,
  sites: ReadonlyMap<string, SiteRow>,
  plan: LinkPlan | null,
  ways: AirBuilt["ways"],
  known: Map<string, number>,
  most: number,
): Promise<number> => {
  let done = 0;
  for (const { a, b } of ways) {
    const key = lossKey(a, b);
    if (known.has(key) || plan === null) continue;
    if (done >= most) return done;
    done += 1;
    const [from, to] = [endOf(a, sites), endOf(b, sites)];
    const excess = from === null || to === null ? null : await excessBetween(db, job, plan, from, to);
    known.set(key, excess ?? Number.NaN);
    // Others are answered in between.
    await new Promise((resolve) => setImmediate(resolve));
  }
  return done;
};

const plain = (known: ReadonlyMap<string, number>): Map<string, number> => new Map([...known].filter(([, db]) => !Number.isNaN(db)));

/**
 * The job in the air.
 * @param later called when ways that nobody waited for have been worked out.
 */
export const airOf = async (
  db: Db,
  jobId: string,
  verdicts: readonly LinkVerdict[],
  load: AirLoad,
  later: () => void = () => undefined,
): Promise<{ readonly built: AirBuilt; readonly read: AirRead }> => {
  const { row, sites, read } = await readOf(db, jobId, verdicts, load);
  const stamp = await groundStamp(db, jobId);
  let entry = kept.get(jobId);
  if (entry?.stamp !== stamp) {
    entry = { stamp, of: new Map() };
    kept.set(jobId, entry);
  }
  const known = entry.of;
  const first = airJobOf({ ...read, losses: plain(known) });
  const link = read.job.links.find((l) => sites.has(l.nearSiteId) && sites.has(l.farSiteId));
  const made =
    link === undefined
      ? null
      : planOf(read.job.job, sites.get(link.nearSiteId)!, sites.get(link.farSiteId)!, link.design, read.hardware, null);
  const plan = made === null || isProblem(made) ? null : { ...made, centreMhz: LOOKED_AT_MHZ };
  const missing = first.ways.filter(({ a, b }) => !known.has(lossKey(a, b)));
  if (missing.length === 0 || plan === null) return { built: first, read: { ...read, losses: plain(known) } };
  await fill(db, row, sites, plan, missing, known, MOST_AT_ONCE);
  if (missing.length > MOST_AT_ONCE) void fill(db, row, sites, plan, missing, known, Number.POSITIVE_INFINITY).then(later, () => undefined);
  const whole = { ...read, losses: plain(known) };
  return { built: airJobOf(whole), read: whole };
};

/** Between other people's radios the way is looked at as at 5 GHz: higher bands lose more, so that it is the worse. */
const LOOKED_AT_MHZ = 5500;
