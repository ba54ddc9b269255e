import type { FeatureDto, LinkVerdict, ObstacleDto, SiteDto } from "@/contract";
import type { LatLon } from "@/core/geo";
import type { Units } from "../wording/numbers";
import type { GroundOverlays } from "./ground-overlays";
import type { GroundToolEvents, GroundTools } from "./ground-tools";

export type MapMode = "look" | "place" | "join" | "move" | "draw" | "measure" | "view" | "edit" | "cut";

export interface GroundMapEvents {
  readonly onLink: (linkId: string) => void;
  readonly onSite: (siteId: string) => void;
  readonly onPlace: (at: LatLon) => void;
  readonly onMoved: (siteId: string, at: LatLon) => void;
  /** While a site is dragged or a link drawn: from where to where. */
  readonly onReach: (from: LatLon | null, to: LatLon | null) => void;
  readonly onKnowledge: (datasets: readonly { name: string; cellM: number; sigmaM: number; leftOut: boolean }[], intervalM: number) => void;
  readonly onTrouble: (error: unknown) => void;
  /** An obstacle, or a piece of named ground, was pressed. */
  readonly onObstacle: (obstacle: ObstacleDto) => void;
  readonly onFeature: (feature: FeatureDto) => void;
  /** Everything drawn in view, each time it is read. */
  /** @param total how many there are in view: more than are drawn where they are too many. */
  readonly onObstacles: (obstacles: readonly ObstacleDto[], total: number) => void;
  readonly onDrawn: GroundToolEvents["onDrawn"];
  readonly onMeasured: GroundToolEvents["onMeasured"];
  readonly onOutline: GroundToolEvents["onOutline"];
}

export interface GroundMapData {
  readonly sites: readonly SiteDto[];
  readonly verdicts: readonly LinkVerdict[];
  readonly links: readonly { id: string; nearSiteId: string; farSiteId: string }[];
  readonly selectedLinkId: string | null;
  readonly joinFromId: string | null;
}

export interface GroundMap {
  readonly setData: (data: GroundMapData) => void;
  readonly setMode: (mode: MapMode) => void;
  /** Shows the chosen link, the sites about the job's centre, or all sites. */
  readonly showSites: (which?: "link" | "cluster" | "all") => void;
  readonly restyle: () => void;
  /** Scale line and heights on contours in the person's units. */
  readonly setUnits: (units: Units) => void;
  readonly tools: GroundTools;
  readonly overlays: GroundOverlays;
  /** Lays a map of the user's own beneath, or takes it away (null credit). */
  readonly setBasemap: (credit: string | null, version: string) => void;
  /** Reads ground and obstacles again: something of them changed. */
  readonly reload: () => void;
  /** The part of the plan in view: west, south, east, north. */
  readonly extent: () => [number, number, number, number];
  readonly fit: (extent: [number, number, number, number]) => void;
  /** Brings all of some places into view. */
  readonly fitPlaces: (places: readonly LatLon[]) => void;
  readonly dispose: () => void;
}
