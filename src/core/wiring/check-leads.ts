import type { Feeds } from "./feeds";
import { found, type WiringFinding } from "./finding";
import { followed, type Lead, portKey, type Wired } from "./graph";
import { powerKind } from "./kinds";
import { type CableSheet, cableMbps, type PortSheet, THIN_AWG } from "./part";

/* Leads by themselves and as channels: what they are of, how long, past what, and how fast. */

/** A copper channel ends at 100 m, its fixed part at 90 (ISO/IEC 11801-1 clause 8). */
export const CHANNEL_MOST_M = 100;
export const FIXED_MOST_M = 90;
/** Thin cords carrying power over more than this are named (ours). */
const THIN_CORD_M = 5;

const cableOf = (w: Wired, lead: Lead): CableSheet | null => w.parts.get(lead.cableId ?? "")?.cable ?? null;

const leadFindings = (w: Wired, lead: Lead, powered: ReadonlySet<string>): WiringFinding[] => {
  const at = { leadId: lead.id };
  const out: WiringFinding[] = [];
  const ports = [w.portOf(lead.from), w.portOf(lead.to)] as const;
  for (const [i, end] of [lead.from, lead.to].entries())
    if (!w.placeOf.has(end.placeId) || (w.sheetOf(end.placeId) !== null && ports[i] === null))
      out.push(
        found("port-gone", "short", { ...at, placeId: w.placeOf.has(end.placeId) ? end.placeId : null, figures: { port: end.port } }),
      );
  const [a, b] = ports;
  if (a !== null && b !== null && a.medium !== b.medium)
    out.push(found("medium-unfit", "short", { ...at, figures: { from: a.medium, to: b.medium } }));
  const cable = cableOf(w, lead);
  const isMains = a?.medium === "mains" || b?.medium === "mains";
  if (isMains) return out;
  if (cable === null) {
    out.push(found("cable-unknown", "unknown", at));
  } else {
    if (a !== null && a.medium === "fibre" && cable.material !== "glass")
      out.push(found("medium-unfit", "short", { ...at, figures: { from: "fibre", to: "copper" } }));
    if (a !== null && a.medium !== "fibre" && cable.material === "glass")
      out.push(found("medium-unfit", "short", { ...at, figures: { from: a.medium, to: "fibre" } }));
    if (cable.material === "copper-clad") out.push(found("copper-clad", "tight", at));
    if (cable.cord && (cable.awg ?? 0) >= THIN_AWG && lead.lengthM > THIN_CORD_M && powered.has(lead.id))
      out.push(found("thin-cord", "tight", { ...at, figures: { awg: cable.awg ?? 0, metres: lead.lengthM } }));
    if (lead.way !== "inside" && !cable.outdoor) out.push(found("indoor-outside", "short", at));
    out.push(...screenFindings(w, lead, cable));
    const [p, q] = [w.placeOf.get(lead.from.placeId), w.placeOf.get(lead.to.placeId)];
    if (p !== undefined && q !== undefined && p.earth !== q.earth && (cable.material !== "glass" || cable.metal || cable.shield))
      out.push(
        found("two-earths", "short", {
          ...at,
          stop: true,
          figures: { from: p.earth, to: q.earth, metal: cable.material === "glass" ? "armour" : "wires" },
        }),
      );
    if (lead.nearMains !== null) out.push(...mainsFindings(w, lead));
  }
  if (lead.way === "both" && lead.dripLoop === false) out.push(found("no-drip-loop", "tight", at));
  if (lead.way === "both" && lead.dripLoop === null) out.push(found("drip-unseen", "unknown", at));
  return out;
};

const screenFindings = (w: Wired, lead: Lead, cable: CableSheet): WiringFinding[] => {
  if (!cable.shield || lead.way === "inside") return [];
  const at = { leadId: lead.id };
  if (lead.screen === "unseen") return [found("screen-unseen", "unknown", at)];
  if (lead.screen === "none") return [found("screen-open", "tight", at)];
  const { screens } = w.graph.earth;
  if (screens !== null && screens !== lead.screen)
    return [found("screen-practice", "tight", { ...at, figures: { is: lead.screen, asks: screens } })];
  return [];
};

const mainsFindings = (w: Wired, lead: Lead): WiringFinding[] => {
  const asked = w.graph.earth.mainsGapMm;
  const { gapMm, alongM } = lead.nearMains!;
  const at = { leadId: lead.id };
  if (gapMm === null) return [found("gap-unseen", "unknown", { ...at, figures: { metres: alongM } })];
  if (asked === null) return [found("gap-unasked", "unknown", { ...at, figures: { gap: gapMm, metres: alongM } })];
  return gapMm < asked ? [found("near-mains", "tight", { ...at, figures: { gap: gapMm, asked, metres: alongM } })] : [];
};

/** From one active port to the next, through protectors and couplers. */
export interface Channel {
  readonly from: Lead["from"];
  readonly end: Lead["from"];
  readonly leads: readonly Lead[];
  /** Places that it goes straight through. */
  readonly through: readonly string[];
}

/** Every channel once. */
export const channelsOf = (w: Wired): Channel[] => {
  const seen = new Set<string>();
  const out: Channel[] = [];
  for (const lead of w.graph.leads) {
    if (seen.has(lead.id) || !w.placeOf.has(lead.from.placeId) || !w.placeOf.has(lead.to.placeId)) continue;
    const there = followed(w, lead, lead.from);
    const back = followed(w, lead, lead.to);
    const leads = [...back.leads.slice(1).reverse(), ...there.leads];
    for (const l of leads) seen.add(l.id);
    const ends = new Set([back.end.placeId, there.end.placeId]);
    const through = [...new Set(leads.flatMap((l) => [l.from.placeId, l.to.placeId]))].filter((id) => !ends.has(id));
    out.push({ from: back.end, end: there.end, leads, through });
  }
  return out;
};

const channelFindings = (w: Wired, c: Channel): WiringFinding[] => {
  const [a, b] = [w.portOf(c.from), w.portOf(c.end)];
  const speeds = [a?.speedMbps, b?.speedMbps].filter((s) => s !== undefined);
  if (speeds.length < 2) return [];
  const out: WiringFinding[] = [];
  const copper = c.leads.filter((l) => cableOf(w, l)?.material !== "glass");
  const metres = copper.reduce((s, l) => s + l.lengthM, 0);
  const fixed = copper.filter((l) => cableOf(w, l)?.cord !== true).reduce((s, l) => s + l.lengthM, 0);
  const leadId = c.leads.reduce((m, l) => (l.lengthM > m.lengthM ? l : m)).id;
  const hasCords = copper.some((l) => cableOf(w, l)?.cord === true);
  if (metres > CHANNEL_MOST_M || (hasCords && fixed > FIXED_MOST_M))
    out.push(
      found("too-long", "short", {
        leadId,
        figures: metres > CHANNEL_MOST_M ? { metres, most: CHANNEL_MOST_M } : { metres: fixed, most: FIXED_MOST_M },
      }),
    );
  const wanted = Math.min(...(speeds as number[]));
  for (const l of c.leads) {
    const cable = cableOf(w, l);
    if (cable === null) continue;
    const mbps = cableMbps(cable, Math.min(metres, CHANNEL_MOST_M));
    if (mbps < wanted) out.push(found("slow-lead", "tight", { leadId: l.id, figures: { mbps, wanted } }));
  }
  return out;
};

interface InjectorWays {
  readonly placeId: string;
  readonly fedMbps: number;
  /** What is at last on the side of the network, and on the side that it feeds. */
  readonly net: PortSheet | null;
  readonly unit: PortSheet | null;
  readonly gives: string;
}

const injectorsOf = (w: Wired): InjectorWays[] =>
  w.graph.places.flatMap((place) => {
    const sheet = w.sheetOf(place.id);
    const lan = sheet?.ports.find((p) => p.side === "lan");
    const fed = sheet?.ports.find((p) => p.side === "fed");
    if (sheet === null || lan === undefined || fed === undefined) return [];
    const beyond = (portId: string) => {
      const end = { placeId: place.id, port: portId };
      const lead = w.at.get(portKey(end))?.[0];
      return lead === undefined ? null : w.portOf(followed(w, lead, end).end);
    };
    return [{ placeId: place.id, fedMbps: fed.speedMbps ?? 0, net: beyond(lan.id), unit: beyond(fed.id), gives: fed.gives?.[0] ?? "" }];
  });

/** Injectors whose fed side goes to the network, and whose network side goes to what wants feeding. */
export const turnedInjectors = (w: Wired): ReadonlySet<string> =>
  new Set(injectorsOf(w).flatMap((i) => (i.net?.takes !== undefined && i.unit !== null && i.unit.takes === undefined ? [i.placeId] : [])));

/** An injector the wrong way round, or slower than what it stands between. */
const injectorFindings = (w: Wired): WiringFinding[] => {
  const turned = turnedInjectors(w);
  return injectorsOf(w).flatMap((i) => {
    // Volts of a passive one stand on the network's port then.
    if (turned.has(i.placeId))
      return [found("injector-turned", "short", { placeId: i.placeId, stop: powerKind(i.gives)?.scheme !== "802.3" })];
    const wanted = Math.min(i.net?.speedMbps ?? Number.POSITIVE_INFINITY, i.unit?.speedMbps ?? Number.POSITIVE_INFINITY);
    return Number.isFinite(wanted) && i.fedMbps < wanted
      ? [found("slow-injector", "tight", { placeId: i.placeId, figures: { mbps: i.fedMbps, wanted } })]
      : [];
  });
};

const portFindings = (w: Wired): WiringFinding[] =>
  [...w.at].flatMap(([, leads]) => {
    const [first, second] = leads;
    if (first === undefined || second === undefined) return [];
    const shared = [first.from, first.to].find((e) => [second.from, second.to].some((o) => portKey(o) === portKey(e)));
    // A socket of the mains and a terminal of direct current feed several; everything else takes one plug.
    if (shared === undefined || w.portOf(shared)?.medium === "mains" || w.portOf(shared)?.medium === "dc") return [];
    return [
      found("port-taken", "short", {
        placeId: shared.placeId,
        leadId: second.id,
        figures: { port: w.portOf(shared)?.name ?? shared.port },
      }),
    ];
  });

export const leadsFindings = (w: Wired, feeds: Feeds): WiringFinding[] => {
  const powered = new Set([...feeds.arrivals.values()].flatMap((a) => a.leads.map((l) => l.id)));
  return [
    ...portFindings(w),
    ...w.graph.leads.flatMap((l) => leadFindings(w, l, powered)),
    ...channelsOf(w).flatMap((c) => channelFindings(w, c)),
    ...injectorFindings(w),
    ...w.graph.places.flatMap((p) => {
      const sheet = w.sheetOf(p.id);
      return sheet !== null && p.where !== "inside" && sheet.outdoor === false ? [found("part-outside", "short", { placeId: p.id })] : [];
    }),
  ];
};
