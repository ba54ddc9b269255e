/*
 * What stands before a mount: the line of the ground, roofs and trees as they are seen from it, by degrees left and
 * right of the aim and above and below level. Over an earth of the usual effective radius, as light and radio bend
 * nearly alike. Ours: how finely is looked, and that of a body only its widest and highest are told.
 */

import { bearingsBetween, destination, elevationAngleDeg, type LatLon } from "../geo";
import type { BodyKind } from "../obstacles";

export interface SeenBody {
  readonly id: string;
  readonly name: string;
  readonly kind: BodyKind;
  readonly fromDeg: number;
  readonly toDeg: number;
  readonly baseDeg: number;
  readonly topDeg: number;
  readonly distanceM: number;
}

export interface SeenLandmark {
  readonly name: string;
  readonly offDeg: number;
  readonly elevationDeg: number;
  readonly distanceM: number;
  /** Ground stands before it. */
  readonly hidden: boolean;
}

export interface Seen {
  readonly halfDeg: number;
  /** Line of the ground against the sky from left to right, and where it lies; NaN where nothing is known. */
  readonly offDeg: Float64Array;
  readonly ridgeDeg: Float64Array;
  readonly ridgeM: Float64Array;
  /** The farthest first, as they are drawn. */
  readonly bodies: readonly SeenBody[];
  readonly landmarks: readonly SeenLandmark[];
  readonly farEnd: SeenLandmark;
}

export interface SeenFrom {
  readonly mount: LatLon & { readonly amslM: number };
  readonly aimDeg: number;
  readonly farEnd: LatLon & { readonly name: string; readonly amslM: number };
  readonly halfDeg: number;
  readonly kFactor: number;
  /** NaN where the ground is not known. */
  readonly groundAt: (p: LatLon) => number;
  readonly bodies: readonly {
    readonly id: string;
    readonly name: string;
    readonly kind: BodyKind;
    readonly outline: readonly LatLon[];
    readonly baseAmslM: number | null;
    readonly heightM: number;
  }[];
  /** Named places to aim by: other sites, towers, corners of what is known by name. */
  readonly landmarks: readonly (LatLon & { readonly name: string; readonly amslM: number | null })[];
}

const STEP_DEG = 0.5;
const NEAREST_M = 8;
const GROWTH = 1.06;
/** As far beyond the other end as is looked. */
const BEYOND = 1.25;
const LEAST_REACH_M = 1000;
const MOST_REACH_M = 25_000;
/** The building one stands on is not seen before one. */
const OWN_M = 3;
/** Beneath this a thing is not told apart from its neighbours. */
const LEAST_TOP_DEG = 0.02;

/** Angle left (negative) or right of the aim, -180 to 180. */
export const offAim = (bearingDeg: number, aimDeg: number): number => ((bearingDeg - aimDeg + 540) % 360) - 180;

export const seenReachM = (toFarM: number): number => Math.min(MOST_REACH_M, Math.max(LEAST_REACH_M, toFarM * BEYOND));

export const seenFrom = ({ mount, aimDeg, farEnd, halfDeg, kFactor, groundAt, bodies, landmarks }: SeenFrom): Seen => {
  const toFar = bearingsBetween(mount, farEnd);
  const reachM = seenReachM(toFar.distanceM);
  const count = Math.round((2 * halfDeg) / STEP_DEG) + 1;
  const offDeg = Float64Array.from({ length: count }, (_, i) => -halfDeg + i * STEP_DEG);
  const ridgeDeg = new Float64Array(count).fill(Number.NaN);
  const ridgeM = new Float64Array(count).fill(Number.NaN);
  const up = (amslM: number, distanceM: number): number => elevationAngleDeg(mount.amslM, amslM, distanceM, kFactor);
  for (let i = 0; i < count; i++)
    for (let d = NEAREST_M; d <= reachM; d *= GROWTH) {
      const ground = groundAt(destination(mount, aimDeg + offDeg[i]!, d));
      if (Number.isNaN(ground)) continue;
      const angle = up(ground, d);
      if (!(angle <= ridgeDeg[i]!)) {
        ridgeDeg[i] = angle;
        ridgeM[i] = d;
      }
    }
  const ridgeBefore = (off: number, distanceM: number): number => {
    const i = Math.max(0, Math.min(count - 1, Math.round((off + halfDeg) / STEP_DEG)));
    return ridgeM[i]! < distanceM ? ridgeDeg[i]! : Number.NEGATIVE_INFINITY;
  };
  const seen = bodies.flatMap((b): SeenBody[] => {
    const corners = b.outline.map((p) => {
      const to = bearingsBetween(mount, p);
      return { off: offAim(to.nearDeg, aimDeg), m: to.distanceM };
    });
    const nearest = Math.min(...corners.map((c) => c.m));
    if (nearest < OWN_M || nearest > reachM) return [];
    const from = Math.min(...corners.map((c) => c.off));
    const to = Math.max(...corners.map((c) => c.off));
    // Behind one, or all about one: not before the mount.
    if (to < -halfDeg || from > halfDeg || to - from > 150) return [];
    const own = b.baseAmslM ?? groundAt(b.outline[0]!);
    if (Number.isNaN(own)) return [];
    const topDeg = up(own + b.heightM, nearest);
    if (topDeg - up(own, nearest) < LEAST_TOP_DEG || topDeg < ridgeBefore((from + to) / 2, nearest)) return [];
    return [{ id: b.id, name: b.name, kind: b.kind, fromDeg: from, toDeg: to, baseDeg: up(own, nearest), topDeg, distanceM: nearest }];
  });
  const landmarkOf = (p: LatLon & { readonly name: string; readonly amslM: number | null }): SeenLandmark => {
    const to = bearingsBetween(mount, p);
    const off = offAim(to.nearDeg, aimDeg);
    const amslM = p.amslM ?? groundAt(p);
    const elevationDeg = Number.isNaN(amslM) ? 0 : up(amslM, to.distanceM);
    return { name: p.name, offDeg: off, elevationDeg, distanceM: to.distanceM, hidden: elevationDeg < ridgeBefore(off, to.distanceM) };
  };
  return {
    halfDeg,
    offDeg,
    ridgeDeg,
    ridgeM,
    bodies: seen.sort((a, b) => b.distanceM - a.distanceM),
    landmarks: landmarks.map(landmarkOf).filter((l) => Math.abs(l.offDeg) <= halfDeg && l.distanceM > OWN_M && l.distanceM <= reachM),
    farEnd: landmarkOf(farEnd),
  };
};
