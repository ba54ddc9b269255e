import { Attribution, ScaleLine, Zoom } from "ol/control";
import { boundingExtent, buffer } from "ol/extent";
import OlMap from "ol/Map";
import { register } from "ol/proj/proj4";
import View from "ol/View";
import proj4 from "proj4";
import { type LatLon, planeProjection, projDefinition } from "@/core/geo";
import type { GroundMap, GroundMapEvents } from "./ground-map-types";
import { createOverlays } from "./ground-overlays";
import type { GroundPlan } from "./ground-plan";
import { createGroundPointer } from "./ground-pointer";
import { createGroundReader, groundLayers } from "./ground-reader";
import { createGroundSites, siteLayers } from "./ground-sites";
import { createTools } from "./ground-tools";
import { tokens } from "./styles";

/** Over a map of the user's own the ground's tints are a veil. */
const SHADE_OVER_MAP = 0.35;

export type { GroundMap, GroundMapEvents, MapMode } from "./ground-map-types";

/** The plan drawing: own terrain, obstacles, sites and links. Everything it shows comes from this machine. */
export const createGroundMap = (
  target: HTMLElement,
  jobId: string,
  crs: string,
  centre: LatLon,
  fitLinkFirst: boolean,
  events: GroundMapEvents,
): GroundMap => {
  proj4.defs(crs, projDefinition(crs));
  register(proj4);
  const projection = planeProjection(crs);
  const toPlane = (p: LatLon): [number, number] => projection.forward(p);
  let t = tokens();
  const colours = (): typeof t => t;
  const layers = { ...groundLayers({ jobId, crs, tokens: colours }), ...siteLayers() };
  const overlays = createOverlays(colours, crs, toPlane);
  const scaleLine = new ScaleLine({ bar: false, minWidth: 60, maxWidth: 150 });
  const { shade, contours, obstacles, tiles, grid, links, reach, sites } = layers;
  const map = new OlMap({
    target,
    layers: [...overlays.below, shade, grid.layer, contours, tiles.layer, obstacles, ...overlays.above, links, reach, sites],
    controls: [new Attribution({ collapsible: false }), new Zoom(), scaleLine],
    view: new View({
      projection: crs,
      center: toPlane(centre),
      resolution: 2,
      minResolution: 0.1,
      maxResolution: 120,
      constrainResolution: false,
      enableRotation: false,
    }),
  });
  const plan: GroundPlan = {
    map,
    target,
    jobId,
    crs,
    centre,
    toPlane,
    fromPlane: (x, y) => projection.inverse(x, y),
    tokens: colours,
    events,
  };
  const tools = createTools(map, colours, toPlane, plan.fromPlane, [obstacles, sites], events);
  map.addLayer(tools.layer);
  const reader = createGroundReader(plan, layers, overlays);
  const drawn = createGroundSites(plan, layers);
  const pointer = createGroundPointer(plan, layers, overlays, reader, drawn);
  let fitted = false;
  // To the right a panel may lie over the drawing.
  const toExtent: GroundMap["fit"] = (extent) => map.getView().fit(buffer(extent, 50), { padding: [60, 140, 60, 60], minResolution: 0.4 });

  return {
    setData: (next) => {
      drawn.set(next);
      if (!fitted && next.sites.length > 0) {
        fitted = true;
        drawn.show(fitLinkFirst ? "link" : "cluster");
        reader.ask();
      }
    },
    setMode: pointer.setMode,
    showSites: drawn.show,
    tools,
    overlays,
    setBasemap: (credit, version) => shade.setOpacity(overlays.setBasemap(jobId, credit, version) ? SHADE_OVER_MAP : 1),
    reload: () => {
      tiles.again();
      reader.ask();
    },
    extent: () => map.getView().calculateExtent(map.getSize()) as [number, number, number, number],
    fit: toExtent,
    fitPlaces: (places) => {
      if (places.length > 0) toExtent(boundingExtent(places.map(toPlane)) as [number, number, number, number]);
    },
    setUnits: (units) => {
      scaleLine.setUnits(units);
      reader.relief.setUnits(units);
    },
    restyle: () => {
      t = tokens();
      tools.restyle();
      overlays.restyle();
      reader.relief.repaint();
      tiles.restyle();
      drawn.draw();
      reader.ask();
    },
    dispose: () => {
      reader.stop();
      map.setTarget(undefined);
    },
  };
};
