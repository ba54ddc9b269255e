import { sql } from "drizzle-orm";
import {
  bigint,
  bigserial,
  boolean,
  date,
  doublePrecision,
  index,
  integer,
  jsonb,
  pgTable,
  text,
  timestamp,
  uniqueIndex,
  uuid,
} from "drizzle-orm/pg-core";
import type { MountingPointFields, PolicyOver } from "../contract";
import type { Stands } from "../core/link";
import type { OwnRule, Permission } from "../core/radio";
import { bytea, geometry } from "./columns";

export const id = () => uuid().primaryKey().default(sql`gen_random_uuid()`);
/** Counts up with every edit; an edit must name the version it was made on. */
export const version = () => integer().notNull().default(1);
export const stamps = () => ({
  createdAt: timestamp("created_at", { withTimezone: true }).notNull().defaultNow(),
  updatedAt: timestamp("updated_at", { withTimezone: true }).notNull().defaultNow(),
  /** Nothing is deleted without a way back. */
  deletedAt: timestamp("deleted_at", { withTimezone: true }),
});

/** A firm: jobs, own hardware and own terrain belong to one. */
export const organisation = pgTable("organisation", {
  id: id(),
  name: text().notNull(),
  createdAt: timestamp("created_at", { withTimezone: true }).notNull().defaultNow(),
  updatedAt: timestamp("updated_at", { withTimezone: true }).notNull().defaultNow(),
});

/** Of the firm of whoever works; where nobody says, of the first there is. */
export const ofOrganisation = () =>
  uuid("organisation_id")
    .notNull()
    .default(sql`own_organisation()`)
    .references(() => organisation.id);

export const job = pgTable(
  "job",
  {
    id: id(),
    organisationId: ofOrganisation(),
    number: integer().notNull(),
    name: text().notNull(),
    place: text().notNull().default(""),
    stage: text().notNull().default("Enquiry"),
    visitOn: date("visit_on").notNull(),
    centreLatDeg: doublePrecision("centre_lat_deg").notNull(),
    centreLonDeg: doublePrecision("centre_lon_deg").notNull(),
    ruleDomain: text("rule_domain").notNull().default("cautious"),
    clearancePolicy: text("clearance_policy").notNull().default("sixty"),
    kFactor: doublePrecision("k_factor")
      .notNull()
      .default(4 / 3),
    /** Low k of the two-condition rule at 20, 50 and 100 km. */
    kLow20: doublePrecision("k_low_20").notNull().default(0.6),
    kLow50: doublePrecision("k_low_50").notNull().default(0.8),
    kLow100: doublePrecision("k_low_100").notNull().default(0.9),
    treePolicy: text("tree_policy").notNull().default("strict"),
    horizonYears: integer("horizon_years").notNull().default(5),
    throughputSchool: text("throughput_school").notNull().default("headroom"),
    freeShare: doublePrecision("free_share").notNull().default(0.3),
    marginDb: doublePrecision("margin_db").notNull().default(10),
    rainRate001MmH: doublePrecision("rain_rate_001_mm_h").notNull().default(30),
    temperatureC: doublePrecision("temperature_c").notNull().default(10),
    pressureHpa: doublePrecision("pressure_hpa").notNull().default(1013),
    vapourDensityGm3: doublePrecision("vapour_density_g_m3").notNull().default(7.5),
    climateZone: text("climate_zone").notNull().default("temperate"),
    leafState: text("leaf_state").notNull().default("in"),
    gradientDn1NPerKm: doublePrecision("gradient_dn1_n_per_km").notNull().default(-250),
    roughnessSaM: doublePrecision("roughness_sa_m"),
    waterSurface: text("water_surface").notNull().default("auto"),
    tideRangeM: doublePrecision("tide_range_m").notNull().default(0),
    waterRoughnessM: doublePrecision("water_roughness_m").notNull().default(0.05),
    /** Rule rows of its own. */
    /** Of IANA: the days of the job are those of its place. */
    timeZone: text("time_zone").notNull().default("UTC"),
    ownRules: jsonb("own_rules").$type<OwnRule[]>().notNull().default([]),
    /** Rises whenever anything of the job changes: what was computed from it is then stale. */
    revision: integer().notNull().default(1),
    version: version(),
    ...stamps(),
  },
  (t) => [uniqueIndex("job_number").on(t.organisationId, t.number)],
);

/** A far end's devices and everything else asked before a path is judged; its shape is checked at the door. */
export const brief = pgTable("brief", {
  jobId: uuid("job_id")
    .primaryKey()
    .references(() => job.id),
  doc: jsonb().notNull(),
  version: version(),
  ...stamps(),
});

export const site = pgTable(
  "site",
  {
    id: id(),
    jobId: uuid("job_id")
      .notNull()
      .references(() => job.id),
    name: text().notNull(),
    latDeg: doublePrecision("lat_deg").notNull(),
    lonDeg: doublePrecision("lon_deg").notNull(),
    mountAglM: doublePrecision("mount_agl_m").notNull(),
    mountMaxAglM: doublePrecision("mount_max_agl_m"),
    /** What a metre of mast costs here, in the customer's money; null when nobody said. */
    mastCostPerM: doublePrecision("mast_cost_per_m"),
    /** What its bracket is fixed to: wall, stiff pole, thin pole, tree; null when nobody said. */
    stands: text().$type<Stands>(),
    structure: text().notNull().default(""),
    power: text().notNull().default(""),
    material: text().notNull().default(""),
    cableEntry: text("cable_entry").notNull().default(""),
    access: text().notNull().default(""),
    owner: text().notNull().default(""),
    notes: text().notNull().default(""),
    /** Other places of the building where a bracket can go, besides the mount above. */
    mountingPoints: jsonb("mounting_points").$type<MountingPointFields[]>().notNull().default([]),
    /** What was looked at on the spot, by name of the tick. */
    ticks: jsonb().$type<string[]>().notNull().default([]),
    importId: uuid("import_id"),
    version: version(),
    ...stamps(),
  },
  (t) => [index("site_job").on(t.jobId)],
);

export const obstacle = pgTable(
  "obstacle",
  {
    id: id(),
    jobId: uuid("job_id")
      .notNull()
      .references(() => job.id),
    name: text().notNull(),
    kind: text().notNull(),
    outline: geometry({ type: "Polygon" }).notNull(),
    /** Null: it stands on the ground as the terrain in force has it. */
    baseAmslM: doublePrecision("base_amsl_m"),
    heightM: doublePrecision("height_m").notNull(),
    crownBaseM: doublePrecision("crown_base_m").notNull().default(0),
    growthMPerYear: doublePrecision("growth_m_per_year").notNull().default(0),
    heightSigmaM: doublePrecision("height_sigma_m").notNull(),
    /** Spans: free air below this height above ground. */
    freeBelowM: doublePrecision("free_below_m").notNull().default(0),
    species: text(),
    /** "deciduous" or "evergreen"; null where it is no tree or not known. */
    leaf: text(),
    source: text().notNull().default("drawn"),
    /** How the height came about: typed, like another, two sightings, imported, surface model. */
    heightSource: text("height_source").notNull().default("typed"),
    surveyedOn: date("surveyed_on").notNull(),
    importId: uuid("import_id"),
    version: version(),
    ...stamps(),
  },
  (t) => [index("obstacle_job").on(t.jobId), index("obstacle_import").on(t.importId), index("obstacle_outline").using("gist", t.outline)],
);

export const feature = pgTable(
  "feature",
  {
    id: id(),
    jobId: uuid("job_id")
      .notNull()
      .references(() => job.id),
    name: text().notNull(),
    shape: geometry({ type: "Geometry" }).notNull(),
    importId: uuid("import_id"),
    version: version(),
    ...stamps(),
  },
  (t) => [index("feature_job").on(t.jobId), index("feature_shape").using("gist", t.shape)],
);

export const link = pgTable(
  "link",
  {
    id: id(),
    jobId: uuid("job_id")
      .notNull()
      .references(() => job.id),
    number: integer().notNull(),
    nearSiteId: uuid("near_site_id")
      .notNull()
      .references(() => site.id),
    farSiteId: uuid("far_site_id")
      .notNull()
      .references(() => site.id),
    label: text().notNull().default(""),
    stage: text().notNull().default("Planned"),
    /** Ground told by hand in place of terrain; its shape is checked at the door. */
    groundTold: jsonb("ground_told"),
    version: version(),
    ...stamps(),
  },
  (t) => [uniqueIndex("link_number").on(t.jobId, t.number)],
);

export const design = pgTable(
  "design",
  {
    id: id(),
    linkId: uuid("link_id")
      .notNull()
      .references(() => link.id),
    /** One design of a link is in force; others are kept to compare with. */
    chosen: boolean().notNull().default(true),
    name: text().notNull().default(""),
    /** Where this link's policy differs from the job's. */
    policyOver: jsonb("policy_over").$type<PolicyOver>().notNull().default({}),
    nearMountAglM: doublePrecision("near_mount_agl_m").notNull(),
    farMountAglM: doublePrecision("far_mount_agl_m").notNull(),
    /** A mounting point of the site; null is the site's own mount. */
    nearMountId: text("near_mount_id"),
    farMountId: text("far_mount_id"),
    /** Data sheets by their ids; that there are such sheets is held by a trigger: a sheet may be the firm's or a shipped one. */
    nearRadioId: text("near_radio_id").notNull(),
    farRadioId: text("far_radio_id").notNull(),
    nearAntennaId: text("near_antenna_id"),
    farAntennaId: text("far_antenna_id"),
    nearPowerDbm: doublePrecision("near_power_dbm").notNull(),
    farPowerDbm: doublePrecision("far_power_dbm").notNull(),
    nearFeederLossDb: doublePrecision("near_feeder_loss_db").notNull().default(0),
    farFeederLossDb: doublePrecision("far_feeder_loss_db").notNull().default(0),
    nearConnectorLossDb: doublePrecision("near_connector_loss_db").notNull().default(0),
    farConnectorLossDb: doublePrecision("far_connector_loss_db").notNull().default(0),
    /** Null in the open air; a material, "measured" or "unknown". */
    nearWall: text("near_wall"),
    farWall: text("far_wall"),
    nearWallLossDb: doublePrecision("near_wall_loss_db"),
    farWallLossDb: doublePrecision("far_wall_loss_db"),
    nearInterferenceDbm: doublePrecision("near_interference_dbm"),
    farInterferenceDbm: doublePrecision("far_interference_dbm"),
    /** Null: pointed true at the other end. */
    nearAimAzimuthDeg: doublePrecision("near_aim_azimuth_deg"),
    farAimAzimuthDeg: doublePrecision("far_aim_azimuth_deg"),
    nearAimTiltDeg: doublePrecision("near_aim_tilt_deg"),
    farAimTiltDeg: doublePrecision("far_aim_tilt_deg"),
    frameShareToFar: doublePrecision("frame_share_to_far"),
    centreMhz: doublePrecision("centre_mhz").notNull(),
    widthMhz: doublePrecision("width_mhz").notNull(),
    needToFarMbps: doublePrecision("need_to_far_mbps"),
    needToNearMbps: doublePrecision("need_to_near_mbps"),
    /** Obstacle id to height above ground after a planned cut, metres. */
    trimsM: jsonb("trims_m").$type<Record<string, number>>().notNull().default({}),
    /** Share of the year in which the need is to be kept, per cent. */
    needYearPercent: doublePrecision("need_year_percent").notNull().default(99.9),
    /** Ethernet port the cable goes into, by its place on the sheet; null: the powered one. */
    nearPort: integer("near_port"),
    farPort: integer("far_port"),
    /** Permissions on record: kind, holder, number, place, channel, EIRP, days, note. */
    permissions: jsonb().$type<Permission[]>().notNull().default([]),
    version: version(),
    ...stamps(),
  },
  (t) => [index("design_link").on(t.linkId)],
);

export const photo = pgTable(
  "photo",
  {
    id: id(),
    jobId: uuid("job_id")
      .notNull()
      .references(() => job.id),
    siteId: uuid("site_id").references(() => site.id),
    /** Where it was taken from: antenna height, ground, inside, other. */
    fromWhere: text("from_where").notNull(),
    bearingDeg: doublePrecision("bearing_deg"),
    takenOn: date("taken_on"),
    note: text().notNull().default(""),
    mime: text().notNull(),
    bytes: bytea().notNull(),
    version: version(),
    ...stamps(),
  },
  (t) => [index("photo_job").on(t.jobId)],
);

/** What was changed, before and after, so that it can be read back and undone. */
export const change = pgTable(
  "change",
  {
    id: bigserial({ mode: "number" }).primaryKey(),
    jobId: uuid("job_id").references(() => job.id),
    /** Whose catalogue it was, where it is of no job. */
    organisationId: ofOrganisation(),
    entity: text().notNull(),
    entityId: text("entity_id").notNull(),
    action: text().notNull(),
    before: jsonb(),
    after: jsonb(),
    /** The browser that made it, so that it can undo its own. */
    clientId: text("client_id"),
    /** The person that made it; null: whoever sits at this machine, or the program. */
    personId: uuid("person_id"),
    /** Their name as it then was. */
    personName: text("person_name"),
    /** The edit that this one takes back or does again. */
    undoes: bigint({ mode: "number" }),
    undone: boolean().notNull().default(false),
    /** Edits that were made as one step share this; null stands alone. */
    step: uuid(),
    at: timestamp({ withTimezone: true }).notNull().defaultNow(),
  },
  (t) => [index("change_job").on(t.jobId, t.id)],
);
