import { strToU8 } from "fflate";
import { briefSchema } from "../contract";
import { planeProjection } from "../core/geo";
import { getBrief } from "../data/brief";
import type { Db } from "../data/client";
import { listAntennas, listRadios } from "../data/hardware";
import { type JobRow, linksOf, sitesOf } from "../data/jobs";
import { keptDesignsOf } from "../data/links";
import { everyObstacle, featuresOf } from "../data/obstacles";
import { photoBytes, photosOf } from "../data/photos";
import { datasetsIn, TILE_CELLS, tilesOf } from "../data/terrain-store";
import { geoTiffHead, openZip, tiffHeights, type ZipWriter } from "../formats";
import { FORMAT, VERSION } from "./bundle-format";
import { jobDto, keptDesignDto, linkDto, obstacleDto, photoDto, siteDto } from "./dto";

/* A job on its way out, file after file: nothing is held but the piece under way. */

/** Ground beyond the outermost sites that goes along: what a path between them can ask for. */
const MARGIN_DEG = 0.02;

type Dataset = Awaited<ReturnType<typeof datasetsIn>>[number];
interface Box {
  readonly westDeg: number;
  readonly southDeg: number;
  readonly eastDeg: number;
  readonly northDeg: number;
}

const json = (value: unknown): Uint8Array[] => [strToU8(`${JSON.stringify(value, null, 1)}\n`)];
const byId = <T extends { readonly id: string }>(rows: readonly T[]): T[] => [...rows].sort((a, b) => (a.id < b.id ? -1 : 1));
const ndjson = (rows: readonly unknown[]): Uint8Array => strToU8(rows.map((r) => `${JSON.stringify(r)}\n`).join(""));
const without = <T extends object, K extends keyof T>(row: T, ...keys: K[]): Omit<T, K> => {
  const out = { ...row };
  for (const key of keys) delete out[key];
  return out;
};

/** Where the part of a dataset that a job needs lies, in whole tiles; null when none lies there. */
const partOf = (d: Dataset, box: Box) => {
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
  return {
    tiles: { left, right, top, bottom },
    frame: { cols: width, rows: height, originX: d.originX + left * TILE_CELLS * d.stepX, originY: d.originY + top * TILE_CELLS * d.stepY },
  };
};
type Part = NonNullable<ReturnType<typeof partOf>>;

/** The part as a GeoTIFF, a row of tiles at a time. */
async function* tiffOf(db: Db, d: Dataset, { tiles, frame }: Part): AsyncGenerator<Uint8Array> {
  yield geoTiffHead({ ...frame, stepX: d.stepX, stepY: d.stepY, epsg: Number(d.crs.slice(5)) });
  const stride = TILE_CELLS + 1;
  for (let r = tiles.top; r < tiles.bottom; r++) {
    const from = (r - tiles.top) * TILE_CELLS;
    // The last row of a tile is the first of the next, which writes it; only the lowest tile writes its own.
    const last = r === tiles.bottom - 1;
    const rows = Math.min(frame.rows - from, last ? stride : TILE_CELLS);
    const values = new Float32Array(frame.cols * rows).fill(Number.NaN);
    for (const tile of await tilesOf(db, d.id, r)) {
      if (tile.tileCol < tiles.left || tile.tileCol >= tiles.right) continue;
      const c0 = (tile.tileCol - tiles.left) * TILE_CELLS;
      const n = Math.min(stride, frame.cols - c0);
      for (let y = 0; y < rows; y++) {
        for (let x = 0; x < n; x++) {
          const h = tile.heightsM[y * stride + x]!;
          // A column shared by two tiles is kept by the one that knows it.
          if (!Number.isNaN(h)) values[y * frame.cols + c0 + x] = h;
        }
      }
    }
    yield tiffHeights(values);
  }
}

async function* obstacleLines(db: Db, jobId: string): AsyncGenerator<Uint8Array> {
  for await (const rows of everyObstacle(db, jobId)) yield ndjson(rows.map((o) => without(obstacleDto(o), "version")));
}

/** Writes the whole job as one zip. The same data gives the same bytes. @returns what was written of each file. */
export const writeBundle = async (db: Db, row: JobRow, path: string): Promise<void> => {
  const zip: ZipWriter = await openZip(path);
  const files: Record<string, { bytes: number; sha256: string }> = {};
  const add = async (name: string, pieces: Iterable<Uint8Array> | AsyncIterable<Uint8Array>, packed = true): Promise<void> => {
    files[name] = await zip.add(name, pieces, packed);
  };
  try {
    const [sites, links, features, brief, photos, kept] = await Promise.all([
      sitesOf(db, row.id),
      linksOf(db, row.id),
      featuresOf(db, row.id),
      getBrief(db, row.id),
      photosOf(db, row.id),
      keptDesignsOf(db, row.id),
    ]);
    await add("job.json", json(without(jobDto(row), "number", "revision", "version", "updatedAt")));
    await add("brief.json", json(briefSchema.parse(brief.doc)));
    await add("sites.json", json(byId(sites).map((s) => without(siteDto(s), "version"))));
    await add(
      "links.json",
      json(
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
      ),
    );
    await add("obstacles.ndjson", obstacleLines(db, row.id));
    await add("features.ndjson", [
      ndjson(byId(features).map((f) => ({ id: f.id, name: f.name, points: f.points.map((p) => [p.lonDeg, p.latDeg]) }))),
    ]);
    const used = new Set(
      [...links.map((l) => l.design), ...kept].flatMap((d) => [d.nearRadioId, d.farRadioId, d.nearAntennaId, d.farAntennaId]),
    );
    const sheets = <T extends { id: string; sheet: unknown; source: string }>(rows: readonly T[]) =>
      byId(rows.filter((r) => used.has(r.id))).map((r) => ({ source: r.source, sheet: r.sheet }));
    await add("hardware.json", json({ radios: sheets(await listRadios(db)), antennas: sheets(await listAntennas(db)) }));
    await add("photos.json", json(byId(photos).map((p) => ({ ...without(photoDto(p), "version"), mime: p.mime }))));
    for (const p of byId(photos)) await add(`photos/${p.id}`, [new Uint8Array((await photoBytes(db, row.id, p.id)).bytes)], false);
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
        const part = partOf(d, box);
        if (part === null) continue;
        const { name, kind, crs, stepX, stepY, cellM, sigmaM, verticalDatum, datumOffsetM, verticalUnit, source } = d;
        terrain.push({
          id: d.id,
          name,
          kind,
          crs,
          ...part.frame,
          stepX,
          stepY,
          cellM,
          sigmaM,
          verticalDatum,
          datumOffsetM,
          verticalUnit,
          source,
        });
        await add(`terrain/${d.id}.tif`, tiffOf(db, d, part));
      }
    }
    await add("terrain.json", json(terrain));
    // Last, for it names what was written before it.
    await zip.add(
      "manifest.json",
      json({
        format: FORMAT,
        version: VERSION,
        jobId: row.id,
        name: row.name,
        files: Object.fromEntries(
          Object.keys(files)
            .sort()
            .map((n) => [n, files[n]]),
        ),
      }),
    );
  } finally {
    await zip.close();
  }
};
