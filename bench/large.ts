// A large job: 2,000 sites, 500 links, 200,000 footprints. What a person waits for, and what it takes in memory.
import { mkdirSync } from "node:fs";
import { setTimeout as sleep } from "node:timers/promises";
import { chromium } from "@playwright/test";
import { sql } from "drizzle-orm";
import { CHROMIUM } from "../e2e/chromium";
import type { JobSummary, LinkVerdict } from "../src/contract";
import { openDb } from "../src/data/client";
import { getJob, sitesOf } from "../src/data/jobs";
import { createLink } from "../src/data/links";
import { makeJob } from "../src/data/records";
import { hardwareDto, jobDto } from "../src/service/dto";
import { firstDesign } from "../src/service/first-design";
import { call, childrenOf, edit, residentBytes } from "./running";

const base = process.env.DRYARC_URL ?? "http://127.0.0.1:4630";
const appPid = Number(process.env.DRYARC_APP_PID ?? 0);
const SITES = 2000;
const LINKS = 500;
const FOOTPRINTS = 200_000;
const NAME = "Large town";

const { db, close } = openDb(process.env.DATABASE_TEST_URL!);
const find = async (): Promise<string | undefined> =>
  (await db.execute<{ id: string }>(sql`SELECT id FROM job WHERE name = ${NAME} AND deleted_at IS NULL`)).rows[0]?.id;
const make = async (): Promise<string> => {
  const job = await makeJob(db, {
    name: NAME,
    place: "",
    visitOn: "2026-12-03",
    centreLatDeg: 47.3,
    centreLonDeg: -19.38,
    ruleDomain: "FCC-like",
    rainRate001MmH: 28,
  });
  // A grid of sites about the harbour, and streets of houses between them.
  await db.execute(sql`
    INSERT INTO site (job_id, name, lat_deg, lon_deg, mount_agl_m)
    SELECT ${job.id}, 'Site ' || i, 47.27 + (i / 50) * 0.0015, -19.44 + (i % 50) * 0.0024, 8 FROM generate_series(0, ${SITES - 1}) AS i`);
  await db.execute(sql`SET statement_timeout = 0`);
  await db.execute(sql`
    INSERT INTO obstacle (job_id, name, kind, outline, height_m, height_sigma_m, surveyed_on)
    SELECT ${job.id}, 'House ' || i, 'building', ST_SetSRID(ST_MakeEnvelope(x, y, x + 0.00014, y + 0.0001), 4326), 4 + i % 5, 0.5, '2026-01-01'
    FROM (SELECT i, -19.5 + (i % 500) * 0.0006 AS x, 47.22 + (i / 500) * 0.0004 AS y FROM generate_series(0, ${FOOTPRINTS - 1}) AS i) AS g`);
  const sites = await sitesOf(db, job.id);
  const hardware = await hardwareDto(db);
  const owner = jobDto(await getJob(db, job.id));
  for (let n = 0; n < LINKS; n++) {
    const near = sites[n * 4]!;
    const far = sites[Math.min(SITES - 1, n * 4 + 3 + (n % 5))]!;
    await createLink(db, job.id, { nearSiteId: near.id, farSiteId: far.id, label: "", design: firstDesign(owner, hardware, near, far)! });
  }
  return job.id;
};
mkdirSync(".data", { recursive: true });
const jobId = (await find()) ?? (await make());
const verdicts = (): Promise<LinkVerdict[]> => call<LinkVerdict[]>(base, "GET", `/api/jobs/${jobId}/verdicts`).then((a) => a.body);
const untilFresh = async (): Promise<number> => {
  const began = performance.now();
  while ((await verdicts()).some((v) => !v.fresh)) await sleep(20);
  return performance.now() - began;
};
const told = (what: string, ms: number, aim: string): void => console.log(`${what.padEnd(44)} ${Math.round(ms)} ms   aim ${aim}`);
const timed = async (what: string, aim: string, work: () => Promise<unknown>): Promise<void> => {
  await work();
  const all: number[] = [];
  for (let n = 0; n < 3; n++) {
    const began = performance.now();
    await work();
    all.push(performance.now() - began);
  }
  told(what, all.sort((a, b) => a - b)[1]!, aim);
};

await db.execute(sql`UPDATE link_verdict SET want = want + 1 WHERE job_id = ${jobId}`);
await db.execute(sql`SELECT pg_notify('dryarc_verdict', '')`);
told("all 500 verdicts, nothing kept", await untilFresh(), "told");
await timed("register", "1000 ms", () => call<JobSummary[]>(base, "GET", "/api/jobs"));
await timed("verdicts", "300 ms", verdicts);
await timed("ground: sites and links", "2000 ms together", () => call(base, "GET", `/api/jobs/${jobId}`));
await timed("ground: what is drawn of 200,000 footprints", "2000 ms together", () =>
  call(base, "GET", `/api/jobs/${jobId}/obstacles?westDeg=-19.6&southDeg=47.2&eastDeg=-19.1&northDeg=47.4`),
);
{
  const browser = await chromium.launch({
    ...CHROMIUM,
  });
  const page = await browser.newPage({ viewport: { width: 1280, height: 800 } });
  const cdp = await page.context().newCDPSession(page);
  await cdp.send("Performance.enable");
  // Once for what is fetched of the application itself, and for the server's first connections.
  await page.goto(`${base}/jobs/${jobId}/ground`);
  await page.locator("[data-drawn]").waitFor();
  await page.goto(base);
  const began = performance.now();
  await page.goto(`${base}/jobs/${jobId}/ground`);
  await page.locator("[data-drawn]").waitFor();
  told("ground in the browser, to the first drawing", performance.now() - began, "2000 ms");
  const { metrics } = await cdp.send("Performance.getMetrics");
  console.log(`its memory ${((metrics.find((m) => m.name === "JSHeapUsedSize")?.value ?? 0) / 1e6).toFixed(0)} MB of heap`);
  await browser.close();
}
const sites = await sitesOf(db, jobId);
const first = sites[0]!;
let version = first.version;
const after = async (fields: object): Promise<number> => {
  const began = performance.now();
  const answer = await edit<{ version: number }>(
    [base],
    "PATCH",
    `/api/jobs/${jobId}/sites/${first.id}`,
    { version, ...fields },
    "client-large",
  );
  version = answer.body.version;
  while ((await verdicts()).some((v) => !v.fresh)) await sleep(10);
  return performance.now() - began;
};
told("verdicts after an edit of a note", await after({ notes: `seen ${Date.now()}` }), "300 ms");
told("verdicts after a mount was raised", await after({ mountAglM: 8 + (Date.now() % 7) / 10 }), "300 ms");
for (const [what, path] of [
  ["obstacles as KML", `/api/jobs/${jobId}/export?what=obstacles&format=kml`],
  ["obstacles as GeoJSON", `/api/jobs/${jobId}/export?what=obstacles&format=geojson`],
  ["the whole job", `/api/jobs/${jobId}/bundle`],
] as const) {
  const began = performance.now();
  let most = 0;
  let over = false;
  const watch = (async () => {
    while (!over) {
      for (const pid of childrenOf(childrenOf(appPid)[0] ?? appPid)) most = Math.max(most, residentBytes(pid) / 1e6);
      await sleep(50);
    }
  })();
  const response = await fetch(`${base}${path}`, { method: "POST", body: "{}" });
  const bytes = (await response.arrayBuffer()).byteLength;
  over = true;
  await watch;
  console.log(
    `${what.padEnd(44)} ${((performance.now() - began) / 1000).toFixed(1)} s, ${(bytes / 1e6).toFixed(1)} MB; its process at most ${most.toFixed(0)} MB   aim 300 MB`,
  );
}
const pid = childrenOf(appPid)[0] ?? appPid;
if (pid > 0) console.log(`server ${(residentBytes(pid) / 1e6).toFixed(0)} MB`);
await close();
