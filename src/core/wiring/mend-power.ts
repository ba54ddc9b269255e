import type { WiringFinding } from "./finding";
import { followed, type Lead, type Place, portKey, type Wired } from "./graph";
import { bestFit, powerKind } from "./kinds";
import { type Context, type Draft, plain, withLead, withPlace } from "./mend-draft";

/* Mends of what feeds a device: another port, a converter, an injector turned round, watts counted as drawn. */

/** The lead that ends at a place's power port. */
export const leadInto = (w: Wired, placeId: string): { readonly lead: Lead; readonly end: Lead["from"] } | null => {
  for (const port of w.sheetOf(placeId)?.ports ?? []) {
    if (port.takes === undefined) continue;
    const end = { placeId, port: port.id };
    const lead = w.at.get(portKey(end))?.[0];
    if (lead !== undefined && port.medium !== "mains") return { lead, end };
  }
  return null;
};

/** Another giver's free port whose kind the device takes. */
export const otherPorts = ({ w }: Context, f: WiringFinding): Draft[] => {
  if (f.placeId === null) return [];
  const into = leadInto(w, f.placeId);
  const takes = w.sheetOf(f.placeId)?.ports.flatMap((p) => p.takes ?? []) ?? [];
  if (into === null) return [];
  return w.graph.places.flatMap((p): Draft[] => {
    if (p.id === f.placeId) return [];
    const port = w
      .sheetOf(p.id)
      ?.ports.find(
        (x) =>
          x.medium === "copper" &&
          x.passes === undefined &&
          !w.at.has(portKey({ placeId: p.id, port: x.id })) &&
          x.gives?.some((k) => bestFit(powerKind(k)!, takes).fit === "fits") === true,
      );
    if (port === undefined) return [];
    const { lead, end } = into;
    const giver = { placeId: p.id, port: port.id };
    const moved: Lead = portKey(lead.to) === portKey(end) ? { ...lead, from: giver } : { ...lead, to: giver };
    return [
      {
        ...plain,
        id: `port:${p.id}/${port.id}`,
        kind: "other-port",
        placeName: p.name,
        portName: port.name,
        graph: withLead(w.graph, moved),
      },
    ];
  });
};

/** A converter at the device, from the kind that arrives to one that it takes. */
export const converters = ({ w, parts, newId }: Context, f: WiringFinding): Draft[] => {
  if (f.placeId === null) return [];
  const into = leadInto(w, f.placeId);
  const device = w.placeOf.get(f.placeId);
  const takes = w.sheetOf(f.placeId)?.ports.flatMap((p) => p.takes ?? []) ?? [];
  const arrives = powerKind(String(f.figures.gives ?? ""));
  if (into === null || device === undefined || arrives === null) return [];
  return [...parts.values()].flatMap((part): Draft[] => {
    if (part.kind !== "converter" && part.kind !== "splitter") return [];
    const input = part.ports.find((p) => p.takes !== undefined && bestFit(arrives, p.takes).fit === "fits");
    const output = part.ports.find((p) => p.gives?.some((k) => bestFit(powerKind(k)!, takes).fit === "fits") === true);
    if (input === undefined || output === undefined) return [];
    const { lead, end } = into;
    const place: Place = {
      id: newId(),
      partId: part.id,
      kind: part.kind,
      name: `converter at ${device.name}`,
      where: device.where,
      aglM: device.aglM,
      linkId: null,
      deviceId: null,
      earth: device.earth,
      countsDrawn: false,
      bond: "none",
    };
    const arriving: Lead =
      portKey(lead.to) === portKey(end)
        ? { ...lead, to: { placeId: place.id, port: input.id } }
        : { ...lead, from: { placeId: place.id, port: input.id } };
    const on: Lead = {
      ...lead,
      id: newId(),
      from: { placeId: place.id, port: output.id },
      to: end,
      lengthM: 1,
      way: lead.way === "both" ? "outside" : lead.way,
      dripLoop: null,
      nearMains: null,
    };
    const graph = withLead(w.graph, arriving);
    return [
      {
        ...plain,
        id: `converter:${part.id}`,
        kind: "converter",
        part,
        placeName: device.name,
        costEur: part.priceEur ?? null,
        graph: { ...graph, places: [...graph.places, place], leads: [...graph.leads, on] },
      },
    ];
  });
};

/** Its two sides exchanged: what is in one goes into the other. */
export const turned = ({ w }: Context, f: WiringFinding): Draft[] => {
  const sheet = w.sheetOf(f.placeId ?? "");
  const lan = sheet?.ports.find((p) => p.side === "lan")?.id;
  const fed = sheet?.ports.find((p) => p.side === "fed")?.id;
  if (lan === undefined || fed === undefined) return [];
  const swap = (e: Lead["from"]): Lead["from"] =>
    e.placeId !== f.placeId ? e : { ...e, port: e.port === lan ? fed : e.port === fed ? lan : e.port };
  return [
    {
      ...plain,
      id: "turn",
      kind: "turn-injector",
      graph: { ...w.graph, leads: w.graph.leads.map((l) => ({ ...l, from: swap(l.from), to: swap(l.to) })) },
    },
  ];
};

/** The same finding of what hangs behind a port that passes power on. */
export const beyond = ({ w }: Context, f: WiringFinding): WiringFinding => {
  const lead = w.graph.leads.find((l) => l.id === f.leadId);
  if (lead === undefined) return f;
  const start = lead.from.placeId === f.placeId ? lead.from : lead.to;
  return { ...f, placeId: followed(w, lead, start).end.placeId };
};

export const countDrawn = ({ w }: Context, f: WiringFinding): Draft[] => {
  const place = w.placeOf.get(f.placeId ?? "");
  return place === undefined || place.countsDrawn
    ? []
    : [
        {
          ...plain,
          id: "count-drawn",
          kind: "count-drawn",
          placeName: place.name,
          graph: withPlace(w.graph, { ...place, countsDrawn: true }),
        },
      ];
};
