import type { PartSheet, Parts, PortSheet } from "./part";

/* One end as a graph: places where a thing stands, leads from port to port, and how it is earthed. */

export interface Place {
  readonly id: string;
  /** Its sheet; null while nobody knows which it is. */
  readonly partId: string | null;
  readonly kind: PartSheet["kind"];
  readonly name: string;
  readonly where: "inside" | "outside" | "mast";
  readonly aglM: number | null;
  /** The link whose radio it is. */
  readonly linkId: string | null;
  /** The row of the brief's devices that it is one of. */
  readonly deviceId: string | null;
  /** The building's own earth is ""; any other name is an earth of its own. */
  readonly earth: string;
  /** Of a giver: it is recorded as counting what is drawn, not what classes reserve. */
  readonly countsDrawn: boolean;
  /** Its case, shield or protector is joined to the bar. */
  readonly bond: "joined" | "open" | "unseen" | "none";
}

export interface Lead {
  readonly id: string;
  readonly from: { readonly placeId: string; readonly port: string };
  readonly to: { readonly placeId: string; readonly port: string };
  readonly cableId: string | null;
  readonly lengthM: number;
  readonly way: "inside" | "outside" | "both";
  /** Wall or roof it goes through. */
  readonly through: string;
  readonly temperatureC: number;
  /** Of a screened one: where its screen is bonded. */
  readonly screen: "one" | "both" | "none" | "unseen";
  /** Where it comes in from outside it hangs below the hole first. */
  readonly dripLoop: boolean | null;
  /** Beside mains, and how far from it; null where it is not. */
  readonly nearMains: { readonly gapMm: number | null; readonly alongM: number } | null;
}

export interface EarthPlan {
  /** How the building's mains are earthed, and who said so. */
  readonly mains: "TN-S" | "TN-C-S" | "TT" | "IT" | "none" | null;
  readonly lightning: "none" | "there" | null;
  /** A specialist has said how what is new is joined to it. */
  readonly specialist: string;
  readonly bar: "joined" | "open" | "unseen";
  readonly mast: "joined" | "open" | "unseen" | "none";
  readonly rod: "none" | "joined" | "open" | "unseen";
  /** Cross-section, way and joint as the local code asks, with where that stands. */
  readonly sizeMm2: number | null;
  readonly source: string;
  /** Which ends of a screen the local practice bonds. */
  readonly screens: "one" | "both" | null;
  /** Least gap to mains that the local code asks, mm. */
  readonly mainsGapMm: number | null;
}

export interface WiringGraph {
  readonly places: readonly Place[];
  readonly leads: readonly Lead[];
  readonly earth: EarthPlan;
}

/** A graph ready to be walked: which lead goes into which port. */
export interface Wired {
  readonly graph: WiringGraph;
  readonly parts: Parts;
  readonly placeOf: ReadonlyMap<string, Place>;
  readonly sheetOf: (placeId: string) => PartSheet | null;
  readonly portOf: (end: Lead["from"]) => PortSheet | null;
  /** Leads at a port, "place/port". */
  readonly at: ReadonlyMap<string, readonly Lead[]>;
}

export const portKey = (end: Lead["from"]): string => `${end.placeId}/${end.port}`;
export const otherEnd = (lead: Lead, end: Lead["from"]): Lead["from"] => (portKey(lead.from) === portKey(end) ? lead.to : lead.from);

/** Leads to places or ports that are not there are left out; who checks the graph tells of them. */
export const wire = (graph: WiringGraph, parts: Parts): Wired => {
  const placeOf = new Map(graph.places.map((p) => [p.id, p]));
  const sheetOf = (placeId: string): PartSheet | null => parts.get(placeOf.get(placeId)?.partId ?? "") ?? null;
  const portOf = (end: Lead["from"]): PortSheet | null => sheetOf(end.placeId)?.ports.find((p) => p.id === end.port) ?? null;
  const at = new Map<string, Lead[]>();
  for (const lead of graph.leads)
    if (placeOf.has(lead.from.placeId) && placeOf.has(lead.to.placeId))
      for (const end of [lead.from, lead.to]) at.set(portKey(end), [...(at.get(portKey(end)) ?? []), lead]);
  return { graph, parts, placeOf, sheetOf, portOf, at };
};

/** Where a lead ends at last: on through protectors and couplers, with all leads on the way. */
export const followed = (w: Wired, lead: Lead, from: Lead["from"]): { readonly leads: readonly Lead[]; readonly end: Lead["from"] } => {
  const leads = [lead];
  let end = otherEnd(lead, from);
  for (;;) {
    const straight = w.portOf(end)?.straightTo;
    if (straight === undefined) return { leads, end };
    const out = { placeId: end.placeId, port: straight };
    const next = w.at.get(portKey(out))?.[0];
    if (next === undefined || leads.includes(next)) return { leads, end };
    leads.push(next);
    end = otherEnd(next, out);
  }
};
