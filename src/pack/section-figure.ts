import type { PackLink } from "../contract";
import { f1RadiusM, rayBulgeM, rayZM } from "../core/obstacles";
import { type Block, type Box, circle, cutText, hatch, line, type Mark, polyline, rect, text, textWidthPt } from "../core/page";
import { sectionScale } from "../ui/drawing/section-scale";
import { distanceTicks } from "../ui/drawing/ticks";
import { distanceText, lengthIn, lengthText, lengthUnit, type Units } from "../ui/wording/numbers";

/* The section on a page: black on white, the same scale as the sheet's, the one place that decides dimensioned. */

const GROUND_BAND_PT = 6;
const CURVE = 60;
const TICKS = [1, 2, 5];
/** Left for names above, for the ground below, for heights at the side. */
const ROOM = { left: 52, right: 44, top: 26, bottom: 14 };
const scaleOf = (l: PackLink, box: Box) => sectionScale(l.path, l.plan, l.ray, box.width, box.height - 16, false, ROOM);

/** A round step that makes at most so many of a span. */
export const niceStep = (span: number, most: number): number => {
  for (let power = -2; ; power++) for (const t of TICKS) if (t * 10 ** power * most >= span) return t * 10 ** power;
};

const spareWords = (missM: number, units: Units): string =>
  missM <= 0 ? `${lengthText(units, -missM)} free` : `${lengthText(units, missM)} short`;

/** @param youAre the end at which the page is read; null: neither. */
export const sectionFigure = (l: PackLink, box: Box, units: Units, youAre: 0 | 1 | null): Block => {
  const { path, plan, ray, result } = l;
  const { profile } = path;
  const scale = scaleOf(l, box);
  const atX = (m: number): number => box.x + scale.x(m);
  const atY = (z: number): number => box.y + scale.y(z);
  const marks: Mark[] = [];
  const ground: [number, number][] = [];
  profile.distanceM.forEach((d, i) => {
    const g = profile.groundAmslM[i]!;
    if (!Number.isNaN(g)) ground.push([atX(d), atY(g + rayBulgeM(ray, d))]);
  });
  // Thousands of points are more than a line on paper shows.
  const every = Math.max(1, Math.floor(ground.length / 400));
  const shown = ground.filter((_, i) => i % every === 0 || i === ground.length - 1);
  if (shown.length > 1) {
    marks.push(hatch([...shown, ...[...shown].reverse().map(([x, y]): [number, number] => [x, y + GROUND_BAND_PT])], 3.2, 45));
  }
  for (const b of path.standing) {
    for (const s of b.stretches) {
      const middle = (s.fromM + s.toM) / 2;
      const base = atY(path.groundAt(middle) + rayBulgeM(ray, middle));
      const top = atY(b.topAt(plan.policy.year)(middle) + rayBulgeM(ray, middle));
      if (!Number.isFinite(base) || !Number.isFinite(top) || top > base - 0.8) continue;
      // What stands beyond an end is no part of the path.
      const [left, right] = [box.x + 36, box.x + box.width - 6];
      const [x0, x1] = [Math.max(left, atX(s.fromM)), Math.min(right, Math.max(atX(s.toM), atX(s.fromM) + 1.2))];
      if (x1 <= x0) continue;
      const outline: [number, number][] = [
        [x0, base],
        [x0, top],
        [x1, top],
        [x1, base],
      ];
      if (b.vegetation) {
        // A crown: rounded above, open within.
        const rise = Math.min(4, (base - top) / 3);
        marks.push(
          polyline(
            [
              [x0, base],
              [x0, top + rise],
              [x0 + (x1 - x0) * 0.25, top],
              [x1 - (x1 - x0) * 0.25, top],
              [x1, top + rise],
              [x1, base],
            ],
            0.8,
          ),
        );
      } else marks.push(rect({ x: x0, y: top, width: x1 - x0, height: base - top }, "paper", 0.7), hatch(outline, 2.6, -45));
    }
  }
  marks.push(polyline(shown, 1.1));
  const zone = (share: number): { over: [number, number][]; under: [number, number][] } => {
    const over: [number, number][] = [];
    const under: [number, number][] = [];
    for (let i = 0; i <= CURVE; i++) {
      const m = ray.startM + ((ray.endM - ray.startM) * i) / CURVE;
      const r = f1RadiusM(ray, m) * share;
      over.push([atX(m), atY(rayZM(ray, m) + r)]);
      under.push([atX(m), atY(rayZM(ray, m) - r)]);
    }
    return { over, under };
  };
  const whole = zone(1);
  const asked = zone(result.clearance.policyShare);
  marks.push(polyline(whole.over, 0.5), polyline(whole.under, 0.5), polyline(asked.under, 0.6, [4, 2.5]));
  marks.push(line(atX(ray.startM), atY(ray.startZM), atX(ray.endM), atY(ray.endZM), 1.2));
  const ends = [
    { m: ray.startM, z: ray.startZM, end: 0 as const, name: l.ends[0].name, anchor: "start" as const },
    { m: ray.endM, z: ray.endZM, end: 1 as const, name: l.ends[1].name, anchor: "end" as const },
  ];
  const names: { x0: number; x1: number; y: number }[] = [];
  for (const e of ends) {
    const foot = path.groundAt(e.end === 0 ? 0 : profile.pathM);
    if (!Number.isNaN(foot)) marks.push(line(atX(e.m), atY(foot + rayBulgeM(ray, e.m)), atX(e.m), atY(e.z), 1.6));
    marks.push(circle(atX(e.m), atY(e.z), 3, e.end === youAre ? "ink" : "paper", 1));
    const mount = lengthText(units, plan[e.end === 0 ? "near" : "far"].mountAglM);
    // Both names have their half.
    const name = cutText(e.end === youAre ? "you are here" : e.name, box.width / 2 - 70, 8.5, "bold");
    const words = `${"AB"[e.end]} ${name}, ${mount}`;
    const x = Math.max(box.x + 6, Math.min(box.x + box.width - 6, atX(e.m) + (e.end === 0 ? -8 : 8)));
    const y = atY(e.z + f1RadiusM(ray, (ray.startM + ray.endM) / 2)) - 4;
    const top = Math.max(box.y + 10, y);
    const wide = textWidthPt(words, 8.5, "bold");
    names.push({ x0: e.anchor === "start" ? x : x - wide, x1: e.anchor === "start" ? x + wide : x, y: top });
    marks.push(text(x, top, words, 8.5, { face: "bold", anchor: e.anchor }));
  }
  const { worst } = result.clearance;
  const isBlind = path.unknownGroundM > 0;
  let worstWords = isBlind ? `ground not known for ${distanceText(units, path.unknownGroundM)}` : "nothing comes near the ray";
  if (isBlind) marks.push(text(box.x + box.width / 2, box.y + box.height - 20, worstWords, 9, { face: "bold", anchor: "middle" }));
  if (worst !== null) {
    const x = atX(worst.atM);
    const yFree = atY(rayZM(ray, worst.atM) - f1RadiusM(ray, worst.atM) * result.clearance.policyShare);
    const yTop = atY(worst.zAmslM + rayBulgeM(ray, worst.atM));
    worstWords = `${spareWords(worst.missM, units)}, ${worst.ownerName ?? "the ground"}`;
    marks.push(
      line(x, Math.min(yFree, yTop), x, Math.max(yFree, yTop), 1),
      line(x - 4, yFree, x + 4, yFree, 1),
      line(x - 4, yTop, x + 4, yTop, 1),
    );
    const width = textWidthPt(worstWords, 9, "bold");
    const left = Math.max(box.x + 6, Math.min(box.x + box.width - 6 - width, x - width / 2));
    // Where the name of an end stands there, it is told a line or two lower.
    const under = Math.max(yFree, yTop);
    const free = [14, 26, 38, 50]
      .map((down) => Math.min(box.y + box.height - 24, under + down))
      .find((at) => names.every((n) => left > n.x1 + 3 || left + width < n.x0 - 3 || Math.abs(at - n.y) > 11));
    const y = free ?? Math.min(box.y + box.height - 24, under + 14);
    marks.push(rect({ x: left - 2, y: y - 9, width: width + 4, height: 12 }, "paper", 0), text(left, y, worstWords, 9, { face: "bold" }));
  }
  // Heights at the left, distance below.
  const heightStep = niceStep(lengthIn(units, scale.highestM - scale.lowestM), 4) / lengthIn(units, 1);
  for (let z = Math.ceil(scale.lowestM / heightStep) * heightStep; z <= scale.highestM; z += heightStep) {
    marks.push(
      line(box.x + 30, atY(z), box.x + 34, atY(z), 0.6),
      text(box.x + 28, atY(z) + 2.5, String(Math.round(lengthIn(units, z) * 10) / 10), 7, { anchor: "end" }),
    );
  }
  marks.push(text(box.x + 28, box.y + 9, lengthUnit(units), 7, { anchor: "end" }));
  const axis = box.y + box.height - 12;
  const { ticks, unit } = distanceTicks(profile.pathM, units, 6);
  marks.push(line(atX(0), axis, atX(profile.pathM), axis, 0.7));
  for (const t of ticks)
    marks.push(line(atX(t.atM), axis - 2.5, atX(t.atM), axis + 2.5, 0.6), text(atX(t.atM), axis + 10, t.text, 7, { anchor: "middle" }));
  marks.push(text(Math.min(box.x + box.width - 4, atX(profile.pathM) + 16), axis + 3, unit, 7));
  return {
    role: "Figure",
    alt: `Section from ${l.ends[0].name} to ${l.ends[1].name}, heights times ${scale.exaggeration}. ${worstWords}.`,
    marks,
  };
};

export const exaggerationOf = (l: PackLink, box: Box): number => scaleOf(l, box).exaggeration;
