import type { AirJob, Assignment, Move, PackedField, RadarSchool, WidthSchool } from "@/core/air";
import type { SectorMends, Shape, ShapeKind, ShapeQuestion, TriedRemote } from "@/core/hub";
import type { LinkPlan, PathProfile, TrimList, Uncertainty } from "@/core/link";
import type { RasterBody } from "@/core/obstacles";
import type { Planned, Rack, RackLimits, School, SchoolFigures, Serving } from "@/core/rack";
import type { Antenna, Radio } from "@/core/radio";
import type {
  HeightAnswers,
  HeightFrontier,
  HeightLevel,
  MastCosts,
  Outlook,
  RelayAnswer,
  RelayQuestion,
  TideLevel,
  WaterView,
} from "@/core/solve";

/** What the browser's workers are asked and what they answer: one map, typed. */
export interface ReliefRequest {
  readonly heightsM: Float32Array;
  readonly cols: number;
  readonly rows: number;
  readonly x0: number;
  readonly y0: number;
  readonly stepM: number;
  readonly intervalM: number;
}

export interface ContourLine {
  readonly heightM: number;
  /** x, y pairs in the plan's coordinates. */
  readonly points: Float64Array;
}

export interface ReliefAnswer {
  /** Per cell: 0 unknown, 1 water at level zero, 2 to 5 ground from lit to shaded. */
  readonly tint: Uint8Array;
  readonly contours: readonly ContourLine[];
}

export interface ReliefWorker {
  readonly relief: (request: ReliefRequest) => ReliefAnswer;
}

export interface DoubtWorker {
  /** The path that the next questions are about; sent once, it is the large part. */
  readonly open: (profile: PathProfile) => void;
  /** Null when there is no spread to tell: unknown ground, radios that do not pair. */
  readonly doubt: (plan: LinkPlan) => Uncertainty | null;
}

/** What can be seen from a mount over ground and what stands on it. */
export interface ViewRequest {
  /** Ground, north row first. */
  readonly groundAmslM: Float32Array;
  readonly cols: number;
  readonly rows: number;
  readonly stepM: number;
  readonly bodies: readonly RasterBody[];
  readonly from: { readonly col: number; readonly row: number; readonly aglM: number };
  /** Height above ground of what is looked for. */
  readonly targetAglM: number;
  readonly effectiveRadiusM: number;
  /** Places asked one by one, each with its own height above ground. */
  readonly places: readonly { readonly id: string; readonly col: number; readonly row: number; readonly aglM: number }[];
}

export interface ViewAnswer {
  /** Per cell: 0 unknown, 1 hidden, 2 seen. */
  readonly mask: Uint8Array;
  readonly seenShare: number;
  /** Metres by which each place is higher than needed; negative is hidden by so much; null where the ground is unknown. */
  readonly places: readonly { readonly id: string; readonly spareM: number | null }[];
}

export interface ViewWorker {
  readonly view: (request: ViewRequest, onProgress: (share: number) => void) => ViewAnswer;
}

export interface HeightsRequest {
  readonly plan: LinkPlan;
  readonly costs: MastCosts;
}

export interface HeightsReply {
  readonly today: HeightFrontier;
  readonly last: HeightFrontier;
  readonly answersToday: HeightAnswers;
  readonly answers: HeightAnswers;
  /** Worst level over the tide by pairs of heights, nullSide squared; null without reflecting water. */
  readonly nulls: Float32Array | null;
  readonly nullSide: number;
}

export interface TreesReply {
  readonly outlook: Outlook;
  readonly list: TrimList;
}

export interface WaterReply {
  /** Null when no level surface throws a second ray at the present heights. */
  readonly tide: { readonly water: WaterView; readonly levels: readonly TideLevel[] } | null;
  readonly far: readonly HeightLevel[];
  readonly near: readonly HeightLevel[];
}

export interface SolveWorker {
  /** The path that the next questions are about. */
  readonly open: (profile: PathProfile) => void;
  readonly heights: (request: HeightsRequest) => HeightsReply;
  readonly trees: (request: { readonly plan: LinkPlan }) => TreesReply;
  readonly water: (request: { readonly plan: LinkPlan }) => WaterReply;
}

export interface RelayWorker {
  readonly search: (request: RelayQuestion, onProgress: (share: number) => void) => RelayAnswer;
}

export interface RackRequest {
  readonly plan: LinkPlan;
  readonly limits: RackLimits;
  readonly school: School;
}

/** The rack as far as it is worked out. */
export interface RackReply {
  readonly rack: Rack;
  readonly planned: Planned;
  /** The first rows are drawn. */
  readonly done: boolean;
}

export interface RackWorker {
  /** The path and the hardware that the next questions are about. */
  readonly open: (profile: PathProfile, hardware: { readonly radios: readonly Radio[]; readonly antennas: readonly Antenna[] }) => void;
  /** Tells the rack again and again as more of it is drawn. A newer question ends this one. */
  readonly rack: (request: RackRequest, onRack: (reply: RackReply) => void, onProgress: (share: number) => void) => Promise<void>;
  readonly schools: (id: string) => readonly SchoolFigures[] | null;
  /** Everything that serves, in order and the first of it drawn, once the order is final. */
  readonly serving: (request: RackRequest) => readonly (Serving & { readonly drawn: boolean })[];
}

/** Marks an answer that came out of what a device keeps, and not from the server. */
export const KEPT_HEADER = "x-kept";

/** A remote without its path, which is sent once. */
export type SentRemote = Omit<TriedRemote, "profile">;

export interface ShapesRequest {
  readonly remotes: readonly SentRemote[];
  readonly sectors: readonly (Omit<ShapeQuestion["sectors"][number], "unit"> & { readonly unitKey: string })[];
  readonly policy: ShapeQuestion["policy"];
}

export interface MendsRequest {
  readonly remotes: readonly SentRemote[];
  readonly unitKey: string;
  readonly aim: { readonly azimuthDeg: number; readonly tiltDeg: number };
  readonly mountAglM: number;
  readonly policy: ShapeQuestion["policy"];
}

export interface HubWorker {
  /** The paths of all remotes and the catalogue: sent once, they are the large part. */
  readonly open: (
    profiles: readonly (readonly [string, PathProfile])[],
    hardware: { readonly radios: readonly Radio[]; readonly antennas: readonly Antenna[] },
  ) => void;
  /** Every shape as soon as it is worked out; null for one that no unit of the catalogue makes. */
  readonly shapes: (request: ShapesRequest, onShape: (kind: ShapeKind, shape: Shape | null) => void) => Promise<void>;
  readonly mends: (request: MendsRequest) => SectorMends | null;
}

/** A job in the air as it travels, and how its channels are to be chosen. */
export interface AssignRequest extends Omit<AirJob, "field"> {
  readonly field: PackedField;
  readonly widths: WidthSchool;
  readonly radar: RadarSchool;
  /** The search ends with what it has after so long. */
  readonly budgetMs: number;
}

export interface AirWorker {
  /** @param told part of the time that is spent. */
  readonly assign: (request: AssignRequest, told: (share: number) => void) => Promise<Assignment>;
  /** One unit on each of its channels, all others as they are. */
  readonly moves: (request: AssignRequest, unitId: string) => readonly Move[];
}
