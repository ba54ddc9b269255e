import { createHash, randomUUID } from "node:crypto";
import { mkdtemp, readFile, rm, writeFile } from "node:fs/promises";
import { tmpdir } from "node:os";
import path from "node:path";
import { deepEqual } from "fast-equals";
import { strFromU8, strToU8, unzipSync, type Zippable, zipSync } from "fflate";
import { z } from "zod";
import {
  basisSchema,
  briefSchema,
  designFieldsSchema,
  featureFieldsSchema,
  groundToldSchema,
  newSiteSchema,
  obstacleFieldsSchema,
  photoFieldsSchema,
  uuid,
} from "../contract";
import { planeProjection } from "../core/geo";
import { cutTile } from "../core/terrain";
import { getBrief } from "../data/brief";
import { datasetsHere, insertJobRows } from "../data/bundle";
import { Refused } from "../data/clash";
import type { Db } from "../data/client";
import { listAntennas, listRadios, saveHardware } from "../data/hardware";
import { type JobRow, linksOf, sitesOf } from "../data/jobs";
import { keptDesigns } from "../data/links";
import { featuresOf, obstaclesOf } from "../data/obstacles";
import { photoBytes, photosOf } from "../data/photos";
import { type DatasetInput, datasetsIn, insertDatasetRow, insertTiles, TILE_CELLS, type Tile, tilesOf } from "../data/terrain-store";
import { antennaSchema, coordinateSystem, FileFault, gridToGeoTiff, openTerrain, radioSchema, reasonOf } from "../formats";
import { jobDto, keptDesignDto, linkDto, obstacleDto, photoDto, siteDto } from "./dto";

/* A whole job as one zip of open formats: JSON, GeoTIFF, JPEG, and a manifest with a checksum of each file. */

const VERSION = 1;
const FORMAT = "dry-arc-job";
/** Ground beyond the outermost sites that goes along: what a path between them can ask for. */
const MARGIN_DEG = 0.02;
const MOST_TERRAIN_CELLS = 60_000_000;
const MOST_UNPACKED_BYTES = 800_000_000;
const MOST_ENTRIES = 5000;
/** One moment for every entry: the same job gives the same bytes. */
const FIXED_TIME = new Date("2020-01-01T00:00:00Z");
const EVERYWHERE = { westDeg: -180, southDeg: -90, eastDeg: 180, northDeg: 90 };

const json = (value: unknown): Uint8Array => strToU8(`${JSON.stringify(value, null, 1)}\n`);
const byId = <T extends { readonly id: string }>(rows: readonly T[]): T[] => [...rows].sort((a, b) => (a.id < b.id ? -1 : 1));
const sha256 = (bytes: Uint8Array): string => createHash("sha256").update(bytes).digest("hex");

/** The part of a dataset a job needs, as whole tiles; null when none lies there. */
const terrainPart = async (db: Db, d: Awaited<ReturnType<typeof datasetsIn>>[number], box: typeof EVERYWHERE) => {
  const projection = planeProjection(d.crsDefinition ?? d.crs);
  const cols: number[] = [];
  const rows: number[] = [];
  const steps = 8;
  for (let i = 0; i <= steps; i++) {
    for (let k = 0; k <= steps; k++) {
      const [x, y] = projection.forward({
        latDeg: box.southDeg + ((box.northDeg - box.southDeg) * i) / steps,
        lonDeg: box.westDeg + ((box.eastDeg - box.westDeg) * k) / steps,
      });
      cols.push((x - d.originX) / d.stepX);
      rows.push((y - d.originY) / d.stepY);
    }
  }
  const tileRange = (values: number[], size: number): [number, number] => [
    Math.max(0, Math.floor(Math.min(...values) / TILE_CELLS)),
    Math.min(Math.ceil((size - 1) / TILE_CELLS), Math.floor(Math.max(...values) / TILE_CELLS) + 1),
  ];
  const [left, right] = tileRange(cols, d.cols);
  const [top, bottom] = tileRange(rows, d.rows);
  if (left >= right || top >= bottom) return null;
  const width = Math.min(d.cols, right * TILE_CELLS + 1) - left * TILE_CELLS;
  const height = Math.min(d.rows, bottom * TILE_CELLS + 1) - top * TILE_CELLS;
  if (width * height > MOST_TERRAIN_CELLS) throw new Refused("bundle-too-large", "terrain", { name: d.name });
  const values = new Float32Array(width * height).fill(Number.NaN);
  const stride = TILE_CELLS + 1;
  for (let r = top; r < bottom; r++) {
    for (const tile of await tilesOf(db, d.id, r)) {
      if (tile.tileCol < left || tile.tileCol >= right) continue;
      const c0 = (tile.tileCol - left) * TILE_CELLS;
      const r0 = (r - top) * TILE_CELLS;
      for (let y = 0; y < stride && r0 + y < height; y++) {
        const n = Math.min(stride, width - c0);
        values.set(tile.heightsM.subarray(y * stride, y * stride + n), (r0 + y) * width + c0);
      }
    }
  }
  return {
    values,
    cols: width,
    rows: height,
    originX: d.originX + left * TILE_CELLS * d.stepX,
    originY: d.originY + top * TILE_CELLS * d.stepY,
  };
};

const ndjson = (rows: readonly unknown[]): Uint8Array => strToU8(rows.map((r) => `${JSON.stringify(r)}\n`).join(""));
const without = <T extends object, K extends keyof T>(row: T, ...keys: K[]): Omit<T, K> => {
  const out = { ...row };
  for (const key of keys) delete out[key];
  return out;
};

/** The whole job as the bytes of one zip. The same data gives the same bytes. */
export const writeBundle = async (db: Db, row: JobRow): Promise<Uint8Array> => {
  const [sites, links, obstacles, features, brief, photos, radios, antennas] = await Promise.all([
    sitesOf(db, row.id),
    linksOf(db, row.id),
    obstaclesOf(db, row.id, EVERYWHERE, 1_000_000),
    featuresOf(db, row.id),
    getBrief(db, row.id),
    photosOf(db, row.id),
    listRadios(db),
    listAntennas(db),
  ]);
  const kept = (await Promise.all(byId(links).map((l) => keptDesigns(db, l.id)))).flat();
  const files: Record<string, Uint8Array> = {};
  files["job.json"] = json(without(jobDto(row), "number", "revision", "version", "updatedAt"));
  files["brief.json"] = json(briefSchema.parse(brief.doc));
  files["sites.json"] = json(byId(sites).map((s) => without(siteDto(s), "version")));
  files["links.json"] = json(
    byId(links).map((l) => {
      const dto = linkDto(l);
      const others = kept.filter((d) => d.linkId === l.id).map((d) => without(keptDesignDto(d), "version"));
      // A link without kept designs is written as ever.
      return {
        ...without(dto, "version", "updatedAt", "design"),
        design: without(dto.design, "version"),
        ...(others.length === 0 ? {} : { kept: others }),
      };
    }),
  );
  files["obstacles.ndjson"] = ndjson(byId(obstacles).map((o) => without(obstacleDto(o), "version")));
  files["features.ndjson"] = ndjson(
    byId(features).map((f) => ({ id: f.id, name: f.name, points: f.points.map((p) => [p.lonDeg, p.latDeg]) })),
  );
  const used = new Set(
    [...links.map((l) => l.design), ...kept].flatMap((d) => [d.nearRadioId, d.farRadioId, d.nearAntennaId, d.farAntennaId]),
  );
  const sheets = <T extends { id: string; sheet: unknown; source: string }>(rows: readonly T[]) =>
    byId(rows.filter((r) => used.has(r.id))).map((r) => ({ source: r.source, sheet: r.sheet }));
  files["hardware.json"] = json({ radios: sheets(radios), antennas: sheets(antennas) });
  files["photos.json"] = json(byId(photos).map((p) => ({ ...without(photoDto(p), "version"), mime: p.mime })));
  for (const p of photos) files[`photos/${p.id}`] = new Uint8Array((await photoBytes(db, p.id)).bytes);
  const terrain: unknown[] = [];
  if (sites.length > 0) {
    const lats = sites.map((s) => s.latDeg);
    const lons = sites.map((s) => s.lonDeg);
    const box = {
      southDeg: Math.min(...lats) - MARGIN_DEG,
      northDeg: Math.max(...lats) + MARGIN_DEG,
      westDeg: Math.min(...lons) - MARGIN_DEG,
      eastDeg: Math.max(...lons) + MARGIN_DEG,
    };
    for (const d of byId(await datasetsIn(db, box))) {
      const part = await terrainPart(db, d, box);
      if (part === null) continue;
      const { values, ...frame } = part;
      const { name, kind, crs, stepX, stepY, cellM, sigmaM, verticalDatum, datumOffsetM, verticalUnit, source } = d;
      terrain.push({ id: d.id, name, kind, crs, ...frame, stepX, stepY, cellM, sigmaM, verticalDatum, datumOffsetM, verticalUnit, source });
      files[`terrain/${d.id}.tif`] = gridToGeoTiff({ values, ...frame, stepX, stepY, epsg: Number(crs.slice(5)) });
    }
  }
  files["terrain.json"] = json(terrain);
  const names = Object.keys(files).sort();
  files["manifest.json"] = json({
    format: FORMAT,
    version: VERSION,
    jobId: row.id,
    name: row.name,
    files: Object.fromEntries(names.map((n) => [n, { bytes: files[n]!.length, sha256: sha256(files[n]!) }])),
  });
  const zip: Zippable = {};
  for (const n of ["manifest.json", ...names]) zip[n] = [files[n]!, { mtime: FIXED_TIME, level: n.startsWith("photos/") ? 0 : 6 }];
  return zipSync(zip);
};

const manifestSchema = z.object({
  format: z.literal(FORMAT),
  version: z.number().int(),
  jobId: uuid,
  name: z.string(),
  files: z.record(z.string(), z.object({ bytes: z.number(), sha256: z.string() })),
});
const jobSchema = basisSchema.extend({
  id: uuid,
  name: z.string().min(1).max(80),
  place: z.string().max(80),
  stage: z.string().max(80),
  visitOn: z.iso.date(),
  centreLatDeg: z.number().min(-90).max(90),
  centreLonDeg: z.number().min(-180).max(180),
});
const siteSchema = newSiteSchema.extend({ id: uuid });
/** A design written before permissions had fields: its words become a number that covers the channel of the design. */
const upgraded = (raw: unknown): unknown => {
  if (raw === null || typeof raw !== "object" || !("permission" in raw)) return raw;
  const { permission, ...rest } = raw as Record<string, unknown>;
  if (typeof permission !== "string" || permission.trim() === "" || "permissions" in rest) return rest;
  const half = Number(rest.widthMhz) / 2;
  const covers = { lowMhz: Number(rest.centreMhz) - half, highMhz: Number(rest.centreMhz) + half };
  const words = {
    kind: "",
    holder: "",
    number: permission.trim().slice(0, 120),
    place: "",
    note: permission.length > 120 ? permission.slice(0, 500) : "",
  };
  return { ...rest, permissions: [{ ...words, ...covers, maxEirpDbm: null, from: null, until: null }] };
};
const linkSchema = z.object({
  id: uuid,
  number: z.number().int().min(1),
  nearSiteId: uuid,
  farSiteId: uuid,
  label: z.string().max(80),
  stage: z.string().max(80),
  groundTold: groundToldSchema.nullable(),
  design: z.preprocess(upgraded, designFieldsSchema.extend({ id: uuid })),
  kept: z
    .array(z.preprocess(upgraded, designFieldsSchema.extend({ id: uuid, name: z.string().max(40) })))
    .max(20)
    .default([]),
});
const obstacleSchema = z.intersection(z.object({ id: uuid }), obstacleFieldsSchema);
const featureSchema = featureFieldsSchema.extend({ id: uuid });
const hardwareSchema = z.object({
  radios: z.array(z.object({ source: z.string(), sheet: radioSchema })),
  antennas: z.array(z.object({ source: z.string(), sheet: antennaSchema })),
});
const photoSchema = photoFieldsSchema.extend({ id: uuid, mime: z.enum(["image/jpeg", "image/png", "image/webp"]) });
const terrainSchema = z.object({
  id: uuid,
  name: z.string().max(80),
  kind: z.enum(["dtm", "dsm"]),
  crs: z.string().regex(/^EPSG:\d{4,6}$/),
  cols: z.number().int().min(2),
  rows: z.number().int().min(2),
  originX: z.number(),
  originY: z.number(),
  stepX: z.number(),
  stepY: z.number(),
  cellM: z.number().gt(0),
  sigmaM: z.number().min(0),
  verticalDatum: z.string().max(60),
  datumOffsetM: z.number(),
  verticalUnit: z.string().max(10),
  source: z.string().max(200),
});

const unpack = (bytes: Uint8Array): Record<string, Uint8Array> => {
  let total = 0;
  let entries = 0;
  try {
    return unzipSync(bytes, {
      filter: (f) => {
        total += f.originalSize;
        if (++entries > MOST_ENTRIES || total > MOST_UNPACKED_BYTES) throw new FileFault("it unpacks to more than is taken");
        return true;
      },
    });
  } catch (error) {
    throw error instanceof FileFault ? error : new FileFault(`it cannot be unpacked: ${reasonOf(error)}`);
  }
};

const readJson = <T>(files: Record<string, Uint8Array>, name: string, schema: z.ZodType<T>): T => {
  const bytes = files[name];
  if (bytes === undefined) throw new FileFault(`it lacks ${name}`);
  let value: unknown;
  try {
    value = name.endsWith(".ndjson")
      ? strFromU8(bytes)
          .split("\n")
          .filter((l) => l !== "")
          .map((l) => JSON.parse(l) as unknown)
      : JSON.parse(strFromU8(bytes));
  } catch {
    throw new FileFault(`${name} inside it is not JSON`);
  }
  const parsed = schema.safeParse(value);
  if (parsed.success) return parsed.data;
  const issue = parsed.error.issues[0]!;
  throw new FileFault(`${name} inside it, ${issue.path.join(".")}: ${issue.message}`);
};

/** Every id of the job exchanged for a new one, in all its texts: the copy stands beside the original. */
const renamed = (files: Record<string, Uint8Array>): Record<string, Uint8Array> => {
  const ids = new Map<string, string>();
  const collect = (value: unknown): void => {
    if (Array.isArray(value)) for (const v of value) collect(v);
    else if (value !== null && typeof value === "object") {
      const { id } = value as { id?: unknown };
      if (typeof id === "string" && uuid.safeParse(id).success) ids.set(id, randomUUID());
      for (const v of Object.values(value)) collect(v);
    }
  };
  const texts = ["job.json", "sites.json", "links.json", "obstacles.ndjson", "features.ndjson", "photos.json"];
  for (const n of texts) collect(readJson(files, n, z.unknown()));
  const out: Record<string, Uint8Array> = {};
  for (const [name, bytes] of Object.entries(files)) {
    const isText = texts.includes(name) || name === "brief.json";
    const next = isText
      ? strToU8(strFromU8(bytes).replaceAll(/[0-9a-f]{8}-[0-9a-f]{4}-[0-9a-f]{4}-[0-9a-f]{4}-[0-9a-f]{12}/g, (id) => ids.get(id) ?? id))
      : bytes;
    out[name.startsWith("photos/") ? `photos/${ids.get(name.slice(7)) ?? name.slice(7)}` : name] = next;
  }
  return out;
};

const takeTerrain = async (db: Db, files: Record<string, Uint8Array>): Promise<void> => {
  const list = readJson(files, "terrain.json", z.array(terrainSchema).max(200));
  const here = await datasetsHere(
    db,
    list.map((d) => d.id),
  );
  for (const d of list) {
    if (here.has(d.id)) continue;
    const bytes = files[`terrain/${d.id}.tif`];
    if (bytes === undefined) throw new FileFault(`it lacks terrain/${d.id}.tif`);
    const dir = await mkdtemp(path.join(tmpdir(), "dry-arc-"));
    try {
      const file = path.join(dir, "part.tif");
      await writeFile(file, bytes);
      const source = await openTerrain(file, "part.tif");
      if (source.cols !== d.cols || source.rows !== d.rows)
        throw new FileFault(`terrain/${d.id}.tif is not the grid that terrain.json says`);
      const values = await source.read(0, 0, d.cols, d.rows);
      await source.close();
      const input: DatasetInput = { ...d, crsDefinition: coordinateSystem(Number(d.crs.slice(5))).definition };
      await db.transaction(async (tx) => {
        await insertDatasetRow(tx, input, d.id);
        for (let tileRow = 0; tileRow * TILE_CELLS < d.rows - 1; tileRow++) {
          const tiles: Tile[] = [];
          for (let tileCol = 0; tileCol * TILE_CELLS < d.cols - 1; tileCol++) {
            const heightsM = cutTile(values, d.cols, d.rows, TILE_CELLS, tileRow, tileCol);
            if (heightsM.some((h) => !Number.isNaN(h))) tiles.push({ tileRow, tileCol, heightsM });
          }
          await insertTiles(tx, d.id, tiles);
        }
      });
    } finally {
      await rm(dir, { recursive: true, force: true });
    }
  }
};

/**
 * Takes a bundle in: everything, or nothing of the job. Terrain and radios that are here already are kept as they are.
 * @param asCopy gives everything new ids, so that the job can stand beside the one it came from.
 * @returns the job's id, and radios whose sheet here differs from the bundle's.
 * @throws FileFault naming what is wrong with which file inside; Refused when the job is here already.
 */
export const readBundle = async (db: Db, file: string, asCopy: boolean): Promise<{ jobId: string; differing: string[] }> => {
  const packed = unpack(new Uint8Array(await readFile(file)));
  const manifest = readJson(packed, "manifest.json", manifestSchema);
  if (manifest.version !== VERSION) throw new FileFault(`it is of version ${manifest.version}; this program reads version ${VERSION}`);
  for (const [name, known] of Object.entries(manifest.files)) {
    const bytes = packed[name];
    if (bytes === undefined) throw new FileFault(`it lacks ${name}`);
    if (sha256(bytes) !== known.sha256) throw new FileFault(`${name} inside it was changed or damaged: its checksum does not match`);
  }
  const files = asCopy ? renamed(packed) : packed;
  const jobFields = readJson(files, "job.json", jobSchema);
  const briefDoc = readJson(files, "brief.json", briefSchema);
  const sites = readJson(files, "sites.json", z.array(siteSchema).max(5000));
  const links = readJson(files, "links.json", z.array(linkSchema).max(5000));
  const obstacles = readJson(files, "obstacles.ndjson", z.array(obstacleSchema).max(1_000_000));
  const features = readJson(files, "features.ndjson", z.array(featureSchema).max(100_000));
  const hardware = readJson(files, "hardware.json", hardwareSchema);
  const photos = readJson(files, "photos.json", z.array(photoSchema).max(2000));
  const here = [...(await listRadios(db)), ...(await listAntennas(db))];
  const known = new Map(here.map((r) => [r.id, r.sheet as unknown]));
  const all = [...hardware.radios, ...hardware.antennas];
  const differing = all.filter((h) => known.has(h.sheet.id) && !deepEqual(known.get(h.sheet.id), h.sheet)).map((h) => h.sheet.name);
  for (const [kind, rows] of Object.entries(hardware) as ["radios" | "antennas", typeof all][]) {
    for (const h of rows.filter((r) => !known.has(r.sheet.id))) {
      await saveHardware(db, { radios: [], antennas: [], [kind]: [h.sheet], source: h.source } as never);
    }
  }
  await takeTerrain(db, files);
  const jobId = await insertJobRows(db, {
    job: { ...jobFields, name: asCopy ? `${jobFields.name.slice(0, 72)}, copy` : jobFields.name },
    brief: briefDoc,
    sites,
    links: links.map(({ design, kept, ...link }) => ({ link, design, kept })),
    obstacles: obstacles.map((o) => ({ ...o, outline: o.outline.map(([lonDeg, latDeg]) => ({ latDeg, lonDeg })) })),
    features: features.map((f) => ({ ...f, points: f.points.map(([lonDeg, latDeg]) => ({ latDeg, lonDeg })) })),
    photos: photos.map((p) => {
      const bytes = files[`photos/${p.id}`];
      if (bytes === undefined) throw new FileFault(`it lacks photos/${p.id}`);
      return { ...p, bytes: Buffer.from(bytes) };
    }),
  });
  return { jobId, differing };
};
