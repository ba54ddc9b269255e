import { and, eq, inArray, isNull, sql } from "drizzle-orm";
import { LRUCache } from "lru-cache";
import { type LatLon, planeProjection } from "../core/geo";
import { cutTile, type TerrainGrid } from "../core/terrain";
import { Refused } from "./clash";
import type { Db } from "./client";
import { NO_FIRM, terrainDataset, terrainTile } from "./schema-shared";

export type DatasetRow = typeof terrainDataset.$inferSelect;

/** Tiles kept in memory, over all datasets: 257 x 257 floats are 264 kB, so 400 are about 105 MB. */
const held = new LRUCache<string, Float32Array>({ max: 400 });

const floats = (bytes: Buffer): Float32Array => {
  const copy = new Uint8Array(bytes);
  return new Float32Array(copy.buffer, 0, copy.byteLength / 4);
};

/** Cells about each step of the walk that are asked for. */
const REACH_CELLS = 16;

/** What a dataset's coordinates are in, as the core takes it. */
const systemOf = (d: DatasetRow): string => d.crsDefinition ?? d.crs;

/** @param between also the tiles that a line from point to point crosses. */
const tilesNeeded = (d: DatasetRow, points: readonly LatLon[], aroundCells: number, between = true): [number, number][] => {
  const projection = planeProjection(systemOf(d));
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
    if (!Number.isFinite(here[0]) || !Number.isFinite(here[1])) {
      last = null;
      continue;
    }
    if (last !== null && between) {
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
    else out.set(`${r},${c}`, tile);
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
      held.set(`${d.id}/${d.version}/${row.tileRow}/${row.tileCol}`, tile);
      out.set(`${row.tileRow},${row.tileCol}`, tile);
    }
  }
  return out;
};

const gridOf = (d: DatasetRow, tiles: ReadonlyMap<string, Float32Array>): TerrainGrid => ({
  id: d.id,
  name: d.name,
  kind: d.kind === "dsm" ? "dsm" : "dtm",
  crs: systemOf(d),
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

/** Ground of the firm of whoever works, and ground that ships. */
const ofFirm = sql`${terrainDataset.organisationId} IN ((SELECT own_organisation()), ${NO_FIRM})`;

/** Datasets whose coverage touches a box, finest first. */
export const datasetsIn = (db: Db, box: { westDeg: number; southDeg: number; eastDeg: number; northDeg: number }): Promise<DatasetRow[]> =>
  db
    .select()
    .from(terrainDataset)
    .where(
      and(
        isNull(terrainDataset.deletedAt),
        eq(terrainDataset.ready, true),
        ofFirm,
        sql`${terrainDataset.coverage} && ST_MakeEnvelope(${box.westDeg}, ${box.southDeg}, ${box.eastDeg}, ${box.northDeg}, 4326)`,
      ),
    )
    .orderBy(terrainDataset.cellM, terrainDataset.id);

/** Grids ready to be sampled along a line of positions, with only the tiles it crosses. */
export const gridsAlong = async (db: Db, points: readonly LatLon[]): Promise<TerrainGrid[]> => {
  const lats = points.map((p) => p.latDeg);
  const lons = points.map((p) => p.lonDeg);
  const box = { westDeg: Math.min(...lons), southDeg: Math.min(...lats), eastDeg: Math.max(...lons), northDeg: Math.max(...lats) };
  const datasets = await datasetsIn(db, box);
  return Promise.all(datasets.map(async (d) => gridOf(d, await loadTiles(db, d, tilesNeeded(d, points, REACH_CELLS)))));
};

const boxOf = (points: readonly LatLon[]) => {
  let [westDeg, southDeg, eastDeg, northDeg] = [180, 90, -180, -90];
  for (const p of points) {
    if (!Number.isFinite(p.latDeg) || !Number.isFinite(p.lonDeg)) continue;
    westDeg = Math.min(westDeg, p.lonDeg);
    eastDeg = Math.max(eastDeg, p.lonDeg);
    southDeg = Math.min(southDeg, p.latDeg);
    northDeg = Math.max(northDeg, p.latDeg);
  }
  return { westDeg, southDeg, eastDeg, northDeg };
};

/** Ends work that nobody waits for any more, or that took too long. */
const refuseLeft = (signal: AbortSignal | undefined): void => {
  if (signal?.aborted === true) throw new Refused("too-long", "window");
};

/** Points whose tiles are in memory at a time. */
const POINTS_AT_ONCE = 50;

/**
 * Looks at places some at a time, each with the grids that know it, however far apart they lie.
 * @param look called for each place with the grids about it, finest first.
 */
export const eachPlace = async (
  db: Db,
  points: readonly LatLon[],
  look: (index: number, grids: readonly TerrainGrid[]) => void,
  signal?: AbortSignal,
): Promise<void> => {
  const datasets = await datasetsIn(db, boxOf(points));
  for (let i = 0; i < points.length; i += POINTS_AT_ONCE) {
    refuseLeft(signal);
    const part = points.slice(i, i + POINTS_AT_ONCE);
    const grids: TerrainGrid[] = [];
    for (const d of datasets) {
      const wanted = tilesNeeded(d, part, 1, false);
      if (wanted.length > 0) grids.push(gridOf(d, await loadTiles(db, d, wanted)));
    }
    part.forEach((_p, k) => {
      look(i + k, grids);
    });
  }
};

/** Tiles that a window may take: some 100 MB. */
const MOST_WINDOW_TILES = 400;

/**
 * Grids for a window of positions: every tile that it touches.
 * @param lattice positions spread evenly over the window.
 * @returns also the datasets that are too fine for so wide a window.
 */
export const gridsOver = async (
  db: Db,
  lattice: readonly LatLon[],
  signal?: AbortSignal,
): Promise<{ grids: TerrainGrid[]; leftOut: readonly DatasetRow[] }> => {
  const grids: TerrainGrid[] = [];
  const leftOut: DatasetRow[] = [];
  let room = MOST_WINDOW_TILES;
  for (const d of await datasetsIn(db, boxOf(lattice))) {
    refuseLeft(signal);
    const range = tileRange(d, lattice);
    if (range === null) continue;
    const count = (range.bottom - range.top + 1) * (range.right - range.left + 1);
    if (count > room) {
      leftOut.push(d);
      continue;
    }
    room -= count;
    const wanted: [number, number][] = [];
    for (let r = range.top; r <= range.bottom; r++) for (let c = range.left; c <= range.right; c++) wanted.push([r, c]);
    grids.push(gridOf(d, await loadTiles(db, d, wanted)));
  }
  return { grids, leftOut };
};

/** First and last row and column of tiles that an even spread of positions covers; null when none. */
const tileRange = (d: DatasetRow, lattice: readonly LatLon[]): { top: number; bottom: number; left: number; right: number } | null => {
  const projection = planeProjection(systemOf(d));
  let [west, east, north, south] = [Number.POSITIVE_INFINITY, Number.NEGATIVE_INFINITY, Number.POSITIVE_INFINITY, Number.NEGATIVE_INFINITY];
  for (const p of lattice) {
    const [x, y] = projection.forward(p);
    const col = (x - d.originX) / d.stepX;
    const row = (y - d.originY) / d.stepY;
    if (!Number.isFinite(col) || !Number.isFinite(row)) continue;
    west = Math.min(west, col);
    east = Math.max(east, col);
    north = Math.min(north, row);
    south = Math.max(south, row);
  }
  if (!(east >= -1 && west <= d.cols && south >= -1 && north <= d.rows)) return null;
  const tile = (cell: number, size: number): number => Math.floor(Math.min(size - 1, Math.max(0, cell)) / d.tileCells);
  return { top: tile(north - 1, d.rows), bottom: tile(south + 1, d.rows), left: tile(west - 1, d.cols), right: tile(east + 1, d.cols) };
};

export const TILE_CELLS = 256;

export type DatasetInput = Omit<typeof terrainDataset.$inferInsert, "tileCells" | "coverage" | "id">;

/** Points along each side of the grid: a side that is straight in its own system is bent in degrees. */
const SIDE_POINTS = 16;

/** The area a grid covers, as a polygon in degrees. */
const coverageText = (input: DatasetInput): string => {
  const projection = planeProjection(input.crsDefinition ?? input.crs);
  const [c, r] = [input.cols - 1, input.rows - 1];
  const corners = [
    [0, 0],
    [c, 0],
    [c, r],
    [0, r],
    [0, 0],
  ] as const;
  const ring: string[] = [];
  for (let side = 0; side < 4; side++) {
    const [a, b] = [corners[side]!, corners[side + 1]!];
    for (let i = 0; i < SIDE_POINTS; i++) {
      const t = i / SIDE_POINTS;
      const p = projection.inverse(
        input.originX + (a[0] + (b[0] - a[0]) * t) * input.stepX,
        input.originY + (a[1] + (b[1] - a[1]) * t) * input.stepY,
      );
      ring.push(`${p.lonDeg} ${p.latDeg}`);
    }
  }
  return `POLYGON((${[...ring, ring[0]!].join(",")}))`;
};

export const insertDatasetRow = async (db: Pick<Db, "insert">, input: DatasetInput, id?: string): Promise<string> => {
  const inserted = await db
    .insert(terrainDataset)
    .values({
      ...input,
      ...(id === undefined ? {} : { id }),
      tileCells: TILE_CELLS,
      coverage: sql`ST_GeomFromText(${coverageText(input)}, 4326)`,
    })
    .returning({ id: terrainDataset.id });
  return inserted[0]!.id;
};

export interface Tile {
  readonly tileRow: number;
  readonly tileCol: number;
  readonly heightsM: Float32Array;
}

/** Writes tiles; one that is there already (a worker was stopped after writing it) stays. */
export const insertTiles = async (db: Pick<Db, "insert">, datasetId: string, tiles: readonly Tile[]): Promise<void> => {
  if (tiles.length === 0) return;
  await db
    .insert(terrainTile)
    .values(
      tiles.map((t) => ({
        datasetId,
        tileRow: t.tileRow,
        tileCol: t.tileCol,
        heightsM: Buffer.from(t.heightsM.buffer, t.heightsM.byteOffset, t.heightsM.byteLength),
      })),
    )
    .onConflictDoNothing();
};

/** Stores a dense grid as overlapping tiles. */
export const insertDataset = async (db: Db, input: DatasetInput, values: Float32Array): Promise<string> =>
  db.transaction(async (tx) => {
    const datasetId = await insertDatasetRow(tx, input);
    for (let tileRow = 0; tileRow * TILE_CELLS < input.rows - 1; tileRow++) {
      for (let tileCol = 0; tileCol * TILE_CELLS < input.cols - 1; tileCol++) {
        await insertTiles(tx, datasetId, [
          { tileRow, tileCol, heightsM: cutTile(values, input.cols, input.rows, TILE_CELLS, tileRow, tileCol) },
        ]);
      }
    }
    return datasetId;
  });

/** The dataset an import was writing when it was interrupted, and how many of its tile rows are whole. */
export const unfinishedDataset = async (db: Db, importId: string): Promise<{ id: string; tileRows: number } | null> => {
  const [row] = await db.select({ id: terrainDataset.id }).from(terrainDataset).where(eq(terrainDataset.importId, importId));
  if (row === undefined) return null;
  const [last] = await db
    .select({ tileRows: sql<number>`coalesce(max(${terrainTile.tileRow}), -1)::int + 1` })
    .from(terrainTile)
    .where(eq(terrainTile.datasetId, row.id));
  return { id: row.id, tileRows: last?.tileRows ?? 0 };
};

export const setDatasetReady = (db: Pick<Db, "update">, datasetId: string): Promise<unknown> =>
  db.update(terrainDataset).set({ ready: true }).where(eq(terrainDataset.id, datasetId));

/** Takes away what an import that was stopped or failed had written of its dataset. */
export const dropUnfinished = (db: Db, importId: string): Promise<void> =>
  db.transaction(async (tx) => {
    const mine = and(eq(terrainDataset.importId, importId), eq(terrainDataset.ready, false));
    const rows = await tx.select({ id: terrainDataset.id }).from(terrainDataset).where(mine);
    for (const { id } of rows) await tx.delete(terrainTile).where(eq(terrainTile.datasetId, id));
    await tx.delete(terrainDataset).where(mine);
  });

/** What terrain there is, with the area each covers as a ring of longitude, latitude. */
export const datasetsCovering = async (
  db: Db,
  box: { westDeg: number; southDeg: number; eastDeg: number; northDeg: number },
): Promise<(DatasetRow & { ring: [number, number][] })[]> => {
  const rows = await datasetsIn(db, box);
  const rings = await db.execute<{ id: string; ring: string }>(
    sql`SELECT id, ST_AsGeoJSON(coverage, 7) AS ring FROM terrain_dataset WHERE deleted_at IS NULL AND ready`,
  );
  const byId = new Map(rings.rows.map((r) => [r.id, (JSON.parse(r.ring) as { coordinates: [number, number][][] }).coordinates[0] ?? []]));
  return rows.map((r) => ({ ...r, ring: byId.get(r.id) ?? [] }));
};

/** Tiles of a dataset, row by row, for writing it out. */
export const tilesOf = async (db: Db, datasetId: string, tileRow: number): Promise<{ tileCol: number; heightsM: Float32Array }[]> => {
  const rows = await db
    .select()
    .from(terrainTile)
    .where(and(eq(terrainTile.datasetId, datasetId), eq(terrainTile.tileRow, tileRow)))
    .orderBy(terrainTile.tileCol);
  return rows.map((r) => ({ tileCol: r.tileCol, heightsM: floats(r.heightsM) }));
};

/** Datasets by their ids, whatever their state. */
export const datasetsById = (db: Db, ids: readonly string[]): Promise<DatasetRow[]> =>
  ids.length === 0
    ? Promise.resolve([])
    : db
        .select()
        .from(terrainDataset)
        .where(and(inArray(terrainDataset.id, [...ids]), ofFirm));
