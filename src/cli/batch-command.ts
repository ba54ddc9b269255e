/*
 * Many links out of a CSV, one row after another: a result or one clear error for each, written as they
 * come, so that a million rows take no more memory than one.
 */
import { createReadStream } from "node:fs";
import path from "node:path";
import { type Readable, Transform } from "node:stream";
import { pipeline } from "node:stream/promises";
import Papa from "papaparse";
import { z } from "zod";
import { evaluatePrepared, preparePath } from "../core/link";
import { FileFault } from "../formats";
import { type Catalogue, linkPlanOf, PlanError, profileOf } from "./plan-of-file";
import { faultOf, planSchema } from "./plan-schema";
import { TextError } from "./read-text";

const number = z
  .string()
  .trim()
  .transform((text, ctx) => {
    const value = Number(text);
    if (text === "" || Number.isNaN(value)) {
      ctx.addIssue({ code: "custom", message: text === "" ? "is empty" : `"${text}" is not a number` });
      return z.NEVER;
    }
    return value;
  });
const maybe = z
  .string()
  .trim()
  .optional()
  .transform((text) => (text === undefined || text === "" ? undefined : text));
const maybeNumber = z.preprocess((v) => (typeof v === "string" && v.trim() === "" ? undefined : v), number.optional());

/** A row of the batch file by its column names; every other column is carried through. */
export const rowSchema = z.object({
  id: maybe,
  near_lat_deg: maybeNumber,
  near_lon_deg: maybeNumber,
  far_lat_deg: maybeNumber,
  far_lon_deg: maybeNumber,
  path_m: maybeNumber,
  near_mount_m: number,
  far_mount_m: number,
  near_radio: z.string().trim().min(1, "is empty"),
  far_radio: maybe,
  near_antenna: maybe,
  far_antenna: maybe,
  near_power_dbm: number,
  far_power_dbm: maybeNumber,
  centre_mhz: number,
  width_mhz: number,
  need_to_far_mbps: maybeNumber,
  need_to_near_mbps: maybeNumber,
  terrain: maybe,
  profile: maybe,
  level_amsl_m: maybeNumber,
  rain_mm_h: maybeNumber,
});
type Row = z.infer<typeof rowSchema>;

export const NEEDED_COLUMNS = ["near_mount_m", "far_mount_m", "near_radio", "near_power_dbm", "centre_mhz", "width_mhz"];
export const RESULT_COLUMNS = [
  "row",
  "id",
  "error",
  "verdict",
  "clearance",
  "service",
  "path_m",
  "worst",
  "worst_at_m",
  "spare_m",
  "level_to_far_dbm",
  "level_to_near_dbm",
  "quick_band_low_dbm",
  "quick_band_high_dbm",
  "noise_dbm",
  "modulation",
  "air_mbps",
  "usable_to_far_mbps",
  "usable_to_near_mbps",
  "planned_to_far_mbps",
  "planned_to_near_mbps",
  "lost_minutes_a_year",
  "eirp_dbm",
  "exposure_m",
] as const;

export interface BatchOptions {
  readonly year: number;
  readonly domain: string;
}

const groundOf = (row: Row) => {
  if (row.terrain !== undefined) return { terrain: row.terrain };
  if (row.profile !== undefined) {
    // "0:4 100:5.5 430:6": distance and height of the ground, metres.
    return { profile: row.profile.split(/\s+/).map((pair) => pair.split(":").map(Number)), errorM: 1 };
  }
  return { level: row.level_amsl_m ?? 0, errorM: 1 };
};

const fixed = (value: number | undefined | null, digits: number): string =>
  value == null || !Number.isFinite(value) ? "" : value.toFixed(digits);

const evaluateRow = async (row: Row, catalogue: Catalogue, options: BatchOptions, resolve: (name: string) => string): Promise<string[]> => {
  const position = (lat: number | undefined, lon: number | undefined) =>
    lat === undefined || lon === undefined ? {} : { latDeg: lat, lonDeg: lon };
  const parsed = planSchema.safeParse({
    version: 1,
    near: {
      name: "near",
      ...position(row.near_lat_deg, row.near_lon_deg),
      mountAglM: row.near_mount_m,
      radio: row.near_radio,
      antenna: row.near_antenna ?? null,
      powerDbm: row.near_power_dbm,
    },
    far: {
      name: "far",
      ...position(row.far_lat_deg, row.far_lon_deg),
      mountAglM: row.far_mount_m,
      radio: row.far_radio ?? row.near_radio,
      antenna: row.far_antenna ?? row.near_antenna ?? null,
      powerDbm: row.far_power_dbm ?? row.near_power_dbm,
    },
    ...(row.path_m === undefined ? {} : { pathM: row.path_m }),
    ground: groundOf(row),
    centreMhz: row.centre_mhz,
    widthMhz: row.width_mhz,
    needToFarMbps: row.need_to_far_mbps ?? null,
    needToNearMbps: row.need_to_near_mbps ?? null,
    policy: { year: options.year, domain: options.domain },
    climate: { rainRate001MmH: row.rain_mm_h ?? 30 },
  });
  if (!parsed.success) throw new PlanError(faultOf(parsed.error));
  const plan = linkPlanOf(parsed.data, catalogue);
  const profile = await profileOf(parsed.data, resolve);
  const r = evaluatePrepared(plan, preparePath(plan, profile));
  const { toFar, toNear } = r.service;
  const w = r.clearance.worst;
  const fault = r.service.faults[0];
  return [
    fault === undefined ? "" : `the radios do not pair: ${fault.code}`,
    r.verdict,
    r.clearance.verdict,
    r.service.verdict,
    fixed(r.geometry.pathM, 1),
    w === null ? "" : (w.ownerName ?? w.owner.kind),
    fixed(w?.atM, 1),
    fixed(w === null ? null : -w.missM, 2),
    fixed(toFar?.levelDbm, 1),
    fixed(toNear?.levelDbm, 1),
    fixed(toFar?.bandLowDbm, 1),
    fixed(toFar?.bandHighDbm, 1),
    fixed(toFar?.noiseDbm, 1),
    toFar?.held == null ? "" : `${toFar.held.modulation} ${toFar.held.codeRate}`,
    fixed(toFar?.held?.phyRateMbps, 1),
    fixed(toFar?.airtime?.tcpMbps, 1),
    fixed(toNear?.airtime?.tcpMbps, 1),
    fixed(toFar?.plannedMbps, 1),
    fixed(toNear?.plannedMbps, 1),
    fixed(toFar?.outage?.minutesAYear, 1),
    fixed(toFar?.eirpDbm, 1),
    fixed(toFar?.exposure?.distanceM, 2),
  ];
};

/** Bytes to text, refusing what is not UTF-8 at the place where it stops being so. */
const decoder = (name: string): Transform => {
  const decode = new TextDecoder("utf-8", { fatal: true });
  let seen = 0;
  const wrong = (): TextError => new TextError(`${name} is not UTF-8 text (near byte ${seen}); save it as UTF-8`);
  return new Transform({
    readableObjectMode: true,
    transform(chunk: Buffer, _encoding, done) {
      try {
        const text = decode.decode(chunk, { stream: true });
        seen += chunk.length;
        done(null, text);
      } catch {
        done(wrong());
      }
    },
    flush(done) {
      try {
        done(null, decode.decode());
      } catch {
        done(wrong());
      }
    },
  });
};

const csvRow = (values: readonly string[]): string => `${Papa.unparse([values as string[]], { header: false, newline: "\n" })}\n`;

/**
 * Reads rows, evaluates each, writes each result.
 * @returns the exit code: 0 when every row has a result, 1 when some have an error.
 * @throws TextError when the file as a whole cannot be used (exit code 2).
 */
export const runBatch = async (
  name: string,
  catalogue: Catalogue,
  options: BatchOptions,
  out: NodeJS.WritableStream,
  warn: (text: string) => void,
): Promise<number> => {
  const label = name === "-" ? "standard input" : name;
  const folder = name === "-" ? process.cwd() : path.dirname(path.resolve(name));
  const resolve = (n: string): string => path.resolve(folder, n);
  let rows = 0;
  let failed = 0;
  let checkedHeader = false;
  const parser = Papa.parse(Papa.NODE_STREAM_INPUT, {
    header: true,
    skipEmptyLines: "greedy",
    transformHeader: (h) => h.trim().replace(/^\uFEFF/, ""),
  });
  const evaluate = async function* (source: AsyncIterable<Record<string, string>>): AsyncGenerator<string> {
    yield csvRow(RESULT_COLUMNS);
    for await (const raw of source) {
      rows++;
      if (!checkedHeader) {
        const missing = NEEDED_COLUMNS.filter((c) => !(c in raw));
        if (missing.length > 0) throw new TextError(`${label} has no column ${missing.join(", ")}; docs/cli.md lists them`);
        checkedHeader = true;
      }
      const id = raw.id ?? "";
      try {
        const parsed = rowSchema.safeParse(raw);
        if (!parsed.success) throw new PlanError(`${parsed.error.issues[0]?.path.join(".")} ${parsed.error.issues[0]?.message}`);
        yield csvRow([String(rows), id, ...(await evaluateRow(parsed.data, catalogue, options, resolve))]);
      } catch (error) {
        if (!(error instanceof PlanError || error instanceof RangeError || error instanceof FileFault)) throw error;
        failed++;
        yield csvRow([String(rows), id, error.message, ...Array.from({ length: RESULT_COLUMNS.length - 3 }, () => "")]);
      }
    }
  };
  const input: Readable = name === "-" ? process.stdin : createReadStream(name);
  const opened = new Promise<void>((_resolve, reject) => {
    input.once("error", (error: NodeJS.ErrnoException) =>
      reject(
        new TextError(error.code === "ENOENT" ? `${label} does not exist` : `${label} cannot be read (${error.code ?? "unknown reason"})`),
      ),
    );
  });
  const work = pipeline(input, decoder(label), parser as unknown as NodeJS.ReadWriteStream, evaluate as never, out, {
    end: false,
  } as never);
  await Promise.race([work, opened]);
  if (rows === 0) throw new TextError(`${label} holds no rows`);
  warn(`${rows} rows, ${failed} with an error`);
  return failed > 0 ? 1 : 0;
};
