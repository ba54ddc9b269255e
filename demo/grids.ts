import type { ObstacleInput } from "../src/core/link";
import { cutTile, type TerrainGrid } from "../src/core/terrain";
import type { DemoGrid, DemoJob } from "./generate";

const TILE_CELLS = 256;

/** A demo grid as the core samples it, tiles cut when first asked for. */
export const terrainGridOf = (g: DemoGrid, id: string): TerrainGrid => {
  const tiles = new Map<string, Float32Array>();
  return {
    id,
    name: g.name,
    kind: "dtm",
    crs: g.crs,
    originX: g.originX,
    originY: g.originY,
    stepX: g.cellM,
    stepY: -g.cellM,
    cols: g.cols,
    rows: g.rows,
    cellM: g.cellM,
    sigmaM: g.sigmaM,
    tileCells: TILE_CELLS,
    tile: (r, c) => {
      const key = `${r},${c}`;
      const held = tiles.get(key);
      if (held !== undefined) return held;
      const made = cutTile(g.values, g.cols, g.rows, TILE_CELLS, r, c);
      tiles.set(key, made);
      return made;
    },
  };
};

export const obstacleInputsOf = (demo: DemoJob, surveyedYear: number): ObstacleInput[] =>
  demo.obstacles.map((o, i) => ({ ...o, id: String(i), surveyedYear }));
