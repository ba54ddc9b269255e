import { z } from "zod";
import { isZone } from "../core/days";
import {
  DEFAULT_YEAR_PERCENT,
  HIGHEST_TYPED_MOUNT_M,
  LEAST_POWER_DBM,
  LEAST_YEAR_PERCENT,
  MOST_POWER_DBM,
  MOST_YEAR_PERCENT,
  STANDS,
} from "../core/link";
import { BARRIER_MATERIALS } from "../core/propagation";
import { MOST_OWN_RULES, ownRuleSchema } from "./rules";
import { SITE_START } from "./starts";

/* What travels between browser and server, checked at the door. Limits are said in the message. */

const latDeg = z
  .number("latitude must be a number")
  .min(-90, "latitude must be between -90 and 90")
  .max(90, "latitude must be between -90 and 90");
const lonDeg = z
  .number("longitude must be a number")
  .min(-180, "longitude must be between -180 and 180")
  .max(180, "longitude must be between -180 and 180");
export const MOST_MOUNT_M = HIGHEST_TYPED_MOUNT_M;
const mountAglM = z
  .number("height must be a number")
  .min(0, "height must be 0 m or above")
  .max(MOST_MOUNT_M, `height must be ${MOST_MOUNT_M} m or less`);
const powerDbm = z
  .number("power must be a number")
  .min(LEAST_POWER_DBM, `power must be ${LEAST_POWER_DBM} dBm or above`)
  .max(MOST_POWER_DBM, `power must be ${MOST_POWER_DBM} dBm or less`);
const name = z.string().trim().min(1, "name must not be empty").max(80, "name must be 80 letters or fewer");

export const uuid = z.uuid();

const ruleDomain = z.enum(["cautious", "FCC-like", "ETSI-like"]);
const rainRate001MmH = z
  .number("rain rate must be a number")
  .min(0, "rain rate must be 0 mm/h or above")
  .max(300, "rain rate must be 300 mm/h or less");

const words = (what: string, most = 500) => z.string().trim().max(most, `${what} must be ${most} letters or fewer`);
const mastCostPerM = z
  .number("the cost must be a number")
  .min(0, "the cost must be 0 or above")
  .max(1_000_000, "the cost must be 1 000 000 or less");
const offsetM = z
  .number("the offset must be a number")
  .min(-500, "a mounting point lies within 500 m of its site")
  .max(500, "a mounting point lies within 500 m of its site");
export const mountingPointSchema = z.object({
  id: z.string().min(1).max(40),
  name,
  aglM: mountAglM,
  maxAglM: mountAglM.nullable().default(null),
  behind: words("what is behind", 200).default(""),
  eastM: offsetM.default(0),
  northM: offsetM.default(0),
});

export const siteFieldsSchema = z.object({
  name,
  latDeg,
  lonDeg,
  mountAglM,
  mountMaxAglM: mountAglM.nullable().default(SITE_START.mountMaxAglM),
  mastCostPerM: mastCostPerM.nullable().default(SITE_START.mastCostPerM),
  /** What its bracket is fixed to, for how far wind turns it; null when nobody said. */
  stands: z.enum(STANDS).nullable().default(SITE_START.stands),
  structure: words("the structure", 200).default(SITE_START.structure),
  power: words("the power", 200).default(SITE_START.power),
  material: words("the material", 200).default(SITE_START.material),
  cableEntry: words("the cable entry").default(SITE_START.cableEntry),
  access: words("the access").default(SITE_START.access),
  owner: words("the owner", 200).default(SITE_START.owner),
  notes: words("the notes", 4000).default(SITE_START.notes),
  mountingPoints: z.array(mountingPointSchema).max(40, "a site has at most 40 mounting points").default(SITE_START.mountingPoints),
  ticks: z.array(z.string().max(40)).max(40).default(SITE_START.ticks),
});
export const newLinkSchema = z.object({ nearSiteId: uuid, farSiteId: uuid, label: z.string().trim().max(80).default("") });
/** Ground told by hand: level with its height, or heights at distances; with its error. */
export const groundToldSchema = z
  .object({
    kind: z.enum(["level", "typed"]),
    sigmaM: z.number("the error must be a number").min(0, "the error must be 0 m or above").max(100, "the error must be 100 m or less"),
    points: z
      .array(
        z.object({
          distanceM: z.number("a distance must be a number").min(0, "a distance must be 0 m or above").max(100_000),
          heightAmslM: z
            .number("a height must be a number")
            .min(-500, "a height must be -500 m or above")
            .max(9000, "a height must be 9000 m or less"),
        }),
      )
      .min(1, "at least one height is needed")
      .max(2000, "at most 2000 heights are taken"),
  })
  .refine((g) => g.kind === "level" || g.points.length >= 2, "a typed profile needs at least two heights");

const clearancePolicy = z.enum(["line", "sixty", "whole", "two-condition"]);
const treePolicy = z.enum(["strict", "trim", "through"]);
const leafState = z.enum(["in", "out"]);
const kFactor = z.number("k must be a number").min(0.3, "k must be 0.3 or above").max(10, "k must be 10 or less");
const kLow = z
  .number("low k must be a number")
  .min(0.3, "low k must be 0.3 or above")
  .max(4 / 3, "low k must be 4/3 or less");
/** Where one link's policy differs from its job's. */
export const policyOverSchema = z.object({ clearance: clearancePolicy, kFactor, trees: treePolicy, leaf: leafState }).partial().strict();

/** Working rules and assumptions of a job; every change is kept with its version. */
export const basisSchema = z.object({
  ruleDomain: ruleDomain.default("cautious"),
  clearancePolicy: clearancePolicy.default("sixty"),
  kFactor: kFactor.default(4 / 3),
  /** Low k of the two-condition rule at 20, 50 and 100 km. */
  kLow20: kLow.default(0.6),
  kLow50: kLow.default(0.8),
  kLow100: kLow.default(0.9),
  climateZone: z.enum(["temperate", "tropical"]).default("temperate"),
  treePolicy: treePolicy.default("strict"),
  leafState: leafState.default("in"),
  horizonYears: z
    .number("years must be a number")
    .int("years must be whole")
    .min(0, "years must be 0 or above")
    .max(30, "years must be 30 or fewer")
    .default(5),
  throughputSchool: z.enum(["third", "headroom", "full"]).default("headroom"),
  freeShare: z
    .number("the free share must be a number")
    .min(0, "the free share must be 0 or above")
    .max(0.9, "the free share must be 90 % or less")
    .default(0.3),
  marginDb: z.number("margin must be a number").min(0, "margin must be 0 dB or above").max(40, "margin must be 40 dB or less").default(10),
  rainRate001MmH: rainRate001MmH.default(30),
  temperatureC: z
    .number("temperature must be a number")
    .min(-60, "temperature must be -60 °C or above")
    .max(60, "temperature must be 60 °C or less")
    .default(10),
  pressureHpa: z
    .number("pressure must be a number")
    .min(500, "pressure must be 500 hPa or above")
    .max(1100, "pressure must be 1100 hPa or less")
    .default(1013),
  vapourDensityGm3: z
    .number("vapour must be a number")
    .min(0, "vapour must be 0 g/m³ or above")
    .max(60, "vapour must be 60 g/m³ or less")
    .default(7.5),
  gradientDn1NPerKm: z
    .number("dN1 must be a number")
    .min(-1500, "dN1 must be -1500 N/km or above")
    .max(100, "dN1 must be 100 N/km or less")
    .default(-250),
  roughnessSaM: z
    .number("terrain roughness must be a number")
    .min(0)
    .max(2000, "terrain roughness must be 2000 m or less")
    .nullable()
    .default(null),
  waterSurface: z.enum(["auto", "none", "sea", "fresh", "wet-ground", "dry-ground"]).default("auto"),
  tideRangeM: z
    .number("tide range must be a number")
    .min(0, "tide range must be 0 m or above")
    .max(20, "tide range must be 20 m or less")
    .default(0),
  waterRoughnessM: z
    .number("wave height must be a number")
    .min(0, "wave height must be 0 m or above")
    .max(5, "wave height must be 5 m or less")
    .default(0.05),
});

/** What a job says of itself beside its basis. */
export const jobFieldsSchema = basisSchema.extend({
  name,
  place: z.string().trim().max(80, "the place must be 80 letters or fewer").default(""),
  stage: z.string().trim().max(80, "the stage must be 80 letters or fewer").default("Enquiry"),
  visitOn: z.iso.date("day of visit must be a date"),
  centreLatDeg: latDeg,
  centreLonDeg: lonDeg,
  /** The zone of IANA whose clocks the days of the job go by. */
  timeZone: z.string().max(60).refine(isZone, "the time zone must be one of IANA, such as Atlantic/Azores").default("UTC"),
  /** Rule rows of the job's own, beside the shipped ones. */
  ownRules: z.array(ownRuleSchema).max(MOST_OWN_RULES, `a job has at most ${MOST_OWN_RULES} own rows`).default([]),
});
/** What is asked of a new job. */
export const newJobSchema = z.object({
  name,
  place: jobFieldsSchema.shape.place,
  visitOn: jobFieldsSchema.shape.visitOn,
  centreLatDeg: latDeg,
  centreLonDeg: lonDeg,
  ruleDomain,
  rainRate001MmH,
});

const hardwareId = z.string().min(1).max(64);
const lossDb = (what: string) =>
  z.number(`${what} must be a number`).min(0, `${what} must be 0 dB or above`).max(80, `${what} must be 80 dB or less`);
/** What stands between a unit and the open air: nothing, a material of the table, "measured" or "unknown". */
const wall = z.enum(["measured", "unknown", ...BARRIER_MATERIALS.map((m) => m.id)]).nullable();
const interferenceDbm = z
  .number("interference must be a number")
  .min(-130, "interference must be -130 dBm or above")
  .max(0, "interference must be 0 dBm or less")
  .nullable();
const aimAzimuthDeg = z
  .number("azimuth must be a number")
  .min(0, "azimuth must be 0° or above")
  .max(360, "azimuth must be 360° or less")
  .nullable();
const aimTiltDeg = z.number("tilt must be a number").min(-90, "tilt must be -90° or above").max(90, "tilt must be 90° or less").nullable();

const portIndex = z.number().int().min(0).max(15).nullable().default(null);
const day = (what: string) => z.iso.date(`${what} must be a date`).nullable();
/** A permission as it was recorded; it covers what it names, and only that. */
export const recordedPermissionSchema = z
  .object({
    kind: words("the kind", 80),
    holder: words("the holder", 120),
    number: z
      .string()
      .trim()
      .min(1, "the number or reference must not be empty")
      .max(120, "the number or reference must be 120 letters or fewer"),
    place: words("the place", 120),
    lowMhz: z.number("the lower edge must be a number").min(0).max(350_000),
    highMhz: z.number("the upper edge must be a number").min(0).max(350_000),
    maxEirpDbm: z
      .number("the EIRP must be a number")
      .min(-60, "the EIRP must be -60 dBm or above")
      .max(100, "the EIRP must be 100 dBm or less")
      .nullable(),
    from: day("the first day"),
    until: day("the last day"),
    note: words("the note", 500),
  })
  .refine((p) => p.highMhz > p.lowMhz, { error: "the upper edge must be above the lower", path: ["highMhz"] })
  .refine((p) => p.from === null || p.until === null || p.until >= p.from, {
    error: "the last day must not lie before the first",
    path: ["until"],
  });

export const designFieldsSchema = z.object({
  nearMountAglM: mountAglM,
  farMountAglM: mountAglM,
  nearMountId: z.string().max(40).nullable().default(null),
  farMountId: z.string().max(40).nullable().default(null),
  nearRadioId: hardwareId,
  farRadioId: hardwareId,
  nearAntennaId: hardwareId.nullable().default(null),
  farAntennaId: hardwareId.nullable().default(null),
  nearPowerDbm: powerDbm,
  farPowerDbm: powerDbm,
  nearFeederLossDb: lossDb("feeder loss").default(0),
  farFeederLossDb: lossDb("feeder loss").default(0),
  nearConnectorLossDb: lossDb("connector loss").default(0),
  farConnectorLossDb: lossDb("connector loss").default(0),
  nearWall: wall.default(null),
  farWall: wall.default(null),
  nearWallLossDb: lossDb("wall loss").nullable().default(null),
  farWallLossDb: lossDb("wall loss").nullable().default(null),
  nearInterferenceDbm: interferenceDbm.default(null),
  farInterferenceDbm: interferenceDbm.default(null),
  nearAimAzimuthDeg: aimAzimuthDeg.default(null),
  farAimAzimuthDeg: aimAzimuthDeg.default(null),
  nearAimTiltDeg: aimTiltDeg.default(null),
  farAimTiltDeg: aimTiltDeg.default(null),
  frameShareToFar: z
    .number()
    .min(0.1, "the share must be 10 % or above")
    .max(0.9, "the share must be 90 % or less")
    .nullable()
    .default(null),
  centreMhz: z
    .number("channel centre must be a number")
    .min(1000, "channel centre must be 1000 MHz or above")
    .max(100_000, "channel centre must be 100 000 MHz or less"),
  widthMhz: z
    .number("channel width must be a number")
    .gt(0, "channel width must be above 0 MHz")
    .max(10_000, "channel width must be 10 000 MHz or less"),
  needToFarMbps: z.number().min(0, "rate must be 0 Mbps or above").max(100_000).nullable().default(null),
  needToNearMbps: z.number().min(0, "rate must be 0 Mbps or above").max(100_000).nullable().default(null),
  trimsM: z.record(uuid, z.number().min(0).max(100)).default({}),
  needYearPercent: z
    .number("the share of the year must be a number")
    .min(LEAST_YEAR_PERCENT, `the share of the year must be ${LEAST_YEAR_PERCENT} % or above: below, the rain method does not know`)
    .max(MOST_YEAR_PERCENT, `the share of the year must be ${MOST_YEAR_PERCENT} % or less: beyond, the rain method does not know`)
    .default(DEFAULT_YEAR_PERCENT),
  /** Ethernet port the cable goes into, by its place on the sheet; null: the powered one. */
  nearPort: portIndex,
  farPort: portIndex,
  permissions: z.array(recordedPermissionSchema).max(10, "a link has at most 10 permissions on record").default([]),
  policyOver: policyOverSchema.default({}),
});
/** A copy of the design in force, kept to compare with: as it stands on the screen, saved already or not. */
export const keepDesignSchema = z.object({ name: words("the name", 40).default(""), design: designFieldsSchema.optional() });

/** Several designs changed as one step, each as it stands at a version. */
const changed = z.object({ id: uuid, version: z.number("the version is missing").int().min(1), fields: z.looseObject({}) });
export const takeSchema = z
  .object({
    designs: z.array(changed).max(500, "at most 500 designs at once").default([]),
    /** Hubs whose sectors are changed in the same step; what hangs on them follows. */
    hubs: z.array(changed).max(100, "at most 100 hubs at once").default([]),
  })
  .refine((t) => t.designs.length + t.hubs.length > 0, { path: ["designs"], message: "at least one design" });

export const boxSchema = z
  .object({
    westDeg: z.coerce.number().pipe(lonDeg),
    southDeg: z.coerce.number().pipe(latDeg),
    eastDeg: z.coerce.number().pipe(lonDeg),
    northDeg: z.coerce.number().pipe(latDeg),
  })
  .refine((b) => b.eastDeg > b.westDeg && b.northDeg > b.southDeg, "the box is empty");

export const MOST_WINDOW_CELLS = 1024;
const side = z.coerce.number().int().min(2).max(MOST_WINDOW_CELLS);
export const terrainWindowSchema = z.object({
  crs: z.string().regex(/^EPSG:(4326|32[67]\d\d)$/),
  x0: z.coerce.number(),
  y0: z.coerce.number(),
  stepM: z.coerce.number().gt(0).max(10_000),
  cols: side,
  rows: side,
});

/** Another spot for one end: its mounting points, the edge of the roof it stands on, or a drawn line. */
export const placesSchema = z.object({
  end: z.enum(["near", "far"]),
  along: z.union([z.literal("points"), z.literal("roof"), z.object({ featureId: uuid })]),
});
/** Spots for a relay, each to be looked at over exact profiles. */
export const relaysSchema = z.object({
  spots: z
    .array(z.object({ latDeg, lonDeg, aglM: mountAglM, siteId: uuid.nullable().default(null) }))
    .max(40, "at most 40 spots are looked at"),
  /** Bare ground may take a mast up to this, when a higher one makes both legs clear. */
  mostAglM: mountAglM.default(0),
});

/** A relay put between the ends of a link: a site of the job, or a new one on the spot. */
export const newRelaySchema = z.union([z.object({ siteId: uuid }), z.object({ name, latDeg, lonDeg, mountAglM })]);

export type RecordedPermission = z.infer<typeof recordedPermissionSchema>;
export type PolicyOver = z.infer<typeof policyOverSchema>;
export type PlacesQuestion = z.infer<typeof placesSchema>;
export type RelaysQuestion = z.input<typeof relaysSchema>;
export type GroundTold = z.infer<typeof groundToldSchema>;
export type MountingPointFields = z.infer<typeof mountingPointSchema>;
export type Basis = z.infer<typeof basisSchema>;
export type DesignFields = z.infer<typeof designFieldsSchema>;
