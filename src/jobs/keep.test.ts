import { type ChildProcess, spawn } from "node:child_process";
import { existsSync, mkdtempSync, readdirSync, readFileSync, rmSync, statSync, writeFileSync } from "node:fs";
import { tmpdir } from "node:os";
import path from "node:path";
import { afterAll, afterEach, describe, expect, test } from "vitest";
import { faultLine } from "../data/log";

/* What keeps the server and the worker running, and what their logs hold. */
const dir = mkdtempSync(path.join(tmpdir(), "dry-arc-keep-"));
afterAll(() => rmSync(dir, { recursive: true, force: true }));
let keeper: ChildProcess | null = null;
afterEach(() => void keeper?.kill("SIGKILL"));

const keep = (name: string, script: string): string => {
  const program = path.join(dir, `${name}.mjs`);
  writeFileSync(program, script);
  const log = path.join(dir, `${name}.log`);
  keeper = spawn("node", ["bin/keep.mjs", log, "node", program], { stdio: "ignore" });
  return log;
};
const said = (log: string): string => (existsSync(log) ? readFileSync(log, "utf8") : "");

describe("keeping a process", () => {
  test("it is started again when it ends, and ends with its keeper", async () => {
    const log = keep("ends", 'console.log("here " + process.pid); if (Date.now() % 2 >= 0) setTimeout(() => process.exit(3), 100);');
    await expect.poll(() => said(log).match(/here \d+/g)?.length ?? 0, { timeout: 20_000 }).toBeGreaterThanOrEqual(2);
    expect(said(log)).toMatch(/ended \(3\); starts again in \d+ ms/);
    const quiet = keep("stays", 'console.log("pid " + process.pid); setInterval(() => undefined, 1000);');
    await expect.poll(() => said(quiet), { timeout: 20_000 }).toMatch(/pid \d+/);
    const pid = Number(/pid (\d+)/.exec(said(quiet))![1]);
    keeper!.kill("SIGTERM");
    const alive = (): boolean => {
      try {
        process.kill(pid, 0);
        return true;
      } catch {
        return false;
      }
    };
    await expect.poll(alive, { timeout: 10_000 }).toBe(false);
  });

  test("its log holds text alone and turns over: the newest and three before it", { timeout: 60_000 }, async () => {
    const log = keep(
      "loud",
      'process.stdout.write(Buffer.from([0, 1, 2, 0x1b, 0x5b, 0x41, 0xff, 0xfe]));for (let i = 0; i < 260; i++) process.stdout.write("x".repeat(99_999) + "\\n"); process.stdout.write("all said\\n"); setInterval(() => undefined, 1000);',
    );
    // Once the last of it is written nothing turns over any more: until then a file may be gone between two looks.
    await expect.poll(() => said(log).endsWith("all said\n"), { timeout: 50_000 }).toBe(true);
    const files = readdirSync(dir).filter((n) => n.startsWith("loud.log"));
    expect(files).toHaveLength(4);
    for (const f of files) {
      expect(statSync(path.join(dir, f)).size).toBeLessThanOrEqual(5_000_000);
      // biome-ignore lint/suspicious/noControlCharactersInRegex: those must not be there
      expect(readFileSync(path.join(dir, f), "utf8")).not.toMatch(/[\u0000-\u0008\u001b]/);
    }
  });
});

describe("a fault in a log", () => {
  test("is one printable line, without the data of a query, its causes behind it", () => {
    const cause = Object.assign(new Error("duplicate key\u0000\u001b[31m"), { code: "23505" });
    const error = new Error(`Failed query: insert into photo values ($1)\nparams: ${String.fromCharCode(0xff, 0xd8, 0)}secret`, { cause });
    const line = faultLine(error);
    expect(line).toMatch(/^Error: Failed query: insert into photo values \(\$1\) <- Error: duplicate key \[31m/);
    expect(line).not.toMatch(/secret|\n/);
    expect(faultLine("x".repeat(5000))).toHaveLength(600);
  });
});
