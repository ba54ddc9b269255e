// Fifty people of a firm at once, over TLS, signed in: each opens a sheet every 5 s, edits every 10 s and keeps the line of news open.
//   tsx bench/firm.ts [SECONDS]
import { randomUUID } from "node:crypto";
import { readFileSync } from "node:fs";
import https from "node:https";
import { availableParallelism } from "node:os";
import path from "node:path";
import { monitorEventLoopDelay } from "node:perf_hooks";
import { setTimeout as sleep } from "node:timers/promises";
import type { JobBundle, JobSummary } from "../src/contract";
import { seededRandom } from "../src/core/units";
import { openDb } from "../src/data/client";
import { addPerson, firstOrganisation } from "../src/data/people";
import { hashPassword } from "../src/service/people/password-hash";
import { childrenOf, residentBytes } from "./running";

const SECONDS = Number(process.argv[2] ?? 300);
const PEOPLE = 50;
const SHEET_EVERY_MS = 5000;
const EDIT_EVERY_MS = 10_000;
const AIM_MS = 200;
const PASSWORD = "kelp over granite at noon";
const origin = process.env.DRYARC_ORIGIN!;
const ca = readFileSync(path.join(process.env.DRYARC_TLS!, "authority.crt"));
const appPid = Number(process.env.DRYARC_APP_PID ?? 0);

interface Answer {
  readonly status: number;
  readonly body: unknown;
  readonly cookies: readonly string[];
}
/** A person's browser: its connections, and the cookie it holds. */
interface Browser {
  readonly agent: https.Agent;
  cookie: string;
}
const browser = (): Browser => ({
  agent: new https.Agent({
    ca,
    keepAlive: true,
    maxSockets: 6,
    lookup: (_host, _options, answer) => answer(null, [{ address: "127.0.0.1", family: 4 }]),
  }),
  cookie: "",
});
const ask = (b: Browser, method: string, address: string, body?: unknown, more: Readonly<Record<string, string>> = {}): Promise<Answer> =>
  new Promise((resolve, reject) => {
    const text = body === undefined ? undefined : JSON.stringify(body);
    const headers = { cookie: b.cookie, origin, ...(text === undefined ? {} : { "content-type": "application/json" }), ...more };
    const request = https.request(`${origin}${address}`, { agent: b.agent, method, headers }, (response) => {
      const parts: Buffer[] = [];
      response.on("data", (part: Buffer) => parts.push(part));
      response.on("end", () => {
        const whole = Buffer.concat(parts).toString("utf8");
        resolve({
          status: response.statusCode ?? 0,
          body: whole.startsWith("{") || whole.startsWith("[") ? JSON.parse(whole) : whole,
          cookies: response.headers["set-cookie"] ?? [],
        });
      });
      response.on("error", reject);
    });
    request.on("error", reject);
    request.end(text);
  });

const taken = new Map<string, number[]>();
/** When each was asked, and how long it took. */
const asked: { readonly atMs: number; readonly ms: number }[] = [];
const faults: string[] = [];
const timed = async (
  what: string,
  b: Browser,
  ...given: [string, string, unknown?, Readonly<Record<string, string>>?]
): Promise<Answer> => {
  const began = performance.now();
  const answer = await ask(b, ...given).catch((error: Error): Answer => ({ status: 0, body: error.message, cookies: [] }));
  const ms = performance.now() - began;
  const of = taken.get(what);
  if (of === undefined) taken.set(what, [ms]);
  else of.push(ms);
  if (what !== "sign-in") asked.push({ atMs: began, ms });
  // Of two who change one row on one version, one is told so at once: that is an answer.
  if (answer.status !== 200 && answer.status !== 409) faults.push(`${what} ${answer.status} ${JSON.stringify(answer.body).slice(0, 120)}`);
  return answer;
};

// The firm: an account each.
const doors = openDb(process.env.DATABASE_DOOR_URL!);
const firm = await firstOrganisation(doors.db);
const passwordHash = await hashPassword(PASSWORD);
const people = Array.from({ length: PEOPLE }, (_, n) => ({
  email: `load-${n}-${randomUUID().slice(0, 8)}@isles.example`,
  browser: browser(),
  n,
}));
for (const p of people)
  await doors.db.transaction((tx) =>
    addPerson(tx, {
      organisationId: firm.id,
      userId: randomUUID(),
      name: `Person ${p.n}`,
      email: p.email,
      passwordHash,
      role: p.n % 3 === 0 ? "planner" : "installer",
      jobIds: null,
      sheets: null,
    }),
  );
await doors.close();
for (const p of people) {
  const answer = await timed("sign-in", p.browser, "POST", "/api/sign-in", { email: p.email, password: PASSWORD });
  p.browser.cookie = answer.cookies.map((c) => c.split(";")[0]).join("; ");
}

const first = people[0]!.browser;
const demo = ((await ask(first, "GET", "/api/jobs")).body as JobSummary[]).find((j) => j.job.name === "Merrow Harbour Trust")!;
const { sites } = (await ask(first, "GET", `/api/jobs/${demo.job.id}`)).body as JobBundle;
const versions = new Map(sites.map((s) => [s.id, s.version]));

let over = false;
let heard = 0;
const memoryMb: number[] = [];
const lag = monitorEventLoopDelay({ resolution: 5 });
lag.enable();
/** Hundredths of a second in which the machine beneath this one gave its processors to others. */
const ticksAway = (): number => Number(readFileSync("/proc/stat", "utf8").split("\n")[0]!.split(/\s+/)[8] ?? 0);
const SPAN_S = 30;
const TICKS_OF_SPAN = 100 * SPAN_S * availableParallelism();
const spans: { readonly fromMs: number; readonly stolen: number }[] = [];
const watch = (async () => {
  while (!over) {
    if (spans.length === 0 || performance.now() - spans.at(-1)!.fromMs >= SPAN_S * 1000)
      spans.push({ fromMs: performance.now(), stolen: ticksAway() });
    const pid = childrenOf(appPid)[0] ?? appPid;
    if (pid > 0) memoryMb.push(residentBytes(pid) / 1e6);
    await sleep(1000);
  }
})();
const news = people.map((p) => {
  const request = https.request(
    `${origin}/api/jobs/${demo.job.id}/events?client=client-load-${p.n}&sheet=section`,
    { agent: p.browser.agent, headers: { cookie: p.browser.cookie } },
    (response) => {
      response.on("data", () => {
        heard++;
      });
    },
  );
  request.on("error", (error) => {
    if (!over) faults.push(`news ${error.message}`);
  });
  request.end();
  return request;
});
const work = people.flatMap(({ browser: b, n }) => {
  const random = seededRandom(n + 1);
  const every = async (ms: number, what: () => Promise<void>): Promise<void> => {
    await sleep(ms * random());
    while (!over) {
      const began = performance.now();
      await what();
      await sleep(Math.max(0, ms - (performance.now() - began)));
    }
  };
  const site = sites[n % sites.length]!;
  return [
    every(SHEET_EVERY_MS, async () => {
      const link = demo.links[Math.floor(random() * demo.links.length)]!;
      await Promise.all([
        timed("job", b, "GET", `/api/jobs/${demo.job.id}`),
        timed("verdicts", b, "GET", `/api/jobs/${demo.job.id}/verdicts`),
        timed("profile", b, "GET", `/api/jobs/${demo.job.id}/links/${link.linkId}/profile`),
      ]);
    }),
    every(EDIT_EVERY_MS, async () => {
      const answer = await timed(
        "edit",
        b,
        "PATCH",
        `/api/jobs/${demo.job.id}/sites/${site.id}`,
        { version: versions.get(site.id), notes: `seen by ${n} at ${Date.now()}` },
        { "x-edit": randomUUID(), "x-client": `client-load-${n}` },
      );
      const row = answer.body as { version?: number; current?: { version: number } };
      versions.set(site.id, row.version ?? row.current?.version ?? versions.get(site.id)!);
    }),
  ];
});
await sleep(SECONDS * 1000);
over = true;
await Promise.all([...work, watch]);
for (const request of news) request.destroy();

const share = (ms: readonly number[], p: number): number => ms[Math.floor((ms.length - 1) * p)] ?? Number.NaN;
const line = (what: string, ms: number[]): void => {
  ms.sort((a, b) => a - b);
  console.log(
    `${what.padEnd(10)} ${String(ms.length).padStart(6)} times   median ${share(ms, 0.5).toFixed(0)} ms, 95 in 100 ${share(ms, 0.95).toFixed(0)} ms, at most ${share(ms, 1).toFixed(0)} ms`,
  );
};
for (const [what, ms] of taken) if (what !== "sign-in") line(what, ms);
line(
  "all",
  asked.map((a) => a.ms),
);
line(
  "once warm",
  asked.filter((a) => a.atMs >= spans[0]!.fromMs + SPAN_S * 1000).map((a) => a.ms),
);
for (const [i, { fromMs, stolen }] of spans.entries()) {
  const untilMs = spans[i + 1]?.fromMs ?? Number.POSITIVE_INFINITY;
  const ms = asked.filter((a) => a.atMs >= fromMs && a.atMs < untilMs).map((a) => a.ms);
  if (ms.length > 0) line(`from ${Math.round((fromMs - spans[0]!.fromMs) / 1000)} s`, ms);
  console.log(
    `           the machine was away for ${((100 * ((spans[i + 1] ?? { stolen: ticksAway() }).stolen - stolen)) / TICKS_OF_SPAN).toFixed(1)} % of it`,
  );
}
console.log(`aim for all: 95 in 100 under ${AIM_MS} ms, no fault`);
line("sign-in", taken.get("sign-in") ?? []);
console.log(`news heard ${heard} times; this generator itself was late by ${(lag.percentile(95) / 1e6).toFixed(1)} ms in 95 of 100`);
const tenth = Math.max(1, Math.floor(memoryMb.length / 10));
const mean = (list: readonly number[]): number => list.reduce((a, b) => a + b, 0) / Math.max(1, list.length);
console.log(
  `server     ${mean(memoryMb.slice(0, tenth)).toFixed(0)} MB at the beginning, ${mean(memoryMb.slice(-tenth)).toFixed(0)} MB at the end, ${Math.max(0, ...memoryMb).toFixed(0)} MB at most`,
);
for (const fault of faults.slice(0, 5)) console.log(`fault: ${fault}`);
console.log(`${faults.length} faults`);
process.exit(faults.length > 0 ? 1 : 0);
