import type { Approach } from "./clearance";
import { f1RadiusM, type Ray, rayBulgeM, rayZM, shareOfPoint } from "./ray";

/** Ground across the path at each place: the axis and lines beside it, made once for a path. */
export interface PreparedSide {
  /** Rising, right positive, the axis (0) among them. */
  readonly offsetsM: readonly number[];
  readonly linesAmslM: readonly Float64Array[];
  /** Highest ground beside each place; -Infinity where none is known. */
  readonly topAmslM: Float64Array;
}

/** In the plane across the path the zone is nearly a circle about the ray: this much wider covers what that leaves out. */
const CIRCLE_EXCESS = 1.1;
/** Ground nearer to the axis than this is the ground under it. */
const LEAST_ASIDE_M = 0.01;

export const prepareSide = (
  side: { readonly offsetsM: Float64Array; readonly groundAmslM: readonly Float64Array[] },
  axisAmslM: Float64Array,
): PreparedSide => {
  const topAmslM = new Float64Array(axisAmslM.length).fill(Number.NEGATIVE_INFINITY);
  for (const line of side.groundAmslM) for (let i = 0; i < line.length; i++) if (line[i]! > topAmslM[i]!) topAmslM[i] = line[i]!;
  const left = side.offsetsM.findIndex((y) => y > 0);
  const lines = [...side.groundAmslM];
  lines.splice(left, 0, axisAmslM);
  const offsetsM = [...side.offsetsM];
  offsetsM.splice(left, 0, 0);
  return { offsetsM, linesAmslM: lines, topAmslM };
};

/**
 * Nearest approach of ground that slopes across the path, if it comes nearer than the ground under the axis.
 * At each place the ground is a line of straight pieces from offset to offset; the point of them nearest to the ray
 * is the one of the least share.
 * @param under nearest approach of the ground under the axis; when that ground stops the ray it is the answer.
 */
export const sideApproach = (ray: Ray, distanceM: Float64Array, side: PreparedSide, under: Approach | null): Approach | null => {
  if (under !== null && under.share < 0) return under;
  const { offsetsM, linesAmslM, topAmslM } = side;
  let best = under;
  let leastShare = under?.share ?? Number.POSITIVE_INFINITY;
  for (let i = 0; i < distanceM.length; i++) {
    const x = distanceM[i]!;
    const f1M = f1RadiusM(ray, x);
    if (f1M <= 0) continue;
    const bulgeM = rayBulgeM(ray, x);
    const rayAmslM = rayZM(ray, x) - bulgeM;
    if (!(rayAmslM - topAmslM[i]! < CIRCLE_EXCESS * leastShare * f1M)) continue;
    let nearestM2 = Number.POSITIVE_INFINITY;
    let nearestY = 0;
    let nearestZ = 0;
    for (let j = 1; j < offsetsM.length; j++) {
      const ya = offsetsM[j - 1]!;
      const za = linesAmslM[j - 1]![i]!;
      const dy = offsetsM[j]! - ya;
      const dz = linesAmslM[j]![i]! - za;
      if (Number.isNaN(dz)) continue;
      const t = Math.min(1, Math.max(0, (-ya * dy + (rayAmslM - za) * dz) / (dy * dy + dz * dz)));
      const y = ya + t * dy;
      const z = za + t * dz;
      const m2 = y * y + (rayAmslM - z) ** 2;
      if (m2 < nearestM2) {
        nearestM2 = m2;
        nearestY = y;
        nearestZ = z;
      }
    }
    if (nearestM2 === Number.POSITIVE_INFINITY || Math.abs(nearestY) < LEAST_ASIDE_M) continue;
    const share = shareOfPoint(ray, x, nearestY, nearestZ + bulgeM);
    if (share >= leastShare) continue;
    leastShare = share;
    const downM = Math.abs(rayAmslM - nearestZ);
    const way = Math.abs(nearestY) > downM ? (nearestY < 0 ? "left" : "right") : "over";
    best = { share, atM: x, acrossM: nearestY, zAmslM: nearestZ, side: way, f1M };
  }
  return best;
};
