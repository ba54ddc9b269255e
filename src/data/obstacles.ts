import { sql } from "drizzle-orm";
import WKB from "ol/format/WKB.js";
import type Polygon from "ol/geom/Polygon.js";
import type { LatLon } from "../core/geo";
import type { FeatureInput, ObstacleInput } from "../core/link";
import type { Db } from "./client";
import { NO_FIRM } from "./schema-shared";

export interface ObstacleRow extends ObstacleInput {
  readonly holes: readonly (readonly LatLon[])[];
  readonly species: string | null;
  readonly leaf: string | null;
  readonly source: string;
  readonly heightSource: string;
  readonly surveyedOn: string;
  readonly version: number;
}

interface RawObstacle extends Record<string, unknown> {
  id: string;
  name: string;
  kind: ObstacleInput["kind"];
  outline: Buffer;
  base_amsl_m: number | null;
  free_below_m: number;
  leaf: string | null;
  height_source: string;
  surveyed_on: string;
  version: number;
  height_m: number;
  crown_base_m: number;
  growth_m_per_year: number;
  height_sigma_m: number;
  species: string | null;
  source: string;
  surveyed_year: number;
}

const format = new WKB();

/** Rings of a polygon out of well-known binary; the closing corner of each left out. */
const rings = (wkb: Buffer): LatLon[][] =>
  (format.readGeometry(new Uint8Array(wkb).buffer) as Polygon)
    .getCoordinates()
    .map((ring) => ring.slice(0, -1).map(([lonDeg, latDeg]) => ({ latDeg: latDeg!, lonDeg: lonDeg! })));

const fromRaw = (r: RawObstacle): ObstacleRow => {
  const [outline, ...holes] = rings(r.outline);
  return { ...fieldsOf(r), outline: outline ?? [], holes };
};

const fieldsOf = (r: RawObstacle): Omit<ObstacleRow, "outline" | "holes"> => ({
  id: r.id,
  name: r.name,
  kind: r.kind,
  baseAmslM: r.base_amsl_m,
  heightM: r.height_m,
  crownBaseM: r.crown_base_m,
  ...(r.free_below_m > 0 ? { freeBelowM: r.free_below_m } : {}),
  growthMPerYear: r.growth_m_per_year,
  heightSigmaM: r.height_sigma_m,
  surveyedYear: r.surveyed_year,
  species: r.species,
  leaf: r.leaf,
  source: r.source,
  heightSource: r.height_source,
  surveyedOn: r.surveyed_on,
  version: r.version,
});

const COLUMNS = sql`o.id, o.name, o.kind, ST_AsBinary(o.outline, 'NDR') AS outline, o.base_amsl_m, o.height_m,
  o.crown_base_m, o.growth_m_per_year, o.free_below_m, o.height_sigma_m, o.species, o.leaf, o.source,
  o.height_source, o.surveyed_on::text AS surveyed_on, o.version,
  extract(year from o.surveyed_on)::int AS surveyed_year`;

interface Box {
  readonly westDeg: number;
  readonly southDeg: number;
  readonly eastDeg: number;
  readonly northDeg: number;
}

/**
 * Obstacles that touch a box, the widest first where there are more than asked for.
 * @param whole all of them or none: none where there are more than asked for.
 * @returns how many there are in all, so that what is left out can be said; no more than one above what was asked for where none is sent.
 */
export const obstaclesOf = async (
  db: Db,
  jobId: string,
  box: Box,
  most: number,
  whole = false,
): Promise<{ rows: ObstacleRow[]; total: number }> => {
  const within = sql`o.job_id = ${jobId} AND o.deleted_at IS NULL
      AND o.outline && ST_MakeEnvelope(${box.westDeg}, ${box.southDeg}, ${box.eastDeg}, ${box.northDeg}, 4326)`;
  const few = await db.execute<{ n: number }>(
    sql`SELECT count(*)::int AS n FROM (SELECT FROM obstacle o WHERE ${within} LIMIT ${most + 1}) AS within`,
  );
  if (few.rows[0]!.n <= most) {
    const all = await db.execute<RawObstacle>(sql`SELECT ${COLUMNS} FROM obstacle o WHERE ${within}`);
    return { rows: byId(all.rows).map(fromRaw), total: all.rows.length };
  }
  if (whole) return { rows: [], total: few.rows[0]!.n };
  const [counted, widest] = await Promise.all([
    db.execute<{ n: number }>(sql`SELECT count(*)::int AS n FROM obstacle o WHERE ${within}`),
    db.execute<RawObstacle>(
      sql`SELECT ${COLUMNS} FROM obstacle o WHERE ${within}
        ORDER BY (ST_XMax(o.outline) - ST_XMin(o.outline)) + (ST_YMax(o.outline) - ST_YMin(o.outline)) DESC, o.id LIMIT ${most}`,
    ),
  ]);
  return { rows: byId(widest.rows).map(fromRaw), total: counted.rows[0]?.n ?? 0 };
};

const byId = <T extends { id: string }>(rows: readonly T[]): T[] => [...rows].sort((a, b) => (a.id < b.id ? -1 : 1));

/** All obstacles of a job, some at a time, by id: for writing them out. */
export async function* everyObstacle(db: Db, jobId: string, atOnce = 2000): AsyncGenerator<readonly ObstacleRow[]> {
  let after = "00000000-0000-0000-0000-000000000000";
  for (;;) {
    const r = await db.execute<RawObstacle>(sql`
      SELECT ${COLUMNS} FROM obstacle o WHERE o.job_id = ${jobId} AND o.deleted_at IS NULL AND o.id > ${after} ORDER BY o.id LIMIT ${atOnce}`);
    if (r.rows.length > 0) yield r.rows.map(fromRaw);
    if (r.rows.length < atOnce) return;
    after = r.rows[r.rows.length - 1]!.id;
  }
}

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
    return [
      Math.min(a.lonDeg, b.lonDeg) - reachDeg.lonDeg,
      Math.min(a.latDeg, b.latDeg) - reachDeg.latDeg,
      Math.max(a.lonDeg, b.lonDeg) + reachDeg.lonDeg,
      Math.max(a.latDeg, b.latDeg) + reachDeg.latDeg,
    ] as const;
  });
  // Boxes are made first: the index answers, beneath the guard of rows, only an operator that can tell nothing of a row.
  const side = (k: 0 | 1 | 2 | 3) => sql`${sql.param(boxes.map((b) => b[k]))}::float8[]`;
  const r = await db.execute<RawObstacle>(sql`
    WITH box AS MATERIALIZED (SELECT ST_MakeEnvelope(w, s, e, n, 4326) AS shape
      FROM unnest(${side(0)}, ${side(1)}, ${side(2)}, ${side(3)}) AS b(w, s, e, n))
    SELECT ${COLUMNS}
    FROM box JOIN obstacle o ON o.outline && box.shape
    WHERE o.job_id = ${jobId} AND o.deleted_at IS NULL`);
  // What two boxes share comes twice; a sort in the database to tell costs more than the search.
  return byId([...new Map(r.rows.map((row) => [row.id, row])).values()]).map(fromRaw);
};

export const featuresOf = async (db: Db, jobId: string): Promise<(FeatureInput & { id: string; version: number })[]> => {
  const r = await db.execute<{ id: string; name: string; shape: string; version: number }>(
    sql`SELECT id, name, version, ST_AsGeoJSON(shape, 9) AS shape FROM feature WHERE job_id = ${jobId} AND deleted_at IS NULL ORDER BY name`,
  );
  return r.rows.map((row) => {
    const shape = JSON.parse(row.shape) as { type: string; coordinates: [number, number] | [number, number][] };
    const list = (shape.type === "Point" ? [shape.coordinates] : shape.coordinates) as [number, number][];
    return { id: row.id, name: row.name, version: row.version, points: list.map(([lonDeg, latDeg]) => ({ latDeg, lonDeg })) };
  });
};

/** An outline and its courtyards as well-known text. */
export const polygonText = (outline: readonly LatLon[], holes: readonly (readonly LatLon[])[] = []): string =>
  `POLYGON(${[outline, ...holes].map((ring) => `(${[...ring, ring[0]!].map((p) => `${p.lonDeg} ${p.latDeg}`).join(",")})`).join(",")})`;

export type NewObstacle = Omit<ObstacleRow, "id" | "surveyedYear" | "leaf" | "heightSource" | "version" | "holes">;

export const insertObstacles = async (db: Db, jobId: string, rows: readonly NewObstacle[]): Promise<void> => {
  for (let i = 0; i < rows.length; i += 500) {
    const chunk = rows.slice(i, i + 500).map(
      (o) => sql`(${jobId}, ${o.name}, ${o.kind}, ST_GeomFromText(${polygonText(o.outline)}, 4326), ${o.baseAmslM}, ${o.heightM},
        ${o.crownBaseM}, ${o.freeBelowM ?? 0}, ${o.growthMPerYear}, ${o.heightSigmaM}, ${o.species}, ${o.source}, ${o.surveyedOn})`,
    );
    await db.execute(sql`INSERT INTO obstacle (job_id, name, kind, outline, base_amsl_m, height_m, crown_base_m, free_below_m,
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

/** Changes whenever something that stands about a job, or ground anywhere, does: what was sampled before is then stale. */
export const groundStamp = async (db: Db, jobId: string): Promise<string> => {
  const r = await db.execute<{ stamp: string }>(sql`
    SELECT concat_ws('|',
      (SELECT concat_ws('/', count(*), max(updated_at), max(deleted_at)) FROM obstacle WHERE job_id = ${jobId}),
      (SELECT concat_ws('/', count(*), max(updated_at), max(deleted_at)) FROM site WHERE job_id = ${jobId}),
      (SELECT concat_ws('/', count(*), max(created_at), max(deleted_at)) FROM terrain_dataset
        WHERE ready AND organisation_id IN ((SELECT own_organisation()), ${NO_FIRM}))) AS stamp`);
  return r.rows[0]?.stamp ?? "";
};
