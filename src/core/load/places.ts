/*
 * Every place that can be the narrowest: the subscription, a port, the air of a link or of a sector, the recorder, a device's own
 * port. Payload throughout: a port of 100 passes 94. Wires have a lane each way; air is one for both ways where it is shared.
 */
import type { ThroughputSchool } from "../radio";
import type { CarriedWay, LoadLink, Tree } from "./network";

export type PlaceKind = "feed" | "port" | "air" | "recorder" | "device";
/** Away from the first feed, and towards it. */
export type Lane = 0 | 1;
export const THERE: Lane = 0;
export const BACK: Lane = 1;

/** TCP payload of a full Ethernet frame by what it takes on the wire. */
export const PAYLOAD_SHARE = 1448 / 1538;

export interface Place {
  readonly id: string;
  readonly kind: PlaceKind;
  /** Where it stands; null for air. */
  readonly siteId: string | null;
  /** Links that pass it. */
  readonly linkIds: readonly string[];
  readonly sectorId: string | null;
  readonly deviceId: string | null;
  /** One air for both ways. */
  readonly shared: boolean;
  /** Of it what may be used. */
  readonly mayUse: number;
  /** What it passes each way by itself, payload in Mbps; of a sector that of its first remote. */
  readonly aloneMbps: readonly [number, number];
  /** Nobody said what it passes, one way or both: that way it is taken to pass all. */
  readonly unsaid: boolean;
  /** What of a port is the slowest: the site's own switch, an injector, the radio, or nobody said and this is taken. */
  readonly by: "switch" | "injector" | "radio" | "taken" | null;
}

/** What one Mbps takes of a place. */
export interface Hop {
  readonly place: number;
  readonly lane: Lane;
  readonly perMbps: number;
}

export interface Feed {
  readonly siteId: string;
  readonly name: string;
  readonly downMbps: number | null;
  readonly upMbps: number | null;
}

export interface SitePorts {
  readonly switchMbps: number | null;
  readonly injectorMbps: number | null;
}

export interface AirSchool {
  readonly school: ThroughputSchool;
  readonly freeShare: number;
}

/** Where nobody said how fast a site's switch is (ours). */
export const USUAL_PORT_MBPS = 1000;

export interface Places {
  readonly list: readonly Place[];
  /** By site: hops of one Mbps from its parent to it, and of one from it to its parent. */
  readonly edges: ReadonlyMap<string, readonly [readonly Hop[], readonly Hop[]]>;
  /** By site with a feed: of one Mbps from outside, and of one to outside. */
  readonly feeds: ReadonlyMap<string, readonly [Hop, Hop]>;
}

export const usableMbps = (w: CarriedWay, school: ThroughputSchool): number =>
  school === "third" ? Math.min(w.phyMbps / 3, w.airMbps) : w.airMbps;

const slowest = (p: SitePorts | undefined, radioMbps: number): { readonly mbps: number; readonly by: Place["by"] } => {
  const all = [
    { mbps: radioMbps, by: "radio" as const },
    { mbps: p?.switchMbps ?? USUAL_PORT_MBPS, by: p?.switchMbps == null ? ("taken" as const) : ("switch" as const) },
    ...(p?.injectorMbps == null ? [] : [{ mbps: p.injectorMbps, by: "injector" as const }]),
  ];
  return all.reduce((least, x) => (x.mbps < least.mbps ? x : least));
};

/** Places along the tree and how one Mbps takes from each. */
export const placesOf = (
  tree: Tree,
  links: readonly LoadLink[],
  feeds: readonly Feed[],
  ports: ReadonlyMap<string, SitePorts>,
  policy: AirSchool,
): Places => {
  const list: Place[] = [];
  const byId = new Map<string, number>();
  const linksOf = new Map<string, string[]>();
  const airUse = policy.school === "headroom" ? 1 - policy.freeShare : 1;
  /** The place of a name, made the first time; a further link that passes it is noted. */
  const at = (id: string, linkId: string | null, make: () => Omit<Place, "id" | "linkIds">): number => {
    let index = byId.get(id);
    if (index === undefined) {
      index = list.length;
      const linkIds: string[] = [];
      linksOf.set(id, linkIds);
      list.push({ id, linkIds, ...make() });
      byId.set(id, index);
    }
    if (linkId !== null) linksOf.get(id)!.push(linkId);
    return index;
  };
  const portAt = (l: LoadLink, siteId: string, there: CarriedWay, back: CarriedWay): number => {
    const unit = l.sector?.siteId === siteId ? l.sector.id : l.id;
    return at(`port:${unit}:${siteId}`, l.id, () => {
      const { mbps, by } = slowest(ports.get(siteId), Math.min(there.portMbps, back.portMbps));
      return {
        kind: "port",
        siteId,
        sectorId: unit === l.id ? null : unit,
        deviceId: null,
        shared: false,
        mayUse: 1,
        aloneMbps: [mbps * PAYLOAD_SHARE, mbps * PAYLOAD_SHARE],
        unsaid: false,
        by,
      };
    });
  };
  const byLink = new Map(links.map((l) => [l.id, l]));
  const edges = new Map<string, readonly [readonly Hop[], readonly Hop[]]>();
  for (const [siteId, u] of tree.up) {
    const l = byLink.get(u.linkId)!;
    const c = l.carries!;
    const [there, back] = u.parentIsNear ? [c.toFar, c.toNear] : [c.toNear, c.toFar];
    const rates = [usableMbps(there, policy.school), usableMbps(back, policy.school)] as const;
    const air = at(l.sector === null ? `air:${l.id}` : `sector:${l.sector.id}`, l.id, () => ({
      kind: "air",
      siteId: null,
      sectorId: l.sector?.id ?? null,
      deviceId: null,
      shared: c.shared,
      mayUse: airUse,
      aloneMbps: rates,
      unsaid: false,
      by: null,
    }));
    const hubEnd = portAt(l, u.parentId, there, back);
    const ownEnd = portAt(l, siteId, there, back);
    const lane = (way: Lane): Hop[] => [
      { place: hubEnd, lane: way, perMbps: 1 / list[hubEnd]!.aloneMbps[way] },
      { place: air, lane: way, perMbps: rates[way] > 0 ? 1 / rates[way] : Number.POSITIVE_INFINITY },
      { place: ownEnd, lane: way, perMbps: 1 / list[ownEnd]!.aloneMbps[way] },
    ];
    edges.set(siteId, [lane(THERE), lane(BACK)]);
  }
  const fed = new Map<string, readonly [Hop, Hop]>();
  for (const f of feeds) {
    if (fed.has(f.siteId) || !tree.hops.has(f.siteId)) continue;
    const down = (f.downMbps ?? Number.POSITIVE_INFINITY) * PAYLOAD_SHARE;
    const up = (f.upMbps ?? Number.POSITIVE_INFINITY) * PAYLOAD_SHARE;
    const place = at(`feed:${f.siteId}`, null, () => ({
      kind: "feed",
      siteId: f.siteId,
      sectorId: null,
      deviceId: null,
      shared: false,
      mayUse: 1,
      aloneMbps: [down, up],
      unsaid: f.downMbps === null || f.upMbps === null,
      by: null,
    }));
    fed.set(f.siteId, [
      { place, lane: THERE, perMbps: 1 / down },
      { place, lane: BACK, perMbps: 1 / up },
    ]);
  }
  return { list, edges, feeds: fed };
};
