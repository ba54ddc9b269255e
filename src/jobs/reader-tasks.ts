import { Pool } from "pg";
import type { PackDto, PreviewDto, RoofDto } from "../contract";
import type { LatLon } from "../core/geo";
import { type Asker, asAsker, programFor } from "../data/actor";
import { type Db, openDb } from "../data/client";
import { getJob } from "../data/jobs";
import type { Stale } from "../data/verdict-store";
import type { VectorQuestion } from "../formats";
import { writeBundle } from "../service/bundle-write";
import { type ExportFormat, type ExportWhat, writeExport } from "../service/export";
import { type PackAsk, packDto, writePack } from "../service/pack";
import { checkPmtiles, type TileBytes, tileOfFile } from "../service/pmtiles";
import { previewFile } from "../service/preview";
import { type QuoteAsk, writeQuote } from "../service/quote";
import { roofDto } from "../service/roof";
import { judgeLinks } from "../service/verdicts";
import { runImport } from "./run-import";

/** What a reader process can be asked: everything that looks into files, or works long. */
export interface ReaderTasks {
  readonly preview: { readonly path: string; readonly name: string; readonly question: VectorQuestion; readonly known: readonly LatLon[] };
  readonly checkTiles: { readonly uploadId: string };
  readonly tile: { readonly uploadId: string; readonly z: number; readonly x: number; readonly y: number };
  readonly import: { readonly importId: string };
  readonly export: { readonly jobId: string; readonly what: ExportWhat; readonly format: ExportFormat; readonly path: string };
  readonly bundle: { readonly jobId: string; readonly path: string };
  readonly quote: QuoteAsk & { readonly jobId: string; readonly path: string };
  readonly pack: PackAsk & { readonly jobId: string; readonly path: string };
  readonly packPages: PackAsk & { readonly jobId: string };
  readonly roof: { readonly jobId: string; readonly linkId: string };
  readonly judge: { readonly links: readonly Stale[]; readonly program: string };
}
export interface ReaderAnswers {
  readonly preview: PreviewDto;
  readonly checkTiles: null;
  readonly tile: TileBytes | null;
  readonly import: null;
  readonly export: null;
  readonly bundle: null;
  readonly quote: null;
  readonly pack: null;
  readonly packPages: PackDto;
  readonly roof: RoofDto;
  readonly judge: null;
}
export type TaskKind = keyof ReaderTasks;

const held: { db?: Db; pool?: Pool } = {};
const url = (): string => process.env.DATABASE_URL ?? "";
const db = (): Db => {
  held.db ??= openDb(url(), 3).db;
  return held.db;
};
const pool = (): Pool => {
  if (held.pool === undefined) {
    held.pool = new Pool({ connectionString: url(), max: 1, connectionTimeoutMillis: 5000 });
    held.pool.on("error", () => undefined);
  }
  return held.pool;
};

const RUN: { readonly [K in TaskKind]: (task: ReaderTasks[K]) => Promise<ReaderAnswers[K]> } = {
  preview: (t) => previewFile(t.path, t.name, t.question, t.known),
  checkTiles: (t) => checkPmtiles(t.uploadId).then(() => null),
  tile: (t) => tileOfFile(t.uploadId, t),
  import: (t) => runImport(db(), pool(), t.importId).then(() => null),
  export: async (t) => writeExport(db(), await getJob(db(), t.jobId), t.what, t.format, t.path).then(() => null),
  bundle: async (t) => writeBundle(db(), await getJob(db(), t.jobId), t.path).then(() => null),
  quote: async (t) => writeQuote(db(), await getJob(db(), t.jobId), t, t.path).then(() => null),
  pack: async (t) => writePack(db(), await getJob(db(), t.jobId), t, t.path).then(() => null),
  packPages: async (t) => packDto(db(), await getJob(db(), t.jobId), t),
  roof: async (t) => roofDto(db(), await getJob(db(), t.jobId), t.linkId),
  judge: async (t) => {
    for (const firm of new Set(t.links.map((l) => l.organisationId))) {
      const links = t.links.filter((l) => l.organisationId === firm);
      await asAsker(programFor(firm), () => judgeLinks(db(), links, t.program));
    }
    return null;
  },
};

/** @param who asked for it: what is not theirs is not there for this process either; null for the program itself. */
export const runTask = <K extends TaskKind>(kind: K, task: ReaderTasks[K], who: Asker | null): Promise<ReaderAnswers[K]> =>
  who === null ? RUN[kind](task) : asAsker(who, () => RUN[kind](task));
