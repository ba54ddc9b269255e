import { type LatLon, planeProjection } from "../core/geo";
import { bilinearSampler } from "../core/terrain";
import type { Db } from "../data/client";
import { gridsOver } from "../data/terrain-store";

/** Rows of positions handed to the tile search: enough that no tile between them is missed. */
const SEARCH_ROWS = 24;

export interface TerrainWindow {
  readonly heightsM: Float32Array;
  /** Names and cell sizes of what is in force, finest first. */
  readonly datasets: readonly { name: string; cellM: number; sigmaM: number }[];
}

/** A window of heights for the plan drawing: north row first, NaN where unknown, finest dataset first. */
export const terrainWindow = async (
  db: Db,
  input: { crs: string; x0: number; y0: number; stepM: number; cols: number; rows: number },
): Promise<TerrainWindow> => {
  const projection = planeProjection(input.crs);
  const lines: LatLon[][] = [];
  for (let s = 0; s <= SEARCH_ROWS; s++) {
    const y = input.y0 - (input.stepM * (input.rows - 1) * s) / SEARCH_ROWS;
    lines.push([projection.inverse(input.x0, y), projection.inverse(input.x0 + input.stepM * (input.cols - 1), y)]);
  }
  const grids = await gridsOver(db, lines);
  const heightsM = new Float32Array(input.cols * input.rows).fill(Number.NaN);
  for (const grid of grids) {
    const sample = bilinearSampler(grid);
    const other = grid.crs === input.crs ? null : planeProjection(grid.crs);
    for (let r = 0; r < input.rows; r++) {
      const y = input.y0 - r * input.stepM;
      for (let c = 0; c < input.cols; c++) {
        const at = r * input.cols + c;
        if (!Number.isNaN(heightsM[at]!)) continue;
        const x = input.x0 + c * input.stepM;
        const [gx, gy] = other === null ? [x, y] : other.forward(projection.inverse(x, y));
        heightsM[at] = sample(gx, gy);
      }
    }
  }
  return { heightsM, datasets: grids.map((g) => ({ name: g.name, cellM: g.cellM, sigmaM: g.sigmaM })) };
};
