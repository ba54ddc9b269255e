import type OlMap from "ol/Map";
import type { LatLon } from "@/core/geo";
import type { GroundMapEvents } from "./ground-map-types";
import type { Tokens } from "./styles";

/** What the parts of the plan drawing share: the map itself, its plane, its colours, and who is told. */
export interface GroundPlan {
  readonly map: OlMap;
  readonly target: HTMLElement;
  readonly jobId: string;
  readonly crs: string;
  /** Where the job was made. */
  readonly centre: LatLon;
  readonly toPlane: (p: LatLon) => [number, number];
  readonly fromPlane: (x: number, y: number) => LatLon;
  readonly tokens: () => Tokens;
  readonly events: GroundMapEvents;
}
