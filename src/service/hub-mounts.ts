import { type HubFields, type HubMountDto, type HubMountsQuestion, isProblem, mountPosition, planOf, type Streamed } from "../contract";
import { inverse, type LatLon } from "../core/geo";
import type { TriedRemote } from "../core/hub";
import { LONGEST_LINK_M, SHORTEST_LINK_M } from "../core/link";
import { mountOutcome } from "../core/solve";
import { NotFound } from "../data/clash";
import type { Db } from "../data/client";
import { getJob, type JobRow, linksOf, type SiteRow, sitesOf } from "../data/jobs";
import { getRecord } from "../data/records";
import { hardwareDto, jobDto, linkDto } from "./dto";
import { type Spot, spotsAbout } from "./places";
import { profileBetween } from "./profile";

type Link = Awaited<ReturnType<typeof linksOf>>[number];

interface Candidate extends Spot {
  readonly siteId: string | null;
  /** What its structure carries; null where nobody said. */
  readonly mostAglM: number | null;
}

const pointOf = (site: SiteRow, mountId: string | null) => site.mountingPoints.find((m) => m.id === mountId);

const candidatesOf = async (
  db: Db,
  job: JobRow,
  site: SiteRow,
  sites: readonly SiteRow[],
  hub: Pick<HubFields, "mountId" | "mountAglM">,
  q: HubMountsQuestion,
  toward: LatLon,
): Promise<Candidate[]> => {
  if (q.along === "sites")
    return sites.map((s) => ({
      at: s,
      mountId: null,
      name: s.name,
      aglM: s.mountAglM,
      amslM: null,
      siteId: s.id,
      mostAglM: s.mountMaxAglM,
    }));
  const spots = await spotsAbout(db, {
    jobId: job.id,
    site,
    aglM: hub.mountAglM,
    along: q.along,
    groundAmslM: async () => (await profileBetween(db, job, mountPosition(site, hub.mountId), toward, null)).groundAmslM[0]!,
  });
  return spots.map((s) => ({
    ...s,
    siteId: q.along === "points" ? site.id : null,
    mostAglM: pointOf(site, s.mountId)?.maxAglM ?? site.mountMaxAglM,
  }));
};

interface Hanging extends Omit<TriedRemote, "profile"> {
  readonly at: LatLon;
  readonly told: ReturnType<typeof linkDto>["groundTold"];
}

/** The remotes of a hub as they are planned, read once; those whose plan cannot be judged are left out. */
const hangingOn = async (
  db: Db,
  job: JobRow,
  hubSiteId: string,
  links: readonly Link[],
  sites: ReadonlyMap<string, SiteRow>,
): Promise<Hanging[]> => {
  const hardware = await hardwareDto(db);
  return links.flatMap((row): Hanging[] => {
    const link = linkDto(row);
    const hubIsNear = row.nearSiteId === hubSiteId;
    const [near, far] = [sites.get(row.nearSiteId), sites.get(row.farSiteId)];
    if (near === undefined || far === undefined) return [];
    const plan = planOf(jobDto(job), near, far, link.design, hardware, link.groundTold);
    if (isProblem(plan)) return [];
    const at = hubIsNear ? mountPosition(far, row.design.farMountId) : mountPosition(near, row.design.nearMountId);
    return [{ linkId: row.id, name: (hubIsNear ? far : near).name, plan, hubIsNear, at, told: link.groundTold }];
  });
};

/** The same with their paths sampled from a spot; those too near or too far from it are left out. */
const remotesFrom = async (db: Db, job: JobRow, remotes: readonly Hanging[], spot: LatLon): Promise<TriedRemote[]> => {
  const out: TriedRemote[] = [];
  for (const { at, told, ...remote } of remotes) {
    const { distanceM } = inverse(spot, at);
    if (distanceM < SHORTEST_LINK_M || distanceM > LONGEST_LINK_M) continue;
    const [from, to] = remote.hubIsNear ? [spot, at] : [at, spot];
    out.push({ ...remote, profile: await profileBetween(db, job, from, to, told) });
  }
  return out;
};

/** What a hub comes to from other spots, each at its best height between two; told as it is worked out. */
export async function* hubMounts(db: Db, jobId: string, hubId: string, q: HubMountsQuestion): AsyncGenerator<Streamed<HubMountDto>> {
  const [job, hub, all, rows] = [
    await getJob(db, jobId),
    await getRecord(db, jobId, "hub", hubId),
    await sitesOf(db, jobId),
    await linksOf(db, jobId),
  ];
  const site = all.find((s) => s.id === hub.siteId);
  if (site === undefined) throw new NotFound("site");
  const sites = new Map(all.map((s) => [s.id, s]));
  const hangs = new Set(hub.remotes.map((r) => r.linkId));
  const links = rows.filter((l) => hangs.has(l.id));
  const ends = new Set(links.map((l) => (l.nearSiteId === hub.siteId ? l.farSiteId : l.nearSiteId)));
  const first = all.find((s) => ends.has(s.id));
  // A remote cannot carry its own hub.
  const others = all.filter((s) => !ends.has(s.id));
  const candidates = await candidatesOf(db, job, site, others, hub, q, first ?? site);
  const hanging = await hangingOn(db, job, hub.siteId, links, sites);
  for (let i = 0; i < candidates.length; i++) {
    const c = candidates[i]!;
    const remotes = await remotesFrom(db, job, hanging, c.at);
    if (remotes.length > 0) {
      const [r] = remotes;
      const ground = r!.hubIsNear ? r!.profile.groundAmslM[0]! : r!.profile.groundAmslM[r!.profile.groundAmslM.length - 1]!;
      // Where a roof carries it, it stays as high over the sea; elsewhere it is tried between the heights asked for.
      const ownM = c.amslM === null || Number.isNaN(ground) ? null : Math.max(0, c.amslM - ground);
      const most = ownM ?? Math.min(q.highestM, c.mostAglM ?? q.highestM);
      const outcome = mountOutcome(remotes, ownM ?? Math.min(q.lowestM, most), most);
      const from = inverse(site, c.at);
      const azimuth = (from.azimuthAtADeg * Math.PI) / 180;
      yield {
        kind: "row",
        row: {
          ...outcome,
          of: links.length,
          name: c.name,
          latDeg: c.at.latDeg,
          lonDeg: c.at.lonDeg,
          mountId: c.mountId,
          siteId: c.siteId,
          eastM: from.distanceM * Math.sin(azimuth),
          northM: from.distanceM * Math.cos(azimuth),
        },
      };
    }
    yield { kind: "progress", done: i + 1, total: candidates.length };
  }
}
