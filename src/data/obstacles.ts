import { sql } from "drizzle-orm";
import type { LatLon } from "../core/geo";
import type { FeatureInput, ObstacleInput } from "../core/link";
import type { Db } from "./client";

export interface ObstacleRow extends ObstacleInput {
  readonly species: string | null;
  readonly source: string;
}

interface RawObstacle extends Record<string, unknown> {
  id: string;
  name: string;
  kind: ObstacleInput["kind"];
  outline: string;
  base_amsl_m: number;
  height_m: number;
  crown_base_m: number;
  growth_m_per_year: number;
  height_sigma_m: number;
  species: string | null;
  source: string;
  surveyed_year: number;
}

const ring = (json: string): LatLon[] => {
  const { coordinates } = JSON.parse(json) as { coordinates: [number, number][][] };
  return (coordinates[0] ?? []).slice(0, -1).map(([lonDeg, latDeg]) => ({ latDeg, lonDeg }));
};

const fromRaw = (r: RawObstacle): ObstacleRow => ({
  id: r.id,
  name: r.name,
  kind: r.kind,
  outline: ring(r.outline),
  baseAmslM: r.base_amsl_m,
  heightM: r.height_m,
  crownBaseM: r.crown_base_m,
  growthMPerYear: r.growth_m_per_year,
  heightSigmaM: r.height_sigma_m,
  surveyedYear: r.surveyed_year,
  species: r.species,
  source: r.source,
});

const COLUMNS = sql`o.id, o.name, o.kind, ST_AsGeoJSON(o.outline, 9) AS outline, o.base_amsl_m, o.height_m,
  o.crown_base_m, o.growth_m_per_year, o.height_sigma_m, o.species, o.source,
  extract(year from o.surveyed_on)::int AS surveyed_year`;

const MOST_ROWS = 20_000;

export const obstaclesOf = async (
  db: Db,
  jobId: string,
  box: { westDeg: number; southDeg: number; eastDeg: number; northDeg: number },
): Promise<ObstacleRow[]> => {
  const r = await db.execute<RawObstacle>(sql`
    SELECT ${COLUMNS} FROM obstacle o
    WHERE o.job_id = ${jobId} AND o.deleted_at IS NULL
      AND o.outline && ST_MakeEnvelope(${box.westDeg}, ${box.southDeg}, ${box.eastDeg}, ${box.northDeg}, 4326)
    ORDER BY o.id LIMIT ${MOST_ROWS}`);
  return r.rows.map(fromRaw);
};

/**
 * Obstacles within a distance of a path. The path is cut into short boxes, each answered by the index,
 * so that a long diagonal does not fetch half a county.
 * @param points the path as positions in order; @param reachDeg half width of the corridor in degrees (latitude, longitude).
 */
export const obstaclesAlong = async (
  db: Db,
  jobId: string,
  points: readonly LatLon[],
  reachDeg: { latDeg: number; lonDeg: number },
): Promise<ObstacleRow[]> => {
  const boxes = points.slice(1).map((b, i) => {
    const a = points[i]!;
    return sql`ST_MakeEnvelope(${Math.min(a.lonDeg, b.lonDeg) - reachDeg.lonDeg}::float8, ${Math.min(a.latDeg, b.latDeg) - reachDeg.latDeg}::float8,
      ${Math.max(a.lonDeg, b.lonDeg) + reachDeg.lonDeg}::float8, ${Math.max(a.latDeg, b.latDeg) + reachDeg.latDeg}::float8, 4326)`;
  });
  const r = await db.execute<RawObstacle>(sql`
    SELECT DISTINCT ON (o.id) ${COLUMNS}
    FROM unnest(ARRAY[${sql.join(boxes, sql`, `)}]) AS box(shape)
    JOIN obstacle o ON o.outline && box.shape
    WHERE o.job_id = ${jobId} AND o.deleted_at IS NULL
    ORDER BY o.id LIMIT ${MOST_ROWS}`);
  return r.rows.map(fromRaw);
};

export const featuresOf = async (db: Db, jobId: string): Promise<(FeatureInput & { id: string })[]> => {
  const r = await db.execute<{ id: string; name: string; shape: string }>(
    sql`SELECT id, name, ST_AsGeoJSON(shape, 9) AS shape FROM feature WHERE job_id = ${jobId} AND deleted_at IS NULL ORDER BY name`,
  );
  return r.rows.map((row) => {
    const shape = JSON.parse(row.shape) as { type: string; coordinates: [number, number] | [number, number][] };
    const list = (shape.type === "Point" ? [shape.coordinates] : shape.coordinates) as [number, number][];
    return { id: row.id, name: row.name, points: list.map(([lonDeg, latDeg]) => ({ latDeg, lonDeg })) };
  });
};

const polygonText = (outline: readonly LatLon[]): string => {
  const points = [...outline, outline[0]!].map((p) => `${p.lonDeg} ${p.latDeg}`);
  return `POLYGON((${points.join(",")}))`;
};

export const insertObstacles = async (
  db: Db,
  jobId: string,
  rows: readonly (Omit<ObstacleRow, "id" | "surveyedYear"> & { surveyedOn: string })[],
): Promise<void> => {
  for (let i = 0; i < rows.length; i += 500) {
    const chunk = rows.slice(i, i + 500).map(
      (o) => sql`(${jobId}, ${o.name}, ${o.kind}, ST_GeomFromText(${polygonText(o.outline)}, 4326), ${o.baseAmslM}, ${o.heightM},
        ${o.crownBaseM}, ${o.growthMPerYear}, ${o.heightSigmaM}, ${o.species}, ${o.source}, ${o.surveyedOn})`,
    );
    await db.execute(sql`INSERT INTO obstacle (job_id, name, kind, outline, base_amsl_m, height_m, crown_base_m,
      growth_m_per_year, height_sigma_m, species, source, surveyed_on) VALUES ${sql.join(chunk, sql`, `)}`);
  }
};

export const insertFeatures = async (db: Db, jobId: string, rows: readonly FeatureInput[]): Promise<void> => {
  for (const f of rows) {
    const list = f.points.map((p) => `${p.lonDeg} ${p.latDeg}`);
    const text = list.length === 1 ? `POINT(${list[0]})` : `LINESTRING(${list.join(",")})`;
    await db.execute(sql`INSERT INTO feature (job_id, name, shape) VALUES (${jobId}, ${f.name}, ST_GeomFromText(${text}, 4326))`);
  }
};
