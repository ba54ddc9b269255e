import { z } from "zod";
import { crossesItself } from "../core/geo";
import { TOLD_SIGMA_M } from "../core/link";
import { BODY_KINDS } from "../core/obstacles";
import { latLons } from "./positions";

/* What is drawn and brought in on the Ground sheet. */

const position = z.tuple([
  z.number().min(-180, "longitude must be between -180 and 180").max(180, "longitude must be between -180 and 180"),
  z.number().min(-90, "latitude must be between -90 and 90").max(90, "latitude must be between -90 and 90"),
]);
const words = z.string().trim().max(120, "a name must be 120 letters or fewer");
const heightM = z.number("height must be a number").min(0, "height must be 0 m or above").max(1000, "height must be 1000 m or less");
const sigmaM = z.number("the error must be a number").min(0, "the error must be 0 m or above").max(100, "the error must be 100 m or less");

const spansDateLine = (ring: readonly (readonly [number, number])[]): boolean =>
  ring.some(([lon], i) => Math.abs(lon - ring[(i + 1) % ring.length]![0]) > 180);

export const obstacleRowSchema = z.object({
  name: words.default(""),
  kind: z.enum(BODY_KINDS),
  /** Longitude, latitude; not repeating the first corner. */
  outline: z.array(position).min(3, "an outline needs at least three corners").max(20_000, "an outline may have 20 000 corners"),
  /** Courtyards: rings within the outline, written alike. */
  holes: z.array(z.array(position).min(3, "a courtyard needs at least three corners").max(5000)).max(200).default([]),
  baseAmslM: z.number().min(-500).max(9000).nullable().default(null),
  heightM,
  crownBaseM: heightM.default(0),
  freeBelowM: heightM.default(0),
  growthMPerYear: z
    .number("growth must be a number")
    .min(0, "growth must be 0 m a year or above")
    .max(5, "growth must be 5 m a year or less")
    .default(0),
  heightSigmaM: sigmaM.default(TOLD_SIGMA_M),
  species: z.string().trim().max(60).nullable().default(null),
  leaf: z.enum(["deciduous", "evergreen"]).nullable().default(null),
  source: z.string().trim().max(120).default("drawn"),
  heightSource: z.string().trim().max(40).default("typed"),
  surveyedOn: z.iso.date("the day of the survey must be a date"),
});

/** Rules between the fields of an obstacle. */
export const obstacleFaults = (o: z.output<typeof obstacleRowSchema>): { path: string; message: string }[] => {
  const rings = [o.outline, ...o.holes];
  const faults: [boolean, string, string][] = [
    [o.freeBelowM >= o.heightM && o.freeBelowM !== 0, "freeBelowM", "the free air must end below the top"],
    [rings.some((ring) => crossesItself(latLons(ring))), "outline", "the outline may not cross itself"],
    [rings.some(spansDateLine), "outline", "the outline may not cross the meridian of 180 degrees"],
    [o.crownBaseM > o.heightM, "crownBaseM", "the crown must begin below its top"],
  ];
  return faults.filter(([is]) => is).map(([, path, message]) => ({ path, message }));
};
export const obstacleFieldsSchema = obstacleRowSchema.superRefine((o, context) => {
  for (const { path, message } of obstacleFaults(o)) context.addIssue({ code: "custom", path: [path], message });
});
export const splitObstacleSchema = z.object({
  version: z.number().int().min(1),
  parts: z.array(z.array(position).min(3)).min(2, "a cut makes at least two parts").max(20),
});

export const featureFieldsSchema = z.object({
  name: z.string().trim().min(1, "name must not be empty").max(120, "a name must be 120 letters or fewer"),
  points: z.array(position).min(1, "a feature needs a point").max(5000, "a feature may have 5000 points"),
});
/** Largest file taken. */
export const MOST_FILE_BYTES = 2_000_000_000;

export const newUploadSchema = z.object({
  name: z.string().trim().min(1, "the file has no name").max(200, "the file's name is too long"),
  sizeBytes: z
    .number()
    .int()
    .min(1, "the file is empty")
    .max(MOST_FILE_BYTES, `a file may have ${MOST_FILE_BYTES / 1e9} GB`),
});

export const VERTICAL_UNITS = ["m", "ft", "us-ft"] as const;
export const VERTICAL_DATUMS = ["mean sea level", "national heights", "ellipsoid", "local"] as const;

const epsg = z.number().int().min(1024, "an EPSG code is a number from 1024 up").max(999_999).nullable();
const column = z.string().max(100).nullable();

export const terrainOptionsSchema = z.object({
  what: z.literal("terrain"),
  name: z.string().trim().min(1, "the terrain needs a name").max(80),
  epsg,
  kind: z.enum(["dtm", "dsm"], "say whether it is bare ground or a surface with what stands on it"),
  verticalUnit: z.enum(VERTICAL_UNITS, "say the unit of its heights"),
  verticalDatum: z.enum(VERTICAL_DATUMS, "say what its heights are counted from"),
  datumOffsetM: z
    .number("the offset must be a number")
    .min(-200, "the offset must be -200 m or above")
    .max(200, "the offset must be 200 m or less"),
  sigmaM,
});
const placeOptions = {
  epsg,
  latColumn: z.string().max(100).optional(),
  lonColumn: z.string().max(100).optional(),
  nameColumn: column,
  /** Latitude and longitude stand exchanged in the file. */
  swapped: z.boolean().optional(),
  /** What lies far from the job is meant to. */
  farTaken: z.boolean().optional(),
};
export const sitesOptionsSchema = z.object({
  what: z.literal("sites"),
  ...placeOptions,
  heightColumn: column,
  heightUnit: z.enum(VERTICAL_UNITS),
  heightDefaultM: heightM,
});
export const obstaclesOptionsSchema = z.object({
  what: z.literal("obstacles"),
  ...placeOptions,
  kind: z.enum(BODY_KINDS),
  kindColumn: column,
  heightColumn: column,
  heightUnit: z.enum(VERTICAL_UNITS),
  /** For what the file gives no height for; null leaves those out. */
  heightDefaultM: heightM.nullable(),
  heightSigmaM: sigmaM,
  growthMPerYear: z.number().min(0).max(5),
  /** Width of what is drawn as a line, and twice the radius of what is drawn as a point. */
  widthM: z.number("the width must be a number").gt(0, "the width must be above 0 m").max(500, "the width must be 500 m or less"),
  freeBelowM: heightM,
  surveyedOn: z.iso.date("the day of the survey must be a date"),
});
export const featuresOptionsSchema = z.object({ what: z.literal("features"), ...placeOptions });
/** A whole job: what it is to become. */
export const bundleOptionsSchema = z.object({ what: z.literal("bundle"), asCopy: z.boolean() });
export const importOptionsSchema = z.discriminatedUnion("what", [
  terrainOptionsSchema,
  sitesOptionsSchema,
  obstaclesOptionsSchema,
  featuresOptionsSchema,
]);
export const newImportSchema = z.object({ uploadId: z.uuid(), options: importOptionsSchema });
export const importActionSchema = z.object({ action: z.enum(["stop", "remove", "restore"]) });

export const photoFieldsSchema = z.object({
  siteId: z.uuid().nullable(),
  fromWhere: z.enum(["antenna height", "ground", "inside", "other"]),
  bearingDeg: z.number().min(0, "bearing must be 0 to 360").max(360, "bearing must be 0 to 360").nullable(),
  takenOn: z.iso.date("the day must be a date").nullable(),
  note: z.string().trim().max(500, "the note must be 500 letters or fewer"),
});
const tileAddress = z
  .url({ protocol: /^https?$/, error: "the address must begin with http:// or https://" })
  .max(500)
  .refine((a) => ["{z}", "{x}", "{y}"].every((k) => a.includes(k)), "the address must hold {z}, {x} and {y}");

export const basemapSchema = z.discriminatedUnion("kind", [
  z.object({
    kind: z.literal("xyz"),
    name: z.string().trim().min(1, "the map needs a name").max(80),
    address: tileAddress,
    credit: z.string().trim().max(200).default(""),
  }),
  z.object({
    kind: z.literal("pmtiles"),
    name: z.string().trim().min(1, "the map needs a name").max(80),
    uploadId: z.uuid(),
    credit: z.string().trim().max(200).default(""),
  }),
]);

/** The same as it is kept. */
export const basemapFieldsSchema = z.object({
  kind: z.enum(["xyz", "pmtiles"]),
  name: z.string().trim().min(1, "the map needs a name").max(80),
  address: tileAddress.nullable().default(null),
  uploadId: z.uuid().nullable().default(null),
  credit: z.string().trim().max(200).default(""),
});

export type ObstacleFields = z.infer<typeof obstacleFieldsSchema>;
export type FeatureFields = z.infer<typeof featureFieldsSchema>;
export type ImportOptions = z.infer<typeof importOptionsSchema>;
export type TerrainOptions = z.infer<typeof terrainOptionsSchema>;
export type SitesOptions = z.infer<typeof sitesOptionsSchema>;
export type ObstaclesOptions = z.infer<typeof obstaclesOptionsSchema>;
export type FeaturesOptions = z.infer<typeof featuresOptionsSchema>;
export type PhotoFields = z.infer<typeof photoFieldsSchema>;
