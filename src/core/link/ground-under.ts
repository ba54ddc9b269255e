import { type LatLon, planeProjection } from "../geo";
import type { PathBody } from "../obstacles";
import { bilinearSampler, type GroundProfile, LEAST_GAP_M, MIN_STEP_M, type TerrainGrid } from "../terrain";
import type { PathProfile } from "./types";

/** Ground told by hand instead of sampled: level, or heights at distances from the near end. */
export interface TypedGround {
  readonly kind: "level" | "typed";
  readonly sigmaM: number;
  /** Heights AMSL at distances; a level ground has one point. In order, the first and last heights reach to the ends. */
  readonly points: readonly { readonly distanceM: number; readonly heightAmslM: number }[];
}

/** A body whose base may still be unknown. */
export type Standing = Omit<PathBody, "baseAmslM"> & { readonly baseAmslM: number | null };

const TYPED_STEPS = 400;
/** Step of told ground on a path of this length. */
export const typedStepM = (lengthM: number): number => Math.max(MIN_STEP_M, lengthM / TYPED_STEPS);

/** Ground told by hand, at steps that keep every typed point; and what stands for its dataset. */
export const typedGround = (
  lengthM: number,
  typed: TypedGround,
): { readonly ground: GroundProfile; readonly dataset: PathProfile["datasets"][number] } => {
  const points = [...typed.points].sort((p, q) => p.distanceM - q.distanceM);
  const stepM = typedStepM(lengthM);
  const distanceM = stepsApart(
    lengthM,
    points.map((p) => p.distanceM),
    stepM,
  );
  return {
    ground: {
      distanceM,
      groundAmslM: distanceM.map((x) => heightBetween(points, x)),
      datasetIndex: new Uint8Array(distanceM.length),
      thinned: false,
    },
    dataset: {
      id: "told",
      name: typed.kind === "level" ? "level ground, as told" : "heights as told",
      kind: "dtm",
      cellM: stepM,
      sigmaM: typed.sigmaM,
    },
  };
};

/** Distances from 0 to the length: every wanted one, and steps between them; rising, and at least a millimetre apart. */
export const stepsApart = (lengthM: number, wantedM: readonly number[], stepM: number): Float64Array => {
  const fixed: number[] = [0];
  for (const x of [...wantedM].sort((a, b) => a - b))
    if (x - fixed[fixed.length - 1]! >= LEAST_GAP_M && lengthM - x >= LEAST_GAP_M) fixed.push(x);
  fixed.push(lengthM);
  const stepsAfter = (i: number): number => Math.max(1, Math.ceil((fixed[i + 1]! - fixed[i]!) / stepM - 1e-9));
  let count = 1;
  for (let i = 0; i + 1 < fixed.length; i++) count += stepsAfter(i);
  const out = new Float64Array(count);
  let n = 0;
  for (let i = 0; i + 1 < fixed.length; i++) {
    const from = fixed[i]!;
    const steps = stepsAfter(i);
    const eachM = (fixed[i + 1]! - from) / steps;
    for (let k = 0; k < steps; k++) out[n++] = from + eachM * k;
  }
  out[n] = lengthM;
  return out;
};

const heightBetween = (points: TypedGround["points"], x: number): number => {
  const after = points.findIndex((p) => p.distanceM >= x);
  const next = points[after];
  if (next === undefined) return points[points.length - 1]?.heightAmslM ?? Number.NaN;
  const last = points[after - 1];
  if (last === undefined) return next.heightAmslM;
  return last.heightAmslM + ((next.heightAmslM - last.heightAmslM) * (x - last.distanceM)) / (next.distanceM - last.distanceM);
};

const indexAfter = (d: Float64Array, x: number): number => {
  let i = 0;
  while (i < d.length - 1 && d[i]! < x) i++;
  return i;
};

/** Ground under an obstacle's middle: the finest dataset that knows it; for a surface model the profile's own ground. */
export const baseOf = (outline: readonly LatLon[], body: Standing, samplers: readonly GridSampler[], ground: GroundProfile): number => {
  if (body.baseAmslM !== null) return body.baseAmslM;
  const n = outline.length;
  const middle = {
    latDeg: outline.reduce((sum, p) => sum + p.latDeg, 0) / n,
    lonDeg: outline.reduce((sum, p) => sum + p.lonDeg, 0) / n,
  };
  for (const { grid, at } of samplers) {
    const h = at(middle);
    if (!Number.isNaN(h) && grid.kind === "dtm") return h;
    if (!Number.isNaN(h)) break;
  }
  const x = body.xM.reduce((sum, v) => sum + v, 0) / n;
  return ground.groundAmslM[indexAfter(ground.distanceM, x)] ?? Number.NaN;
};

export interface GridSampler {
  readonly grid: TerrainGrid;
  readonly at: (p: LatLon) => number;
}

export const samplersOf = (grids: readonly TerrainGrid[]): GridSampler[] =>
  [...grids]
    .sort((a, b) => a.cellM - b.cellM)
    .map((grid) => {
      const sample = bilinearSampler(grid);
      const projection = planeProjection(grid.crs);
      return { grid, at: (p) => sample(...projection.forward(p)) };
    });
