import { deviceDemand } from "../core/infra";
import { askedOfPlace, type DeviceClass, type Load, type LoadDevice, type LoadInput, type LoadLink, type Recorder } from "../core/load";
import type { Brief, BriefDevice } from "./brief";
import type { HubFields } from "./hub";
import type { NetworkFields } from "./network";
import type { DesignFields } from "./schemas";
import type { LinkVerdict } from "./types";

/* The records of a job as the load of its network takes them. */

interface LinkOf {
  readonly id: string;
  readonly nearSiteId: string;
  readonly farSiteId: string;
  readonly design: Pick<
    DesignFields,
    | "nearRadioId"
    | "farRadioId"
    | "nearAntennaId"
    | "farAntennaId"
    | "nearAimAzimuthDeg"
    | "farAimAzimuthDeg"
    | "nearAimTiltDeg"
    | "farAimTiltDeg"
    | "centreMhz"
    | "widthMhz"
    | "needToFarMbps"
    | "needToNearMbps"
  >;
}

export interface JobForLoad {
  readonly job: { readonly throughputSchool: LoadInput["school"]; readonly freeShare: number };
  readonly sites: readonly { readonly id: string }[];
  readonly links: readonly LinkOf[];
}

type Sector = NonNullable<LoadLink["sector"]>;

/** What several links have in common where they hang on one unit; null for an end that looks at its one partner. */
const unitAt = ({ design: d }: LinkOf, end: "near" | "far"): string | null =>
  d[`${end}AimAzimuthDeg`] === null
    ? null
    : [d[`${end}RadioId`], d[`${end}AntennaId`], d[`${end}AimAzimuthDeg`], d[`${end}AimTiltDeg`], d.centreMhz, d.widthMhz].join("|");

/** Sectors that links share: those of hubs on record, and ends that are set alike at one site. */
export const sectorsShared = (
  links: readonly LinkOf[],
  hubs: readonly (Pick<HubFields, "remotes"> & { readonly id: string; readonly siteId: string })[],
): ReadonlyMap<string, Sector> => {
  const of = new Map<string, Sector>();
  for (const hub of hubs) for (const r of hub.remotes) of.set(r.linkId, { id: `${hub.id}/${r.sectorId}`, siteId: hub.siteId });
  const alike = new Map<string, { readonly siteId: string; readonly ids: string[] }>();
  for (const l of links)
    for (const end of ["near", "far"] as const) {
      const unit = of.has(l.id) ? null : unitAt(l, end);
      if (unit === null) continue;
      const siteId = l[`${end}SiteId`];
      const key = `${siteId}|${unit}`;
      const group = alike.get(key);
      if (group === undefined) alike.set(key, { siteId, ids: [l.id] });
      else group.ids.push(l.id);
    }
  for (const [key, { siteId, ids }] of alike) if (ids.length > 1) for (const id of ids) of.set(id, { id: key, siteId });
  return of;
};

/** Where the feed comes in: as it was said, else where most links end. */
export const feedSiteOf = (job: Pick<JobForLoad, "sites" | "links">, network: Pick<NetworkFields, "feedSiteId">): string | null => {
  if (network.feedSiteId !== null && job.sites.some((s) => s.id === network.feedSiteId)) return network.feedSiteId;
  const ends = new Map<string, number>();
  for (const l of job.links) for (const id of [l.nearSiteId, l.farSiteId]) ends.set(id, (ends.get(id) ?? 0) + 1);
  let best: string | null = null;
  for (const { id } of job.sites) if ((ends.get(id) ?? 0) > (best === null ? 0 : (ends.get(best) ?? 0))) best = id;
  return best ?? job.sites[0]?.id ?? null;
};

const CLASS: Readonly<Record<BriefDevice["kind"], DeviceClass>> = {
  camera: "cameras",
  "access-point": "users",
  internet: "users",
  phone: "rest",
  control: "rest",
  recorder: "rest",
  other: "users",
};
/** Ports that such devices usually have (ours). */
const SLOW_PORT_MBPS = 100;
const FAST_PORT_MBPS = 1000;

const talksOf = (d: BriefDevice, said: NetworkFields["talks"][string] | undefined, rootId: string): LoadDevice["talksTo"] => {
  if (said !== undefined) return said === "feed" || said === "recorder" ? { kind: said } : { kind: "site", siteId: said };
  if (d.kind === "camera") return { kind: "recorder" };
  return d.kind === "control" ? { kind: "site", siteId: rootId } : { kind: "feed" };
};

/** One row of the brief's devices as the load counts it. */
export const loadDevice = (d: BriefDevice, talks: NetworkFields["talks"], rootId: string): LoadDevice => {
  const each = deviceDemand({ ...d, count: 1 });
  return {
    id: d.id,
    siteId: d.siteId,
    name: d.name,
    class: CLASS[d.kind],
    count: d.count,
    usual: { there: each.usual.toFarMbps, back: each.usual.toNearMbps },
    worst: { there: each.peak.toFarMbps, back: each.peak.toNearMbps },
    talksTo: talksOf(d, talks[d.id], rootId),
    portMbps: CLASS[d.kind] === "users" ? FAST_PORT_MBPS : SLOW_PORT_MBPS,
  };
};

export const recorderOf = (brief: Pick<Brief, "recorder">, network: Pick<NetworkFields, "recorder">, rootId: string): Recorder => {
  if (network.recorder === "each" || (network.recorder === "brief" && brief.recorder === "far")) return { at: "each" };
  return { at: "site", siteId: network.recorder === "brief" ? rootId : network.recorder };
};

/** What a link carries beside all others: what they leave of each way's rate. */
const carriedInAir = ({ carries, inAir }: Pick<LinkVerdict, "carries" | "inAir">): LinkVerdict["carries"] => {
  if (carries === null || inAir == null) return carries;
  const [far, near] = inAir.left;
  return {
    ...carries,
    toFar: { ...carries.toFar, airMbps: carries.toFar.airMbps * far },
    toNear: { ...carries.toNear, airMbps: carries.toNear.airMbps * near },
  };
};

/** What passes each link at the worst moment, Mbps to far and to near; a link that is idle in the tree is not in it. */
export const passesOf = (load: Load): Map<string, readonly [number, number]> => {
  const places = new Map(load.places.map((p, i) => [p.id, i]));
  const out = new Map<string, readonly [number, number]>();
  for (const [siteId, { linkId, parentIsNear }] of load.tree.up) {
    const link = load.input.links.find((l) => l.id === linkId);
    // The port at its own end is passed by all that passes the link, and by nothing else.
    const unit = link?.sector?.siteId === siteId ? link.sector.id : linkId;
    const place = places.get(`port:${unit}:${siteId}`);
    if (place === undefined) continue;
    const { there, back } = askedOfPlace(load, "worst", place);
    out.set(linkId, parentIsNear ? [there, back] : [back, there]);
  }
  return out;
};

/** Links that voice or control passes: of a shared sector all of them. */
export const urgentOf = (load: Load): Set<string> => {
  const out = new Set<string>();
  for (const { device, ways } of load.flows)
    if (device.class === "rest")
      for (const h of ways.flatMap((w) => w.hops)) {
        const place = load.places[h.place]!;
        if (place.kind === "air") for (const id of place.linkIds) out.add(id);
      }
  return out;
};

/** @returns null for a job without a site. */
export const loadInputOf = (
  of: JobForLoad,
  brief: Pick<Brief, "devices" | "feed" | "recorder">,
  network: NetworkFields,
  hubs: Parameters<typeof sectorsShared>[1],
  verdicts: readonly Pick<LinkVerdict, "linkId" | "carries" | "inAir">[],
): LoadInput | null => {
  const rootId = feedSiteOf(of, network);
  if (rootId === null) return null;
  const there = new Set(of.sites.map((s) => s.id));
  const sectors = sectorsShared(of.links, hubs);
  const carries = new Map(verdicts.map((v) => [v.linkId, carriedInAir(v)]));
  const { secondFeed } = network;
  return {
    school: of.job.throughputSchool,
    freeShare: of.job.freeShare,
    siteIds: of.sites.map((s) => s.id),
    links: of.links.map((l) => ({
      id: l.id,
      nearSiteId: l.nearSiteId,
      farSiteId: l.farSiteId,
      carries: carries.get(l.id) ?? null,
      sector: sectors.get(l.id) ?? null,
    })),
    feeds: [
      { siteId: rootId, name: brief.feed.name, downMbps: brief.feed.downMbps, upMbps: brief.feed.upMbps },
      ...(secondFeed !== null && there.has(secondFeed.siteId) ? [secondFeed] : []),
    ],
    devices: brief.devices.filter((d) => there.has(d.siteId)).map((d) => loadDevice(d, network.talks, rootId)),
    recorder: recorderOf(brief, network, rootId),
    recorderPortMbps: network.recorderPortMbps,
    ports: new Map(Object.entries(network.ports)),
    uplinks: new Map(Object.entries(network.uplinks)),
    growth: network.growth,
    needs: new Map(of.links.map((l) => [l.id, [l.design.needToFarMbps ?? 0, l.design.needToNearMbps ?? 0] as const])),
  };
};
