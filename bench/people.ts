// Fifty people at once for a minute (or ten: -- people 600): register, verdicts, a path, an edit, each after the other.
import { setTimeout as sleep } from "node:timers/promises";
import type { JobBundle, JobSummary } from "../src/contract";
import { seededRandom } from "../src/core/units";
import { call, childrenOf, edit, residentBytes } from "./running";

const base = process.env.DRYARC_URL ?? "http://127.0.0.1:4630";
const appPid = Number(process.env.DRYARC_APP_PID ?? 0);
const SECONDS = Number(process.argv[2] ?? 60);
const PEOPLE = 50;
/** Between one thing and the next a person looks for so long. */
const PAUSE_S = [0.5, 1.5] as const;
const AIM_MS = 300;

const taken: Record<string, number[]> = { register: [], verdicts: [], profile: [], edit: [] };
const timed = async <T>(what: string, work: () => Promise<T>): Promise<T> => {
  const began = performance.now();
  const value = await work();
  taken[what]!.push(performance.now() - began);
  return value;
};
const demo = (await call<JobSummary[]>(base, "GET", "/api/jobs")).body.find((j) => j.job.name === "Merrow Harbour Trust")!;
const { sites } = (await call<JobBundle>(base, "GET", `/api/jobs/${demo.job.id}`)).body;
const versions = new Map(sites.map((s) => [s.id, s.version]));
let over = false;
let failed = 0;
const memory: number[] = [];
const watch = (async () => {
  while (!over) {
    const pid = childrenOf(appPid)[0] ?? appPid;
    if (pid > 0) memory.push(residentBytes(pid) / 1e6);
    await sleep(1000);
  }
})();
const person = async (n: number): Promise<void> => {
  const random = seededRandom(n + 1);
  const pause = (): Promise<unknown> => sleep(1000 * (PAUSE_S[0] + (PAUSE_S[1] - PAUSE_S[0]) * random()));
  const site = sites[n % sites.length]!;
  await pause();
  while (!over) {
    await timed("register", () => call(base, "GET", "/api/jobs"));
    await pause();
    await timed("verdicts", () => call(base, "GET", `/api/jobs/${demo.job.id}/verdicts`));
    await pause();
    const link = demo.links[Math.floor(random() * demo.links.length)]!;
    const path = await timed("profile", () => call(base, "GET", `/api/jobs/${demo.job.id}/links/${link.linkId}/profile`));
    if (path.status !== 200) failed++;
    await pause();
    // People share sites: an edit on a version that another has left behind is a clash, told at once.
    const answer = await timed("edit", () =>
      edit<{ version?: number; current?: { version: number } }>(
        [base],
        "PATCH",
        `/api/jobs/${demo.job.id}/sites/${site.id}`,
        { version: versions.get(site.id), notes: `seen by ${n} at ${Date.now()}` },
        `client-person-${n}`,
      ),
    );
    versions.set(site.id, answer.body.version ?? answer.body.current?.version ?? 1);
    await pause();
  }
};
const people = Array.from({ length: PEOPLE }, (_, n) => person(n));
await sleep(SECONDS * 1000);
over = true;
await Promise.all([...people, watch]);
for (const [what, ms] of Object.entries(taken)) {
  ms.sort((a, b) => a - b);
  const share = (p: number): string => `${Math.round(ms[Math.floor((ms.length - 1) * p)] ?? Number.NaN)} ms`;
  console.log(
    `${what.padEnd(10)} ${String(ms.length).padStart(6)} times   median ${share(0.5)}, 95 in 100 ${share(0.95)}, at most ${share(1)}   aim ${AIM_MS} ms`,
  );
}
if (failed > 0) console.log(`${failed} paths were not answered`);
if (memory.length > 0) {
  const tenth = Math.max(1, Math.floor(memory.length / 10));
  const mean = (list: readonly number[]): number => list.reduce((a, b) => a + b, 0) / list.length;
  console.log(
    `server     ${mean(memory.slice(0, tenth)).toFixed(0)} MB at the beginning, ${mean(memory.slice(-tenth)).toFixed(0)} MB at the end, ${Math.max(...memory).toFixed(0)} MB at most`,
  );
}
