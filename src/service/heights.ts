import { insideOutline, type LatLon, planeProjection } from "../core/geo";
import { bilinearSampler, type TerrainGrid } from "../core/terrain";
import type { Db } from "../data/client";
import { eachPlace } from "../data/terrain-store";

export interface HeightHere {
  readonly groundAmslM: number | null;
  readonly dataset: string | null;
  readonly kind: "dtm" | "dsm" | null;
  readonly sigmaM: number | null;
}

/** Height of the ground at each of some places, from the finest terrain that knows it. */
export const heightsAt = async (db: Db, points: readonly LatLon[], signal?: AbortSignal): Promise<HeightHere[]> => {
  const out: HeightHere[] = points.map(() => ({ groundAmslM: null, dataset: null, kind: null, sigmaM: null }));
  await eachPlace(
    db,
    points,
    (i, grids) => {
      for (const g of grids) {
        const h = bilinearSampler(g)(...planeProjection(g.crs).forward(points[i]!));
        if (Number.isNaN(h)) continue;
        out[i] = { groundAmslM: h, dataset: g.name, kind: g.kind, sigmaM: g.sigmaM };
        return;
      }
    },
    signal,
  );
  return out;
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
  signal?: AbortSignal,
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
  // The finest of each kind that knows any of the places; a place that it does not know counts for nothing.
  const places = [...inner, ...outline];
  const seen = new Map<string, { grid: TerrainGrid; heights: number[] }>();
  await eachPlace(
    db,
    places,
    (i, grids) => {
      for (const grid of grids) {
        let held = seen.get(grid.id);
        if (held === undefined) {
          held = { grid, heights: places.map(() => Number.NaN) };
          seen.set(grid.id, held);
        }
        held.heights[i] = bilinearSampler(grid)(...planeProjection(grid.crs).forward(places[i]!));
      }
    },
    signal,
  );
  const of = (kind: "dtm" | "dsm") =>
    [...seen.values()].filter((s) => s.grid.kind === kind).sort((a, b) => a.grid.cellM - b.grid.cellM)[0] ?? null;
  const surface = of("dsm");
  if (surface === null) return null;
  const known = (h: number): boolean => !Number.isNaN(h);
  const tops = surface.heights.slice(0, inner.length).filter(known);
  const bare = of("dtm");
  const around = (bare === null ? surface.heights.slice(inner.length) : bare.heights.slice(0, inner.length)).filter(known);
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
