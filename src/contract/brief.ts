import { z } from "zod";
import { DEVICE_KINDS, SHAPE_KEYS } from "../core/infra";
import { PERMISSIONS } from "./starts";

/* The brief of a job: one document. Every field has a default, so an old brief stays readable. */

const text = (most = 500) => z.string().max(most, `at most ${most} letters`).default("");
const rate = z
  .number("a rate must be a number")
  .min(0, "a rate must be 0 or above")
  .max(100_000, "a rate must be 100 000 Mbps or less")
  .nullable()
  .default(null);
const amount = z.number("an amount must be a number").min(0, "an amount must be 0 or above").max(1e9);
const key = z.string().min(1).max(40);

export const deviceSchema = z.object({
  id: key,
  /** The far end it stands at. */
  siteId: z.uuid(),
  name: text(80),
  kind: z.enum(DEVICE_KINDS),
  count: z.number().int("a count must be whole").min(1, "at least one").max(1000, "at most 1000"),
  widthPx: z.number().int().min(1).max(20_000).default(1920),
  heightPx: z.number().int().min(1).max(20_000).default(1080),
  framesPerS: z.number().gt(0, "above 0 frames").max(240, "at most 240 frames").default(15),
  codec: z.enum(["h264", "h265", "mjpeg"]).default("h264"),
  scene: z.enum(["quiet", "usual", "busy"]).default("usual"),
  users: z.number().int().min(0).max(10_000).default(0),
  downMbps: rate,
  upMbps: rate,
});

export const permissionSchema = z.object({
  key: z.enum(PERMISSIONS),
  state: z.enum(["open", "asked", "granted", "refused", "not-needed"]).default("open"),
  who: text(120),
  note: text(500),
});

export const briefSchema = z.object({
  customer: text(120),
  contact: text(200),
  purpose: text(2000),
  devices: z.array(deviceSchema).max(500, "at most 500 rows of devices").default([]),
  recorder: z.enum(["near", "far", "none"]).default("near"),
  feed: z
    .object({ name: text(120), downMbps: rate, upMbps: rate, freePorts: z.number().int().min(0).max(1000).nullable().default(null) })
    .prefault({}),
  source: z
    .object({
      freePort: z.enum(["unknown", "yes", "no"]).default("unknown"),
      adapter: text(200),
      negotiated: z.enum(["unknown", "10 Mbps", "100 Mbps", "1 Gbps", "2.5 Gbps", "10 Gbps"]).default("unknown"),
    })
    .prefault({}),
  wifiChannels: text(300),
  shapes: z
    .object({
      duct: z.enum(["clear", "none", "unknown"]).default("unknown"),
      suppliedApart: z.boolean().default(true),
      trenchPerM: amount.default(120),
      subscriptionPerMonth: amount.default(40),
      chosen: z.enum(SHAPE_KEYS).nullable().default(null),
      reason: text(1000),
    })
    .prefault({}),
  inventory: z
    .array(z.object({ id: key, what: text(200), where: text(200), fate: z.enum(["keep", "move", "remove", "spare"]).default("keep") }))
    .max(200)
    .default([]),
  oldFailure: z.enum(["none", "water", "surge", "cable", "crowding", "trees", "other"]).default("none"),
  oldFailureNote: text(1000),
  photoRequests: z
    .array(
      z.object({
        id: key,
        siteId: z.uuid().nullable().default(null),
        what: text(300),
        bearingDeg: z.number().min(0).max(360).nullable().default(null),
        askedOn: z.iso.date().nullable().default(null),
        got: z.boolean().default(false),
      }),
    )
    .max(100)
    .default([]),
  permissions: z.array(permissionSchema).max(30).default([]),
});

export type Brief = z.infer<typeof briefSchema>;
export type BriefDevice = z.infer<typeof deviceSchema>;
export type Permission = z.infer<typeof permissionSchema>;
