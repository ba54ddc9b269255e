import { Worker } from "node:worker_threads";

/** In a thread of its own, so that work that never yields cannot keep an orphan alive. */
const WATCH = `const born = process.ppid; setInterval(() => { if (process.ppid !== born) process.kill(process.pid, "SIGKILL"); }, 500);`;

/** Ends this process as soon as the one that started it is gone, however that went. */
export const endWithParent = (): void => {
  const thread = new Worker(WATCH, { eval: true, stdout: true, stderr: true });
  thread.unref();
  thread.on("error", () => undefined);
};
