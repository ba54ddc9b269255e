import { effectiveRadiusM } from "../geo";
import type { PreparedPath } from "./prepare";
import type { LinkPlan } from "./types";

/** A path from the side in few points, to be drawn small. */
export interface SectionSketch {
  readonly pathM: number;
  readonly nearAmslM: number;
  readonly farAmslM: number;
  readonly effectiveRadiusM: number;
  readonly wavelengthM: number;
  readonly distanceM: readonly number[];
  /** Null where the ground is unknown. */
  readonly groundAmslM: readonly (number | null)[];
  readonly topAmslM: readonly (number | null)[];
}

const SKETCH_POINTS = 160;

/** A path in few points: of each stretch its highest ground, and the highest that stands on it. */
export const sketchOf = (plan: LinkPlan, path: PreparedPath, nearAmslM: number, farAmslM: number): SectionSketch => {
  const { distanceM, groundAmslM, pathM } = path.profile;
  const n = Math.min(SKETCH_POINTS, distanceM.length);
  const x: number[] = [];
  const ground: (number | null)[] = [];
  const top: (number | null)[] = [];
  for (let s = 0; s < n; s++) {
    const from = Math.floor((s * distanceM.length) / n);
    const to = Math.max(from + 1, Math.floor(((s + 1) * distanceM.length) / n));
    let best = from;
    for (let i = from; i < to; i++) if (groundAmslM[i]! > groundAmslM[best]!) best = i;
    const at = distanceM[best]!;
    const g = groundAmslM[best]!;
    let t = g;
    for (const b of path.bodies) {
      if (b.stretches.some((k) => k.toM >= distanceM[from]! && k.fromM <= distanceM[to - 1]!))
        t = Math.max(t, b.topAt(plan.policy.year)(at));
    }
    x.push(Math.round(at * 10) / 10);
    ground.push(Number.isNaN(g) ? null : Math.round(g * 10) / 10);
    top.push(Number.isNaN(t) ? null : Math.round(t * 10) / 10);
  }
  return {
    pathM,
    nearAmslM,
    farAmslM,
    effectiveRadiusM: effectiveRadiusM(plan.policy.kFactor),
    wavelengthM: path.wavelengthM,
    distanceM: x,
    groundAmslM: ground,
    topAmslM: top,
  };
};
