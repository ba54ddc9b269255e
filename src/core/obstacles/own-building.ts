import { axisStretches, type PathBody } from "./body";

/** How far off its wall a mount is taken when only a place inside the outline was given (ours). */
export const WALL_OFFSET_M = 0.3;

/**
 * Where an end really stands: a mount given inside its building's outline and below the roof is taken
 * where the ray leaves the outline, plus the wall offset.
 * @returns distance from the given point along the path, 0 when the mount stands free, and the carrier's name.
 */
export const effectiveEnd = (
  bodies: readonly PathBody[],
  end: "near" | "far",
  pathM: number,
  mountAmslM: number,
): { shiftM: number; wallOf: string | null } => {
  let shiftM = 0;
  let wallOf: string | null = null;
  for (const body of bodies) {
    if (body.carries !== end || mountAmslM >= body.baseAmslM + body.heightM) continue;
    for (const s of axisStretches(body.xM, body.yM)) {
      const inside = end === "near" ? s.fromM <= 0 && s.toM > 0 : s.toM >= pathM && s.fromM < pathM;
      if (!inside) continue;
      const outM = (end === "near" ? s.toM : pathM - s.fromM) + WALL_OFFSET_M;
      if (outM > shiftM && outM < pathM / 2) {
        shiftM = outM;
        wallOf = body.name;
      }
    }
  }
  return { shiftM, wallOf };
};
