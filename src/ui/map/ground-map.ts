import { type Remote, wrap } from "comlink";
import { Attribution, ScaleLine, Zoom } from "ol/control";
import { boundingExtent, buffer } from "ol/extent";
import Feature, { type FeatureLike } from "ol/Feature";
import LineString from "ol/geom/LineString";
import Point from "ol/geom/Point";
import Polygon from "ol/geom/Polygon";
import Translate from "ol/interaction/Translate";
import ImageLayer from "ol/layer/Image";
import VectorLayer from "ol/layer/Vector";
import VectorImageLayer from "ol/layer/VectorImage";
import OlMap from "ol/Map";
import { register } from "ol/proj/proj4";
import type ImageStatic from "ol/source/ImageStatic";
import VectorSource from "ol/source/Vector";
import { Circle, Fill, Stroke, Style } from "ol/style";
import View from "ol/View";
import proj4 from "proj4";
import { type DrawnDto, type FeatureDto, latLons, type ObstacleDto, recordPath } from "@/contract";
import { type LatLon, planeProjection, projDefinition } from "@/core/geo";
import { contourStepM } from "@/core/terrain";
import type { ReliefWorker } from "@/workers/messages";
import { getJson, postForBinary } from "../api/client";
import { createGrid } from "./ground-grid";
import type { GroundMap, GroundMapData, GroundMapEvents, MapMode } from "./ground-map-types";
import { createOverlays } from "./ground-overlays";
import { createTools } from "./ground-tools";
import { createObstacleTiles } from "./obstacle-tiles";
import { createReliefPainter } from "./relief-painter";
import { linkStyles, obstacleStyle, siteStyle, tokens, typedPlaceStyle } from "./styles";

const PX_PER_CELL = 2;
const MOST_CELLS = 600;
/** Up to so many obstacles in view are read whole, to snap to and to choose from; more are drawn as tiles. */
const MOST_WHOLE = 1500;
const MOST_RESOLUTION_FOR_OBSTACLES = 6;
/** Over a map of the user's own the ground's tints are a veil. */
const SHADE_OVER_MAP = 0.35;
const HIT_PX = 8;
const SETTLE_MS = 60;
/** Sites this near the job's centre are shown first. */
const CLUSTER_M = 1300;

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
  let mode: MapMode = "look";
  let data: GroundMapData = { sites: [], verdicts: [], links: [], selectedLinkId: null, joinFromId: null };
  let fitted = false;
  let stopped = false;
  let pending: AbortController | null = null;

  const worker = new Worker("/workers/relief.worker.js");
  worker.onerror = (event) => {
    events.onTrouble(new Error(event.message));
  };
  const reliefWorker = wrap<ReliefWorker>(worker) as Remote<ReliefWorker>;

  const shade = new ImageLayer<ImageStatic>();
  const contours = new VectorImageLayer({ source: new VectorSource(), imageRatio: 1.2, declutter: true });
  const obstacles = new VectorImageLayer({ source: new VectorSource(), imageRatio: 1.2 });
  const tiles = createObstacleTiles(jobId, crs, () => t);
  const links = new VectorLayer({ source: new VectorSource() });
  const reach = new VectorLayer({ source: new VectorSource() });
  const sites = new VectorLayer({ source: new VectorSource(), declutter: true });
  const grid = createGrid(() => t);
  const overlays = createOverlays(() => t, crs, toPlane);
  const scaleLine = new ScaleLine({ bar: false, minWidth: 60, maxWidth: 150 });
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

  const tools = createTools(
    map,
    () => t,
    toPlane,
    (x, y) => projection.inverse(x, y),
    [obstacles, sites],
    events,
  );
  map.addLayer(tools.layer);
  let shownObstacles = new Map<string, ObstacleDto>();
  let shownFeatures = new Map<string, FeatureDto>();

  const relief = createReliefPainter(crs, () => t, shade, contours);

  const drawnIn = ([west, south, east, north]: readonly [number, number, number, number], signal: AbortSignal): Promise<DrawnDto> => {
    const a = projection.inverse(west, south);
    const b = projection.inverse(east, north);
    const c = projection.inverse(west, north);
    const d = projection.inverse(east, south);
    const box = new URLSearchParams({
      westDeg: String(Math.min(a.lonDeg, c.lonDeg)),
      southDeg: String(Math.min(a.latDeg, d.latDeg)),
      eastDeg: String(Math.max(b.lonDeg, d.lonDeg)),
      northDeg: String(Math.max(b.latDeg, c.latDeg)),
      most: String(MOST_WHOLE),
      whole: "true",
    });
    return getJson<DrawnDto>(`/api/jobs/${jobId}/obstacles?${box}`, signal);
  };
  const load = async (): Promise<void> => {
    const size = map.getSize();
    const resolution = map.getView().getResolution();
    if (size === undefined || resolution === undefined || stopped) return;
    pending?.abort();
    const abort = new AbortController();
    pending = abort;
    const [west, south, east, north] = map.getView().calculateExtent(size) as [number, number, number, number];
    const stepM = Math.max(0.5, resolution * PX_PER_CELL);
    const cols = Math.min(MOST_CELLS, Math.ceil((east - west) / stepM) + 4);
    const rows = Math.min(MOST_CELLS, Math.ceil((north - south) / stepM) + 4);
    const x0 = west - 1.5 * stepM;
    const y0 = north + 1.5 * stepM;
    try {
      // Both are asked for at once; what is drawn waits for the ground beneath it.
      const drawn = resolution <= MOST_RESOLUTION_FOR_OBSTACLES ? drawnIn([west, south, east, north], abort.signal) : null;
      drawn?.catch(() => undefined);
      const response = await postForBinary(`/api/jobs/${jobId}/terrain`, { crs, x0, y0, stepM, cols, rows }, abort.signal);
      const heightsM = new Float32Array(await response.arrayBuffer());
      const datasets = JSON.parse(decodeURIComponent(response.headers.get("x-datasets") ?? "%5B%5D")) as {
        name: string;
        cellM: number;
        sigmaM: number;
        leftOut: boolean;
      }[];
      const intervalM = contourStepM(heightsM, cols, stepM, resolution);
      const answer = await reliefWorker.relief({ heightsM, cols, rows, x0, y0, stepM, intervalM });
      if (abort.signal.aborted) return;
      relief.paint({ answer, cols, rows, x0, y0, stepM, intervalM });
      events.onKnowledge(datasets, intervalM);
      // Where no ground is known a grid tells how far things are from each other.
      grid.draw(datasets.length === 0 ? [west, south, east, north] : null, resolution);
      if (drawn !== null) {
        const got = await drawn;
        if (abort.signal.aborted) return;
        shownObstacles = new Map(got.obstacles.map((o) => [o.id, o]));
        shownFeatures = new Map(got.features.map((f) => [f.id, f]));
        overlays.setFeatures(got.features);
        events.onObstacles(got.obstacles, got.total);
        const source = obstacles.getSource();
        tiles.show(got.obstacles.length === 0 && got.total > 0);
        source?.clear(true);
        source?.addFeatures(
          got.obstacles.map((o) => {
            const feature = new Feature(new Polygon([o.outline, ...o.holes].map((ring) => latLons(ring).map(toPlane))));
            feature.setProperties({ kind: o.kind, name: o.name, obstacleId: o.id });
            feature.setStyle(obstacleStyle(t, o.kind, false));
            return feature;
          }),
        );
      } else {
        obstacles.getSource()?.clear(true);
        tiles.show(true);
        events.onObstacles([], MOST_WHOLE + 1);
      }
      target.dataset.drawn = String(Number(target.dataset.drawn ?? 0) + 1);
      events.onTrouble(null);
    } catch (error) {
      if (!abort.signal.aborted) events.onTrouble(error);
    }
  };
  // Several causes may ask at once (a move, a size, new colours); the ground is fetched once for them.
  let asked: ReturnType<typeof setTimeout> | null = null;
  const ask = (): void => {
    if (asked !== null) clearTimeout(asked);
    asked = setTimeout(() => void load(), SETTLE_MS);
  };
  map.on("moveend", ask);
  map.on("change:size", ask);
  ask();

  const positionOf = (siteId: string): [number, number] | null => {
    const site = data.sites.find((s) => s.id === siteId);
    return site === undefined ? null : toPlane(site);
  };

  const drawData = (): void => {
    const chosen = data.links.find((l) => l.id === data.selectedLinkId);
    const perSite = new Map<string, number>();
    for (const l of data.links) perSite.set(l.nearSiteId, (perSite.get(l.nearSiteId) ?? 0) + 1);
    links.getSource()?.clear(true);
    for (const l of data.links) {
      const a = positionOf(l.nearSiteId);
      const b = positionOf(l.farSiteId);
      if (a === null || b === null) continue;
      const feature = new Feature(new LineString([a, b]));
      feature.set("linkId", l.id);
      const verdict = data.verdicts.find((v) => v.linkId === l.id)?.verdict ?? "unknown";
      feature.setStyle(linkStyles(t, verdict, l.id === data.selectedLinkId));
      links.getSource()?.addFeature(feature);
    }
    sites.getSource()?.clear(true);
    // Until a site stands, the position that the job was made with.
    if (data.sites.length === 0) {
      const typed = new Feature(new Point(toPlane(centre)));
      typed.setStyle(typedPlaceStyle(t, "position of the job"));
      sites.getSource()?.addFeature(typed);
    }
    for (const s of data.sites) {
      const feature = new Feature(new Point(toPlane(s)));
      feature.set("siteId", s.id);
      const role =
        s.id === (data.joinFromId ?? chosen?.nearSiteId)
          ? "near"
          : s.id === chosen?.farSiteId
            ? "far"
            : (perSite.get(s.id) ?? 0) > 1 && chosen?.nearSiteId !== s.id
              ? "hub"
              : "site";
      feature.setStyle(siteStyle(t, s.name, role, ""));
      sites.getSource()?.addFeature(feature);
    }
  };

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

  map.on("singleclick", (event) => {
    const at = projection.inverse(event.coordinate[0]!, event.coordinate[1]!);
    if (mode === "draw" || mode === "measure" || mode === "edit" || mode === "cut") return;
    if (mode === "place") {
      events.onPlace(at);
      return;
    }
    const siteId = hit(event.pixel, "siteId");
    if (siteId !== null) {
      events.onSite(siteId);
      return;
    }
    if (mode !== "look") return;
    const linkId = hit(event.pixel, "linkId");
    if (linkId !== null) {
      events.onLink(linkId);
      return;
    }
    // Of obstacles that lie over each other the smallest is meant.
    const under = (obstacles.getSource()?.getFeaturesAtCoordinate(event.coordinate) ?? []).sort(
      (a, b) => (a.getGeometry() as Polygon).getArea() - (b.getGeometry() as Polygon).getArea(),
    );
    const inTile = tiles.at(map, event.pixel);
    if (inTile !== null) {
      getJson<ObstacleDto>(recordPath(jobId, "obstacle", inTile)).then(events.onObstacle, events.onTrouble);
      return;
    }
    const pressed = shownObstacles.get(under[0]?.get("obstacleId") as string);
    if (pressed !== undefined) {
      events.onObstacle(pressed);
      return;
    }
    const near = map.getFeaturesAtPixel(event.pixel, { hitTolerance: HIT_PX, layerFilter: (l) => overlays.above.includes(l as never) });
    const ground = shownFeatures.get(near.find((f) => f.get("featureId") !== undefined)?.get("featureId") as string);
    if (ground !== undefined) events.onFeature(ground);
  });

  const reachTo = (from: [number, number] | null, to: [number, number] | null): void => {
    reach.getSource()?.clear(true);
    if (from === null || to === null) {
      events.onReach(null, null);
      return;
    }
    const line = new Feature(new LineString([from, to]));
    line.setStyle(new Style({ stroke: new Stroke({ color: t("ink"), width: 1.6, lineDash: [7, 3] }) }));
    const end = new Feature(new Point(to));
    end.setStyle(
      new Style({
        image: new Circle({ radius: 5, stroke: new Stroke({ color: t("far"), width: 2.4 }), fill: new Fill({ color: t("paper") }) }),
      }),
    );
    reach.getSource()?.addFeatures([line, end]);
    events.onReach(projection.inverse(...from), projection.inverse(...to));
  };
  map.on("pointermove", (event) => {
    if (mode === "join" && data.joinFromId !== null) {
      const siteId = hit(event.pixel, "siteId");
      const to = siteId === null ? (event.coordinate as [number, number]) : positionOf(siteId);
      reachTo(positionOf(data.joinFromId), to);
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
    const to = (feature.getGeometry() as Point).getCoordinates() as [number, number];
    const other = data.links.find((l) => l.nearSiteId === siteId || l.farSiteId === siteId);
    const from = other === undefined ? positionOf(siteId) : positionOf(other.nearSiteId === siteId ? other.farSiteId : other.nearSiteId);
    reachTo(from, to);
  });
  translate.on("translateend", (event) => {
    const feature = event.features.item(0);
    const to = (feature.getGeometry() as Point).getCoordinates() as [number, number];
    reachTo(null, null);
    events.onMoved(feature.get("siteId") as string, projection.inverse(...to));
  });
  map.addInteraction(translate);

  /** The selected link, or the cluster of sites about the job's centre; or all sites. */
  const showSites: GroundMap["showSites"] = (which = "link") => {
    const chosen = which === "link" ? data.links.find((l) => l.id === data.selectedLinkId) : undefined;
    const middle = toPlane(centre);
    const close = data.sites.filter((s) => {
      const [x, y] = toPlane(s);
      return Math.hypot(x - middle[0], y - middle[1]) < CLUSTER_M;
    });
    const ids =
      chosen === undefined
        ? (which !== "all" && close.length > 0 ? close : data.sites).map((s) => s.id)
        : [chosen.nearSiteId, chosen.farSiteId];
    const points = ids.map(positionOf).filter((p): p is [number, number] => p !== null);
    if (points.length === 0) {
      map.getView().setCenter(middle);
      return;
    }
    map
      .getView()
      .fit(buffer(boundingExtent(points), points.length === 1 ? 300 : 30), { padding: [90, 90, 70, 90], maxZoom: 30, minResolution: 0.4 });
  };

  return {
    setData: (next) => {
      data = next;
      drawData();
      if (!fitted && next.sites.length > 0) {
        fitted = true;
        showSites(fitLinkFirst ? "link" : "cluster");
        ask();
      }
    },
    setMode: (next) => {
      mode = next;
      translate.setActive(next === "move");
      reachTo(null, null);
    },
    showSites,
    tools,
    overlays,
    setBasemap: (credit, version) => shade.setOpacity(overlays.setBasemap(jobId, credit, version) ? SHADE_OVER_MAP : 1),
    reload: () => {
      tiles.again();
      ask();
    },
    extent: () => map.getView().calculateExtent(map.getSize()) as [number, number, number, number],
    // To the right a panel may lie over the drawing.
    fit: (extent) => map.getView().fit(buffer(extent, 50), { padding: [60, 140, 60, 60], minResolution: 0.4 }),
    setUnits: (units) => {
      scaleLine.setUnits(units);
      relief.setUnits(units);
    },
    restyle: () => {
      t = tokens();
      tools.restyle();
      overlays.restyle();
      relief.repaint();
      tiles.restyle();
      drawData();
      ask();
    },
    dispose: () => {
      stopped = true;
      if (asked !== null) clearTimeout(asked);
      pending?.abort();
      worker.terminate();
      map.setTarget(undefined);
    },
  };
};
