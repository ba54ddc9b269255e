import type { Kind } from "./kind";
import type { Role, SheetName } from "./roles";
import type { KindName } from "./told";

/** Kinds of record that each sheet is made of. */
export const SHEET_READS: Readonly<Record<SheetName, readonly KindName[]>> = {
  brief: ["brief", "site", "link", "design", "photo", "job"],
  ground: ["site", "link", "design", "obstacle", "feature", "basemap", "job"],
  section: ["link", "design", "site", "obstacle", "job"],
  gear: ["design", "limits", "site", "link", "job"],
  hub: ["hub", "design", "site", "link", "job"],
  load: ["network", "brief", "hub", "design", "site", "link", "job"],
  air: ["air", "scan", "hub", "network", "brief", "design", "site", "link", "job"],
  wiring: ["wiring", "unit", "addresses", "network", "brief", "hub", "design", "site", "link", "job"],
  kit: ["kit", "days", "pick", "safety", "wiring", "brief", "design", "site", "link", "job"],
};

/** Whether somebody may see a kind. @param sheets the sheets that a customer was given; null for everybody else. */
export const seesKind = (name: string, k: Pick<Kind, "seenBy">, role: Role, sheets: readonly SheetName[] | null): boolean =>
  role === "customer" ? (sheets ?? []).some((s) => (SHEET_READS[s] as readonly string[]).includes(name)) : k.seenBy.includes(role);
