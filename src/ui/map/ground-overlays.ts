import Feature from "ol/Feature";
import LineString from "ol/geom/LineString";
import Point from "ol/geom/Point";
import Polygon from "ol/geom/Polygon";
import ImageLayer from "ol/layer/Image";
import TileLayer from "ol/layer/Tile";
import VectorLayer from "ol/layer/Vector";
import VectorImageLayer from "ol/layer/VectorImage";
import ImageStatic from "ol/source/ImageStatic";
import VectorSource from "ol/source/Vector";
import XYZ from "ol/source/XYZ";
import { Circle, Fill, Stroke, Style, Text } from "ol/style";
import type { DatasetDto, FeatureDto, PreviewDto } from "@/contract";
import type { LatLon } from "@/core/geo";

type Token = (name: string) => string;
type Pair = readonly [number, number];
type ToPlane = (p: LatLon) => [number, number];

const FONT = '"Atkinson Hyperlegible Next Variable", sans-serif';

/** What can be seen from a place: one colour for what is hidden, hatched; the drawing shows through where it is seen. */
export interface ViewImage {
  /** Per cell: 0 unknown, 1 hidden, 2 seen. */
  readonly mask: Uint8Array;
  readonly cols: number;
  readonly rows: number;
  readonly x0: number;
  readonly y0: number;
  readonly stepM: number;
}

export interface GroundOverlays {
  readonly below: readonly [TileLayer<XYZ>];
  readonly above: readonly (ImageLayer<ImageStatic> | VectorLayer | VectorImageLayer)[];
  readonly setFeatures: (features: readonly FeatureDto[]) => void;
  readonly setDatasets: (datasets: readonly DatasetDto[], chosenId: string | null) => void;
  readonly setPreview: (preview: PreviewDto | null) => [number, number, number, number] | null;
  readonly setView: (image: ViewImage | null) => void;
  /** @returns whether a map lies beneath: the ground's own tints are then drawn thinly over it. */
  readonly setBasemap: (jobId: string, credit: string | null, version: string) => boolean;
  readonly restyle: () => void;
}

const polygon = (ring: readonly Pair[], toPlane: ToPlane): Feature<Polygon> =>
  new Feature(new Polygon([ring.map(([lonDeg, latDeg]) => toPlane({ latDeg, lonDeg }))]));

const halo = (t: Token, text: string, colour: string, placement: "point" | "line" = "point"): Text =>
  new Text({
    text,
    font: `italic 13px ${FONT}`,
    placement,
    overflow: true,
    fill: new Fill({ color: t(colour) }),
    stroke: new Stroke({ color: t("paper"), width: 3 }),
  });

/** A text with nothing in it that a page would take for its own language. */
const asText = (words: string): string => words.replace(/[&<>"']/g, (c) => `&#${c.charCodeAt(0)};`);

/** Layers over and under the plan: the user's own map, named ground, what is known where, a file on its way in, a view. */
export const createOverlays = (token: () => Token, crs: string, toPlane: ToPlane): GroundOverlays => {
  const base = new TileLayer<XYZ>({ visible: false, opacity: 0.8 });
  const view = new ImageLayer<ImageStatic>();
  const named = new VectorLayer({ source: new VectorSource(), declutter: true });
  const known = new VectorLayer({ source: new VectorSource() });
  const preview = new VectorImageLayer({ source: new VectorSource() });
  let last: { features: readonly FeatureDto[]; datasets: readonly DatasetDto[]; chosenId: string | null; image: ViewImage | null } = {
    features: [],
    datasets: [],
    chosenId: null,
    image: null,
  };

  const setFeatures = (features: readonly FeatureDto[]): void => {
    last = { ...last, features };
    const t = token();
    named.getSource()?.clear(true);
    named.getSource()?.addFeatures(
      features.map((f) => {
        const points = f.points.map(([lonDeg, latDeg]) => toPlane({ latDeg, lonDeg }));
        const line = points.length > 1;
        const feature = new Feature<Point | LineString>(line ? new LineString(points) : new Point(points[0]!));
        feature.set("featureId", f.id);
        feature.setStyle(
          new Style({
            stroke: new Stroke({ color: t("ground-line"), width: 1.2, lineDash: [2, 4] }),
            image: new Circle({ radius: 2.5, fill: new Fill({ color: t("ground-line") }) }),
            text: halo(t, f.name, "ink-2", line ? "line" : "point"),
          }),
        );
        return feature;
      }),
    );
  };

  const setDatasets = (datasets: readonly DatasetDto[], chosenId: string | null): void => {
    last = { ...last, datasets, chosenId };
    const t = token();
    known.getSource()?.clear(true);
    for (const d of datasets) {
      const feature = polygon(d.ring, toPlane);
      const chosen = d.id === chosenId;
      feature.setStyle(
        new Style({
          stroke: new Stroke({ color: t("ink"), width: chosen ? 2.4 : 1.2, lineDash: [12, 4, 2, 4] }),
          text: halo(t, d.name, "ink", "line"),
        }),
      );
      known.getSource()?.addFeature(feature);
    }
  };

  const setPreview = (p: PreviewDto | null): [number, number, number, number] | null => {
    const t = token();
    const source = preview.getSource();
    source?.clear(true);
    if (p === null) return null;
    const style = new Style({
      stroke: new Stroke({ color: t("far"), width: 2, lineDash: [6, 3] }),
      image: new Circle({ radius: 4, stroke: new Stroke({ color: t("far"), width: 2 }) }),
    });
    if (p.kind === "terrain") {
      if (p.ring !== null) source?.addFeature(polygon(p.ring, toPlane));
    } else {
      source?.addFeatures(
        p.shapes.map((s) => {
          const points = s.points.map(([lonDeg, latDeg]) => toPlane({ latDeg, lonDeg }));
          return new Feature<Point | LineString | Polygon>(
            s.type === "point" ? new Point(points[0]!) : s.type === "line" ? new LineString(points) : new Polygon([points]),
          );
        }),
      );
    }
    for (const f of source?.getFeatures() ?? []) f.setStyle(style);
    const extent = source?.getExtent();
    return extent != null && Number.isFinite(extent[0]) ? (extent as [number, number, number, number]) : null;
  };

  const setView = (image: ViewImage | null): void => {
    last = { ...last, image };
    if (image === null) {
      view.setSource(null);
      return;
    }
    const { cols, rows, mask, stepM, x0, y0 } = image;
    const canvas = document.createElement("canvas");
    canvas.width = cols;
    canvas.height = rows;
    const context = canvas.getContext("2d");
    if (context === null) return;
    const pixels = context.createImageData(cols, rows);
    const t = token();
    const hex = t("ink").replace("#", "");
    const n = Number.parseInt(hex.length === 3 ? [...hex].map((c) => c + c).join("") : hex, 16);
    for (let i = 0; i < mask.length; i++) {
      if (mask[i] === 2) continue;
      const c = i % cols;
      const r = (i - c) / cols;
      // Hidden ground is veiled with a slant every few cells; unknown ground with dots, so that neither needs colour.
      const line = mask[i] === 1 ? (c + r) % 5 === 0 : c % 4 === 0 && r % 4 === 0;
      pixels.data.set([(n >> 16) & 255, (n >> 8) & 255, n & 255, line ? 120 : mask[i] === 1 ? 46 : 14], i * 4);
    }
    context.putImageData(pixels, 0, 0);
    const half = stepM / 2;
    view.setSource(
      new ImageStatic({
        url: canvas.toDataURL(),
        projection: crs,
        interpolate: false,
        imageExtent: [x0 - half, y0 - (rows - 1) * stepM - half, x0 + (cols - 1) * stepM + half, y0 + half],
      }),
    );
  };

  return {
    below: [base],
    above: [view, named, known, preview],
    setFeatures,
    setDatasets,
    setPreview,
    setView,
    setBasemap: (jobId, credit, version) => {
      base.setVisible(credit !== null);
      base.setSource(
        credit === null
          ? null
          : new XYZ({
              url: `/api/jobs/${jobId}/basemap/tiles/{z}/{x}/{y}?of=${version}`,
              // What somebody wrote is text: the drawing would take it for a page's own.
              ...(credit === "" ? {} : { attributions: asText(credit) }),
              maxZoom: 20,
              transition: 0,
            }),
      );
      return credit !== null;
    },
    restyle: () => {
      setFeatures(last.features);
      setDatasets(last.datasets, last.chosenId);
      setView(last.image);
    },
  };
};
