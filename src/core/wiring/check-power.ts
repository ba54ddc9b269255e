import { turnedInjectors } from "./check-leads";
import type { Arrival, Feeds } from "./feeds";
import { found, type WiringFinding } from "./finding";
import { followed, portKey, type Wired } from "./graph";
import { WAKES_AT_V } from "./kinds";

/* Does each thing get the kind, the volts and the watts that it asks, and can what feeds it give them all at once? */

/** Less than this part of the least volts to spare is tight (ours). */
const SPARE_SHARE = 0.03;

const voltsOf = (a: Arrival): WiringFinding[] => {
  // Of the leads on its way the longest is where volts are lost.
  const longest = a.leads.reduce<Arrival["leads"][number] | null>((m, l) => (m === null || l.lengthM > m.lengthM ? l : m), null);
  const at = { placeId: a.end.placeId, leadId: longest?.id ?? null };
  if (a.collapses) return [found("no-start", "short", at)];
  if (a.volts === null) return [];
  if (a.gives.scheme === "mains") return [];
  if (a.window === null) return [found("window-silent", "unknown", { ...at, figures: { volts: a.volts } })];
  const { low, high } = a.window;
  const figures = { volts: a.volts, low, high };
  if (Math.max(a.volts, a.gives.scheme === "802.3" ? 0 : a.gives.volts) > high)
    return [found("volts-high", "short", { ...at, stop: true, figures })];
  if (a.volts < low - 1e-6) return [found("volts-low", "short", { ...at, figures })];
  if (a.startVolts !== null && a.startVolts < low - 1e-6)
    return [found("start-low", "short", { ...at, figures: { ...figures, volts: a.startVolts } })];
  if (a.volts < low * (1 + SPARE_SHARE) && a.gives.scheme !== "802.3") return [found("volts-tight", "tight", { ...at, figures })];
  return [];
};

const UNFIT = { harms: "unfit", dark: "dark", pairs: "pairs", polarity: "polarity", volts: "volts-kind" } as const;

const arrivalFindings = (w: Wired, a: Arrival): WiringFinding[] => {
  if (a.fit === "fits") {
    const port = w.portOf(a.source);
    if (a.takes?.scheme === "802.3" && port?.leastV !== undefined && port.leastV < WAKES_AT_V)
      return [
        found("no-wake", "short", {
          placeId: a.end.placeId,
          leadId: a.leads.at(-1)?.id ?? null,
          figures: { volts: port.leastV, low: WAKES_AT_V },
        }),
      ];
    return voltsOf(a);
  }
  const figures: Record<string, number | string> = {
    gives: a.gives.key,
    takes: w.portOf(a.end)?.takes?.join(", ") ?? "",
    ...(a.volts === null ? {} : { volts: a.volts }),
    ...(a.window === null ? {} : { low: a.window.low, high: a.window.high }),
  };
  return [
    found(UNFIT[a.fit], "short", {
      stop: a.fit === "harms" || a.fit === "polarity",
      placeId: a.end.placeId,
      leadId: a.leads.at(-1)?.id ?? null,
      figures,
    }),
  ];
};

/** Watts of one giver: each of its ports, and all together by what is drawn and by what is set aside. */
const giverFindings = (w: Wired, feeds: Feeds): WiringFinding[] => {
  const out: WiringFinding[] = [];
  const byPlace = new Map<string, { drawnW: number; startW: number; reservedW: number }>();
  for (const g of feeds.given) {
    if (g.kind.scheme === "mains") continue;
    const at = { placeId: g.end.placeId, leadId: w.at.get(portKey(g.end))?.[0]?.id ?? null };
    const sum = byPlace.get(g.end.placeId) ?? { drawnW: 0, startW: 0, reservedW: 0 };
    byPlace.set(g.end.placeId, {
      drawnW: sum.drawnW + finite(g.drawnW),
      startW: sum.startW + finite(g.startW),
      // What has no class is what it draws.
      reservedW: sum.reservedW + (g.kind.scheme === "802.3" ? g.reservedW : finite(g.drawnW)),
    });
    // Two plugs in one port are told themselves.
    if (g.mostW === null || g.drawnW === null || (g.kind.scheme !== "dc" && (w.at.get(portKey(g.end))?.length ?? 0) > 1)) continue;
    const countsDrawn = w.placeOf.get(g.end.placeId)?.countsDrawn === true;
    const asked = g.kind.scheme === "802.3" && !countsDrawn ? Math.max(g.drawnW, g.reservedW) : g.drawnW;
    const figures = { watts: asked, most: g.mostW, port: w.portOf(g.end)?.name ?? g.end.port };
    if (Number.isFinite(asked) && asked > g.mostW + 1e-9) out.push(found("port-over", "short", { ...at, figures }));
    else if (g.startW !== null && Number.isFinite(g.startW) && g.startW > g.mostW + 1e-9)
      out.push(found("start-over", "short", { ...at, figures: { ...figures, watts: g.startW } }));
  }
  for (const [placeId, sum] of byPlace) {
    const most = w.sheetOf(placeId)?.totalGiveW;
    if (most === undefined) continue;
    const figures = { watts: sum.drawnW, reserved: sum.reservedW, most };
    if (sum.drawnW > most + 1e-9) out.push(found("switch-over", "short", { placeId, figures }));
    else if (sum.startW > most + 1e-9)
      out.push(found("switch-over", "short", { placeId, figures: { ...figures, watts: sum.startW, start: 1 } }));
    else if (sum.reservedW > most + 1e-9 && w.placeOf.get(placeId)?.countsDrawn !== true)
      out.push(found("reserved-over", "short", { placeId, figures }));
  }
  return out;
};

const finite = (x: number | null): number => (x === null || !Number.isFinite(x) ? 0 : x);

/** What a device passes on: only when fed as its sheet asks, and no more than it may. */
const passFindings = (w: Wired, feeds: Feeds): WiringFinding[] => {
  const out: WiringFinding[] = [];
  for (const place of w.graph.places)
    for (const port of w.sheetOf(place.id)?.ports ?? []) {
      const { passes } = port;
      const lead = w.at.get(`${place.id}/${port.id}`)?.[0];
      if (passes === undefined || lead === undefined) continue;
      const fedBy = feeds.arrivals.get(portKey({ placeId: place.id, port: passes.from }))?.gives.key;
      const at = { placeId: place.id, leadId: lead.id };
      const beyond = w.portOf(followed(w, lead, { placeId: place.id, port: port.id }).end);
      if (fedBy !== undefined && passes.onlyWhenFedBy !== undefined && fedBy !== passes.onlyWhenFedBy) {
        if (beyond?.takes !== undefined)
          out.push(found("pass-fed", "short", { ...at, figures: { asks: passes.onlyWhenFedBy, has: fedBy } }));
        continue;
      }
      const watts = [...feeds.arrivals.values()]
        .filter((a) => a.via === place.id && a.leads[0] === lead)
        .reduce((s, a) => s + (a.drawW ?? 0), 0);
      if (watts > passes.mostW + 1e-9) out.push(found("pass-over", "short", { ...at, figures: { watts, most: passes.mostW } }));
    }
  return out;
};

/** Things that nothing feeds, or of which nobody knows what they take. */
const unfedFindings = (w: Wired, feeds: Feeds, turned: ReadonlySet<string>): WiringFinding[] => {
  const out: WiringFinding[] = [];
  for (const place of w.graph.places) {
    const sheet = w.sheetOf(place.id);
    if (sheet === null) {
      out.push(found("sheet-unknown", "unknown", { placeId: place.id }));
      continue;
    }
    const takers = sheet.ports.filter((p) => p.takes !== undefined);
    if (takers.length === 0) continue;
    if (takers.every((p) => p.takes!.length === 0) || sheet.drawMostW === undefined) {
      out.push(found("load-silent", "unknown", { placeId: place.id }));
      continue;
    }
    const ends = takers.map((p) => ({ placeId: place.id, port: p.id }));
    if (ends.some((e) => feeds.arrivals.has(portKey(e)))) continue;
    // A lead to a port that is not there, from one that should pass power on, or from an injector's wrong side is told itself.
    const told = ends.some((e) => {
      const lead = w.at.get(portKey(e))?.[0];
      if (lead === undefined) return false;
      const { end } = followed(w, lead, e);
      const from = w.portOf(end);
      return from === null || from.passes !== undefined || turned.has(end.placeId);
    });
    if (!told) out.push(found("unfed", "short", { placeId: place.id }));
  }
  return out;
};

export const powerFindings = (w: Wired, feeds: Feeds): WiringFinding[] => {
  const turned = turnedInjectors(w);
  return [
    ...feeds.rounds.map((placeId) => found("power-round", "short", { placeId })),
    ...[...feeds.arrivals.values()].filter((a) => !turned.has(a.source.placeId)).flatMap((a) => arrivalFindings(w, a)),
    ...unfedFindings(w, feeds, turned),
    ...giverFindings(w, feeds),
    ...passFindings(w, feeds),
  ];
};
