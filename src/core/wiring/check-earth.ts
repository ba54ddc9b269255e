import { type Channel, channelsOf } from "./check-leads";
import type { Feeds } from "./feeds";
import { found, type WiringFinding } from "./finding";
import { portKey, type Wired } from "./graph";

/*
 * Surge and earth: protectors at both ends of what goes outside, each made for its lead, each joined to the one earth of the building.
 * What an earth needs in copper, way and joint is the local code's; nothing here stands in for it.
 */

const goesOutside = (c: Channel): boolean => c.leads.some((l) => l.way !== "inside");

const surgeFindings = (w: Wired, feeds: Feeds, c: Channel): WiringFinding[] => {
  const glass = c.leads.every((l) => w.parts.get(l.cableId ?? "")?.cable?.material === "glass");
  const media = w.portOf(c.from)?.medium ?? w.portOf(c.end)?.medium;
  if (glass || media === "mains" || media === "fibre" || !goesOutside(c)) return [];
  const out: WiringFinding[] = [];
  const protectors = c.through.filter((id) => w.placeOf.get(id)?.kind === "surge");
  const leadId = c.leads.find((l) => l.way !== "inside")!.id;
  if (media !== "dc") {
    if (protectors.length === 0) out.push(found("surge-missing", "short", { leadId }));
    else if (protectors.length === 1) {
      const only = w.placeOf.get(protectors[0]!)!;
      out.push(found("surge-one", "tight", { leadId, placeId: only.id, figures: { has: only.where === "inside" ? "entry" : "mast" } }));
    }
  }
  const arrival = feeds.arrivals.get(portKey(c.end)) ?? feeds.arrivals.get(portKey(c.from));
  const wanted = Math.min(w.portOf(c.from)?.speedMbps ?? 0, w.portOf(c.end)?.speedMbps ?? 0);
  for (const placeId of protectors) {
    const s = w.sheetOf(placeId)?.surge;
    if (s === undefined) continue;
    if (arrival !== undefined) {
      const { gives } = arrival;
      const volts = Math.max(gives.volts, gives.scheme === "802.3" ? 57 : 0);
      if (volts > s.mostV) out.push(found("surge-volts", "short", { placeId, figures: { volts, most: s.mostV } }));
      else if (gives.scheme !== "dc" && gives.scheme !== "mains" && !s.schemes.includes(gives.scheme))
        out.push(found("surge-kind", "short", { placeId, figures: { kind: gives.key, made: s.schemes.join(", ") } }));
      else if (gives.pairs > s.pairs) out.push(found("surge-pairs", "short", { placeId, figures: { pairs: gives.pairs, most: s.pairs } }));
    }
    if (s.speedMbps < wanted) out.push(found("surge-speed", "tight", { placeId, figures: { mbps: s.speedMbps, wanted } }));
  }
  return out;
};

const bondFindings = (w: Wired): WiringFinding[] =>
  w.graph.places.flatMap((p) => {
    if (p.bond === "open" || (p.kind === "surge" && p.bond === "none")) return [found("bond-open", "short", { placeId: p.id, stop: true })];
    return p.bond === "unseen" ? [found("bond-unseen", "unknown", { placeId: p.id })] : [];
  });

/** Kinds of mains whose earth a specialist must be asked about before metal is led outside. */
const ASKS_SPECIALIST = new Set(["TN-C-S", "IT"]);

/** What the building's one earth is asked, where anything of the site stands outside. */
const buildingFindings = (w: Wired): WiringFinding[] => {
  const outside = w.graph.places.some((p) => p.where !== "inside");
  if (!outside) return [];
  const e = w.graph.earth;
  const out: WiringFinding[] = [];
  if (e.mains === null) out.push(found("mains-unasked", "unknown"));
  else if (ASKS_SPECIALIST.has(e.mains) && e.specialist === "")
    out.push(found("mains-specialist", "short", { stop: true, figures: { mains: e.mains } }));
  if (e.lightning === null) out.push(found("lightning-unasked", "unknown"));
  else if (e.lightning === "there" && e.specialist === "") out.push(found("lightning-specialist", "short", { stop: true }));
  for (const [of, open, unseen] of [
    [e.bar, "bar-open", "bar-unseen"],
    [e.mast, "mast-open", "mast-unseen"],
    [e.rod, "rod-open", "rod-unseen"],
  ] as const) {
    if (of === "open") out.push(found(open, "short", { stop: true }));
    if (of === "unseen") out.push(found(unseen, "unknown"));
  }
  if (e.sizeMm2 === null || e.source === "") out.push(found("earth-unasked", "unknown"));
  const screened = w.graph.leads.some((l) => l.way !== "inside" && w.parts.get(l.cableId ?? "")?.cable?.shield === true);
  if (screened && e.screens === null) out.push(found("screen-unasked", "unknown"));
  return out;
};

export const earthFindings = (w: Wired, feeds: Feeds): WiringFinding[] => [
  ...channelsOf(w).flatMap((c) => surgeFindings(w, feeds, c)),
  ...bondFindings(w),
  ...buildingFindings(w),
];
