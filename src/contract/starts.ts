/* Plain values that both the schemas and the browser need, apart from the schemas. */

/** What a new site starts with where nothing is typed. */
export const SITE_START = {
  mountMaxAglM: null,
  mastCostPerM: null,
  stands: null,
  structure: "",
  power: "",
  material: "",
  cableEntry: "",
  access: "",
  owner: "",
  notes: "",
  mountingPoints: [],
  ticks: [],
};

/** Stage of a link whose design was chosen for it to start with. */
export const FIRST_STAGE = "First design";

/** A file goes up in pieces of this size. */
export const PIECE_BYTES = 4_000_000;

/** Permissions that a job may need. */
export const PERMISSIONS = [
  "landlord",
  "planning",
  "heritage",
  "tree-owner",
  "line-terms",
  "privacy",
  "controls",
  "supplies",
  "heights",
  "mains",
  "roadside",
] as const;

/** A mount that nothing is known of stands at the eaves of a house. */
export const FIRST_MOUNT_M = 6;
