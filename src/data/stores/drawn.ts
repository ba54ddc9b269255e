import { type SQL, sql } from "drizzle-orm";
import { kindOf, type LonLat, lonLats } from "../../contract";
import type { Tx } from "../changes";
import type { Db } from "../client";
import { everyObstacle } from "../obstacles";
import type { Kept, Store } from "./store";

/* Kinds with a geometry: told and taken as longitude and latitude, kept as PostGIS has it. Nine decimals are a tenth of a millimetre. */

const closed = (ring: readonly LonLat[]): readonly LonLat[] => [...ring, ring[0]!];
const polygonJson = (rings: readonly (readonly LonLat[])[]): string => JSON.stringify({ type: "Polygon", coordinates: rings.map(closed) });
const lineJson = (points: readonly LonLat[]): string =>
  JSON.stringify(points.length === 1 ? { type: "Point", coordinates: points[0] } : { type: "LineString", coordinates: points });

/** Fields out of a geometry as GeoJSON text. */
export const outlineOf = (text: string): { outline: LonLat[]; holes: LonLat[][] } => {
  const [outline = [], ...holes] = (JSON.parse(text) as { coordinates: LonLat[][] }).coordinates.map((ring) => ring.slice(0, -1));
  return { outline, holes };
};
export const pointsOf = (text: string): { points: LonLat[] } => {
  const shape = JSON.parse(text) as { type: string; coordinates: unknown };
  return { points: (shape.type === "Point" ? [shape.coordinates] : shape.coordinates) as LonLat[] };
};

interface Geometry {
  readonly table: string;
  /** Column of the geometry, and the fields it stands for. */
  readonly column: string;
  readonly fields: readonly string[];
  readonly out: (text: string) => Readonly<Record<string, unknown>>;
  readonly text: (values: Readonly<Record<string, unknown>>) => string;
}

const GEOMETRIES = {
  obstacle: {
    table: "obstacle",
    column: "outline",
    fields: ["outline", "holes"],
    out: outlineOf,
    text: (v) => polygonJson([v.outline as LonLat[], ...((v.holes ?? []) as LonLat[][])]),
  },
  feature: {
    table: "feature",
    column: "shape",
    fields: ["points"],
    out: pointsOf,
    text: (v) => lineJson(v.points as LonLat[]),
  },
} as const satisfies Record<string, Geometry>;

const columnOf = (field: string): string => field.replace(/[A-Z]/g, (c) => `_${c.toLowerCase()}`);
const geometrySql = (text: string): SQL => sql`ST_SetSRID(ST_GeomFromGeoJSON(${text}), 4326)`;

/** In the digits they are kept in. */
async function* everyKeptObstacle(db: Db, jobId: string): AsyncGenerator<Kept[]> {
  for await (const rows of everyObstacle(db, jobId))
    yield rows.map(({ id, version, surveyedYear: _y, outline, holes, freeBelowM = 0, ...rest }) => ({
      id,
      jobId,
      version,
      deleted: false,
      values: { ...rest, freeBelowM, outline: lonLats(outline), holes: holes.map(lonLats) },
    }));
}

export const drawnStore = (name: keyof typeof GEOMETRIES): Store => {
  const g: Geometry = GEOMETRIES[name];
  const table = sql.identifier(g.table);
  const plain = Object.keys(kindOf(name).fields.shape).filter((f) => !g.fields.includes(f));
  // A day is told as text: the driver would make a moment of it.
  const asTold = (f: string): SQL => (f.endsWith("On") ? sql`${sql.identifier(columnOf(f))}::text` : sql`${sql.identifier(columnOf(f))}`);
  const columns = sql.join(
    [
      sql`id, job_id AS "jobId", version, deleted_at IS NOT NULL AS deleted, ST_AsGeoJSON(${sql.identifier(g.column)}, 9) AS geometry_`,
      ...plain.map((f) => sql`${asTold(f)} AS ${sql.identifier(f)}`),
    ],
    sql`, `,
  );
  type Raw = Record<string, unknown> & { id: string; jobId: string; version: number; deleted: boolean; geometry_: string };
  const kept = (r: Raw): Kept => ({
    id: r.id,
    jobId: r.jobId,
    version: r.version,
    deleted: r.deleted,
    values: { ...Object.fromEntries(plain.map((f) => [f, r[f]])), ...g.out(r.geometry_) },
  });
  const read = async (tx: Tx, id: string, lock: boolean): Promise<Kept | null> => {
    const r = await tx.execute<Raw>(sql`SELECT ${columns} FROM ${table} WHERE id = ${id} ${lock ? sql`FOR UPDATE` : sql``}`);
    return r.rows[0] === undefined ? null : kept(r.rows[0]);
  };
  return {
    table: g.table,
    read,
    ...(name === "obstacle" ? { every: everyKeptObstacle } : {}),
    list: async (tx, jobId) => {
      const r = await tx.execute<Raw>(
        sql`SELECT ${columns} FROM ${table} WHERE job_id = ${jobId} AND deleted_at IS NULL ORDER BY created_at, id`,
      );
      return r.rows.map(kept);
    },
    insert: async (tx, row) => {
      const names = ["id", "job_id", g.column, ...plain.map(columnOf)].map((c) => sql.identifier(c));
      const values = [
        sql`${row.id}`,
        sql`${row.jobId}`,
        geometrySql(g.text(row.values)),
        ...plain.map((f) => sql`${row.values[f] ?? null}`),
      ];
      await tx.execute(sql`INSERT INTO ${table} (${sql.join(names, sql`, `)}) VALUES (${sql.join(values, sql`, `)})`);
    },
    write: async (tx, id, values, deleted) => {
      const sets = Object.entries(values)
        .filter(([f]) => plain.includes(f))
        .map(([f, v]) => sql`${sql.identifier(columnOf(f))} = ${v}`);
      if (g.fields.some((f) => f in values)) {
        // Part of a geometry is written with the rest of it as it stands.
        const whole = g.fields.every((f) => f in values) ? values : { ...(await read(tx, id, true))!.values, ...values };
        sets.push(sql`${sql.identifier(g.column)} = ${geometrySql(g.text(whole))}`);
      }
      if (deleted !== undefined) sets.push(sql`deleted_at = ${deleted ? sql`now()` : sql`NULL`}`);
      await tx.execute(
        sql`UPDATE ${table} SET ${sql.join([...sets, sql`version = version + 1`, sql`updated_at = now()`], sql`, `)} WHERE id = ${id}`,
      );
    },
  };
};
