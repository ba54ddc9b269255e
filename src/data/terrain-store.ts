import { and, eq, inArray, isNull, sql } from "drizzle-orm";
import { type LatLon, planeProjection } from "../core/geo";
import { cutTile, type TerrainGrid } from "../core/terrain";
import type { Db } from "./client";
import { terrainDataset, terrainTile } from "./schema";

type DatasetRow = typeof terrainDataset.$inferSelect;

/** Tiles kept in memory, over all datasets: 257 x 257 floats are 264 kB, so 400 are about 105 MB. */
const TILES_HELD = 400;
const held = new Map<string, Float32Array>();

const hold = (key: string, tile: Float32Array): void => {
  held.set(key, tile);
  if (held.size > TILES_HELD) held.delete(held.keys().next().value!);
};

const floats = (bytes: Buffer): Float32Array => {
  const copy = new Uint8Array(bytes);
  return new Float32Array(copy.buffer, 0, copy.byteLength / 4);
};

/** Cells about each step of the walk that are asked for. */
const REACH_CELLS = 16;

const tilesNeeded = (d: DatasetRow, points: readonly LatLon[], aroundCells: number): [number, number][] => {
  const projection = planeProjection(d.crs);
  const wanted = new Set<string>();
  const add = (x: number, y: number): void => {
    const col = (x - d.originX) / d.stepX;
    const row = (y - d.originY) / d.stepY;
    for (const dc of [-aroundCells, aroundCells]) {
      for (const dr of [-aroundCells, aroundCells]) {
        const c = Math.floor(Math.min(d.cols - 1, Math.max(0, col + dc)) / d.tileCells);
        const r = Math.floor(Math.min(d.rows - 1, Math.max(0, row + dr)) / d.tileCells);
        if (col + dc >= -1 && row + dr >= -1 && col + dc <= d.cols && row + dr <= d.rows) wanted.add(`${r},${c}`);
      }
    }
  };
  // Between two given points the line is walked in steps no longer than the reach about each step, so that no
  // tile is missed whose corner the line cuts.
  const walk = Math.abs(d.stepX) * aroundCells;
  let last: [number, number] | null = null;
  for (const p of points) {
    const here = projection.forward(p);
    if (last !== null) {
      const steps = Math.ceil(Math.hypot(here[0] - last[0], here[1] - last[1]) / walk);
      for (let s = 1; s < steps; s++) add(last[0] + ((here[0] - last[0]) * s) / steps, last[1] + ((here[1] - last[1]) * s) / steps);
    }
    add(here[0], here[1]);
    last = here;
  }
  return [...wanted].map((k) => k.split(",").map(Number) as [number, number]);
};

const loadTiles = async (db: Db, d: DatasetRow, wanted: readonly [number, number][]): Promise<Map<string, Float32Array>> => {
  const out = new Map<string, Float32Array>();
  const missing: [number, number][] = [];
  for (const [r, c] of wanted) {
    const key = `${d.id}/${d.version}/${r}/${c}`;
    const tile = held.get(key);
    if (tile === undefined) missing.push([r, c]);
    else {
      // Used again: to the young end of the queue.
      held.delete(key);
      held.set(key, tile);
      out.set(`${r},${c}`, tile);
    }
  }
  for (let i = 0; i < missing.length; i += 64) {
    const part = missing.slice(i, i + 64);
    const rows = await db
      .select()
      .from(terrainTile)
      .where(
        and(
          eq(terrainTile.datasetId, d.id),
          inArray(
            sql`(${terrainTile.tileRow} || ',' || ${terrainTile.tileCol})`,
            part.map(([r, c]) => `${r},${c}`),
          ),
        ),
      );
    for (const row of rows) {
      const tile = floats(row.heightsM);
      hold(`${d.id}/${d.version}/${row.tileRow}/${row.tileCol}`, tile);
      out.set(`${row.tileRow},${row.tileCol}`, tile);
    }
  }
  return out;
};

const gridOf = (d: DatasetRow, tiles: ReadonlyMap<string, Float32Array>): TerrainGrid => ({
  id: d.id,
  name: d.name,
  kind: d.kind === "dsm" ? "dsm" : "dtm",
  crs: d.crs,
  originX: d.originX,
  originY: d.originY,
  stepX: d.stepX,
  stepY: d.stepY,
  cols: d.cols,
  rows: d.rows,
  cellM: d.cellM,
  sigmaM: d.sigmaM,
  tileCells: d.tileCells,
  tile: (r, c) => tiles.get(`${r},${c}`),
});

/** Datasets whose coverage touches a box, finest first. */
export const datasetsIn = (db: Db, box: { westDeg: number; southDeg: number; eastDeg: number; northDeg: number }): Promise<DatasetRow[]> =>
  db
    .select()
    .from(terrainDataset)
    .where(
      and(
        isNull(terrainDataset.deletedAt),
        sql`${terrainDataset.coverage} && ST_MakeEnvelope(${box.westDeg}, ${box.southDeg}, ${box.eastDeg}, ${box.northDeg}, 4326)`,
      ),
    )
    .orderBy(terrainDataset.cellM);

/** Grids ready to be sampled along a line of positions, with only the tiles it crosses. */
export const gridsAlong = async (db: Db, points: readonly LatLon[]): Promise<TerrainGrid[]> => {
  const lats = points.map((p) => p.latDeg);
  const lons = points.map((p) => p.lonDeg);
  const box = { westDeg: Math.min(...lons), southDeg: Math.min(...lats), eastDeg: Math.max(...lons), northDeg: Math.max(...lats) };
  const datasets = await datasetsIn(db, box);
  return Promise.all(datasets.map(async (d) => gridOf(d, await loadTiles(db, d, tilesNeeded(d, points, REACH_CELLS)))));
};

/** Grids for a small box of positions: every tile the box touches. */
export const gridsOver = async (db: Db, rows: readonly (readonly LatLon[])[]): Promise<TerrainGrid[]> => {
  const points = rows.flat();
  const lats = points.map((p) => p.latDeg);
  const lons = points.map((p) => p.lonDeg);
  const box = { westDeg: Math.min(...lons), southDeg: Math.min(...lats), eastDeg: Math.max(...lons), northDeg: Math.max(...lats) };
  const datasets = await datasetsIn(db, box);
  return Promise.all(
    datasets.map(async (d) => {
      const wanted = new Map<string, [number, number]>();
      for (const line of rows) for (const t of tilesNeeded(d, line, REACH_CELLS)) wanted.set(t.join(), t);
      return gridOf(d, await loadTiles(db, d, [...wanted.values()]));
    }),
  );
};

const TILE_CELLS = 256;

/** Stores a dense grid as overlapping tiles. */
export const insertDataset = async (
  db: Db,
  input: Omit<typeof terrainDataset.$inferInsert, "tileCells" | "coverage">,
  values: Float32Array,
): Promise<string> => {
  const projection = planeProjection(input.crs);
  const corner = (c: number, r: number): string => {
    const p = projection.inverse(input.originX + c * input.stepX, input.originY + r * input.stepY);
    return `${p.lonDeg} ${p.latDeg}`;
  };
  const [c, r] = [input.cols - 1, input.rows - 1];
  const ring = [corner(0, 0), corner(c, 0), corner(c, r), corner(0, r), corner(0, 0)].join(",");
  return db.transaction(async (tx) => {
    const inserted = await tx
      .insert(terrainDataset)
      .values({ ...input, tileCells: TILE_CELLS, coverage: sql`ST_GeomFromText(${`POLYGON((${ring}))`}, 4326)` })
      .returning({ id: terrainDataset.id });
    const datasetId = inserted[0]!.id;
    for (let tileRow = 0; tileRow * TILE_CELLS < input.rows - 1; tileRow++) {
      for (let tileCol = 0; tileCol * TILE_CELLS < input.cols - 1; tileCol++) {
        const tile = cutTile(values, input.cols, input.rows, TILE_CELLS, tileRow, tileCol);
        await tx.insert(terrainTile).values({ datasetId, tileRow, tileCol, heightsM: Buffer.from(tile.buffer) });
      }
    }
    return datasetId;
  });
};
