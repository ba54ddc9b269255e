/** What stands on the ground, as its outline in cells of a window and its top. */
export interface RasterBody {
  /** Outline in columns and rows of the window; it closes itself. */
  readonly cols: readonly number[];
  readonly rows: readonly number[];
  /** Null: it stands on the ground beneath each cell. */
  readonly baseAmslM: number | null;
  readonly heightM: number;
}

/**
 * Raises a surface to the tops of bodies, in place. A cell counts when its middle lies inside the outline
 * (even-odd); a body too small to hold any middle raises the cell nearest to its own.
 */
export const raiseSurface = (surfaceAmslM: Float32Array, cols: number, rows: number, bodies: readonly RasterBody[]): void => {
  const lift = (index: number, b: RasterBody): void => {
    const ground = surfaceAmslM[index]!;
    const top = (b.baseAmslM ?? ground) + b.heightM;
    if (top > ground) surfaceAmslM[index] = top;
  };
  const crossings: number[] = [];
  for (const b of bodies) {
    const n = b.cols.length;
    if (n < 3) continue;
    let touched = false;
    // Heights above the ground must not add up where a cell is met twice, so each body lifts a cell once.
    const first = Math.max(0, Math.ceil(Math.min(...b.rows)));
    const last = Math.min(rows - 1, Math.floor(Math.max(...b.rows)));
    for (let r = first; r <= last; r++) {
      crossings.length = 0;
      for (let i = 0; i < n; i++) {
        const j = (i + 1) % n;
        const ra = b.rows[i]!;
        const rb = b.rows[j]!;
        if (ra > r !== rb > r) crossings.push(b.cols[i]! + ((b.cols[j]! - b.cols[i]!) * (r - ra)) / (rb - ra));
      }
      crossings.sort((p, q) => p - q);
      for (let k = 0; k + 1 < crossings.length; k += 2) {
        const to = Math.min(cols - 1, Math.floor(crossings[k + 1]!));
        for (let c = Math.max(0, Math.ceil(crossings[k]!)); c <= to; c++) {
          touched = true;
          lift(r * cols + c, b);
        }
      }
    }
    if (touched) continue;
    const c = Math.round(b.cols.reduce((sum, v) => sum + v, 0) / n);
    const r = Math.round(b.rows.reduce((sum, v) => sum + v, 0) / n);
    if (c >= 0 && r >= 0 && c < cols && r < rows) lift(r * cols + c, b);
  }
};
