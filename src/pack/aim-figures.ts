import type { PackEnd } from "../contract";
import type { AimingTable } from "../core/aim";
import { scaleMmPerDeg } from "../core/aim";
import { type Block, type Box, hatch, line, type Mark, PT_PER_MM, polyline, rect, text } from "../core/page";
import { figure } from "../ui/wording/numbers";
import { niceStep } from "./section-figure";

/* The aiming table with room for what is read, level against turn, and a scale to be cut out and laid round the pole. */

const ROW_PT = 11.6;
/** Of the cut below its peak that is drawn where hardly any of it is heard. */
const SHOWN_DB = 35;
/** What the radio needs is drawn where it lies no farther beneath that. */
const LEAST_WITHIN_DB = 12;

export const degText = (deg: number): string => `${Number(deg.toFixed(2))}°`;

/** Rows of the table that fit into a height. */
export const tableBlock = (table: AimingTable, leastDbm: number, box: Box): Block => {
  const at = [box.x + 34, box.x + 88, box.x + 104, box.x + 158];
  const wide = 50;
  const most = Math.floor((box.height - 18) / ROW_PT);
  const rows = table.rows.length <= most ? table.rows : table.rows.filter((_, i) => i % Math.ceil(table.rows.length / most) === 0);
  const marks: Mark[] = [];
  const head: Mark[][] = [
    [text(at[0]!, box.y + 9, "off", 7.5, { anchor: "end" })],
    [text(at[1]!, box.y + 9, "expected", 7.5, { anchor: "end" })],
    [text(at[2]! + wide / 2, box.y + 9, "read left", 7.5, { anchor: "middle" })],
    [text(at[3]! + wide / 2, box.y + 9, "read right", 7.5, { anchor: "middle" })],
  ];
  marks.push(line(box.x, box.y + 13, box.x + 212, box.y + 13, 0.6));
  const body = rows.map((r, i) => {
    const y = box.y + 16 + i * ROW_PT;
    const face = r.falsePeak || i === 0 ? "bold" : "plain";
    marks.push(
      rect({ x: at[2]!, y, width: wide, height: ROW_PT - 2 }, null, 0.5),
      rect({ x: at[3]!, y, width: wide, height: ROW_PT - 2 }, null, 0.5),
    );
    if (r.falsePeak) marks.push(line(box.x - 1, y - 1, box.x - 1, y + ROW_PT - 1, 2));
    return [
      [text(at[0]!, y + 8, degText(r.offDeg), 8.5, { anchor: "end", face })],
      [
        text(at[1]!, y + 8, r.levelDbm < leastDbm ? "not heard" : figure(r.levelDbm), r.levelDbm < leastDbm ? 7.5 : 8.5, {
          anchor: "end",
          face,
        }),
      ],
    ];
  });
  return { role: "Table", rows: [head, ...body], marks };
};

export const curveBlock = (end: PackEnd, table: AimingTable, box: Box): Block => {
  const level = end.level!;
  const reach = end.curve[end.curve.length - 1]!.offDeg;
  const high = Math.max(level.highDbm, level.leastDbm) + 3;
  const weakest = Math.max(Math.min(...end.curve.map((c) => c.dbm)), level.dbm - SHOWN_DB);
  const showsLeast = level.leastDbm > weakest - LEAST_WITHIN_DB;
  const lowest = showsLeast ? Math.min(level.leastDbm - 3, weakest) : weakest - 1;
  const [left, right, top, bottom] = [box.x + 26, box.x + box.width - 8, box.y + 6, box.y + box.height - 16];
  const atX = (off: number): number => (left + right) / 2 + (off / reach) * ((right - left) / 2);
  const atY = (dbm: number): number => top + ((high - Math.max(lowest, dbm)) / (high - lowest)) * (bottom - top);
  const marks: Mark[] = [];
  for (let dbm = Math.ceil(lowest / 10) * 10; dbm < high; dbm += 10)
    marks.push(line(left, atY(dbm), right, atY(dbm), 0.25), text(left - 3, atY(dbm) + 2.5, figure(dbm), 7.5, { anchor: "end" }));
  const band = [
    ...end.curve.map((c): [number, number] => [atX(c.offDeg), atY(c.dbm + level.highDbm - level.dbm)]),
    ...[...end.curve].reverse().map((c): [number, number] => [atX(c.offDeg), atY(c.dbm + level.lowDbm - level.dbm)]),
  ];
  marks.push(
    hatch(band, 2.6, 45),
    polyline(
      end.curve.map((c) => [atX(c.offDeg), atY(c.dbm)]),
      1.5,
    ),
  );
  if (showsLeast)
    marks.push(
      line(left, atY(level.leastDbm), right, atY(level.leastDbm), 0.7, [5, 3]),
      text(left + 3, atY(level.leastDbm) - 2.5, "beneath it nothing is heard", 7),
    );
  if (table.falsePeakDeg !== null && table.falsePeakDbm !== null)
    for (const side of [-1, 1])
      marks.push(
        text(
          Math.max(left + 24, Math.min(right - 24, atX(side * table.falsePeakDeg))),
          atY(table.falsePeakDbm + level.highDbm - level.dbm) - 4,
          "false peak",
          7.5,
          { anchor: "middle", face: "bold" },
        ),
      );
  marks.push(line(left, bottom, right, bottom, 0.7));
  const step = niceStep(reach, 4);
  for (let off = -Math.floor(reach / step) * step; off <= reach + 1e-9; off += step)
    marks.push(
      line(atX(off), bottom - 2, atX(off), bottom + 2, 0.6),
      text(atX(off), bottom + 10, degText(Math.abs(off)), 7.5, { anchor: "middle" }),
    );
  return {
    role: "Figure",
    alt: `Level against turn: ${figure(level.dbm)} dBm at the peak${table.falsePeakDeg === null ? "" : `, a false peak of ${figure(table.falsePeakDbm!)} at ${degText(table.falsePeakDeg)}`}.`,
    marks,
  };
};

/** A scale of degrees for the pole, in true size, with a line of 100 mm to check the print. @returns its height. */
export const poleScale = (poleMm: number, x: number, y: number, widthPt: number): { readonly block: Block; readonly heightPt: number } => {
  const mm = scaleMmPerDeg(poleMm);
  const most = Math.floor(widthPt / PT_PER_MM / mm / 2);
  const reach = Math.min(60, most);
  const every = mm >= 1 ? 1 : mm >= 0.5 ? 2 : 5;
  const atX = (deg: number): number => x + widthPt / 2 + deg * mm * PT_PER_MM;
  const base = y + 26;
  const marks: Mark[] = [line(atX(-reach), base, atX(reach), base, 0.6)];
  for (let deg = -Math.floor(reach / every) * every; deg <= reach; deg += every) {
    const long = deg % (every * 5) === 0;
    marks.push(line(atX(deg), base, atX(deg), base - (long ? 9 : 5), deg === 0 ? 1.4 : 0.4));
    if (long)
      marks.push(
        text(atX(deg), base - 11, String(Math.abs(deg)), 7, { anchor: "middle", ...(deg === 0 ? { face: "bold" as const } : {}) }),
      );
  }
  marks.push(text(atX(-reach), base + 9, "left, degrees", 7), text(atX(reach), base + 9, "right", 7, { anchor: "end" }));
  const check = base + 20;
  marks.push(
    line(x, check, x + 100 * PT_PER_MM, check, 0.8),
    line(x, check - 4, x, check + 4, 0.8),
    line(x + 100 * PT_PER_MM, check - 4, x + 100 * PT_PER_MM, check + 4, 0.8),
  );
  marks.push(text(x + 100 * PT_PER_MM + 8, check + 3, "100 mm long, else the print was scaled: do not use it", 7.5));
  return {
    heightPt: 54,
    block: {
      role: "Figure",
      alt: `A scale for a pole of ${figure(poleMm)} mm: ${figure(mm, 2)} mm a degree. A line of 100 mm to check the print.`,
      marks,
    },
  };
};
