/* The plan file of the command line: one JSON object, checked field by field. docs/cli.md describes it. */
import { z } from "zod";
import {
  DEFAULT_YEAR_PERCENT,
  HIGHEST_TYPED_MOUNT_M,
  LEAST_POWER_DBM,
  LEAST_YEAR_PERCENT,
  MOST_POWER_DBM,
  MOST_YEAR_PERCENT,
  MOUNT_SIGMA_M,
  POSITION_SIGMA_M,
} from "../core/link";
import { BODY_KINDS } from "../core/obstacles";

export const PLAN_VERSION = 1;

const latDeg = z.number().min(-90).max(90);
const lonDeg = z.number().min(-180).max(180);
const lossDb = z.number().min(0).max(80).default(0);

const barrier = z
  .discriminatedUnion("kind", [
    z.strictObject({ kind: z.literal("measured"), lossDb: z.number().min(0).max(80) }),
    z.strictObject({ kind: z.literal("material"), material: z.string() }),
    z.strictObject({ kind: z.literal("unknown"), building: z.enum(["traditional", "thermally_efficient"]).default("traditional") }),
  ])
  .nullable()
  .default(null);

const end = z.strictObject({
  name: z.string().min(1).max(80),
  latDeg: latDeg.optional(),
  lonDeg: lonDeg.optional(),
  mountAglM: z.number().min(0).max(HIGHEST_TYPED_MOUNT_M),
  mountMaxAglM: z.number().min(0).max(HIGHEST_TYPED_MOUNT_M).nullable().default(null),
  mountSigmaM: z.number().min(0).max(20).default(MOUNT_SIGMA_M),
  positionSigmaM: z.number().min(0).max(100).default(POSITION_SIGMA_M),
  radio: z.string().min(1),
  antenna: z.string().min(1).nullable().default(null),
  powerDbm: z.number().min(LEAST_POWER_DBM).max(MOST_POWER_DBM),
  feederLossDb: lossDb,
  connectorLossDb: lossDb,
  barrier,
  /** What the end is to the rules. */
  use: z.enum(["pair", "hub", "remote"]).default("pair"),
  /** Ethernet port by its place on the sheet, counted from 0; null: the powered one. */
  port: z.number().int().min(0).max(15).nullable().default(null),
  interferenceDbm: z.number().min(-130).max(0).nullable().default(null),
  aim: z
    .strictObject({
      azimuthDeg: z.number().min(0).max(360).nullable().default(null),
      tiltDeg: z.number().min(-90).max(90).nullable().default(null),
    })
    .default({ azimuthDeg: null, tiltDeg: null }),
});

/** Where the ground comes from: a file, typed points, or level ground with its error. */
const ground = z.union([
  z.strictObject({ terrain: z.string().min(1) }),
  z.strictObject({
    profile: z
      .array(z.tuple([z.number().min(0), z.number().min(-500).max(9000)]))
      .min(2)
      .max(4096),
    errorM: z.number().min(0).max(100).default(1),
  }),
  z.strictObject({ level: z.number().min(-500).max(9000), errorM: z.number().min(0).max(100).default(1) }),
]);

/** A thing on or beside the path, in its frame: along from the near end, across with right positive. */
const obstacle = z.strictObject({
  name: z.string().min(1).max(80),
  kind: z.enum(BODY_KINDS),
  outlineM: z
    .array(z.tuple([z.number(), z.number()]))
    .min(3)
    .max(500),
  baseAmslM: z.number().min(-500).max(9000),
  heightM: z.number().gt(0).max(500),
  crownBaseM: z.number().min(0).max(100).default(0),
  /** Spans: free air below this height above ground. */
  freeBelowM: z.number().min(0).max(500).default(0),
  growthMPerYear: z.number().min(0).max(5).default(0),
  heightSigmaM: z.number().min(0).max(50).default(0.3),
  carries: z.enum(["near", "far"]).nullable().default(null),
});

export const policySchema = z.strictObject({
  clearance: z.enum(["line", "sixty", "whole", "two-condition"]).default("sixty"),
  kFactor: z
    .number()
    .min(0.3)
    .max(10)
    .default(4 / 3),
  trees: z.enum(["strict", "trim", "through"]).default("strict"),
  leaf: z.enum(["in", "out"]).default("in"),
  year: z.number().int().min(2000).max(2200),
  horizonYears: z.number().int().min(0).max(30).default(5),
  throughput: z.enum(["third", "headroom", "full"]).default("headroom"),
  freeShare: z.number().min(0).max(0.9).default(0.3),
  marginDb: z.number().min(0).max(40).default(10),
  domain: z.enum(["cautious", "FCC-like", "ETSI-like"]).default("cautious"),
  climateZone: z.enum(["temperate", "tropical"]).default("temperate"),
  kLow: z
    .array(z.strictObject({ pathKm: z.number().gt(0), k: z.number().gt(0).max(2) }))
    .min(1)
    .optional(),
});

export const climateSchema = z.strictObject({
  rainRate001MmH: z.number().min(0).max(HIGHEST_TYPED_MOUNT_M).optional(),
  rainZone: z.string().length(1).optional(),
  temperatureC: z.number().min(LEAST_POWER_DBM).max(MOST_POWER_DBM).default(10),
  pressureHpa: z.number().min(500).max(1100).default(1013),
  vapourDensityGm3: z.number().min(0).max(60).default(7.5),
  gradientDn1NPerKm: z.number().min(-1500).max(100).default(-250),
  roughnessSaM: z.number().min(0).max(2000).nullable().default(null),
});

export const planSchema = z.strictObject({
  version: z.literal(PLAN_VERSION),
  near: end,
  far: end,
  /** Needed when the ends have no positions. */
  pathM: z.number().min(5).max(100_000).optional(),
  latDeg: latDeg.optional(),
  ground,
  obstacles: z.array(obstacle).max(2000).default([]),
  centreMhz: z.number().min(1000).max(350_000),
  widthMhz: z.number().min(0.1).max(20_000),
  needToFarMbps: z.number().min(0).max(100_000).nullable().default(null),
  needToNearMbps: z.number().min(0).max(100_000).nullable().default(null),
  frameShareToFar: z.number().min(0.1).max(0.9).nullable().default(null),
  trimsM: z.record(z.string(), z.number().min(0).max(100)).default({}),
  needYearPercent: z.number().min(LEAST_YEAR_PERCENT).max(MOST_YEAR_PERCENT).default(DEFAULT_YEAR_PERCENT),
  permissions: z
    .array(
      z.strictObject({
        kind: z.string().max(80).default(""),
        holder: z.string().max(120).default(""),
        number: z.string().min(1).max(120),
        place: z.string().max(120).default(""),
        lowMhz: z.number().min(0),
        highMhz: z.number().min(0),
        maxEirpDbm: z.number().nullable().default(null),
        from: z.iso.date().nullable().default(null),
        until: z.iso.date().nullable().default(null),
        note: z.string().max(500).default(""),
      }),
    )
    .max(10)
    .default([]),
  /** The day the plan is for; the middle of its year when left out. */
  day: z.iso.date().optional(),
  policy: policySchema,
  climate: climateSchema,
  water: z
    .strictObject({
      surface: z.enum(["auto", "none", "sea", "fresh", "wet-ground", "dry-ground"]).default("auto"),
      tideRangeM: z.number().min(0).max(20).default(0),
      roughnessM: z.number().min(0).max(5).default(0.05),
    })
    .default({ surface: "auto", tideRangeM: 0, roughnessM: 0.05 }),
});

export type PlanFile = z.infer<typeof planSchema>;
export type PlanEnd = z.infer<typeof end>;

/** The first fault of a parse as one sentence: field, what is wrong. */
export const faultOf = (error: z.ZodError): string => {
  const issue = error.issues[0];
  if (issue === undefined) return "not as expected";
  const path = issue.path.join(".");
  const inner = issue.code === "invalid_union" ? (issue.errors.flat().find((i) => i.path.length > 0) ?? issue.errors[0]?.[0]) : undefined;
  const where = inner === undefined ? path : [path, ...inner.path].filter((p) => p !== "").join(".");
  return `${where === "" ? "the plan" : where}: ${(inner ?? issue).message}`;
};
