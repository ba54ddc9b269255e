import { z } from "zod";
import { KIT_PLACES, RISKS } from "../core/kit";

/* What is brought and what it costs, who may do it, and what of the kit is in hand. */

const text = (what: string, most: number) => z.string().trim().max(most, `${what} must be ${most} letters or fewer`).default("");
const number = (what: string, least: number, most: number) =>
  z.number(`${what} must be a number`).min(least, `${what} must be ${least} or above`).max(most, `${what} must be ${most} or less`);

export const WALLS = ["brick", "block", "concrete", "render over insulation", "timber", "sheet on rails", "steel", "unknown"] as const;

/** What of one site the kit needs to know beside its wiring. */
export const kitSiteSchema = z.object({
  poleMm: number("the pole", 5, 500).nullable().default(null),
  /** Of several radios: each on a pole of its own, or all on one. */
  poles: z.enum(["each", "one"]).default("each"),
  newBracket: z.boolean().default(true),
  wall: z.enum(WALLS).default("unknown"),
  behind: text("what is behind it", 120),
  screwsPerBracket: number("screws", 1, 20).int("screws are whole").default(2),
  bracketsApartM: number("the brackets apart", 0.1, 5).default(0.6),
  standOffM: number("the stand-off", 0, 3).default(0.15),
  poleAboveM: number("the pole above", 0, 12).default(0),
  pullHoldN: number("the hold", 1, 1_000_000).nullable().default(null),
  shearHoldN: number("the hold", 1, 1_000_000).nullable().default(null),
  holdSource: text("the source", 200),
  iceMm: number("ice", 0, 200).nullable().default(null),
  /** Where one steps off the ladder, above ground. */
  stepOffM: number("the step-off", 0, 60).nullable().default(null),
});
export type KitSite = z.infer<typeof kitSiteSchema>;

/** What a site taught, for later ones: about a thing, about a wall, or about any end. */
export const lessonSchema = z.object({
  id: z.uuid(),
  siteId: z.uuid(),
  words: z.string().trim().min(1, "a lesson needs words").max(200, "a lesson has 200 letters or fewer"),
  partId: z.string().min(1).max(80).nullable().default(null),
  wall: z.enum(WALLS).nullable().default(null),
});
export type Lesson = z.infer<typeof lessonSchema>;

export const kitSchema = z.object({
  sites: z
    .record(z.uuid(), kitSiteSchema)
    .refine((r) => Object.keys(r).length <= 2000, "at most 2000 sites")
    .default({}),
  /** Speed at the mounts' height; a mean over ten minutes needs the gust factor that the local code states. */
  wind: z
    .object({
      speedMS: number("the wind", 1, 120).nullable().default(null),
      kind: z.enum(["gust", "mean"]).default("gust"),
      gustFactor: number("the gust factor", 1, 3).nullable().default(null),
      source: text("the source", 200),
    })
    .prefault({}),
  fixingFactor: number("the factor", 1, 10).default(3),
  /** Of the van: holes that its saws and bits make, lengths of its ladders. */
  sawsMm: z
    .array(number("a saw", 3, 200))
    .max(40, "at most 40 saws")
    .default([]),
  laddersM: z
    .array(number("a ladder", 1, 20))
    .max(20, "at most 20 ladders")
    .default([]),
  crew: z.array(z.string().trim().min(1).max(60)).max(20, "at most 20 people").default([]),
  own: z
    .array(
      z.object({
        id: z.uuid(),
        siteId: z.uuid(),
        where: z.enum(KIT_PLACES),
        name: z.string().trim().min(1, "a row needs a name").max(120),
        quantity: number("the quantity", 0.01, 100_000),
        unit: text("the unit", 20),
        priceEur: number("the price", 0, 1_000_000).nullable().default(null),
        why: text("the reason", 200),
      }),
    )
    .max(300, "at most 300 rows of one's own")
    .default([]),
  lessons: z.array(lessonSchema).max(200, "at most 200 lessons").default([]),
  /** Lessons of other sites that were read, and are not offered here any more. */
  lessonsRead: z.array(z.uuid()).max(1000, "at most 1000 lessons read").default([]),
  money: z
    .object({
      currency: z.string().trim().min(1, "a currency is needed").max(8).default("€"),
      /** Hours as they are typed, or of the tasks that one's own people do. */
      labourBy: z.enum(["hours", "tasks"]).default("hours"),
      labourHours: number("the hours", 0, 10_000).default(0),
      labourPerHour: number("an hour's price", 0, 10_000).default(0),
      travelKm: number("the way", 0, 100_000).default(0),
      travelPerKm: number("a kilometre's price", 0, 1000).default(0),
      marginShare: number("the margin", 0, 5).default(0),
      taxShare: number("the tax", 0, 1).default(0),
      /** Of the quote: whom it is for, until when it holds, and on what terms. */
      quoteTo: text("whom it is for", 120),
      validUntil: z.iso.date("the day must be a date").nullable().default(null),
      terms: text("the terms", 1000),
    })
    .prefault({}),
});
export type KitFields = z.infer<typeof kitSchema>;

/** How a line of the kit is in hand: reserved in the store, picked, or known to stand there. What is counted is taken from stock by the first two. */
const PICK_STATES = ["reserved", "picked", "there"] as const;
export type PickState = (typeof PICK_STATES)[number];
export const pickSchema = z.object({
  state: z.enum(PICK_STATES).default("picked"),
  count: number("the count", 0, 100_000),
});

/** Lines of the kit reserved, or given back, as one step: all of them or none. */
export const reserveSchema = z.object({
  picks: z
    .array(
      z.object({
        id: z.uuid(),
        /** Of the pick that is there; 0 where there is none. */
        version: z.number("the version is missing").int().min(0),
        name: z.string().trim().min(1).max(200),
        partId: z.string().min(1).max(80),
        count: number("the count", 0, 100_000),
      }),
    )
    .min(1, "at least one line")
    .max(500, "at most 500 lines at once"),
});
export type Reserve = z.infer<typeof reserveSchema>;

const answer = z.object({
  state: z.enum(["open", "none", "do", "help", "stop"]).default("open"),
  note: text("the note", 300),
  competent: text("the name", 80),
  lifted: z.boolean().default(false),
});

/** The risk screen of a site, under the site's own id. */
export const safetySchema = z.object({
  answers: z.partialRecord(z.enum(RISKS), answer).default({}),
  lineM: number("the distance", 0, 500).nullable().default(null),
  approachM: number("the approach distance", 0, 100).nullable().default(null),
  windLimitMS: number("the wind limit", 0, 60).nullable().default(null),
  rescue: text("the rescue plan", 400),
  checkIn: text("the check-in", 200),
});
export type SafetyFields = z.infer<typeof safetySchema>;
