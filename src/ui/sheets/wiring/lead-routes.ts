import type { Lead, Place } from "@/core/wiring";
import type { Box, DrawnLead, Point, Socket } from "./end-layout";

/* The way of each lead in the drawing of an end: along the mast, in through the wall, between columns, each in a lane of its own. */

interface Ground {
  readonly boxes: readonly Box[];
  readonly columns: readonly (readonly Place[])[];
  /** Where the gap right of a column begins, before the end is turned round. */
  readonly gapAfter: (column: number) => number;
  readonly flip: (x: number) => number;
  readonly mirror: boolean;
  readonly mastX: number;
  readonly powered: ReadonlySet<string>;
  readonly socketOf: (end: Lead["from"]) => Socket | undefined;
}

/** Along the mast, beside what hangs on it. */
const alongMast = (p: Socket, q: Socket, n: number): Point[] => {
  const x = Math.max(p.x, q.x) + 12 + n * 3;
  const [a, b] = [p, q].map((s) => (s.out === "down" ? { x: s.x, y: s.y + 5 } : s)) as [Point, Point];
  return [p, a, { x, y: a.y }, { x, y: b.y }, b, q];
};

/** Down along the mast, a loop beneath the hole, and in. */
const downMast = (top: Socket, low: Socket, x: number): Point[] => {
  const inX = low.out === "down" ? low.x : low.x + (low.out === "left" ? -8 : 8);
  const loop = low.y + 14;
  const from = top.y + (top.out === "down" ? 6 : 0);
  return [
    top,
    { x: top.x, y: from },
    { x, y: from },
    { x, y: loop },
    { x: (x + inX) / 2, y: loop },
    { x: (x + inX) / 2, y: low.y },
    { x: inX, y: low.y },
    low,
  ];
};

/** The first bit out of a socket; out of a row of sockets it goes down behind the case first. */
const outOf = (s: Socket, box: Box, n: number): Point => {
  const d = 7 + (n % 5) * 3;
  if (s.out === "down" && box.sockets.length > 3) return { x: s.x, y: box.y + box.h + 4 + (n % 8) * 3 };
  return s.out === "down" ? { x: s.x, y: s.y + d } : { x: s.x + (s.out === "left" ? -d : d), y: s.y };
};

export const routedLeads = (leads: readonly Lead[], g: Ground): DrawnLead[] => {
  const boxOf = new Map(g.boxes.map((b) => [b.place.id, b]));
  const lanes = new Map<string, number>();
  const lane = (key: string): number => {
    const n = lanes.get(key) ?? 0;
    lanes.set(key, n + 1);
    return n;
  };
  const columnOf = (place: Place): number => g.columns.findIndex((c) => c.includes(place));
  return leads.flatMap((lead): DrawnLead[] => {
    const [p, q] = [g.socketOf(lead.from), g.socketOf(lead.to)];
    if (p === undefined || q === undefined) return [];
    const [bp, bq] = [boxOf.get(p.placeId)!, boxOf.get(q.placeId)!];
    const isMains = p.shape === "mains" || q.shape === "mains";
    const kind = isMains ? "mains" : g.powered.has(lead.id) ? "power" : "data";
    const middled = (points: Point[]): DrawnLead => ({
      lead,
      points: tidy(points),
      kind,
      label: points[Math.floor(points.length / 2)]!,
    });
    const [pMast, qMast] = [bp.place.where === "mast", bq.place.where === "mast"];
    if (pMast && qMast) return [middled(alongMast(p, q, lane("mast")))];
    if (pMast || qMast) {
      const [top, low] = pMast ? [p, q] : [q, p];
      const x = g.mastX + (g.mirror ? -1 : 1) * (8 + lane("down") * 4);
      const down = downMast(top, low, x);
      return [{ lead, points: pMast ? down : down.reverse(), kind, label: { x, y: (top.y + low.y + 14) / 2 } }];
    }
    const column = Math.min(columnOf(bp.place), columnOf(bq.place));
    const n = lane(`${column}${isMains ? "m" : ""}`);
    const [s, t] = [outOf(p, bp, n), outOf(q, bq, n)];
    const x = g.flip(g.gapAfter(column) + (n % 6) * 3);
    return [middled([p, s, { x, y: s.y }, { x, y: t.y }, t, q])];
  });
};

/** Without points that lie on one another, or between two of one line. */
const tidy = (points: readonly Point[]): Point[] =>
  points.filter((p, i) => {
    const before = points[i - 1];
    const after = points[i + 1];
    if (before !== undefined && Math.abs(before.x - p.x) < 0.01 && Math.abs(before.y - p.y) < 0.01) return false;
    if (before === undefined || after === undefined) return true;
    return !((before.x === p.x && p.x === after.x) || (before.y === p.y && p.y === after.y));
  });
