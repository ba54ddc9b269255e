/** Steps that a reader counts in, metres. */
const STEPS_M = [0.25, 0.5, 1, 2, 5, 10, 20, 50, 100, 200] as const;
/** Over the whole relief in view no more lines than this; on the mean slope no closer than this (ours). */
const MOST_LINES = 16;
const LEAST_PX = 14;
/** Cells looked at, at most. */
const LOOKED_AT = 20_000;

/**
 * Step between contours that follows the relief in view: flat land keeps its lines, a mountain is not filled with them.
 * @param heightsM row by row, NaN where unknown; @param cellM side of a cell; @param metresPerPx scale of the drawing.
 * @returns metres.
 */
export const contourStepM = (heightsM: Float32Array, cols: number, cellM: number, metresPerPx: number): number => {
  const stride = Math.max(1, Math.floor(heightsM.length / LOOKED_AT));
  let least = Number.POSITIVE_INFINITY;
  let most = Number.NEGATIVE_INFINITY;
  let slopes = 0;
  let count = 0;
  for (let i = 0; i + cols < heightsM.length; i += stride) {
    const h = heightsM[i]!;
    if (!Number.isFinite(h)) continue;
    if (h < least) least = h;
    if (h > most) most = h;
    const dx = heightsM[i + 1]! - h;
    const dy = heightsM[i + cols]! - h;
    if ((i + 1) % cols === 0 || !Number.isFinite(dx) || !Number.isFinite(dy)) continue;
    slopes += Math.hypot(dx, dy) / cellM;
    count++;
  }
  const relief = most > least ? most - least : 0;
  const wanted = Math.max(relief / MOST_LINES, count === 0 ? 0 : (slopes / count) * metresPerPx * LEAST_PX);
  return STEPS_M.find((s) => s >= wanted) ?? STEPS_M[STEPS_M.length - 1]!;
};
