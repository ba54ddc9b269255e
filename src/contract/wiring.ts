import { z } from "zod";
import { PART_KINDS, type PartKind } from "../core/wiring";

/* What is wired at a site: places, leads, earth, sun. One record a site, under the site's own id. */

const text = (what: string, most: number) => z.string().trim().max(most, `${what} must be ${most} letters or fewer`).default("");
const key = z.string().min(1).max(60);
const partId = z.string().min(1).max(80).nullable().default(null);
const STATES = ["joined", "open", "unseen"] as const;

export const MOST_PLACES_AT_SITE = 250;
export const MOST_LEADS_AT_SITE = 400;

export const placeSchema = z.object({
  id: z.uuid(),
  partId,
  kind: z.enum(PART_KINDS),
  name: z.string().trim().min(1, "a name is needed").max(80, "a name has 80 letters or fewer"),
  where: z.enum(["inside", "outside", "mast"]).default("inside"),
  aglM: z
    .number("the height must be a number")
    .min(0, "the height must be 0 m or above")
    .max(500, "the height must be 500 m or less")
    .nullable()
    .default(null),
  linkId: z.uuid().nullable().default(null),
  deviceId: key.nullable().default(null),
  earth: text("the earth", 80),
  countsDrawn: z.boolean().default(false),
  bond: z.enum([...STATES, "none"]).default("none"),
});

const lengthM = z
  .number("the length must be a number")
  .min(0, "the length must be 0 m or above")
  .max(2000, "the length must be 2000 m or less");

export const leadSchema = z.object({
  id: z.uuid(),
  from: z.object({ placeId: z.uuid(), port: key }),
  to: z.object({ placeId: z.uuid(), port: key }),
  cableId: partId,
  lengthM,
  way: z.enum(["inside", "outside", "both"]).default("inside"),
  through: text("what it goes through", 120),
  temperatureC: z
    .number("the temperature must be a number")
    .min(-40, "the temperature must be -40 °C or above")
    .max(90, "the temperature must be 90 °C or less")
    .default(40),
  screen: z.enum(["one", "both", "none", "unseen"]).default("one"),
  dripLoop: z.boolean().nullable().default(null),
  nearMains: z
    .object({
      gapMm: z.number("the gap must be a number").min(0, "the gap must be 0 mm or above").max(10_000).nullable().default(null),
      alongM: lengthM.default(1),
    })
    .nullable()
    .default(null),
  /** What is written on it, how long it measured, what the tester said, and when. */
  label: text("the label", 40),
  measuredM: lengthM.nullable().default(null),
  tested: z.enum(["not yet", "passed", "failed"]).default("not yet"),
  testNote: text("the note", 200),
});

export const earthSchema = z.object({
  mains: z.enum(["TN-S", "TN-C-S", "TT", "IT", "none"]).nullable().default(null),
  lightning: z.enum(["none", "there"]).nullable().default(null),
  specialist: text("what the specialist said", 400),
  bar: z.enum(STATES).default("unseen"),
  mast: z.enum([...STATES, "none"]).default("unseen"),
  rod: z.enum([...STATES, "none"]).default("none"),
  sizeMm2: z.number("the cross-section must be a number").gt(0, "the cross-section must be above 0 mm²").max(400).nullable().default(null),
  source: text("the source", 200),
  screens: z.enum(["one", "both"]).nullable().default(null),
  mainsGapMm: z.number("the gap must be a number").min(0, "the gap must be 0 mm or above").max(10_000).nullable().default(null),
});

export const sunSchema = z.object({
  hoursByMonth: z
    .array(z.number("hours of sun must be a number").min(0, "hours of sun are 0 or above").max(14, "hours of sun are 14 or fewer"))
    .length(12)
    .nullable()
    .default(null),
  clearShare: z
    .number("the share must be a number")
    .gt(0, "the share must be above 0 %")
    .max(1, "the share must be 100 % or less")
    .default(0.35),
  tiltDeg: z.number("the tilt must be a number").min(0, "the tilt must be 0° or above").max(90, "the tilt must be 90° or less").default(60),
  bearingDeg: z.number("the bearing must be a number").min(0).max(360, "the bearing must be 360° or less").default(180),
  daysWithoutSun: z.number("days must be a number").min(0, "days must be 0 or more").max(60, "days must be 60 or fewer").default(5),
  lowestC: z.number("the temperature must be a number").min(-60).max(40, "the lowest must be 40 °C or less").default(0),
  comesBack: z.boolean().nullable().default(null),
  shareByHour: z.array(z.number().min(0).max(1)).length(24).nullable().default(null),
});

export const wiringSchema = z.object({
  places: z.array(placeSchema).max(MOST_PLACES_AT_SITE, `a site has at most ${MOST_PLACES_AT_SITE} places`).default([]),
  leads: z.array(leadSchema).max(MOST_LEADS_AT_SITE, `a site has at most ${MOST_LEADS_AT_SITE} leads`).default([]),
  earth: earthSchema.prefault({}),
  sun: sunSchema.nullable().default(null),
  /** Height of the roof above ground where that is known, to draw it. */
  roofAglM: z.number("the roof must be a number").min(0).max(500).nullable().default(null),
});

export type WiringFields = z.infer<typeof wiringSchema>;
export type PlaceFields = z.infer<typeof placeSchema>;
export type LeadFields = z.infer<typeof leadSchema>;
export type EarthFields = z.infer<typeof earthSchema>;
export type SunFields = z.infer<typeof sunSchema>;

/** Rules between the parts of a wiring: nothing twice, and every lead between places that are there. */
export const wiringFaults = (w: WiringFields): { path: string; message: string }[] => {
  const ids = new Set(w.places.map((p) => p.id));
  const leadIds = new Set(w.leads.map((l) => l.id));
  return [
    ...(ids.size === w.places.length ? [] : [{ path: "places", message: "two places have one id" }]),
    ...(leadIds.size === w.leads.length ? [] : [{ path: "leads", message: "two leads have one id" }]),
    ...w.leads.flatMap((l) => {
      if (!ids.has(l.from.placeId) || !ids.has(l.to.placeId))
        return [{ path: "leads", message: "a lead ends at a place that is not there" }];
      const self = l.from.placeId === l.to.placeId && l.from.port === l.to.port;
      return self ? [{ path: "leads", message: "a lead ends in the port it begins in" }] : [];
    }),
  ];
};

const MAC = /^([0-9a-f]{2}:){5}[0-9a-f]{2}$/;

/** What things are called where people read of them. */
export const PART_KIND_WORDS: Readonly<Record<PartKind, string>> = {
  switch: "switch",
  injector: "injector",
  splitter: "splitter",
  surge: "surge protector",
  cable: "cable",
  plug: "plug",
  gland: "gland",
  converter: "converter",
  media: "fibre converter",
  fibre: "fibre",
  router: "router",
  recorder: "recorder",
  battery: "battery",
  charger: "charge controller",
  panel: "panel",
  fuse: "fuse",
  box: "box",
  mains: "mains",
  radio: "radio",
  camera: "camera",
  "access-point": "access point",
  phone: "phone",
  control: "control",
  other: "device",
};

/** What a unit can die of. */
export const CAUSES = ["water", "surge", "cable", "heat", "supply", "fall", "unknown"] as const;

/** One physical thing at a place: what was planned is the place's, what it is itself stands here. */
export const unitSchema = z.object({
  /** Sheet of what was put there; null: the one that is planned. */
  partId,
  serial: text("the serial number", 60),
  mac: z
    .string()
    .trim()
    .toLowerCase()
    .transform((m) => m.replaceAll("-", ":"))
    .refine((m) => m === "" || MAC.test(m), "an address of a port is six pairs of 0 to 9 and a to f")
    .default(""),
  firmware: text("the firmware", 40),
  port: text("the port", 40),
  bracket: text("the bracket", 60),
  /** Where it is in its life. */
  state: z.enum(["planned", "stock", "fitted", "spare", "moved", "removed", "dead"]).default("planned"),
  since: z.iso.date("since must be a date").nullable().default(null),
  /** Of one that died: why. */
  cause: z.enum(CAUSES).nullable().default(null),
  /** The one whose place it took. */
  replaces: z.uuid().nullable().default(null),
  services: z
    .array(z.object({ name: z.string().trim().min(1).max(40), on: z.boolean(), why: text("the reason", 120) }))
    .max(20, "at most 20 services")
    .default([]),
  note: text("the note", 500),
});
export type UnitFields = z.infer<typeof unitSchema>;

/** A unit that died and a new one in its place, as one step. */
export const replaceUnitSchema = z.object({
  siteId: z.uuid(),
  placeId: z.uuid(),
  /** The one that died, at a version; version 0: nobody had written it down. */
  dead: z.object({ id: z.uuid(), version: z.number("the version is missing").int().min(0) }),
  /** What was typed of it and not saved yet. */
  fields: z.looseObject({}).default({}),
  cause: z.enum(CAUSES),
  on: z.iso.date("the day must be a date"),
  newId: z.uuid(),
});
export type ReplaceUnit = z.infer<typeof replaceUnitSchema>;

export const unitFaults = (u: UnitFields): { path: string; message: string }[] => [
  ...(u.state === "dead" && u.cause === null ? [{ path: "cause", message: "a dead unit needs a cause, unknown if nobody knows" }] : []),
];

const ipv4 = z.ipv4("must be an address such as 192.168.41.1").nullable().default(null);
export const netSchema = z.object({
  key,
  name: z.string().trim().min(1, "a network needs a name").max(40),
  vlan: z
    .number("a VLAN must be a number")
    .int("a VLAN is whole")
    .min(1, "a VLAN is 1 or above")
    .max(4094, "a VLAN is 4094 or less")
    .nullable()
    .default(null),
  subnet: z
    .string()
    .trim()
    .regex(/^(\d{1,3}\.){3}\d{1,3}\/\d{1,2}$/, "a subnet is written as 192.168.41.0/24"),
  gateway: ipv4,
  poolFrom: ipv4,
  poolTo: ipv4,
});

/** Addresses of a job: its networks, what is taken, and what each place was given. One record a job. */
export const addressesSchema = z.object({
  nets: z.array(netSchema).max(20, "at most 20 networks").default([]),
  /** What answers already, as it was pasted or typed. */
  taken: z
    .array(z.object({ address: z.ipv4(), mac: text("the address of the port", 20), name: text("the name", 80) }))
    .max(1000, "at most 1000 taken addresses")
    .default([]),
  takenOn: z.iso.date().nullable().default(null),
  timeServer: text("the time server", 80),
  /** By place: its address, its name on the network, and which network. */
  given: z
    .record(z.uuid(), z.object({ address: z.ipv4().nullable().default(null), name: text("the name", 63), net: key }))
    .refine((r) => Object.keys(r).length <= 2000, "at most 2000 units")
    .default({}),
  /** Whether the internet reaches controls of a plant, and who signed that it may. */
  plantControls: z.enum(["no", "yes"]).nullable().default(null),
  plantSigned: text("the sign-off", 120),
  /** Who accepted the wiring at hand-over, as the local code asks. */
  acceptedBy: text("the name", 120),
});
export type AddressesFields = z.infer<typeof addressesSchema>;
export type NetFields = z.infer<typeof netSchema>;

export const addressesFaults = (a: AddressesFields): { path: string; message: string }[] => {
  const keys = new Set(a.nets.map((n) => n.key));
  return keys.size === a.nets.length ? [] : [{ path: "nets", message: "two networks have one key" }];
};
