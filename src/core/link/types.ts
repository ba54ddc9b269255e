import type { BodyKind, PathBody } from "../obstacles";
import type { Barrier, LeafState, Surface } from "../propagation";
import type {
  AirtimeResult,
  Antenna,
  Domain,
  Exposure,
  LinkUse,
  OwnRule,
  PairingFault,
  Permission,
  Radio,
  RegulationResult,
  ThroughputSchool,
} from "../radio";
import type { SideGround } from "../terrain";
import type { DiffractionOpinions } from "./diffraction-compare";
import type { Observation } from "./finding-types";
import type { Stands } from "./limits";

/** A height source in force along a profile. */
export interface ProfileDataset {
  readonly id: string;
  readonly name: string;
  readonly kind: "dtm" | "dsm";
  readonly cellM: number;
  readonly sigmaM: number;
}

/** A named thing on the ground, used to say where. */
export interface ProfileFeature {
  readonly name: string;
  readonly alongM: number;
  readonly acrossM: number;
}

/** A path already sampled: bare ground and the bodies beside it, in the frame of the path. */
export interface PathProfile {
  readonly pathM: number;
  /** Latitude of the path's middle. */
  readonly latDeg: number;
  readonly nearBearingDeg: number;
  readonly farBearingDeg: number;
  readonly distanceM: Float64Array;
  /** NaN where no dataset knows the ground. */
  readonly groundAmslM: Float64Array;
  readonly datasetIndex: Uint8Array;
  /** Null or absent where only the ground under the path is known. */
  readonly side?: SideGround | null;
  readonly datasets: readonly ProfileDataset[];
  readonly bodies: readonly PathBody[];
  readonly features: readonly ProfileFeature[];
  readonly thinned: boolean;
}

export interface EndPlan {
  readonly name: string;
  readonly mountAglM: number;
  /** Highest mount the structure carries; null when nobody said. */
  readonly mountMaxAglM: number | null;
  /** What it is fixed to; null or left out when nobody said: then no wind is counted. */
  readonly stands?: Stands | null;
  /** Standard error of the mount's height (a typed height: 0.2 m). */
  readonly mountSigmaM: number;
  /** Standard error of its position: 0.5 m off a map, 4 m by a phone. */
  readonly positionSigmaM: number;
  readonly feederLossDb: number;
  readonly connectorLossDb: number;
  /** Wall or window between the unit and the open air. */
  readonly barrier: Barrier | null;
  /** Interference heard in the channel, dBm per receive chain; null when none was measured. */
  readonly interferenceDbm: number | null;
  /** Where the antenna points; null in a component means true at the other end. */
  readonly aim: { readonly azimuthDeg: number | null; readonly tiltDeg: number | null };
  readonly txPowerDbm: number;
  readonly radio: Radio;
  /** What this end is to the rules. */
  readonly use: LinkUse;
  /** Port that the cable goes into, by its place on the sheet; null: the powered one. */
  readonly portIndex: number | null;
  /** For a connectorised radio; an integrated one carries its own. */
  readonly antenna: Antenna | null;
}

export type ClearancePolicy = "line" | "sixty" | "whole" | "two-condition";
export type TreePolicy = "strict" | "trim" | "through";

export interface LinkPolicy {
  readonly clearance: ClearancePolicy;
  readonly kFactor: number;
  readonly trees: TreePolicy;
  /** The year of the plan; the core has no clock. */
  readonly year: number;
  readonly horizonYears: number;
  readonly throughput: ThroughputSchool;
  /** Share kept free under "headroom". */
  readonly freeShare: number;
  /** Margin a modulation must hold over its sensitivity. */
  readonly marginDb: number;
  readonly domain: Domain;
  /** The job's own rule rows; left out: none. */
  readonly ownRules?: readonly OwnRule[] | undefined;
  readonly climateZone: "temperate" | "tropical";
  /** Leaf state of the plan: trees in leaf on the day that counts. */
  readonly leaf: LeafState;
  /** Low value of k by path length, for the two-condition rule; low confidence, editable. */
  readonly kLow: readonly { readonly pathKm: number; readonly k: number }[];
}

/** Level water or ground under a path, for the reflected ray. */
export interface WaterPlan {
  /** "auto": level stretches of the profile at mean sea level; a named surface: every level stretch is that. */
  readonly surface: "auto" | "none" | Surface;
  readonly tideRangeM: number;
  /** Standard deviation of the surface about its level. */
  readonly roughnessM: number;
}

export interface Climate {
  readonly rainRate001MmH: number;
  readonly temperatureC: number;
  /** Total pressure; dry pressure is total less vapour. */
  readonly pressureHpa: number;
  readonly vapourDensityGm3: number;
  /** dN1 of P.530, not read from data. */
  readonly gradientDn1NPerKm: number;
  /** s_a of P.530 in metres; null takes the quick form. */
  readonly roughnessSaM: number | null;
}

export interface LinkPlan {
  readonly near: EndPlan;
  readonly far: EndPlan;
  readonly centreMhz: number;
  readonly widthMhz: number;
  /** Required rates; null when the brief has none yet. To far is "down" when the feed is at the near end. */
  readonly needToFarMbps: number | null;
  readonly needToNearMbps: number | null;
  readonly policy: LinkPolicy;
  readonly climate: Climate;
  /** Planned trims: body id to height above ground after cutting. */
  readonly trims: Readonly<Record<string, number>>;
  /** Share of a scheduled frame towards the far end; null lets both ask as they need. */
  readonly frameShareToFar: number | null;
  /** Share of the year in which the need is to be kept, per cent: 99 to 99.999. */
  readonly yearPercent: number;
  /** Permissions on record for this link. */
  readonly permissions: readonly Permission[];
  /** The day that the plan is for, year-month-day; the core has no clock. */
  readonly day: string;
  readonly water: WaterPlan;
}

export type Verdict = "clear" | "tight" | "short" | "unknown";

export interface WorstPlace {
  readonly owner: { readonly kind: "ground" } | { readonly kind: "body"; readonly bodyKind: BodyKind; readonly id: string };
  /** The body's name, or the nearest named feature within 500 m, or null. */
  readonly ownerName: string | null;
  readonly share: number;
  readonly atM: number;
  readonly acrossM: number;
  readonly zAmslM: number;
  readonly side: "over" | "under" | "left" | "right" | "through";
  readonly f1M: number;
  /** What the policy lacks there, along the freeing direction; negative is spare. */
  readonly missM: number;
  /** k under which it is the worst. */
  readonly kFactor: number;
  /** Share of F1 asked for there. */
  readonly policyShare: number;
}

/** One condition of the clearance policy and its worst place. */
export interface ClearanceCondition {
  readonly kFactor: number;
  readonly policyShare: number;
  readonly worst: WorstPlace | null;
  /** For the low-k condition: whether the obstacle counts as extended. */
  readonly extended: boolean | null;
}

export interface ClearanceResult {
  readonly verdict: Verdict;
  /** One condition, or both of the two-condition rule; the larger height governs. */
  readonly conditions: readonly ClearanceCondition[];
  readonly policyShare: number;
  readonly worst: WorstPlace | null;
  /** Worst place after growth to the end of the horizon. */
  readonly worstAtHorizon: WorstPlace | null;
  /** First year in which the policy is no longer met through growth; null when it holds to the horizon. */
  readonly lostInYear: number | null;
  /** Chance that the policy is met today, drawn; null when the ground is unknown. */
  readonly probability: number | null;
  /** The same with the errors of ground and obstacle alone. */
  readonly probabilityOfSurvey: number | null;
  readonly sigmaM: number | null;
  readonly sigmaOf: { readonly groundM: number; readonly obstacleM: number; readonly mountM: number; readonly positionM: number } | null;
  readonly unknownGroundM: number;
  /** Vegetation that comes into the policy's zone today. */
  readonly treesInZone: readonly string[];
}

/** One gain or loss of the level line, in order from transmitter to receiver. */
export interface LevelTerm {
  readonly id:
    | "transmit"
    | "chains"
    | "feeder-out"
    | "connectors-out"
    | "antenna-out"
    | "aim-out"
    | "barrier-out"
    | "near-field"
    | "free-space"
    | "gas"
    | "diffraction"
    | "beside"
    | "own-edge"
    | "vegetation"
    | "polarisation"
    | "radome"
    | "barrier-in"
    | "aim-in"
    | "antenna-in"
    | "connectors-in"
    | "feeder-in";
  /** Signed: gains positive, losses negative. For "transmit" the level itself in dBm. */
  readonly valueDb: number;
  /** Extra loss the cautious end of the band counts on, where the method states one. */
  readonly worseByDb: number;
  /** What the hopeful end of the band counts on. */
  readonly betterByDb?: number;
  readonly clause: string;
  /** Figures that went in, by symbol, each with its unit in the name. */
  readonly inputs: Readonly<Record<string, number | string>>;
  readonly inRange: boolean;
}

export interface LadderRung {
  readonly index: number;
  readonly modulation: string;
  readonly codeRate: string;
  readonly needsDbm: number;
  readonly ceilingDbm: number;
  readonly ceilingMildDbm: number;
  /** Level at this rung: power backs off as modulation rises. */
  readonly levelDbm: number;
  readonly txPowerDbm: number;
  readonly marginDb: number;
  readonly phyRateMbps: number;
  readonly state: "held" | "holds" | "thin" | "below" | "too-strong";
}

export interface Direction {
  readonly terms: readonly LevelTerm[];
  /** Expected level per receive chain at the held rung. */
  readonly levelDbm: number;
  readonly bandLowDbm: number;
  readonly bandHighDbm: number;
  readonly noiseDbm: number;
  readonly snrDb: number;
  readonly ladder: readonly LadderRung[];
  readonly held: LadderRung | null;
  readonly heldWithMargin: boolean;
  readonly ceilingDbm: number;
  readonly maxOperatingInputDbm: number;
  readonly damageInputDbm: number;
  readonly eirpDbm: number;
  /** The power that was set, and what the radio then sends at most: its sheet ends some settings. */
  readonly setPowerDbm: number;
  readonly sentPowerDbm: number;
  readonly regulation: RegulationResult;
  readonly airtime: AirtimeResult | null;
  /** Usable rates of every rung that the receiver could hold. */
  readonly rates: readonly { readonly rung: LadderRung; readonly airtime: AirtimeResult }[];
  readonly plannedMbps: number;
  readonly needMbps: number | null;
  /** What takes the slowest modulation that still carries the need (without a need the slowest of all); null when left out. */
  readonly outage: Outage | null;
  /** Share of the year for each modulation; null when left out. */
  readonly staircase: Staircase | null;
  readonly exposure: Exposure | null;
  /** Rise of the noise by interference, dB. */
  readonly noiseRiseDb: number;
}

export interface Outage {
  /** Null: more than 1 % of the year, beyond what the rain method knows. */
  readonly percent: number | null;
  /** Rain is rarer than the 0.001 % the method reaches. */
  readonly rarer: boolean;
  readonly minutesAYear: number | null;
  readonly rainPercent: number | null;
  readonly multipathPercent: number;
  readonly worstMonthPercent: number | null;
  readonly marginDb: number;
  readonly a001Db: number;
  readonly inRange: boolean;
}

export interface Stair {
  readonly modulation: string;
  readonly codeRate: string;
  readonly usableMbps: number;
  /** Share of the year in which this or a faster modulation holds; null: less than 99 %, beyond what the rain method knows. */
  readonly holdsPercent: number | null;
}

export interface Staircase {
  readonly stairs: readonly Stair[];
  /** Usable rate that is kept for these shares of the year; 0 when none is. */
  readonly at99Mbps: number;
  readonly at999Mbps: number;
  readonly at9999Mbps: number;
}

/** One way of what is kept. */
export interface KeptWay {
  readonly needMbps: number;
  /** The rung that holds the year through; null when none does. */
  readonly rungIndex: number | null;
  readonly modulation: string | null;
  /** Rate planned on it by the job's school, the port apart. */
  readonly plannedMbps: number;
  readonly portMbps: number;
  /** Margin that the year's share asks for; null when no margin is known to do. */
  readonly yearMarginDb: number | null;
  /** The larger of it and the job's margin. */
  readonly neededMarginDb: number;
}

/** How much of the need is kept, both ways at once. */
export interface Kept {
  /** 1 is all of it; infinite when nothing is asked. */
  readonly multiple: number;
  readonly yearPercent: number;
  /** Share of the common airtime the need takes. */
  readonly usedShare: number;
  readonly narrowest: "air" | "no rung" | "port to far" | "port to near";
  readonly toFar: KeptWay;
  readonly toNear: KeptWay;
}

/** The reflected ray over the path's level stretch; null when there is none to reflect from. */
export interface ReflectionSummary {
  readonly surface: Surface;
  readonly fromM: number;
  readonly toM: number;
  readonly levelAmslM: number;
  readonly atM: number;
  readonly grazingDeg: number;
  readonly size: number;
  /** How well the mounts are known above the surface. */
  readonly heightSigmaM: number;
  /** Level of both rays against the direct one: weakest and strongest over the tide; 10th and 90th of 100 over tide, heights and air. */
  readonly worstDb: number;
  readonly lowDb: number;
  readonly highDb: number;
  readonly bestDb: number;
}

export interface LinkResult {
  /** The worst of all findings, before the level is drawn. */
  readonly verdict: Verdict;
  readonly geometry: {
    readonly pathM: number;
    readonly nearAmslM: number;
    readonly farAmslM: number;
    readonly nearTiltDeg: number;
    readonly farTiltDeg: number;
    readonly nearShiftM: number;
    readonly farShiftM: number;
    readonly nearWallOf: string | null;
    readonly farWallOf: string | null;
    readonly wavelengthM: number;
  };
  readonly clearance: ClearanceResult;
  readonly reflection: ReflectionSummary | null;
  /** Second opinions on the main edge; null when nothing stands above the straight line. */
  readonly opinions: DiffractionOpinions | null;
  readonly multipath: {
    readonly occurrencePercent: number;
    readonly form: "quick" | "detailed";
    readonly negligible: boolean;
    readonly inRange: boolean;
  };
  readonly service: {
    readonly verdict: Verdict;
    readonly faults: readonly PairingFault[];
    /** What is kept of the need; null while none is set or the radios do not pair. */
    readonly kept: Kept | null;
    readonly toFar: Direction | null;
    readonly toNear: Direction | null;
  };
  /** What is worth knowing and what the models cannot vouch for. */
  readonly notes: readonly Observation[];
}
