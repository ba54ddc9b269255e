import { type Remote, wrap } from "comlink";
import Feature from "ol/Feature";
import Polygon from "ol/geom/Polygon";
import ImageLayer from "ol/layer/Image";
import VectorImageLayer from "ol/layer/VectorImage";
import type ImageStatic from "ol/source/ImageStatic";
import VectorSource from "ol/source/Vector";
import { type DrawnDto, type FeatureDto, latLons, type ObstacleDto } from "@/contract";
import { contourStepM } from "@/core/terrain";
import type { ReliefWorker } from "@/workers/messages";
import { getJson, postForBinary } from "../api/client";
import { createGrid } from "./ground-grid";
import type { GroundOverlays } from "./ground-overlays";
import type { GroundPlan } from "./ground-plan";
import { createObstacleTiles } from "./obstacle-tiles";
import { createReliefPainter } from "./relief-painter";
import { obstacleStyle } from "./styles";

const PX_PER_CELL = 2;
const MOST_CELLS = 600;
/** Up to so many obstacles in view are read whole, to snap to and to choose from; more are drawn as tiles. */
const MOST_WHOLE = 1500;
const MOST_RESOLUTION_FOR_OBSTACLES = 6;
const SETTLE_MS = 60;

interface Knowledge {
  readonly name: string;
  readonly cellM: number;
  readonly sigmaM: number;
  readonly leftOut: boolean;
}

type Extent = [number, number, number, number];

/** The layers of the ground and of what stands on it; they are put into the map in their order by whoever makes it. */
export const groundLayers = (plan: Pick<GroundPlan, "jobId" | "crs" | "tokens">) => ({
  shade: new ImageLayer<ImageStatic>(),
  contours: new VectorImageLayer({ source: new VectorSource(), imageRatio: 1.2, declutter: true }),
  obstacles: new VectorImageLayer({ source: new VectorSource(), imageRatio: 1.2 }),
  tiles: createObstacleTiles(plan.jobId, plan.crs, plan.tokens),
  grid: createGrid(plan.tokens),
});
export type GroundLayers = ReturnType<typeof groundLayers>;

/** Reads the ground in view and what stands on it whenever the view has come to rest, and draws it. */
export const createGroundReader = (plan: GroundPlan, layers: GroundLayers, overlays: GroundOverlays) => {
  const { map, target, jobId, crs, toPlane, fromPlane, tokens, events } = plan;
  const { shade, contours, obstacles, tiles, grid } = layers;
  const relief = createReliefPainter(crs, tokens, shade, contours);
  const worker = new Worker("/workers/relief.worker.js");
  worker.onerror = (event) => {
    events.onTrouble(new Error(event.message));
  };
  const reliefWorker = wrap<ReliefWorker>(worker) as Remote<ReliefWorker>;
  let shownObstacles = new Map<string, ObstacleDto>();
  let shownFeatures = new Map<string, FeatureDto>();
  let stopped = false;
  let pending: AbortController | null = null;
  /** The view that was read last, or is being read. */
  let readOf: string | null = null;
  const inView = (): string => `${map.getSize()} ${map.getView().calculateExtent(map.getSize())}`;

  const drawnIn = ([west, south, east, north]: Extent, signal: AbortSignal): Promise<DrawnDto> => {
    const corners = [fromPlane(west, south), fromPlane(east, north), fromPlane(west, north), fromPlane(east, south)];
    const [lats, lons] = [corners.map((c) => c.latDeg), corners.map((c) => c.lonDeg)];
    const box = new URLSearchParams({
      westDeg: String(Math.min(...lons)),
      southDeg: String(Math.min(...lats)),
      eastDeg: String(Math.max(...lons)),
      northDeg: String(Math.max(...lats)),
      most: String(MOST_WHOLE),
      whole: "true",
    });
    return getJson<DrawnDto>(`/api/jobs/${jobId}/obstacles?${box}`, signal);
  };

  const drawGround = async (extent: Extent, resolution: number, signal: AbortSignal): Promise<void> => {
    const [west, south, east, north] = extent;
    const stepM = Math.max(0.5, resolution * PX_PER_CELL);
    const cols = Math.min(MOST_CELLS, Math.ceil((east - west) / stepM) + 4);
    const rows = Math.min(MOST_CELLS, Math.ceil((north - south) / stepM) + 4);
    const x0 = west - 1.5 * stepM;
    const y0 = north + 1.5 * stepM;
    const response = await postForBinary(`/api/jobs/${jobId}/terrain`, { crs, x0, y0, stepM, cols, rows }, signal);
    const heightsM = new Float32Array(await response.arrayBuffer());
    const datasets = JSON.parse(decodeURIComponent(response.headers.get("x-datasets") ?? "%5B%5D")) as Knowledge[];
    const intervalM = contourStepM(heightsM, cols, stepM, resolution);
    const answer = await reliefWorker.relief({ heightsM, cols, rows, x0, y0, stepM, intervalM });
    if (signal.aborted) return;
    relief.paint({ answer, cols, rows, x0, y0, stepM, intervalM });
    events.onKnowledge(datasets, intervalM);
    // Where no ground is known a grid tells how far things are from each other.
    grid.draw(datasets.length === 0 ? extent : null, resolution);
  };

  const drawObstacles = (got: DrawnDto | null): void => {
    const source = obstacles.getSource();
    source?.clear(true);
    if (got === null) {
      tiles.show(true);
      events.onObstacles([], MOST_WHOLE + 1);
      return;
    }
    shownObstacles = new Map(got.obstacles.map((o) => [o.id, o]));
    shownFeatures = new Map(got.features.map((f) => [f.id, f]));
    overlays.setFeatures(got.features);
    events.onObstacles(got.obstacles, got.total);
    tiles.show(got.obstacles.length === 0 && got.total > 0);
    source?.addFeatures(
      got.obstacles.map((o) => {
        const feature = new Feature(new Polygon([o.outline, ...o.holes].map((ring) => latLons(ring).map(toPlane))));
        feature.setProperties({ kind: o.kind, name: o.name, obstacleId: o.id });
        feature.setStyle(obstacleStyle(tokens(), o.kind, false));
        return feature;
      }),
    );
  };

  const load = async (): Promise<void> => {
    const size = map.getSize();
    const resolution = map.getView().getResolution();
    if (size === undefined || resolution === undefined || stopped) return;
    pending?.abort();
    const abort = new AbortController();
    pending = abort;
    const extent = map.getView().calculateExtent(size) as Extent;
    readOf = inView();
    try {
      // Both are asked for at once; what is drawn waits for the ground beneath it.
      const drawn = resolution <= MOST_RESOLUTION_FOR_OBSTACLES ? drawnIn(extent, abort.signal) : null;
      drawn?.catch(() => undefined);
      await drawGround(extent, resolution, abort.signal);
      const got = await drawn;
      if (abort.signal.aborted) return;
      drawObstacles(got);
      target.dataset.drawn = String(Number(target.dataset.drawn ?? 0) + 1);
      events.onTrouble(null);
    } catch (error) {
      if (abort.signal.aborted) return;
      readOf = null;
      events.onTrouble(error);
    }
  };

  // Several causes may ask at once (a move, a size, new colours); the ground is fetched once for them.
  let asked: ReturnType<typeof setTimeout> | null = null;
  const ask = (): void => {
    if (asked !== null) clearTimeout(asked);
    asked = setTimeout(() => void load(), SETTLE_MS);
  };
  // The first frame is a move to where the view is already.
  const moved = (): void => {
    if (inView() !== readOf) ask();
  };
  map.on("moveend", moved);
  map.on("change:size", moved);
  ask();

  return {
    relief,
    ask,
    obstacle: (id: string | undefined): ObstacleDto | undefined => (id === undefined ? undefined : shownObstacles.get(id)),
    feature: (id: string | undefined): FeatureDto | undefined => (id === undefined ? undefined : shownFeatures.get(id)),
    stop: (): void => {
      stopped = true;
      if (asked !== null) clearTimeout(asked);
      pending?.abort();
      worker.terminate();
    },
  };
};
export type GroundReader = ReturnType<typeof createGroundReader>;
