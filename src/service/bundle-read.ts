import { createHash, randomUUID } from "node:crypto";
import { createReadStream } from "node:fs";
import { readFile } from "node:fs/promises";
import { createInterface } from "node:readline";
import { deepEqual } from "fast-equals";
import { z } from "zod";
import { briefSchema } from "../contract";
import { planeProjection } from "../core/geo";
import { type JobRows, jobHere, takenIds } from "../data/bundle";
import { Refused } from "../data/clash";
import type { Db } from "../data/client";
import { listAntennas, listRadios } from "../data/hardware";
import { type DatasetRow, datasetsById } from "../data/terrain-store";
import { coordinateSystem, FileFault, isCleanText, openTerrain, type TerrainSource, type Unpacked } from "../formats";
import {
  featureSchema,
  hardwareSchema,
  jobSchema,
  linkSchema,
  manifestSchema,
  obstacleSchema,
  photoSchema,
  siteSchema,
  terrainSchema,
  VERSION,
} from "./bundle-format";

/* A job on its way in: every file is checked before anything is written, and what is large is read as it streams by. */

export type TerrainPart = z.output<typeof terrainSchema> & { readonly file: string };

/** A bundle that was looked through: what it holds, with the ids its rows are to have here. */
export interface OpenBundle {
  readonly rows: Omit<JobRows, "obstacles">;
  readonly obstacles: () => AsyncGenerator<JobRows["obstacles"][number]>;
  readonly photo: (id: string) => Promise<Buffer>;
  /** Terrain that is not here yet. */
  readonly terrain: readonly TerrainPart[];
  readonly hardware: { readonly radios: readonly Sheet[]; readonly antennas: readonly Sheet[] };
  /** Radios and antennas whose sheet here differs from the bundle's. */
  readonly differing: readonly string[];
}
type Sheet = { readonly source: string; readonly sheet: { readonly id: string; readonly name: string } };

const hashOf = async (file: string): Promise<string> => {
  const hash = createHash("sha256");
  for await (const chunk of createReadStream(file)) hash.update(chunk as Buffer);
  return hash.digest("hex");
};

const parsed = <T>(name: string, value: unknown, schema: z.ZodType<T>): T => {
  const found = unclean(value, []);
  if (found !== null) throw new FileFault(`${name} inside it, ${found}: it holds a character that cannot be kept`);
  const result = schema.safeParse(value);
  if (result.success) return result.data;
  const issue = result.error.issues[0]!;
  throw new FileFault(`${name} inside it, ${issue.path.join(".")}: ${issue.message}`);
};

/** Path of a text that cannot be kept, or null. */
const unclean = (value: unknown, path: readonly (string | number)[]): string | null => {
  if (typeof value === "string") return isCleanText(value) ? null : path.join(".");
  if (value === null || typeof value !== "object") return null;
  for (const [key, v] of Object.entries(value)) {
    const found = isCleanText(key) ? unclean(v, [...path, key]) : path.join(".");
    if (found !== null) return found;
  }
  return null;
};

const jsonOf = (name: string, text: string): unknown => {
  try {
    return JSON.parse(text);
  } catch {
    throw new FileFault(`${name} inside it is not JSON`);
  }
};

/** Largest file of a bundle that is read whole. */
const MOST_JSON_BYTES = 60_000_000;

/** Files of a bundle by their names, each as its manifest says. */
const checked = async (unpacked: readonly Unpacked[]): Promise<ReadonlyMap<string, Unpacked>> => {
  const files = new Map(unpacked.map((f) => [f.name, f]));
  const manifest = await readWhole(files, "manifest.json", manifestSchema);
  if (manifest.version !== VERSION) throw new FileFault(`it is of version ${manifest.version}; this program reads version ${VERSION}`);
  for (const [name, known] of Object.entries(manifest.files)) {
    const f = files.get(name);
    if (f === undefined) throw new FileFault(`it lacks ${name}`);
    if ((await hashOf(f.file)) !== known.sha256)
      throw new FileFault(`${name} inside it was changed or damaged: its checksum does not match`);
  }
  return files;
};

const readWhole = async <T>(files: ReadonlyMap<string, Unpacked>, name: string, schema: z.ZodType<T>): Promise<T> => {
  const f = files.get(name);
  if (f === undefined) throw new FileFault(`it lacks ${name}`);
  if (f.bytes > MOST_JSON_BYTES) throw new FileFault(`${name} inside it is larger than any that is taken`);
  return parsed(name, jsonOf(name, await readFile(f.file, "utf8")), schema);
};

async function* linesOf<T>(files: ReadonlyMap<string, Unpacked>, name: string, schema: z.ZodType<T>): AsyncGenerator<T> {
  const f = files.get(name);
  if (f === undefined) throw new FileFault(`it lacks ${name}`);
  let n = 0;
  for await (const line of createInterface({ input: createReadStream(f.file, "utf8"), crlfDelay: Number.POSITIVE_INFINITY })) {
    n++;
    if (line !== "") yield parsed(`${name}, line ${n},`, jsonOf(`${name}, line ${n},`, line), schema);
  }
}

const all = async <T>(rows: AsyncGenerator<T>, most: number, name: string): Promise<T[]> => {
  const out: T[] = [];
  for await (const row of rows) if (out.push(row) > most) throw new FileFault(`${name} inside it has more than ${most} rows`);
  return out;
};

/** Terrain counts as the same when it lies in the same place, cell for cell: an id alone says nothing. */
const isSame = (d: z.output<typeof terrainSchema>, here: DatasetRow): boolean => {
  if (d.crs !== here.crs || d.stepX !== here.stepX || d.stepY !== here.stepY || d.kind !== here.kind || here.deletedAt !== null)
    return false;
  const col = (d.originX - here.originX) / here.stepX;
  const row = (d.originY - here.originY) / here.stepY;
  const within = (at: number, size: number, of: number): boolean =>
    Math.abs(at - Math.round(at)) < 1e-6 && at > -0.5 && at + size < of + 0.5;
  return within(col, d.cols, here.cols) && within(row, d.rows, here.rows);
};

/** Looks a terrain file of a bundle through before anything is written. @throws FileFault when it is not what its list says. */
const checkTerrain = async (d: TerrainPart): Promise<void> => {
  const system = coordinateSystem(Number(d.crs.slice(5)));
  planeProjection(system.definition ?? system.crs);
  const source = await openTerrain(d.file, "part.tif");
  try {
    const same = (a: number, b: number, step: number): boolean => Math.abs(a - b) < Math.abs(step) * 1e-3;
    const fits =
      source.cols === d.cols &&
      source.rows === d.rows &&
      same(source.originX, d.originX, d.stepX) &&
      same(source.originY, d.originY, d.stepY) &&
      same(source.stepX, d.stepX, d.stepX) &&
      same(source.stepY, d.stepY, d.stepY);
    if (!fits) throw new FileFault(`terrain/${d.id}.tif is not the grid that terrain.json says`);
  } finally {
    await source.close();
  }
};

/** Opens a terrain file that was looked through before. */
export const openPart = (d: TerrainPart): Promise<TerrainSource> => openTerrain(d.file, "part.tif");

/**
 * Looks an unpacked bundle through.
 * @param asCopy gives the job a new id, so that it can stand beside the one it came from.
 * @throws FileFault naming what is wrong with which file inside; Refused when the job is here already.
 */
export const openBundle = async (db: Db, unpacked: readonly Unpacked[], asCopy: boolean): Promise<OpenBundle> => {
  const files = await checked(unpacked);
  const job = await readWhole(files, "job.json", jobSchema);
  const brief = await readWhole(files, "brief.json", briefSchema);
  const sites = await readWhole(files, "sites.json", z.array(siteSchema).max(20_000));
  const links = await readWhole(files, "links.json", z.array(linkSchema).max(20_000));
  const features = await all(linesOf(files, "features.ndjson", featureSchema), 100_000, "features.ndjson");
  const hardware = await readWhole(files, "hardware.json", hardwareSchema);
  const photos = await readWhole(files, "photos.json", z.array(photoSchema).max(2000));
  const terrain = await readWhole(files, "terrain.json", z.array(terrainSchema).max(200));
  const obstacleIds = new Set<string>();
  for await (const o of linesOf(files, "obstacles.ndjson", obstacleSchema)) {
    if (obstacleIds.has(o.id)) throw new FileFault(`obstacles.ndjson inside it names ${o.id} twice`);
    obstacleIds.add(o.id);
  }
  for (const p of photos) if (!files.has(`photos/${p.id}`)) throw new FileFault(`it lacks photos/${p.id}`);

  const here = await jobHere(db, job.id);
  if (here !== null && !here.gone && !asCopy) throw new Refused("job-exists", "job", { name: here.name, number: here.number });
  // Ids out of a file are only names: they are kept where nothing here has them, so that the same job comes out again.
  const fresh = asCopy || here !== null || (await takenIds(db, { sites, links, features, photos, obstacles: [...obstacleIds] }));
  const ids = new Map<string, string>();
  const named = (id: string): string => {
    if (!fresh) return id;
    let own = ids.get(id);
    if (own === undefined) {
      own = randomUUID();
      ids.set(id, own);
    }
    return own;
  };
  const siteIds = new Set(sites.map((s) => s.id));
  for (const l of links)
    for (const id of [l.nearSiteId, l.farSiteId])
      if (!siteIds.has(id)) throw new FileFault(`links.json inside it names a site ${id} that sites.json lacks`);
  for (const p of photos)
    if (p.siteId !== null && !siteIds.has(p.siteId))
      throw new FileFault(`photos.json inside it names a site ${p.siteId} that sites.json lacks`);

  const sheetsHere = new Map([...(await listRadios(db)), ...(await listAntennas(db))].map((r) => [r.id, r.sheet as unknown]));
  const isNew = (h: Sheet): boolean => !sheetsHere.has(h.sheet.id);
  const terrainHere = new Map(
    (
      await datasetsById(
        db,
        terrain.map((d) => d.id),
      )
    ).map((d) => [d.id, d]),
  );
  const missing: TerrainPart[] = [];
  for (const d of terrain) {
    const known = terrainHere.get(d.id);
    if (known !== undefined && isSame(d, known)) continue;
    const f = files.get(`terrain/${d.id}.tif`);
    if (f === undefined) throw new FileFault(`it lacks terrain/${d.id}.tif`);
    const part = { ...d, file: f.file };
    await checkTerrain(part);
    // An id that is here already belongs to another extent.
    missing.push(known === undefined ? part : { ...part, id: randomUUID() });
  }
  const photoFile = new Map(photos.map((p) => [named(p.id), files.get(`photos/${p.id}`)!.file]));
  return {
    rows: {
      job: { ...job, id: here === null && !asCopy ? job.id : randomUUID(), name: asCopy ? `${job.name.slice(0, 72)}, copy` : job.name },
      brief: JSON.parse(JSON.stringify(brief), (_key, v: unknown) => (typeof v === "string" && siteIds.has(v) ? named(v) : v)),
      sites: sites.map((s) => ({ ...s, id: named(s.id) })),
      links: links.map(({ design, kept, ...link }) => ({
        link: { ...link, id: named(link.id), nearSiteId: named(link.nearSiteId), farSiteId: named(link.farSiteId) },
        design: trimsNamed({ ...design, id: named(design.id) }, named, obstacleIds),
        kept: kept.map((d) => trimsNamed({ ...d, id: named(d.id) }, named, obstacleIds)),
      })),
      features: features.map((f) => ({ ...f, id: named(f.id), points: f.points.map(([lonDeg, latDeg]) => ({ latDeg, lonDeg })) })),
      photos: photos.map((p) => ({ ...p, id: named(p.id), siteId: p.siteId === null ? null : named(p.siteId) })),
    },
    obstacles: async function* () {
      const at = ([lonDeg, latDeg]: readonly [number, number]) => ({ latDeg, lonDeg });
      for await (const o of linesOf(files, "obstacles.ndjson", obstacleSchema))
        yield { ...o, id: named(o.id), outline: o.outline.map(at), holes: o.holes.map((h) => h.map(at)) };
    },
    photo: (id) => readFile(photoFile.get(id)!),
    terrain: missing,
    hardware: { radios: hardware.radios.filter(isNew), antennas: hardware.antennas.filter(isNew) },
    differing: [...hardware.radios, ...hardware.antennas]
      .filter((h) => !isNew(h) && !deepEqual(sheetsHere.get(h.sheet.id), h.sheet))
      .map((h) => h.sheet.name),
  };
};

/** A design's cuts of trees name obstacles. */
const trimsNamed = <T extends { readonly trimsM: Readonly<Record<string, number>> }>(
  d: T,
  named: (id: string) => string,
  known: ReadonlySet<string>,
): T => ({
  ...d,
  trimsM: Object.fromEntries(Object.entries(d.trimsM).map(([id, m]) => [known.has(id) ? named(id) : id, m])),
});
