/*
 * The job as a tree: which link leads from each site towards the first feed, and what stands idle because a bridged network
 * follows a spanning tree and never two paths (IEEE 802.1D). Fewest hops first, then the link that carries most (ours).
 */
import type { Access } from "../radio";

/** One way of a link's air and of the ports at its ends. */
export interface CarriedWay {
  /** Payload one way with all of the air, Mbps, on the modulation that it is planned with. */
  readonly airMbps: number;
  readonly phyMbps: number;
  /** Speed of the radios' slower port on the way, Mbps. */
  readonly portMbps: number;
  /** One burst on the air with all that it waits for, us. */
  readonly burstUs: number;
}

export interface Carried {
  readonly access: Access;
  /** Both ways take from one air; else each has its own part. */
  readonly shared: boolean;
  readonly toFar: CarriedWay;
  readonly toNear: CarriedWay;
}

export interface LoadLink {
  readonly id: string;
  readonly nearSiteId: string;
  readonly farSiteId: string;
  /** Null: nothing holds both ways, so nothing passes. */
  readonly carries: Carried | null;
  /** The sector whose air and unit it shares with others; null: its own. */
  readonly sector: { readonly id: string; readonly siteId: string } | null;
}

export interface Uplink {
  readonly linkId: string;
  readonly parentId: string;
  /** The parent is the near end. */
  readonly parentIsNear: boolean;
}

export interface Tree {
  readonly rootId: string;
  readonly up: ReadonlyMap<string, Uplink>;
  readonly hops: ReadonlyMap<string, number>;
  /** Links that would close a loop and carry nothing. */
  readonly idle: readonly string[];
  /** Sites that no link which holds leads to. */
  readonly unreached: readonly string[];
  /** Sites whose way, set by hand, leads nowhere. */
  readonly lost: readonly string[];
}

/** The lesser of both ways of a link, Mbps: what it is chosen by. */
const carriesMbps = ({ carries: c }: LoadLink): number =>
  c === null ? 0 : Math.min(c.toFar.airMbps, c.toNear.airMbps, c.toFar.portMbps, c.toNear.portMbps);

interface Step {
  readonly to: string;
  readonly uplink: Uplink;
  readonly mbps: number;
  readonly order: number;
}

/**
 * @param links in their order: of two that are alike the first is taken.
 * @param byHand by site: the link that it is led over, whatever is shorter.
 */
export const treeOf = (
  siteIds: readonly string[],
  links: readonly LoadLink[],
  rootId: string,
  byHand: ReadonlyMap<string, string> = new Map(),
): Tree => {
  const at = new Map<string, { readonly link: LoadLink; readonly order: number; readonly mbps: number }[]>();
  links.forEach((link, order) => {
    if (link.carries === null || link.nearSiteId === link.farSiteId) return;
    const entry = { link, order, mbps: carriesMbps(link) };
    for (const id of [link.nearSiteId, link.farSiteId]) {
      const list = at.get(id);
      if (list === undefined) at.set(id, [entry]);
      else list.push(entry);
    }
  });
  const up = new Map<string, Uplink>();
  const hops = new Map<string, number>([[rootId, 0]]);
  let edge = [rootId];
  for (let level = 1; edge.length > 0; level++) {
    const best = new Map<string, Step>();
    for (const parentId of edge)
      for (const { link, order, mbps } of at.get(parentId) ?? []) {
        const parentIsNear = link.nearSiteId === parentId;
        const to = parentIsNear ? link.farSiteId : link.nearSiteId;
        const wanted = byHand.get(to);
        if (hops.has(to) || (wanted !== undefined && wanted !== link.id)) continue;
        const known = best.get(to);
        if (known === undefined || mbps > known.mbps || (mbps === known.mbps && order < known.order))
          best.set(to, { to, uplink: { linkId: link.id, parentId, parentIsNear }, mbps, order });
      }
    for (const s of best.values()) {
      up.set(s.to, s.uplink);
      hops.set(s.to, level);
    }
    edge = [...best.keys()];
  }
  const used = new Set([...up.values()].map((u) => u.linkId));
  return {
    rootId,
    up,
    hops,
    idle: links.filter((l) => l.carries !== null && !used.has(l.id) && hops.has(l.nearSiteId) && hops.has(l.farSiteId)).map((l) => l.id),
    unreached: siteIds.filter((id) => !hops.has(id)),
    lost: siteIds.filter((id) => !hops.has(id) && byHand.has(id)),
  };
};

/** Sites from one up to the root, itself first. @returns empty for a site that the tree does not reach. */
export const chainOf = (tree: Tree, siteId: string): string[] => {
  if (!tree.hops.has(siteId)) return [];
  const chain = [siteId];
  for (let u = tree.up.get(siteId); u !== undefined; u = tree.up.get(u.parentId)) chain.push(u.parentId);
  return chain;
};

/** The way from one site to another: up from the one, down to the other. Null where the tree does not join them. */
export const wayBetween = (
  tree: Tree,
  fromId: string,
  toId: string,
): { readonly climbs: readonly string[]; readonly descends: readonly string[] } | null => {
  const from = chainOf(tree, fromId);
  const to = chainOf(tree, toId);
  if (from.length === 0 || to.length === 0) return null;
  const place = new Map(to.map((id, i) => [id, i]));
  const turn = from.findIndex((id) => place.has(id));
  return { climbs: from.slice(0, turn), descends: to.slice(0, place.get(from[turn]!)!).reverse() };
};
