import { z } from "zod";
import { isPowerKind, PART_KINDS, type PartSheet } from "../core/wiring";

/* Sheets of what is wired beside the radios, as they come in a file. */

const id = z.string().regex(/^[a-z0-9][a-z0-9-]{0,63}$/, "small letters, digits and hyphens");
const watts = z.number("watts must be a number").min(0, "watts are 0 or above").max(100_000);
const volts = z.number("volts must be a number").gt(0, "volts are above 0").max(1000);
const speedMbps = z.number().gt(0).max(400_000);
const supply = z
  .string()
  .max(60)
  .refine(isPowerKind, { error: "is no kind of supply: 802.3af, passive24-2pair, passive48, own56-4pair:name, dc12, mains" });
const portId = z.string().min(1).max(20);

const port = z.object({
  id: portId,
  name: z.string().trim().min(1).max(30),
  medium: z.enum(["copper", "fibre", "dc", "mains"]),
  speedMbps: speedMbps.optional(),
  gives: z.array(supply).min(1).max(8).optional(),
  giveW: watts.optional(),
  leastV: volts.optional(),
  takes: z.array(supply).max(8).optional(),
  passes: z.object({ from: portId, kind: supply, mostW: watts, onlyWhenFedBy: supply.optional() }).optional(),
  straightTo: portId.optional(),
  side: z.enum(["lan", "fed"]).optional(),
});

const cable = z
  .object({
    awg: z.number().min(0).max(40).optional(),
    material: z.enum(["copper", "copper-clad", "glass"]),
    ohmPerKm: z.number().gt(0).max(10_000).optional(),
    category: z.enum(["5e", "6", "6A", "7"]).optional(),
    pairs: z.union([z.literal(1), z.literal(2), z.literal(4)]).optional(),
    shield: z.boolean(),
    outdoor: z.boolean(),
    cord: z.boolean(),
    metal: z.boolean(),
    pricePerM: z.number().min(0).max(10_000).optional(),
  })
  .refine((c) => c.material === "glass" || c.awg !== undefined || c.ohmPerKm !== undefined, "a copper cable needs its gauge or its ohms");

const NEEDS: Readonly<Record<string, keyof PartSheet>> = {
  cable: "cable",
  fibre: "cable",
  surge: "surge",
  battery: "battery",
  panel: "panelW",
};

export const partSchema = z
  .object({
    id,
    name: z.string().trim().min(1).max(80),
    kind: z.enum(PART_KINDS),
    ports: z.array(port).max(64).default([]),
    drawMostW: watts.optional(),
    drawUsualW: watts.optional(),
    startW: watts.optional(),
    inputVolts: z
      .record(
        supply,
        z.object({ low: z.number().min(0), high: volts }).refine((v) => v.high > v.low, "high must be above low"),
      )
      .optional(),
    poeClass: z.number().int().min(1).max(8).nullable().optional(),
    totalGiveW: watts.optional(),
    efficiency: z.number().gt(0.1).max(1).optional(),
    routes: z.boolean().optional(),
    handsOutAddresses: z.boolean().optional(),
    outdoor: z.boolean().optional(),
    cable: cable.optional(),
    surge: z
      .object({
        mostV: volts,
        pairs: z.union([z.literal(2), z.literal(4)]),
        speedMbps,
        schemes: z.array(z.enum(["802.3", "passive", "own", "none"])).max(4),
      })
      .optional(),
    battery: z
      .object({
        volts,
        ah: z.number().gt(0).max(100_000),
        chemistry: z.enum(["lead", "lithium"]),
        heater: z.boolean(),
        depth: z.number().min(0.05, "at least 5 % of it is used").max(1),
      })
      .optional(),
    panelW: z.number().gt(0).max(100_000).optional(),
    cutOut: z
      .object({ offV: volts, onV: volts })
      .refine((c) => c.onV > c.offV, "it must take hold again above where it lets go")
      .optional(),
    fuseA: z.number().gt(0).max(1000).optional(),
    shielded: z.boolean().optional(),
    holeMm: z.number().gt(0).max(500).optional(),
    priceEur: z.number().min(0, "a price is 0 or above").max(1_000_000).optional(),
    stock: z.number().int("a stock is whole").min(0).max(100_000).optional(),
    retired: z.boolean().optional(),
  })
  .superRefine((p, ctx) => {
    const needs = NEEDS[p.kind];
    if (needs !== undefined && p[needs] === undefined) ctx.addIssue({ code: "custom", path: [needs], message: `a ${p.kind} needs it` });
    const ids = p.ports.map((x) => x.id);
    if (new Set(ids).size !== ids.length) ctx.addIssue({ code: "custom", path: ["ports"], message: "two ports have one id" });
    for (const [i, x] of p.ports.entries()) {
      if (x.straightTo !== undefined && !ids.includes(x.straightTo))
        ctx.addIssue({ code: "custom", path: ["ports", i, "straightTo"], message: "names a port that is not there" });
      if (x.passes !== undefined && !ids.includes(x.passes.from))
        ctx.addIssue({ code: "custom", path: ["ports", i, "passes"], message: "names a port that is not there" });
      if (x.gives !== undefined && x.takes !== undefined)
        ctx.addIssue({ code: "custom", path: ["ports", i], message: "a port gives or takes, not both" });
    }
  }) satisfies z.ZodType<PartSheet>;
