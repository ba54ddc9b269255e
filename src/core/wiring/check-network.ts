import { channelsOf } from "./check-leads";
import { found, type WiringFinding } from "./finding";
import type { Wired } from "./graph";

/* The wired network as a bridge sees it: one way between any two, one that translates, one that hands out addresses. */

/** Smallest circle joining: places and what leads them together. */
class Groups {
  private readonly up = new Map<string, string>();
  of(id: string): string {
    let at = id;
    for (let next = this.up.get(at); next !== undefined; next = this.up.get(at)) at = next;
    return at;
  }
  /** @returns false when both were together already. */
  join(a: string, b: string): boolean {
    const [x, y] = [this.of(a), this.of(b)];
    if (x === y) return false;
    this.up.set(x, y);
    return true;
  }
}

/** Leads that close a loop at one site. */
export const loopFindings = (w: Wired): WiringFinding[] => {
  const groups = new Groups();
  const out: WiringFinding[] = [];
  for (const c of channelsOf(w)) {
    if (w.portOf(c.from)?.speedMbps === undefined || w.portOf(c.end)?.speedMbps === undefined) continue;
    if (!groups.join(c.from.placeId, c.end.placeId)) out.push(found("data-loop", "short", { leadId: c.leads.at(-1)!.id }));
  }
  return out;
};

/** One site of a job with its graph. */
export interface SiteWired {
  readonly siteId: string;
  readonly wired: Wired;
}

export interface JobFinding extends WiringFinding {
  readonly siteId: string;
}

/** A link of the job as its wirings know it. */
export interface AirBridge {
  readonly id: string;
  readonly nearSiteId: string;
  readonly farSiteId: string;
}

/**
 * A second translator, or a second server of addresses, behind the same bridges. A router's port "wan" lies before it and all others
 * behind it: the two sides are two networks. Each link joins the two radios that stand for it; an end without one of its own hangs
 * on the site's radios (a sector of a hub), and at a site that is not wired all links are taken to meet.
 */
export const jobNetworkFindings = (sites: readonly SiteWired[], links: readonly AirBridge[]): JobFinding[] => {
  const groups = new Groups();
  const side = (siteId: string, wired: Wired, placeId: string, port: string): string =>
    `${siteId}/${placeId}${port === "wan" && wired.sheetOf(placeId)?.routes === true ? "/wan" : ""}`;
  const wiredAt = new Map(sites.map((s) => [s.siteId, s.wired]));
  for (const l of links)
    for (const siteId of [l.nearSiteId, l.farSiteId]) {
      const radios = wiredAt.get(siteId)?.graph.places.filter((p) => p.kind === "radio") ?? [];
      const own = radios.filter((p) => p.linkId === l.id);
      groups.join(`air:${l.id}`, wiredAt.has(siteId) ? `air:${l.id}` : `unwired:${siteId}`);
      for (const p of own.length > 0 ? own : radios) groups.join(`air:${l.id}`, `${siteId}/${p.id}`);
    }
  for (const { siteId, wired } of sites)
    for (const c of channelsOf(wired)) {
      if (wired.portOf(c.from)?.speedMbps === undefined || wired.portOf(c.end)?.speedMbps === undefined) continue;
      groups.join(side(siteId, wired, c.from.placeId, c.from.port), side(siteId, wired, c.end.placeId, c.end.port));
    }
  const all = sites.flatMap(({ siteId, wired }) =>
    wired.graph.places.map((place) => ({
      siteId,
      place,
      sheet: wired.sheetOf(place.id),
      inside: groups.of(`${siteId}/${place.id}`),
      before: groups.of(`${siteId}/${place.id}/wan`),
    })),
  );
  type Unit = (typeof all)[number];
  const routers = all.filter((u) => u.sheet?.routes === true);
  const servers = all.filter((u) => u.sheet?.handsOutAddresses === true);
  const beside = (u: Unit, others: readonly Unit[]): Unit | undefined =>
    others.slice(0, others.indexOf(u)).find((o) => o.inside === u.inside);
  return all.flatMap((u): JobFinding[] => {
    const server = beside(u, servers);
    if (server !== undefined && servers.includes(u))
      return [{ ...found("second-dhcp", "short", { placeId: u.place.id, figures: { first: server.place.name } }), siteId: u.siteId }];
    if (!routers.includes(u)) return [];
    const router = routers.find((o) => o !== u && o.inside === u.before) ?? beside(u, routers);
    return router === undefined
      ? []
      : [{ ...found("second-router", "tight", { placeId: u.place.id, figures: { first: router.place.name } }), siteId: u.siteId }];
  });
};
