import { type JudgedSite, radiosAt, type SiteWiring } from "@/contract";
import type { Verdict } from "@/core/link";
import { worseVerdict } from "@/core/link";
import { type Arrival, followed, type JobFinding, type Lead, type Parts, type Place, portKey, supplyRank, type Wired } from "@/core/wiring";

/* What the sheet shows of a site's wiring: what belongs to the link that is looked at, and each unit with what reaches it. */

/** Places of a site that a link's page shows: all but what only another radio hangs on. */
export const placesOfLink = (w: Wired, linkId: string): { readonly shown: ReadonlySet<string>; readonly others: number } => {
  const { places } = w.graph;
  const own = places.find((p) => p.linkId === linkId);
  // A hub's radio stands for all its links.
  const others = places.filter((p) => p.kind === "radio" && p !== (own ?? places.find((x) => x.kind === "radio")));
  const hidden = new Set<string>();
  for (const radio of others) {
    hidden.add(radio.id);
    for (const lead of w.graph.leads)
      for (const end of [lead.from, lead.to]) {
        if (end.placeId !== radio.id || w.portOf(end)?.takes === undefined) continue;
        const way = followed(w, lead, end);
        for (const l of way.leads) for (const e of [l.from, l.to]) if (w.placeOf.get(e.placeId)?.kind === "surge") hidden.add(e.placeId);
        if (w.placeOf.get(way.end.placeId)?.kind === "injector") hidden.add(way.end.placeId);
      }
  }
  return { shown: new Set(places.filter((p) => !hidden.has(p.id)).map((p) => p.id)), others: others.length };
};

/** One row of the table: a unit, what it is plugged into, and what reaches it. */
export interface UnitRow {
  readonly place: Place;
  readonly type: string;
  /** What it is plugged into, port by port; the powered lead first. */
  readonly into: { readonly name: string; readonly port: string; readonly lead: Lead } | null;
  readonly metres: number | null;
  readonly arrival: Arrival | null;
  readonly watts: number | null;
  readonly mbps: number | null;
  readonly verdict: Verdict;
}

const NOT_LISTED = new Set<Place["kind"]>(["surge", "mains", "fuse"]);

export const unitRows = (site: JudgedSite, shown: ReadonlySet<string>): UnitRow[] => {
  const { wired: w, feeds } = site.judged;
  return w.graph.places
    .filter((p) => shown.has(p.id) && !NOT_LISTED.has(p.kind))
    .map((place): UnitRow => {
      const sheet = w.sheetOf(place.id);
      const ports = [...(sheet?.ports ?? [])].sort((a, b) => Number(b.takes !== undefined) - Number(a.takes !== undefined));
      const own = w.graph.leads.filter((l) => l.from.placeId === place.id || l.to.placeId === place.id);
      const ends =
        ports.length > 0
          ? ports.map((p) => ({ placeId: place.id, port: p.id }))
          : own.map((l) => (l.from.placeId === place.id ? l.from : l.to));
      const inOrder = ends.flatMap((end) => (w.at.get(portKey(end)) ?? []).map((lead) => ({ lead, end })));
      const first =
        inOrder.find(({ end }) => w.portOf(end)?.takes !== undefined && w.portOf(end)?.medium !== "mains") ??
        inOrder.find(({ end }) => w.portOf(end)?.gives === undefined && w.portOf(end)?.medium !== "mains") ??
        inOrder[0] ??
        null;
      const way = first === null ? null : followed(w, first.lead, first.end);
      const arrival = ends.map((e) => feeds.arrivals.get(portKey(e))).find((a) => a !== undefined && a.gives.scheme !== "mains") ?? null;
      const at = way === null ? null : (w.placeOf.get(way.end.placeId) ?? null);
      const speeds = way === null ? [] : [w.portOf(first!.end)?.speedMbps, w.portOf(way.end)?.speedMbps].filter((s) => s !== undefined);
      return {
        place,
        type: sheet?.name ?? "",
        into: at === null ? null : { name: at.name, port: w.portOf(way!.end)?.name ?? way!.end.port, lead: first!.lead },
        metres: way === null || w.portOf(first!.end)?.medium === "mains" ? null : way.leads.reduce((s, l) => s + l.lengthM, 0),
        arrival,
        watts: arrival?.drawW ?? null,
        mbps: speeds.length === 2 ? Math.min(...(speeds as number[])) : null,
        verdict: site.findings.filter((f) => f.placeId === place.id).reduce<Verdict>((v, f) => worseVerdict(v, f.verdict), "clear"),
      };
    });
};

/** How far what arrives lies from what a device asks: less than none where it is too little. */
export const shortBy = (a: Arrival): number | null => (a.volts === null || a.window === null ? null : a.volts - a.window.low);

/** The end whose finding is the worst, and that finding. */
export const worstOf = (sites: readonly JudgedSite[]): { readonly site: JudgedSite; readonly finding: JobFinding } | null => {
  const RANK = { short: 0, unknown: 1, tight: 2 } as const;
  const all = sites.flatMap((site) => site.findings.map((finding) => ({ site, finding })));
  // Of what is equally bad the one that has volts to show is told first.
  const hasVolts = (x: (typeof all)[number]): number => (x.finding.placeId === x.site.judged.decides?.end.placeId ? 0 : 1);
  return (
    all.sort(
      (a, b) =>
        RANK[a.finding.verdict] - RANK[b.finding.verdict] || hasVolts(a) - hasVolts(b) || Number(b.finding.stop) - Number(a.finding.stop),
    )[0] ?? null
  );
};

/** The supply that decides over both ends: one that does not fit, else the one with the least part to spare. Only what the page shows. */
export const decidesOver = (
  sites: readonly JudgedSite[],
  linkId: string,
): { readonly site: JudgedSite; readonly arrival: Arrival } | null => {
  const all = sites.flatMap((site) => {
    const { shown } = placesOfLink(site.judged.wired, linkId);
    return [...site.judged.feeds.arrivals.values()]
      .filter((a) => a.gives.scheme !== "mains" && shown.has(a.end.placeId))
      .map((arrival) => ({ site, arrival }));
  });
  return all.map((x) => ({ ...x, rank: supplyRank(x.arrival, x.site.findings) })).sort((a, b) => a.rank - b.rank)[0] ?? null;
};

export const verdictOver = (sites: readonly JudgedSite[]): Verdict =>
  sites.reduce<Verdict>((v, s) => s.findings.reduce<Verdict>((x, f) => worseVerdict(x, f.verdict), v), "clear");

/** A part of the plan that is not there yet: radios of the plan that the wiring lacks, or has of another type. */
export interface Missing {
  readonly siteId: string;
  readonly linkId: string;
  readonly name: string;
  readonly what: "not-wired" | "other-type" | "link-gone";
  readonly partId: string | null;
  readonly placeId: string | null;
}

export const missingOf = (
  job: Parameters<typeof radiosAt>[0],
  wiring: SiteWiring,
  parts: Parts,
  sectorOf: (linkId: string) => string | null,
): Missing[] => {
  const planned = radiosAt(job, wiring.siteId, sectorOf);
  const radios = wiring.places.filter((p) => p.kind === "radio");
  const out: Missing[] = planned.flatMap((r): Missing[] => {
    const place = radios.find((p) => p.linkId === r.linkId);
    if (place === undefined)
      return [{ siteId: wiring.siteId, linkId: r.linkId, name: r.name, what: "not-wired", partId: r.partId, placeId: null }];
    if (place.partId === r.partId || !parts.has(r.partId)) return [];
    return [{ siteId: wiring.siteId, linkId: r.linkId, name: place.name, what: "other-type", partId: r.partId, placeId: place.id }];
  });
  const there = new Set(job.links.map((l) => l.id));
  for (const p of radios)
    if (p.linkId !== null && !there.has(p.linkId))
      out.push({ siteId: wiring.siteId, linkId: p.linkId, name: p.name, what: "link-gone", partId: null, placeId: p.id });
  return out;
};
