import { insideOutline, type LatLon, planeProjection } from "../core/geo";
import { bilinearSampler } from "../core/terrain";
import type { Db } from "../data/client";
import { gridsAlong } from "../data/terrain-store";

export interface HeightHere {
  readonly groundAmslM: number | null;
  readonly dataset: string | null;
  readonly kind: "dtm" | "dsm" | null;
  readonly sigmaM: number | null;
}

/** Height of the ground at each of some places, from the finest terrain that knows it. */
export const heightsAt = async (db: Db, points: readonly LatLon[]): Promise<HeightHere[]> => {
  const grids = await gridsAlong(db, points);
  const samplers = grids.map((g) => ({ g, sample: bilinearSampler(g), projection: planeProjection(g.crs) }));
  return points.map((p) => {
    for (const { g, sample, projection } of samplers) {
      const h = sample(...projection.forward(p));
      if (!Number.isNaN(h)) return { groundAmslM: h, dataset: g.name, kind: g.kind, sigmaM: g.sigmaM };
    }
    return { groundAmslM: null, dataset: null, kind: null, sigmaM: null };
  });
};

/** Points of a grid laid over an outline, so that its roof or crown is met. */
const INNER_POINTS = 9;

/**
 * Height that a surface model gives an outlined thing: its highest inside, over the lowest ground at its rim (or bare
 * ground where that is known too). Null when no surface model knows the place.
 */
export const heightProposal = async (
  db: Db,
  outline: readonly LatLon[],
): Promise<{ heightM: number; sigmaM: number; dataset: string } | null> => {
  const lats = outline.map((p) => p.latDeg);
  const lons = outline.map((p) => p.lonDeg);
  const [south, north] = [Math.min(...lats), Math.max(...lats)];
  const [west, east] = [Math.min(...lons), Math.max(...lons)];
  const inner: LatLon[] = [];
  for (let i = 0; i < INNER_POINTS; i++) {
    for (let k = 0; k < INNER_POINTS; k++) {
      const p = { latDeg: south + ((north - south) * (i + 0.5)) / INNER_POINTS, lonDeg: west + ((east - west) * (k + 0.5)) / INNER_POINTS };
      if (insideOutline(p, outline)) inner.push(p);
    }
  }
  const grids = await gridsAlong(db, [...inner, ...outline]);
  const of = (kind: "dtm" | "dsm") => {
    const grid = grids.find((g) => g.kind === kind);
    if (grid === undefined) return null;
    const sample = bilinearSampler(grid);
    const projection = planeProjection(grid.crs);
    return { grid, at: (p: LatLon) => sample(...projection.forward(p)) };
  };
  const surface = of("dsm");
  if (surface === null) return null;
  const tops = inner.map(surface.at).filter((h) => !Number.isNaN(h));
  const bare = of("dtm");
  const around = (bare === null ? outline.map(surface.at) : inner.map(bare.at)).filter((h) => !Number.isNaN(h));
  if (tops.length === 0 || around.length === 0) return null;
  // A corner drawn a little inside the wall meets the roof: the lower half of the rim is the ground.
  const sorted = [...around].sort((a, b) => a - b);
  const ground = bare === null ? sorted[Math.floor(sorted.length / 4)]! : sorted[Math.floor(sorted.length / 2)]!;
  return {
    heightM: Math.max(0, Math.max(...tops) - ground),
    sigmaM: Math.hypot(surface.grid.sigmaM, bare?.grid.sigmaM ?? surface.grid.sigmaM),
    dataset: surface.grid.name,
  };
};
