import type { BodyKind } from "../obstacles";
import type { CutBy, Domain } from "../radio";
import type { Stands } from "./limits";
import type { Verdict } from "./types";

/** A change to the design, as data; the interface applies it and can undo it. */
export type DesignAction =
  | { readonly type: "mount"; readonly end: "near" | "far"; readonly mountAglM: number }
  | { readonly type: "mounts"; readonly nearMountAglM: number; readonly farMountAglM: number }
  | { readonly type: "power"; readonly nearDbm: number; readonly farDbm: number }
  | { readonly type: "trim"; readonly bodyId: string; readonly heightM: number }
  | { readonly type: "trims"; readonly trimsM: Readonly<Record<string, number>> }
  | { readonly type: "width"; readonly widthMhz: number }
  | { readonly type: "aim"; readonly end: "near" | "far" }
  /** Several that only together do, taken in one step. */
  | { readonly type: "together"; readonly actions: readonly DesignAction[] }
  /** Opens a solver or a form instead of changing anything. */
  | { readonly type: "look"; readonly view: LookView };

export type LookView = "heights" | "trees" | "water" | "elsewhere" | "gear" | "permission";

export interface Mend {
  readonly code:
    | "raise-near"
    | "raise-far"
    | "raise-both"
    | "trim"
    | "trim-several"
    | "lower-near"
    | "lower-far"
    | "see-heights"
    | "see-water"
    | "see-gear"
    | "look-elsewhere"
    | "lower-power"
    | "legal-power"
    | "width"
    | "aim-true"
    | "record-permission"
    | "raise-power"
    | "power-and-width";
  /** Null where it does not do: it then says what it brings, or what forbids it, and cannot be pressed. */
  readonly action: DesignAction | null;
  readonly amount: number;
  /** Figure of the mend for the last year of the horizon, and what would do today. */
  readonly amountToday: number | null;
  readonly name: string | null;
  readonly lastYear: number | null;
  /** What it brings of what lacks, dB, where it alone is not enough. */
  readonly brings: { readonly db: number; readonly ofDb: number } | null;
  /** A structure's stated limit that it would pass. */
  readonly beyondStructure: boolean;
  /** For a cut: so much of the tree that its removal is meant. */
  readonly removal?: boolean;
}

/** Where the worst place is and how sure that is. */
export interface PlaceValues {
  readonly name: string | null;
  readonly kind: "ground" | BodyKind;
  readonly atM: number;
  readonly missM: number;
  readonly side: "over" | "under" | "left" | "right" | "through";
  readonly acrossM: number;
  readonly share: number;
  readonly policyShare: number;
  readonly probability: number | null;
  readonly sigmaM: number | null;
  readonly bySigma: "obstacle" | "ground" | "position" | null;
}

interface RuleValues {
  readonly name: string;
  readonly rule: string;
  readonly source: string;
  readonly asOf: string;
  readonly confidence: string;
  readonly domain: Domain;
}

/** Every finding by its code, with the figures its sentence needs. */
export interface FindingValues {
  // Clearance.
  readonly "ground-unknown": { readonly unknownM: number };
  readonly short: PlaceValues;
  readonly "blocked-no-height": PlaceValues & { readonly limitM: number };
  readonly unsure: PlaceValues;
  readonly "little-spare": PlaceValues;
  readonly clear: PlaceValues & { readonly untilYear: number | null };
  readonly grows: {
    readonly name: string | null;
    readonly year: number;
    readonly growthM: number;
    readonly missM: number;
    readonly atM: number;
  };
  readonly "beyond-structure": { readonly name: string; readonly mountM: number; readonly maxM: number };
  readonly "wind-twist": {
    readonly name: string;
    readonly stands: Stands;
    readonly twistDeg: number | null;
    readonly beamDeg: number | null;
  };
  readonly "mount-on-ground": { readonly name: string; readonly mountM: number };
  readonly "base-fitted": { readonly name: string; readonly sigmaM: number };
  readonly "long-lever": { readonly name: string; readonly atM: number; readonly lever: number };
  // Radios that do not fit.
  readonly "pairing-family": { readonly near: string; readonly far: string };
  readonly "pairing-standard": { readonly near: string; readonly far: string };
  readonly "pairing-pair-only": { readonly radio: string };
  readonly "pairing-roles": { readonly near: string; readonly far: string };
  readonly "pairing-band": { readonly radio: string; readonly centreMhz: number; readonly widthMhz: number };
  readonly "pairing-width": { readonly radio: string; readonly widthMhz: number; readonly allowedMhz: readonly number[] };
  readonly "pairing-antenna-missing": { readonly radio: string };
  readonly "pairing-antenna-band": { readonly antenna: string; readonly centreMhz: number };
  // Level.
  readonly overloaded: HotValues;
  readonly damaging: HotValues;
  readonly "too-strong": HotValues;
  readonly "too-weak": WeakValues;
  readonly "thin-margin": WeakValues;
  // Rate.
  readonly "no-need": Record<string, never>;
  readonly "too-slow": RateValues;
  readonly "not-sure-to-serve": RateValues & { readonly chance: number };
  // Rules.
  readonly "rule-forbids": {
    readonly name: string;
    readonly reason: "no-rule" | "indoor-only" | "gain-too-low" | "beam-too-wide";
    readonly rule: string | null;
    readonly domain: Domain;
    readonly source: string | null;
    readonly minGainDbi: number | null;
  };
  readonly "over-rule": RuleValues & {
    readonly cutBy: CutBy;
    readonly setDbm: number;
    readonly limitDbm: number;
    readonly overDb: number;
    readonly eirpDbm: number;
    readonly moreDbm: number | null;
    readonly morePermission: string | null;
  };
  readonly "rule-below-radio": RuleValues & { readonly limitDbm: number; readonly minDbm: number; readonly radio: string };
  readonly permission: RuleValues & { readonly permission: string };
  readonly "permission-ended": RuleValues & { readonly permission: string; readonly number: string; readonly until: string };
  readonly "permission-not-yet": RuleValues & { readonly permission: string; readonly number: string; readonly from: string };
  readonly "permission-ends": RuleValues & { readonly number: string; readonly until: string; readonly days: number };
  readonly radar: RuleValues & { readonly waitS: number; readonly awayMin: number };
  readonly "radar-missing": RuleValues & { readonly radio: string };
  // To know, and what the models cannot vouch for.
  readonly exposure: { readonly name: string; readonly distanceM: number };
  readonly "radio-distance": { readonly pathM: number };
  readonly "profile-thinned": Record<string, never>;
  readonly "beyond-radio-range": { readonly longestKm: number; readonly pathM: number };
  readonly "near-field": { readonly farFieldM: number; readonly pathM: number };
  readonly "leaves-out-of-range": { readonly frequencyGhz: number };
  readonly "leaves-too-deep": { readonly depthM: number };
  readonly "through-refused": { readonly frequencyGhz: number };
  readonly "multipath-out-of-range": { readonly pathM: number; readonly frequencyGhz: number };
  readonly "rain-out-of-range": { readonly pathM: number };
  readonly reflection: {
    readonly lowDb: number;
    readonly heightSigmaM: number;
    readonly atM: number;
    readonly surface: string;
    readonly size: number;
  };
  readonly "barrier-unknown": { readonly name: string };
  readonly "barrier-by-table": { readonly name: string; readonly material: string };
  readonly "power-control": { readonly eirpDbm: number; readonly aboveDbm: number };
  /** Off the axis of a set aim: right and up of it, and what that loses. */
  readonly "out-of-beam": {
    readonly end: "near" | "far";
    readonly name: string;
    readonly lossDb: number;
    readonly azimuthOffDeg: number;
    readonly elevationOffDeg: number;
  };
  readonly "beamwidth-derived": { readonly antenna: string; readonly widthDeg: number };
  readonly "elevation-mask": { readonly name: string; readonly aboveDeg: number; readonly eirpDbm: number; readonly limitDbm: number };
}

interface HotValues {
  readonly levelDbm: number;
  readonly ceilingDbm: number;
  readonly maxDbm: number;
  readonly overDb: number;
  readonly reachable: boolean;
  readonly tooHotDb: number;
  readonly tooHotMildDb: number;
  readonly densest: string;
}

interface WeakValues {
  readonly levelDbm: number;
  readonly needsDbm: number;
  readonly marginDb: number;
  readonly wantedDb: number;
  readonly lacksDb: number;
}

interface RateValues {
  readonly multiple: number;
  readonly usedShare: number;
  readonly narrowest: "air" | "no rung" | "port to far" | "port to near";
  readonly yearPercent: number;
  readonly needToFarMbps: number;
  readonly needToNearMbps: number;
  readonly plannedToFarMbps: number;
  readonly plannedToNearMbps: number;
  readonly portMbps: number;
  readonly neededMarginDb: number | null;
  readonly marginDb: number | null;
}

export type FindingCode = keyof FindingValues;

/** The sheet on which a finding is settled. */
export type FindingSheet = "section" | "ground" | "gear" | "brief";

/** What a finding judges: the path, or the radios over it. */
export type FindingAbout = "clearance" | "service";

type Of<K extends FindingCode> = {
  readonly code: K;
  readonly verdict: Verdict;
  readonly sheet: FindingSheet;
  readonly about: FindingAbout;
  /** Larger is worse among those of one verdict. */
  readonly weight: number;
  readonly values: FindingValues[K];
};

/** What stands against a design or is worth knowing, by its code. */
export type Observation = { [K in FindingCode]: Of<K> }[FindingCode];

/** The same with what would mend it. */
export type Finding = Observation & { readonly mends: readonly Mend[] };

/** One finding. @param at sheet and what it judges stand once, here. */
export const observed = <K extends FindingCode>(
  code: K,
  verdict: Verdict,
  weight: number,
  values: FindingValues[K],
  about: FindingAbout = ABOUT_CLEARANCE.has(code) ? "clearance" : "service",
): Observation =>
  ({ code, verdict, sheet: SHEET_OF[code] ?? (about === "clearance" ? "section" : "gear"), about, weight, values }) as Observation;

const ABOUT_CLEARANCE: ReadonlySet<FindingCode> = new Set<FindingCode>([
  "ground-unknown",
  "short",
  "blocked-no-height",
  "unsure",
  "little-spare",
  "clear",
  "grows",
  "beyond-structure",
  "mount-on-ground",
  "base-fitted",
  "long-lever",
  "profile-thinned",
  "through-refused",
]);
const SHEET_OF: Partial<Readonly<Record<FindingCode, FindingSheet>>> = {
  "ground-unknown": "ground",
  "no-need": "brief",
  reflection: "section",
  "radio-distance": "section",
};
