import { spawn } from "node:child_process";

/** What an operator is told: a sentence, and nothing was done. */
export class OpsFault extends Error {}

/** The address of a database as PostgreSQL's own programs take it: its password stands in no list of processes. */
export const pgEnv = (address: string): Readonly<Record<string, string>> => {
  const url = new URL(address);
  return {
    PATH: process.env.PATH ?? "",
    LANG: "C.UTF-8",
    PGHOST: url.hostname,
    PGPORT: url.port === "" ? "5432" : url.port,
    PGUSER: decodeURIComponent(url.username),
    PGPASSWORD: decodeURIComponent(url.password),
    PGDATABASE: url.pathname.slice(1),
  };
};

/** Runs a program to its end. @throws OpsFault with its last words. */
export const run = (
  program: string,
  args: readonly string[],
  env: Readonly<Record<string, string | undefined>> = process.env,
): Promise<void> =>
  new Promise((resolve, reject) => {
    const child = spawn(program, args, { env: env as NodeJS.ProcessEnv, stdio: ["ignore", "ignore", "pipe"] });
    let words = "";
    child.stderr.on("data", (part: Buffer) => {
      words = (words + part.toString()).slice(-4000);
    });
    child.on("error", (error) => reject(new OpsFault(`${program} could not be started: ${error.message}`)));
    child.on("close", (code) => {
      if (code === 0) return resolve();
      const last = words.trim().split("\n").slice(-2).join(" ");
      reject(new OpsFault(`${program} ended with ${code}: ${last}`));
    });
  });
