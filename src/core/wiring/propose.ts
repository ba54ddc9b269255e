import type { EarthPlan, Lead, Place, WiringGraph } from "./graph";
import { bestFit, CLASS_UNSTATED, powerKind, reservedW } from "./kinds";
import { cableMbps, type PartKind, type PartSheet, type Parts } from "./part";

/* A first wiring of an end, from its radios, its devices and its supply: every lead that it needs, each to be changed. */

export interface ProposedRadio {
  readonly placeId: string;
  readonly name: string;
  readonly partId: string;
  /** The injector that comes in its box, where one does. */
  readonly injectorId: string | null;
  readonly linkId: string;
  readonly aglM: number;
}

export interface ProposedDevice {
  readonly id: string;
  readonly name: string;
  readonly kind: "camera" | "access-point" | "phone" | "control" | "other";
  readonly count: number;
}

export interface ProposeInput {
  readonly radios: readonly ProposedRadio[];
  readonly devices: readonly ProposedDevice[];
  readonly supply: "mains" | "battery";
  /** The job's feed comes in here; the recorder stands here. */
  readonly feed: boolean;
  readonly recorder: boolean;
  readonly parts: Parts;
  readonly newId: () => string;
}

export const EARTH_UNASKED: EarthPlan = {
  mains: null,
  lightning: null,
  specialist: "",
  bar: "unseen",
  mast: "unseen",
  rod: "none",
  sizeMm2: null,
  source: "",
  screens: null,
  mainsGapMm: null,
};

export const WARM_C = 40;
export const SUNNY_C = 60;
/** From the entry to the radio beside the height of the mount, and from a device to its switch (ours, to be measured). */
const LOOPS_M = 6;
const INSIDE_M = 20;
const SHORT_M = 2;
/** More of one row than this is left to be added by hand. */
export const MOST_OF_A_ROW = 48;

const cheapest = (parts: Parts, kind: PartKind, fits: (p: PartSheet) => boolean): PartSheet | null =>
  [...parts.values()]
    .filter((p) => p.kind === kind && p.retired !== true && fits(p))
    .sort((a, b) => (a.priceEur ?? a.cable?.pricePerM ?? 1e9) - (b.priceEur ?? b.cable?.pricePerM ?? 1e9) || a.id.localeCompare(b.id))[0] ??
  null;

const fourPairs = (p: PartSheet, mbps: number, lengthM: number): boolean =>
  p.cable!.material === "copper" && (p.cable!.pairs ?? 4) === 4 && cableMbps(p.cable!, lengthM) >= mbps;
/** @param mbps that it must carry over @param lengthM; the most that any does where none does. */
export const outdoorCable = (parts: Parts, mbps = 1000, lengthM = 100): PartSheet | null =>
  cheapest(
    parts,
    "cable",
    (p) => p.cable!.outdoor && p.cable!.shield && !p.cable!.metal && !p.cable!.cord && fourPairs(p, mbps, lengthM),
  ) ?? (mbps > 1000 ? outdoorCable(parts) : null);
export const indoorCable = (parts: Parts, mbps = 1000, lengthM = 100): PartSheet | null =>
  cheapest(parts, "cable", (p) => !p.cable!.outdoor && !p.cable!.cord && fourPairs(p, mbps, lengthM)) ??
  (mbps > 1000 ? indoorCable(parts) : null);
export const shortCord = (parts: Parts, mbps = 1000): PartSheet | null =>
  cheapest(parts, "cable", (p) => p.cable!.cord && (p.cable!.awg ?? 99) < 28 && fourPairs(p, mbps, SHORT_M)) ?? indoorCable(parts, mbps);
const twoCore = (parts: Parts): PartSheet | null => cheapest(parts, "cable", (p) => p.cable!.pairs === 1);

/** A protector that bears a kind of supply at a speed. */
export const protectorFor = (parts: Parts, powerKey: string | null, speedMbps: number): PartSheet | null => {
  const kind = powerKey === null ? null : powerKind(powerKey);
  return cheapest(parts, "surge", (p) => {
    const s = p.surge;
    if (s === undefined || s.speedMbps < speedMbps) return false;
    if (kind === null) return true;
    const volts = kind.scheme === "802.3" ? 57 : kind.volts;
    return kind.scheme !== "dc" && kind.scheme !== "mains" && s.schemes.includes(kind.scheme) && s.mostV >= volts && s.pairs >= kind.pairs;
  });
};

class Draft {
  readonly places: Place[] = [];
  readonly leads: Lead[] = [];
  constructor(private readonly input: ProposeInput) {}

  place(kind: PartKind, sheet: PartSheet | null, name: string, more: Partial<Place> = {}): Place {
    const place: Place = {
      id: this.input.newId(),
      partId: sheet?.id ?? null,
      kind,
      name,
      where: "inside",
      aglM: null,
      linkId: null,
      deviceId: null,
      earth: "",
      countsDrawn: false,
      bond: "none",
      ...more,
    };
    this.places.push(place);
    return place;
  }

  lead(from: Place, port: string, to: Place, toPort: string, cable: PartSheet | null, lengthM: number, more: Partial<Lead> = {}): void {
    this.leads.push({
      id: this.input.newId(),
      from: { placeId: from.id, port },
      to: { placeId: to.id, port: toPort },
      cableId: cable?.id ?? null,
      lengthM: Math.round(lengthM * 10) / 10,
      way: "inside",
      through: "",
      temperatureC: WARM_C,
      screen: "one",
      dripLoop: null,
      nearMains: null,
      ...more,
    });
  }

  sheet(place: Place): PartSheet | null {
    return this.input.parts.get(place.partId ?? "") ?? null;
  }

  /** A port of a giver that nothing is in yet. */
  free(place: Place, fits: (p: PartSheet["ports"][number]) => boolean): string | null {
    const used = new Set(
      this.leads
        .flatMap((l) => [l.from, l.to])
        .filter((e) => e.placeId === place.id)
        .map((e) => e.port),
    );
    return this.sheet(place)?.ports.find((p) => !used.has(p.id) && fits(p))?.id ?? null;
  }
}

const dataPort = (sheet: PartSheet | null): string =>
  sheet?.ports.find((p) => p.medium === "copper" && p.speedMbps !== undefined && p.takes === undefined && p.side !== "fed")?.id ?? "1";
const takerPort = (sheet: PartSheet | null): string => sheet?.ports.find((p) => p.takes !== undefined && p.medium === "copper")?.id ?? "1";

/** From the injector out to the radio: protector at the entry, protector at the radio, both bonded. */
const leadRadio = (d: Draft, input: ProposeInput, radio: ProposedRadio, from: Place, fromPort: string): void => {
  const sheet = input.parts.get(radio.partId) ?? null;
  const place = d.place("radio", sheet, radio.name, { id: radio.placeId, where: "mast", aglM: radio.aglM, linkId: radio.linkId });
  const giver = d.sheet(from)?.ports.find((p) => p.id === fromPort);
  const speed = sheet?.ports[0]?.speedMbps ?? 1000;
  const protector = protectorFor(input.parts, giver?.gives?.[0] ?? null, Math.min(speed, giver?.speedMbps ?? speed));
  const wanted = Math.min(speed, giver?.speedMbps ?? speed);
  const outdoor = outdoorCable(input.parts, wanted, radio.aglM + LOOPS_M + 2 * SHORT_M);
  const entry = d.place("surge", protector, input.radios.length === 1 ? "surge at the entry" : `surge at the entry, ${radio.name}`, {
    bond: "unseen",
  });
  const top = d.place("surge", protector, input.radios.length === 1 ? "surge at the radio" : `surge at the ${radio.name}`, {
    where: "mast",
    aglM: Math.max(0, radio.aglM - 1),
    bond: "unseen",
  });
  const [a, b] = protector?.ports.map((p) => p.id) ?? ["1", "2"];
  d.lead(from, fromPort, entry, a!, shortCord(input.parts, wanted), SHORT_M);
  d.lead(entry, b!, top, a!, outdoor, radio.aglM + LOOPS_M, { way: "both", through: "the wall", dripLoop: true, temperatureC: SUNNY_C });
  d.lead(top, b!, place, takerPort(sheet), outdoor, SHORT_M, { way: "outside", temperatureC: SUNNY_C });
};

const mainsPort = (sheet: PartSheet | null): string | null => sheet?.ports.find((p) => p.takes?.includes("mains") === true)?.id ?? null;

export const proposeWiring = (input: ProposeInput): WiringGraph => {
  const d = new Draft(input);
  const { parts } = input;
  const cord = shortCord(parts);
  const inside = indoorCable(parts);
  const onMains = input.supply === "mains";
  const mains = onMains
    ? d.place(
        "mains",
        cheapest(parts, "mains", () => true),
        "mains",
      )
    : null;
  const battery = onMains ? null : proposeBattery(d, parts);
  /** Plugs a thing in that takes mains. */
  const plug = (place: Place): void => {
    const port = mainsPort(d.sheet(place));
    if (mains !== null && port !== null) d.lead(mains, "ac", place, port, null, SHORT_M);
  };
  const router = input.feed
    ? d.place(
        "router",
        cheapest(parts, "router", () => true),
        "router",
      )
    : null;
  if (router !== null) plug(router);
  const wanted =
    input.devices.reduce((n, r) => n + Math.min(MOST_OF_A_ROW, r.count), 0) +
    input.radios.length +
    (input.recorder ? 1 : 0) +
    (router === null ? 0 : 1);
  const asksSwitch = onMains && (wanted > 2 || (router === null && input.devices.length > 0));
  const sheet = !asksSwitch ? null : switchFor(parts, wanted, input.devices);
  const hub = !asksSwitch ? null : d.place("switch", sheet, "switch");
  if (hub !== null) plug(hub);
  if (router !== null && hub !== null)
    d.lead(
      router,
      dataPort(d.sheet(router)),
      hub,
      d.free(hub, (p) => p.medium === "copper" && p.gives === undefined) ?? d.free(hub, (p) => p.medium === "copper") ?? "1",
      cord,
      SHORT_M,
    );
  if (input.recorder) {
    const recorder = d.place(
      "recorder",
      cheapest(parts, "recorder", () => true),
      "recorder",
    );
    plug(recorder);
    const at = hub ?? router;
    if (at !== null)
      d.lead(
        at,
        d.free(at, (p) => p.medium === "copper" && p.speedMbps !== undefined && p.id !== "wan") ?? "1",
        recorder,
        dataPort(d.sheet(recorder)),
        cord,
        SHORT_M,
      );
  }
  for (const radio of input.radios) {
    const injectorSheet = parts.get(radio.injectorId ?? "") ?? null;
    const takes = parts.get(radio.partId)?.ports.flatMap((p) => p.takes ?? []) ?? [];
    if (battery !== null) {
      const dc = injectorForBattery(parts, takes);
      const place = d.place("injector", dc, input.radios.length === 1 ? "injector" : `injector, ${radio.name}`);
      d.lead(battery.place, d.free(battery.place, (p) => p.gives !== undefined) ?? battery.port, place, "dc", twoCore(parts), SHORT_M);
      leadRadio(d, input, radio, place, "fed");
      continue;
    }
    const injector = d.place("injector", injectorSheet, input.radios.length === 1 ? "injector" : `injector, ${radio.name}`);
    plug(injector);
    const at = hub ?? router;
    if (at !== null)
      d.lead(
        at,
        d.free(at, (p) => p.medium === "copper" && p.gives === undefined && p.speedMbps !== undefined && p.id !== "wan") ??
          d.free(at, (p) => p.medium === "copper" && p.id !== "wan") ??
          "1",
        injector,
        "lan",
        cord,
        SHORT_M,
      );
    leadRadio(d, input, radio, injector, "fed");
  }
  for (const row of input.devices)
    for (let i = 0; i < Math.min(MOST_OF_A_ROW, row.count); i++) {
      const place = d.place(row.kind, null, row.count === 1 ? row.name : `${row.name} ${i + 1}`, { deviceId: row.id });
      if (hub !== null) {
        const port =
          d.free(hub, (p) => p.medium === "copper" && (p.gives !== undefined) === takesPower(row)) ??
          d.free(hub, (p) => p.medium === "copper");
        if (port !== null) d.lead(hub, port, place, "1", inside, INSIDE_M);
      }
    }
  return { places: d.places, leads: d.leads, earth: EARTH_UNASKED };
};

const takesPower = (d: ProposedDevice): boolean => d.kind !== "control" && d.kind !== "other";

/** The cheapest switch with a port for each, and power on as many as there are devices. */
const switchFor = (parts: Parts, wanted: number, devices: readonly ProposedDevice[]): PartSheet | null => {
  const powered = devices.reduce((n, r) => n + (takesPower(r) ? Math.min(MOST_OF_A_ROW, r.count) : 0), 0);
  const ports = (p: PartSheet, gives: boolean): number =>
    p.ports.filter((x) => x.medium === "copper" && (!gives || x.gives?.some((k) => powerKind(k)?.scheme === "802.3") === true)).length;
  const cheapestOf = (most: number, asked: number) =>
    cheapest(
      parts,
      "switch",
      (p) =>
        ports(p, false) >= Math.min(most, wanted) &&
        ports(p, true) >= Math.min(most, asked) &&
        (asked === 0 || (p.totalGiveW ?? Number.POSITIVE_INFINITY) >= asked * reservedW(CLASS_UNSTATED)) &&
        ports(p, false) - ports(p, true) >= wanted - asked &&
        p.ports.some((x) => x.takes?.includes("mains") === true),
    );
  return (
    cheapestOf(Number.POSITIVE_INFINITY, powered) ??
    [...parts.values()].filter((p) => p.kind === "switch").sort((a, b) => ports(b, false) - ports(a, false))[0] ??
    null
  );
};

const injectorForBattery = (parts: Parts, takes: readonly string[]): PartSheet | null =>
  cheapest(
    parts,
    "injector",
    (p) =>
      p.ports.some((x) => x.id === "dc") &&
      p.ports.some((x) => x.gives !== undefined && bestFit(powerKind(x.gives[0]!)!, takes).fit === "fits"),
  );

/** Panel, controller, fuse and battery, and the port that loads hang on. */
const proposeBattery = (d: Draft, parts: Parts): { readonly place: Place; readonly port: string } => {
  const battery = d.place(
    "battery",
    cheapest(parts, "battery", () => true),
    "battery",
  );
  const fuse = d.place(
    "fuse",
    cheapest(parts, "fuse", () => true),
    "fuse at the battery",
  );
  const charger = d.place(
    "charger",
    cheapest(parts, "charger", () => true),
    "charge controller",
  );
  const panel = d.place(
    "panel",
    cheapest(parts, "panel", () => true),
    "panel",
    { where: "outside" },
  );
  const lead = twoCore(parts);
  d.lead(battery, "dc", fuse, "1", lead, 0.3);
  d.lead(fuse, "2", charger, "battery", lead, 1);
  d.lead(panel, "dc", charger, "panel", lead, 6, { way: "both", through: "the wall", dripLoop: true });
  return { place: charger, port: "load" };
};
