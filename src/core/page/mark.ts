/*
 * A page as marks: what is drawn where, in points from the upper left corner. The same marks become the picture on
 * the screen and the PDF, so the two cannot differ. Black on white only: a tone is a hatch, which every printer has.
 */

export type Face = "plain" | "bold";

export interface TextMark {
  readonly kind: "text";
  readonly x: number;
  /** Of the line on which the letters stand. */
  readonly y: number;
  readonly text: string;
  readonly sizePt: number;
  readonly face: Face;
  readonly anchor: "start" | "middle" | "end";
  /** Drawn in white on black. */
  readonly inverse?: boolean;
}

export interface PathMark {
  readonly kind: "path";
  /** As in SVG: M, L, C, Z in absolute points. */
  readonly d: string;
  readonly fill: "ink" | "paper" | null;
  /** Width of the stroke; 0: none. */
  readonly widthPt: number;
  readonly dash?: readonly number[];
}

/** Strokes across an area, at an angle, clipped by it. */
export interface HatchMark {
  readonly kind: "hatch";
  readonly d: string;
  readonly gapPt: number;
  readonly angleDeg: number;
  readonly box: Box;
}

export type Mark = TextMark | PathMark | HatchMark;

export interface Box {
  readonly x: number;
  readonly y: number;
  readonly width: number;
  readonly height: number;
}

/** What a part of a page is, in the order in which it is read aloud. */
export type BlockRole = "H1" | "H2" | "P" | "Table" | "Figure" | "Artifact";

export interface Block {
  readonly role: BlockRole;
  /** What a figure shows, in words. */
  readonly alt?: string;
  /** Rows of a table, each its cells: marks of one cell together. */
  readonly rows?: readonly (readonly (readonly Mark[])[])[];
  readonly marks: readonly Mark[];
}

export interface Page {
  /** Of the sheet within its pack: "B, 1 of 2". */
  readonly name: string;
  readonly widthPt: number;
  readonly heightPt: number;
  readonly blocks: readonly Block[];
}

export const PAPERS = { a4: { widthPt: 595.28, heightPt: 841.89 }, letter: { widthPt: 612, heightPt: 792 } } as const;
export type Paper = keyof typeof PAPERS;

/** Points of a millimetre. */
export const PT_PER_MM = 72 / 25.4;

const n = (v: number): string => (Math.round(v * 100) / 100).toString();

export const text = (
  x: number,
  y: number,
  words: string,
  sizePt = 9,
  { face = "plain", anchor = "start", inverse = false }: Partial<Pick<TextMark, "face" | "anchor" | "inverse">> = {},
): TextMark => ({ kind: "text", x, y, text: words, sizePt, face, anchor, ...(inverse ? { inverse } : {}) });

export const line = (x1: number, y1: number, x2: number, y2: number, widthPt = 0.6, dash?: readonly number[]): PathMark => ({
  kind: "path",
  d: `M${n(x1)} ${n(y1)}L${n(x2)} ${n(y2)}`,
  fill: null,
  widthPt,
  ...(dash === undefined ? {} : { dash }),
});

export const polyline = (points: readonly (readonly [number, number])[], widthPt = 1, dash?: readonly number[]): PathMark => ({
  kind: "path",
  d: points.map(([x, y], i) => `${i === 0 ? "M" : "L"}${n(x)} ${n(y)}`).join(""),
  fill: null,
  widthPt,
  ...(dash === undefined ? {} : { dash }),
});

export const areaPath = (points: readonly (readonly [number, number])[]): string =>
  `${points.map(([x, y], i) => `${i === 0 ? "M" : "L"}${n(x)} ${n(y)}`).join("")}Z`;

export const area = (points: readonly (readonly [number, number])[], fill: "ink" | "paper" | null, widthPt = 0.8): PathMark => ({
  kind: "path",
  d: areaPath(points),
  fill,
  widthPt,
});

export const rect = (b: Box, fill: "ink" | "paper" | null = null, widthPt = 0.6): PathMark =>
  area(
    [
      [b.x, b.y],
      [b.x + b.width, b.y],
      [b.x + b.width, b.y + b.height],
      [b.x, b.y + b.height],
    ],
    fill,
    widthPt,
  );

const ROUND = 0.5523;
export const circle = (cx: number, cy: number, r: number, fill: "ink" | "paper" | null, widthPt = 1): PathMark => {
  const k = r * ROUND;
  const c = (...v: number[]): string => `C${v.map(n).join(" ")}`;
  return {
    kind: "path",
    d: `M${n(cx - r)} ${n(cy)}${c(cx - r, cy - k, cx - k, cy - r, cx, cy - r)}${c(cx + k, cy - r, cx + r, cy - k, cx + r, cy)}${c(cx + r, cy + k, cx + k, cy + r, cx, cy + r)}${c(cx - k, cy + r, cx - r, cy + k, cx - r, cy)}Z`,
    fill,
    widthPt,
  };
};

/** Strokes over an area: 45 degrees falling to the left, -45 to the right. */
export const hatch = (points: readonly (readonly [number, number])[], gapPt = 3.2, angleDeg = 45): HatchMark => {
  const xs = points.map(([x]) => x);
  const ys = points.map(([, y]) => y);
  const x = Math.min(...xs);
  const y = Math.min(...ys);
  return { kind: "hatch", d: areaPath(points), gapPt, angleDeg, box: { x, y, width: Math.max(...xs) - x, height: Math.max(...ys) - y } };
};

/** Ends of the strokes of a hatch over its box, unclipped. */
export const hatchStrokes = ({ box, gapPt, angleDeg }: HatchMark): readonly (readonly [number, number, number, number])[] => {
  const tan = Math.tan((angleDeg * Math.PI) / 180);
  const step = gapPt / Math.abs(Math.cos((angleDeg * Math.PI) / 180));
  const out: [number, number, number, number][] = [];
  const rise = box.width * tan;
  const from = Math.min(0, rise);
  const until = box.height + Math.max(0, rise);
  for (let at = from; at <= until; at += step) out.push([box.x, box.y + at, box.x + box.width, box.y + at - rise]);
  return out;
};
