import { z } from "zod";
import { kindOf, RECORDS, uuid } from "../contract";
import { antennaSchema, partSchema, radioSchema } from "../formats";

/* A whole job as one zip of open formats: JSON, GeoTIFF, JPEG, and a manifest with a checksum of each file. */

export const VERSION = 1;
export const FORMAT = "dry-arc-job";
export const MOST_UNPACKED_BYTES = 4_000_000_000;
export const MOST_ENTRIES = 5000;
/** Most rows of a kind that is read whole. */
export const MOST_ROWS = 100_000;
/** Designs kept beside the one in force. */
const MOST_KEPT = 20;

/** Files that every bundle has had from the first on; a kind that came later is left out where nobody wrote any. */
export const ALWAYS_THERE: ReadonlySet<string> = new Set([
  "job.json",
  "brief.json",
  "sites.json",
  "links.json",
  "obstacles.ndjson",
  "features.ndjson",
  "photos.json",
]);

/** What is at hand or retired is a firm's own: it does not go along with a job. */
export const withoutMarks = (sheet: unknown): unknown => {
  const { stock: _s, retired: _r, ...rest } = sheet as Record<string, unknown>;
  return rest;
};

export const manifestSchema = z.object({
  format: z.literal(FORMAT),
  version: z.number().int(),
  jobId: uuid,
  name: z.string(),
  files: z.record(z.string(), z.object({ bytes: z.number(), sha256: z.string() })),
});

/** A design written before permissions had fields: its words become a number that covers the channel of the design. */
const upgraded = (raw: unknown): unknown => {
  if (raw === null || typeof raw !== "object" || !("permission" in raw)) return raw;
  const { permission, ...rest } = raw as Record<string, unknown>;
  if (typeof permission !== "string" || permission.trim() === "" || "permissions" in rest) return rest;
  const half = Number(rest.widthMhz) / 2;
  const covers = { lowMhz: Number(rest.centreMhz) - half, highMhz: Number(rest.centreMhz) + half };
  const words = {
    kind: "",
    holder: "",
    number: permission.trim().slice(0, 120),
    place: "",
    note: permission.length > 120 ? permission.slice(0, 500) : "",
  };
  return { ...rest, permissions: [{ ...words, ...covers, maxEirpDbm: null, from: null, until: null }] };
};

type Row = Record<string, unknown> & { id: string };

/** What a record is in a bundle: its id, what is fixed and what is edited; what came since starts as a new one does. */
export const rowSchemaOf = (name: string): z.ZodType<Row> => {
  const k = kindOf(name);
  const plain = k.fields.extend({ ...k.fixed.shape, id: uuid });
  return plain.superRefine((row, context) => {
    for (const { path, message } of k.check?.(row as never) ?? []) context.addIssue({ code: "custom", path: [path], message });
  }) as unknown as z.ZodType<Row>;
};

const { fields: designFields } = RECORDS.design;
const within = (more: z.ZodRawShape) => z.preprocess(upgraded, designFields.extend({ id: uuid, ...more }));
/** Links hold their designs. */
export const linkSchema = z.intersection(
  rowSchemaOf("link"),
  z.object({
    design: within({}),
    kept: z
      .array(within({ name: z.string().max(40) }))
      .max(MOST_KEPT)
      .default([]),
  }),
);
/** A job's number is the database's own. */
export const jobSchema = RECORDS.job.fields.extend({ id: uuid });

export const hardwareSchema = z.object({
  radios: z.array(z.object({ source: z.string(), sheet: radioSchema })),
  antennas: z.array(z.object({ source: z.string(), sheet: antennaSchema })),
  parts: z.array(z.object({ source: z.string(), sheet: partSchema })).default([]),
});
export const terrainSchema = z.object({
  id: uuid,
  name: z.string().max(80),
  kind: z.enum(["dtm", "dsm"]),
  crs: z.string().regex(/^EPSG:\d{4,6}$/),
  cols: z.number().int().min(2),
  rows: z.number().int().min(2),
  originX: z.number(),
  originY: z.number(),
  stepX: z.number().refine((v) => v !== 0, "a step must not be 0"),
  stepY: z.number().refine((v) => v !== 0, "a step must not be 0"),
  cellM: z.number().gt(0),
  sigmaM: z.number().min(0),
  verticalDatum: z.string().max(60),
  datumOffsetM: z.number(),
  verticalUnit: z.string().max(10),
  source: z.string().max(200),
});
