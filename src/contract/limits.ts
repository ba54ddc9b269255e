import { z } from "zod";
import type { PowerSchool } from "../core/rack";
import { BAND_KEYS, USUAL_TARGET_DBM } from "../core/radio";

/* Limits within which radios are looked for: one record a job, with what differs at one of its sites or for one of its links. */

/** Kinds of supply that a site may have, as data sheets name them. */
export const SUPPLY_KINDS = ["passive24-2pair", "passive24-4pair", "passive48", "802.3af", "802.3at", "802.3bt", "dc12", "dc24"] as const;
export const POWER_SCHOOLS = ["enough", "target", "highest"] as const satisfies readonly PowerSchool[];

const amount = (what: string, most: number) =>
  z.number(`${what} must be a number`).min(0, `${what} must be 0 or above`).max(most, `${what} must be ${most} or less`).nullable();
const degrees = (what: string) =>
  z.number(`${what} must be a number`).min(-90, `${what} must be -90 °C or above`).max(90, `${what} must be 90 °C or less`).nullable();

const searched = {
  alike: z.boolean(),
  keep: z.enum(["near", "far"]).nullable(),
  likeForLike: z.boolean(),
  bands: z.array(z.enum(BAND_KEYS)).max(BAND_KEYS.length).nullable(),
  family: z.string().max(64, "a family's name has 64 letters or fewer").nullable(),
  priceMost: amount("the price of both ends", 10_000_000),
  portLeastMbps: amount("the port", 400_000),
  noRadar: z.boolean(),
  stockOnly: z.boolean(),
  coldestC: degrees("the coldest day"),
  hottestC: degrees("the hottest day"),
  power: z.enum(POWER_SCHOOLS),
  targetDbm: z
    .number("the level aimed at must be a number")
    .min(-90, "the level aimed at must be -90 dBm or above")
    .max(-20, "the level aimed at must be -20 dBm or less"),
} as const;

export const siteLimitsSchema = z.object({
  faceMostCm: amount("the largest face", 1000).default(null),
  supplies: z.array(z.enum(SUPPLY_KINDS)).max(SUPPLY_KINDS.length).nullable().default(null),
  poleMm: amount("the pole", 2000).default(null),
});

const MOST_PLACES = 2000;
const isFew = (r: object): boolean => Object.keys(r).length <= MOST_PLACES;

/** What a firm says of a sheet: how many are at hand (null where nobody counts), and whether it is taken any more. */
export const sheetMarksSchema = z.object({
  kind: z.enum(["radio", "antenna", "part"]),
  id: z.string().min(1).max(64),
  stock: z
    .number("a stock must be a number")
    .int("a stock must be whole")
    .min(0, "a stock must be 0 or above")
    .max(100_000, "a stock must be 100 000 or less")
    .nullable()
    .optional(),
  retired: z.boolean().optional(),
});

export const limitsSchema = z.object({
  alike: searched.alike.default(true),
  keep: searched.keep.default(null),
  likeForLike: searched.likeForLike.default(false),
  bands: searched.bands.default(null),
  family: searched.family.default(null),
  priceMost: searched.priceMost.default(null),
  portLeastMbps: searched.portLeastMbps.default(null),
  noRadar: searched.noRadar.default(false),
  stockOnly: searched.stockOnly.default(false),
  coldestC: searched.coldestC.default(null),
  hottestC: searched.hottestC.default(null),
  power: searched.power.default("enough"),
  targetDbm: searched.targetDbm.default(USUAL_TARGET_DBM),
  /** One type for all links of the job where it costs no more than this over the best of each, €; null is off. */
  oneTypeMost: amount("what one type may cost more", 10_000_000).default(null),
  /** By site: the largest face its owner wants to see, the supplies there, the pole. */
  sites: z.record(z.uuid(), siteLimitsSchema).refine(isFew, `at most ${MOST_PLACES} sites`).default({}),
  /** By link: what differs there from all the above. */
  links: z.record(z.uuid(), z.object(searched).partial().strict()).refine(isFew, `at most ${MOST_PLACES} links`).default({}),
});

export type Limits = z.infer<typeof limitsSchema>;
export type SiteLimits = z.infer<typeof siteLimitsSchema>;
/** What is searched by: of the job, or where a link has its own, that. */
export type SearchLimits = Omit<Limits, "sites" | "links" | "oneTypeMost">;

export const NO_SITE_LIMITS: SiteLimits = { faceMostCm: null, supplies: null, poleMm: null };
