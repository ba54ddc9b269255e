import { sql } from "drizzle-orm";
import type { LatLon } from "../core/geo";
import type { BodyKind } from "../core/obstacles";
import { recordChange, type Tx } from "./changes";
import { NotFound, Refused, VersionClash } from "./clash";
import type { Db } from "./client";
import { lockJobOf } from "./lock";

/** What people edit of an obstacle. */
export interface ObstacleFields {
  readonly name: string;
  readonly kind: BodyKind;
  readonly outline: readonly LatLon[];
  readonly holes?: readonly (readonly LatLon[])[];
  readonly baseAmslM: number | null;
  readonly heightM: number;
  readonly crownBaseM: number;
  readonly freeBelowM: number;
  readonly growthMPerYear: number;
  readonly heightSigmaM: number;
  readonly species: string | null;
  readonly leaf: string | null;
  readonly source: string;
  readonly heightSource: string;
  readonly surveyedOn: string;
}

/** A named ground feature: a point, or a line. */
export interface FeatureFields {
  readonly name: string;
  readonly points: readonly LatLon[];
}

type Row = Record<string, unknown> & { id: string; jobId: string; version: number; deletedAt: string | null };

/** A row as it is logged and compared: geometry as GeoJSON text. */
export const loggedRow = async (tx: Tx, table: "obstacle" | "feature", id: string, lock = false): Promise<Row | null> => {
  const columns =
    table === "obstacle"
      ? sql`id, job_id AS "jobId", name, kind, ST_AsGeoJSON(outline, 9) AS outline, base_amsl_m AS "baseAmslM", height_m AS "heightM",
          crown_base_m AS "crownBaseM", free_below_m AS "freeBelowM", growth_m_per_year AS "growthMPerYear",
          height_sigma_m AS "heightSigmaM", species, leaf, source, height_source AS "heightSource",
          surveyed_on::text AS "surveyedOn", version, deleted_at::text AS "deletedAt"`
      : sql`id, job_id AS "jobId", name, ST_AsGeoJSON(shape, 9) AS shape, version, deleted_at::text AS "deletedAt"`;
  const r = await tx.execute<Row>(sql`SELECT ${columns} FROM ${sql.identifier(table)} WHERE id = ${id} ${lock ? sql`FOR UPDATE` : sql``}`);
  return r.rows[0] ?? null;
};

export const polygonJson = (outline: readonly LatLon[], holes: readonly (readonly LatLon[])[] = []): string =>
  JSON.stringify({ type: "Polygon", coordinates: [outline, ...holes].map((ring) => [...ring, ring[0]!].map((p) => [p.lonDeg, p.latDeg])) });

export const shapeJson = (points: readonly LatLon[]): string =>
  points.length === 1
    ? JSON.stringify({ type: "Point", coordinates: [points[0]!.lonDeg, points[0]!.latDeg] })
    : JSON.stringify({ type: "LineString", coordinates: points.map((p) => [p.lonDeg, p.latDeg]) });

const OBSTACLE_COLUMNS: Readonly<Record<Exclude<keyof ObstacleFields, "outline" | "holes">, string>> = {
  name: "name",
  kind: "kind",
  baseAmslM: "base_amsl_m",
  heightM: "height_m",
  crownBaseM: "crown_base_m",
  freeBelowM: "free_below_m",
  growthMPerYear: "growth_m_per_year",
  heightSigmaM: "height_sigma_m",
  species: "species",
  leaf: "leaf",
  source: "source",
  heightSource: "height_source",
  surveyedOn: "surveyed_on",
};

/** Sets columns of an obstacle or a feature from fields; geometry given as points, or as GeoJSON text out of the log. */
export const setColumns = async (
  tx: Tx,
  table: "obstacle" | "feature",
  id: string,
  fields: Readonly<Record<string, unknown>>,
): Promise<void> => {
  const sets = Object.entries(fields).flatMap(([key, value]) => {
    if (value === undefined) return [];
    if (key === "outline" || key === "shape") {
      const text = typeof value === "string" ? value : polygonJson(value as LatLon[], (fields.holes ?? []) as LatLon[][]);
      return [sql`${sql.identifier(key)} = ST_SetSRID(ST_GeomFromGeoJSON(${text}), 4326)`];
    }
    if (key === "points") return [sql`shape = ST_SetSRID(ST_GeomFromGeoJSON(${shapeJson(value as LatLon[])}), 4326)`];
    const column =
      key === "deletedAt" ? "deleted_at" : table === "feature" ? (key === "name" ? "name" : undefined) : OBSTACLE_COLUMNS[key as "name"];
    if (column === undefined) return [];
    return [value === true ? sql`deleted_at = now()` : sql`${sql.identifier(column)} = ${value}`];
  });
  if (sets.length === 0) return;
  await tx.execute(
    sql`UPDATE ${sql.identifier(table)} SET ${sql.join(sets, sql`, `)}, version = version + 1, updated_at = now() WHERE id = ${id}`,
  );
};

export const createObstacle = (db: Db, jobId: string, o: ObstacleFields): Promise<string> =>
  db.transaction(async (tx) => {
    const r = await tx.execute<{ id: string }>(sql`
      INSERT INTO obstacle (job_id, name, kind, outline, base_amsl_m, height_m, crown_base_m, free_below_m, growth_m_per_year,
        height_sigma_m, species, leaf, source, height_source, surveyed_on)
      VALUES (${jobId}, ${o.name}, ${o.kind}, ST_SetSRID(ST_GeomFromGeoJSON(${polygonJson(o.outline, o.holes)}), 4326), ${o.baseAmslM}, ${o.heightM},
        ${o.crownBaseM}, ${o.freeBelowM}, ${o.growthMPerYear}, ${o.heightSigmaM}, ${o.species}, ${o.leaf}, ${o.source},
        ${o.heightSource}, ${o.surveyedOn}) RETURNING id`);
    const id = r.rows[0]!.id;
    await recordChange(tx, {
      jobId,
      entity: "obstacle",
      entityId: id,
      action: "create",
      before: null,
      after: await loggedRow(tx, "obstacle", id),
    });
    return id;
  });

export const createFeature = (db: Db, jobId: string, f: FeatureFields): Promise<string> =>
  db.transaction(async (tx) => {
    const r = await tx.execute<{ id: string }>(
      sql`INSERT INTO feature (job_id, name, shape) VALUES (${jobId}, ${f.name}, ST_SetSRID(ST_GeomFromGeoJSON(${shapeJson(f.points)}), 4326)) RETURNING id`,
    );
    const id = r.rows[0]!.id;
    await recordChange(tx, {
      jobId,
      entity: "feature",
      entityId: id,
      action: "create",
      before: null,
      after: await loggedRow(tx, "feature", id),
    });
    return id;
  });

/** Edits, takes away or brings back an obstacle or a feature, made on a version. @throws VersionClash with the row as it stands. */
export const updateDrawn = (
  db: Db,
  table: "obstacle" | "feature",
  id: string,
  version: number,
  fields: Readonly<Record<string, unknown>>,
  deleted?: boolean,
): Promise<number> =>
  db.transaction(async (tx) => {
    await lockJobOf(tx, table, id);
    const before = await loggedRow(tx, table, id, true);
    if (before === null) throw new NotFound(table);
    if (before.version !== version) throw new VersionClash(table, before);
    await setColumns(tx, table, id, deleted === undefined ? fields : { deletedAt: deleted ? true : null });
    await recordChange(tx, {
      jobId: before.jobId,
      entity: table,
      entityId: id,
      action: deleted === undefined ? "update" : deleted ? "delete" : "restore",
      before,
      after: await loggedRow(tx, table, id),
    });
    return version + 1;
  });

/** Cuts one obstacle into several: the first keeps its row, the others are new; one transaction. */
export const splitObstacle = (db: Db, id: string, version: number, parts: readonly (readonly LatLon[])[]): Promise<void> =>
  db.transaction(async (tx) => {
    await lockJobOf(tx, "obstacle", id);
    const before = await loggedRow(tx, "obstacle", id, true);
    if (before === null) throw new NotFound("obstacle");
    if (before.version !== version) throw new VersionClash("obstacle", before);
    if ((JSON.parse(String(before.outline)) as { coordinates: unknown[] }).coordinates.length > 1)
      throw new Refused("has-courtyards", "outline");
    const jobId = before.jobId;
    for (const part of parts.slice(1)) {
      const r = await tx.execute<{ id: string }>(sql`
        INSERT INTO obstacle (job_id, name, kind, outline, base_amsl_m, height_m, crown_base_m, free_below_m, growth_m_per_year,
          height_sigma_m, species, leaf, source, height_source, surveyed_on)
        SELECT job_id, name, kind, ST_SetSRID(ST_GeomFromGeoJSON(${polygonJson(part)}), 4326), base_amsl_m, height_m, crown_base_m,
          free_below_m, growth_m_per_year, height_sigma_m, species, leaf, source, height_source, surveyed_on
        FROM obstacle WHERE id = ${id} RETURNING id`);
      const made = r.rows[0]!.id;
      await recordChange(tx, {
        jobId,
        entity: "obstacle",
        entityId: made,
        action: "create",
        before: null,
        after: await loggedRow(tx, "obstacle", made),
      });
    }
    await setColumns(tx, "obstacle", id, { outline: parts[0]! });
    await recordChange(tx, {
      jobId,
      entity: "obstacle",
      entityId: id,
      action: "update",
      before,
      after: await loggedRow(tx, "obstacle", id),
    });
  });
