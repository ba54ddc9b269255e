import { z } from "zod";
import { airSchema, scanSchema } from "./air";
import { briefSchema } from "./brief";
import { daysFaults, daysSchema } from "./days";
import { basemapFieldsSchema, featureFieldsSchema, obstacleFaults, obstacleRowSchema, photoFieldsSchema } from "./ground";
import { hubFaults, hubSchema } from "./hub";
import { type Kind, kind, NO_FIXED } from "./kind";
import { kitSchema, pickSchema, safetySchema } from "./kit";
import { limitsSchema } from "./limits";
import { networkSchema } from "./network";
import { roofFaults, roofSchema } from "./roof";
import { designFieldsSchema, groundToldSchema, jobFieldsSchema, siteFieldsSchema, uuid } from "./schemas";
import { type KindName, TOLD, withTold } from "./told";
import { addressesFaults, addressesSchema, unitFaults, unitSchema, wiringFaults, wiringSchema } from "./wiring";

/*
 * Everything that people edit, declared once. History, undo, bundles, the two routes, news, queries and the store of the
 * browser walk this list: what is said of a kind here holds in all of them.
 */

const PLANNERS = ["owner", "planner"] as const;
const CREWS = ["owner", "planner", "installer"] as const;
/** Of the firm; customers see what their sheets are made of. */
const FIRM = ["owner", "planner", "installer", "viewer"] as const;

const job = kind({
  ...TOLD.job,
  fields: jobFieldsSchema,
  fixed: z.object({ number: z.number().int() }),
  bundle: { file: "job.json", form: "one" },
  stale: "job",
  seenBy: FIRM,
  editedBy: PLANNERS,
  onPhone: true,
  kept: "columns",
});

const brief = kind({
  ...TOLD.brief,
  fields: briefSchema,
  fixed: NO_FIXED,
  bundle: { file: "brief.json", form: "one" },
  stale: "nothing",
  seenBy: FIRM,
  editedBy: PLANNERS,
  onPhone: true,
  kept: "columns",
});

const site = kind({
  ...TOLD.site,
  fields: siteFieldsSchema,
  fixed: NO_FIXED,
  bundle: { file: "sites.json", form: "list" },
  stale: "site",
  noFigures: ["structure", "material", "cableEntry", "access", "owner", "notes", "ticks"],
  seenBy: FIRM,
  editedBy: CREWS,
  prices: ["mastCostPerM"],
  idByClient: true,
  onPhone: true,
  kept: "columns",
});

const link = kind({
  ...TOLD.link,
  fields: z.object({
    label: z.string().trim().max(80, "the label must be 80 letters or fewer").default(""),
    stage: z.string().trim().max(80, "the stage must be 80 letters or fewer").default("Planned"),
    groundTold: groundToldSchema.nullable().default(null),
  }),
  fixed: z.object({ number: z.number().int().min(1), nearSiteId: uuid, farSiteId: uuid }),
  refs: { nearSiteId: "site", farSiteId: "site" },
  bundle: { file: "links.json", form: "list" },
  stale: "link",
  seenBy: FIRM,
  editedBy: PLANNERS,
  onPhone: true,
  kept: "columns",
});

const design = kind({
  ...TOLD.design,
  fields: designFieldsSchema,
  fixed: z.object({ linkId: uuid, chosen: z.boolean(), name: z.string().max(40).default("") }),
  refs: { linkId: "link" },
  bundle: { file: "links.json", form: "within" },
  stale: "link",
  seenBy: FIRM,
  editedBy: PLANNERS,
  onPhone: true,
  kept: "columns",
});

const limits = kind({
  ...TOLD.limits,
  fields: limitsSchema,
  fixed: NO_FIXED,
  bundle: { file: "limits.json", form: "one" },
  stale: "nothing",
  prices: ["priceMost", "oneTypeMost"],
  seenBy: FIRM,
  editedBy: PLANNERS,
  kept: "document",
});

const hub = kind({
  ...TOLD.hub,
  fields: hubSchema,
  fixed: z.object({ siteId: uuid }),
  check: hubFaults,
  refs: { siteId: "site" },
  bundle: { file: "hubs.json", form: "list" },
  stale: "nothing",
  seenBy: FIRM,
  editedBy: PLANNERS,
  kept: "document",
});

const network = kind({
  ...TOLD.network,
  fields: networkSchema,
  fixed: NO_FIXED,
  bundle: { file: "network.json", form: "one" },
  stale: "nothing",
  seenBy: FIRM,
  editedBy: PLANNERS,
  kept: "document",
});

const air = kind({
  ...TOLD.air,
  fields: airSchema,
  fixed: NO_FIXED,
  bundle: { file: "air.json", form: "one" },
  stale: "nothing",
  seenBy: FIRM,
  editedBy: PLANNERS,
  kept: "document",
});

const scan = kind({
  ...TOLD.scan,
  fields: scanSchema,
  fixed: z.object({ siteId: uuid }),
  refs: { siteId: "site", linkId: "link" },
  bundle: { file: "scans.json", form: "list" },
  stale: "nothing",
  seenBy: FIRM,
  editedBy: CREWS,
  kept: "document",
});

const wiring = kind({
  ...TOLD.wiring,
  fields: wiringSchema,
  fixed: z.object({ siteId: uuid }),
  check: wiringFaults,
  refs: { siteId: "site" },
  bundle: { file: "wirings.json", form: "list" },
  stale: "nothing",
  seenBy: FIRM,
  editedBy: PLANNERS,
  // Under the id of its site: two people who wire one site wire the same record.
  idByClient: true,
  comesBack: true,
  kept: "document",
});

const unit = kind({
  ...TOLD.unit,
  fields: unitSchema,
  fixed: z.object({ siteId: uuid, placeId: uuid }),
  check: unitFaults,
  refs: { siteId: "site" },
  bundle: { file: "units.json", form: "list" },
  stale: "nothing",
  seenBy: FIRM,
  editedBy: CREWS,
  // The first at a place under the place's id: it is made when something of it is written down.
  idByClient: true,
  comesBack: true,
  kept: "document",
});

const addresses = kind({
  ...TOLD.addresses,
  fields: addressesSchema,
  fixed: NO_FIXED,
  check: addressesFaults,
  bundle: { file: "addresses.json", form: "one" },
  stale: "nothing",
  seenBy: FIRM,
  editedBy: PLANNERS,
  kept: "document",
});

const kit = kind({
  ...TOLD.kit,
  fields: kitSchema,
  fixed: NO_FIXED,
  bundle: { file: "kit.json", form: "one" },
  stale: "nothing",
  seenBy: FIRM,
  editedBy: PLANNERS,
  prices: ["money"],
  onPhone: true,
  kept: "document",
});

const days = kind({
  ...TOLD.days,
  fields: daysSchema,
  fixed: NO_FIXED,
  check: daysFaults,
  bundle: { file: "days.json", form: "one" },
  stale: "nothing",
  seenBy: FIRM,
  editedBy: PLANNERS,
  onPhone: true,
  kept: "document",
});

const pick = kind({
  ...TOLD.pick,
  fields: pickSchema,
  // Whether it was taken from stock is set when it is made.
  fixed: z.object({
    name: z.string().max(200),
    partId: z.string().max(80).nullable().default(null),
    fromStock: z.boolean().default(false),
  }),
  bundle: { file: "picks.json", form: "list" },
  stale: "nothing",
  seenBy: FIRM,
  editedBy: CREWS,
  // Under an id that follows from the line: two people who pick one line pick it once.
  idByClient: true,
  comesBack: true,
  onPhone: true,
  kept: "document",
});

const safety = kind({
  ...TOLD.safety,
  fields: safetySchema,
  fixed: z.object({ siteId: uuid }),
  refs: { siteId: "site" },
  bundle: { file: "safety.json", form: "list" },
  stale: "nothing",
  seenBy: FIRM,
  editedBy: CREWS,
  idByClient: true,
  comesBack: true,
  onPhone: true,
  kept: "document",
});

const roof = kind({
  ...TOLD.roof,
  fields: roofSchema,
  fixed: z.object({ linkId: uuid }),
  check: roofFaults,
  refs: { linkId: "link", of: "roof" },
  bundle: { file: "roof.ndjson", form: "lines" },
  stale: "nothing",
  seenBy: FIRM,
  editedBy: CREWS,
  appendOnly: true,
  idByClient: true,
  onPhone: true,
  kept: "document",
});

const obstacle = kind({
  ...TOLD.obstacle,
  fields: obstacleRowSchema,
  fixed: NO_FIXED,
  check: obstacleFaults,
  bundle: { file: "obstacles.ndjson", form: "lines" },
  stale: "near",
  seenBy: FIRM,
  editedBy: CREWS,
  onPhone: true,
  kept: "columns",
});

const feature = kind({
  ...TOLD.feature,
  fields: featureFieldsSchema,
  fixed: NO_FIXED,
  bundle: { file: "features.ndjson", form: "lines" },
  stale: "near",
  seenBy: FIRM,
  editedBy: PLANNERS,
  onPhone: true,
  kept: "columns",
});

const photo = kind({
  ...TOLD.photo,
  fields: photoFieldsSchema,
  fixed: z.object({ mime: z.enum(["image/jpeg", "image/png", "image/webp"]) }),
  refs: { siteId: "site" },
  bundle: { file: "photos.json", form: "list", bytes: "photos" },
  stale: "nothing",
  seenBy: FIRM,
  editedBy: CREWS,
  idByClient: true,
  onPhone: true,
  kept: "columns",
});

/** A map of the user's own beneath the drawing. It stays behind when the job moves: its file is not the job's. */
const basemap = kind({
  ...TOLD.basemap,
  fields: basemapFieldsSchema,
  fixed: NO_FIXED,
  bundle: null,
  stale: "nothing",
  seenBy: PLANNERS,
  editedBy: PLANNERS,
  kept: "columns",
});

/** In the order in which rows can be written: what others name comes first. */
export const RECORDS = {
  job,
  brief,
  site,
  link,
  design,
  limits,
  hub,
  network,
  air,
  scan,
  wiring,
  unit,
  addresses,
  kit,
  days,
  pick,
  safety,
  roof,
  obstacle,
  feature,
  photo,
  basemap,
} as const;

/** Of an object without fields nothing, where Zod would say that it has none of any name. */
type Of<S extends z.ZodObject, Side extends "input" | "output"> = keyof S["shape"] extends never
  ? unknown
  : Side extends "input"
    ? z.input<S>
    : z.output<S>;
/** What people edit of a kind. */
export type FieldsOf<K extends KindName> = z.output<(typeof RECORDS)[K]["fields"]>;
export type FixedOf<K extends KindName> = Of<(typeof RECORDS)[K]["fixed"], "output">;
/** What making one takes: fields with a default, and what the program itself sets, may be left out. */
export type InputOf<K extends KindName> = z.input<(typeof RECORDS)[K]["fields"]> & Partial<Of<(typeof RECORDS)[K]["fixed"], "input">>;
/** A record as it travels. */
export type RowOf<K extends KindName> = Readonly<FieldsOf<K> & FixedOf<K> & { id: string; version: number }>;

const LIST: Record<string, Kind> = { ...(RECORDS as unknown as Record<KindName, Kind>) };

/** All kinds by name, in the order in which rows can be written. */
export const kinds = (): readonly (readonly [string, Kind])[] => Object.entries(LIST);

/** @throws RangeError when there is no such kind. */
export const kindOf = (name: string): Kind => {
  const found = Object.hasOwn(LIST, name) ? LIST[name] : undefined;
  if (found === undefined) throw new RangeError(`no kind of record is called ${name}`);
  return found;
};

/** The kind behind a name in addresses, or null. */
export const kindAt = (route: string): string | null => kinds().find(([, k]) => k.route === route && k.parent !== "none")?.[0] ?? null;

/** Adds a kind to the list while a test runs. @returns a function that takes it off again. */
export const withKind = (name: string, k: Kind): (() => void) => {
  const off = withTold(name, k);
  LIST[name] = k;
  return () => {
    off();
    delete LIST[name];
  };
};
