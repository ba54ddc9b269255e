import type { FeatureLike } from "ol/Feature";
import type Point from "ol/geom/Point";
import type Polygon from "ol/geom/Polygon";
import Translate from "ol/interaction/Translate";
import type MapBrowserEvent from "ol/MapBrowserEvent";
import { type ObstacleDto, recordPath } from "@/contract";
import { getJson } from "../api/client";
import type { MapMode } from "./ground-map-types";
import type { GroundOverlays } from "./ground-overlays";
import type { GroundPlan } from "./ground-plan";
import type { GroundLayers, GroundReader } from "./ground-reader";
import type { GroundSites, SiteLayers } from "./ground-sites";

const HIT_PX = 8;

/** What a press, a move and a drag of the pointer do on the plan, in each mode. */
export const createGroundPointer = (
  plan: GroundPlan,
  layers: GroundLayers & SiteLayers,
  overlays: GroundOverlays,
  reader: GroundReader,
  drawn: GroundSites,
) => {
  const { map, target, jobId, fromPlane, events } = plan;
  const { sites, links, obstacles, tiles } = layers;
  let mode: MapMode = "look";

  const hit = (pixel: number[], key: "siteId" | "linkId"): string | null => {
    let found: string | null = null;
    map.forEachFeatureAtPixel(
      pixel,
      (feature: FeatureLike) => {
        const value = feature.get(key) as string | undefined;
        if (value !== undefined) found ??= value;
        return found !== null;
      },
      { hitTolerance: HIT_PX, layerFilter: (layer) => layer === (key === "siteId" ? sites : links) },
    );
    return found;
  };

  /** An obstacle, or a piece of named ground. */
  const pressDrawn = ({ coordinate, pixel }: MapBrowserEvent): void => {
    const inTile = tiles.at(map, pixel);
    if (inTile !== null) {
      getJson<ObstacleDto>(recordPath(jobId, "obstacle", inTile)).then(events.onObstacle, events.onTrouble);
      return;
    }
    // Of obstacles that lie over each other the smallest is meant.
    const under = (obstacles.getSource()?.getFeaturesAtCoordinate(coordinate) ?? []).sort(
      (a, b) => (a.getGeometry() as Polygon).getArea() - (b.getGeometry() as Polygon).getArea(),
    );
    const pressed = reader.obstacle(under[0]?.get("obstacleId") as string | undefined);
    if (pressed !== undefined) {
      events.onObstacle(pressed);
      return;
    }
    const near = map.getFeaturesAtPixel(pixel, { hitTolerance: HIT_PX, layerFilter: (l) => overlays.above.includes(l as never) });
    const ground = reader.feature(near.find((f) => f.get("featureId") !== undefined)?.get("featureId") as string | undefined);
    if (ground !== undefined) events.onFeature(ground);
  };

  map.on("singleclick", (event) => {
    if (mode === "draw" || mode === "measure" || mode === "edit" || mode === "cut") return;
    if (mode === "place") {
      events.onPlace(fromPlane(event.coordinate[0]!, event.coordinate[1]!));
      return;
    }
    const siteId = hit(event.pixel, "siteId");
    if (siteId !== null) {
      events.onSite(siteId);
      return;
    }
    if (mode !== "look") return;
    const linkId = hit(event.pixel, "linkId");
    if (linkId !== null) events.onLink(linkId);
    else pressDrawn(event);
  });

  map.on("pointermove", (event) => {
    const from = drawn.joinFromId();
    if (mode === "join" && from !== null) {
      const siteId = hit(event.pixel, "siteId");
      drawn.reachTo(drawn.positionOf(from), siteId === null ? (event.coordinate as [number, number]) : drawn.positionOf(siteId));
    }
    target.style.cursor =
      mode === "place" || mode === "draw" || mode === "measure" || mode === "cut"
        ? "crosshair"
        : hit(event.pixel, "siteId") !== null || (mode === "look" && hit(event.pixel, "linkId") !== null)
          ? "pointer"
          : "";
  });

  const translate = new Translate({ layers: [sites], hitTolerance: HIT_PX });
  translate.setActive(false);
  translate.on("translating", (event) => {
    const feature = event.features.item(0);
    const siteId = feature.get("siteId") as string;
    drawn.reachTo(
      drawn.positionOf(drawn.acrossFrom(siteId) ?? siteId),
      (feature.getGeometry() as Point).getCoordinates() as [number, number],
    );
  });
  translate.on("translateend", (event) => {
    const feature = event.features.item(0);
    const to = (feature.getGeometry() as Point).getCoordinates() as [number, number];
    drawn.reachTo(null, null);
    events.onMoved(feature.get("siteId") as string, fromPlane(...to));
  });
  map.addInteraction(translate);

  return {
    setMode: (next: MapMode): void => {
      mode = next;
      translate.setActive(next === "move");
      drawn.reachTo(null, null);
    },
  };
};
