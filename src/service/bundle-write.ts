import { strToU8 } from "fflate";
import { kinds, type WiringFields } from "../contract";
import { planeProjection } from "../core/geo";
import { roleNow } from "../data/actor";
import type { Tx } from "../data/changes";
import type { Db } from "../data/client";
import { listAntennas, listParts, listRadios } from "../data/hardware";
import type { JobRow } from "../data/jobs";
import { photoBytes } from "../data/photos";
import { told } from "../data/records";
import { type Kept, storeOf } from "../data/stores";
import { datasetsIn, TILE_CELLS, tilesOf } from "../data/terrain-store";
import { geoTiffHead, hashedName, openZip, tiffHeights, type ZipWriter } from "../formats";
import { ALWAYS_THERE, FORMAT, VERSION, withoutMarks } from "./bundle-format";

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

/** A record as it lies in a bundle: without what only this database knows. */
const rowOf = (kind: string, row: Kept): Record<string, unknown> & { id: string } => {
  const { version: _v, id, ...values } = told(kind, row);
  // Names of strangers' networks are nobody's but theirs.
  if (kind === "scan") return { id, ...values, rows: (values.rows as { name: string }[]).map((r) => ({ ...r, name: hashedName(r.name) })) };
  return { id, ...values };
};

async function* linesOf(db: Db, kind: string, jobId: string): AsyncGenerator<Uint8Array> {
  const { every, list } = storeOf(kind);
  if (every === undefined) yield ndjson(byId((await list(db as unknown as Tx, jobId)).map((r) => rowOf(kind, r))));
  else for await (const rows of every(db, jobId)) yield ndjson(rows.map((r) => rowOf(kind, r)));
}

/** Links with the design in force of each, and those kept beside it. */
const linksWithDesigns = (links: readonly Kept[], designs: readonly Kept[]): unknown[] =>
  byId(links).map((l) => {
    const own = designs.filter((d) => d.values.linkId === l.id);
    const plain = (d: Kept) => {
      const { linkId: _l, chosen: _c, name, ...rest } = rowOf("design", d);
      return { name, rest };
    };
    const chosen = own.find((d) => d.values.chosen === true)!;
    const kept = own.filter((d) => d !== chosen).map((d) => ({ ...plain(d).rest, name: plain(d).name }));
    // A link without kept designs is written as ever.
    return { ...rowOf("link", l), design: plain(chosen).rest, ...(kept.length === 0 ? {} : { kept }) };
  });

/** Writes the whole job as one zip. The same data gives the same bytes. @returns what was written of each file. */
export const writeBundle = async (db: Db, row: JobRow, path: string): Promise<void> => {
  const zip: ZipWriter = await openZip(path);
  const files: Record<string, { bytes: number; sha256: string }> = {};
  const add = async (name: string, pieces: Iterable<Uint8Array> | AsyncIterable<Uint8Array>, packed = true): Promise<void> => {
    files[name] = await zip.add(name, pieces, packed);
  };
  const listOf = (kind: string): Promise<Kept[]> => storeOf(kind).list(db as unknown as Tx, row.id);
  try {
    const designs = await listOf("design");
    const sites = await listOf("site");
    for (const [name, k] of kinds()) {
      const place = k.bundle;
      if (place === null || place.form === "within" || !k.seenBy.includes(roleNow())) continue;
      if (place.form === "one") {
        const [only] = name === "job" ? [await storeOf(name).read(db as unknown as Tx, row.id, false)] : await listOf(name);
        if (only == null && !ALWAYS_THERE.has(place.file)) continue;
        const values: Record<string, unknown> = only == null ? k.fields.parse({}) : rowOf(name, only);
        const { number: _n, id, ...rest } = values;
        await add(place.file, json(k.parent === "none" ? { id, ...rest } : rest));
      } else if (place.form === "list") {
        const rows = name === "site" ? sites : await listOf(name);
        await add(place.file, json(name === "link" ? linksWithDesigns(rows, designs) : byId(rows.map((r) => rowOf(name, r)))));
        for (const r of place.bytes === undefined ? [] : byId(rows))
          await add(`${place.bytes}/${r.id}`, [new Uint8Array((await photoBytes(db, row.id, r.id)).bytes)], false);
      } else if (ALWAYS_THERE.has(place.file) || (await listOf(name)).length > 0) await add(place.file, linesOf(db, name, row.id));
    }
    const used = new Set(designs.flatMap(({ values: d }) => [d.nearRadioId, d.farRadioId, d.nearAntennaId, d.farAntennaId]));
    const sheets = <T extends { id: string; sheet: unknown; source: string }>(rows: readonly T[]) =>
      byId(rows.filter((r) => used.has(r.id))).map((r) => ({ source: r.source, sheet: withoutMarks(r.sheet) }));
    const wirings = (await listOf("wiring")).map((r) => r.values as WiringFields);
    for (const w of wirings) {
      for (const p of w.places) used.add(p.partId);
      for (const l of w.leads) used.add(l.cableId);
    }
    const parts = sheets(await listParts(db));
    await add(
      "hardware.json",
      json({ radios: sheets(await listRadios(db)), antennas: sheets(await listAntennas(db)), ...(parts.length === 0 ? {} : { parts }) }),
    );
    const terrain: unknown[] = [];
    if (sites.length > 0) {
      const lats = sites.map((s) => Number(s.values.latDeg));
      const lons = sites.map((s) => Number(s.values.lonDeg));
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
