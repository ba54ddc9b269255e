/** Where the cells of a grid lie. */
export interface GridFrame {
  readonly cols: number;
  readonly rows: number;
  /** Centre of the first cell, and the step from cell to cell, in the file's own system. */
  readonly originX: number;
  readonly originY: number;
  readonly stepX: number;
  readonly stepY: number;
}

/** A height file opened for reading in windows: nothing but its head is in memory. */
export interface TerrainSource extends GridFrame {
  readonly format: "GeoTIFF" | "HGT" | "ASCII grid";
  /** Null when the file does not say. */
  readonly epsg: number | null;
  readonly verticalUnit: "m" | "ft" | "us-ft" | null;
  readonly noData: number | null;
  /** Heights of a window, row by row, NaN where none. Bounds in cells, right and bottom excluded. */
  readonly read: (left: number, top: number, right: number, bottom: number) => Promise<Float32Array>;
  /** False when nothing of a window is in the file: it need not be read. */
  readonly holds?: (left: number, top: number, right: number, bottom: number) => boolean;
  readonly close: () => Promise<void>;
}

/** Heights beyond this are no heights on earth: an unset value or another band. */
export const HIGHEST_M = 30_000;

/** A raw value as a height: no-data and nonsense become NaN. */
export const heightOf = (value: number, noData: number | null): number =>
  value === noData || !(Math.abs(value) < HIGHEST_M) ? Number.NaN : value;
