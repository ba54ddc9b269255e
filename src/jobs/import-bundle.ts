import { drizzle } from "drizzle-orm/node-postgres";
import type { PoolClient } from "pg";
import { type FieldsOf, latLons } from "../contract";
import { cutTile } from "../core/terrain";
import { insertJobRows } from "../data/bundle";
import type { Tx } from "../data/changes";
import { type Db, isTaken } from "../data/client";
import { copyInto, OBSTACLE_TABLE, obstacleLine } from "../data/copy";
import { beginAs } from "../data/guard";
import { addHardware } from "../data/hardware";
import { finishImport, groundChanged, type ImportRow, reportProgress } from "../data/imports";
import { type DatasetInput, insertDatasetRow, insertTiles, TILE_CELLS, type Tile } from "../data/terrain-store";
import { coordinateSystem, unpackTo } from "../formats";
import { MOST_ENTRIES, MOST_UNPACKED_BYTES } from "../service/bundle-format";
import { type OpenBundle, openBundle, openPart, type TerrainPart } from "../service/bundle-read";
import { goesOn } from "./goes-on";
import { Stopped } from "./stopped";

/** Writes one dataset, a row of tiles at a time, within the transaction of the whole. */
const takeTerrain = async (tx: Tx, part: TerrainPart, importId: string): Promise<void> => {
  const { file: _f, ...d } = part;
  const input: DatasetInput = { ...d, importId, crsDefinition: coordinateSystem(Number(d.crs.slice(5))).definition };
  await insertDatasetRow(tx, input, d.id);
  const source = await openPart(part);
  try {
    for (let tileRow = 0; tileRow * TILE_CELLS < d.rows - 1; tileRow++) {
      const top = tileRow * TILE_CELLS;
      const bottom = Math.min(d.rows, top + TILE_CELLS + 1);
      const band = await source.read(0, top, d.cols, bottom);
      for (let tileCol = 0; tileCol * TILE_CELLS < d.cols - 1; tileCol++) {
        const heightsM = cutTile(band, d.cols, bottom - top, TILE_CELLS, 0, tileCol);
        const tiles: Tile[] = heightsM.some((h) => !Number.isNaN(h)) ? [{ tileRow, tileCol, heightsM }] : [];
        await insertTiles(tx, d.id, tiles);
      }
      goesOn();
    }
  } finally {
    await source.close();
  }
};

/**
 * Takes a whole job in: the job, the terrain and the hardware that are not here yet, all in one transaction and as one
 * import, or nothing of it.
 */
export const importBundle = async (db: Db, client: PoolClient, row: ImportRow, asCopy: boolean, path: string): Promise<void> => {
  const unpacked = await unpackTo(path, `${path}.unpacked`, () => true, { entries: MOST_ENTRIES, bytes: MOST_UNPACKED_BYTES });
  const opened = await openBundle(db, unpacked, asCopy);
  if (!(await reportProgress(db, row, 0.2))) throw new Stopped();
  try {
    await bringIn(client, row, opened);
  } catch (error) {
    if (!isTaken(error)) throw error;
    // The same job is another firm's, whose rows are not there for this one: here it is a new one.
    await bringIn(client, row, await openBundle(db, unpacked, asCopy, true));
  }
};

/** Writes all that a bundle holds, in one transaction. */
const bringIn = async (client: PoolClient, row: ImportRow, opened: OpenBundle): Promise<void> => {
  await beginAs(client);
  try {
    const tx = drizzle(client) as unknown as Tx;
    await addHardware(tx, opened.hardware, row.id);
    const jobId = await insertJobRows(tx, opened.rows, opened.bytes);
    await copyInto(client, OBSTACLE_TABLE, async (write) => {
      let n = 0;
      for await (const o of opened.obstacles()) {
        const { outline, holes, ...fields } = o.values as FieldsOf<"obstacle">;
        await write(obstacleLine(jobId, null, o.id, { ...fields, outline: latLons(outline), holes: holes.map(latLons) }));
        if (++n % 1000 === 0) goesOn();
      }
    });
    for (const part of opened.terrain) await takeTerrain(tx, part, row.id);
    await finishImport(
      tx,
      row,
      { kept: opened.rows.records.filter((r) => r.kind === "site").length, refused: 0, faults: [], jobId, differing: opened.differing },
      jobId,
    );
    if (opened.terrain.length > 0) await groundChanged(tx);
    await client.query("COMMIT");
  } catch (error) {
    await client.query("ROLLBACK").catch(() => undefined);
    throw error;
  }
};
