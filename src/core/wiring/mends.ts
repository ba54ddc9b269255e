import type { WiringCode, WiringFinding } from "./finding";
import { followed, type Lead, type Place, portKey, type Wired, type WiringGraph } from "./graph";
import { type JudgedWiring, judgeWiring } from "./judge";
import { bestFit, powerKind } from "./kinds";
import type { PartSheet, Parts } from "./part";
import { indoorCable, outdoorCable, protectorFor } from "./propose";
import type { SunPlan } from "./sun";

/* What would mend a finding: each worked out on the whole end before it is taken. */

export type MendKind =
  | "other-port"
  | "converter"
  | "other-cable"
  | "other-part"
  | "count-drawn"
  | "protector"
  | "other-protector"
  | "drip-loop"
  | "away-from-mains"
  | "take-off"
  | "turn-injector"
  | "glass";

export interface WiringMend {
  readonly id: string;
  readonly kind: MendKind;
  /** What it is done with: a part, a place, a port. */
  readonly part: PartSheet | null;
  readonly placeName: string;
  readonly portName: string;
  readonly graph: WiringGraph;
  readonly judged: JudgedWiring;
  /** Volts where they were too few or too many. */
  readonly volts: number | null;
  readonly costEur: number | null;
}

interface Context {
  readonly w: Wired;
  readonly parts: Parts;
  readonly sun: SunPlan | null;
  readonly latDeg: number;
  readonly newId: () => string;
}

type Draft = Omit<WiringMend, "judged" | "volts" | "id"> & { readonly id: string };

const MOST_MENDS = 4;

const withLead = (g: WiringGraph, lead: Lead): WiringGraph => ({ ...g, leads: g.leads.map((l) => (l.id === lead.id ? lead : l)) });
const withPlace = (g: WiringGraph, place: Place): WiringGraph => ({ ...g, places: g.places.map((p) => (p.id === place.id ? place : p)) });
const plain = { part: null, placeName: "", portName: "", costEur: null } as const;

/** The lead that ends at a place's power port. */
const leadInto = (w: Wired, placeId: string): { readonly lead: Lead; readonly end: Lead["from"] } | null => {
  for (const port of w.sheetOf(placeId)?.ports ?? []) {
    if (port.takes === undefined) continue;
    const end = { placeId, port: port.id };
    const lead = w.at.get(portKey(end))?.[0];
    if (lead !== undefined && port.medium !== "mains") return { lead, end };
  }
  return null;
};

/** Another giver's free port whose kind the device takes. */
const otherPorts = ({ w }: Context, f: WiringFinding): Draft[] => {
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
const converters = ({ w, parts, newId }: Context, f: WiringFinding): Draft[] => {
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

/** Other cables for a lead, thickest last. */
const otherCables = ({ w, parts }: Context, f: WiringFinding, fits: (p: PartSheet) => boolean): Draft[] => {
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

/** Another sheet in a place, with its leads in ports of the same names; ports that it lacks take the next free of like kind. */
const swapped = (w: Wired, place: Place, part: PartSheet): WiringGraph | null => {
  const used = new Set<string>();
  let whole = true;
  const old = w.sheetOf(place.id);
  const moved = (end: Lead["from"]): Lead["from"] => {
    if (end.placeId !== place.id) return end;
    const was = old?.ports.find((p) => p.id === end.port);
    const free = part.ports.filter((p) => !used.has(p.id) && (was === undefined || p.medium === was.medium));
    const to =
      free.find((p) => p.id === end.port && (p.gives !== undefined) === (was?.gives !== undefined)) ??
      free.find((p) => (p.gives !== undefined) === (was?.gives !== undefined) && (p.takes !== undefined) === (was?.takes !== undefined)) ??
      free[0];
    if (to === undefined) {
      whole = false;
      return end;
    }
    if (to.medium !== "mains") used.add(to.id);
    return { placeId: place.id, port: to.id };
  };
  const leads = w.graph.leads.map((l) =>
    l.from.placeId === place.id || l.to.placeId === place.id ? { ...l, from: moved(l.from), to: moved(l.to) } : l,
  );
  return whole ? { ...w.graph, leads, places: w.graph.places.map((p) => (p.id === place.id ? { ...p, partId: part.id } : p)) } : null;
};

const otherParts = (
  { w, parts }: Context,
  placeId: string | null,
  fits: (p: PartSheet, now: PartSheet | null) => boolean,
  kind: MendKind = "other-part",
): Draft[] => {
  const place = w.placeOf.get(placeId ?? "");
  if (place === undefined) return [];
  const now = w.sheetOf(place.id);
  return [...parts.values()]
    .filter((p) => p.kind === place.kind && p.id !== place.partId && p.retired !== true && fits(p, now))
    .sort((a, b) => (a.priceEur ?? 0) - (b.priceEur ?? 0))
    .flatMap((part): Draft[] => {
      const graph = swapped(w, place, part);
      return graph === null
        ? []
        : [{ ...plain, id: `part:${part.id}`, kind, part, placeName: place.name, costEur: part.priceEur ?? null, graph }];
    });
};

/** A protector put into a lead that goes outside, at the end that has none. */
const protectors = ({ w, parts, newId }: Context, f: WiringFinding): Draft[] => {
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
const glass = ({ w, parts, newId }: Context, f: WiringFinding): Draft[] => {
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

const takeOff = ({ w }: Context, f: WiringFinding): Draft[] =>
  f.leadId === null
    ? []
    : [{ ...plain, id: "take-off", kind: "take-off", graph: { ...w.graph, leads: w.graph.leads.filter((l) => l.id !== f.leadId) } }];

const onLead = ({ w }: Context, f: WiringFinding, kind: MendKind, set: Partial<Lead>): Draft[] => {
  const lead = w.graph.leads.find((l) => l.id === f.leadId);
  return lead === undefined ? [] : [{ ...plain, id: kind, kind, graph: withLead(w.graph, { ...lead, ...set }) }];
};

/** Its two sides exchanged: what is in one goes into the other. */
const turned = ({ w }: Context, f: WiringFinding): Draft[] => {
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
const beyond = ({ w }: Context, f: WiringFinding): WiringFinding => {
  const lead = w.graph.leads.find((l) => l.id === f.leadId);
  if (lead === undefined) return f;
  const start = lead.from.placeId === f.placeId ? lead.from : lead.to;
  return { ...f, placeId: followed(w, lead, start).end.placeId };
};

const countDrawn = ({ w }: Context, f: WiringFinding): Draft[] => {
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

const givesMore = (p: PartSheet, now: PartSheet | null): boolean =>
  (p.totalGiveW ?? Number.POSITIVE_INFINITY) > (now?.totalGiveW ?? 0) ||
  (p.ports.find((x) => x.gives !== undefined)?.giveW ?? 0) >
    (now?.ports.find((x) => x.gives !== undefined)?.giveW ?? Number.POSITIVE_INFINITY);

const giverOf = ({ w }: Context, f: WiringFinding, j: JudgedWiring): string | null => {
  const a = [...j.feeds.arrivals.values()].find((x) => x.end.placeId === f.placeId);
  return a === undefined ? null : (w.placeOf.get(a.source.placeId)?.id ?? null);
};

const WAYS: Partial<Record<WiringCode, (c: Context, f: WiringFinding, j: JudgedWiring) => Draft[]>> = {
  unfit: (c, f) => [...otherPorts(c, f), ...converters(c, f)],
  dark: (c, f, j) => [...otherPorts(c, f), ...converters(c, f), ...otherParts(c, giverOf(c, f, j), () => true)],
  pairs: (c, f, j) => [...otherPorts(c, f), ...otherParts(c, giverOf(c, f, j), () => true), ...converters(c, f)],
  polarity: (c, f, j) => [...otherPorts(c, f), ...otherParts(c, giverOf(c, f, j), () => true)],
  "volts-kind": (c, f, j) => [...otherPorts(c, f), ...converters(c, f), ...otherParts(c, giverOf(c, f, j), () => true)],
  "no-start": (c, f, j) => [...otherCables(c, f, () => true), ...otherPorts(c, f), ...otherParts(c, giverOf(c, f, j), () => true)],
  "volts-low": (c, f, j) => [...otherCables(c, f, () => true), ...otherPorts(c, f), ...otherParts(c, giverOf(c, f, j), () => true)],
  "start-low": (c, f, j) => [...otherCables(c, f, () => true), ...otherPorts(c, f), ...otherParts(c, giverOf(c, f, j), () => true)],
  "volts-tight": (c, f) => [...otherCables(c, f, () => true)],
  "volts-high": (c, f, j) => [...otherPorts(c, f), ...otherParts(c, giverOf(c, f, j), () => true)],
  unfed: (c, f) => otherPorts(c, f),
  "port-over": (c, f) => [...otherParts(c, f.placeId, () => true)],
  "start-over": (c, f) => [...otherParts(c, f.placeId, givesMore)],
  "switch-over": (c, f) => otherParts(c, f.placeId, givesMore),
  "reserved-over": (c, f) => [...countDrawn(c, f), ...otherParts(c, f.placeId, givesMore)],
  "pass-over": (c, f) => otherPorts(c, beyond(c, f)),
  "pass-fed": (c, f) => [...otherPorts(c, beyond(c, f))],
  "copper-clad": (c, f) => otherCables(c, f, () => true),
  "thin-cord": (c, f) => otherCables(c, f, (p) => (p.cable!.awg ?? 99) < 26),
  "cable-unknown": (c, f) => otherCables(c, f, () => true),
  "slow-lead": (c, f) => otherCables(c, f, () => true),
  "indoor-outside": (c, f) => otherCables(c, f, () => true),
  "too-long": (c, f) => glass(c, f),
  "two-earths": (c, f) => [...glass(c, f), ...takeOff(c, f)],
  "slow-injector": (c, f) => otherParts(c, f.placeId, () => true),
  "injector-turned": turned,
  "surge-missing": protectors,
  "surge-one": protectors,
  "surge-volts": (c, f) => otherParts(c, f.placeId, () => true, "other-protector"),
  "surge-kind": (c, f) => otherParts(c, f.placeId, () => true, "other-protector"),
  "surge-pairs": (c, f) => otherParts(c, f.placeId, () => true, "other-protector"),
  "surge-speed": (c, f) => otherParts(c, f.placeId, () => true, "other-protector"),
  "no-drip-loop": (c, f) => onLead(c, f, "drip-loop", { dripLoop: true }),
  "near-mains": (c, f) => onLead(c, f, "away-from-mains", { nearMains: null }),
  "data-loop": (c, f) => takeOff(c, f),
  "port-taken": (c, f) => [...takeOff(c, f)],
  "panel-small": (c, f) => bigger(c, f, (p) => p.panelW),
  "battery-small": (c, f) => bigger(c, f, (p) => p.battery?.ah),
  "frost-charge": (c, f) => otherParts(c, f.placeId, (p) => p.battery?.chemistry === "lead" || p.battery?.heater === true),
};

/** A greater one of the parts that a figure is of, or one more beside it. */
const bigger = (c: Context, _f: WiringFinding, of: (p: PartSheet) => number | undefined): Draft[] => {
  const place = c.w.graph.places.find((p) => {
    const sheet = c.w.sheetOf(p.id);
    return sheet !== null && of(sheet) !== undefined;
  });
  if (place === undefined) return [];
  const now = of(c.w.sheetOf(place.id)!)!;
  return otherParts(c, place.id, (p) => (of(p) ?? 0) > now);
};

const countOf = (j: JudgedWiring, code: WiringCode): number => j.findings.filter((f) => f.code === code).length;
/** How bad an end is: stops before what is short before what is not known or tight. */
const badness = (j: JudgedWiring): number =>
  j.findings.reduce((s, f) => s + (f.stop ? 1000 : f.verdict === "short" ? 100 : f.verdict === "unknown" ? 3 : 1), 0);

/** Mends of a finding that are worked out to leave the end better than it is, the best first. */
export const mendsOf = (judged: JudgedWiring, f: WiringFinding, sun: SunPlan | null, latDeg: number, newId: () => string): WiringMend[] => {
  const c: Context = { w: judged.wired, parts: judged.wired.parts, sun, latDeg, newId };
  return (WAYS[f.code]?.(c, f, judged) ?? [])
    .map((d): WiringMend => {
      const then = judgeWiring(d.graph, c.parts, sun, latDeg);
      const at = [...then.feeds.arrivals.values()].find((a) => a.end.placeId === f.placeId);
      return { ...d, judged: then, volts: at?.volts ?? null };
    })
    .filter(
      (m) =>
        countOf(m.judged, f.code) < countOf(judged, f.code) &&
        // What mends one thing and breaks another is no mend.
        m.judged.findings.every(
          (x) => (x.verdict !== "short" && x.code !== "sheet-unknown") || countOf(m.judged, x.code) <= countOf(judged, x.code),
        ),
    )
    .sort((a, b) => badness(a.judged) - badness(b.judged) || (a.costEur ?? 0) - (b.costEur ?? 0))
    .slice(0, MOST_MENDS);
};
