import { MAX_PROFILE_POINTS } from "./limits";

/**
 * Which points of a profile to keep so that at most `limit` remain (ours). Points that must stay are the ends,
 * those marked, and every local maximum of ground plus bulge; of the others those in the coarsest
 * stretches go first.
 * @param heightWithBulgeM ground plus earth bulge; NaN is always kept.
 * @param mustKeep marks obstacle edges.
 * @returns indices kept, rising, or null when nothing needs to go.
 */
export const thinnedIndices = (
  distanceM: Float64Array,
  heightWithBulgeM: Float64Array,
  mustKeep: Uint8Array,
  limit = MAX_PROFILE_POINTS,
): Uint32Array | null => {
  const n = distanceM.length;
  if (n <= limit) return null;
  const removable: number[] = [];
  for (let i = 1; i < n - 1; i++) {
    const h = heightWithBulgeM[i]!;
    const peak = !(h <= heightWithBulgeM[i - 1]! || h <= heightWithBulgeM[i + 1]!);
    if (mustKeep[i] === 0 && !peak && !Number.isNaN(h)) removable.push(i);
  }
  const gapM = (i: number): number => distanceM[i + 1]! - distanceM[i - 1]!;
  removable.sort((a, b) => gapM(b) - gapM(a) || (a % 2) - (b % 2) || a - b);
  const gone = new Uint8Array(n);
  const excess = Math.min(n - limit, removable.length);
  for (let i = 0; i < excess; i++) gone[removable[i]!] = 1;
  const kept = new Uint32Array(n - excess);
  let k = 0;
  for (let i = 0; i < n; i++) if (gone[i] === 0) kept[k++] = i;
  return kept;
};
