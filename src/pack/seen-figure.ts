import type { PackEnd } from "../contract";
import { isVegetation } from "../core/obstacles";
import { area, type Block, type Box, cutText, hatch, line, type Mark, polyline, rect, text, textWidthPt } from "../core/page";
import { bearingText, figure } from "../ui/wording/numbers";

/* What the mount sees: ground, roofs and trees by degrees left and right of the aim, heights drawn larger so that they can be told apart. */

const LARGER = [1, 2, 3, 5, 8, 10, 15, 20];
const LABELS = 8;
/** Nearer than this a thing is beside one, not a mark to aim by. */
const NEAR_M = 60;
const MOST_DOWN_DEG = 3;
/** Kinds that somebody standing there can tell apart by name. */
const NAMED: ReadonlySet<string> = new Set(["building", "mast", "crane", "wall"]);

/** "7.6° left" */
export const sideText = (offDeg: number): string =>
  Math.abs(offDeg) < 0.05 ? "on the line" : `${figure(Math.abs(offDeg), 1)}° ${offDeg < 0 ? "left" : "right"}`;

export const seenFigure = (end: PackEnd, letter: string, box: Box): { readonly block: Block; readonly larger: number } => {
  const { seen } = end;
  const atX = (off: number): number => box.x + box.width / 2 + (off / seen.halfDeg) * (box.width / 2 - 6);
  const perDeg = (box.width / 2 - 6) / seen.halfDeg;
  const sky = box.y + 42;
  const floor = box.y + box.height - 22;
  // What stands close before one reaches beyond the picture: it is cut, so that what is far can be told apart.
  const far = seen.bodies.filter((b) => b.distanceM > NEAR_M);
  const ridgeUp = seen.ridgeDeg.filter((v) => !Number.isNaN(v));
  const high = Math.max(0.5, seen.farEnd.elevationDeg, ...ridgeUp, ...far.map((b) => b.topDeg)) + 0.3;
  const low = Math.min(seen.farEnd.elevationDeg - 0.6, Math.max(-MOST_DOWN_DEG, Math.min(-0.5, ...ridgeUp, ...far.map((b) => b.baseDeg))));
  const larger = [...LARGER].reverse().find((l) => (high - low) * perDeg * l <= floor - sky) ?? 1;
  const perUp = Math.min(perDeg * larger, (floor - sky) / (high - low));
  const atY = (deg: number): number => Math.max(sky - 8, Math.min(floor, sky + (high - deg) * perUp));
  const marks: Mark[] = [];
  // Ground against the sky, then what stands before it, the nearest last.
  const ridge: [number, number][] = [];
  seen.offDeg.forEach((off, i) => {
    if (!Number.isNaN(seen.ridgeDeg[i]!)) ridge.push([atX(off), atY(seen.ridgeDeg[i]!)]);
  });
  if (ridge.length > 1) marks.push(polyline(ridge, 0.9));
  for (const b of seen.bodies) {
    const x0 = Math.max(box.x + 2, atX(b.fromDeg));
    const x1 = Math.min(box.x + box.width - 2, Math.max(atX(b.toDeg), atX(b.fromDeg) + 1.5));
    const [top, base] = [atY(b.topDeg), atY(Math.max(b.baseDeg, low))];
    if (x1 <= x0 || base - top < 0.5) continue;
    if (isVegetation(b.kind)) {
      const rise = Math.min(4, (base - top) / 2);
      marks.push(
        area(
          [
            [x0, base],
            [x0, top + rise],
            [x0 + (x1 - x0) / 4, top],
            [x1 - (x1 - x0) / 4, top],
            [x1, top + rise],
            [x1, base],
          ],
          "paper",
          0.7,
        ),
      );
    } else {
      marks.push(rect({ x: x0, y: top, width: x1 - x0, height: base - top }, "paper", 0.7));
      marks.push(
        hatch(
          [
            [x0, top],
            [x1, top],
            [x1, base],
            [x0, base],
          ],
          2.6,
          -45,
        ),
      );
    }
  }
  marks.push(
    line(box.x + 2, atY(0), box.x + box.width - 2, atY(0), 0.5, [1, 1.6]),
    rect({ x: box.x + box.width - 54, y: atY(0) - 9, width: 52, height: 8.5 }, "paper", 0),
    text(box.x + box.width - 4, atY(0) - 2, "level with you", 7, { anchor: "end" }),
  );
  // The other end: an arrow onto it.
  const farY = atY(seen.farEnd.elevationDeg);
  const x = atX(seen.farEnd.offDeg);
  marks.push(
    line(x, box.y + 14, x, farY - 7, 1.3),
    area(
      [
        [x - 3, farY - 8],
        [x + 3, farY - 8],
        [x, farY - 1],
      ],
      "ink",
      0,
    ),
  );
  marks.push(text(x + 6, box.y + 14, cutText(`${letter} ${seen.farEnd.name}`, 150, 9, "bold"), 9, { face: "bold" }));
  // Landmarks nearest the aim first, and only where their words find room.
  const rows = [box.y + 12, box.y + 24, box.y + 36];
  const taken: { x0: number; x1: number; row: number }[] = [{ x0: x - 4, x1: x + 160, row: 0 }];
  const named = [
    ...seen.landmarks.filter((l) => !l.hidden),
    ...seen.bodies
      .filter((b) => b.name !== "" && b.distanceM > NEAR_M && NAMED.has(b.kind) && b.toDeg - b.fromDeg < 12)
      .map((b) => ({ name: b.name, offDeg: (b.fromDeg + b.toDeg) / 2, elevationDeg: b.topDeg, distanceM: b.distanceM, hidden: false })),
  ]
    .filter(
      (l, i, all) =>
        l.name !== seen.farEnd.name &&
        Math.abs(l.offDeg) > 0.3 &&
        Math.abs(l.offDeg) < seen.halfDeg &&
        all.findIndex((o) => o.name === l.name) === i,
    )
    .sort((a, b) => Math.abs(a.offDeg) - Math.abs(b.offDeg));
  const told: string[] = [];
  for (const l of named) {
    if (told.length >= LABELS) break;
    const words = `${l.name} ${sideText(l.offDeg)}`;
    const width = textWidthPt(words, 7.5);
    const left = Math.max(box.x + 4, Math.min(box.x + box.width - 4 - width, atX(l.offDeg) - width / 2));
    const row = rows.findIndex((_, r) => taken.every((t) => t.row !== r || left > t.x1 + 4 || left + width < t.x0 - 4));
    if (row < 0) continue;
    taken.push({ x0: left, x1: left + width, row });
    told.push(words);
    marks.push(rect({ x: left - 1, y: rows[row]! - 7, width: width + 2, height: 9 }, "paper", 0), text(left, rows[row]!, words, 7.5));
    marks.push(line(atX(l.offDeg), rows[row]! + 2.5, atX(l.offDeg), Math.max(rows[row]! + 3, atY(l.elevationDeg) - 1), 0.4, [1, 1.5]));
  }
  marks.push(line(box.x, floor, box.x + box.width, floor, 1));
  const magnetic = end.bearingDeg - end.declinationDeg;
  for (let off = -seen.halfDeg + 10; off < seen.halfDeg; off += 10) {
    const at = Math.round((magnetic + off) / 10) * 10;
    const tick = at - magnetic;
    if (Math.abs(tick) > seen.halfDeg - 2) continue;
    marks.push(line(atX(tick), floor, atX(tick), floor + 4, 0.6));
    if (Math.abs(tick) > 3.5) marks.push(text(atX(tick), floor + 12, `${(at + 720) % 360}°`, 7.5, { anchor: "middle" }));
  }
  marks.push(
    text(atX(0), floor + 17, bearingText(magnetic + 360), 9, { face: "bold", anchor: "middle" }),
    text(box.x + box.width - 4, floor + 19, "magnetic", 7, { anchor: "end" }),
  );
  return {
    larger: Math.max(1, Math.round(perUp / perDeg)),
    block: {
      role: "Figure",
      alt: `What is seen from behind the antenna at ${end.name}. ${seen.farEnd.name} lies ${bearingText(magnetic + 360)} magnetic. ${told.length === 0 ? "No landmark is known." : `${told.join(", ")}.`}`,
      marks,
    },
  };
};
