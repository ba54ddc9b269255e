import type { TerrainOptions } from "../contract";
import { cutTile } from "../core/terrain";
import type { Db } from "../data/client";
import { finishImport, groundChanged, type ImportRow, reportProgress } from "../data/imports";
import { insertDatasetRow, insertTiles, setDatasetReady, TILE_CELLS, type Tile, unfinishedDataset } from "../data/terrain-store";
import { cellMetres, coordinateSystem, FileFault, openTerrain } from "../formats";
import { metresOf } from "../service/import-rows";
import { goesOn } from "./goes-on";
import { Stopped } from "./stopped";

/** Cells read at a time: 24 MB of heights, whatever the width of the file. */
const CELLS_AT_ONCE = 6_000_000;

/**
 * Brings a height file in, a row of tiles at a time. The dataset stays hidden until the last tile is written, so a
 * worker that dies leaves nothing visible; the next one goes on after the tiles that are there.
 */
export const importTerrain = async (db: Db, row: ImportRow, options: TerrainOptions, path: string): Promise<void> => {
  const source = await openTerrain(path, row.fileName);
  try {
    const epsg = options.epsg ?? source.epsg;
    if (epsg === null) throw new FileFault("it names no coordinate system, and none was said", "crs");
    const system = coordinateSystem(epsg);
    const { cols, rows } = source;
    let open = await unfinishedDataset(db, row.id);
    if (open === null) {
      const id = await insertDatasetRow(db, {
        name: options.name,
        kind: options.kind,
        crs: system.crs,
        crsDefinition: system.definition,
        originX: source.originX,
        originY: source.originY,
        stepX: source.stepX,
        stepY: source.stepY,
        cols,
        rows,
        cellM: cellMetres(system, source.stepY),
        sigmaM: options.sigmaM,
        verticalDatum: options.verticalDatum,
        datumOffsetM: options.datumOffsetM,
        verticalUnit: options.verticalUnit,
        source: row.fileName,
        ready: false,
        importId: row.id,
      });
      open = { id, tileRows: 0 };
    }
    const perM = metresOf(1, options.verticalUnit);
    const tileRows = Math.ceil((rows - 1) / TILE_CELLS);
    const tileCols = Math.ceil((cols - 1) / TILE_CELLS);
    const colsAtOnce = Math.max(1, Math.floor(CELLS_AT_ONCE / (TILE_CELLS + 1) / TILE_CELLS));
    const started = performance.now();
    let known = 0;
    // The last row that has tiles may lack some of them.
    const first = Math.max(0, open.tileRows - 1);
    for (let tileRow = first; tileRow < tileRows; tileRow++) {
      const top = tileRow * TILE_CELLS;
      const bottom = Math.min(rows, top + TILE_CELLS + 1);
      for (let from = 0; from < tileCols; from += colsAtOnce) {
        const left = from * TILE_CELLS;
        const right = Math.min(cols, (from + colsAtOnce) * TILE_CELLS + 1);
        goesOn();
        if (source.holds?.(left, top, right, bottom) === false) continue;
        const heights = await source.read(left, top, right, bottom);
        for (let i = 0; i < heights.length; i++) {
          if (Number.isNaN(heights[i]!)) continue;
          known++;
          heights[i] = heights[i]! * perM + options.datumOffsetM;
        }
        const tiles: Tile[] = [];
        for (let c = 0; c < colsAtOnce && from + c < tileCols; c++) {
          const heightsM = cutTile(heights, right - left, bottom - top, TILE_CELLS, 0, c);
          // A tile without a single height says nothing that its absence does not say.
          if (heightsM.some((h) => !Number.isNaN(h))) tiles.push({ tileRow, tileCol: from + c, heightsM });
        }
        for (let i = 0; i < tiles.length; i += 4) await insertTiles(db, open.id, tiles.slice(i, i + 4));
      }
      if (!(await reportProgress(db, row, (tileRow + 1) / tileRows))) throw new Stopped();
    }
    if (known === 0 && first === 0) throw new FileFault("it holds no height at all");
    const seconds = (performance.now() - started) / 1000;
    const megabytes = ((tileRows - first) / tileRows) * ((cols * rows * 4) / 1e6);
    const { id } = open;
    await db.transaction(async (tx) => {
      await setDatasetReady(tx, id);
      await finishImport(tx, row, { kept: cols * rows, refused: 0, faults: [], mbPerS: Math.round(megabytes / seconds) });
      await groundChanged(tx);
    });
  } finally {
    await source.close();
  }
};
