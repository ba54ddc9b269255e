/* Sheets of what is wired: ports with what they give, take and pass on; figures of cables and protectors. */

export const PART_KINDS = [
  "switch",
  "injector",
  "splitter",
  "surge",
  "cable",
  "plug",
  "gland",
  "converter",
  "media",
  "fibre",
  "router",
  "recorder",
  "battery",
  "charger",
  "panel",
  "fuse",
  "box",
  "mains",
  "radio",
  "camera",
  "access-point",
  "phone",
  "control",
  "other",
] as const;
export type PartKind = (typeof PART_KINDS)[number];

export type Medium = "copper" | "fibre" | "dc" | "mains";

export interface PortSheet {
  readonly id: string;
  /** As it is printed on the case. */
  readonly name: string;
  readonly medium: Medium;
  /** Of data; left out for a port that carries none. */
  readonly speedMbps?: number | undefined;
  /** Kinds of power it gives: of 802.3 what the device asks, else the one. */
  readonly gives?: readonly string[] | undefined;
  /** Most it gives, W. */
  readonly giveW?: number | undefined;
  /** Least volts under load, where the sheet says. */
  readonly leastV?: number | undefined;
  /** Kinds it takes; empty where the sheet is silent, left out where it takes none. */
  readonly takes?: readonly string[] | undefined;
  /** The port that it passes power on from, straight through or switched. */
  readonly passes?:
    | { readonly from: string; readonly kind: string; readonly mostW: number; readonly onlyWhenFedBy?: string | undefined }
    | undefined;
  /** Joined wire by wire with this other port: a protector, a coupler. */
  readonly straightTo?: string | undefined;
  /** Of an injector: the side of the network, and the side of what it feeds. */
  readonly side?: "lan" | "fed" | undefined;
}

export interface VoltWindow {
  readonly low: number;
  readonly high: number;
}

export interface CableSheet {
  /** American wire gauge of one conductor. */
  readonly awg?: number | undefined;
  readonly material: "copper" | "copper-clad" | "glass";
  /** Of one conductor at 20 °C, where the sheet says. */
  readonly ohmPerKm?: number | undefined;
  readonly category?: "5e" | "6" | "6A" | "7" | undefined;
  readonly pairs?: 1 | 2 | 4 | undefined;
  readonly shield: boolean;
  readonly outdoor: boolean;
  /** A thin flat or stranded cord for the last metres. */
  readonly cord: boolean;
  /** Metal in it beside its wires: armour or a messenger wire. */
  readonly metal: boolean;
  readonly pricePerM?: number | undefined;
}

export interface SurgeSheet {
  readonly mostV: number;
  /** Pairs that may carry power through it. */
  readonly pairs: 2 | 4;
  readonly speedMbps: number;
  readonly schemes: readonly ("802.3" | "passive" | "own" | "none")[];
}

export interface BatterySheet {
  readonly volts: number;
  readonly ah: number;
  readonly chemistry: "lead" | "lithium";
  /** It warms itself before it is charged in frost. */
  readonly heater: boolean;
  /** Part of it that may be used. */
  readonly depth: number;
}

export interface PartSheet {
  readonly id: string;
  readonly name: string;
  readonly kind: PartKind;
  readonly ports: readonly PortSheet[];
  /** What it takes for itself, W; left out where the sheet is silent. */
  readonly drawMostW?: number | undefined;
  readonly drawUsualW?: number | undefined;
  readonly startW?: number | undefined;
  /** By kind of supply the volts it works at; of 802.3 the standard's where it is left out. */
  readonly inputVolts?: Readonly<Record<string, VoltWindow>> | undefined;
  readonly poeClass?: number | null | undefined;
  /** Most it gives over all ports, W. */
  readonly totalGiveW?: number | undefined;
  /** Watts out for watts in, of what makes another kind of it. */
  readonly efficiency?: number | undefined;
  /** It translates addresses, or hands them out. */
  readonly routes?: boolean | undefined;
  readonly handsOutAddresses?: boolean | undefined;
  /** Its parts may stand in rain. */
  readonly outdoor?: boolean | undefined;
  readonly cable?: CableSheet | undefined;
  readonly surge?: SurgeSheet | undefined;
  readonly battery?: BatterySheet | undefined;
  readonly panelW?: number | undefined;
  /** Charge controller or converter: it lets go below these volts and takes hold again above. */
  readonly cutOut?: { readonly offV: number; readonly onV: number } | undefined;
  readonly fuseA?: number | undefined;
  readonly holeMm?: number | undefined;
  /** Of a plug: it joins a screen. */
  readonly shielded?: boolean | undefined;
  readonly priceEur?: number | undefined;
  readonly stock?: number | undefined;
  readonly retired?: boolean | undefined;
}

export type Parts = ReadonlyMap<string, PartSheet>;

/** Wire resistance of copper-clad aluminium against copper of the same gauge. */
export const COPPER_CLAD = 1.6;
/** Thinner than this is a cord, whatever it is sold as. */
export const THIN_AWG = 28;
const FAST: Readonly<Record<NonNullable<CableSheet["category"]>, readonly (readonly [number, number])[]>> = {
  // Most Mbps within so many metres (IEEE 802.3 clauses 40, 55, 126).
  "5e": [[2500, 100]],
  "6": [
    [10_000, 55],
    [5000, 100],
  ],
  "6A": [[10_000, 100]],
  "7": [[10_000, 100]],
};

/** Most that a cable carries over a length, Mbps; a cable of two pairs ends at 100. */
export const cableMbps = (c: CableSheet, lengthM: number): number => {
  if (c.material === "glass") return 100_000;
  if ((c.pairs ?? 4) < 4) return 100;
  return FAST[c.category ?? "5e"].find(([, m]) => lengthM <= m)?.[0] ?? 0;
};
