import { closeSync, openSync, writeFileSync, writeSync } from "node:fs";
import path from "node:path";
import { expect } from "vitest";
import { seededRandom } from "../../core/units";
import { FileFault } from "..";
import { spoil } from "./spoilt";

/* Files spoilt at random, from a seed: whatever is in them, a reader answers with places, heights or a sentence. */

const FILES = 2000;
/** A file of a few kilobytes that takes longer has hung. */
const MOST_MS = 3000;
const MOST_GROWTH_BYTES = 500_000_000;

/** A few bytes changed in place: a tile of 3 MB has no structure but its size. */
const patch = (file: string, random: () => number): void => {
  const handle = openSync(file, "r+");
  const bytes = new Uint8Array(4).map(() => Math.floor(random() * 256));
  for (let n = 0; n < 4; n++) writeSync(handle, bytes, 0, 4, Math.floor(random() * 1201 * 600 * 2));
  closeSync(handle);
};

/** A kind of file: what it is called, its name, how one is made in a folder, and what reads it. */
export type Row = readonly [
  what: string,
  name: string,
  make: (dir: string) => Uint8Array,
  read: (file: string, name: string) => Promise<void>,
];

/** So long one kind may take in all. */
export const TIMEOUT_MS = 180_000;

/** Has two thousand spoilt files of a kind read: none hangs, none grows without end, and each that is refused is refused in words. */
export const readsSpoilt = async (dir: string, [what, name, make, read]: Row): Promise<void> => {
  const base = make(dir);
  const random = seededRandom(4242);
  const before = process.memoryUsage().rss;
  let refused = 0;
  const file = path.join(dir, name);
  writeFileSync(file, base);
  for (let n = 0; n < FILES; n++) {
    if (what === "HGT" && n % 20 !== 0) patch(file, random);
    else writeFileSync(file, what === "HGT" ? base.subarray(0, Math.floor(random() * base.length * 1.2)) : spoil(base, random));
    const started = performance.now();
    try {
      await read(file, name);
    } catch (error) {
      if (!(error instanceof FileFault))
        throw new Error(`file ${n}: ${error instanceof Error ? (error.stack ?? error.message) : String(error)}`);
      expect(error.message.length).toBeGreaterThan(10);
      refused++;
    }
    expect(performance.now() - started, `file ${n}`).toBeLessThan(MOST_MS);
  }
  expect(process.memoryUsage().rss - before).toBeLessThan(MOST_GROWTH_BYTES);
  expect(refused).toBeGreaterThan(0);
};
