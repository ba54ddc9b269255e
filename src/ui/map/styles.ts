import type LineString from "ol/geom/LineString";
import Point from "ol/geom/Point";
import { Circle, Fill, RegularShape, Stroke, Style, Text } from "ol/style";
import type { Verdict } from "@/core/link";
import { type BodyKind, isSolid, isVegetation } from "@/core/obstacles";
import { markWidth, verdictPaths } from "../marks/verdict-paths";

/** A colour of the sheet by its name. */
export type Tokens = (name: string) => string;

/** The sheet's colours as they stand in this mode. */
export const tokens = (): Tokens => {
  const style = getComputedStyle(document.documentElement);
  return (name) => style.getPropertyValue(`--${name}`).trim();
};

const FONT = '"Atkinson Hyperlegible Next Variable", sans-serif';

export const contourStyle = (t: Tokens, index: boolean, label: string, shore: boolean): Style =>
  new Style({
    stroke: new Stroke({ color: t(shore ? "ground-line" : "ground-hatch"), width: shore ? 1.8 : index ? 1.4 : 0.7 }),
    ...(index && !shore
      ? {
          text: new Text({
            text: label,
            font: `12px ${FONT}`,
            placement: "line",
            fill: new Fill({ color: t("ink-2") }),
            stroke: new Stroke({ color: t("paper"), width: 3 }),
            repeat: 420,
            overflow: false,
          }),
        }
      : {}),
  });

export const obstacleStyle = (t: Tokens, kind: BodyKind, strong: boolean): Style =>
  !isVegetation(kind) && !isSolid(kind)
    ? new Style({
        fill: new Fill({ color: "rgba(0,0,0,0)" }),
        stroke: new Stroke({ color: t("block-line"), width: 1.4, lineDash: kind === "vehicle" ? [6, 4] : [10, 3, 2, 3] }),
      })
    : kindStyle(t, kind, strong);

const kindStyle = (t: Tokens, kind: BodyKind, strong: boolean): Style =>
  isVegetation(kind)
    ? new Style({
        fill: new Fill({ color: t("tree-fill") }),
        stroke: new Stroke({ color: t("tree-line"), width: kind === "row" ? 1.8 : 1 }),
      })
    : new Style({
        fill: new Fill({ color: t(strong ? "ground-hatch" : "block-fill") }),
        stroke: new Stroke({ color: t("block-line"), width: strong ? 1.6 : 1 }),
      });

const DASH: Readonly<Record<Verdict, number[] | undefined>> = { clear: undefined, tight: [14, 3], unknown: [6, 4], short: undefined };
const LINK_COLOUR: Readonly<Record<Verdict, string>> = { clear: "ink", tight: "tight", unknown: "unknown", short: "short" };

export const linkStyles = (t: Tokens, verdict: Verdict, selected: boolean): Style[] => [
  ...(selected ? [new Style({ stroke: new Stroke({ color: t("paper"), width: 9 }) })] : []),
  new Style({
    stroke: new Stroke({
      color: t(LINK_COLOUR[verdict]),
      width: selected ? 3 : verdict === "short" ? 1.6 : 1.1,
      ...(DASH[verdict] === undefined ? {} : { lineDash: DASH[verdict] }),
    }),
    zIndex: selected ? 2 : 1,
  }),
  linkMark(t, verdict, selected),
];

/** The verdict's mark half way along a link, on a disc of paper. */
export const linkMark = (t: Tokens, verdict: Verdict, selected: boolean): Style => {
  const a = selected ? 12 : 9;
  const colour = t(LINK_COLOUR[verdict]);
  return new Style({
    geometry: (feature) => new Point((feature.getGeometry() as LineString).getCoordinateAt(0.5)),
    zIndex: selected ? 5 : 4,
    renderer: (pixel, state) => {
      const [x, y] = pixel as number[];
      const c = state.context;
      c.save();
      c.setTransform(state.pixelRatio, 0, 0, state.pixelRatio, x!, y!);
      c.beginPath();
      c.arc(0, 0, a * 1.35, 0, 2 * Math.PI);
      c.fillStyle = t("paper");
      c.fill();
      if (selected) {
        c.lineWidth = 1.6;
        c.strokeStyle = colour;
        c.stroke();
      }
      c.translate(0, 0.12 * a);
      c.lineWidth = markWidth(a);
      c.strokeStyle = colour;
      c.fillStyle = colour;
      for (const stroke of verdictPaths(verdict, a * 0.9)) {
        c.setLineDash(stroke.dash === undefined ? [] : [...stroke.dash]);
        if (stroke.fill) c.fill(new Path2D(stroke.d));
        else c.stroke(new Path2D(stroke.d));
      }
      c.restore();
    },
  });
};

/** Near is a filled disc, far a ring, a hub a filled square; others are small rings. */
export const siteStyle = (t: Tokens, name: string, role: "near" | "far" | "hub" | "site", note: string): Style => {
  const image =
    role === "near"
      ? new Circle({ declutterMode: "none", radius: 6, fill: new Fill({ color: t("near") }) })
      : role === "far"
        ? new Circle({
            declutterMode: "none",
            radius: 5.5,
            fill: new Fill({ color: t("paper") }),
            stroke: new Stroke({ color: t("far"), width: 2.6 }),
          })
        : role === "hub"
          ? new RegularShape({ declutterMode: "none", points: 4, radius: 8, angle: Math.PI / 4, fill: new Fill({ color: t("ink") }) })
          : new Circle({
              declutterMode: "none",
              radius: 4,
              fill: new Fill({ color: t("paper") }),
              stroke: new Stroke({ color: t("ink"), width: 1.8 }),
            });
  return new Style({
    image,
    text: new Text({
      text: note === "" ? name : `${name}\n${note}`,
      font: `650 14px ${FONT}`,
      fill: new Fill({ color: t(role === "near" ? "near" : role === "far" ? "far" : "ink") }),
      stroke: new Stroke({ color: t("paper"), width: 4 }),
      offsetX: 11,
      offsetY: -9,
      textAlign: "left",
    }),
    zIndex: role === "site" ? 3 : 5,
  });
};

/** A place that was typed and where nothing stands: a cross with its words. */
export const typedPlaceStyle = (t: Tokens, words: string): Style =>
  new Style({
    image: new RegularShape({
      points: 4,
      radius: 9,
      radius2: 0,
      angle: Math.PI / 4,
      declutterMode: "none",
      stroke: new Stroke({ color: t("ink"), width: 1.6 }),
    }),
    text: new Text({
      text: words,
      font: `italic 13px ${FONT}`,
      fill: new Fill({ color: t("ink-2") }),
      stroke: new Stroke({ color: t("paper"), width: 3 }),
      offsetX: 14,
      textAlign: "left",
    }),
  });
