import { RAD_PER_DEG } from "../units";
import { destination, inverse, type LatLon } from "./geodesic";

/** Corners of a round crown or mast. */
const ROUND_CORNERS = 12;

/** A round outline about a point. */
export const circleAbout = (centre: LatLon, radiusM: number, corners = ROUND_CORNERS): LatLon[] =>
  Array.from({ length: corners }, (_, i) => destination(centre, (360 * i) / corners, radiusM));

/** Sharp bends are cut off at this many half widths. */
const MITRE_LIMIT = 3;

/** A line widened to an outline, its bends mitred: a hedge, a row, an overhead line's corridor. @throws RangeError for fewer than two points. */
export const widenLine = (points: readonly LatLon[], widthM: number): LatLon[] => {
  if (points.length < 2) throw new RangeError(`a line of ${points.length} points has no width`);
  const legs = points.slice(1).map((b, i) => inverse(points[i]!, b).azimuthAtADeg);
  const side = (sign: 1 | -1): LatLon[] =>
    points.map((p, i) => {
      const before = legs[Math.max(0, i - 1)]!;
      const after = legs[Math.min(legs.length - 1, i)]!;
      const turnDeg = ((after - before + 540) % 360) - 180;
      const reach = Math.min(MITRE_LIMIT, 1 / Math.max(1e-6, Math.cos((turnDeg / 2) * RAD_PER_DEG)));
      return destination(p, before + turnDeg / 2 + sign * 90, (widthM / 2) * reach);
    });
  return [...side(1), ...side(-1).reverse()];
};

/**
 * Points along a line, or round an outline, at equal steps: its corners are not all among them.
 * @param most the step grows so that no more than these are given.
 */
export const pointsAlong = (points: readonly LatLon[], closed: boolean, stepM: number, most: number): LatLon[] => {
  const corners = closed && points.length > 2 ? [...points, points[0]!] : points;
  const legs = corners.slice(1).map((b, i) => ({ from: corners[i]!, to: inverse(corners[i]!, b) }));
  const totalM = legs.reduce((sum, l) => sum + l.to.distanceM, 0);
  if (totalM <= 0) return points.slice(0, 1);
  const n = Math.max(1, Math.min(most - 1, Math.ceil(totalM / stepM)));
  const out: LatLon[] = [];
  let leg = 0;
  let beforeM = 0;
  for (let i = 0; i < (closed ? n : n + 1); i++) {
    const atM = (totalM * i) / n;
    while (leg < legs.length - 1 && atM > beforeM + legs[leg]!.to.distanceM) beforeM += legs[leg++]!.to.distanceM;
    const { from, to } = legs[leg]!;
    out.push(destination(from, to.azimuthAtADeg, atM - beforeM));
  }
  return out;
};

/** Area of an outline in square metres, on the plane that touches the earth at its first corner. */
export const areaM2 = (outline: readonly LatLon[]): number => {
  const [first] = outline;
  if (first === undefined) return 0;
  const flat = outline.map((p) => {
    const v = inverse(first, p);
    return [v.distanceM * Math.sin(v.azimuthAtADeg * RAD_PER_DEG), v.distanceM * Math.cos(v.azimuthAtADeg * RAD_PER_DEG)] as const;
  });
  let twice = 0;
  flat.forEach(([x, y], i) => {
    const [u, v] = flat[(i + 1) % flat.length]!;
    twice += x * v - u * y;
  });
  return Math.abs(twice) / 2;
};

/**
 * An outline cut along a straight line from one point to another, both outside it.
 * @returns two outlines, or null when the line does not cross the outline exactly twice.
 */
export const cutInTwo = (outline: readonly LatLon[], from: LatLon, to: LatLon): [LatLon[], LatLon[]] | null => {
  const dx = to.lonDeg - from.lonDeg;
  const dy = to.latDeg - from.latDeg;
  const side = (p: LatLon): number => dx * (p.latDeg - from.latDeg) - dy * (p.lonDeg - from.lonDeg);
  const first: LatLon[] = [];
  const second: LatLon[] = [];
  let now = first;
  let crossings = 0;
  outline.forEach((a, i) => {
    const b = outline[(i + 1) % outline.length]!;
    now.push(a);
    const [sa, sb] = [side(a), side(b)];
    if (sa > 0 === sb > 0) return;
    const t = sa / (sa - sb);
    const cut = { latDeg: a.latDeg + t * (b.latDeg - a.latDeg), lonDeg: a.lonDeg + t * (b.lonDeg - a.lonDeg) };
    // Along the cutting line the crossing must lie between its ends.
    const along = ((cut.lonDeg - from.lonDeg) * dx + (cut.latDeg - from.latDeg) * dy) / (dx * dx + dy * dy);
    if (along < 0 || along > 1) return;
    crossings++;
    now.push(cut);
    now = now === first ? second : first;
    now.push(cut);
  });
  return crossings === 2 && first.length >= 3 && second.length >= 3 ? [first, second] : null;
};

/** True when a position lies inside an outline, even-odd, on the plane of degrees: right for anything not about a pole. */
export const insideOutline = (p: LatLon, outline: readonly LatLon[]): boolean => {
  let odd = false;
  outline.forEach((a, i) => {
    const b = outline[(i + 1) % outline.length]!;
    const crosses = a.latDeg > p.latDeg !== b.latDeg > p.latDeg;
    if (crosses && p.lonDeg < a.lonDeg + ((b.lonDeg - a.lonDeg) * (p.latDeg - a.latDeg)) / (b.latDeg - a.latDeg)) odd = !odd;
  });
  return odd;
};

/** Pairs of edges looked at before an outline counts as tangled: no outline of a real thing comes near. */
const MOST_PAIRS = 5_000_000;

/**
 * True when edges of an outline cross one another, on the plane of degrees. Corners that touch an edge do not count.
 * An outline too tangled to be looked through counts as crossing.
 */
export const crossesItself = (outline: readonly LatLon[]): boolean => {
  const n = outline.length;
  const edges = outline.map((a, i) => {
    const b = outline[(i + 1) % n]!;
    return { i, a, b, west: Math.min(a.lonDeg, b.lonDeg), east: Math.max(a.lonDeg, b.lonDeg) };
  });
  edges.sort((p, q) => p.west - q.west);
  const turn = (p: LatLon, q: LatLon, r: LatLon): number =>
    Math.sign((q.lonDeg - p.lonDeg) * (r.latDeg - p.latDeg) - (q.latDeg - p.latDeg) * (r.lonDeg - p.lonDeg));
  let pairs = 0;
  for (let k = 0; k < n; k++) {
    const e = edges[k]!;
    for (let m = k + 1; m < n && edges[m]!.west <= e.east; m++) {
      const f = edges[m]!;
      if (++pairs > MOST_PAIRS) return true;
      const apart = Math.abs(e.i - f.i);
      if (apart === 1 || apart === n - 1) continue;
      if (turn(e.a, e.b, f.a) * turn(e.a, e.b, f.b) < 0 && turn(f.a, f.b, e.a) * turn(f.a, f.b, e.b) < 0) return true;
    }
  }
  return false;
};

/**
 * A line with no more points than asked: those nearer than a distance to the last one kept go, the distance doubled
 * until few enough are left. Its ends stay. No point left out lies farther than that from one that is kept.
 */
export const thinLine = (points: readonly LatLon[], most: number): { points: LatLon[]; apartM: number } => {
  let apartM = 1;
  for (;;) {
    const kept: LatLon[] = [];
    for (const p of points) {
      const last = kept[kept.length - 1];
      if (last === undefined || metresApart(last, p) >= apartM) kept.push(p);
    }
    const end = points[points.length - 1]!;
    if (kept[kept.length - 1] !== end) kept.push(end);
    if (kept.length <= most) return { points: kept, apartM };
    apartM *= 2;
  }
};

const METRES_PER_DEGREE = 111_195;
/** On the plane that touches the earth there: for points near one another. */
const metresApart = (a: LatLon, b: LatLon): number =>
  METRES_PER_DEGREE * Math.hypot(b.latDeg - a.latDeg, (b.lonDeg - a.lonDeg) * Math.cos(a.latDeg * RAD_PER_DEG));

/**
 * An outline and its courtyards as one ring, each courtyard joined by a bridge that is walked both ways: by even-odd a
 * place in a courtyard is outside, and nothing on the bridge is nearer than the walls beside it.
 */
export const asOneRing = (outline: readonly LatLon[], holes: readonly (readonly LatLon[])[]): readonly LatLon[] => {
  let ring = [...outline];
  for (const hole of holes) {
    let [at, from] = [0, 0];
    let bestM = Number.POSITIVE_INFINITY;
    for (let i = 0; i < ring.length; i++)
      for (let k = 0; k < hole.length; k++) {
        const d = metresApart(ring[i]!, hole[k]!);
        if (d < bestM) [bestM, at, from] = [d, i, k];
      }
    const turned = clockwise(hole) === clockwise(outline) ? [...hole].reverse() : [...hole];
    const start = turned.indexOf(hole[from]!);
    const loop = [...turned.slice(start), ...turned.slice(0, start), hole[from]!];
    ring = [...ring.slice(0, at + 1), ...loop, ring[at]!, ...ring.slice(at + 1)];
  }
  return ring;
};

const clockwise = (ring: readonly LatLon[]): boolean => {
  let twice = 0;
  ring.forEach((p, i) => {
    const q = ring[(i + 1) % ring.length]!;
    twice += p.lonDeg * q.latDeg - q.lonDeg * p.latDeg;
  });
  return twice < 0;
};
