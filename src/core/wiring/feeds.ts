import { awgOhmPerM } from "../infra";
import { type CircuitNode, solveCircuit } from "./circuit";
import { type Lead, otherEnd, type Place, portKey, type Wired } from "./graph";
import { bestFit, classOf, DEVICE_MOST_V, type Fit, POE_TYPES, type PowerKind, powerKind, reservedW } from "./kinds";
import { type CableSheet, COPPER_CLAD, type PortSheet, type VoltWindow } from "./part";

/* Where power goes: from each port that gives, along its leads, into ports that take, and on through those that pass it on. */

type End = Lead["from"];

/** Power as it arrives at one port. */
export interface Arrival {
  readonly end: End;
  readonly source: End;
  readonly gives: PowerKind;
  readonly fit: Fit;
  /** What of the device's kinds it meets. */
  readonly takes: PowerKind | null;
  /** From the source, or from what passed it on. */
  readonly leads: readonly Lead[];
  /** Device that passed it on. */
  readonly via: string | null;
  /** While all run at their most, and while all start together; null where a load or a cable is not known, or nothing holds. */
  readonly volts: number | null;
  readonly startVolts: number | null;
  /** Nothing holds: the more the volts fall the more is drawn. */
  readonly collapses: boolean;
  readonly window: VoltWindow | null;
  readonly drawW: number | null;
  readonly amps: number | null;
}

/** One port that gives, and what it is asked. */
export interface Given {
  readonly end: End;
  readonly kind: PowerKind;
  readonly mostW: number | null;
  /** With what its leads lose. */
  readonly drawnW: number | null;
  readonly startW: number | null;
  /** By class, as a switch without negotiation sets it aside; 0 for what is not of IEEE 802.3. */
  readonly reservedW: number;
  readonly arrivals: readonly Arrival[];
  /** Loads on it whose sheets are silent. */
  readonly silent: readonly string[];
}

export interface Feeds {
  readonly given: readonly Given[];
  readonly arrivals: ReadonlyMap<string, Arrival>;
  /** Givers that feed themselves. */
  readonly rounds: readonly string[];
}

/** Ohms of one conductor a metre, warm; null where the sheet does not say. */
export const conductorOhmPerM = (cable: CableSheet, temperatureC: number): number | null => {
  const warm = awgOhmPerM(24, temperatureC) / awgOhmPerM(24, 20);
  if (cable.ohmPerKm !== undefined) return (cable.ohmPerKm / 1000) * warm;
  if (cable.awg === undefined) return null;
  return awgOhmPerM(cable.awg, temperatureC) * (cable.material === "copper-clad" ? COPPER_CLAD : 1);
};

/** Out and back over the pairs that carry: each pair is two wires, half of all go out. */
export const loopOhm = (cable: CableSheet, lengthM: number, pairs: number, temperatureC: number): number | null => {
  const one = conductorOhmPerM(cable, temperatureC);
  return one === null ? null : (2 * one * lengthM) / pairs;
};

interface Node {
  readonly end: End;
  readonly above: number;
  readonly lead: Lead;
  readonly leads: readonly Lead[];
  readonly kind: PowerKind;
  readonly via: string | null;
}

/** The window of a device for the kind that it is fed by; null where its sheet is silent. */
const windowOf = (sheet: { readonly inputVolts?: Readonly<Record<string, VoltWindow>> | undefined }, takes: PowerKind | null) => {
  if (takes === null) return null;
  const stated = sheet.inputVolts?.[takes.key];
  if (stated !== undefined) return stated;
  return takes.type === 0 ? null : { low: POE_TYPES[takes.type].deviceLeastV, high: DEVICE_MOST_V };
};

/** Of several kinds that a port gives the one that it gives a device: of IEEE 802.3 its highest, else the one that fits. */
const kindGiven = (gives: readonly string[]): PowerKind | null => {
  const kinds = gives.flatMap((k) => powerKind(k) ?? []);
  return kinds.reduce<PowerKind | null>((best, k) => (best === null || k.type > best.type ? k : best), null);
};

/** Pairs that carry a supply into a device. */
const pairsInto = (gives: PowerKind, takes: readonly string[]): number =>
  gives.type >= 3 && !takes.some((t) => (powerKind(t)?.type ?? 0) >= 3) ? 2 : gives.pairs;

const leastVolts = (port: PortSheet, kind: PowerKind): number => port.leastV ?? kind.volts;

export const feedsOf = (w: Wired): Feeds => {
  const done = new Map<string, Given | null>();
  const open = new Set<string>();
  const rounds = new Set<string>();
  const arrivals = new Map<string, Arrival>();

  /** What a place draws at a port: for itself, and for what it gives on as another kind. */
  const loadAt = (place: Place, start: boolean): { readonly w: number | null; readonly silent: readonly string[] } => {
    const sheet = w.sheetOf(place.id);
    if (sheet === null || sheet.drawMostW === undefined) return { w: null, silent: [place.id] };
    let sum = start ? Math.max(sheet.startW ?? sheet.drawMostW, sheet.drawMostW) : sheet.drawMostW;
    const silent: string[] = [];
    for (const p of sheet.ports) {
      if (p.gives === undefined || p.passes !== undefined) continue;
      const given = givenAt({ placeId: place.id, port: p.id });
      if (given === null) continue;
      const asked = start ? given.startW : given.drawnW;
      silent.push(...given.silent);
      if (asked === null) return { w: null, silent: silent.length === 0 ? [place.id] : silent };
      sum += asked / (sheet.efficiency ?? 1);
    }
    return { w: sum, silent };
  };

  const walk = (from: End, kind: PowerKind, above: number, via: string | null, leads: readonly Lead[], nodes: Node[]): void => {
    for (const lead of w.at.get(portKey(from)) ?? []) {
      if (nodes.some((n) => n.lead === lead)) continue;
      const end = otherEnd(lead, from);
      const index = nodes.length;
      const way = [...leads, lead];
      nodes.push({ end, above, lead, leads: way, kind, via });
      const port = w.portOf(end);
      if (port === null) continue;
      if (port.straightTo !== undefined) walk({ placeId: end.placeId, port: port.straightTo }, kind, index, via, way, nodes);
      else
        for (const p of w.sheetOf(end.placeId)!.ports)
          if (p.passes?.from === port.id && (p.passes.onlyWhenFedBy ?? kind.key) === kind.key) {
            const on = powerKind(p.passes.kind);
            // What is passed on keeps the volts that arrived; its kind is the sheet's word for them.
            if (on !== null) walk({ placeId: end.placeId, port: p.id }, on, index, end.placeId, [], nodes);
          }
    }
  };

  const givenAt = (end: End): Given | null => {
    const key = portKey(end);
    if (done.has(key)) return done.get(key)!;
    const port = w.portOf(end);
    const kind = port?.gives === undefined || port.passes !== undefined ? null : kindGiven(port.gives);
    if (port === null || kind === null) return null;
    if (open.has(key)) {
      rounds.add(end.placeId);
      return null;
    }
    open.add(key);
    const nodes: Node[] = [];
    walk(end, kind, -1, null, [], nodes);
    const source = leastVolts(port, kind);
    const silent = new Set<string>();
    const takers = nodes.map((n) => {
      const at = w.portOf(n.end);
      const place = w.placeOf.get(n.end.placeId)!;
      const unknown = at === null || (at.takes !== undefined && at.takes.length === 0);
      const straight = at?.straightTo !== undefined;
      const { fit, kind: takes } =
        straight || unknown
          ? { fit: "fits" as Fit, kind: null }
          : at.takes === undefined
            ? { fit: (n.kind.scheme === "802.3" ? "fits" : "harms") as Fit, kind: null }
            : bestFit(n.kind, at.takes);
      const draws = !straight && (unknown || at.takes !== undefined) && fit !== "dark";
      const run = !draws ? { w: 0, silent: [] } : unknown ? { w: null, silent: [place.id] } : loadAt(place, false);
      const start = !draws ? { w: 0, silent: [] } : unknown ? { w: null, silent: [place.id] } : loadAt(place, true);
      for (const id of run.silent) silent.add(id);
      return { at, place, fit, takes, straight, unknown, draws, run: run.w, start: start.w };
    });
    const circuit = (start: boolean) => {
      const list: CircuitNode[] = [];
      for (const [i, n] of nodes.entries()) {
        const t = takers[i]!;
        const loadW = start ? t.start : t.run;
        const cable = w.parts.get(n.lead.cableId ?? "")?.cable;
        const beyond = takers.find((x, j) => !x.straight && nodes[j]!.leads.includes(n.lead));
        const pairs = kind.scheme === "dc" ? 1 : Math.min(n.kind.pairs, pairsInto(n.kind, beyond?.at?.takes ?? []));
        const ohm = kind.scheme === "mains" ? 0 : cable === undefined ? null : loopOhm(cable, n.lead.lengthM, pairs, n.lead.temperatureC);
        if (loadW === null || ohm === null) return null;
        list.push({ above: n.above, ohm, loadW });
      }
      return solveCircuit(source, list);
    };
    const run = circuit(false);
    const start = circuit(true);
    let reserved = 0;
    const found = nodes.flatMap((n, i): Arrival[] => {
      const t = takers[i]!;
      if (t.straight) return [];
      const sheet = w.sheetOf(n.end.placeId);
      if (kind.scheme === "802.3" && t.draws) reserved += reservedW(classOf(sheet?.poeClass, t.run));
      if (!t.draws && t.fit === "fits") return [];
      const volts = run === null || run.volts === null ? null : run.volts[i]!;
      const arrival: Arrival = {
        end: n.end,
        source: end,
        gives: n.kind,
        fit: t.fit,
        takes: t.takes,
        leads: n.leads,
        via: n.via,
        volts,
        startVolts: start === null || start.volts === null ? null : start.volts[i]!,
        collapses: (run !== null && run.volts === null) || (start !== null && start.volts === null),
        window: sheet === null ? null : windowOf(sheet, t.takes),
        drawW: t.run,
        amps: volts === null || t.run === null ? null : t.run / volts,
      };
      arrivals.set(portKey(n.end), arrival);
      return [arrival];
    });
    const given: Given = {
      end,
      kind,
      mostW: port.giveW ?? (kind.type === 0 ? null : POE_TYPES[kind.type].sourceMostW),
      drawnW: run === null ? null : run.sourceW,
      startW: start === null ? null : start.sourceW,
      reservedW: reserved,
      arrivals: found,
      silent: [...silent],
    };
    open.delete(key);
    done.set(key, given);
    return given;
  };

  const given: Given[] = [];
  for (const place of w.graph.places)
    for (const port of w.sheetOf(place.id)?.ports ?? []) {
      const one = givenAt({ placeId: place.id, port: port.id });
      if (one !== null && one.arrivals.length > 0) given.push(one);
    }
  return { given, arrivals, rounds: [...rounds] };
};
