import type { LinkPlan, PathProfile, Uncertainty } from "@/core/link";

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

export interface DoubtRequest {
  readonly plan: LinkPlan;
  readonly draws: number;
  readonly seed: number;
}

export interface DoubtWorker {
  /** The path that the next questions are about; sent once, it is the large part. */
  readonly open: (profile: PathProfile) => void;
  /** Null when there is no spread to tell: unknown ground, radios that do not pair. */
  readonly doubt: (request: DoubtRequest) => Uncertainty | null;
}
