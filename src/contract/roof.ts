import { z } from "zod";
import type { AimCut, SeenLandmark } from "../core/aim";
import type { JudgedRisk } from "../core/kit";
import { ANGLE_WAYS, AXES, PARTS, READ_AT, ROOF_ACTS, STEP_IDS } from "../core/roof";
import type { PackLevel } from "./pack";
import type { LinkDto } from "./types";

/* What is written down on a roof, and what a phone has with it to do so without coverage. */

const deg = z.number("the angle must be a number").min(-360, "the angle must be within a turn").max(360, "the angle must be within a turn");
const dbm = z
  .number("the level must be a number")
  .min(-130, "the level must be -130 dBm or above")
  .max(20, "the level must be 20 dBm or less");

/** One entry of the log: it is added, and never changed. */
export const roofSchema = z.object({
  end: z.enum(["near", "far"]),
  act: z.enum(ROOF_ACTS),
  phone: z.uuid("the phone needs its number"),
  order: z.number().int().min(1).max(1_000_000, "the log has a million entries or fewer"),
  at: z.iso.datetime("the time must be a time"),
  aheadS: z.number().min(-1e9).max(1e9).nullable().default(null),
  by: z.string().trim().max(80, "a name has 80 letters or fewer").default(""),
  step: z.enum(STEP_IDS).nullable().default(null),
  part: z.enum(PARTS).nullable().default(null),
  axis: z.enum(AXES).nullable().default(null),
  angleDeg: deg.nullable().default(null),
  levelDbm: dbm.nullable().default(null),
  way: z.enum(ANGLE_WAYS).nullable().default(null),
  readAt: z.enum(READ_AT).nullable().default(null),
  of: z.uuid().nullable().default(null),
  words: z.string().trim().max(300, "300 letters or fewer").default(""),
});
export type RoofFields = z.infer<typeof roofSchema>;

const MISSING: Readonly<Record<(typeof ROOF_ACTS)[number], readonly (keyof RoofFields)[]>> = {
  tick: ["step", "part"],
  back: ["step"],
  sweep: ["axis"],
  reading: ["axis", "angleDeg"],
  void: ["of"],
  peak: ["axis", "levelDbm"],
  level: ["step", "levelDbm"],
  told: ["step", "words"],
  stop: ["words", "by"],
  lift: ["words", "by"],
};

export const roofFaults = (e: RoofFields): { path: string; message: string }[] =>
  MISSING[e.act].filter((key) => e[key] === null || e[key] === "").map((path) => ({ path, message: `a ${e.act} needs it` }));

/** An end as the phone has it with it. */
export interface RoofEnd {
  readonly siteId: string;
  readonly name: string;
  readonly aglM: number;
  readonly lookDeg: number;
  readonly declinationDeg: number;
  readonly lookTiltDeg: number;
  readonly ownAxis: boolean;
  readonly unit: string;
  readonly antenna: string;
  readonly polarisation: string;
  readonly poleMm: number | null;
  /** Null while the radios do not fit each other. */
  readonly level: PackLevel | null;
  /** Null for an antenna that is not found by turning. */
  readonly azimuth: AimCut | null;
  readonly tilt: AimCut | null;
  readonly landmarks: readonly SeenLandmark[];
  readonly farEnd: SeenLandmark;
  /** What may hurt somebody there, the worst first. */
  readonly risks: readonly JudgedRisk[];
  readonly exposureM: number | null;
  readonly access: string;
}

/** What of a link a roof needs; made by the server, kept by the phone. */
export interface RoofDto {
  readonly link: LinkDto;
  readonly contact: string;
  /** Day and time of the place. */
  readonly madeAt: string;
  /** By the channel's rule the radio listens so long before it sends; null where it need not. */
  readonly radarWaitS: number | null;
  readonly ends: readonly [RoofEnd, RoofEnd];
}
