import { z } from "zod";
import { briefSchema } from "./brief";
import { basemapFieldsSchema, featureFieldsSchema, obstacleFaults, obstacleRowSchema, photoFieldsSchema } from "./ground";
import { type Kind, kind, NO_FIXED, ROLES } from "./kind";
import { designFieldsSchema, groundToldSchema, jobFieldsSchema, siteFieldsSchema, uuid } from "./schemas";

/*
 * Everything that people edit, declared once. History, undo, bundles, the two routes, news, queries and the store of the
 * browser walk this list: what is said of a kind here holds in all of them.
 */

/** All who see a kind may edit it, take it back and bring it in. */
const EVERYBODY = ROLES;
const PLANNERS = ["owner", "planner"] as const;
const CREWS = ["owner", "planner", "crew"] as const;

const job = kind({
  parent: "none",
  many: true,
  route: "jobs",
  fields: jobFieldsSchema,
  fixed: z.object({ number: z.number().int() }),
  words: {
    one: "basis of the job",
    many: "jobs",
    fields: {
      name: "name",
      place: "place",
      stage: "stage",
      visitOn: "day of visit",
      centreLatDeg: "centre",
      centreLonDeg: "centre",
      ruleDomain: "rules",
      clearancePolicy: "clearance policy",
      kFactor: "k",
      kLow20: "low k at 20 km",
      kLow50: "low k at 50 km",
      kLow100: "low k at 100 km",
      treePolicy: "tree policy",
      leafState: "leaves",
      horizonYears: "horizon",
      throughputSchool: "throughput school",
      freeShare: "free share",
      marginDb: "margin",
      rainRate001MmH: "rain rate",
      temperatureC: "temperature",
      pressureHpa: "pressure",
      vapourDensityGm3: "vapour",
      climateZone: "climate",
      gradientDn1NPerKm: "dN1",
      roughnessSaM: "terrain roughness",
      waterSurface: "water",
      tideRangeM: "tide range",
      waterRoughnessM: "waves",
    },
  },
  bundle: { file: "job.json", form: "one" },
  stale: "job",
  seenBy: EVERYBODY,
  onPhone: true,
  kept: "columns",
});

const brief = kind({
  parent: "job",
  many: false,
  route: "brief",
  fields: briefSchema,
  fixed: NO_FIXED,
  words: {
    one: "brief",
    many: "briefs",
    fields: {
      customer: "customer",
      contact: "contact",
      purpose: "purpose",
      devices: "devices",
      recorder: "recorder",
      feed: "feed",
      source: "source",
      wifiChannels: "Wi-Fi channels",
      shapes: "shapes compared",
      inventory: "what is there",
      oldFailure: "why the old link failed",
      oldFailureNote: "note on the old link",
      photoRequests: "photos asked for",
      permissions: "permissions",
    },
  },
  bundle: { file: "brief.json", form: "one" },
  stale: "nothing",
  seenBy: CREWS,
  onPhone: true,
  kept: "columns",
});

const site = kind({
  parent: "job",
  many: true,
  route: "sites",
  fields: siteFieldsSchema,
  fixed: NO_FIXED,
  words: {
    one: "site",
    many: "sites",
    fields: {
      name: "name",
      latDeg: "position",
      lonDeg: "position",
      mountAglM: "mount height",
      mountMaxAglM: "highest mount",
      mastCostPerM: "cost of mast",
      structure: "structure",
      power: "power",
      material: "material",
      cableEntry: "cable entry",
      access: "access",
      owner: "owner",
      notes: "notes",
      mountingPoints: "mounting points",
      ticks: "what was looked at",
    },
  },
  bundle: { file: "sites.json", form: "list" },
  stale: "site",
  seenBy: CREWS,
  prices: ["mastCostPerM"],
  onPhone: true,
  kept: "columns",
});

const link = kind({
  parent: "job",
  many: true,
  route: "links",
  fields: z.object({
    label: z.string().trim().max(80, "the label must be 80 letters or fewer").default(""),
    stage: z.string().trim().max(80, "the stage must be 80 letters or fewer").default("Planned"),
    groundTold: groundToldSchema.nullable().default(null),
  }),
  fixed: z.object({ number: z.number().int().min(1), nearSiteId: uuid, farSiteId: uuid }),
  refs: { nearSiteId: "site", farSiteId: "site" },
  words: { one: "link", many: "links", fields: { label: "label", stage: "stage", groundTold: "told ground" } },
  bundle: { file: "links.json", form: "list" },
  stale: "link",
  seenBy: CREWS,
  onPhone: true,
  kept: "columns",
});

const design = kind({
  parent: "link",
  many: true,
  route: "designs",
  fields: designFieldsSchema,
  fixed: z.object({ linkId: uuid, chosen: z.boolean(), name: z.string().max(40).default("") }),
  refs: { linkId: "link" },
  words: {
    one: "design",
    many: "designs",
    fields: {
      nearMountAglM: "near mount",
      farMountAglM: "far mount",
      nearMountId: "near mounting point",
      farMountId: "far mounting point",
      nearRadioId: "near radio",
      farRadioId: "far radio",
      nearAntennaId: "near antenna",
      farAntennaId: "far antenna",
      nearPowerDbm: "near power",
      farPowerDbm: "far power",
      nearFeederLossDb: "near feeder loss",
      farFeederLossDb: "far feeder loss",
      nearConnectorLossDb: "near connector loss",
      farConnectorLossDb: "far connector loss",
      nearWall: "near wall",
      farWall: "far wall",
      nearWallLossDb: "near wall loss",
      farWallLossDb: "far wall loss",
      nearInterferenceDbm: "near interference",
      farInterferenceDbm: "far interference",
      nearAimAzimuthDeg: "near azimuth",
      farAimAzimuthDeg: "far azimuth",
      nearAimTiltDeg: "near tilt",
      farAimTiltDeg: "far tilt",
      frameShareToFar: "share of the frame",
      centreMhz: "channel",
      widthMhz: "width",
      needToFarMbps: "need to far",
      needToNearMbps: "need to near",
      trimsM: "planned cuts",
      needYearPercent: "share of the year",
      nearPort: "near port",
      farPort: "far port",
      permissions: "permissions",
      policyOver: "policy of this link",
    },
  },
  bundle: { file: "links.json", form: "within" },
  stale: "link",
  seenBy: CREWS,
  onPhone: true,
  kept: "columns",
});

const obstacle = kind({
  parent: "job",
  many: true,
  route: "obstacles",
  fields: obstacleRowSchema,
  fixed: NO_FIXED,
  check: obstacleFaults,
  words: {
    one: "obstacle",
    many: "obstacles",
    fields: {
      name: "name",
      kind: "kind",
      outline: "outline",
      holes: "courtyards",
      baseAmslM: "foot",
      heightM: "height",
      crownBaseM: "foot of the crown",
      freeBelowM: "free air",
      growthMPerYear: "growth",
      heightSigmaM: "error of the height",
      species: "species",
      leaf: "leaves",
      source: "source",
      heightSource: "where the height is from",
      surveyedOn: "day of the survey",
    },
  },
  bundle: { file: "obstacles.ndjson", form: "lines" },
  stale: "near",
  seenBy: CREWS,
  onPhone: true,
  kept: "columns",
});

const feature = kind({
  parent: "job",
  many: true,
  route: "features",
  fields: featureFieldsSchema,
  fixed: NO_FIXED,
  words: { one: "named ground", many: "named ground", fields: { name: "name", points: "line" } },
  bundle: { file: "features.ndjson", form: "lines" },
  stale: "near",
  seenBy: CREWS,
  onPhone: true,
  kept: "columns",
});

const photo = kind({
  parent: "job",
  many: true,
  route: "photos",
  fields: photoFieldsSchema,
  fixed: z.object({ mime: z.enum(["image/jpeg", "image/png", "image/webp"]) }),
  refs: { siteId: "site" },
  words: {
    one: "photo",
    many: "photos",
    fields: { siteId: "site", fromWhere: "where from", bearingDeg: "bearing", takenOn: "day", note: "note" },
  },
  bundle: { file: "photos.json", form: "list", bytes: "photos" },
  stale: "nothing",
  seenBy: CREWS,
  idByClient: true,
  onPhone: true,
  kept: "columns",
});

/** A map of the user's own beneath the drawing. It stays behind when the job moves: its file is not the job's. */
const basemap = kind({
  parent: "job",
  many: true,
  route: "basemaps",
  fields: basemapFieldsSchema,
  fixed: NO_FIXED,
  words: {
    one: "map beneath the drawing",
    many: "maps",
    fields: { kind: "kind", name: "name", address: "address", uploadId: "file", credit: "credit" },
  },
  bundle: null,
  stale: "nothing",
  seenBy: PLANNERS,
  kept: "columns",
});

/** In the order in which rows can be written: what others name comes first. */
export const RECORDS = { job, brief, site, link, design, obstacle, feature, photo, basemap } as const;

export type KindName = keyof typeof RECORDS;
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

export const isKind = (name: string): boolean => Object.hasOwn(LIST, name);

/** @throws RangeError when there is no such kind. */
export const kindOf = (name: string): Kind => {
  const found = isKind(name) ? LIST[name] : undefined;
  if (found === undefined) throw new RangeError(`no kind of record is called ${name}`);
  return found;
};

/** The kind behind a name in addresses, or null. */
export const kindAt = (route: string): string | null => kinds().find(([, k]) => k.route === route && k.parent !== "none")?.[0] ?? null;

/** Where a record of a job is edited. */
export const recordPath = (jobId: string, kind: string, id: string): string => {
  const k = kindOf(kind);
  if (k.parent === "none") return `/api/jobs/${jobId}`;
  return `/api/jobs/${jobId}/${k.route}${k.many ? `/${id}` : ""}`;
};

/** Adds a kind to the list while a test runs. @returns a function that takes it off again. */
export const withKind = (name: string, k: Kind): (() => void) => {
  if (isKind(name)) throw new RangeError(`${name} is on the list already`);
  LIST[name] = k;
  return () => {
    delete LIST[name];
  };
};
