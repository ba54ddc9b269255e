import { once } from "node:events";
import { stat } from "node:fs/promises";
import { finished } from "node:stream/promises";
import { and, eq, isNull } from "drizzle-orm";
import { drizzle } from "drizzle-orm/node-postgres";
import type { PoolClient } from "pg";
import { from as copyFrom } from "pg-copy-streams";
import type { FeaturesOptions, ObstacleFields, ObstaclesOptions, RowFaultDto, SitesOptions } from "../contract";
import { inverse, type LatLon } from "../core/geo";
import type { Db } from "../data/client";
import { finishImport, type ImportRow, reportProgress } from "../data/imports";
import * as schema from "../data/schema";
import { ONE_SPOT_M, type SiteInput } from "../data/sites";
import { FileFault, type RawFeature, readVector, type VectorQuestion } from "../formats";
import { featureOf, obstacleOf, siteOf } from "../service/import-rows";
import { Stopped } from "./stopped";

const MOST_FAULTS = 200;
const MOST_SITES = 5000;
const REPORT_EVERY = 2000;
/** Room that a feature takes in a text file, for a progress that has nothing better to go by. */
const BYTES_PER_FEATURE = 350;

/** Text of a value in PostgreSQL's COPY format. */
const copyValue = (value: string | number | null): string =>
  value === null
    ? "\\N"
    : String(value).replaceAll("\\", "\\\\").replaceAll("\t", "\\t").replaceAll("\n", "\\n").replaceAll("\r", "\\r").replaceAll("\0", "");

const ringText = (points: readonly (readonly [number, number])[]): string => [...points, points[0]!].map(([x, y]) => `${x} ${y}`).join(",");

const obstacleLine = (row: ImportRow, o: ObstacleFields): string =>
  `${[
    row.jobId,
    o.name,
    o.kind,
    `SRID=4326;POLYGON((${ringText(o.outline)}))`,
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
    row.id,
  ]
    .map(copyValue)
    .join("\t")}\n`;

const OBSTACLE_COLUMNS =
  "job_id, name, kind, outline, base_amsl_m, height_m, crown_base_m, free_below_m, growth_m_per_year, height_sigma_m, species, leaf, source, height_source, surveyed_on, import_id";

const featureLine = (row: ImportRow, name: string, points: readonly LatLon[]): string => {
  const list = points.map((p) => `${p.lonDeg} ${p.latDeg}`);
  const shape = list.length === 1 ? `POINT(${list[0]})` : `LINESTRING(${list.join(",")})`;
  return `${[row.jobId, name, `SRID=4326;${shape}`, row.id].map(copyValue).join("\t")}\n`;
};

/** Rows kept and refused, how far it is, and whether it is to go on. */
const counter = async (db: Db, row: ImportRow, path: string) => {
  const { size } = await stat(path);
  const expected = Math.max(1, size / BYTES_PER_FEATURE);
  const faults: RowFaultDto[] = [];
  let kept = 0;
  let refused = 0;
  let stopped = false;
  let pending: Promise<unknown> | null = null;
  const seen = (): void => {
    const all = kept + refused;
    if (all % REPORT_EVERY !== 0 || pending !== null) return;
    pending = reportProgress(db, row, Math.min(0.95, all / expected))
      .then((goesOn) => {
        stopped ||= !goesOn;
      })
      .catch(() => undefined)
      .finally(() => {
        pending = null;
      });
  };
  return {
    keep: (): void => {
      kept++;
      seen();
    },
    refuse: (fault: RowFaultDto): void => {
      refused++;
      if (faults.length < MOST_FAULTS) faults.push(fault);
      seen();
    },
    enough: (): boolean => stopped,
    result: () => ({ kept, refused, faults }),
    kept: () => kept,
    done: async (): Promise<void> => {
      await pending;
      if (stopped) throw new Stopped();
    },
  };
};

type Options = ObstaclesOptions | FeaturesOptions | SitesOptions;

const questionOf = (o: Options): VectorQuestion => ({ epsg: o.epsg, latColumn: o.latColumn, lonColumn: o.lonColumn });

/** Reads a file into one table by COPY, within the transaction of a connection. */
const copyAll = async (
  client: PoolClient,
  table: string,
  line: (f: RawFeature) => { value: string } | { reason: string },
  read: (give: (f: RawFeature) => Promise<void>) => Promise<void>,
  count: Awaited<ReturnType<typeof counter>>,
): Promise<void> => {
  const stream = client.query(copyFrom(`COPY ${table} FROM STDIN`));
  const ended = finished(stream);
  ended.catch(() => undefined);
  try {
    await read(async (f) => {
      const made = line(f);
      if ("reason" in made) return count.refuse({ row: f.row, reason: made.reason });
      count.keep();
      if (!stream.write(made.value)) await Promise.race([once(stream, "drain"), ended]);
    });
    await count.done();
  } catch (error) {
    stream.destroy(error instanceof Error ? error : new Error(String(error)));
    await ended.catch(() => undefined);
    throw error;
  }
  stream.end();
  await ended;
};

const insertSites = async (
  client: PoolClient,
  row: ImportRow,
  found: readonly { row: number; site: SiteInput }[],
  count: Awaited<ReturnType<typeof counter>>,
) => {
  const db = drizzle(client, { schema });
  const there = await db
    .select({ name: schema.site.name, latDeg: schema.site.latDeg, lonDeg: schema.site.lonDeg })
    .from(schema.site)
    .where(and(eq(schema.site.jobId, row.jobId), isNull(schema.site.deletedAt)));
  // Sorted by latitude, only neighbours within the spot's size need a look.
  const nearDeg = ONE_SPOT_M / 100_000;
  for (const { row: at, site } of found) {
    const clash = there.find((s) => Math.abs(s.latDeg - site.latDeg) < nearDeg && inverse(s, site).distanceM < ONE_SPOT_M);
    if (clash !== undefined) {
      count.refuse({ row: at, reason: `${clash.name} already stands on this spot` });
      continue;
    }
    there.push({ name: site.name, latDeg: site.latDeg, lonDeg: site.lonDeg });
    await db.insert(schema.site).values({ ...site, jobId: row.jobId, importId: row.id });
    count.keep();
  }
};

/** Brings the places of a file in: all of them in one transaction, or none. */
export const importPlaces = async (db: Db, client: PoolClient, row: ImportRow, options: Options, path: string): Promise<void> => {
  const count = await counter(db, row, path);
  const sink = (feature: (f: RawFeature) => Promise<void>) => ({ feature, fault: count.refuse, enough: count.enough });
  const read = (feature: (f: RawFeature) => Promise<void>): Promise<void> =>
    readVector(path, row.fileName, questionOf(options), sink(feature)).then(() => undefined);
  await client.query("BEGIN");
  try {
    if (options.what === "sites") {
      const found: { row: number; site: SiteInput }[] = [];
      await read(async (f) => {
        const made = siteOf(f, options);
        if ("reason" in made) count.refuse({ row: f.row, reason: made.reason });
        else if (found.push({ row: f.row, site: made.value }) > MOST_SITES) throw new FileFault(`it holds more than ${MOST_SITES} sites`);
      });
      await count.done();
      await insertSites(client, row, found, count);
    } else if (options.what === "obstacles") {
      await copyAll(
        client,
        `obstacle (${OBSTACLE_COLUMNS})`,
        (f) => {
          const made = obstacleOf(f, options);
          return "reason" in made ? made : { value: obstacleLine(row, made.value) };
        },
        read,
        count,
      );
    } else {
      await copyAll(
        client,
        "feature (job_id, name, shape, import_id)",
        (f) => {
          const made = featureOf(f, options.nameColumn);
          return "reason" in made ? made : { value: featureLine(row, made.value.name, made.value.points) };
        },
        read,
        count,
      );
    }
    if (count.kept() === 0) {
      const first = count.result().faults[0];
      throw new FileFault(
        first === undefined ? "it holds nothing to take in" : `nothing in it could be taken; row ${first.row}: ${first.reason}`,
      );
    }
    await finishImport(drizzle(client, { schema }) as never, row, count.result());
    await client.query("COMMIT");
  } catch (error) {
    await client.query("ROLLBACK").catch(() => undefined);
    throw error;
  }
};
