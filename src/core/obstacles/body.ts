export type BodyKind = "building" | "wall" | "mast" | "wood" | "row" | "crown" | "hedge" | "line" | "crane" | "vehicle";
export const BODY_KINDS = [
  "building",
  "wall",
  "mast",
  "wood",
  "row",
  "crown",
  "hedge",
  "line",
  "crane",
  "vehicle",
] as const satisfies readonly BodyKind[];

/** Vegetation grows, is judged by the tree policy and never enters the diffraction profile. */
export const isVegetation = (kind: BodyKind): boolean => kind === "wood" || kind === "row" || kind === "crown" || kind === "hedge";

/** Hangs in the air with free space beneath: an overhead line, the swing of a crane's jib. */
export const isSpan = (kind: BodyKind): boolean => kind === "line" || kind === "crane";

/** Comes and goes: judged for clearance as if it stood there, never part of the diffraction profile. */
export const isPassing = (kind: BodyKind): boolean => kind === "crane" || kind === "vehicle";

/** Enters the diffraction profile: stands there always, from the ground up, and lets nothing through. */
export const isSolid = (kind: BodyKind): boolean => !isVegetation(kind) && !isSpan(kind) && !isPassing(kind);

/**
 * An obstacle in the frame of one path: a prism from the ground up over an outline.
 * xM along from the near end, yM across, right of near-to-far positive. The outline closes itself.
 */
export interface PathBody {
  readonly id: string;
  readonly name: string;
  readonly kind: BodyKind;
  readonly xM: readonly number[];
  readonly yM: readonly number[];
  /** Ground AMSL under its centre. */
  readonly baseAmslM: number;
  /** Height above ground today. */
  readonly heightM: number;
  /** Height above ground below which it is open (a crown on a trunk), for the drawing and the loss through it. */
  readonly crownBaseM: number;
  /** Spans: height above ground below which the air is free. 0 for what stands on the ground. */
  readonly freeBelowM?: number;
  readonly growthMPerYear: number;
  /** Standard error of its height. */
  readonly heightSigmaM: number;
  /** Where its base was fitted to a surface model about it: how well that is known; part of the height's error. */
  readonly baseSigmaM?: number;
  /** The end whose mounting point stands on or in it. */
  readonly carries: "near" | "far" | null;
}

/** A stretch of the path's axis that lies inside a body's outline. */
export interface AxisStretch {
  readonly fromM: number;
  readonly toM: number;
}

/** Crossings this near one another are one place. */
const ONE_PLACE_M = 1e-6;

/**
 * Exact stretches of the axis inside an outline, by edge crossings of y = 0 (even-odd rule).
 * A vertex on the axis counts for the edge above it only, so it is never counted twice.
 */
export const axisStretches = (xM: readonly number[], yM: readonly number[]): AxisStretch[] => {
  const crossings: number[] = [];
  for (let i = 0; i < xM.length; i++) {
    const j = (i + 1) % xM.length;
    const ya = yM[i]!;
    const yb = yM[j]!;
    if (ya > 0 !== yb > 0) crossings.push(xM[i]! + ((xM[j]! - xM[i]!) * ya) / (ya - yb));
  }
  crossings.sort((a, b) => a - b);
  const stretches: AxisStretch[] = [];
  for (let i = 0; i + 1 < crossings.length; i += 2) {
    const last = stretches[stretches.length - 1];
    // The bridge to a courtyard is crossed twice at one place: nothing ends there.
    if (last !== undefined && crossings[i]! - last.toM < ONE_PLACE_M)
      stretches[stretches.length - 1] = { fromM: last.fromM, toM: crossings[i + 1]! };
    else stretches.push({ fromM: crossings[i]!, toM: crossings[i + 1]! });
  }
  return stretches;
};

/** What the search for the nearest approach needs of an outline, made once for a path. */
export interface PreparedOutline {
  readonly body: PathBody;
  readonly stretches: readonly AxisStretch[];
  /** Least distance of the outline from the axis line, 0 when it crosses. */
  readonly leastAsideM: number;
}

export const prepareOutline = (body: PathBody): PreparedOutline => {
  const stretches = axisStretches(body.xM, body.yM);
  const leastAsideM = stretches.length > 0 ? 0 : body.yM.reduce((least, y) => Math.min(least, Math.abs(y)), Number.POSITIVE_INFINITY);
  return { body, stretches, leastAsideM };
};

/** Reach of an outline across the path within a stretch along it; null when it does not enter the stretch. */
export const acrossExtent = (body: Pick<PathBody, "xM" | "yM">, fromM: number, toM: number): { leftM: number; rightM: number } | null => {
  let leftM = Number.POSITIVE_INFINITY;
  let rightM = Number.NEGATIVE_INFINITY;
  const take = (y: number): void => {
    if (y < leftM) leftM = y;
    if (y > rightM) rightM = y;
  };
  const n = body.xM.length;
  for (let i = 0; i < n; i++) {
    const j = (i + 1) % n;
    const xa = body.xM[i]!;
    const xb = body.xM[j]!;
    const ya = body.yM[i]!;
    const yb = body.yM[j]!;
    if (xa >= fromM && xa <= toM) take(ya);
    for (const cut of [fromM, toM]) if (xa < cut !== xb < cut) take(ya + ((yb - ya) * (cut - xa)) / (xb - xa));
  }
  return leftM <= rightM ? { leftM, rightM } : null;
};
