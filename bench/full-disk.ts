// A small disk of its own for files and database, filled while a file comes in and while one is taken in: what was
// acknowledged stays, what did not fit is refused in words, nothing is half there. Needs the right to mount a disk in memory.
import { execFileSync } from "node:child_process";
import { createHash } from "node:crypto";
import { mkdirSync, readFileSync, rmSync, statfsSync, writeFileSync } from "node:fs";
import { setTimeout as sleep } from "node:timers/promises";
import { sql } from "drizzle-orm";
import { openDb } from "../src/data/client";
import { migrateDb } from "../src/data/migrate";
import { call, dbUrl, edit, envOf, newJob, sendFile, startApp, startDb, startWorker, stopDb, stopKept, untilHealthy } from "./running";

const NAME = "disk";
const DIR = `.data/${NAME}`;
const PORT = 4643;
const CLIENT = "client-full-disk";
const faults: string[] = [];
const check = (good: boolean, what: string): void => {
  console.log(`${good ? "ok   " : "FAULT"} ${what}`);
  if (!good) faults.push(what);
};

mkdirSync(DIR, { recursive: true });
try {
  execFileSync("mount", ["-t", "tmpfs", "-o", "size=420m,mode=755", "tmpfs", DIR], { stdio: "pipe" });
} catch {
  console.log("skipped: this user may not mount a disk in memory");
  process.exit(0);
}
const ballast = `${DIR}/ballast`;
/** Fills the disk but for some room. */
const fill = (leaveBytes: number): void => {
  const fs = statfsSync(DIR);
  writeFileSync(ballast, Buffer.alloc(Math.max(0, fs.bavail * fs.bsize - leaveBytes)));
};
try {
  await startDb(NAME);
  const env = { ...envOf(NAME), DRYARC_FILES: `${DIR}/files`, DRYARC_LEFT_FREE_BYTES: "0" };
  const owner = openDb(dbUrl(NAME, "owner"));
  await migrateDb(owner.db);
  await owner.close();
  const { db, close } = openDb(dbUrl(NAME, "admin"));
  const base = `http://127.0.0.1:${PORT}`;
  const running = [startApp(NAME, PORT, env), startWorker(NAME, 1, env)];
  await untilHealthy(base);
  const jobId = await newJob([base], "Full", CLIENT);
  const rows = 60_000;
  const csv = Buffer.from(
    `name,lat,lon\n${Array.from({ length: rows }, (_, i) => `P${i},${(46 + i * 1e-6).toFixed(6)},-25`).join("\n")}\n`,
  );

  // A file that does not fit.
  fill(900_000);
  const made = await call<{ id: string }>(base, "POST", `/api/jobs/${jobId}/uploads`, { name: "p.csv", sizeBytes: csv.length });
  check(made.status === 422 || made.status === 200, `a file of ${csv.length} bytes on a disk with 900,000: ${made.status}`);
  rmSync(ballast);
  const { body: upload } = await call<{ id: string }>(base, "POST", `/api/jobs/${jobId}/uploads`, { name: "p.csv", sizeBytes: csv.length });
  fill(400_000);
  const put = (): Promise<{ status: number; body: Record<string, unknown> }> =>
    call(base, "PUT", `/api/jobs/${jobId}/uploads/${upload.id}?at=0`, csv, { "x-sha256": createHash("sha256").update(csv).digest("hex") });
  const refused = await put();
  check(
    refused.status === 507 && refused.body.code === "disk-full",
    `its bytes are refused in words: ${refused.status} ${JSON.stringify(refused.body)}`,
  );
  const half = await call<{ code: string }>(base, "POST", `/api/jobs/${jobId}/imports`, {
    uploadId: upload.id,
    options: { what: "features", epsg: null, nameColumn: "name" },
  });
  check(half.body.code === "upload-unfinished", `and it cannot be taken in: ${half.body.code}`);
  rmSync(ballast);
  check((await put()).status === 200, "with room again the same piece completes it");
  const asked = await call<{ id: string }>(base, "POST", `/api/jobs/${jobId}/imports`, {
    uploadId: upload.id,
    options: { what: "features", epsg: null, nameColumn: "name" },
  });
  const ended = async (id: string, ms: number): Promise<{ state: string; fault: string | null; n: number }> => {
    const began = Date.now();
    for (;;) {
      const [row] = (
        await db
          .execute<{ state: string; fault: string | null; n: number }>(
            sql`SELECT state, fault, (SELECT count(*)::int FROM feature WHERE import_id = ${id}) AS n FROM file_import WHERE id = ${id}`,
          )
          .catch(() => ({ rows: [] as { state: string; fault: string | null; n: number }[] }))
      ).rows;
      if (row !== undefined && row.state !== "waiting" && row.state !== "running") return row;
      if (Date.now() - began > ms) return row ?? { state: "unknown", fault: null, n: -1 };
      await sleep(200);
    }
  };
  const whole = await ended(asked.body.id, 60_000);
  check(whole.state === "done" && whole.n === rows, `all ${rows} rows are there: ${whole.state}, ${whole.n}`);

  // A database that runs full in the middle.
  const site = await edit<{ id: string; version: number }>(
    [base],
    "POST",
    `/api/jobs/${jobId}/sites`,
    { name: "A", latDeg: 46, lonDeg: -25, mountAglM: 5 },
    CLIENT,
  );
  let acknowledged = "";
  let version = site.body.version;
  let over = false;
  const editing = (async () => {
    for (let n = 1; !over; n++) {
      const answer = await call<{ version: number }>(
        base,
        "PATCH",
        `/api/jobs/${jobId}/sites/${site.body.id}`,
        { version, notes: `edit ${n}` },
        { "x-client": CLIENT },
      ).catch(() => null);
      if (answer?.status === 200) {
        acknowledged = `edit ${n}`;
        version = answer.body.version;
      }
      await sleep(50);
    }
  })();
  const uploadId = await sendFile([base], `/api/jobs/${jobId}/uploads`, "q.csv", csv, CLIENT);
  fill(2_500_000);
  const second = await call<{ id: string }>(base, "POST", `/api/jobs/${jobId}/imports`, {
    uploadId,
    options: { what: "features", epsg: null, nameColumn: "name" },
  }).catch(() => null);
  await sleep(6000);
  over = true;
  await editing;
  rmSync(ballast);
  // A server that could not write its log has ended, or recovers: it is started as whoever runs it would.
  await startDb(NAME);
  await untilHealthy(base);
  if (second?.status === 200) {
    const row = await ended(second.body.id, 60_000);
    check(
      (row.state === "done" && row.n === rows) || (row.state === "failed" && row.n === 0),
      `an import on a full database is whole or absent: ${row.state}, ${row.n} rows, ${row.fault}`,
    );
  } else check(true, `an import on a full database was not begun: ${second?.status}`);
  const [kept] = (await db.execute<{ notes: string; version: number }>(sql`SELECT notes, version FROM site WHERE id = ${site.body.id}`))
    .rows;
  // The last may have been written though its answer was lost.
  check(
    kept!.version >= version && (kept!.notes === acknowledged || kept!.version > version),
    `the last edit acknowledged was "${acknowledged}" (${version}); kept is "${kept!.notes}" (${kept!.version})`,
  );
  const after = await call<{ version: number }>(base, "PATCH", `/api/jobs/${jobId}/sites/${site.body.id}`, {
    version: kept!.version,
    notes: "after",
  });
  check(after.status === 200, "and it goes on");
  await close();
  await stopKept(running);
  stopDb(NAME);
} finally {
  try {
    const pid = Number(readFileSync(`${DIR}/pg/postmaster.pid`, "utf8").split("\n")[0]);
    process.kill(pid, "SIGKILL");
  } catch {
    // It is down, as it should be.
  }
  await sleep(500);
  execFileSync("umount", ["-l", DIR]);
}
process.exit(faults.length === 0 ? 0 : 1);
