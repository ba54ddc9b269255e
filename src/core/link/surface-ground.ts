/*
 * Bare ground on a surface model (ours). What somebody outlined has its roof or crown in the model, and a cell's
 * breadth beside it; with an outline drawn a little too small the roof reaches past it. So the ground under an outline
 * and near it is taken from bare earth where any dataset has it, however coarse, else from a plane through the model's
 * heights safely outside: two cells and a metre and a half away from every outline.
 */
import type { LatLon, PathFrame } from "../geo";
import { isPassing, isSpan } from "../obstacles";
import type { GroundProfile, TerrainGrid } from "../terrain";
import type { GridSampler, Standing } from "./ground-under";

const SAFE_CELLS = 2;
const SAFE_M = 1.5;
const RINGS = [1, 1.5];
const MOST_RING_POINTS = 64;
const LEAST_POINTS = 6;
/** Points this many times the middle deviation above the plane are something nobody outlined. */
const TRIM = 2.5;
const TRIM_ROUNDS = 4;
const LEAST_DEVIATION_M = 0.05;
/** How well a plane through a surface model's heights is known beside what its points scatter, in cells (ours). */
const CELL_DOUBT = 0.05;
const METRES_PER_DEGREE = 111_320;

interface Outline {
  readonly points: readonly LatLon[];
  /** In metres about its first point, east and north. */
  readonly east: readonly number[];
  readonly north: readonly number[];
  readonly origin: LatLon;
  readonly reachM: number;
}

const local = (origin: LatLon, p: LatLon): [number, number] => [
  (p.lonDeg - origin.lonDeg) * METRES_PER_DEGREE * Math.cos((origin.latDeg * Math.PI) / 180),
  (p.latDeg - origin.latDeg) * METRES_PER_DEGREE,
];
const fromLocal = (origin: LatLon, east: number, north: number): LatLon => ({
  latDeg: origin.latDeg + north / METRES_PER_DEGREE,
  lonDeg: origin.lonDeg + east / (METRES_PER_DEGREE * Math.cos((origin.latDeg * Math.PI) / 180)),
});

const outlineOf = (points: readonly LatLon[]): Outline => {
  const origin = points[0]!;
  const at = points.map((p) => local(origin, p));
  const reachM = Math.max(...at.map(([e, n]) => Math.hypot(e, n)));
  return { points, origin, east: at.map((a) => a[0]), north: at.map((a) => a[1]), reachM };
};

/** Distance of a place from an outline, 0 inside. */
const awayM = (o: Outline, p: LatLon): number => {
  const [x, y] = local(o.origin, p);
  if (Math.hypot(x, y) > o.reachM * 2 + 200) return Number.POSITIVE_INFINITY;
  let inside = false;
  let least = Number.POSITIVE_INFINITY;
  const n = o.east.length;
  for (let i = 0; i < n; i++) {
    const j = (i + 1) % n;
    const [xa, ya, xb, yb] = [o.east[i]!, o.north[i]!, o.east[j]!, o.north[j]!];
    if (ya > y !== yb > y && x < xa + ((xb - xa) * (y - ya)) / (yb - ya)) inside = !inside;
    const [dx, dy] = [xb - xa, yb - ya];
    const t = Math.min(1, Math.max(0, ((x - xa) * dx + (y - ya) * dy) / (dx * dx + dy * dy || 1)));
    least = Math.min(least, Math.hypot(xa + t * dx - x, ya + t * dy - y));
  }
  return inside ? 0 : least;
};

/** Places round an outline at a distance: pushed out from its middle through edges and corners until they are that far away. */
const ringOf = (o: Outline, distanceM: number): LatLon[] => {
  const n = o.east.length;
  const cx = o.east.reduce((a, b) => a + b, 0) / n;
  const cy = o.north.reduce((a, b) => a + b, 0) / n;
  return Array.from({ length: MOST_RING_POINTS }, (_, k) => {
    const a = (2 * Math.PI * k) / MOST_RING_POINTS;
    const at = (r: number): LatLon => fromLocal(o.origin, cx + r * Math.cos(a), cy + r * Math.sin(a));
    let low = 0;
    let high = 2 * o.reachM + 2 * distanceM;
    for (let i = 0; i < 24; i++) {
      const mid = (low + high) / 2;
      if (awayM(o, at(mid)) < distanceM) low = mid;
      else high = mid;
    }
    return at(high);
  });
};

interface Plane {
  readonly at: (p: LatLon) => number;
  readonly sigmaM: number;
}

/** Least squares through places, those far above it left out round by round: trees and roofs nobody outlined. */
const planeThrough = (origin: LatLon, points: readonly { readonly p: LatLon; readonly h: number }[], cellM: number): Plane | null => {
  let used = points.map(({ p, h }) => {
    const [x, y] = local(origin, p);
    return { x, y, h };
  });
  if (used.length < LEAST_POINTS) return null;
  let level = (_x: number, _y: number): number => 0;
  let deviation = 0;
  for (let round = 0; round < TRIM_ROUNDS; round++) {
    const n = used.length;
    const mx = used.reduce((s, q) => s + q.x, 0) / n;
    const my = used.reduce((s, q) => s + q.y, 0) / n;
    const mh = used.reduce((s, q) => s + q.h, 0) / n;
    let [xx, yy, xy, xh, yh] = [0, 0, 0, 0, 0];
    for (const q of used) {
      const [dx, dy, dh] = [q.x - mx, q.y - my, q.h - mh];
      xx += dx * dx;
      yy += dy * dy;
      xy += dx * dy;
      xh += dx * dh;
      yh += dy * dh;
    }
    const det = xx * yy - xy * xy;
    const [gx, gy] = det > 1e-6 * (xx + yy) ** 2 ? [(xh * yy - yh * xy) / det, (yh * xx - xh * xy) / det] : [0, 0];
    level = (x, y) => mh + gx * (x - mx) + gy * (y - my);
    const off = used.map((q) => q.h - level(q.x, q.y));
    const sorted = off.map(Math.abs).sort((a, b) => a - b);
    deviation = Math.max(LEAST_DEVIATION_M, 1.4826 * sorted[sorted.length >> 1]!);
    const kept = used.filter((_, i) => off[i]! <= TRIM * deviation);
    if (kept.length === used.length || kept.length < LEAST_POINTS) break;
    used = kept;
  }
  return { at: (p) => level(...local(origin, p)), sigmaM: Math.hypot(deviation / Math.sqrt(used.length / 4), CELL_DOUBT * cellM) };
};

/** Ground under outlines on a surface model. */
export interface BareGround {
  readonly profile: GroundProfile;
  /** Ground under each body's middle and how well it is known; null where a surface model has no part in it. */
  readonly under: readonly ({ readonly baseAmslM: number; readonly sigmaM: number } | null)[];
}

interface Lifted {
  readonly outline: Outline;
  readonly safeM: number;
  readonly ground: (p: LatLon) => number;
  readonly sigmaM: number;
}

/**
 * @param samplers the datasets, finest first. @param outlines the outline of each standing body, in their order.
 */
export const bareGround = (
  ground: GroundProfile,
  frame: PathFrame,
  samplers: readonly GridSampler[],
  grids: readonly TerrainGrid[],
  standing: readonly Standing[],
  outlines: readonly (readonly LatLon[])[],
): BareGround => {
  const known = (p: LatLon): { grid: TerrainGrid; h: number } | null => {
    for (const { grid, at } of samplers) {
      const h = at(p);
      if (!Number.isNaN(h)) return { grid, h };
    }
    return null;
  };
  const earth = (p: LatLon): number => {
    for (const { grid, at } of samplers) {
      if (grid.kind !== "dtm") continue;
      const h = at(p);
      if (!Number.isNaN(h)) return h;
    }
    return Number.NaN;
  };
  const all = standing.map((b, i) => (isSpan(b.kind) || isPassing(b.kind) ? null : outlineOf(outlines[i]!)));
  const middleOf = (o: Outline): LatLon =>
    fromLocal(o.origin, o.east.reduce((a, b) => a + b, 0) / o.east.length, o.north.reduce((a, b) => a + b, 0) / o.north.length);
  const lifted = all.map((o): Lifted | null => {
    if (o === null) return null;
    const middle = middleOf(o);
    const there = known(middle);
    if (there === null || there.grid.kind !== "dsm") return null;
    const { cellM } = there.grid;
    const safeM = SAFE_CELLS * cellM + SAFE_M;
    if (!Number.isNaN(earth(middle))) return { outline: o, safeM, ground: earth, sigmaM: 0 };
    const near = all.filter((x): x is Outline => x !== null && x !== o && awayM(x, middle) < o.reachM * 2 + 4 * safeM);
    const points = RINGS.flatMap((k) => ringOf(o, k * safeM)).flatMap((p) => {
      const at = known(p);
      return at === null || near.some((x) => awayM(x, p) < safeM) ? [] : [{ p, h: at.h }];
    });
    const plane = planeThrough(o.origin, points, cellM);
    if (plane !== null) return { outline: o, safeM, ground: plane.at, sigmaM: plane.sigmaM };
    // Walled in by other outlines: the lowest of what there is.
    const lowest = Math.min(...RINGS.flatMap((k) => ringOf(o, k * safeM)).map((p) => known(p)?.h ?? Number.POSITIVE_INFINITY));
    return Number.isFinite(lowest) ? { outline: o, safeM, ground: () => lowest, sigmaM: cellM / 2 } : null;
  });
  const groundAmslM = Float64Array.from(ground.groundAmslM);
  const places = lifted.filter((l): l is Lifted => l !== null);
  if (places.length > 0) {
    for (let i = 0; i < groundAmslM.length; i++) {
      if (grids[ground.datasetIndex[i]!]?.kind !== "dsm") continue;
      const p = frame.at(ground.distanceM[i]!);
      let nearest: Lifted | null = null;
      let least = Number.POSITIVE_INFINITY;
      for (const l of places) {
        const away = awayM(l.outline, p);
        if (away < l.safeM && away < least) {
          least = away;
          nearest = l;
        }
      }
      const h = nearest?.ground(p) ?? Number.NaN;
      // Never above what the model has: a hollow stays one.
      if (!Number.isNaN(h)) groundAmslM[i] = least === 0 ? h : Math.min(groundAmslM[i]!, h);
    }
  }
  return {
    profile: { ...ground, groundAmslM },
    under: lifted.map((l) => (l === null ? null : { baseAmslM: l.ground(middleOf(l.outline)), sigmaM: l.sigmaM })),
  };
};
