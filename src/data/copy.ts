import { once } from "node:events";
import { finished } from "node:stream/promises";
import type { PoolClient } from "pg";
import { from as copyFrom } from "pg-copy-streams";
import type { LatLon } from "../core/geo";
import type { ObstacleFields } from "./obstacle-edits";
import { polygonText } from "./obstacles";

/* Many rows at once, by PostgreSQL's COPY. */

/** Text of a value in the COPY format. */
const copyValue = (value: string | number | null): string =>
  value === null
    ? "\\N"
    : String(value).replaceAll("\\", "\\\\").replaceAll("\t", "\\t").replaceAll("\n", "\\n").replaceAll("\r", "\\r").replaceAll("\0", "");
const lineOf = (values: readonly (string | number | null)[]): string => `${values.map(copyValue).join("\t")}\n`;

/** Where lines go: a table, and the columns that each line has. */
export interface Into {
  readonly table: string;
  readonly columns: string;
}
export const OBSTACLE_TABLE: Into = {
  table: "obstacle",
  columns:
    "job_id, name, kind, outline, base_amsl_m, height_m, crown_base_m, free_below_m, growth_m_per_year, height_sigma_m, species, leaf, source, height_source, surveyed_on, import_id, id",
};
export const FEATURE_TABLE: Into = { table: "feature", columns: "job_id, name, shape, import_id" };

export const obstacleLine = (jobId: string, importId: string | null, id: string, o: ObstacleFields): string =>
  lineOf([
    jobId,
    o.name,
    o.kind,
    `SRID=4326;${polygonText(o.outline, o.holes)}`,
    o.baseAmslM,
    o.heightM,
    o.crownBaseM,
    o.freeBelowM,
    o.growthMPerYear,
    o.heightSigmaM,
    o.species,
    o.leaf,
    o.source,
    o.heightSource,
    o.surveyedOn,
    importId,
    id,
  ]);

export const featureLine = (jobId: string, importId: string, name: string, points: readonly LatLon[]): string => {
  const list = points.map((p) => `${p.lonDeg} ${p.latDeg}`);
  const shape = list.length === 1 ? `POINT(${list[0]})` : `LINESTRING(${list.join(",")})`;
  return lineOf([jobId, name, `SRID=4326;${shape}`, importId]);
};

/**
 * Copies lines into a table, within the transaction of a connection; no faster than the database takes them. A table whose rows are
 * guarded takes no COPY: they lie in one beside it first, and go over in one statement.
 * @param read hands each line on and waits for it. @throws what went wrong on either side; then nothing of it stays.
 */
export const copyInto = async (
  client: PoolClient,
  { table, columns }: Into,
  read: (write: (line: string) => Promise<void>) => Promise<void>,
): Promise<void> => {
  await client.query(`CREATE TEMPORARY TABLE coming (LIKE ${table} INCLUDING DEFAULTS) ON COMMIT DROP`);
  const stream = client.query(copyFrom(`COPY coming (${columns}) FROM STDIN`));
  const ended = finished(stream);
  ended.catch(() => undefined);
  try {
    await read(async (line) => {
      if (!stream.write(line)) await Promise.race([once(stream, "drain"), ended]);
    });
  } catch (error) {
    stream.destroy(error instanceof Error ? error : new Error(String(error)));
    await ended.catch(() => undefined);
    throw error;
  }
  stream.end();
  await ended;
  await client.query(`INSERT INTO ${table} (${columns}) SELECT ${columns} FROM coming`);
  await client.query("DROP TABLE coming");
};
