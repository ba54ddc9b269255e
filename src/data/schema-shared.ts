import { sql } from "drizzle-orm";
import { boolean, doublePrecision, integer, jsonb, pgTable, primaryKey, text, uuid } from "drizzle-orm/pg-core";
import { bytea, geometry } from "./columns";
import { id, stamps, version } from "./schema";

/* What the jobs of a firm share: ground and data sheets, the firm's own and those that ship with the program. */

/** What ships stands under the name of no firm. */
export const NO_FIRM = "00000000-0000-0000-0000-000000000000";

/** Of the firm of whoever works, or shipped: then of none. */
const ofShared = () => uuid("organisation_id").notNull().default(sql`own_organisation()`);

/** A height grid in its own coordinate system. Units of x and y are the system's. */
export const terrainDataset = pgTable("terrain_dataset", {
  id: id(),
  organisationId: ofShared(),
  name: text().notNull(),
  kind: text().notNull(),
  crs: text().notNull(),
  originX: doublePrecision("origin_x").notNull(),
  originY: doublePrecision("origin_y").notNull(),
  stepX: doublePrecision("step_x").notNull(),
  stepY: doublePrecision("step_y").notNull(),
  cols: integer().notNull(),
  rows: integer().notNull(),
  cellM: doublePrecision("cell_m").notNull(),
  sigmaM: doublePrecision("sigma_m").notNull(),
  tileCells: integer("tile_cells").notNull(),
  /** proj definition of a system beyond EPSG:4326 and the UTM zones. */
  crsDefinition: text("crs_definition"),
  /** Datum the heights came in; the offset was added to bring them to mean sea level. */
  verticalDatum: text("vertical_datum").notNull(),
  datumOffsetM: doublePrecision("datum_offset_m").notNull().default(0),
  verticalUnit: text("vertical_unit").notNull().default("m"),
  source: text().notNull(),
  /** False while its tiles are being written: nothing sees it. */
  ready: boolean().notNull().default(true),
  importId: uuid("import_id"),
  coverage: geometry({ type: "Polygon" }).notNull(),
  version: version(),
  ...stamps(),
});

export const terrainTile = pgTable(
  "terrain_tile",
  {
    datasetId: uuid("dataset_id")
      .notNull()
      .references(() => terrainDataset.id),
    tileRow: integer("tile_row").notNull(),
    tileCol: integer("tile_col").notNull(),
    /** Little-endian 32-bit floats, (tile_cells + 1) squared, heights in metres, NaN where none. */
    heightsM: bytea("heights_m").notNull(),
  },
  (t) => [primaryKey({ columns: [t.datasetId, t.tileRow, t.tileCol] })],
);

/** Catalogue rows keep their data sheet whole; its shape is checked at the door. */
const sheet = () => ({
  id: text().notNull(),
  organisationId: ofShared(),
  name: text().notNull(),
  sheet: jsonb().notNull(),
  source: text().notNull(),
  /** The import that brought it; taken away with it. */
  importId: uuid("import_id"),
  version: version(),
  ...stamps(),
});

export const radio = pgTable(
  "radio",
  {
    ...sheet(),
    bandKey: text("band_key").notNull(),
    family: text().notNull(),
  },
  (t) => [primaryKey({ columns: [t.organisationId, t.id] })],
);

export const antenna = pgTable("antenna", sheet(), (t) => [primaryKey({ columns: [t.organisationId, t.id] })]);

/** What is wired beside the radios. */
export const part = pgTable(
  "part",
  {
    ...sheet(),
    kind: text().notNull(),
  },
  (t) => [primaryKey({ columns: [t.organisationId, t.id] })],
);
