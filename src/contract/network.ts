import { z } from "zod";

/* The network of a job: what feeds it, how fast its ports are, who talks to what, and how it grows. One record a job. */

const mbps = (what: string) =>
  z.number(`${what} must be a number`).gt(0, `${what} must be above 0 Mbps`).max(400_000, `${what} must be 400 000 Mbps or less`);
const ms = (what: string, most: number) =>
  z.number(`${what} must be a number`).gt(0, `${what} must be above 0 ms`).max(most, `${what} must be ${most} ms or less`);
const share = z
  .number("growth must be a number")
  .min(-0.5, "growth must be -50 % a year or above")
  .max(2, "growth must be 200 % a year or less");
const MOST_PLACES = 2000;
const isFew = (r: object): boolean => Object.keys(r).length <= MOST_PLACES;
const few = `at most ${MOST_PLACES} places`;

/** Speeds of one site's own gear; null: nobody said. */
export const sitePortsSchema = z.object({
  switchMbps: mbps("the switch").nullable().default(null),
  injectorMbps: mbps("the injector").nullable().default(null),
});

const GROWS = 0.1;

export const networkSchema = z.object({
  /** Where the feed of the brief comes in; null: where most links end. */
  feedSiteId: z.uuid().nullable().default(null),
  secondFeed: z
    .object({
      siteId: z.uuid(),
      name: z.string().trim().max(120, "the name must be 120 letters or fewer").default(""),
      downMbps: mbps("the feed").nullable().default(null),
      upMbps: mbps("the feed").nullable().default(null),
    })
    .nullable()
    .default(null),
  /** As the brief says, at every far end, or at a site. */
  recorder: z.union([z.literal("brief"), z.literal("each"), z.uuid()]).default("brief"),
  recorderPortMbps: mbps("the recorder's port").default(1000),
  storeTb: z.number("the store must be a number").gt(0, "the store must be above 0 TB").max(100_000).nullable().default(null),
  ports: z.record(z.uuid(), sitePortsSchema).refine(isFew, few).default({}),
  /** By site: the link that it is led over. */
  uplinks: z.record(z.uuid(), z.uuid()).refine(isFew, few).default({}),
  /** By row of the brief's devices: outside, the recorder, or a site; left out: as its kind usually does. */
  talks: z
    .record(z.string().min(1).max(40), z.union([z.literal("feed"), z.literal("recorder"), z.uuid()]))
    .refine(isFew, few)
    .default({}),
  growth: z.object({ cameras: share.default(GROWS), users: share.default(GROWS), rest: share.default(GROWS) }).prefault({}),
  /** Delay one way, and its jitter, that each use bears (voice: ITU-T G.114 clause 6; the others are usual). */
  bounds: z
    .object({
      voiceMs: ms("the delay of voice", 10_000).default(150),
      voiceJitterMs: ms("the jitter of voice", 10_000).default(30),
      controlMs: ms("the delay of control", 10_000).default(50),
      viewMs: ms("the delay of a live picture", 10_000).default(200),
    })
    .prefault({}),
  testerMbps: mbps("the tester's port").default(1000),
});

export type NetworkFields = z.infer<typeof networkSchema>;
export type SitePortsFields = z.infer<typeof sitePortsSchema>;
export const NO_PORTS: SitePortsFields = { switchMbps: null, injectorMbps: null };
