import path from "node:path";
import { createReaders, type Limits, MEGABYTES, type ReaderPool } from "@/jobs/reader-pool";

/* What looks into files, and what works long, runs in processes of its own; this one only asks. */

const globals = globalThis as unknown as { dryArcReaders?: { quick: ReaderPool; long: ReaderPool } };

const entry = (): string => path.resolve(process.env.DRYARC_BUILD ?? "build", "reader.mjs");

export const LOOK: Limits = { timeMs: 25_000, memoryBytes: MEGABYTES(600) };
export const WRITE: Limits = { timeMs: 600_000, memoryBytes: MEGABYTES(600) };

/** Readers for a quick look (files before they are taken in, tiles), and for what takes long (exports, bundles). */
export const readers = (): { quick: ReaderPool; long: ReaderPool } => {
  globals.dryArcReaders ??= {
    quick: createReaders({ entry: entry(), most: 3, heapMb: 384, idleMs: 60_000 }),
    long: createReaders({ entry: entry(), most: 2, heapMb: 384, idleMs: 20_000, mostWaiting: 20 }),
  };
  return globals.dryArcReaders;
};
