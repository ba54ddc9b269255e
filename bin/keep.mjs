// Keeps a process running: starts it again when it ends, writes what it says into a log that turns over.
//   node bin/keep.mjs LOG COMMAND [ARGUMENT...]
import { spawn } from "node:child_process";
import { closeSync, existsSync, mkdirSync, openSync, renameSync, statSync, writeSync } from "node:fs";
import path from "node:path";

const MOST_LOG_BYTES = 5_000_000;
const OLD_LOGS = 3;
const LEAST_PAUSE_MS = 500;
const MOST_PAUSE_MS = 5000;
/** A process that ran for so long had started well. */
const WELL_MS = 20_000;

const [log, command, ...args] = process.argv.slice(2);
if (log === undefined || command === undefined) {
  console.error("use: node bin/keep.mjs LOG COMMAND [ARGUMENT...]");
  process.exit(2);
}
mkdirSync(path.dirname(log), { recursive: true });
let file = openSync(log, "a");
let size = statSync(log).size;
const turnOver = () => {
  closeSync(file);
  for (let n = OLD_LOGS; n >= 1; n--) {
    const from = n === 1 ? log : `${log}.${n - 1}`;
    if (existsSync(from)) renameSync(from, `${log}.${n}`);
  }
  file = openSync(log, "a");
  size = 0;
};
/** Lines of text alone: whatever else a process says is no log. */
const write = (chunk) => {
  const text = chunk.toString("utf8").replace(/[^\P{C}\n\t]|\uFFFD/gu, " ");
  const bytes = Buffer.from(text);
  if (size + bytes.length > MOST_LOG_BYTES) turnOver();
  try {
    size += writeSync(file, bytes);
  } catch {
    // A full disk takes no log; what is kept must not end for it.
  }
};

let child = null;
let ending = false;
let pause = LEAST_PAUSE_MS;
const start = () => {
  const began = Date.now();
  child = spawn(command, args, { stdio: ["ignore", "pipe", "pipe"] });
  child.stdout.on("data", write);
  child.stderr.on("data", write);
  child.on("error", (error) => write(`${new Date().toISOString()} cannot be started: ${error.message}\n`));
  child.on("close", (code, signal) => {
    if (ending) process.exit(0);
    pause = Date.now() - began > WELL_MS ? LEAST_PAUSE_MS : Math.min(MOST_PAUSE_MS, pause * 2);
    write(`${new Date().toISOString()} ended (${signal ?? code}); starts again in ${pause} ms\n`);
    setTimeout(start, pause);
  });
};
for (const signal of ["SIGTERM", "SIGINT"])
  process.on(signal, () => {
    ending = true;
    if (child === null || child.exitCode !== null) process.exit(0);
    child.kill(signal);
    setTimeout(() => child.kill("SIGKILL"), 8000).unref();
  });
// An orphan ends: whoever started this is gone without a word.
const born = process.ppid;
setInterval(() => {
  if (process.ppid === born) return;
  ending = true;
  child?.kill("SIGTERM");
  setTimeout(() => process.exit(0), 3000);
}, 1000).unref();
start();
