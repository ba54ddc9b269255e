import type { MeasuredCuts } from "../antenna";
import type { LinkUse } from "./rule-rows";

/** One row of a radio's modulation table. Levels per receive chain, power total over chains. */
export interface Modulation {
  readonly index: number;
  readonly modulation: string;
  readonly codeRate: string;
  readonly maxTxPowerDbm: number;
  /** By channel width in MHz, as text keys: air rate with all streams and the shortest guard interval. */
  readonly phyRateMbps: Readonly<Record<string, number>>;
  readonly sensitivityDbm: Readonly<Record<string, number>>;
}

export interface FrequencyRange {
  readonly low: number;
  readonly high: number;
}

/** What the computation needs of a radio; a catalogue row holds more. */
export interface Radio {
  readonly id: string;
  readonly name: string;
  readonly family: string;
  readonly roles: readonly string[];
  readonly bandsMhz: readonly FrequencyRange[];
  readonly standard: string;
  readonly channelWidthsMhz: readonly number[];
  readonly chains: number;
  readonly maxStreams: number;
  readonly maxStreamsPerRemote: number;
  readonly polarisation: string;
  readonly duplex: string;
  readonly blockAckWindowFrames: number;
  readonly maxAggregateMs: number;
  readonly maxLinkKm: number;
  readonly radarDetection: boolean;
  readonly minTxPowerDbm: number;
  readonly txPowerStepDb: number;
  readonly noiseFigureDb: number;
  readonly maxOperatingInputDbm: number;
  readonly damageInputDbm: number;
  readonly antenna: {
    readonly kind: "integrated" | "connectorised";
    readonly form?: string | undefined;
    readonly gainDbi?: number | undefined;
    readonly azimuthBeamwidthDeg?: number | undefined;
    readonly elevationBeamwidthDeg?: number | undefined;
    readonly diameterMm?: number | null | undefined;
    readonly firstSideLobeDb?: number | undefined;
    readonly frontToBackDb?: number | undefined;
    readonly cuts?: MeasuredCuts | undefined;
    readonly connector?: string | undefined;
    readonly connectorCount?: number | undefined;
  };
  readonly modulations: readonly Modulation[];
  readonly ethernetPorts: readonly {
    readonly speedMbps: number;
    readonly powerIn?: boolean | undefined;
    readonly medium?: string | undefined;
  }[];
  /** Automatic power control, where the sheet says; taken as there where it does not. */
  readonly automaticPowerControl?: boolean | undefined;
  /** Remotes that one such hub takes, where its sheet says. */
  readonly maxRemotes?: number | undefined;
  /** What it is chosen by beside the radio; left out where its sheet does not say. */
  readonly priceEur?: number | undefined;
  readonly powerKinds?: readonly string[] | undefined;
  readonly powerDrawMaxW?: number | undefined;
  readonly powerDrawTypicalW?: number | undefined;
  /** While it starts. */
  readonly startW?: number | undefined;
  /** By kind of supply. */
  readonly inputVolts?: Readonly<Record<string, { readonly low: number; readonly high: number }>> | undefined;
  /** IEEE 802.3, 1 to 8. */
  readonly poeClass?: number | undefined;
  readonly suppliedInjector?: { readonly kind: string; readonly volts: number; readonly watts: number } | null | undefined;
  readonly passThrough?:
    | { readonly kind: string; readonly maxW: number; readonly onlyWhenFedBy?: string | undefined; readonly port?: string | undefined }
    | null
    | undefined;
  /** Face that the wind meets, and weight with its bracket. */
  readonly windAreaM2?: number | undefined;
  readonly weightKg?: number | undefined;
  /** Where it answers as it comes from its box. */
  readonly factory?: { readonly address: string; readonly bits: number } | undefined;
  readonly sizeMm?: FaceSize | undefined;
  readonly poleDiameterMm?: FrequencyRange | undefined;
  /** The bracket it hangs on, by name: two of one name take each other's place. */
  readonly bracket?: string | undefined;
  /** Where its lead comes out: whether the one that is there reaches. */
  readonly connectorPlace?: ConnectorPlace | undefined;
  readonly temperatureC?: FrequencyRange | undefined;
  /** How many are at hand; left out where nobody counts them. */
  readonly stock?: number | undefined;
  /** Taken no more; designs that have it keep it. */
  readonly retired?: boolean | undefined;
}

export const CONNECTOR_PLACES = ["below", "behind", "above", "side"] as const;
export type ConnectorPlace = (typeof CONNECTOR_PLACES)[number];

export interface FaceSize {
  readonly width: number;
  readonly height: number;
}

export interface Antenna {
  readonly id: string;
  readonly name: string;
  readonly form: string;
  readonly bandsMhz: readonly FrequencyRange[];
  readonly gainDbi: number;
  readonly azimuthBeamwidthDeg: number;
  readonly elevationBeamwidthDeg: number;
  readonly diameterMm?: number | null | undefined;
  readonly polarisation?: string | undefined;
  readonly firstSideLobeDb?: number | undefined;
  readonly frontToBackDb?: number | undefined;
  readonly cuts?: MeasuredCuts | undefined;
  readonly connector?: string | undefined;
  readonly connectorCount?: number | undefined;
  readonly priceEur?: number | undefined;
  readonly sizeMm?: FaceSize | undefined;
  readonly poleDiameterMm?: FrequencyRange | undefined;
  /** The bracket it hangs on, by name: two of one name take each other's place. */
  readonly bracket?: string | undefined;
  /** Where its lead comes out: whether the one that is there reaches. */
  readonly connectorPlace?: ConnectorPlace | undefined;
  readonly stock?: number | undefined;
  readonly retired?: boolean | undefined;
}

const inBands = (bands: readonly FrequencyRange[], lowMhz: number, highMhz: number): boolean => {
  for (const b of bands) if (b.low <= lowMhz && b.high >= highMhz) return true;
  // Bands that touch (5150-5350 beside 5350-...) count as one stretch.
  let reachedMhz = lowMhz;
  for (const band of [...bands].sort((a, b) => a.low - b.low)) {
    if (band.low <= reachedMhz && band.high > reachedMhz) reachedMhz = band.high;
    if (reachedMhz >= highMhz) return true;
  }
  return reachedMhz >= highMhz;
};

/** Whether a whole channel lies inside a device's bands. */
export const channelFits = (bands: readonly FrequencyRange[], centreMhz: number, widthMhz: number): boolean =>
  inBands(bands, centreMhz - widthMhz / 2, centreMhz + widthMhz / 2);

/** The port the cable goes into: the powered one, else the first. */
export const poweredPort = (radio: Pick<Radio, "ethernetPorts">): number =>
  Math.max(
    0,
    radio.ethernetPorts.findIndex((p) => p.powerIn === true),
  );

const sharesOut = (r: Pick<Radio, "roles">): boolean => r.roles.includes("hub") && !r.roles.includes("near/far");

/** What the two ends of a link are to the rules: a pair, or hub and remote where one end is made to serve several. */
export const usesOf = (near: Pick<Radio, "roles">, far: Pick<Radio, "roles">): readonly [LinkUse, LinkUse] =>
  sharesOut(near) ? ["hub", "remote"] : sharesOut(far) ? ["remote", "hub"] : ["pair", "pair"];

export type PairingFault =
  | { code: "family"; near: string; far: string }
  | { code: "standard"; near: string; far: string }
  | { code: "pair-only"; radio: string }
  | { code: "roles"; near: string; far: string }
  | { code: "band"; radio: string; centreMhz: number; widthMhz: number }
  | { code: "width"; radio: string; widthMhz: number; allowedMhz: readonly number[] }
  | { code: "antenna-missing"; radio: string }
  | { code: "antenna-band"; antenna: string; centreMhz: number };

/** Why two radios cannot make a link on a channel; empty when they can. Family, standard, roles, band and width. */
export const pairingFaults = (near: Radio, far: Radio, centreMhz: number, widthMhz: number): PairingFault[] => {
  const faults: PairingFault[] = [];
  if (near.family !== far.family) faults.push({ code: "family", near: near.family, far: far.family });
  else if (!sharesStandard(near, far)) faults.push({ code: "standard", near: near.standard, far: far.standard });
  for (const [one, other] of [
    [near, far],
    [far, near],
  ] as const) {
    if (one.roles.length === 1 && one.roles[0] === "pair-only" && one.id !== other.id) {
      faults.push({ code: "pair-only", radio: one.name });
    }
  }
  const leads = (r: Radio): boolean => r.roles.some((x) => x !== "remote");
  if (!leads(near) && !leads(far)) faults.push({ code: "roles", near: near.name, far: far.name });
  const hubOnly = (r: Radio): boolean => r.roles.every((x) => x === "hub" || x === "mesh node");
  if (hubOnly(near) && hubOnly(far) && near.family === far.family && !near.roles.includes("mesh node")) {
    faults.push({ code: "roles", near: near.name, far: far.name });
  }
  for (const radio of near.id === far.id ? [near] : [near, far]) {
    if (!radio.channelWidthsMhz.includes(widthMhz)) {
      faults.push({ code: "width", radio: radio.name, widthMhz, allowedMhz: radio.channelWidthsMhz });
    } else if (!channelFits(radio.bandsMhz, centreMhz, widthMhz)) {
      faults.push({ code: "band", radio: radio.name, centreMhz, widthMhz });
    }
  }
  return faults;
};

const OFDM_ORDER = ["n", "ac", "ax", "be"];

/** Within a family an OFDM generation talks to its neighbours by the older one's rates; others must be equal. */
const sharesStandard = (a: Radio, b: Radio): boolean =>
  a.standard === b.standard || (OFDM_ORDER.includes(a.standard) && OFDM_ORDER.includes(b.standard));

/** The older of two OFDM generations decides which table both use. */
export const commonTable = (a: Radio, b: Radio): Radio => (OFDM_ORDER.indexOf(a.standard) <= OFDM_ORDER.indexOf(b.standard) ? a : b);
