import { powerKind } from "./kinds";
import type { PartSheet, PortSheet, VoltWindow } from "./part";

/** What the wiring needs of a radio's sheet; what a sheet leaves out is not known. */
export interface PoweredRadio {
  readonly id: string;
  readonly name: string;
  readonly ethernetPorts: readonly {
    readonly speedMbps: number;
    readonly powerIn?: boolean | undefined;
    readonly medium?: string | undefined;
  }[];
  readonly powerKinds?: readonly string[] | undefined;
  readonly powerDrawMaxW?: number | undefined;
  readonly powerDrawTypicalW?: number | undefined;
  readonly startW?: number | undefined;
  readonly inputVolts?: Readonly<Record<string, VoltWindow>> | undefined;
  readonly poeClass?: number | undefined;
  readonly suppliedInjector?: { readonly kind: string; readonly volts: number; readonly watts: number } | null | undefined;
  readonly passThrough?:
    | { readonly kind: string; readonly maxW: number; readonly onlyWhenFedBy?: string | undefined; readonly port?: string | undefined }
    | null
    | undefined;
  readonly priceEur?: number | undefined;
  readonly stock?: number | undefined;
  readonly retired?: boolean | undefined;
}

export const injectorIdOf = (radioId: string): string => `injector-of:${radioId}`;

const poweredIndex = (radio: PoweredRadio): number =>
  Math.max(
    0,
    radio.ethernetPorts.findIndex((p) => p.powerIn === true),
  );

/** A radio as it is wired: its ports, what they take, and what is passed on. */
export const partOfRadio = (radio: PoweredRadio): PartSheet => {
  const kinds = radio.powerKinds ?? [];
  const overData = kinds.filter((k) => powerKind(k) !== null && powerKind(k)!.scheme !== "dc");
  const dc = kinds.filter((k) => powerKind(k)?.scheme === "dc");
  const at = poweredIndex(radio);
  const { passThrough } = radio;
  const passes =
    passThrough == null
      ? null
      : {
          from: String(at + 1),
          kind: passThrough.kind,
          mostW: passThrough.maxW,
          ...(passThrough.onlyWhenFedBy === undefined ? {} : { onlyWhenFedBy: passThrough.onlyWhenFedBy }),
        };
  const onward = passThrough?.port === undefined ? radio.ethernetPorts.findIndex((p, i) => i !== at && p.medium !== "fibre cage") : -1;
  const ports = radio.ethernetPorts.map(
    (p, i): PortSheet => ({
      id: String(i + 1),
      name: String(i + 1),
      medium: p.medium === "fibre cage" ? "fibre" : "copper",
      speedMbps: p.speedMbps,
      ...(i === at ? { takes: overData } : {}),
      ...(passes !== null && i === onward ? { passes } : {}),
    }),
  );
  if (dc.length > 0) ports.push({ id: "dc", name: "dc", medium: "dc", takes: dc });
  if (passes !== null && passThrough?.port !== undefined)
    ports.push({ id: "out", name: "out", medium: "copper", speedMbps: radio.ethernetPorts[at]?.speedMbps ?? 1000, passes });
  return {
    id: radio.id,
    name: radio.name,
    kind: "radio",
    ports,
    drawMostW: radio.powerDrawMaxW,
    drawUsualW: radio.powerDrawTypicalW,
    startW: radio.startW,
    inputVolts: radio.inputVolts,
    poeClass: radio.poeClass,
    outdoor: true,
    priceEur: radio.priceEur,
    stock: radio.stock,
    retired: radio.retired,
  };
};

/** What it takes in an injector of its own kind to feed itself (ours). */
const INJECTOR_OWN_W = 1;
const INJECTOR_EFFICIENCY = 0.88;

/** The supply that comes in a radio's box; null where none does. */
export const injectorOfRadio = (radio: PoweredRadio): PartSheet | null => {
  const supplied = radio.suppliedInjector;
  const kind = supplied == null ? null : powerKind(supplied.kind);
  if (supplied == null || kind === null) return null;
  const speedMbps = radio.ethernetPorts[poweredIndex(radio)]?.speedMbps ?? 1000;
  const ac: PortSheet = { id: "ac", name: "mains", medium: "mains", takes: ["mains"] };
  const fed: PortSheet =
    kind.scheme === "dc"
      ? { id: "fed", name: "dc", medium: "dc", gives: [supplied.kind], giveW: supplied.watts }
      : { id: "fed", name: "out", medium: "copper", speedMbps, gives: [supplied.kind], giveW: supplied.watts, side: "fed" };
  const lan: PortSheet = { id: "lan", name: "in", medium: "copper", speedMbps, side: "lan" };
  return {
    id: injectorIdOf(radio.id),
    name: `supply of ${radio.name}`,
    kind: "injector",
    ports: kind.scheme === "dc" ? [ac, fed] : [ac, lan, fed],
    drawMostW: INJECTOR_OWN_W,
    efficiency: INJECTOR_EFFICIENCY,
    outdoor: false,
    priceEur: 0,
  };
};

/** All that can be wired, by id: parts of the catalogue, radios, and what comes in their boxes. */
export const partsOf = (parts: readonly PartSheet[], radios: readonly PoweredRadio[]): ReadonlyMap<string, PartSheet> =>
  new Map([...parts, ...radios.map(partOfRadio), ...radios.flatMap((r) => injectorOfRadio(r) ?? [])].map((p) => [p.id, p]));
