import { type ChildProcess, fork } from "node:child_process";
import { readFileSync } from "node:fs";
import { type Asker, askerNow } from "../data/actor";
import { Refused } from "../data/clash";
import { type AnswerMessage, type AskMessage, errorOf } from "./reader-messages";
import type { ReaderAnswers, ReaderTasks, TaskKind } from "./reader-tasks";

/** What a task may take before its reader is ended. */
export interface Limits {
  readonly timeMs: number;
  /** So long it may say nothing of going on; left out, only the whole time counts. */
  readonly quietMs?: number;
  readonly memoryBytes: number;
}

/** A reader was ended from outside while it had a task: the task took more than is allowed, or its process died. */
export class ReaderEnded extends Error {
  constructor(readonly why: "time" | "memory" | "died" | "left") {
    super(SENTENCES[why]);
    this.name = "ReaderEnded";
  }
}
const SENTENCES = {
  time: "reading it took longer than is allowed",
  memory: "reading it took more memory than is allowed",
  died: "the process that read it ended",
  left: "nobody waits for it any more",
};

export interface ReaderPool {
  /** Has a task done by a reader of its own. @param signal given up: the reader is ended. @throws what the task threw, or ReaderEnded. */
  readonly run: <K extends TaskKind>(kind: K, task: ReaderTasks[K], limits: Limits, signal?: AbortSignal) => Promise<ReaderAnswers[K]>;
  /** Process numbers of the readers there are. */
  readonly pids: () => number[];
  readonly close: () => void;
}

interface Reader {
  readonly process: ChildProcess;
  ready: boolean;
  job: Job | null;
  served: number;
  idle: ReturnType<typeof setTimeout> | null;
}
interface Job {
  readonly id: number;
  readonly kind: TaskKind;
  readonly task: unknown;
  readonly who: Asker | null;
  readonly limits: Limits;
  readonly signal: AbortSignal | undefined;
  readonly resolve: (value: unknown) => void;
  readonly reject: (error: Error) => void;
  endAt: number;
  heardAt: number;
}

/** What a process that looks into files of others has no use for: what lets people in, what signs, and what the owner of the database has. */
const NOT_FOR_READERS = [
  "DATABASE_DOOR_URL",
  "DATABASE_OWNER_URL",
  "DATABASE_WORKER_URL",
  "DRYARC_KEYS",
  "DRYARC_FRONT_KEY",
  "DRYARC_FIRST_CODE",
];
const withoutDoors = (env: NodeJS.ProcessEnv): NodeJS.ProcessEnv =>
  Object.fromEntries(Object.entries(env).filter(([name]) => !NOT_FOR_READERS.includes(name))) as NodeJS.ProcessEnv;

const LOOK_MS = 100;
const PAGE_BYTES = 4096;
/** A reader that served so often, or grew so large, makes room for a new one. */
const MOST_SERVED = 2000;
const LARGE_BYTES = 260_000_000;
const MEGABYTE = 1_048_576;

const residentBytes = (pid: number): number => {
  try {
    return Number(readFileSync(`/proc/${pid}/statm`, "utf8").split(" ")[1]) * PAGE_BYTES;
  } catch {
    return 0;
  }
};

/**
 * Readers, started as they are needed and ended when nobody asks for a while.
 * @param entry the program of a reader; @param most how many at a time; @param heapMb what its heap may take.
 */
export const createReaders = (options: {
  readonly entry: string;
  readonly most: number;
  readonly heapMb: number;
  readonly idleMs: number;
  readonly mostWaiting?: number;
}): ReaderPool => {
  const readers = new Set<Reader>();
  const waiting: Job[] = [];
  let nextId = 1;
  let closed = false;
  let look: ReturnType<typeof setInterval> | null = null;

  const end = (r: Reader): void => {
    readers.delete(r);
    if (r.idle !== null) clearTimeout(r.idle);
    r.process.removeAllListeners();
    r.process.on("error", () => undefined);
    r.process.kill("SIGKILL");
  };
  const settle = (r: Reader, done: (job: Job) => void): void => {
    const { job } = r;
    r.job = null;
    if (job === null) return;
    job.signal?.removeEventListener("abort", leftOf(job));
    done(job);
  };
  const leave = new Map<Job, () => void>();
  const leftOf = (job: Job): (() => void) => {
    const found = leave.get(job);
    leave.delete(job);
    return found ?? (() => undefined);
  };
  const stop = (r: Reader, why: ReaderEnded["why"]): void => {
    end(r);
    settle(r, (job) => job.reject(new ReaderEnded(why)));
    pump();
  };
  const watch = (): void => {
    const now = Date.now();
    let busy = false;
    for (const r of [...readers]) {
      if (r.job === null) continue;
      busy = true;
      if (now > r.job.endAt || (r.job.limits.quietMs !== undefined && now - r.job.heardAt > r.job.limits.quietMs)) stop(r, "time");
      else if (residentBytes(r.process.pid ?? 0) > r.job.limits.memoryBytes) stop(r, "memory");
    }
    if (!busy && look !== null) {
      clearInterval(look);
      look = null;
    }
  };
  const start = (): Reader => {
    const child = fork(options.entry, [], {
      execArgv: [`--max-old-space-size=${options.heapMb}`],
      serialization: "advanced",
      stdio: ["ignore", "inherit", "inherit", "ipc"],
      env: withoutDoors(process.env),
    });
    const r: Reader = { process: child, ready: false, job: null, served: 0, idle: null };
    readers.add(r);
    child.on("message", (message: AnswerMessage) => {
      if (message.kind === "ready") {
        r.ready = true;
        return;
      }
      if (message.kind === "goes-on") {
        if (r.job !== null) r.job.heardAt = Date.now();
        return;
      }
      if (r.job?.id !== message.id) return;
      r.served++;
      settle(r, (job) => (message.kind === "answer" ? job.resolve(message.value) : job.reject(errorOf(message.fault))));
      if (r.served >= MOST_SERVED || residentBytes(child.pid ?? 0) > LARGE_BYTES) end(r);
      pump();
    });
    const died = (code: number | null, signal: string | null): void => {
      if (!readers.has(r)) return;
      // A heap that is full ends the process by SIGABRT (134 where a shell stands between).
      stop(r, signal === "SIGABRT" || code === 134 ? "memory" : "died");
    };
    child.on("exit", died);
    child.on("error", () => died(null, null));
    return r;
  };
  const give = (r: Reader, job: Job): void => {
    if (r.idle !== null) clearTimeout(r.idle);
    r.idle = null;
    r.job = job;
    const now = Date.now();
    job.endAt = now + job.limits.timeMs;
    job.heardAt = now;
    if (job.signal !== undefined) {
      const left = (): void => stop(r, "left");
      leave.set(job, left);
      job.signal.addEventListener("abort", left, { once: true });
    }
    r.process.send({ id: job.id, kind: job.kind, task: job.task, who: job.who } satisfies AskMessage, (error) => {
      if (error !== null && r.job === job) stop(r, "died");
    });
    look ??= setInterval(watch, LOOK_MS);
  };
  const pump = (): void => {
    if (closed) return;
    while (waiting.length > 0) {
      const free = [...readers].find((r) => r.job === null) ?? (readers.size < options.most ? start() : undefined);
      if (free === undefined) return;
      const job = waiting.shift()!;
      if (job.signal?.aborted === true) job.reject(new ReaderEnded("left"));
      else give(free, job);
    }
    for (const r of readers) {
      if (r.job !== null || r.idle !== null) continue;
      r.idle = setTimeout(() => {
        if (r.job === null) end(r);
      }, options.idleMs);
      r.idle.unref();
    }
  };
  return {
    run: <K extends TaskKind>(kind: K, task: ReaderTasks[K], limits: Limits, signal?: AbortSignal) =>
      new Promise<ReaderAnswers[K]>((resolve, reject) => {
        if (waiting.length >= (options.mostWaiting ?? 200)) return reject(new Refused("busy", "file"));
        waiting.push({
          id: nextId++,
          kind,
          task,
          who: askerNow(),
          limits,
          signal,
          resolve: resolve as (value: unknown) => void,
          reject,
          endAt: Number.POSITIVE_INFINITY,
          heardAt: 0,
        });
        pump();
      }),
    pids: () => [...readers].flatMap((r) => (r.process.pid === undefined ? [] : [r.process.pid])),
    close: () => {
      closed = true;
      for (const r of [...readers]) {
        end(r);
        settle(r, (job) => job.reject(new ReaderEnded("died")));
      }
      for (const job of waiting.splice(0)) job.reject(new ReaderEnded("died"));
      if (look !== null) clearInterval(look);
    },
  };
};

export const MEGABYTES = (n: number): number => n * MEGABYTE;
