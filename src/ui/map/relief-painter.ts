import Feature from "ol/Feature";
import LineString from "ol/geom/LineString";
import type ImageLayer from "ol/layer/Image";
import type VectorImageLayer from "ol/layer/VectorImage";
import ImageStatic from "ol/source/ImageStatic";
import type { ReliefAnswer } from "@/workers/messages";
import { figure, lengthIn, type Units } from "../wording/numbers";
import { contourStyle } from "./styles";

export interface PaintedRelief {
  readonly answer: ReliefAnswer;
  readonly cols: number;
  readonly rows: number;
  readonly x0: number;
  readonly y0: number;
  readonly stepM: number;
  readonly intervalM: number;
}

/** Paints hillshade tints and contours into their layers; again when the colours change. */
export const createReliefPainter = (
  crs: string,
  token: () => (name: string) => string,
  shade: ImageLayer<ImageStatic>,
  contours: VectorImageLayer,
): { readonly paint: (next: PaintedRelief) => void; readonly repaint: () => void; readonly setUnits: (units: Units) => void } => {
  let last: PaintedRelief | null = null;
  let units: Units = "metric";
  const repaint = (): void => {
    if (last === null) return;
    const t = token();
    const { answer, cols, rows, x0, y0, stepM, intervalM } = last;
    const canvas = document.createElement("canvas");
    canvas.width = cols;
    canvas.height = rows;
    const context = canvas.getContext("2d");
    if (context === null) return;
    const rgb = (hex: string): [number, number, number] => {
      const n = Number.parseInt(hex.replace("#", "").padEnd(6, "f").slice(0, 6), 16);
      return [(n >> 16) & 255, (n >> 8) & 255, n & 255];
    };
    const full = (hex: string): string => (hex.length === 4 ? `#${[...hex.slice(1)].map((c) => c + c).join("")}` : hex);
    const palette = ["paper", "water-fill", "paper", "shade-1", "shade-2", "shade-3"].map((name) => rgb(full(t(name))));
    const image = context.createImageData(cols, rows);
    for (let i = 0; i < answer.tint.length; i++) {
      const tint = answer.tint[i]!;
      const [r, g, b] = palette[tint]!;
      image.data.set([r, g, b, tint === 0 ? 0 : 255], i * 4);
    }
    context.putImageData(image, 0, 0);
    const half = stepM / 2;
    shade.setSource(
      new ImageStatic({
        url: canvas.toDataURL(),
        projection: crs,
        imageExtent: [x0 - half, y0 - (rows - 1) * stepM - half, x0 + (cols - 1) * stepM + half, y0 + half],
      }),
    );
    const source = contours.getSource();
    source?.clear(true);
    source?.addFeatures(
      answer.contours.map((line) => {
        const points: [number, number][] = [];
        for (let i = 0; i < line.points.length; i += 2) points.push([line.points[i]!, line.points[i + 1]!]);
        const feature = new Feature(new LineString(points));
        const shore = line.heightM < intervalM / 2 && line.heightM < 0.1;
        feature.setStyle(
          contourStyle(
            t,
            Math.round(line.heightM / intervalM) % 5 === 0,
            figure(lengthIn(units, line.heightM), Number.isInteger(intervalM * 5) ? 0 : 2),
            shore,
          ),
        );
        return feature;
      }),
    );
  };
  return {
    paint: (next) => {
      last = next;
      repaint();
    },
    repaint,
    setUnits: (next) => {
      if (next === units) return;
      units = next;
      repaint();
    },
  };
};
