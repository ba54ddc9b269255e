import { eq, sql } from "drizzle-orm";
import type { FeatureInput } from "../core/link";
import { recordChange, type Tx } from "./changes";
import { Refused } from "./clash";
import type { Db } from "./client";
import { type ObstacleFields, shapeJson } from "./obstacle-edits";
import { brief, design, job, link, photo, site } from "./schema";

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
  readonly obstacles: readonly (ObstacleFields & { readonly id: string })[];
  readonly features: readonly (FeatureInput & { readonly id: string })[];
  readonly photos: readonly Omit<typeof photo.$inferInsert, "jobId" | "bytes">[];
}

/** A job of this id, if one is or was here. */
export const jobHere = async (db: Db, jobId: string): Promise<{ name: string; number: number; gone: boolean } | null> => {
  const [here] = await db.select({ number: job.number, name: job.name, deletedAt: job.deletedAt }).from(job).where(eq(job.id, jobId));
  return here === undefined ? null : { name: here.name, number: here.number, gone: here.deletedAt !== null };
};

/** True when any row of a bundle has the id of a row that is here. */
export const takenIds = async (
  db: Db,
  rows: {
    sites: readonly { id: string }[];
    links: readonly { id: string; design: { id: string }; kept: readonly { id: string }[] }[];
    features: readonly { id: string }[];
    photos: readonly { id: string }[];
    obstacles: readonly string[];
  },
): Promise<boolean> => {
  const taken = async (table: string, ids: readonly string[]): Promise<boolean> => {
    if (ids.length === 0) return false;
    const r = await db.execute<{ taken: boolean }>(
      sql`SELECT EXISTS (SELECT FROM ${sql.identifier(table)} WHERE id = ANY(${sql.param([...ids])}::uuid[])) AS taken`,
    );
    return r.rows[0]?.taken === true;
  };
  const of = (list: readonly { id: string }[]): string[] => list.map((r) => r.id);
  const found = await Promise.all([
    taken("site", of(rows.sites)),
    taken("link", of(rows.links)),
    taken(
      "design",
      rows.links.flatMap((l) => [l.design.id, ...of(l.kept)]),
    ),
    taken("feature", of(rows.features)),
    taken("photo", of(rows.photos)),
    taken("obstacle", rows.obstacles),
  ]);
  return found.some(Boolean);
};

/** Writes a whole job but its obstacles, within a transaction. @throws Refused when a job of this id is here already. */
export const insertJobRows = async (
  tx: Tx,
  rows: Omit<JobRows, "obstacles">,
  bytesOf: (photoId: string) => Promise<Buffer>,
): Promise<string> => {
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
  for (const f of rows.features) {
    await tx.execute(
      sql`INSERT INTO feature (id, job_id, name, shape) VALUES (${f.id}, ${id}, ${f.name}, ST_SetSRID(ST_GeomFromGeoJSON(${shapeJson(f.points)}), 4326))`,
    );
  }
  for (const p of rows.photos) await tx.insert(photo).values({ ...p, bytes: await bytesOf(p.id!), jobId: id });
  await recordChange(tx, { jobId: id, entity: "job", entityId: id, action: "create", before: null, after: { name: rows.job.name } });
  return id;
};
