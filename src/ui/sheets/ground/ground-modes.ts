import type { FeatureDto, ObstacleDto, ObstacleFields } from "@/contract";
import type { LatLon } from "@/core/geo";
import type { MapMode } from "../../map/ground-map";

/** What the pointer does on the Ground sheet, and what can stand beside the drawing. */
export const MODES: readonly { mode: MapMode; name: string; hint: string; key: string }[] = [
  { mode: "look", name: "Look", hint: "Press a link, a site or an obstacle. Drag to move the sheet, wheel to zoom.", key: "L" },
  { mode: "place", name: "Place a site", hint: "Press where the site stands, or type its position.", key: "P" },
  { mode: "join", name: "Join two sites", hint: "Press the near end, then the far end; or choose both in the list.", key: "J" },
  { mode: "move", name: "Move a site", hint: "Drag a site to where it stands, or press it and type its position.", key: "M" },
  { mode: "draw", name: "Draw", hint: "Choose what it is, then press its corners on the drawing; press the last one twice.", key: "D" },
  { mode: "measure", name: "Measure", hint: "Distance, bearing, area, height and sun along a line.", key: "R" },
  { mode: "view", name: "See", hint: "What can be seen from a mount, over ground, roofs and trees.", key: "V" },
];
export const GROUND_KEYS = [
  ...MODES.map((m) => ({ keys: m.key, does: m.name })),
  { keys: "B, T, K, H", does: "Bring in, take out, known ground, history" },
  { keys: "F", does: "Fit the chosen link" },
  { keys: "Arrows, + and −", does: "Move and zoom, on the drawing" },
  { keys: "Esc", does: "Back to looking" },
];

export type Panel =
  | { readonly kind: "links" | "import" | "export" | "known" | "history" | "told" | "draw" }
  | { readonly kind: "site"; readonly siteId: string }
  | { readonly kind: "new"; readonly at: LatLon | null }
  /** `opened`: as it was before its corners were moved by hand. */
  | { readonly kind: "obstacle"; readonly row: ObstacleDto; readonly opened?: ObstacleDto }
  | { readonly kind: "drawn"; readonly fields: ObstacleFields }
  | { readonly kind: "feature"; readonly row: FeatureDto }
  | { readonly kind: "named"; readonly points: readonly LatLon[] };

export const DRAWERS = [
  { kind: "import", name: "Bring in", key: "B" },
  { kind: "export", name: "Take out", key: "T" },
  { kind: "known", name: "Known ground", key: "K" },
  { kind: "history", name: "History", key: "H" },
] as const;
