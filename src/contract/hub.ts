import { z } from "zod";
import { LEAST_POWER_DBM, MOST_POWER_DBM } from "../core/link";
import type { DesignFields } from "./schemas";

/*
 * A hub: one mast from which several links go, with its sectors. What a sector is set to stands here once; the designs of the
 * links that hang on it follow in the same step.
 */

const key = z.string().min(1).max(40);
const id = z.string().min(1).max(64);
const power = z
  .number("the power must be a number")
  .min(LEAST_POWER_DBM, `the power must be ${LEAST_POWER_DBM} dBm or above`)
  .max(MOST_POWER_DBM, `the power must be ${MOST_POWER_DBM} dBm or less`);

export const sectorSchema = z.object({
  id: key,
  radioId: id,
  antennaId: id.nullable().default(null),
  /** Null, both: it looks at its one remote, as a pair does. */
  azimuthDeg: z
    .number("the azimuth must be a number")
    .min(0, "the azimuth must be 0° or above")
    .max(360, "the azimuth must be 360° or less")
    .nullable(),
  tiltDeg: z
    .number("the tilt must be a number")
    .min(-90, "the tilt must be -90° or above")
    .max(90, "the tilt must be 90° or less")
    .nullable(),
  centreMhz: z.number("the channel must be a number").min(1000, "the channel must be 1000 MHz or above").max(350_000),
  widthMhz: z.number("the width must be a number").gt(0, "the width must be above 0").max(10_000),
  powerDbm: power,
  /** Part of each frame for the way to the remotes; null: both ways share all of it. */
  frameShareToRemotes: z.number().min(0).max(1).nullable().default(null),
});

export const MOST_SECTORS = 8;
export const MOST_REMOTES = 60;

const words = (what: string, most: number) => z.string().trim().max(most, `${what} must be ${most} letters or fewer`).default("");

/** Clients of an old hub that are moved to this one. */
export const movingSchema = z.object({
  from: words("the old hub", 120),
  /** Types of unit that hang there today, one a line. */
  gear: words("what hangs there", 500),
  windowMin: z
    .number("the window must be a number")
    .int("the window must be whole minutes")
    .min(1, "the window must be 1 minute or more")
    .max(1440, "the window must be a day or less")
    .default(30),
  clients: z.array(z.uuid()).max(MOST_REMOTES, `at most ${MOST_REMOTES} clients`).default([]),
});

/** A bearing kept free for later, and what may hang there. */
export const laterSchema = z.object({
  bearingDeg: z
    .number("the bearing must be a number")
    .min(0, "the bearing must be 0° or above")
    .max(360, "the bearing must be 360° or less"),
  mbps: z.number("what it will ask must be a number").min(0, "what it will ask must be 0 Mbps or above").max(10_000),
});
const MOST_LATER = 8;

export const hubSchema = z.object({
  name: z.string().trim().max(80, "the name must be 80 letters or fewer").default(""),
  /** Where on its site it stands: a mounting point, or the site's own mount, and how high. */
  mountId: z.string().max(40).nullable().default(null),
  mountAglM: z
    .number("the mount height must be a number")
    .min(0, "the mount height must be 0 m or above")
    .max(500, "the mount height must be 500 m or less"),
  /** Remotes ask before each burst and are granted it. */
  grant: z.boolean().default(true),
  /** Null: nobody has looked. */
  hearEachOther: z.boolean().nullable().default(null),
  sectors: z.array(sectorSchema).max(MOST_SECTORS, `a hub has at most ${MOST_SECTORS} sectors`).default([]),
  remotes: z
    .array(z.object({ linkId: z.uuid(), sectorId: key }))
    .max(MOST_REMOTES, `a hub has at most ${MOST_REMOTES} remotes`)
    .default([]),
  later: z.array(laterSchema).max(MOST_LATER, `at most ${MOST_LATER} bearings are kept`).default([]),
  moving: movingSchema.prefault({}),
});

export type HubFields = z.infer<typeof hubSchema>;
export type HubSector = z.infer<typeof sectorSchema>;

/** Every remote hangs on a sector that there is, and on one only. */
export const hubFaults = ({ sectors, remotes }: HubFields): { path: string; message: string }[] => {
  const ids = new Set(sectors.map((s) => s.id));
  const links = new Set<string>();
  return [
    ...(ids.size < sectors.length ? [{ path: "sectors", message: "two sectors have one name" }] : []),
    ...remotes.flatMap(({ linkId, sectorId }, i) => {
      if (!ids.has(sectorId)) return [{ path: `remotes.${i}.sectorId`, message: "names a sector that the hub lacks" }];
      if (links.has(linkId)) return [{ path: `remotes.${i}.linkId`, message: "hangs on the hub already" }];
      links.add(linkId);
      return [];
    }),
  ];
};

/** The other way's part of a frame, and back again without a digit changed. */
export const otherShare = (share: number): number => Math.round((1 - share) * 1e6) / 1e6;

/** What a hub and one of its sectors set of the design of a link that hangs on it. */
export const designUnder = (hub: Pick<HubFields, "mountId" | "mountAglM">, s: HubSector, hubIsNear: boolean): Partial<DesignFields> => {
  const end = hubIsNear ? ("near" as const) : ("far" as const);
  return {
    [`${end}MountId`]: hub.mountId,
    [`${end}MountAglM`]: hub.mountAglM,
    [`${end}RadioId`]: s.radioId,
    [`${end}AntennaId`]: s.antennaId,
    [`${end}AimAzimuthDeg`]: s.azimuthDeg,
    [`${end}AimTiltDeg`]: s.tiltDeg,
    [`${end}PowerDbm`]: s.powerDbm,
    centreMhz: s.centreMhz,
    widthMhz: s.widthMhz,
    frameShareToFar: s.frameShareToRemotes === null ? null : hubIsNear ? s.frameShareToRemotes : otherShare(s.frameShareToRemotes),
  };
};

/** Where else a hub could stand: its site's mounting points, the edge of its roof, a drawn line, or the other sites; and how high. */
export const hubMountsSchema = z
  .object({
    along: z.union([z.literal("points"), z.literal("roof"), z.literal("sites"), z.object({ featureId: z.uuid() })]),
    lowestM: z.number("the lowest mount must be a number").min(0, "the lowest mount must be 0 m or above").max(500),
    highestM: z.number("the highest mount must be a number").min(0).max(500, "the highest mount must be 500 m or less"),
  })
  .refine((q) => q.lowestM <= q.highestM, { path: ["highestM"], message: "the highest mount must not be below the lowest" });
export type HubMountsQuestion = z.infer<typeof hubMountsSchema>;
