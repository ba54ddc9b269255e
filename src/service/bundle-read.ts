import { createHash, randomUUID } from "node:crypto";
import { createReadStream } from "node:fs";
import { readFile } from "node:fs/promises";
import { createInterface } from "node:readline";
import { deepEqual } from "fast-equals";
import { z } from "zod";
import { kindOf, kinds } from "../contract";
import { planeProjection } from "../core/geo";
import { type ComingRow, type JobRows, jobHere, takenIds } from "../data/bundle";
import { Refused } from "../data/clash";
import type { Db } from "../data/client";
import { type KeptPart, listAntennas, listParts, listRadios } from "../data/hardware";
import { mayEdit } from "../data/records";
import { type DatasetRow, datasetsById } from "../data/terrain-store";
import { coordinateSystem, FileFault, isCleanText, openTerrain, type TerrainSource, type Unpacked } from "../formats";
import {
  ALWAYS_THERE,
  hardwareSchema,
  jobSchema,
  linkSchema,
  MOST_ROWS,
  manifestSchema,
  rowSchemaOf,
  terrainSchema,
  VERSION,
  withoutMarks,
} from "./bundle-format";

/* A job on its way in: every file is checked before anything is written, and what is large is read as it streams by. */

export type TerrainPart = z.output<typeof terrainSchema> & { readonly file: string };

/** A bundle that was looked through: what it holds, with the ids its rows are to have here. */
export interface OpenBundle {
  readonly rows: JobRows;
  readonly obstacles: () => AsyncGenerator<ComingRow>;
  /** The file that a record holds, of kinds that hold one. */
  readonly bytes: (kind: string, id: string) => Promise<Buffer | null>;
  /** Terrain that is not here yet. */
  readonly terrain: readonly TerrainPart[];
  readonly hardware: {
    readonly radios: readonly Sheet[];
    readonly antennas: readonly Sheet[];
    readonly parts: readonly (Sheet & { sheet: KeptPart })[];
  };
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

/** Records of all kinds but the job itself and its obstacles, in the order in which they can be written. */
const readRecords = async (files: ReadonlyMap<string, Unpacked>): Promise<ComingRow[]> => {
  const out: ComingRow[] = [];
  const put = (kind: string, { id, ...values }: Record<string, unknown> & { id?: string }): void => {
    out.push({ kind, id: id ?? "", values });
  };
  for (const [name, k] of kinds()) {
    const place = k.bundle;
    if (place === null || place.form === "within" || name === "job" || name === "obstacle") continue;
    if (!files.has(place.file) && !ALWAYS_THERE.has(place.file)) continue;
    mayEdit(name);
    if (place.form === "one") put(name, (await readWhole(files, place.file, k.fields)) as Record<string, unknown>);
    else if (name === "link") {
      for (const { design, kept, ...link } of await readWhole(files, place.file, z.array(linkSchema).max(MOST_ROWS))) {
        put("link", link);
        for (const [i, d] of [design, ...kept].entries())
          put("design", { name: "", ...(d as Record<string, unknown>), linkId: (link as { id: string }).id, chosen: i === 0 });
      }
    } else {
      const schema = rowSchemaOf(name);
      const rows =
        place.form === "list"
          ? await readWhole(files, place.file, z.array(schema).max(MOST_ROWS))
          : await all(linesOf(files, place.file, schema), MOST_ROWS, place.file);
      for (const row of rows) {
        if (place.bytes !== undefined && !files.has(`${place.bytes}/${row.id}`)) throw new FileFault(`it lacks ${place.bytes}/${row.id}`);
        put(name, row);
      }
    }
  }
  return out;
};

/** What a record names must be in the same bundle. */
const checkReferences = (rows: readonly ComingRow[]): void => {
  const there = new Set(rows.map((r) => `${r.kind} ${r.id}`));
  for (const r of rows) {
    const k = kindOf(r.kind);
    for (const [field, other] of Object.entries(k.refs ?? {})) {
      const id = r.values[field];
      if (typeof id === "string" && !there.has(`${other} ${id}`))
        throw new FileFault(
          `${k.bundle!.file} inside it names a ${kindOf(other).words.one} ${id} that ${kindOf(other).bundle!.file} lacks`,
        );
    }
  }
};

/**
 * Looks an unpacked bundle through.
 * @param asCopy gives the job a new id, so that it can stand beside the one it came from.
 * @param allNew gives everything new ids: some of them stand in a firm whose rows are not seen here.
 * @throws FileFault naming what is wrong with which file inside; Refused when the job is here already.
 */
export const openBundle = async (db: Db, unpacked: readonly Unpacked[], asCopy: boolean, allNew = false): Promise<OpenBundle> => {
  const files = await checked(unpacked);
  const job = await readWhole(files, "job.json", jobSchema);
  const read = await readRecords(files);
  const hardware = await readWhole(files, "hardware.json", hardwareSchema);
  const terrain = await readWhole(files, "terrain.json", z.array(terrainSchema).max(200));
  const obstacleIds = new Set<string>();
  for await (const o of linesOf(files, "obstacles.ndjson", rowSchemaOf("obstacle"))) {
    if (obstacleIds.has(o.id)) throw new FileFault(`obstacles.ndjson inside it names ${o.id} twice`);
    obstacleIds.add(o.id);
  }
  checkReferences(read);

  const here = await jobHere(db, job.id);
  if (here !== null && !here.gone && !asCopy) throw new Refused("job-exists", "job", { name: here.name, number: here.number });
  // Ids out of a file are only names: they are kept where nothing here has them, so that the same job comes out again.
  const byKind = new Map<string, string[]>([["obstacle", [...obstacleIds]]]);
  for (const r of read) byKind.set(r.kind, [...(byKind.get(r.kind) ?? []), r.id]);
  // What there is one of in a job lies under the job's own id.
  for (const [name, k] of kinds()) if (!k.many) byKind.delete(name);
  const fresh = allNew || asCopy || here !== null || (await takenIds(db, byKind));
  const inFile = new Set([...byKind.values()].flat());
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
  // Wherever a record names another, as a value or as a key.
  const renamed = (value: unknown): unknown => {
    if (typeof value === "string") return inFile.has(value) ? named(value) : value;
    if (Array.isArray(value)) return value.map(renamed);
    if (value === null || typeof value !== "object") return value;
    return Object.fromEntries(Object.entries(value).map(([key, v]) => [inFile.has(key) ? named(key) : key, renamed(v)]));
  };
  const jobId = here === null && !asCopy && !allNew ? job.id : randomUUID();

  const sheetsHere = new Map(
    [...(await listRadios(db)), ...(await listAntennas(db)), ...(await listParts(db))].map((r) => [r.id, withoutMarks(r.sheet)]),
  );
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
    missing.push(known === undefined && !allNew ? part : { ...part, id: randomUUID() });
  }
  const fileOf = new Map(
    read.flatMap((r) => {
      const folder = kindOf(r.kind).bundle?.bytes;
      return folder === undefined ? [] : [[`${r.kind} ${named(r.id)}`, files.get(`${folder}/${r.id}`)!.file] as const];
    }),
  );
  const { id: _id, ...basis } = job;
  return {
    rows: {
      job: { kind: "job", id: jobId, values: { ...basis, name: asCopy ? `${job.name.slice(0, 72)}, copy` : job.name } },
      records: read.map((r) => ({
        kind: r.kind,
        id: kindOf(r.kind).many ? named(r.id) : jobId,
        values: fresh ? (renamed(r.values) as ComingRow["values"]) : r.values,
      })),
    },
    obstacles: async function* () {
      for await (const { id, ...values } of linesOf(files, "obstacles.ndjson", rowSchemaOf("obstacle")))
        yield { kind: "obstacle", id: named(id), values };
    },
    bytes: async (kind, id) => {
      const file = fileOf.get(`${kind} ${id}`);
      return file === undefined ? null : readFile(file);
    },
    terrain: missing,
    hardware: { radios: hardware.radios.filter(isNew), antennas: hardware.antennas.filter(isNew), parts: hardware.parts.filter(isNew) },
    differing: [...hardware.radios, ...hardware.antennas, ...hardware.parts]
      .filter((h) => !isNew(h) && !deepEqual(sheetsHere.get(h.sheet.id), withoutMarks(h.sheet)))
      .map((h) => h.sheet.name),
  };
};
