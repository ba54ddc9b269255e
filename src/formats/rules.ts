import { z } from "zod";
import type { RuleRow } from "../core/radio";

const use = z.enum(["pair", "hub", "remote"]);
const dbm = z.number().nullable();
/** Conducted limits that depend on the width. */
const byBandwidth = z.discriminatedUnion("form", [
  z.strictObject({ form: z.literal("logarithmic"), capDbm: z.number(), baseDbm: z.number(), perMhz: z.number(), words: z.string() }),
  z.strictObject({ form: z.literal("proportional"), wholeFromMhz: z.number(), words: z.string() }),
]);
const eirpByGain = z.union([
  z.strictObject({ baseDbm: z.number(), refGainDbi: z.number(), slopeDbPerDb: z.number(), floorDbm: dbm }),
  z.strictObject({
    pieces: z.array(
      z.strictObject({
        fromGainDbi: z.number(),
        toGainDbi: dbm,
        baseDbm: z.number(),
        refGainDbi: z.number(),
        slopeDbPerDb: z.number(),
      }),
    ),
  }),
]);

/** An unknown form anywhere is a fault of the file: nothing is read out of sentences. */
export const ruleRowSchema = z.object({
  id: z.string().min(1),
  domain: z.enum(["cautious", "FCC-like", "ETSI-like"]),
  lowMhz: z.number(),
  highMhz: z.number(),
  use: z.string(),
  serves: z.array(use).min(1),
  writtenFor: z.array(use),
  fixedOutdoorPermitted: z.boolean(),
  indoorOnly: z.boolean(),
  conductedMaxDbm: dbm,
  conductedLimitByBandwidth: byBandwidth.nullable(),
  gainRule: z.object({ freeGainDbi: dbm, reduceConductedDbPerDb: z.number() }).nullable(),
  eirpMaxDbm: dbm,
  eirpByGain: eirpByGain.nullable(),
  psd: z.object({ limitDbm: z.number(), perMhz: z.number(), kind: z.enum(["conducted", "eirp"]) }).nullable(),
  minGainDbi: dbm,
  maxBeamwidthDeg: dbm,
  narrowBy: z.enum(["gain or beam", "gain and beam"]).nullable(),
  dfs: z.object({
    required: z.boolean(),
    availabilityCheckS: z.number().optional(),
    availabilityCheckWeatherS: z.number().optional(),
    weatherLowMhz: z.number().optional(),
    weatherHighMhz: z.number().optional(),
    nonOccupancyMin: z.number().optional(),
    channelMoveS: z.number().optional(),
  }),
  tpc: z.object({
    required: z.boolean(),
    fromEirpDbm: z.number().optional(),
    withoutEirpDbm: z.number().optional(),
    withoutPsdDbm: z.number().optional(),
  }),
  elevationMask: z.object({ aboveDeg: z.number(), eirpMaxDbm: z.number() }).nullable(),
  remoteWithoutRadarEirpDbm: dbm,
  meshEirpMaxDbm: dbm,
  licence: z.string(),
  stopUntilRecorded: z.string().nullable(),
  notes: z.string(),
  source: z.string(),
  asOf: z.string(),
  confidence: z.string(),
}) satisfies z.ZodType<RuleRow>;

/** A file of rule rows; the shipped one is read through it by its test. */
export const ruleFileSchema = z.looseObject({ rows: z.array(ruleRowSchema).min(1).max(1000) });
