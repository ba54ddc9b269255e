// Kills the application, its workers, their readers and the database while edits, imports, bundles and undo are under way,
// two servers and two workers on one database, and looks at what is left: nothing acknowledged lost, nothing made twice,
// nothing half, nothing stuck.
//   tsx bench/kills.ts [KILLS] [SEED]
import { readdirSync, readFileSync } from "node:fs";
import { setTimeout as sleep } from "node:timers/promises";
import { sql } from "drizzle-orm";
import { seededRandom } from "../src/core/units";
import { openDb } from "../src/data/client";
import { migrateDb } from "../src/data/migrate";
import {
  childrenOf,
  dbUrl,
  edit,
  envOf,
  type Kept,
  newJob,
  sendFile,
  startApp,
  startDb,
  startWorker,
  stopDb,
  stopKept,
  untilHealthy,
} from "./running";

const NAME = "kills";
const KILLS = Number(process.argv[2] ?? 20);
const random = seededRandom(Number(process.argv[3] ?? 20));
const STUCK_MS = 30_000;
const ROWS = 3000;
const PORTS = [4641, 4642];

await startDb(NAME);
const env = { ...envOf(NAME), DRYARC_FILES: `.data/${NAME}/files` };
{
  const { db, close } = openDb(dbUrl(NAME, "owner"));
  await migrateDb(db);
  await close();
}
const bases = PORTS.map((p) => `http://127.0.0.1:${p}`);
const apps = PORTS.map((p) => startApp(NAME, p, env));
const workers = [1, 2].map((n) => startWorker(NAME, n, env));
await Promise.all(bases.map(untilHealthy));

let over = false;
const faults: string[] = [];
const said = (what: string, body: unknown): void => void faults.push(`${what}: ${JSON.stringify(body).slice(0, 300)}`);

/** Edits of one site, each on the version that the last was answered with; some are taken back and done again. */
interface Edited {
  readonly siteId: string;
  version: number;
  notes: string;
  made: number;
}
const edited: Edited[] = [];
const editor = async (n: number): Promise<void> => {
  const client = `client-editor-${n}`;
  const jobId = await newJob(bases, `Edits ${n}`, client);
  const made = await edit<{ id: string; version: number }>(
    bases,
    "POST",
    `/api/jobs/${jobId}/sites`,
    { name: "A", latDeg: 46, lonDeg: -25, mountAglM: 5 },
    client,
  );
  const e: Edited = { siteId: made.body.id, version: made.body.version, notes: "", made: 0 };
  edited.push(e);
  while (!over) {
    const notes = `edit ${e.made + 1}`;
    const answer = await edit<{ version: number; notes: string }>(
      bases,
      "PATCH",
      `/api/jobs/${jobId}/sites/${e.siteId}`,
      { version: e.version, notes },
      client,
    );
    if (answer.status !== 200) {
      said("an edit", answer.body);
      return;
    }
    e.made++;
    e.version = answer.body.version;
    e.notes = notes;
    if (random() < 0.1) {
      // Taken back and done again: two steps of the history, the same words in the end.
      for (const redo of [false, true]) {
        const step = await edit<{ step: unknown }>(bases, "POST", `/api/jobs/${jobId}/undo`, { redo }, client);
        if (step.status !== 200 || step.body.step === null) said("an undo", step.body);
        e.version++;
      }
    }
    await sleep(20);
  }
};

const csv = Buffer.from(`name,lat,lon\n${Array.from({ length: ROWS }, (_, i) => `P${i},${(46 + i * 1e-5).toFixed(6)},-25`).join("\n")}\n`);
const imports: string[] = [];
const importer = async (n: number): Promise<void> => {
  const client = `client-importer-${n}`;
  const jobId = await newJob(bases, `Imports ${n}`, client);
  while (!over) {
    const uploadId = await sendFile(bases, `/api/jobs/${jobId}/uploads`, "p.csv", csv, client);
    const asked = await edit<{ id: string }>(
      bases,
      "POST",
      `/api/jobs/${jobId}/imports`,
      { uploadId, options: { what: "features", epsg: null, nameColumn: "name" } },
      client,
    );
    if (asked.status !== 200) said("an import", asked.body);
    else imports.push(asked.body.id);
    await sleep(300);
  }
};

const bundles: string[] = [];
const SITES = 20;
const bundler = async (): Promise<void> => {
  const client = "client-bundler";
  const jobId = await newJob(bases, "Bundled", client);
  for (let i = 0; i < SITES; i++)
    await edit(bases, "POST", `/api/jobs/${jobId}/sites`, { name: `S${i}`, latDeg: 46 + i / 1000, lonDeg: -25, mountAglM: 5 }, client);
  while (!over) {
    const out = await fetch(`${bases[Math.floor(random() * 2)]}/api/jobs/${jobId}/bundle`, { method: "POST", body: "{}" }).catch(
      () => null,
    );
    const bytes = out?.ok === true ? new Uint8Array(await out.arrayBuffer().catch(() => new ArrayBuffer(0))) : new Uint8Array(0);
    // One that broke off is no file that a browser would have kept.
    const told = out?.headers.get("content-length") ?? null;
    if (bytes.length > 0 && (told === null || bytes.length === Number(told))) {
      const uploadId = await sendFile(bases, "/api/uploads", "job.zip", bytes, client);
      const asked = await edit<{ id: string }>(bases, "POST", "/api/bundles", { uploadId, asCopy: true }, client);
      if (asked.status !== 200) said("a bundle", asked.body);
      else bundles.push(asked.body.id);
    }
    await sleep(400);
  }
};

const drivers = [...[1, 2, 3].map(editor), ...[1, 2].map(importer), bundler()].map((p) =>
  p.catch((error: unknown) => void faults.push(`a driver ended: ${error instanceof Error ? error.message : String(error)}`)),
);

const kill = (pid: number | null, signal: "SIGKILL" | "SIGTERM"): void => {
  try {
    // Never a group or everybody.
    if (pid !== null && pid > 1) process.kill(pid, signal);
  } catch {
    // It was gone already.
  }
};
const one = <T>(list: readonly T[]): T => list[Math.floor(random() * list.length)]!;
const counts: Record<string, number> = {};
await sleep(2000);
for (let n = 0; n < KILLS; n++) {
  const target = one(["app", "app", "worker", "worker", "reader", "database"]);
  const hard = random() < 0.6;
  const signal = hard ? "SIGKILL" : "SIGTERM";
  counts[`${target} ${hard ? "-9" : "clean"}`] = (counts[`${target} ${hard ? "-9" : "clean"}`] ?? 0) + 1;
  if (target === "app") kill(one<Kept>(apps).pid(), signal);
  else if (target === "worker") kill(one<Kept>(workers).pid(), signal);
  else if (target === "reader") {
    const readers = [...apps, ...workers].flatMap((k) => childrenOf(k.pid() ?? 0));
    if (readers.length > 0) kill(one(readers), "SIGKILL");
  } else {
    if (hard) kill(Number(readFileSync(`.data/${NAME}/pg/postmaster.pid`, "utf8").split("\n")[0]), "SIGKILL");
    else stopDb(NAME);
    await sleep(200 + 800 * random());
    await startDb(NAME);
  }
  await sleep(300 + 1700 * random());
}
over = true;
await Promise.all(drivers);

const { db, close } = openDb(dbUrl(NAME, "admin"));
const rows = async <T extends Record<string, unknown>>(q: ReturnType<typeof sql>): Promise<T[]> => (await db.execute<T>(q)).rows as T[];
/** Everything comes to an end by itself, within half a minute of the last kill. */
const ended = Date.now();
let open = -1;
while (Date.now() - ended < STUCK_MS) {
  open = (await rows(sql`SELECT id FROM file_import WHERE state IN ('waiting', 'running')`)).length;
  if (open === 0) break;
  await sleep(250);
}
const settledMs = Date.now() - ended;
if (open > 0) faults.push(`${open} imports are stuck`);

let acknowledged = 0;
for (const e of edited) {
  acknowledged += e.made;
  const [row] = await rows<{ notes: string; version: number }>(sql`SELECT notes, version FROM site WHERE id = ${e.siteId}`);
  if (row?.notes !== e.notes || row.version !== e.version)
    faults.push(`a site says "${row?.notes}" (${row?.version}); acknowledged was "${e.notes}" (${e.version})`);
  const [made] = await rows<{ n: number }>(sql`SELECT count(*)::int AS n FROM change WHERE entity_id = ${e.siteId} AND action = 'update'`);
  if (made?.n !== e.made) faults.push(`${made?.n} edits are in the log, ${e.made} were acknowledged`);
}
let whole = 0;
for (const id of imports) {
  const [row] = await rows<{ state: string; fault: string | null; n: number }>(
    sql`SELECT state, fault, (SELECT count(*)::int FROM feature WHERE import_id = ${id}) AS n FROM file_import WHERE id = ${id}`,
  );
  if (row === undefined) faults.push("an import that was acknowledged is gone");
  else if (row.state === "done" && row.n === ROWS) whole++;
  else if (row.n !== 0 || row.state === "done") faults.push(`an import is ${row.state} with ${row.n} of ${ROWS} rows`);
  else if (!/times over/.test(row.fault ?? "")) faults.push(`an import ended as ${row.state}: ${row.fault}`);
}
let brought = 0;
for (const id of bundles) {
  const [row] = await rows<{ state: string; fault: string | null; n: number }>(
    sql`SELECT state, fault, (SELECT count(*)::int FROM site WHERE job_id = f.job_id) AS n FROM file_import f WHERE id = ${id}`,
  );
  if (row?.state === "done" && row.n === SITES) brought++;
  else if (row?.state === "failed" && /times over/.test(row.fault ?? "")) continue;
  else faults.push(`a bundle is ${row?.state} with ${row?.n} of ${SITES} sites: ${row?.fault}`);
}
const [jobs] = await rows<{ n: number }>(sql`SELECT count(*)::int AS n FROM job`);
if (jobs!.n !== 3 + 2 + 1 + brought) faults.push(`${jobs!.n} jobs are there, ${6 + brought} were made`);
// Files of what is over are gone after a sweep or two.
let left: string[] = [];
for (let i = 0; i < 60; i++) {
  left = readdirSync(env.DRYARC_FILES).filter((f) => !f.startsWith("out-"));
  const waiting = await rows<{ id: string }>(sql`SELECT id FROM upload WHERE deleted_at IS NULL`);
  const wanted = new Set(waiting.map((w) => w.id));
  left = left.filter((f) => !wanted.has(f));
  if (left.length === 0) break;
  await sleep(250);
}
if (left.length > 0) faults.push(`${left.length} files are left: ${left.slice(0, 3).join(", ")}`);
await close();
await stopKept([...apps, ...workers]);
stopDb(NAME);

console.log(
  `${KILLS} kills (${Object.entries(counts)
    .map(([k, n]) => `${n} ${k}`)
    .join(", ")})`,
);
console.log(
  `${acknowledged} edits acknowledged, ${whole} of ${imports.length} imports whole, ${brought} of ${bundles.length} bundles in; all at rest ${(settledMs / 1000).toFixed(1)} s after the last kill`,
);
for (const f of faults.slice(0, 20)) console.log(`FAULT ${f}`);
console.log(faults.length === 0 ? "nothing acknowledged lost, nothing made twice, nothing half, nothing stuck" : `${faults.length} faults`);
process.exit(faults.length === 0 ? 0 : 1);
