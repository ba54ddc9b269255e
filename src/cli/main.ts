#!/usr/bin/env node
/* The core from a shell: a plan in JSON or many in CSV, results out. docs/cli.md describes both. */
import { createWriteStream } from "node:fs";
import path from "node:path";
import { fileURLToPath } from "node:url";
import { parseArgs } from "node:util";
import { z } from "zod";
import { FileFault, hardwareFileSchema } from "../formats";
import { runBatch } from "./batch-command";
import { runLink } from "./link-command";
import { type Catalogue, PlanError } from "./plan-of-file";
import { faultOf, planSchema, policySchema } from "./plan-schema";
import { parseJson, readSmall, TextError } from "./read-text";
import { SCANNED_BANDS, scannerText } from "./scanner-command";

const USAGE = `usage:
  npm run -s cli -- link PLAN.json|-  [--hardware FILE] [--draws 500] [--seed 1]
  npm run -s cli -- batch LINKS.csv|- [--hardware FILE] [--out FILE] [--year YEAR] [--domain cautious|FCC-like|ETSI-like]
  npm run -s cli -- schema [plan|hardware]   the JSON schema of a plan, or of a file of radios, antennas and parts
  npm run -s cli -- scanner [scan|survey] [--band 2.4|5|6] [--count 12] [--seed 1]   a simulated scanner, in the text of iw
exit codes: 0 done, 1 some rows have an error, 2 nothing could be done
`;
const DEFAULT_HARDWARE = path.resolve(path.dirname(fileURLToPath(import.meta.url)), "../../demo/hardware.json");

const catalogueOf = (name: string): Catalogue => {
  const parsed = hardwareFileSchema.safeParse(parseJson(readSmall(name), name));
  if (!parsed.success) throw new TextError(`${name}: ${faultOf(parsed.error)}`);
  return parsed.data as Catalogue;
};

const whole = (text: string, name: string, least: number, most: number): number => {
  const value = Number(text);
  if (!Number.isInteger(value) || value < least || value > most)
    throw new TextError(`--${name} ${text}: a whole number from ${least} to ${most} is wanted`);
  return value;
};

/** A file to write results into. @throws TextError when it cannot be made. */
const openForWriting = (name: string): Promise<NodeJS.WritableStream> =>
  new Promise((resolve, reject) => {
    const out = createWriteStream(name);
    out.once("open", () => resolve(out));
    out.once("error", (error: NodeJS.ErrnoException) =>
      reject(new TextError(`${name} cannot be written (${error.code ?? "unknown reason"})`)),
    );
  });

const main = async (): Promise<number> => {
  const { values, positionals } = parseArgs({
    allowPositionals: true,
    options: {
      hardware: { type: "string", default: DEFAULT_HARDWARE },
      draws: { type: "string", default: "500" },
      seed: { type: "string", default: "1" },
      out: { type: "string" },
      year: { type: "string", default: String(new Date().getUTCFullYear()) },
      domain: { type: "string", default: "cautious" },
      band: { type: "string", default: "5" },
      count: { type: "string", default: "12" },
      help: { type: "boolean", default: false },
    },
  });
  const [command, file] = positionals;
  if (values.help || command === undefined) {
    process.stdout.write(USAGE);
    return values.help ? 0 : 2;
  }
  const warn = (text: string): void => void process.stderr.write(`dry-arc: ${text}\n`);
  if (command === "schema") {
    const of = file ?? "plan";
    if (of !== "plan" && of !== "hardware") throw new TextError(`schema ${of}: plan or hardware is wanted`);
    process.stdout.write(`${JSON.stringify(z.toJSONSchema(of === "plan" ? planSchema : hardwareFileSchema, { io: "input" }), null, 2)}\n`);
    return 0;
  }
  if (command === "scanner") {
    const what = file ?? "scan";
    if (what !== "scan" && what !== "survey") throw new TextError(`scanner ${what}: scan or survey is wanted`);
    if (!SCANNED_BANDS.includes(values.band)) throw new TextError(`--band ${values.band}: one of ${SCANNED_BANDS.join(", ")} is wanted`);
    process.stdout.write(
      scannerText(what, values.band, whole(values.count, "count", 0, 500), whole(values.seed, "seed", 0, 4_294_967_295)),
    );
    return 0;
  }
  if (command !== "link" && command !== "batch")
    throw new TextError(`there is no command "${command}"; known are link, batch, schema and scanner`);
  if (file === undefined) throw new TextError(`${command} needs a file, or - for standard input`);
  const catalogue = catalogueOf(values.hardware);
  if (command === "link") {
    const options = { draws: whole(values.draws, "draws", 0, 100_000), seed: whole(values.seed, "seed", 0, 4_294_967_295) };
    return runLink(file, catalogue, options, (text) => process.stdout.write(text), warn);
  }
  const domain = policySchema.shape.domain.safeParse(values.domain);
  if (!domain.success) throw new TextError(`--domain ${values.domain}: cautious, FCC-like or ETSI-like is wanted`);
  const out = values.out === undefined ? process.stdout : await openForWriting(values.out);
  const code = await runBatch(file, catalogue, { year: whole(values.year, "year", 2000, 2200), domain: domain.data }, out, warn);
  if (out !== process.stdout) await new Promise<void>((resolve) => out.end(resolve));
  return code;
};

process.stdout.on("error", (error: NodeJS.ErrnoException) => {
  // The reader of our output went away: nothing is left to do.
  if (error.code === "EPIPE") process.exit(0);
  throw error;
});

try {
  process.exitCode = await main();
} catch (error) {
  const known = error instanceof TextError || error instanceof PlanError || error instanceof FileFault || error instanceof RangeError;
  const usage = (error as { code?: string }).code?.startsWith("ERR_PARSE_ARGS") === true;
  if (!known && !usage) throw error;
  process.stderr.write(`dry-arc: ${(error as Error).message}\n`);
  process.exitCode = 2;
}
