import type { WiringFinding } from "./finding";
import { followed, type Lead, type Place, portKey } from "./graph";
import { bestFit, powerKind } from "./kinds";
import { type Context, type Draft, type MendKind, plain, withLead } from "./mend-draft";
import type { PartSheet } from "./part";
import { indoorCable, outdoorCable, protectorFor } from "./propose";

/* Mends of a lead: another cable, protectors, glass in the place of copper, or none. */

/** Other cables for a lead, thickest last. */
export const otherCables = ({ w, parts }: Context, f: WiringFinding, fits: (p: PartSheet) => boolean): Draft[] => {
  const lead = w.graph.leads.find((l) => l.id === f.leadId);
  if (lead === undefined) return [];
  const now = parts.get(lead.cableId ?? "")?.cable;
  return [...parts.values()]
    .filter(
      (p) =>
        p.kind === "cable" &&
        p.id !== lead.cableId &&
        p.cable!.material === "copper" &&
        (p.cable!.pairs === 1) === (now?.pairs === 1) &&
        (lead.way === "inside" || p.cable!.outdoor) &&
        fits(p),
    )
    .sort((a, b) => (a.cable!.pricePerM ?? 0) - (b.cable!.pricePerM ?? 0))
    .map((part) => ({
      ...plain,
      id: `cable:${part.id}`,
      kind: "other-cable" as const,
      part,
      costEur: part.cable!.pricePerM === undefined ? null : part.cable!.pricePerM * lead.lengthM,
      graph: withLead(w.graph, { ...lead, cableId: part.id }),
    }));
};

/** A protector put into a lead that goes outside, at the end that has none. */
export const protectors = ({ w, parts, newId }: Context, f: WiringFinding): Draft[] => {
  const lead = w.graph.leads.find((l) => l.id === f.leadId);
  if (lead === undefined) return [];
  const there = followed(w, lead, lead.from);
  const back = followed(w, lead, lead.to);
  const leads = [...new Set([...back.leads, ...there.leads])];
  const has = leads
    .flatMap((l) => [l.from.placeId, l.to.placeId])
    .map((id) => w.placeOf.get(id))
    .filter((p) => p?.kind === "surge");
  const giver =
    w.portOf(back.end)?.gives?.[0] ??
    w.portOf(there.end)?.gives?.[0] ??
    w.portOf(back.end)?.passes?.kind ??
    w.portOf(there.end)?.passes?.kind ??
    null;
  const speed = Math.min(w.portOf(back.end)?.speedMbps ?? 1000, w.portOf(there.end)?.speedMbps ?? 1000);
  const part = protectorFor(parts, giver, speed);
  if (part === null) return [];
  const [a, b] = part.ports.map((p) => p.id);
  let graph = w.graph;
  const insert = (at: "from" | "to", target: Lead, where: Place["where"]): void => {
    const place: Place = {
      id: newId(),
      partId: part.id,
      kind: "surge",
      name: where === "inside" ? "surge at the entry" : "surge outside",
      where,
      aglM: null,
      linkId: null,
      deviceId: null,
      earth: w.placeOf.get(target[at].placeId)?.earth ?? "",
      countsDrawn: false,
      bond: "unseen",
    };
    const short: Lead = {
      ...target,
      id: newId(),
      [at]: target[at],
      [at === "from" ? "to" : "from"]: { placeId: place.id, port: a! },
      lengthM: 1,
      way: where === "inside" ? "inside" : "outside",
      dripLoop: null,
      nearMains: null,
    };
    const rest: Lead = { ...graph.leads.find((l) => l.id === target.id)!, [at]: { placeId: place.id, port: b! } };
    const cut = withLead(graph, rest);
    graph = { ...cut, places: [...cut.places, place], leads: [...cut.leads, short] };
  };
  const outer = leads.find((l) => l.way !== "inside") ?? lead;
  const isIn = (end: Lead["from"]): boolean => w.placeOf.get(end.placeId)?.where === "inside";
  const hasIn = has.some((p) => p!.where === "inside");
  const hasOut = has.some((p) => p!.where !== "inside");
  if (has.length === 0) {
    insert("from", outer, isIn(outer.from) ? "inside" : "outside");
    insert("to", graph.leads.find((l) => l.id === outer.id)!, isIn(outer.to) ? "inside" : "outside");
  } else {
    // At the end of the way that has none yet.
    const last = (end: Lead["from"]): Lead | undefined =>
      leads.find((l) => portKey(l.from) === portKey(end) || portKey(l.to) === portKey(end));
    const end = [back.end, there.end].find((e) => (isIn(e) ? !hasIn : !hasOut)) ?? there.end;
    const target = last(end) ?? lead;
    insert(portKey(target.from) === portKey(end) ? "from" : "to", target, isIn(end) ? "inside" : "outside");
  }
  return [
    {
      ...plain,
      id: `protector:${part.id}`,
      kind: "protector",
      part,
      costEur: part.priceEur === undefined ? null : part.priceEur * (has.length === 0 ? 2 : 1),
      graph,
    },
  ];
};

/** Glass in the place of copper: a converter at each end on its own side's mains, and what the lead fed gets a supply of its own there. */
export const glass = ({ w, parts, newId }: Context, f: WiringFinding): Draft[] => {
  const lead = w.graph.leads.find((l) => l.id === f.leadId);
  const cable = [...parts.values()].find((p) => p.kind === "fibre" && p.cable?.metal === false && p.cable.shield === false);
  const media = [...parts.values()].find((p) => p.kind === "media");
  const socket = [...parts.values()].find((p) => p.kind === "mains");
  if (lead === undefined || cable === undefined || media === undefined || socket === undefined) return [];
  const copper = media.ports.find((p) => p.medium === "copper")?.id;
  const light = media.ports.find((p) => p.medium === "fibre")?.id;
  const plug = media.ports.find((p) => p.medium === "mains")?.id;
  if (copper === undefined || light === undefined || plug === undefined) return [];
  const short = (indoorCable(parts) ?? outdoorCable(parts))?.id ?? null;
  const places: Place[] = [];
  const leads: Lead[] = [];
  let costEur = (cable.cable?.pricePerM ?? 0) * lead.lengthM;
  const put = (part: PartSheet, name: string, earth: string): Place => {
    const place: Place = {
      id: newId(),
      partId: part.id,
      kind: part.kind,
      name,
      where: "inside",
      aglM: null,
      linkId: null,
      deviceId: null,
      earth,
      countsDrawn: false,
      bond: "none",
    };
    places.push(place);
    costEur += part.priceEur ?? 0;
    return place;
  };
  const join = (from: Lead["from"], to: Lead["from"], cableId: string | null): void => {
    leads.push({ ...lead, id: newId(), from, to, cableId, lengthM: 2, way: "inside", through: "", dripLoop: null, nearMains: null });
  };
  /** One end: its converter, plugged in, and between it and the device the supply that the lead was. */
  const side = (end: Lead["from"], name: string): Place => {
    const device = w.placeOf.get(end.placeId);
    const earth = device?.earth ?? "";
    const mains =
      w.graph.places.find((p) => p.kind === "mains" && p.earth === earth) ?? put(socket, `mains at ${device?.name ?? name}`, earth);
    const here = put(media, `fibre at ${device?.name ?? name}`, earth);
    join({ placeId: mains.id, port: "ac" }, { placeId: here.id, port: plug }, null);
    const takes = w.portOf(end)?.takes ?? [];
    const supply = [...parts.values()]
      .filter(
        (p) =>
          p.kind === "injector" &&
          p.ports.some((x) => x.medium === "mains") &&
          p.ports.some((x) => x.side === "fed" && bestFit(powerKind(x.gives![0]!)!, takes).fit === "fits"),
      )
      .sort((x, y) => (x.priceEur || 1e9) - (y.priceEur || 1e9))[0];
    if (takes.length === 0 || supply === undefined) join({ placeId: here.id, port: copper }, end, short);
    else {
      const injector = put(supply, `supply of ${device?.name ?? name}`, earth);
      join({ placeId: mains.id, port: "ac" }, { placeId: injector.id, port: "ac" }, null);
      join({ placeId: here.id, port: copper }, { placeId: injector.id, port: "lan" }, short);
      join({ placeId: injector.id, port: "fed" }, end, short);
    }
    return here;
  };
  const [one, two] = [side(lead.from, "near"), side(lead.to, "far")];
  const led: Lead = { ...lead, from: { placeId: one.id, port: light }, to: { placeId: two.id, port: light }, cableId: cable.id };
  return [
    {
      ...plain,
      id: "glass",
      kind: "glass",
      part: cable,
      costEur,
      graph: {
        ...w.graph,
        places: [...w.graph.places, ...places],
        leads: [...w.graph.leads.map((l) => (l.id === lead.id ? led : l)), ...leads],
      },
    },
  ];
};

export const takeOff = ({ w }: Context, f: WiringFinding): Draft[] =>
  f.leadId === null
    ? []
    : [{ ...plain, id: "take-off", kind: "take-off", graph: { ...w.graph, leads: w.graph.leads.filter((l) => l.id !== f.leadId) } }];

export const onLead = ({ w }: Context, f: WiringFinding, kind: MendKind, set: Partial<Lead>): Draft[] => {
  const lead = w.graph.leads.find((l) => l.id === f.leadId);
  return lead === undefined ? [] : [{ ...plain, id: kind, kind, graph: withLead(w.graph, { ...lead, ...set }) }];
};
