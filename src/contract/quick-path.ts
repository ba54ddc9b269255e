import { z } from "zod";
import { LONGEST_LINK_M, SHORTEST_LINK_M } from "../core/link";
import { designFieldsSchema, newJobSchema, siteFieldsSchema } from "./schemas";

/* A path without a map: only what is known is asked. */

const end = z.object({ name: siteFieldsSchema.shape.name, mountAglM: siteFieldsSchema.shape.mountAglM });
const position = z.object({ latDeg: siteFieldsSchema.shape.latDeg, lonDeg: siteFieldsSchema.shape.lonDeg });

export const quickPathSchema = z
  .object({
    name: newJobSchema.shape.name,
    visitOn: newJobSchema.shape.visitOn,
    near: end,
    far: end,
    where: z.discriminatedUnion("kind", [
      z.object({
        kind: z.literal("distance"),
        distanceM: z
          .number("the distance must be a number")
          .min(SHORTEST_LINK_M, `the distance must be ${SHORTEST_LINK_M} m or above`)
          .max(LONGEST_LINK_M, `the distance must be ${LONGEST_LINK_M / 1000} km or less`),
        bearingDeg: z
          .number("the bearing must be a number")
          .min(0, "the bearing must be 0 to 360°")
          .max(360, "the bearing must be 0 to 360°")
          .nullable(),
      }),
      z.object({ kind: z.literal("positions"), near: position, far: position }),
    ]),
    ruleDomain: newJobSchema.shape.ruleDomain,
    /** Flat land, water all the way, or ground that a file will tell. */
    ground: z.enum(["flat", "water", "terrain"]),
    needToFarMbps: designFieldsSchema.shape.needToFarMbps.unwrap(),
    needToNearMbps: designFieldsSchema.shape.needToNearMbps.unwrap(),
  })
  .refine((q) => q.ground !== "terrain" || q.where.kind === "positions", {
    error: "terrain is read at positions: type both, or say that the ground is flat",
    path: ["ground"],
  });

export type QuickPath = z.infer<typeof quickPathSchema>;

export interface QuickPathDto {
  readonly jobId: string;
  readonly linkId: string;
}
