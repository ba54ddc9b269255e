/* The clearance of one draw: the body or the ground that leaves the least share of F1 beyond the policy's. */
import { f1RadiusM, type Ray, rayBulgeM, rayZM } from "../obstacles";
import { type BodySection, clearOfSectionM } from "./body-sections";
import type { Condition } from "./conditions";
import { MOST_POINTS } from "./draw-diffraction";
import type { Draw } from "./draws";
import type { FieldAlong, GroundField } from "./ground-field";
import type { PathState } from "./path-state";

/** Share of F1 at the worst place, and the room beyond the policy there in metres; negative is missed. */
export type ClearanceOfDraw = (draw: Draw) => { readonly share: number; readonly spareM: number };

/** Of each run of neighbouring points the one with the least share of F1, inner points only. */
const lowestShares = (distanceM: Float64Array, groundAmslM: Float64Array, ray: Ray, mostPoints: number): number[] => {
  const run = Math.max(1, Math.ceil(distanceM.length / mostPoints));
  const kept: number[] = [];
  for (let from = 0; from < distanceM.length; from += run) {
    let best = -1;
    let least = Number.POSITIVE_INFINITY;
    for (let i = from; i < Math.min(distanceM.length, from + run); i++) {
      const x = distanceM[i]!;
      const f1M = f1RadiusM(ray, x);
      if (f1M <= 0) continue;
      const share = (rayZM(ray, x) - groundAmslM[i]! - rayBulgeM(ray, x)) / f1M;
      if (share < least) {
        least = share;
        best = i;
      }
    }
    if (best >= 0) kept.push(best);
  }
  return kept;
};

export const clearanceDraw = (
  state: PathState,
  condition: Condition,
  field: GroundField,
  sections: readonly BodySection[],
  leaves: boolean,
): ClearanceOfDraw => {
  const { ray, share } = condition;
  const { profile } = state.path;
  const kept = lowestShares(profile.distanceM, profile.groundAmslM, ray, MOST_POINTS);
  const n = kept.length;
  const distanceM = Float64Array.from(kept, (i) => profile.distanceM[i]!);
  const ground: FieldAlong = field.along(distanceM.map((d) => d / 1000));
  const perF1 = new Float64Array(n);
  const bulgedM = new Float64Array(n);
  for (let i = 0; i < n; i++) {
    const x = distanceM[i]!;
    perF1[i] = 1 / f1RadiusM(ray, x);
    bulgedM[i] = profile.groundAmslM[kept[i]!]! + (x * (ray.pathM - x)) / (2 * ray.effectiveRadiusM);
  }
  const length = ray.endM - ray.startM;
  // Ground that comes nearest beside the axis moves with the ray like a body there.
  const aside = condition.ground !== null && condition.ground.acrossM !== 0 ? condition.ground : null;
  const asideUpM = aside === null ? 0 : rayZM(ray, aside.atM) - aside.zAmslM - rayBulgeM(ray, aside.atM);
  return (draw) => {
    let least = Number.POSITIVE_INFINITY;
    let f1M = 1;
    for (let i = 0; i < sections.length; i++) {
      const s = sections[i]!;
      if (s.vegetation && !leaves) continue;
      const c = clearOfSectionM(s, draw.rayUpM(s.atM) - field.at(s.atM) - draw.errorM[i]!, draw.asideM(s.atM)) / s.f1M;
      if (c < least) {
        least = c;
        f1M = s.f1M;
      }
    }
    if (aside !== null) {
      const upM = asideUpM + draw.rayUpM(aside.atM) - field.at(aside.atM);
      const c = Math.hypot(aside.acrossM - draw.asideM(aside.atM), upM) / aside.f1M;
      if (c < least) {
        least = c;
        f1M = aside.f1M;
      }
    }
    ground.fill();
    const startZ = ray.startZM + draw.nearMountM;
    const slope = (ray.endZM + draw.farMountM - startZ) / length;
    const { shiftM } = ground;
    for (let i = 0; i < n; i++) {
      const per = perF1[i]!;
      const c = (startZ + slope * (distanceM[i]! - ray.startM) - bulgedM[i]! - shiftM[i]!) * per;
      if (c < least) {
        least = c;
        f1M = 1 / per;
      }
    }
    return { share: least, spareM: (least - share) * f1M };
  };
};
