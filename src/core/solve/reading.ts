/* The drawing read at one place: ground, what stands there, the ray, and what is free between them. */
import type { LinkPlan, PreparedPath } from "../link";
import { f1RadiusM, isSpan, type Ray, rayBulgeM, rayZM, shareOfPoint } from "../obstacles";

/** Bodies farther aside than this many F1 are not named as beside the ray. */
const BESIDE_F1 = 3;
const BESIDE_LEAST_M = 5;

export interface Reading {
  readonly atM: number;
  /** Null where the ground is unknown. */
  readonly groundAmslM: number | null;
  /** The highest thing under, or in, the ray at this place; null where the ground is bare. */
  readonly top: { readonly id: string; readonly name: string; readonly amslM: number } | null;
  readonly rayAmslM: number;
  readonly f1M: number;
  /** Room between the ray and the highest of ground and body beneath it; negative is inside. Null where nothing is known. */
  readonly clearM: number | null;
  /** The same as a share of F1. */
  readonly share: number | null;
  /** The nearest body beside the ray here, and how far its nearest edge lies aside; left negative. */
  readonly beside: { readonly name: string; readonly acrossM: number } | null;
}

const acrossAt = (xM: readonly number[], yM: readonly number[], atM: number): number | null => {
  let best: number | null = null;
  for (let i = 0; i < xM.length; i++) {
    const j = (i + 1) % xM.length;
    const [a, b] = [xM[i]!, xM[j]!];
    if (a < atM === b < atM) continue;
    const y = yM[i]! + ((yM[j]! - yM[i]!) * (atM - a)) / (b - a);
    if (best === null || Math.abs(y) < Math.abs(best)) best = y;
  }
  return best;
};

/** @param year bodies as they stand in that year. */
export const readAt = (plan: LinkPlan, path: PreparedPath, ray: Ray, atM: number, year = plan.policy.year): Reading => {
  const groundAmslM = path.groundAt(atM);
  const rayAmslM = rayZM(ray, atM) - rayBulgeM(ray, atM);
  const f1M = f1RadiusM(ray, atM);
  let top: Reading["top"] = null;
  let beside: Reading["beside"] = null;
  for (const b of path.near) {
    const over = b.stretches.some((s) => s.fromM <= atM && atM <= s.toM);
    if (over) {
      const amslM = b.topAt(year)(atM);
      // Beneath a span the air is free.
      if (isSpan(b.body.kind) && rayAmslM < b.body.baseAmslM + (b.body.freeBelowM ?? 0)) continue;
      if (top === null || amslM > top.amslM) top = { id: b.body.id, name: b.body.name, amslM };
      continue;
    }
    const acrossM = acrossAt(b.body.xM, b.body.yM, atM);
    if (acrossM === null || Math.abs(acrossM) > Math.max(BESIDE_LEAST_M, BESIDE_F1 * f1M)) continue;
    if (beside === null || Math.abs(acrossM) < Math.abs(beside.acrossM)) beside = { name: b.body.name, acrossM };
  }
  const known = !Number.isNaN(groundAmslM);
  const highest = Math.max(known ? groundAmslM : Number.NEGATIVE_INFINITY, top?.amslM ?? Number.NEGATIVE_INFINITY);
  const clearM = highest === Number.NEGATIVE_INFINITY ? null : rayAmslM - highest;
  let share: number | null = null;
  if (clearM !== null && f1M > 0) {
    share = clearM < 0 ? clearM / f1M : shareOfPoint(ray, atM, 0, highest + rayBulgeM(ray, atM));
  }
  return { atM, groundAmslM: known ? groundAmslM : null, top, rayAmslM, f1M, clearM, share, beside };
};

/** Distances for a table of the path: both ends, the middle of every body near the ray, and even steps between. */
export const tableDistances = (path: PreparedPath, worstAtM: number | null, steps = 24): number[] => {
  const { pathM } = path.profile;
  const at = new Set<number>();
  for (let i = 0; i <= steps; i++) at.add(Math.round((pathM * i * 10) / steps) / 10);
  for (const b of path.near) for (const s of b.stretches) at.add(Math.min(pathM, Math.max(0, (s.fromM + s.toM) / 2)));
  if (worstAtM !== null && worstAtM >= 0 && worstAtM <= pathM) at.add(worstAtM);
  return [...at].filter((x) => x <= pathM).sort((a, b) => a - b);
};
