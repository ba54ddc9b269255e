import { type ChildProcess, execFileSync, spawn } from "node:child_process";
import { createHash, randomUUID } from "node:crypto";
import { readFileSync } from "node:fs";
import { setTimeout as sleep } from "node:timers/promises";

/* The application as it runs, for the scripts that drive it over HTTP: servers and workers kept by bin/keep.mjs. */

/** The address of a cluster's database for one of its roles. */
export const dbUrl = (name: string, role: "owner" | "app" | "door" | "worker" | "admin"): string =>
  execFileSync("node", ["bin/db.mjs", "url", name, role], { encoding: "utf8" }).trim();

/** What the application is told of a cluster; a worker has an address of its own. */
export const envOf = (name: string): Readonly<Record<string, string>> => ({
  DATABASE_URL: dbUrl(name, "app"),
  DATABASE_DOOR_URL: dbUrl(name, "door"),
});

/** Starts a cluster; a killed one lets go of its memory a moment later. */
export const startDb = async (name: string): Promise<void> => {
  for (let i = 0; ; i++) {
    try {
      execFileSync("node", ["bin/db.mjs", "start", name], { stdio: "ignore" });
      return;
    } catch (error) {
      if (i > 40) throw error;
      await sleep(500);
    }
  }
};
export const stopDb = (name: string): void => {
  execFileSync("node", ["bin/db.mjs", "stop", name], { stdio: "ignore" });
};

export interface Kept {
  readonly keeper: ChildProcess;
  /** The process that is kept, or null while it starts. */
  readonly pid: () => number | null;
}

export const childrenOf = (pid: number): number[] => {
  try {
    return readFileSync(`/proc/${pid}/task/${pid}/children`, "utf8").trim().split(" ").filter(Boolean).map(Number);
  } catch {
    return [];
  }
};

const kept = (log: string, args: readonly string[], env: Readonly<Record<string, string>>): Kept => {
  const keeper = spawn("node", ["bin/keep.mjs", log, ...args], { env: { ...process.env, ...env }, stdio: "ignore" });
  return { keeper, pid: () => childrenOf(keeper.pid!)[0] ?? null };
};

export const startApp = (name: string, port: number, env: Readonly<Record<string, string>>): Kept =>
  kept(
    `.data/${name}/app-${port}.log`,
    ["node_modules/.bin/next", "start", "--keepAliveTimeout", "70000", "-H", "127.0.0.1", "-p", String(port)],
    env,
  );
export const startWorker = (name: string, n: number, env: Readonly<Record<string, string>>): Kept =>
  kept(`.data/${name}/worker-${n}.log`, ["node", "build/worker.mjs"], { ...env, DATABASE_URL: dbUrl(name, "worker") });

export const stopKept = async (all: readonly Kept[]): Promise<void> => {
  for (const k of all) k.keeper.kill("SIGTERM");
  await Promise.all(all.map((k) => (k.keeper.exitCode !== null ? null : new Promise((resolve) => k.keeper.once("exit", resolve)))));
};

export const untilHealthy = async (base: string): Promise<void> => {
  for (let i = 0; i < 600; i++) {
    if (
      await fetch(`${base}/api/health`).then(
        (r) => r.ok,
        () => false,
      )
    )
      return;
    await sleep(100);
  }
  throw new Error(`${base} does not answer`);
};

/** Resident memory of a process and all it started, bytes. */
export const residentBytes = (pid: number): number => {
  let own = 0;
  try {
    own = Number(readFileSync(`/proc/${pid}/statm`, "utf8").split(" ")[1]) * 4096;
  } catch {
    return 0;
  }
  return own;
};

export interface Answer<T = Record<string, unknown>> {
  readonly status: number;
  readonly body: T;
}

/** One request as a browser makes it. */
export const call = async <T = Record<string, unknown>>(
  base: string,
  method: string,
  path: string,
  body?: unknown,
  headers: Readonly<Record<string, string>> = {},
): Promise<Answer<T>> => {
  const response = await fetch(`${base}${path}`, {
    method,
    headers,
    signal: AbortSignal.timeout(120_000),
    ...(body === undefined ? {} : { body: body instanceof Uint8Array ? (body as BodyInit) : JSON.stringify(body) }),
  });
  return { status: response.status, body: (await response.json()) as T };
};

/** An edit as the outbox makes it: under one number, to whichever server answers, until one does. */
export const edit = async <T = Record<string, unknown>>(
  bases: readonly string[],
  method: string,
  path: string,
  body: unknown,
  client: string,
): Promise<Answer<T>> => {
  const headers = { "x-edit": randomUUID(), "x-client": client };
  for (let i = 0; ; i++) {
    const answer = await call<T>(bases[i % bases.length]!, method, path, body, headers).catch(() => null);
    if (answer !== null && answer.status !== 503) return answer;
    await sleep(150);
  }
};

/** Sends a whole file. @returns its id on the server. */
export const sendFile = async (bases: readonly string[], at: string, name: string, bytes: Uint8Array, client: string): Promise<string> => {
  const { body } = await edit<{ id: string }>(bases, "POST", at, { name, sizeBytes: bytes.length }, client);
  const sha = createHash("sha256").update(bytes).digest("hex");
  for (let i = 0; ; i++) {
    const put = await call(bases[i % bases.length]!, "PUT", `${at}/${body.id}?at=0`, bytes, { "x-sha256": sha }).catch(() => null);
    if (put?.status === 200) return body.id;
    if (put !== null && put.status !== 503) throw new Error(`a file was refused: ${JSON.stringify(put.body)}`);
    await sleep(150);
  }
};

export const newJob = async (bases: readonly string[], name: string, client: string): Promise<string> =>
  (
    await edit<{ id: string }>(
      bases,
      "POST",
      "/api/jobs",
      { name, visitOn: "2026-12-03", centreLatDeg: 46, centreLonDeg: -25, ruleDomain: "cautious", rainRate001MmH: 28 },
      client,
    )
  ).body.id;
