import { sql } from "drizzle-orm";
import type { Db } from "./client";

/** Smaller than this in both directions a body is no more than a speck; pixels. */
const LEAST_PX = 1.2;
/** Units of a tile's own coordinates along its side, and how far beyond its edge outlines go on. */
const UNITS = 4096;
const BEYOND = 64;

/**
 * Obstacles of a job within a square of a plane, as one Mapbox vector tile (specification 2.1): layer "obstacle", with id, kind and name of each.
 * @param srid the plane's EPSG number; @param boxDeg a box in degrees that holds the square.
 */
export const obstacleTile = async (
  db: Db,
  jobId: string,
  srid: number,
  square: { readonly west: number; readonly south: number; readonly sideM: number },
  boxDeg: { readonly westDeg: number; readonly southDeg: number; readonly eastDeg: number; readonly northDeg: number },
  metresPerPx: number,
): Promise<Buffer> => {
  const { west, south, sideM } = square;
  const bounds = sql`ST_MakeEnvelope(${west}, ${south}, ${west + sideM}, ${south + sideM}, ${srid})`;
  const leastDeg = (LEAST_PX * metresPerPx) / 111_320;
  const lonScale = Math.cos((((boxDeg.southDeg + boxDeg.northDeg) / 2) * Math.PI) / 180);
  const r = await db.execute<{ tile: Buffer }>(sql`
    SELECT ST_AsMVT(drawn, 'obstacle', ${UNITS}::int, 'shape') AS tile FROM (
      SELECT o.id::text AS id, o.kind, o.name,
        ST_AsMVTGeom(ST_Transform(o.outline, ${srid}::int), ${bounds}, ${UNITS}::int, ${BEYOND}::int, true) AS shape
      FROM obstacle o
      WHERE o.job_id = ${jobId} AND o.deleted_at IS NULL
        AND o.outline && ST_MakeEnvelope(${boxDeg.westDeg}, ${boxDeg.southDeg}, ${boxDeg.eastDeg}, ${boxDeg.northDeg}, 4326)
        AND (ST_YMax(o.outline) - ST_YMin(o.outline) >= ${leastDeg} OR (ST_XMax(o.outline) - ST_XMin(o.outline)) * ${lonScale} >= ${leastDeg})
    ) AS drawn WHERE shape IS NOT NULL`);
  return r.rows[0]!.tile;
};
