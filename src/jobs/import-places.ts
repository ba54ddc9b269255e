import { randomUUID } from "node:crypto";
import { stat } from "node:fs/promises";
import { and, eq, isNull } from "drizzle-orm";
import { drizzle } from "drizzle-orm/node-postgres";
import type { PoolClient } from "pg";
import { type FeaturesOptions, type FieldsOf, latLons, type ObstaclesOptions, type RowFaultDto, type SitesOptions } from "../contract";
import { inverse } from "../core/geo";
import type { Db } from "../data/client";
import { copyInto, FEATURE_TABLE, featureLine, type Into, OBSTACLE_TABLE, obstacleLine } from "../data/copy";
import { beginAs } from "../data/guard";
import { finishImport, type ImportRow, reportProgress } from "../data/imports";
import { placesOf } from "../data/jobs";
import { ONE_SPOT_M } from "../data/rules";
import * as schema from "../data/schema";
import { FileFault, type RawFeature, readVector, type VectorQuestion } from "../formats";
import { farReason, featureOf, type Made, obstacleOf, siteOf } from "../service/import-rows";
import { goesOn } from "./goes-on";
import { Stopped } from "./stopped";

const MOST_FAULTS = 200;
const MOST_SITES = 5000;
const REPORT_EVERY = 2000;
/** Room that a feature takes in a text file, for a progress that has nothing better to go by. */
const BYTES_PER_FEATURE = 350;

/** Rows kept and refused, how far it is, and whether it is to go on. */
const counter = async (db: Db, row: ImportRow, path: string) => {
  const { size } = await stat(path);
  const expected = Math.max(1, size / BYTES_PER_FEATURE);
  const faults: RowFaultDto[] = [];
  let kept = 0;
  let refused = 0;
  let stopped = false;
  let pending: Promise<unknown> | null = null;
  const notes: RowFaultDto[] = [];
  const seen = (): void => {
    goesOn();
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
    note: (note: RowFaultDto): void => {
      if (notes.length < MOST_FAULTS) notes.push(note);
    },
    enough: (): boolean => stopped,
    result: () => ({ kept, refused, faults, ...(notes.length === 0 ? {} : { notes }) }),
    kept: () => kept,
    done: async (): Promise<void> => {
      await pending;
      if (stopped) throw new Stopped();
    },
  };
};

type Options = ObstaclesOptions | FeaturesOptions | SitesOptions;

const questionOf = (o: Options): VectorQuestion => ({ epsg: o.epsg, latColumn: o.latColumn, lonColumn: o.lonColumn, swapped: o.swapped });

/** Reads a file into one table by COPY, within the transaction of a connection. */
const copyAll = (
  client: PoolClient,
  into: Into,
  line: (f: RawFeature) => Made<string>,
  read: (give: (f: RawFeature) => Promise<void>) => Promise<void>,
  count: Awaited<ReturnType<typeof counter>>,
): Promise<void> =>
  copyInto(client, into, async (write) => {
    await read(async (f) => {
      const made = line(f);
      if ("reason" in made) return count.refuse({ row: f.row, reason: made.reason });
      if (made.note !== undefined) count.note({ row: f.row, reason: made.note });
      count.keep();
      await write(made.value);
    });
    await count.done();
  });

const insertSites = async (
  client: PoolClient,
  row: ImportRow,
  found: readonly { row: number; site: FieldsOf<"site"> }[],
  count: Awaited<ReturnType<typeof counter>>,
) => {
  const db = drizzle(client, { schema });
  const there = await db
    .select({ name: schema.site.name, latDeg: schema.site.latDeg, lonDeg: schema.site.lonDeg })
    .from(schema.site)
    .where(and(eq(schema.site.jobId, row.jobId!), isNull(schema.site.deletedAt)));
  // Sorted by latitude, only neighbours within the spot's size need a look.
  const nearDeg = ONE_SPOT_M / 100_000;
  for (const { row: at, site } of found) {
    const clash = there.find((s) => Math.abs(s.latDeg - site.latDeg) < nearDeg && inverse(s, site).distanceM < ONE_SPOT_M);
    if (clash !== undefined) {
      count.refuse({ row: at, reason: `${clash.name} already stands on this spot` });
      continue;
    }
    there.push({ name: site.name, latDeg: site.latDeg, lonDeg: site.lonDeg });
    await db.insert(schema.site).values({ ...site, jobId: row.jobId!, importId: row.id });
    count.keep();
  }
};

/** Brings the places of a file in: all of them in one transaction, or none. */
export const importPlaces = async (db: Db, client: PoolClient, row: ImportRow, options: Options, path: string): Promise<void> => {
  const count = await counter(db, row, path);
  const sink = (feature: (f: RawFeature) => Promise<void>) => ({ feature, fault: count.refuse, note: count.note, enough: count.enough });
  const read = (feature: (f: RawFeature) => Promise<void>): Promise<void> =>
    readVector(path, row.fileName, questionOf(options), sink(feature)).then(() => undefined);
  await beginAs(client);
  try {
    const known = await placesOf(db, row.jobId!);
    const isFar = options.farTaken === true ? () => null : farReason(known);
    /** What may come in: a thing that lies far from the job only when it was said to be meant. */
    const near =
      <T>(make: (f: RawFeature) => Made<T>) =>
      (f: RawFeature): Made<T> => {
        const made = make(f);
        if ("reason" in made) return made;
        const far = isFar(f);
        return far === null ? made : { reason: far.reason };
      };
    if (options.what === "sites") {
      const make = near((f) => siteOf(f, options));
      const found: { row: number; site: FieldsOf<"site"> }[] = [];
      await read(async (f) => {
        const made = make(f);
        if ("reason" in made) count.refuse({ row: f.row, reason: made.reason });
        else if (found.push({ row: f.row, site: made.value }) > MOST_SITES) throw new FileFault(`it holds more than ${MOST_SITES} sites`);
      });
      await count.done();
      await insertSites(client, row, found, count);
    } else if (options.what === "obstacles") {
      const make = near((f) => obstacleOf(f, options));
      await copyAll(
        client,
        OBSTACLE_TABLE,
        (f) => {
          const made = make(f);
          if ("reason" in made) return made;
          const { outline, holes, ...fields } = made.value;
          return {
            value: obstacleLine(row.jobId!, row.id, randomUUID(), { ...fields, outline: latLons(outline), holes: holes.map(latLons) }),
          };
        },
        read,
        count,
      );
    } else {
      const make = near((f) => featureOf(f, options.nameColumn));
      await copyAll(
        client,
        FEATURE_TABLE,
        (f) => {
          const made = make(f);
          return "reason" in made ? made : { ...made, value: featureLine(row.jobId!, row.id, made.value.name, made.value.points) };
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
