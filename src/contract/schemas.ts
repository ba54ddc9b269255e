import { z } from "zod";

/* What travels between browser and server, checked at the door. Limits are said in the message. */

const latDeg = z
  .number("latitude must be a number")
  .min(-90, "latitude must be between -90 and 90")
  .max(90, "latitude must be between -90 and 90");
const lonDeg = z
  .number("longitude must be a number")
  .min(-180, "longitude must be between -180 and 180")
  .max(180, "longitude must be between -180 and 180");
export const MOST_MOUNT_M = 300;
const mountAglM = z
  .number("height must be a number")
  .min(0, "height must be 0 m or above")
  .max(MOST_MOUNT_M, `height must be ${MOST_MOUNT_M} m or less`);
const powerDbm = z.number("power must be a number").min(-40, "power must be -40 dBm or above").max(50, "power must be 50 dBm or less");
const version = z.number().int().min(1);
const name = z.string().trim().min(1, "name must not be empty").max(80, "name must be 80 letters or fewer");

export const uuid = z.uuid();

export const newJobSchema = z.object({
  name,
  place: z.string().trim().max(80).default(""),
  visitOn: z.iso.date("day of visit must be a date"),
  centreLatDeg: latDeg,
  centreLonDeg: lonDeg,
  ruleDomain: z.enum(["cautious", "FCC-like", "ETSI-like"]),
  rainRate001MmH: z
    .number("rain rate must be a number")
    .min(0, "rain rate must be 0 mm/h or above")
    .max(300, "rain rate must be 300 mm/h or less"),
});

const siteFields = z.object({
  name,
  latDeg,
  lonDeg,
  mountAglM,
  mountMaxAglM: mountAglM.nullable().default(null),
  structure: z.string().trim().max(200).default(""),
  power: z.string().trim().max(200).default(""),
});
export const newSiteSchema = siteFields;
export const patchSiteSchema = z.object({
  version,
  name: name.optional(),
  latDeg: latDeg.optional(),
  lonDeg: lonDeg.optional(),
  mountAglM: mountAglM.optional(),
  mountMaxAglM: mountAglM.nullable().optional(),
  deleted: z.boolean().optional(),
});

export const newLinkSchema = z.object({ nearSiteId: uuid, farSiteId: uuid, label: z.string().trim().max(80).default("") });
export const patchLinkSchema = z.object({ version, deleted: z.boolean() });

const hardwareId = z.string().min(1).max(64);
export const designFieldsSchema = z.object({
  nearMountAglM: mountAglM,
  farMountAglM: mountAglM,
  nearRadioId: hardwareId,
  farRadioId: hardwareId,
  nearAntennaId: hardwareId.nullable(),
  farAntennaId: hardwareId.nullable(),
  nearPowerDbm: powerDbm,
  farPowerDbm: powerDbm,
  nearFeederLossDb: z.number().min(0, "feeder loss must be 0 dB or above").max(40, "feeder loss must be 40 dB or less"),
  farFeederLossDb: z.number().min(0, "feeder loss must be 0 dB or above").max(40, "feeder loss must be 40 dB or less"),
  centreMhz: z
    .number("channel centre must be a number")
    .min(1000, "channel centre must be 1000 MHz or above")
    .max(100_000, "channel centre must be 100 000 MHz or less"),
  widthMhz: z
    .number("channel width must be a number")
    .gt(0, "channel width must be above 0 MHz")
    .max(10_000, "channel width must be 10 000 MHz or less"),
  needToFarMbps: z.number().min(0, "rate must be 0 Mbps or above").max(100_000).nullable(),
  needToNearMbps: z.number().min(0, "rate must be 0 Mbps or above").max(100_000).nullable(),
  trimsM: z.record(uuid, z.number().min(0).max(100)),
  permission: z.string().trim().max(500).nullable(),
});
export const patchDesignSchema = designFieldsSchema.partial().extend({ version });

export const boxSchema = z
  .object({
    westDeg: z.coerce.number().pipe(lonDeg),
    southDeg: z.coerce.number().pipe(latDeg),
    eastDeg: z.coerce.number().pipe(lonDeg),
    northDeg: z.coerce.number().pipe(latDeg),
  })
  .refine((b) => b.eastDeg > b.westDeg && b.northDeg > b.southDeg, "the box is empty");

export const MOST_WINDOW_CELLS = 600;
const side = z.coerce.number().int().min(2).max(MOST_WINDOW_CELLS);
export const terrainWindowSchema = z.object({
  crs: z.string().regex(/^EPSG:(4326|32[67]\d\d)$/),
  x0: z.coerce.number(),
  y0: z.coerce.number(),
  stepM: z.coerce.number().gt(0).max(10_000),
  cols: side,
  rows: side,
});

export type NewJob = z.infer<typeof newJobSchema>;
export type NewSite = z.infer<typeof newSiteSchema>;
export type PatchSite = z.infer<typeof patchSiteSchema>;
export type NewLink = z.infer<typeof newLinkSchema>;
export type DesignFields = z.infer<typeof designFieldsSchema>;
export type PatchDesign = z.infer<typeof patchDesignSchema>;
