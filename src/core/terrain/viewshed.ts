/*
 * What can be seen from a point over a window of surface heights: rays to every cell of the window's rim, each
 * cell taking the ray that passes nearest to its middle. The exact way, a ray of its own to one cell, is here too:
 * it proves the quick one and answers for single sites.
 */

/** Surface heights on a square grid, row by row, NaN where unknown. */
export interface SurfaceWindow {
  readonly surfaceAmslM: Float32Array;
  readonly cols: number;
  readonly rows: number;
  readonly stepM: number;
}

/** Column and row may lie between cells. */
export interface Viewpoint {
  readonly col: number;
  readonly row: number;
  readonly amslM: number;
}

/**
 * One ray over the window. Where it crosses a line of cells the surface is interpolated between the two nearest.
 * @param each called at every crossing with the flat index of the nearest cell, how far aside the ray passes (cells)
 *   and the height AMSL from which that place is seen; null when only the end is asked.
 * @returns height AMSL at the ray's end from which it is seen; -Infinity when nothing stands between, NaN behind unknown ground.
 */
const walkRay = (
  w: SurfaceWindow,
  from: Viewpoint,
  toCol: number,
  toRow: number,
  effectiveRadiusM: number,
  each: ((index: number, aside: number, neededAmslM: number) => void) | null,
): number => {
  const { surfaceAmslM: s, cols, rows, stepM } = w;
  const dCol = toCol - from.col;
  const dRow = toRow - from.row;
  const steep = Math.abs(dRow) > Math.abs(dCol);
  const main = steep ? dRow : dCol;
  if (main === 0) return Number.NEGATIVE_INFINITY;
  const side = steep ? dCol : dRow;
  const way = main > 0 ? 1 : -1;
  const main0 = steep ? from.row : from.col;
  const side0 = steep ? from.col : from.row;
  const mainEnd = steep ? toRow : toCol;
  const tilt = side / main;
  const perStepM = Math.sqrt(1 + tilt * tilt) * stepM;
  const mainStride = steep ? cols : 1;
  const sideStride = steep ? 1 : cols;
  const lastSide = (steep ? cols : rows) - 1;
  const half = 1 / (2 * effectiveRadiusM);
  let slope = Number.NEGATIVE_INFINITY;
  let m = way > 0 ? Math.floor(main0) + 1 : Math.ceil(main0) - 1;
  for (; way > 0 ? m <= mainEnd : m >= mainEnd; m += way) {
    const at = side0 + tilt * (m - main0);
    let low = Math.floor(at);
    if (low >= lastSide) low = Math.max(0, lastSide - 1);
    if (low < 0) low = 0;
    const share = at - low;
    const index = m * mainStride + low * sideStride;
    const a = s[index]!;
    const h = lastSide === 0 ? a : a + (s[index + sideStride]! - a) * share;
    const d = Math.abs(m - main0) * perStepM;
    const bulge = d * d * half;
    if (each !== null) {
      const nearer = share < 0.5 ? 0 : 1;
      each(
        index + nearer * sideStride,
        Math.abs(share - nearer),
        slope === Number.NEGATIVE_INFINITY ? slope : from.amslM + slope * d + bulge,
      );
    } else if (m === mainEnd) break;
    const own = (h - bulge - from.amslM) / d;
    // A comparison with NaN is false: the slope then stays, so unknown ground is carried on by itself.
    if (own > slope) slope = own;
    else if (Number.isNaN(own)) {
      slope = Number.NaN;
      if (each === null) return slope;
    }
  }
  const endM = Math.abs(main) * perStepM;
  return slope === Number.NEGATIVE_INFINITY ? slope : from.amslM + slope * endM + endM * endM * half;
};

/**
 * Height AMSL from which each cell of the window is seen; -Infinity beside the viewpoint, NaN behind unknown ground.
 * @param onProgress called now and then with the share done.
 * @throws RangeError when the viewpoint lies outside the window.
 */
export const viewshed = (
  w: SurfaceWindow,
  from: Viewpoint,
  effectiveRadiusM: number,
  onProgress: (share: number) => void = () => undefined,
): Float32Array => {
  const { cols, rows } = w;
  if (!(from.col >= 0 && from.row >= 0 && from.col <= cols - 1 && from.row <= rows - 1)) {
    throw new RangeError(`viewpoint ${from.col}, ${from.row} lies outside a window of ${cols} by ${rows} cells`);
  }
  const needed = new Float32Array(cols * rows).fill(Number.NaN);
  const aside = new Float32Array(cols * rows).fill(2);
  const take = (index: number, off: number, neededAmslM: number): void => {
    if (off >= aside[index]!) return;
    aside[index] = off;
    needed[index] = neededAmslM;
  };
  needed[Math.round(from.row) * cols + Math.round(from.col)] = Number.NEGATIVE_INFINITY;
  const rim = 2 * (cols + rows);
  const report = Math.max(1, rim >> 6);
  let done = 0;
  const ray = (toCol: number, toRow: number): void => {
    walkRay(w, from, toCol, toRow, effectiveRadiusM, take);
    if (++done % report === 0) onProgress(done / rim);
  };
  for (let c = 0; c < cols; c++) {
    ray(c, 0);
    ray(c, rows - 1);
  }
  for (let r = 0; r < rows; r++) {
    ray(0, r);
    ray(cols - 1, r);
  }
  return needed;
};

/** Height AMSL from which one place of the window is seen, by a ray of its own. */
export const neededAmslAt = (w: SurfaceWindow, from: Viewpoint, toCol: number, toRow: number, effectiveRadiusM: number): number =>
  walkRay(w, from, toCol, toRow, effectiveRadiusM, null);
