import type { SectionSketch, Verdict } from "../core/link";

export type { SectionSketch } from "../core/link";

import type { AirPath } from "../core/air";
import type { Carried } from "../core/load";
import type { BodyKind } from "../core/obstacles";
import type { Antenna, Radio } from "../core/radio";
import type { MountOutcome, PlaceOutcome } from "../core/solve";
import type { PartSheet, WiringCode } from "../core/wiring";
import type { ErrorBody } from "./errors";
import type { ImportOptions } from "./ground";
import type { RowOf } from "./records";
import type { DesignFields } from "./schemas";

export type JobDto = RowOf<"job"> & { readonly revision: number; readonly updatedAt: string };

export type SiteDto = RowOf<"site">;

export type DesignDto = DesignFields & { readonly id: string; readonly version: number };

/** A design kept beside the one in force, to compare with. */
export type KeptDesignDto = DesignDto & { readonly name: string };

/** What a path comes to from another spot. */
export interface PlaceDto extends PlaceOutcome {
  readonly latDeg: number;
  readonly lonDeg: number;
  /** Seen from the site's position. */
  readonly eastM: number;
  readonly northM: number;
  readonly mountId: string | null;
  readonly name: string;
}

/** What a hub comes to from another spot, at its best height there. */
export interface HubMountDto extends MountOutcome {
  readonly name: string;
  readonly latDeg: number;
  readonly lonDeg: number;
  /** A mounting point of the hub's own site; null with "isOwn": the site's own mount. */
  readonly mountId: string | null;
  readonly siteId: string | null;
  /** Seen from the hub's site. */
  readonly eastM: number;
  readonly northM: number;
}

/** One leg of a relay over its exact profile. */
export interface RelayLegDto {
  readonly pathM: number;
  readonly verdict: Verdict;
  readonly missM: number | null;
  readonly worstName: string | null;
  readonly levelDbm: number | null;
  readonly sketch: SectionSketch;
}

export interface RelayDto {
  readonly latDeg: number;
  readonly lonDeg: number;
  readonly aglM: number;
  readonly siteId: string | null;
  /** The site's name, or the nearest named ground. */
  readonly name: string | null;
  /** Both legs are clear with the errors of ground and mounts counted. */
  readonly sure: boolean;
  readonly near: RelayLegDto | null;
  readonly far: RelayLegDto | null;
}

/** A row of a long answer that comes bit by bit. */
export type Streamed<Row> =
  | { readonly kind: "progress"; readonly done: number; readonly total: number }
  | { readonly kind: "row"; readonly row: Row }
  | { readonly kind: "fault"; readonly fault: ErrorBody };

export type LinkDto = RowOf<"link"> & { readonly updatedAt: string; readonly design: DesignDto };

export interface LinkBundleDto {
  readonly job: JobDto;
  readonly link: LinkDto;
  readonly near: SiteDto;
  readonly far: SiteDto;
  readonly kept: readonly KeptDesignDto[];
}

export interface JobBundle {
  readonly job: JobDto;
  readonly sites: readonly SiteDto[];
  readonly links: readonly LinkDto[];
}

/** One line of the register: what a link comes to with its present design. */
export interface LinkVerdict {
  readonly linkId: string;
  readonly number: number;
  readonly nearName: string;
  readonly farName: string;
  readonly label: string;
  readonly stage: string;
  readonly pathM: number;
  readonly nearBearingDeg: number;
  readonly farBearingDeg: number;
  readonly gear: string;
  readonly verdict: Verdict;
  readonly clearanceVerdict: Verdict;
  readonly serviceVerdict: Verdict;
  readonly worst: { readonly name: string | null; readonly missM: number; readonly atM: number; readonly kind: string } | null;
  /** The first finding's code, to say what the trouble is when it is not clearance. */
  readonly trouble: string | null;
  readonly levelDbm: number | null;
  /** What it carries each way as planned, and on its radios' other widths; null where a way holds nothing. */
  readonly carries: Carried | null;
  readonly widths: readonly { readonly widthMhz: number; readonly carried: Carried }[];
  /** What its path is to its radios on any channel; null where they do not pair. */
  readonly air: AirPath | null;
  /** What others' radios make of it on its channel; null where it is not known. */
  readonly inAir: {
    readonly verdict: Verdict;
    readonly trouble: "blinded" | "noise" | "turns" | "bursts" | "isolation" | null;
    /** To far and to near: the rise of the noise while all of them send, and the part of the time on which they fall. */
    readonly riseDb: readonly [number, number];
    readonly hitShare: readonly [number, number];
    readonly worstEnd: "near" | "far";
    readonly loudest: string | null;
    /** Part of what may be used of the air that is left to those it waits for. */
    readonly waits: number;
    readonly sharesWith: readonly string[];
    /** Part of what may be used that its own channel is asked for. */
    readonly asked: number;
    /** Part of each way's rate that is left. */
    readonly left: readonly [number, number];
    /** Channel of the sector that it hangs on, where that is another. */
    readonly unlike: number | null;
    /** An edge of the rules within its channel, MHz. */
    readonly acrossMhz: number | null;
    readonly oldScanDays: number | null;
    readonly radar: boolean;
  } | null;
  /** What it is by itself, its hub and its chain left out. */
  readonly alone: Verdict;
  /** What the network of the job makes of it, whatever it is by itself; null when nothing on its way is over. */
  readonly chain: {
    readonly verdict: Verdict;
    readonly code: "air-over" | "sector-over" | "port-over" | "feed-over" | "chain-over";
  } | null;
  /** What the wiring of its two ends comes to, the worse of them; null while neither is planned. */
  readonly wiring: {
    readonly verdict: Verdict;
    readonly code: WiringCode | null;
    readonly siteId: string;
    /** It keeps one of its radios dark, or stops the plan. */
    readonly holdsUp: boolean;
  } | null;
  readonly changedAt: string;
  /** False while something it rests on has changed and it is being worked out anew. */
  readonly fresh: boolean;
}

export interface JobSummary {
  readonly job: JobDto;
  readonly links: readonly LinkVerdict[];
}

export interface HardwareDto {
  readonly radios: readonly (Radio & { readonly bandKey: string; readonly source: string })[];
  readonly antennas: readonly (Antenna & { readonly source: string })[];
}

/** A sampled path as it travels: unknown heights are null. */
export interface ProfileDto {
  readonly pathM: number;
  readonly latDeg: number;
  readonly nearBearingDeg: number;
  readonly farBearingDeg: number;
  readonly distanceM: readonly number[];
  readonly groundAmslM: readonly (number | null)[];
  readonly datasetIndex: readonly number[];
  /** Ground beside the path where it is known finely enough. */
  readonly side: { readonly offsetsM: readonly number[]; readonly groundAmslM: readonly (readonly (number | null)[])[] } | null;
  readonly datasets: readonly { id: string; name: string; kind: "dtm" | "dsm"; cellM: number; sigmaM: number }[];
  readonly bodies: readonly {
    readonly id: string;
    readonly name: string;
    readonly kind: BodyKind;
    readonly xM: readonly number[];
    readonly yM: readonly number[];
    readonly baseAmslM: number;
    readonly heightM: number;
    readonly crownBaseM: number;
    readonly freeBelowM?: number;
    readonly growthMPerYear: number;
    readonly heightSigmaM: number;
    readonly baseSigmaM?: number;
    readonly carries: "near" | "far" | null;
  }[];
  readonly features: readonly { name: string; alongM: number; acrossM: number }[];
  readonly thinned: boolean;
  /** East of true north of the magnetic needle at each end on the day of the visit. */
  readonly nearDeclinationDeg: number;
  readonly farDeclinationDeg: number;
  readonly declinationInModelYears: boolean;
  readonly declinationModel: string;
}

export type ObstacleDto = RowOf<"obstacle">;
export type FeatureDto = RowOf<"feature">;

/** Edits of the catalogue that were made as one. */
export interface HardwareStepDto {
  readonly step: string;
  readonly at: string;
  readonly mine: boolean;
  readonly undone: boolean;
  readonly names: readonly string[];
  /** All of them were new. */
  readonly made: boolean;
}

/** What is drawn in a box: obstacles, the widest first where there are too many to send, and all named ground of the job. */
export interface DrawnDto {
  readonly obstacles: readonly ObstacleDto[];
  /** How many obstacles there are in the box. */
  readonly total: number;
  readonly features: readonly FeatureDto[];
}

export interface DatasetDto {
  readonly id: string;
  readonly name: string;
  readonly kind: "dtm" | "dsm";
  readonly crs: string;
  readonly cols: number;
  readonly rows: number;
  readonly cellM: number;
  readonly sigmaM: number;
  readonly verticalDatum: string;
  readonly datumOffsetM: number;
  readonly source: string;
  readonly importId: string | null;
  /** Longitude, latitude of the area it covers. */
  readonly ring: readonly (readonly [number, number])[];
}

export interface UploadDto {
  readonly id: string;
  readonly name: string;
  readonly sizeBytes: number;
  readonly receivedBytes: number;
}

export interface RowFaultDto {
  readonly row: number;
  readonly reason: string;
}

/** A look into a file before anything is taken in. */
export type PreviewDto =
  | {
      readonly kind: "terrain";
      readonly format: string;
      readonly cols: number;
      readonly rows: number;
      readonly epsg: number | null;
      readonly systemName: string | null;
      readonly offM: number;
      readonly cellM: number | null;
      readonly verticalUnit: "m" | "ft" | "us-ft" | null;
      readonly lowest: number | null;
      readonly highest: number | null;
      readonly unknownShare: number | null;
      readonly ring: readonly (readonly [number, number])[] | null;
      readonly sigmaM: number | null;
    }
  | {
      readonly kind: "places";
      readonly format: string;
      /** How many features were looked at, and whether the file holds more. */
      readonly seen: number;
      readonly more: boolean;
      readonly points: number;
      readonly lines: number;
      readonly polygons: number;
      readonly columns: readonly { readonly name: string; readonly sample: string; readonly numeric: boolean }[];
      readonly lat: string | null;
      readonly lon: string | null;
      readonly shapes: readonly { readonly type: "point" | "line" | "polygon"; readonly points: readonly (readonly [number, number])[] }[];
      readonly faults: readonly RowFaultDto[];
      /** What is taken otherwise than it stands in the file. */
      readonly notes: readonly RowFaultDto[];
      /** How many lie far from the job, how far the first of them, and how many would not with their figures exchanged. */
      readonly far: number;
      readonly farKm: number | null;
      readonly swapped: number;
      /** Written by this program: its columns mean what they say. */
      readonly own: "sites" | "obstacles" | "features" | null;
      /** Why no place could be read as asked, when none could. */
      readonly problem: string | null;
    };

/** Room for files on their way in. */
export interface RoomDto {
  readonly jobBytes: number;
  readonly mostJobBytes: number;
  readonly allBytes: number;
  readonly mostAllBytes: number;
}

export interface ImportDto {
  readonly id: string;
  readonly fileName: string;
  readonly what: ImportOptions["what"] | "bundle";
  readonly state: "waiting" | "running" | "done" | "failed" | "stopped" | "removed";
  readonly doneShare: number;
  readonly result: {
    readonly kept: number;
    readonly refused: number;
    readonly faults: readonly RowFaultDto[];
    /** What was taken otherwise than it stands in the file. */
    readonly notes?: readonly RowFaultDto[];
    readonly mbPerS?: number;
    /** Of a whole job: which it became, and hardware whose data sheet here differs. */
    readonly jobId?: string;
    readonly differing?: readonly string[];
  } | null;
  readonly fault: string | null;
  readonly updatedAt: string;
}

export type PhotoDto = RowOf<"photo">;

export interface BasemapDto {
  readonly id: string;
  readonly kind: "xyz" | "pmtiles";
  readonly name: string;
  readonly credit: string;
}

/** A field that an edit changed, from what to what; of a secret one only that it was changed. */
export interface FieldChange {
  readonly field: string;
  readonly from?: unknown;
  readonly to?: unknown;
}

/** One edit as the history tells it. */
export interface ChangeDto {
  readonly id: number;
  /** A kind of record, or "import". */
  readonly entity: string;
  readonly entityId: string;
  readonly action: string;
  readonly name: string;
  readonly at: string;
  readonly mine: boolean;
  /** Tells browsers apart that made edits; null is the program itself. */
  readonly by: string | null;
  readonly undone: boolean;
  readonly undoable: boolean;
  readonly fields: readonly FieldChange[];
}

export interface HistoryDto {
  readonly canUndo: boolean;
  readonly canRedo: boolean;
  readonly changes: readonly ChangeDto[];
  /** There are earlier ones. */
  readonly more: boolean;
}

/** What an undo or redo did, and the rows as they now stand; a row that is gone is null. */
export interface StepDto {
  readonly entity: string;
  readonly action: string;
  readonly name: string;
}
export interface UndoneDto {
  readonly step: StepDto | null;
  readonly rows: readonly {
    readonly kind: string;
    readonly id: string;
    readonly row: (Readonly<Record<string, unknown>> & { readonly version: number }) | null;
  }[];
}

export type BriefDto = RowOf<"brief">;
export type LimitsDto = RowOf<"limits">;
export type HubDto = RowOf<"hub">;
export type NetworkDto = RowOf<"network">;
export type AirDto = RowOf<"air">;
export type ScanDto = RowOf<"scan">;
export type WiringDto = RowOf<"wiring">;
export type UnitDto = RowOf<"unit">;
export type AddressesDto = RowOf<"addresses">;
export type KitDto = RowOf<"kit">;
export type DaysDto = RowOf<"days">;
export type PickDto = RowOf<"pick">;
export type SafetyDto = RowOf<"safety">;
export type RoofEntryDto = RowOf<"roof">;
/** Sheets of what is wired beside the radios. */
export type PartDto = PartSheet & { readonly source: string };
