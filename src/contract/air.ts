import { z } from "zod";

/* Channels of a job: how they are chosen, what is locked, whose radios are about, what radar did. One record a job; scans by site. */

const mhz = (what: string) =>
  z.number(`${what} must be a number`).min(1000, `${what} must be 1000 MHz or above`).max(350_000, `${what} must be 350 000 MHz or less`);
const width = z.number("the width must be a number").gt(0, "the width must be above 0").max(10_000, "the width must be 10 000 MHz or less");
const level = z
  .number("the level must be a number")
  .min(-130, "the level must be -130 dBm or above")
  .max(30, "the level must be 30 dBm or less");
const shareOf = (what: string) =>
  z.number(`${what} must be a number`).min(0, `${what} must be 0 % or above`).max(1, `${what} must be 100 % or less`);
const key = z.string().min(1).max(120);
const words = (what: string, most: number) => z.string().trim().max(most, `${what} must be ${most} letters or fewer`).default("");

const channelSchema = z.object({ centreMhz: mhz("the centre"), widthMhz: width });

/** A radio that is no link of the job: the customer's own, an old link, or one agreed with a neighbour. */
export const otherRadioSchema = z.object({
  id: z.string().min(1).max(40),
  name: z.string().trim().min(1, "name must not be empty").max(80, "name must be 80 letters or fewer"),
  siteId: z.uuid(),
  /** Where on its site, metres over ground. */
  aglM: z.number("the height must be a number").min(0, "the height must be 0 m or above").max(500, "the height must be 500 m or less"),
  centreMhz: mhz("the centre"),
  widthMhz: width,
  eirpDbm: z.number("the EIRP must be a number").min(-60, "the EIRP must be -60 dBm or above").max(100, "the EIRP must be 100 dBm or less"),
  /** Null: all ways alike. */
  bearingDeg: z.number("the bearing must be a number").min(0).max(360, "the bearing must be 360° or less").nullable().default(null),
  beamwidthDeg: z.number("the beam must be a number").gt(0, "the beam must be above 0°").max(360).default(60),
  /** A wall between it and the open air, dB. */
  wallDb: z.number("the wall must be a number").min(0).max(60).default(0),
  activity: shareOf("its time on the air").default(0.3),
});

export const detectionSchema = z.object({
  id: z.string().min(1).max(40),
  on: z.iso.date("day of the detection must be a date"),
  at: z
    .string()
    .regex(/^\d\d:\d\d$/, "time must be hours and minutes")
    .nullable()
    .default(null),
  siteId: z.uuid().nullable().default(null),
  centreMhz: mhz("the channel"),
  widthMhz: width,
  note: words("the note", 200),
});

const MOST_LOCKS = 500;
const isFew = (r: object): boolean => Object.keys(r).length <= MOST_LOCKS;

export const airSchema = z.object({
  widths: z.enum(["narrowest", "widest"]).default("narrowest"),
  radar: z.enum(["avoid", "fallback"]).default("fallback"),
  /** Everybody sends all the time, or as the load says. */
  always: z.boolean().default(false),
  /** Units that keep their channel. */
  locks: z.array(key).max(MOST_LOCKS).default([]),
  /** Units that are alternatives or not to be built as they are: they send nothing and are not judged. */
  aside: z.array(key).max(MOST_LOCKS).default([]),
  /** By site: what was measured between two radios of its mast, port to port. */
  isolations: z
    .record(
      z.uuid(),
      z
        .number("the isolation must be a number")
        .min(10, "the isolation must be 10 dB or more")
        .max(140, "the isolation must be 140 dB or less"),
    )
    .refine(isFew, "too many sites")
    .default({}),
  others: z.array(otherRadioSchema).max(100, "at most 100 other radios").default([]),
  detections: z.array(detectionSchema).max(500, "at most 500 detections").default([]),
  /** Days in which somebody or something watched for radar. */
  watchedDays: z
    .number("the days must be a number")
    .min(0, "the days must be 0 or above")
    .max(10_000, "the days must be 10 000 or fewer")
    .default(0),
  /** By unit: where it goes when radar takes its channel. */
  fallbacks: z.record(key, channelSchema).refine(isFew, "too many units").default({}),
  /** By unit: the day on which its 24 hours of soak were done. */
  soaked: z.record(key, z.iso.date("the day must be a date")).refine(isFew, "too many units").default({}),
});

export const scanRowSchema = z.object({
  /** Tells that one sender was heard twice; a shortened sum of its address, never the address. */
  key: z.string().max(40).default(""),
  name: words("the name", 64),
  centreMhz: mhz("the frequency"),
  widthMhz: width.default(20),
  levelDbm: level,
  busyShare: shareOf("the busy share").nullable().default(null),
  isNoise: z.boolean().default(false),
});

export const MOST_SCAN_ROWS = 1000;

export const scanSchema = z.object({
  heardOn: z.iso.date("day of the scan must be a date"),
  mountId: z.string().max(40).nullable().default(null),
  /** The radio of this link heard it, aimed; null: something in the hand. */
  linkId: z.uuid().nullable().default(null),
  gainDbi: z
    .number("the gain must be a number")
    .min(-10, "the gain must be -10 dBi or above")
    .max(60, "the gain must be 60 dBi or less")
    .default(2),
  aglM: z.number("the height must be a number").min(0, "the height must be 0 m or above").max(500).nullable().default(null),
  /** It counts among those of its site. */
  counts: z.boolean().default(true),
  note: words("the note", 300),
  rows: z.array(scanRowSchema).max(MOST_SCAN_ROWS, `a scan has at most ${MOST_SCAN_ROWS} rows`).default([]),
});

/** A text that a scan is read from: as a file or pasted. */
export const readScanSchema = z.object({
  text: z.string().min(1, "the text is empty").max(2_000_000, "the text is longer than 2 000 000 letters"),
  /** Names of strangers' networks are left out. */
  withoutNames: z.boolean().default(true),
});

export type AirFields = z.infer<typeof airSchema>;
export type OtherRadioFields = z.infer<typeof otherRadioSchema>;
export type Detection = z.infer<typeof detectionSchema>;
export type ScanFields = z.infer<typeof scanSchema>;
export type ScanRowFields = z.infer<typeof scanRowSchema>;
/** What a text came to: rows, and lines that could not be read. */
export interface ReadScanDto {
  readonly form: "scan" | "survey" | "csv";
  readonly rows: readonly ScanRowFields[];
  readonly faults: readonly { readonly line: number; readonly reason: string }[];
}
