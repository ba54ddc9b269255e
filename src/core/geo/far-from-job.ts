import type { LatLon } from "./geodesic";
import { inverse } from "./geodesic";

/** A job reaches this far in any case, and three times as far as its places lie apart; no link is longer than the last (ours). */
const LEAST_REACH_M = 20_000;
const REACH_TIMES = 3;
const MOST_REACH_M = 100_000;

/** How far from a job's places a new one may lie before it is asked about. */
export const jobReachM = (known: readonly LatLon[]): number => {
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

/** @returns null for a position within the reach of a job's places, or when the job has none. */
export const farFromJob = (at: LatLon, known: readonly LatLon[]): FarPosition | null => {
  if (known.length === 0) return null;
  const nearestM = (p: LatLon): number => Math.min(...known.map((k) => inverse(p, k).distanceM));
  const reachM = jobReachM(known);
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
