import { z } from "zod";
import type { OwnRule, RuleRow } from "../core/radio";

const use = z.enum(["pair", "hub", "remote"]);
const dbm = z.number().min(-100, "a power must be -100 dBm or above").max(150, "a power must be 150 dBm or less").nullable();
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
  id: z.string().min(1, "a row needs an id").max(60, "an id must be 60 letters or fewer"),
  domain: z.enum(["cautious", "FCC-like", "ETSI-like"]),
  lowMhz: z.number("the lower edge must be a number").min(0).max(400_000),
  highMhz: z.number("the upper edge must be a number").min(0).max(400_000),
  use: z.string().max(200),
  serves: z.array(use).min(1, "a row must serve a use"),
  writtenFor: z.array(use),
  fixedOutdoorPermitted: z.boolean(),
  indoorOnly: z.boolean(),
  conductedMaxDbm: dbm,
  conductedLimitByBandwidth: byBandwidth.nullable(),
  gainRule: z.object({ freeGainDbi: dbm, reduceConductedDbPerDb: z.number() }).nullable(),
  eirpMaxDbm: dbm,
  eirpByGain: eirpByGain.nullable(),
  psd: z.object({ limitDbm: z.number(), perMhz: z.number().gt(0), kind: z.enum(["conducted", "eirp"]) }).nullable(),
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
  licence: z.string().max(300),
  stopUntilRecorded: z.string().max(300).nullable(),
  notes: z.string().max(1000),
  source: z.string().trim().min(1, "a row needs its source").max(300),
  asOf: z.string().min(1, "a row needs the year it stood").max(40),
  confidence: z.string().max(40),
}) satisfies z.ZodType<RuleRow>;

/** A file of rule rows; the shipped one is read through it by its test. */
export const ruleFileSchema = z.looseObject({ rows: z.array(ruleRowSchema).min(1).max(1000) });

/** What somebody's own row may leave out: it is then as in the plainest of rows. */
const PLAIN: Partial<RuleRow> = {
  use: "",
  serves: ["pair", "hub", "remote"],
  writtenFor: [],
  fixedOutdoorPermitted: true,
  indoorOnly: false,
  conductedMaxDbm: null,
  conductedLimitByBandwidth: null,
  gainRule: null,
  eirpMaxDbm: null,
  eirpByGain: null,
  psd: null,
  minGainDbi: null,
  maxBeamwidthDeg: null,
  narrowBy: null,
  dfs: { required: false },
  tpc: { required: false },
  elevationMask: null,
  remoteWithoutRadarEirpDbm: null,
  meshEirpMaxDbm: null,
  licence: "",
  stopUntilRecorded: null,
  notes: "",
  confidence: "own",
};

const filledRow = (raw: unknown): unknown => (raw !== null && typeof raw === "object" && !Array.isArray(raw) ? { ...PLAIN, ...raw } : raw);

/** A job's own row: it stands beside the shipped ones, or in the place of one in this job alone. */
export const ownRuleSchema = z
  .preprocess(filledRow, ruleRowSchema.extend({ replaces: z.string().max(60).nullable().default(null) }))
  .refine((r) => r.highMhz > r.lowMhz, { path: ["highMhz"], message: "the upper edge must be above the lower" })
  .refine(
    (r) => r.conductedMaxDbm !== null || r.eirpMaxDbm !== null || r.eirpByGain !== null || r.psd !== null || !r.fixedOutdoorPermitted,
    {
      path: ["eirpMaxDbm"],
      message: "a row that permits needs a limit: conducted, EIRP, by gain or density",
    },
  ) satisfies z.ZodType<OwnRule>;

export const MOST_OWN_RULES = 100;

/** Own rows as they are brought in: a list, or a file of rows. */
export const ownRulesFileSchema = z
  .union([z.array(z.unknown()), z.object({ rows: z.array(z.unknown()) }).transform((f) => f.rows)], {
    error: 'the file must be a list of rows, or an object with "rows"',
  })
  .pipe(z.array(ownRuleSchema).min(1, "the file holds no row").max(MOST_OWN_RULES, `a job has at most ${MOST_OWN_RULES} own rows`));
