import { RAD_PER_DEG } from "../units";
import type { LatLon } from "./geodesic";
import { inverse } from "./geodesic";

/** A job reaches this far in any case, and three times as far as its places lie apart; no link is longer than the last (ours). */
const LEAST_REACH_M = 20_000;
const REACH_TIMES = 3;
const MOST_REACH_M = 100_000;

/** More places than this are judged by their extent. */
const MANY = 60;

/** How far from a job's places a new one may lie before it is asked about. */
export const jobReachM = (known: readonly LatLon[]): number => {
  if (known.length > MANY) return Math.min(MOST_REACH_M, Math.max(LEAST_REACH_M, REACH_TIMES * inverse(...extentOf(known)).distanceM));
  let widestM = 0;
  for (let i = 0; i < known.length; i++)
    for (let j = i + 1; j < known.length; j++) widestM = Math.max(widestM, inverse(known[i]!, known[j]!).distanceM);
  return Math.min(MOST_REACH_M, Math.max(LEAST_REACH_M, REACH_TIMES * widestM));
};

export interface FarPosition {
  /** From the nearest place of the job. */
  readonly distanceM: number;
  /** The same figures with a sign left out, or the two exchanged, where that lies within the job's reach. */
  readonly meant: LatLon | null;
}

const extentOf = (known: readonly LatLon[]): [LatLon, LatLon] => {
  const lats = known.map((p) => p.latDeg);
  const lons = known.map((p) => p.lonDeg);
  return [
    { latDeg: Math.min(...lats), lonDeg: Math.min(...lons) },
    { latDeg: Math.max(...lats), lonDeg: Math.max(...lons) },
  ];
};

/**
 * The same for many positions in a row, which may be what first says how far the job reaches: only what no link could
 * come from is far. What lies between the job's places, or so far beside them, is near without a look at each of them.
 */
export const farFromPlaces = (known: readonly LatLon[]): ((at: LatLon) => FarPosition | null) => {
  if (known.length === 0) return () => null;
  const [south, north] = extentOf(known);
  const latDeg = MOST_REACH_M / METRES_PER_DEGREE;
  const lonDeg = latDeg / Math.max(0.02, Math.cos(north.latDeg * RAD_PER_DEG), Math.cos(south.latDeg * RAD_PER_DEG));
  const some = known.length <= MANY ? known : known.filter((_p, i) => i % Math.ceil(known.length / MANY) === 0);
  return (at) =>
    at.latDeg >= south.latDeg - latDeg &&
    at.latDeg <= north.latDeg + latDeg &&
    at.lonDeg >= south.lonDeg - lonDeg &&
    at.lonDeg <= north.lonDeg + lonDeg
      ? null
      : farFromJob(at, some, MOST_REACH_M);
};

const METRES_PER_DEGREE = 111_195;

/** @returns null for a position within the reach of a job's places, or when the job has none. */
export const farFromJob = (at: LatLon, known: readonly LatLon[], reachM = jobReachM(known)): FarPosition | null => {
  if (known.length === 0) return null;
  const nearestM = (p: LatLon): number => Math.min(...known.map((k) => inverse(p, k).distanceM));
  const distanceM = nearestM(at);
  if (distanceM <= reachM) return null;
  const { latDeg, lonDeg } = at;
  const slips: LatLon[] = [
    { latDeg, lonDeg: -lonDeg },
    { latDeg: -latDeg, lonDeg },
    { latDeg: -latDeg, lonDeg: -lonDeg },
    ...(Math.abs(lonDeg) <= 90 ? [1, -1].flatMap((a) => [1, -1].map((b) => ({ latDeg: a * lonDeg, lonDeg: b * latDeg }))) : []),
  ];
  return { distanceM, meant: slips.filter((p) => nearestM(p) <= reachM).sort((a, b) => nearestM(a) - nearestM(b))[0] ?? null };
};
