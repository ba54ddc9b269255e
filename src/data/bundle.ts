import { eq, sql } from "drizzle-orm";
import type { FeatureInput } from "../core/link";
import { recordChange } from "./changes";
import { Refused } from "./clash";
import type { Db } from "./client";
import { polygonJson, shapeJson } from "./obstacle-edits";
import type { ObstacleRow } from "./obstacles";
import { brief, design, job, link, photo, site, terrainDataset } from "./schema";

/** Everything of one job as rows, ids included, on its way into a database. */
export interface JobRows {
  readonly job: Omit<typeof job.$inferInsert, "number" | "version" | "revision">;
  readonly brief: unknown;
  readonly sites: readonly Omit<typeof site.$inferInsert, "jobId">[];
  readonly links: readonly {
    readonly link: Omit<typeof link.$inferInsert, "jobId">;
    readonly design: Omit<typeof design.$inferInsert, "linkId">;
    readonly kept: readonly Omit<typeof design.$inferInsert, "linkId">[];
  }[];
  readonly obstacles: readonly Omit<ObstacleRow, "version" | "surveyedYear">[];
  readonly features: readonly (FeatureInput & { readonly id: string })[];
  readonly photos: readonly Omit<typeof photo.$inferInsert, "jobId">[];
}

const CHUNK = 400;

/** Writes a whole job, all of it or nothing. @throws Refused when a job of this id is here already. */
export const insertJobRows = (db: Db, rows: JobRows): Promise<string> =>
  db.transaction(async (tx) => {
    await tx.execute(sql`SELECT pg_advisory_xact_lock(4610)`);
    const id = rows.job.id!;
    const [here] = await tx.select({ number: job.number, name: job.name }).from(job).where(eq(job.id, id));
    if (here !== undefined) throw new Refused("job-exists", "job", { name: here.name, number: here.number });
    const [{ next } = { next: 1 }] = await tx.select({ next: sql<number>`coalesce(max(${job.number}), 0)::int + 1` }).from(job);
    await tx.insert(job).values({ ...rows.job, number: next });
    await tx.insert(brief).values({ jobId: id, doc: rows.brief });
    for (const s of rows.sites) await tx.insert(site).values({ ...s, jobId: id });
    for (const l of rows.links) {
      await tx.insert(link).values({ ...l.link, jobId: id });
      await tx.insert(design).values({ ...l.design, linkId: l.link.id! });
      for (const d of l.kept) await tx.insert(design).values({ ...d, linkId: l.link.id!, chosen: false });
    }
    for (let i = 0; i < rows.obstacles.length; i += CHUNK) {
      const values = rows.obstacles.slice(i, i + CHUNK).map(
        (
          o,
        ) => sql`(${o.id}, ${id}, ${o.name}, ${o.kind}, ST_SetSRID(ST_GeomFromGeoJSON(${polygonJson(o.outline)}), 4326), ${o.baseAmslM}, ${o.heightM},
          ${o.crownBaseM}, ${o.freeBelowM ?? 0}, ${o.growthMPerYear}, ${o.heightSigmaM}, ${o.species}, ${o.leaf}, ${o.source}, ${o.heightSource}, ${o.surveyedOn})`,
      );
      await tx.execute(sql`INSERT INTO obstacle (id, job_id, name, kind, outline, base_amsl_m, height_m, crown_base_m, free_below_m,
        growth_m_per_year, height_sigma_m, species, leaf, source, height_source, surveyed_on) VALUES ${sql.join(values, sql`, `)}`);
    }
    for (const f of rows.features) {
      await tx.execute(
        sql`INSERT INTO feature (id, job_id, name, shape) VALUES (${f.id}, ${id}, ${f.name}, ST_SetSRID(ST_GeomFromGeoJSON(${shapeJson(f.points)}), 4326))`,
      );
    }
    for (const p of rows.photos) await tx.insert(photo).values({ ...p, jobId: id });
    await recordChange(tx, { jobId: id, entity: "job", entityId: id, action: "create", before: null, after: { name: rows.job.name } });
    return id;
  });

/** Terrain that is here already, by id: a bundle's copy of it is not taken in again. */
export const datasetsHere = async (db: Db, ids: readonly string[]): Promise<Set<string>> => {
  if (ids.length === 0) return new Set();
  const rows = await db.select({ id: terrainDataset.id }).from(terrainDataset).where(sql`${terrainDataset.id} IN ${ids}`);
  return new Set(rows.map((r) => r.id));
};
