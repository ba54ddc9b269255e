import type { Verdict } from "../link";
import type { Antenna, BandKey, Radio } from "../radio";

/** A radio with the antenna it is used with: what is hung on a wall. */
export interface Unit {
  /** Radio, or radio+antenna. */
  readonly key: string;
  readonly name: string;
  readonly radio: Radio;
  /** For a connectorised radio; an integrated one carries its own. */
  readonly antenna: Antenna | null;
  /** Larger side of its face, cm; null where no sheet says. */
  readonly faceCm: number | null;
  readonly priceEur: number | null;
  /** Poles that its clamp holds, mm; null where no sheet says. */
  readonly poleMm: { readonly low: number; readonly high: number } | null;
}

export interface UnitPair {
  /** Keys of both units, near first. */
  readonly key: string;
  readonly near: Unit;
  readonly far: Unit;
}

/** Power by one of three schools: the least that keeps the most, a level to arrive with, or the most that loses nothing. */
export type PowerSchool = "enough" | "target" | "highest";

/** One way of a candidate, as set. */
export interface WayFigures {
  readonly powerDbm: number;
  /** Expected level per chain at the rung it stands on (at the slowest, where it stands on none). */
  readonly levelDbm: number;
  /** Rung that holds the year through; null when none does. */
  readonly rungIndex: number | null;
  readonly modulation: string | null;
  /** Planned by the job's school, Mbps; the same with the level at the edge of nine cases in ten. */
  readonly plannedMbps: number;
  readonly sureMbps: number;
  /** Most that the rules allow, dBm. */
  readonly legalDbm: number;
}

/** One end of a design as a candidate sets it. */
export interface EndSettings {
  readonly radioId: string;
  readonly antennaId: string | null;
  readonly powerDbm: number;
  readonly feederLossDb: number;
  readonly connectorLossDb: number;
  readonly portIndex: number | null;
  readonly interferenceDbm: number | null;
  readonly aimAzimuthDeg: number | null;
  readonly aimTiltDeg: number | null;
}

export interface TakenSettings {
  readonly near: EndSettings;
  readonly far: EndSettings;
  readonly centreMhz: number;
  readonly widthMhz: number;
  readonly frameShareToFar: number | null;
}

/** A candidate by one school of power. */
export interface SchoolFigures {
  readonly school: PowerSchool;
  readonly nearDbm: number;
  readonly farDbm: number;
  /** The stronger of both levels. */
  readonly levelDbm: number;
  /** Multiple of the need kept in nine cases of ten. */
  readonly multiple: number;
  /** How far the level stays from the target, above it positive; null where it is reached. */
  readonly missedDb: number | null;
  /** Over the ceiling of the densest modulation, the worse way; 0 when nothing is hot. */
  readonly hotDb: number;
}

/** A pair at one width on one channel. */
export interface ChannelOption {
  readonly centreMhz: number;
  /** It may be used as things stand. */
  readonly lawful: boolean;
  /** A permission that must be recorded first; null when none is open. */
  readonly permission: string | null;
  readonly radar: boolean;
  /** One end would have to detect radar and cannot. */
  readonly radarMissing: boolean;
  /** The lowest setting of an end is more than the rules allow: by how much, dB; 0 when not. */
  readonly belowRadioDb: number;
  readonly rule: string | null;
  readonly toFar: WayFigures;
  readonly toNear: WayFigures;
  /** Multiple of the need, expected and in nine cases of ten by the quick sum. */
  readonly multiple: number;
  readonly sureMultiple: number;
  /** What a design is set to when it is taken; there once the rack has left its worker. */
  readonly settings?: TakenSettings;
}

/** What decides against a candidate, with its figure. */
export type Refusal =
  | { readonly code: "rule"; readonly reason: "no-channel" | "gain-too-low" | "beam-too-wide" | "indoor-only" }
  | { readonly code: "rule-minimum"; readonly overDb: number }
  | { readonly code: "rule-cuts"; readonly limitDbm: number; readonly lacksDb: number }
  | { readonly code: "radar-missing" }
  | { readonly code: "permission"; readonly asks: string }
  /** Null twist: on a tree. */
  | { readonly code: "wind"; readonly twistDeg: number | null; readonly beamDeg: number | null; readonly end: "near" | "far" }
  | { readonly code: "hot"; readonly overDb: number }
  | { readonly code: "weak"; readonly lacksDb: number }
  /** Null hours: more than 1 % of the year, beyond what the rain method knows. */
  | { readonly code: "rain"; readonly hoursAYear: number | null }
  | { readonly code: "port"; readonly portMbps: number }
  | { readonly code: "slow"; readonly keptMbps: number; readonly shortMbps: number }
  | {
      readonly code: LimitCode;
      readonly figure: number | string | null;
      readonly limit: number | string;
      readonly end: "near" | "far" | null;
    };

export const LIMIT_CODES = [
  "band",
  "unlike",
  "kept-end",
  "like",
  "price",
  "face",
  "port-speed",
  "radar",
  "stock",
  "pole",
  "supply",
  "cold",
  "heat",
  "family",
  "one-type",
] as const;
export type LimitCode = (typeof LIMIT_CODES)[number];

/** What may be asked of one end beside the radio. */
export interface EndLimits {
  readonly faceMostCm: number | null;
  /** Kinds of supply that there are; null when nobody said. */
  readonly supplies: readonly string[] | null;
  readonly poleMm: number | null;
}

/** Limits that are switched on; null or false is off. */
export interface RackLimits {
  readonly bands: readonly BandKey[] | null;
  readonly alike: boolean;
  /** The end that stays as it is planned: what was built there is not exchanged. Unlike ends are then looked at. */
  readonly keep: "near" | "far" | null;
  /** Bracket, straps, supply, connectors and where they are like those of what is planned there. */
  readonly likeForLike: boolean;
  readonly priceMost: number | null;
  readonly portLeastMbps: number | null;
  readonly noRadar: boolean;
  /** Both ends from what is at hand. */
  readonly stockOnly: boolean;
  readonly family: string | null;
  /** The two units of the one type of the job, whichever way round: as one-type.ts keys them. */
  readonly onlyType: string | null;
  readonly coldestC: number | null;
  readonly hottestC: number | null;
  readonly near: EndLimits;
  readonly far: EndLimits;
}

export const NO_END_LIMITS: EndLimits = { faceMostCm: null, supplies: null, poleMm: null };
export const NO_LIMITS: RackLimits = {
  bands: null,
  alike: false,
  keep: null,
  likeForLike: false,
  priceMost: null,
  portLeastMbps: null,
  noRadar: false,
  stockOnly: false,
  family: null,
  onlyType: null,
  coldestC: null,
  hottestC: null,
  near: NO_END_LIMITS,
  far: NO_END_LIMITS,
};

/** What is drawn of a candidate: its powers may then be others than by the quick sum. */
export interface DrawnCandidate {
  /** Share of the draws in which the need is kept. */
  readonly serves: number;
  /** Multiple of the need at the 10th, 50th and 90th of a hundred. */
  readonly p10: number;
  readonly p50: number;
  readonly p90: number;
}

export interface Candidate {
  /** Pair and width. */
  readonly id: string;
  readonly pair: UnitPair;
  readonly widthMhz: number;
  readonly band: BandKey;
  readonly priceEur: number | null;
  /** The larger of both faces, cm. */
  readonly faceCm: number | null;
  /** Null where no channel of the two is within the rules and their bands at all. */
  readonly option: ChannelOption | null;
  /** dB over the ceiling at the lowest power, the worse end; 0 when it fits. */
  readonly excessDb: number;
  /** Longer than its sheet says it is made for: a mark, not a refusal. */
  readonly beyondRangeKm: number | null;
  readonly refusal: Refusal | null;
  /** Nothing else is against it: without that it would be in the rack. */
  readonly onlyThat: boolean;
  readonly clearance: { readonly verdict: Verdict; readonly missM: number | null; readonly owner: string | null } | null;
  /** Null until it is drawn. */
  readonly drawn: DrawnCandidate | null;
}

/** One line of the rack: a pair with its best width, and what lies beneath it. */
export interface RackRow {
  readonly best: Candidate;
  /** Its other widths that carry the need, or nearly. */
  readonly widths: readonly Candidate[];
  /** Pairs that it beats in price, face and rate. */
  readonly beats: readonly Candidate[];
}

export interface RejectedGroup {
  readonly code: Refusal["code"];
  /** By the figure that decides, closest first. */
  readonly candidates: readonly Candidate[];
}

export interface BandLine {
  readonly band: BandKey;
  /** The best candidate of the band, in the rack or not; null where the catalogue has none. */
  readonly best: Candidate | null;
}

export interface RackCounts {
  /** Pairs at widths: what rows, folded ones and rejected ones add up to. */
  readonly tried: number;
  readonly channels: number;
  readonly settings: number;
  readonly rows: number;
  readonly folded: number;
  readonly rejected: number;
}

export interface Rack {
  readonly rows: readonly RackRow[];
  readonly rejected: readonly RejectedGroup[];
  readonly bands: readonly BandLine[];
  readonly counts: RackCounts;
  /** Units that make no link with any other. */
  readonly alone: readonly Unit[];
  readonly needMbps: number;
}
