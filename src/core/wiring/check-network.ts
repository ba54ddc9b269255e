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

/**
 * A second translator, or a second server of addresses, behind the same bridges. A router joins what is behind it to what is before
 * it, which is no bridge: only the ports of its inside count, which is all but the one named "wan".
 * @param airs ends of links that join two sites.
 */
export const jobNetworkFindings = (sites: readonly SiteWired[], airs: readonly (readonly [string, string])[]): JobFinding[] => {
  const groups = new Groups();
  for (const [a, b] of airs) groups.join(`air:${a}`, `air:${b}`);
  for (const { siteId, wired } of sites)
    for (const c of channelsOf(wired)) {
      const name = (end: { placeId: string; port: string }): string => {
        const place = wired.placeOf.get(end.placeId);
        const isWan = end.port === "wan";
        return `${siteId}/${end.placeId}${isWan ? "/wan" : ""}${place === undefined ? "/gone" : ""}`;
      };
      if (wired.portOf(c.from)?.speedMbps === undefined || wired.portOf(c.end)?.speedMbps === undefined) continue;
      groups.join(name(c.from), name(c.end));
      for (const end of [c.from, c.end]) {
        const place = wired.placeOf.get(end.placeId);
        if (place?.kind === "radio") groups.join(name(end), `air:${siteId}`);
      }
    }
  const firstRouter = new Map<string, string>();
  const firstServer = new Map<string, string>();
  const out: JobFinding[] = [];
  for (const { siteId, wired } of sites)
    for (const place of wired.graph.places) {
      const sheet = wired.sheetOf(place.id);
      if (sheet === null) continue;
      const group = groups.of(`${siteId}/${place.id}`);
      if (sheet.routes === true) {
        const first = firstRouter.get(group);
        if (first === undefined) firstRouter.set(group, place.name);
        else out.push({ ...found("second-router", "tight", { placeId: place.id, figures: { first } }), siteId });
      }
      if (sheet.handsOutAddresses === true) {
        const first = firstServer.get(group);
        if (first === undefined) firstServer.set(group, place.name);
        else if (sheet.routes !== true) out.push({ ...found("second-dhcp", "short", { placeId: place.id, figures: { first } }), siteId });
      }
    }
  return out;
};
