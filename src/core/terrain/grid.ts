/**
 * A height grid in its own coordinate system, cut in tiles that overlap by one row and one column,
 * so that each bilinear cell lies wholly in one tile.
 */
export interface TerrainGrid {
  readonly id: string;
  readonly name: string;
  /** Bare earth (dtm) and surface (dsm) are different kinds and never blended. */
  readonly kind: "dtm" | "dsm";
  readonly crs: string;
  /** Position of the sample in column 0, row 0; units of the coordinate system. */
  readonly originX: number;
  readonly originY: number;
  /** Step from column to column and row to row; negative stepY where rows run southward. */
  readonly stepX: number;
  readonly stepY: number;
  readonly cols: number;
  readonly rows: number;
  /** Ground size of a cell, for step and correlation lengths. */
  readonly cellM: number;
  /** Standard error of its heights. */
  readonly sigmaM: number;
  /** Cells along a tile's edge; a tile holds (tileCells + 1) squared samples, NaN where none. */
  readonly tileCells: number;
  readonly tile: (tileRow: number, tileCol: number) => Float32Array | undefined;
}

/**
 * A sampler over one grid: height in metres by bilinear interpolation at (x, y) in the grid's own
 * coordinates; NaN outside it or beside a hole. It remembers the last tile, so calls along a line are cheap.
 */
export const bilinearSampler = (grid: TerrainGrid): ((x: number, y: number) => number) => {
  const { originX, originY, tileCells, cols, rows } = grid;
  const invStepX = 1 / grid.stepX;
  const invStepY = 1 / grid.stepY;
  const stride = tileCells + 1;
  const lastCol = cols - 1;
  const lastRow = rows - 1;
  // First row and column of the tile held; far outside at first.
  let firstRow = 1 << 29;
  let firstCol = 0;
  let held: Float32Array | undefined;
  return (x, y) => {
    const colF = (x - originX) * invStepX;
    const rowF = (y - originY) * invStepY;
    if (!(colF >= 0 && rowF >= 0 && colF <= lastCol && rowF <= lastRow)) return Number.NaN;
    let col = colF | 0;
    let row = rowF | 0;
    if (col === lastCol && col > 0) col--;
    if (row === lastRow && row > 0) row--;
    let r = row - firstRow;
    let c = col - firstCol;
    if (r < 0 || c < 0 || r >= tileCells || c >= tileCells) {
      const tileRow = (row / tileCells) | 0;
      const tileCol = (col / tileCells) | 0;
      held = grid.tile(tileRow, tileCol);
      firstRow = tileRow * tileCells;
      firstCol = tileCol * tileCells;
      r = row - firstRow;
      c = col - firstCol;
    }
    if (held === undefined) return Number.NaN;
    const at = r * stride + c;
    const fx = colF - col;
    const fy = rowF - row;
    const nw = held[at] as number;
    const sw = held[at + stride] as number;
    const top = nw + ((held[at + 1] as number) - nw) * fx;
    const bottom = sw + ((held[at + stride + 1] as number) - sw) * fx;
    return top + (bottom - top) * fy;
  };
};

/** Cuts a dense grid (row by row) into overlapping tiles; NaN pads the far edges. */
export const cutTile = (
  values: Float32Array,
  cols: number,
  rows: number,
  tileCells: number,
  tileRow: number,
  tileCol: number,
): Float32Array => {
  const stride = tileCells + 1;
  const out = new Float32Array(stride * stride).fill(Number.NaN);
  const firstRow = tileRow * tileCells;
  const firstCol = tileCol * tileCells;
  const width = Math.min(stride, cols - firstCol);
  const height = Math.min(stride, rows - firstRow);
  for (let r = 0; r < height; r++) {
    const from = (firstRow + r) * cols + firstCol;
    out.set(values.subarray(from, from + width), r * stride);
  }
  return out;
};
