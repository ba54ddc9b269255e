import { z } from "zod";
import {
  basisSchema,
  designFieldsSchema,
  featureFieldsSchema,
  groundToldSchema,
  newSiteSchema,
  obstacleFieldsSchema,
  photoFieldsSchema,
  uuid,
} from "../contract";
import { antennaSchema, radioSchema } from "../formats";

/* A whole job as one zip of open formats: JSON, GeoTIFF, JPEG, and a manifest with a checksum of each file. */

export const VERSION = 1;
export const FORMAT = "dry-arc-job";
export const MOST_UNPACKED_BYTES = 4_000_000_000;
export const MOST_ENTRIES = 5000;

export const manifestSchema = z.object({
  format: z.literal(FORMAT),
  version: z.number().int(),
  jobId: uuid,
  name: z.string(),
  files: z.record(z.string(), z.object({ bytes: z.number(), sha256: z.string() })),
});
export const jobSchema = basisSchema.extend({
  id: uuid,
  name: z.string().min(1).max(80),
  place: z.string().max(80),
  stage: z.string().max(80),
  visitOn: z.iso.date(),
  centreLatDeg: z.number().min(-90).max(90),
  centreLonDeg: z.number().min(-180).max(180),
});
export const siteSchema = newSiteSchema.extend({ id: uuid });
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
export const linkSchema = z.object({
  id: uuid,
  number: z.number().int().min(1),
  nearSiteId: uuid,
  farSiteId: uuid,
  label: z.string().max(80),
  stage: z.string().max(80),
  groundTold: groundToldSchema.nullable(),
  design: z.preprocess(upgraded, designFieldsSchema.extend({ id: uuid })),
  kept: z
    .array(z.preprocess(upgraded, designFieldsSchema.extend({ id: uuid, name: z.string().max(40) })))
    .max(20)
    .default([]),
});
export const obstacleSchema = z.intersection(z.object({ id: uuid }), obstacleFieldsSchema);
export const featureSchema = featureFieldsSchema.extend({ id: uuid });
export const hardwareSchema = z.object({
  radios: z.array(z.object({ source: z.string(), sheet: radioSchema })),
  antennas: z.array(z.object({ source: z.string(), sheet: antennaSchema })),
});
export const photoSchema = photoFieldsSchema.extend({ id: uuid, mime: z.enum(["image/jpeg", "image/png", "image/webp"]) });
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
