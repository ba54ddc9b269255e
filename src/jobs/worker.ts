// The process that sees to the long work: imports and verdicts, each in readers of its own that may be ended at any time.
// It holds no file and reads none; whatever happens to it, the rows in the database say what is left to do.
import { createHash } from "node:crypto";
import { readFileSync } from "node:fs";
import { asAsker, programFor } from "../data/actor";
import { beatNow } from "../data/beats";
import { isUnreachable, openDb } from "../data/client";
import { sweepOut } from "../data/files";
import { firmsWithLeftovers, type ImportRow, leftoverImports, openImports, readerEnded, uploadOf, WORK_CHANNEL } from "../data/imports";
import { openListener } from "../data/listen";
import { logFault } from "../data/log";
import { forgetOldEdits } from "../data/made-edits";
import { dropUnfinished } from "../data/terrain-store";
import { forgetOldTries } from "../data/tries";
import { claimStale, VERDICT_CHANNEL, verdictsOfOtherProgram } from "../data/verdict-store";
import { endWithParent } from "./end-with-parent";
import { removeLeftFiles } from "./left-files";
import { createReaders, MEGABYTES, ReaderEnded } from "./reader-pool";

const SWEEP_MS = 3000;
const UNUSED_HOURS = 48;
const OUT_MS = 3_600_000;
/** Imports at a time, and how many of them may be of large files: one that takes long holds up nobody. */
const LANES = 3;
const LARGE_LANES = 2;
const LARGE_BYTES = 20_000_000;
/** Unpacking an archive, or reading a text grid of gigabytes through, says nothing for a while and is honest work. */
const IMPORT_LIMITS = { timeMs: 2 * 3_600_000, quietMs: 300_000, memoryBytes: MEGABYTES(900) };
const JUDGES = 2;
const JUDGE_LIMITS = { timeMs: 120_000, memoryBytes: MEGABYTES(900) };
const LINKS_AT_ONCE = 12;
/** An import that another worker has in hand is looked at again after this. */
const ELSEWHERE_MS = 4000;

const url = process.env.DATABASE_URL;
if (url === undefined || url === "") {
  console.error("dry-arc: DATABASE_URL is not set.");
  process.exit(1);
}
endWithParent();
const entry = new URL("./reader.mjs", import.meta.url).pathname;
const program = createHash("sha256").update(readFileSync(entry)).digest("hex").slice(0, 16);
const { db } = openDb(url, 4);
const importers = createReaders({ entry, most: LANES, heapMb: 512, idleMs: 20_000 });
const judges = createReaders({ entry, most: JUDGES, heapMb: 512, idleMs: 120_000 });

let away = false;
/** Does a piece of the work; a database that is away is waited for, anything else is said and left for the next round. */
const tried = async <T>(what: string, work: () => Promise<T>, otherwise: T): Promise<T> => {
  try {
    const value = await work();
    if (away) console.log("the database is back");
    away = false;
    return value;
  } catch (error) {
    if (!isUnreachable(error)) logFault(what, error);
    else if (!away) {
      away = true;
      console.log("waiting for the database");
    }
    return otherwise;
  }
};

const busy = new Map<string, { large: boolean }>();
const later = new Map<string, number>();
const doImport = async (row: ImportRow, large: boolean): Promise<void> => {
  busy.set(row.id, { large });
  const began = Date.now();
  try {
    await importers.run("import", { importId: row.id }, IMPORT_LIMITS);
    // Another worker has it: it answers at once.
    if (Date.now() - began < 1000) later.set(row.id, Date.now() + ELSEWHERE_MS);
  } catch (error) {
    if (error instanceof ReaderEnded) await tried("import", () => readerEnded(db, row.id, error.message), undefined);
    else await tried(`import ${row.id}`, () => Promise.reject(error), undefined);
    later.set(row.id, Date.now() + 1000);
  } finally {
    busy.delete(row.id);
    void importRound();
  }
};

let looking = false;
let again = false;
const importRound = async (): Promise<void> => {
  if (looking) {
    again = true;
    return;
  }
  looking = true;
  do {
    again = false;
    const rows = await tried("imports", () => openImports(db), []);
    for (const row of rows) {
      if (busy.size >= LANES) break;
      if (busy.has(row.id) || (later.get(row.id) ?? 0) > Date.now()) continue;
      const file = row.uploadId === null ? null : await tried("imports", () => uploadOf(db, row.uploadId!), null);
      const large = (file?.sizeBytes ?? 0) > LARGE_BYTES;
      if (large && [...busy.values()].filter((b) => b.large).length >= LARGE_LANES) continue;
      void doImport(row, large);
    }
  } while (again);
  looking = false;
};

let judging = 0;
const judgeRound = async (): Promise<void> => {
  while (judging < JUDGES) {
    judging++;
    const links = await tried("verdicts", () => claimStale(db, LINKS_AT_ONCE), []);
    if (links.length === 0) {
      judging--;
      return;
    }
    void judges
      .run("judge", { links, program }, JUDGE_LIMITS)
      .catch((error: unknown) => tried("verdicts", () => Promise.reject(error), undefined))
      .finally(() => {
        judging--;
        void judgeRound();
      });
  }
};

const sweep = async (): Promise<void> => {
  await tried("beat", () => beatNow(db, `worker-${process.pid}`), undefined);
  for (const firm of await tried("leftovers", () => firmsWithLeftovers(db), []))
    await asAsker(programFor(firm), async () => {
      for (const id of await tried("leftovers", () => leftoverImports(db), []))
        if (!busy.has(id)) await tried("leftovers", () => dropUnfinished(db, id), undefined);
    });
  await tried("files", () => removeLeftFiles(db, UNUSED_HOURS), undefined);
  await sweepOut(OUT_MS).catch((e: unknown) => logFault("files", e));
  await tried("edits", () => forgetOldEdits(db), undefined);
  await tried("tries", () => forgetOldTries(db), undefined);
  for (const [id, at] of later) if (at < Date.now()) later.delete(id);
};

process.on("unhandledRejection", (error) => logFault("worker", error));
for (const signal of ["SIGTERM", "SIGINT"] as const)
  process.on(signal, () => {
    importers.close();
    judges.close();
    process.exit(0);
  });

openListener(url, [WORK_CHANNEL, VERDICT_CHANNEL], {
  message: (channel) => void (channel === WORK_CHANNEL ? importRound() : judgeRound()),
  back: () => {
    void importRound();
    void judgeRound();
  },
});
console.log("worker ready");
let known = false;
for (;;) {
  if (!known) known = await tried("verdicts", () => verdictsOfOtherProgram(db, program).then(() => true), false);
  await sweep();
  void importRound();
  void judgeRound();
  await new Promise((resolve) => setTimeout(resolve, SWEEP_MS));
}
