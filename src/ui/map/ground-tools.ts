import Feature from "ol/Feature";
import LineString from "ol/geom/LineString";
import Point from "ol/geom/Point";
import Polygon from "ol/geom/Polygon";
import Draw from "ol/interaction/Draw";
import Modify from "ol/interaction/Modify";
import Snap from "ol/interaction/Snap";
import VectorLayer from "ol/layer/Vector";
import type VectorImageLayer from "ol/layer/VectorImage";
import type OlMap from "ol/Map";
import VectorSource from "ol/source/Vector";
import { Circle, Fill, Stroke, Style } from "ol/style";
import type { LatLon } from "@/core/geo";

export type DrawShape = "point" | "line" | "polygon";

export interface GroundToolEvents {
  /** A shape was drawn to its end. */
  readonly onDrawn: (shape: DrawShape, points: readonly LatLon[]) => void;
  /** The line being measured, as it grows. */
  readonly onMeasured: (points: readonly LatLon[], done: boolean) => void;
  /** An outline being edited took another shape. */
  readonly onOutline: (points: readonly LatLon[]) => void;
}

export interface GroundTools {
  readonly layer: VectorLayer;
  readonly draw: (shape: DrawShape | null) => void;
  readonly measure: (on: boolean) => void;
  /** Corners that can be moved, added and taken out; null ends it. */
  readonly edit: (outline: readonly LatLon[] | null) => void;
  /** Shows an outline as chosen or just drawn. */
  readonly mark: (shape: DrawShape, points: readonly LatLon[] | null) => void;
  readonly finish: () => void;
  readonly restyle: () => void;
}

const SNAP_PX = 10;

/** Drawing, measuring and editing by hand on the plan. Corners snap to what is there. */
export const createTools = (
  map: OlMap,
  token: () => (name: string) => string,
  toPlane: (p: LatLon) => [number, number],
  fromPlane: (x: number, y: number) => LatLon,
  snapTo: readonly (VectorLayer | VectorImageLayer)[],
  events: GroundToolEvents,
): GroundTools => {
  const source = new VectorSource();
  const style = (): Style => {
    const t = token();
    return new Style({
      stroke: new Stroke({ color: t("ink"), width: 2.2, lineDash: [8, 3] }),
      fill: new Fill({ color: `${t("band")}aa` }),
      image: new Circle({ radius: 5, stroke: new Stroke({ color: t("ink"), width: 2 }), fill: new Fill({ color: t("paper") }) }),
    });
  };
  const layer = new VectorLayer({ source, style: style(), zIndex: 10 });
  let active: Draw | null = null;
  let modify: Modify | null = null;
  let snaps: Snap[] = [];

  const snapOn = (): void => {
    snaps = snapTo.flatMap((l) => {
      const s = l.getSource();
      return s === null ? [] : [new Snap({ source: s as VectorSource, pixelTolerance: SNAP_PX })];
    });
    for (const s of snaps) map.addInteraction(s);
  };
  const stop = (): void => {
    if (active !== null) map.removeInteraction(active);
    if (modify !== null) map.removeInteraction(modify);
    for (const s of snaps) map.removeInteraction(s);
    active = null;
    modify = null;
    snaps = [];
  };
  const placed = (coordinates: readonly number[][]): LatLon[] => coordinates.map((c) => fromPlane(c[0]!, c[1]!));
  const pointsOf = (geometry: unknown): LatLon[] => {
    if (geometry instanceof Point) return placed([geometry.getCoordinates()]);
    if (geometry instanceof LineString) return placed(geometry.getCoordinates());
    return geometry instanceof Polygon ? placed((geometry.getCoordinates()[0] ?? []).slice(0, -1)) : [];
  };
  const start = (shape: DrawShape, onEnd: (points: LatLon[]) => void, onGrow: ((points: LatLon[]) => void) | null): void => {
    stop();
    source.clear();
    const draw = new Draw({
      source,
      type: shape === "point" ? "Point" : shape === "line" ? "LineString" : "Polygon",
      style: style(),
      stopClick: true,
    });
    draw.on("drawstart", (event) => {
      source.clear();
      if (onGrow !== null) event.feature.getGeometry()?.on("change", (e) => onGrow(pointsOf(e.target)));
    });
    draw.on("drawend", (event) => onEnd(pointsOf(event.feature.getGeometry())));
    active = draw;
    map.addInteraction(draw);
    snapOn();
  };
  const put = (shape: DrawShape, points: readonly LatLon[]): Feature => {
    const flat = points.map(toPlane);
    const feature = new Feature<Point | LineString | Polygon>(
      shape === "point" ? new Point(flat[0]!) : shape === "line" ? new LineString(flat) : new Polygon([[...flat, flat[0]!]]),
    );
    source.addFeature(feature);
    return feature;
  };

  return {
    layer,
    draw: (shape) => {
      if (shape === null) {
        stop();
        source.clear();
      } else start(shape, (points) => events.onDrawn(shape, points), null);
    },
    measure: (on) => {
      if (!on) {
        stop();
        source.clear();
      } else
        start(
          "line",
          (points) => events.onMeasured(points, true),
          (points) => events.onMeasured(points, false),
        );
    },
    edit: (outline) => {
      stop();
      source.clear();
      if (outline === null) return;
      const feature = put("polygon", outline);
      modify = new Modify({ source, pixelTolerance: SNAP_PX });
      modify.on("modifyend", () => events.onOutline(pointsOf(feature.getGeometry())));
      map.addInteraction(modify);
      snapOn();
    },
    mark: (shape, points) => {
      source.clear();
      if (points !== null && points.length > 0) put(shape, points);
    },
    finish: () => active?.finishDrawing(),
    restyle: () => layer.setStyle(style()),
  };
};
