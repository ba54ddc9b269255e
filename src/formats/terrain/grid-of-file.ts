import { type LatLon, planeProjection } from "../../core/geo";
import { cutTile, type TerrainGrid } from "../../core/terrain";
import { coordinateSystem } from "../epsg";
import { FileFault } from "../file-fault";
import { openTerrain } from "./open-terrain";

const TILE_CELLS = 256;
/** Largest window held in memory: 100 MB of heights. */
const MOST_CELLS = 25_000_000;
const MARGIN_CELLS = 3;
const METRES_PER_DEGREE = 111_195;

/** Standard error of heights by cell size when nobody says: lidar, national grid, global grid. */
export const sigmaOfCell = (cellM: number): number => (cellM <= 3 ? 0.15 : cellM <= 15 ? 1.5 : 4);

/** Metres a unit of a definition stands for. */
const metresPerUnit = (definition: string): number => {
  const given = /\+to_meter=([\d.]+)/.exec(definition);
  if (given !== null) return Number(given[1]);
  return /\+units=us-ft/.test(definition) ? 1200 / 3937 : /\+units=ft/.test(definition) ? 0.3048 : 1;
};

/** Ground size of a cell, by its step north. */
export const cellMetres = (system: { geographic: boolean; definition: string | null }, stepY: number): number =>
  Math.abs(stepY) * (system.geographic ? METRES_PER_DEGREE : metresPerUnit(system.definition ?? ""));

/**
 * The part of a height file about some positions, as a grid the core samples.
 * @param epsg the system, where the file does not name it.
 * @returns null when no position lies in the file.
 * @throws FileFault with the reason, when the file cannot be used.
 */
export const gridFromTerrainFile = async (
  path: string,
  about: readonly LatLon[],
  epsg: number | null = null,
): Promise<TerrainGrid | null> => {
  let source: Awaited<ReturnType<typeof openTerrain>>;
  try {
    source = await openTerrain(path, path);
  } catch (error) {
    throw error instanceof FileFault ? new FileFault(`${path}: ${error.message}`) : new FileFault(`${path} cannot be opened`);
  }
  try {
    const code = source.epsg ?? epsg;
    if (code === null) throw new FileFault(`${path} names no coordinate system; write one into it first`);
    const system = coordinateSystem(code);
    const crs = system.definition ?? system.crs;
    const projection = planeProjection(crs);
    const cells = about.map((p) => {
      const [x, y] = projection.forward(p);
      return { col: (x - source.originX) / source.stepX, row: (y - source.originY) / source.stepY };
    });
    const within = (values: number[], size: number): [number, number] => [
      Math.max(0, Math.floor(Math.min(...values)) - MARGIN_CELLS),
      Math.min(size, Math.ceil(Math.max(...values)) + MARGIN_CELLS + 1),
    ];
    const [left, right] = within(
      cells.map((c) => c.col),
      source.cols,
    );
    const [top, bottom] = within(
      cells.map((c) => c.row),
      source.rows,
    );
    const cols = right - left;
    const rows = bottom - top;
    if (cols < 2 || rows < 2) return null;
    if (cols * rows > MOST_CELLS)
      throw new FileFault(`the part of ${path} along this path has ${cols} x ${rows} cells; at most ${MOST_CELLS} are read`);
    const values = await source.read(left, top, right, bottom);
    const cellM = cellMetres(system, source.stepY);
    const tiles = new Map<string, Float32Array>();
    return {
      id: path,
      name: path,
      kind: "dtm",
      crs,
      originX: source.originX + left * source.stepX,
      originY: source.originY + top * source.stepY,
      stepX: source.stepX,
      stepY: source.stepY,
      cols,
      rows,
      cellM,
      sigmaM: sigmaOfCell(cellM),
      tileCells: TILE_CELLS,
      tile: (r, c) => {
        const key = `${r},${c}`;
        let tile = tiles.get(key);
        if (tile === undefined) {
          tile = cutTile(values, cols, rows, TILE_CELLS, r, c);
          tiles.set(key, tile);
        }
        return tile;
      },
    };
  } finally {
    await source.close();
  }
};
