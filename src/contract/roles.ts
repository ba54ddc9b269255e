/** What a person is in a firm. */
export const ROLES = ["owner", "planner", "installer", "viewer", "customer"] as const;
export type Role = (typeof ROLES)[number];

/** Sheets of a job, by the names they have in addresses. */
export const SHEET_NAMES = ["brief", "ground", "section", "gear", "load", "hub", "air", "wiring", "kit"] as const;
export type SheetName = (typeof SHEET_NAMES)[number];
/** Sheets that somebody may have open: those that a customer may be given, and the firm's own. */
export const OPEN_SHEETS = [...SHEET_NAMES, "pack", "roof"] as const;
export type OpenSheet = (typeof OPEN_SHEETS)[number];

/** Who sees what things cost. */
export const seesPrices = (role: Role): boolean => role === "owner" || role === "planner";
