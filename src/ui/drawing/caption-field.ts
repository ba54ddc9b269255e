/*
 * The placing rule of a drawing's captions: each asks for its places in order and gets the first that is free of
 * every line and of every caption placed before it; one that finds none is left out, never overlapped.
 */
export interface Box {
  readonly x0: number;
  readonly y0: number;
  readonly x1: number;
  readonly y1: number;
}
type Point = readonly [x: number, y: number];

export interface CaptionField {
  /** A line that no caption may cross. */
  readonly line: (points: readonly Point[]) => void;
  /** A place that no caption may take. */
  readonly take: (box: Box) => void;
  /** A place that a caption leaves free while it has another as good. */
  readonly avoid: (box: Box) => void;
  readonly free: (box: Box) => boolean;
  /** The first free one of some places, taken; places to be avoided come last. Null when none is free. */
  readonly place: <T extends { readonly box: Box }>(candidates: readonly T[]) => T | null;
}

/** Room kept between a caption and a line. */
const CLEAR_PX = 2;
const EDGE_PX = 4;

const overlaps = (a: Box, b: Box): boolean => a.x0 < b.x1 && a.x1 > b.x0 && a.y0 < b.y1 && a.y1 > b.y0;

/** Whether a straight piece runs through a box (Liang and Barsky's clipping). */
export const crosses = (box: Box, x0: number, y0: number, x1: number, y1: number): boolean => {
  if (Math.max(x0, x1) < box.x0 || Math.min(x0, x1) > box.x1 || Math.max(y0, y1) < box.y0 || Math.min(y0, y1) > box.y1) return false;
  let from = 0;
  let to = 1;
  const clip = (p: number, q: number): boolean => {
    if (p === 0) return q >= 0;
    const t = q / p;
    if (p < 0) from = Math.max(from, t);
    else to = Math.min(to, t);
    return from <= to;
  };
  const dx = x1 - x0;
  const dy = y1 - y0;
  return clip(-dx, x0 - box.x0) && clip(dx, box.x1 - x0) && clip(-dy, y0 - box.y0) && clip(dy, box.y1 - y0);
};

export const captionField = (width: number, height: number): CaptionField => {
  const pieces: (readonly [number, number, number, number])[] = [];
  const taken: Box[] = [];
  const avoided: Box[] = [];
  const free = (box: Box): boolean => {
    if (box.x0 < EDGE_PX || box.y0 < EDGE_PX || box.x1 > width - EDGE_PX || box.y1 > height - EDGE_PX) return false;
    const roomy = { x0: box.x0 - CLEAR_PX, y0: box.y0 - CLEAR_PX, x1: box.x1 + CLEAR_PX, y1: box.y1 + CLEAR_PX };
    return !taken.some((t) => overlaps(t, box)) && !pieces.some((p) => crosses(roomy, ...p));
  };
  return {
    line: (points) => {
      for (let i = 1; i < points.length; i++) {
        const [a, b] = [points[i - 1]!, points[i]!];
        if (Math.max(a[0], b[0]) >= -50 && Math.min(a[0], b[0]) <= width + 50) pieces.push([a[0], a[1], b[0], b[1]]);
      }
    },
    take: (box) => void taken.push(box),
    avoid: (box) => void avoided.push(box),
    free,
    place: (candidates) => {
      const open = (box: Box): boolean => !avoided.some((a) => overlaps(a, box));
      const found =
        candidates.find((c) => open(c.box) && free(c.box)) ?? (avoided.length === 0 ? undefined : candidates.find((c) => free(c.box)));
      if (found !== undefined) taken.push(found.box);
      return found ?? null;
    },
  };
};

/** Mean width of a letter, in the size of its type. */
const LETTER = 0.53;

/** Box of a line of text by its anchor and baseline. */
export const textBox = (text: string, x: number, y: number, size: number, anchor: "start" | "middle" | "end", letter = LETTER): Box => {
  const w = text.length * size * letter;
  const x0 = anchor === "start" ? x : anchor === "end" ? x - w : x - w / 2;
  return { x0, y0: y - size * 0.82, x1: x0 + w, y1: y + size * 0.26 };
};

export const around = (boxes: readonly Box[]): Box => ({
  x0: Math.min(...boxes.map((b) => b.x0)),
  y0: Math.min(...boxes.map((b) => b.y0)),
  x1: Math.max(...boxes.map((b) => b.x1)),
  y1: Math.max(...boxes.map((b) => b.y1)),
});
