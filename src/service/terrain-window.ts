import { setImmediate } from "node:timers/promises";
import { type LatLon, planeProjection } from "../core/geo";
import { bilinearSampler } from "../core/terrain";
import { Refused } from "../data/clash";
import type { Db } from "../data/client";
import { gridsOver } from "../data/terrain-store";

/** Positions each way that the tiles are looked for with. */
const LATTICE = 24;
/** Rows worked out before others get their turn. */
const ROWS_AT_ONCE = 32;

export interface TerrainWindow {
  readonly heightsM: Float32Array;
  /** Names and cell sizes of what is in force, finest first; what is too fine for so wide a window is named as left out. */
  readonly datasets: readonly { name: string; cellM: number; sigmaM: number; leftOut: boolean }[];
}

/** A window of heights for the plan drawing: north row first, NaN where unknown, finest dataset first. */
export const terrainWindow = async (
  db: Db,
  input: { crs: string; x0: number; y0: number; stepM: number; cols: number; rows: number },
  signal?: AbortSignal,
): Promise<TerrainWindow> => {
  const projection = planeProjection(input.crs);
  const lattice: LatLon[] = [];
  for (let r = 0; r <= LATTICE; r++)
    for (let c = 0; c <= LATTICE; c++)
      lattice.push(
        projection.inverse(
          input.x0 + (input.stepM * (input.cols - 1) * c) / LATTICE,
          input.y0 - (input.stepM * (input.rows - 1) * r) / LATTICE,
        ),
      );
  const { grids, leftOut } = await gridsOver(db, lattice, signal);
  const heightsM = new Float32Array(input.cols * input.rows).fill(Number.NaN);
  for (const grid of grids) {
    const sample = bilinearSampler(grid);
    const other = grid.crs === input.crs ? null : planeProjection(grid.crs);
    for (let r = 0; r < input.rows; r++) {
      if (r % ROWS_AT_ONCE === 0) {
        await setImmediate();
        if (signal?.aborted === true) throw new Refused("too-long", "window");
      }
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
  const named = (g: { name: string; cellM: number; sigmaM: number }, out: boolean) => ({
    name: g.name,
    cellM: g.cellM,
    sigmaM: g.sigmaM,
    leftOut: out,
  });
  return { heightsM, datasets: [...grids.map((g) => named(g, false)), ...leftOut.map((d) => named(d, true))] };
};
