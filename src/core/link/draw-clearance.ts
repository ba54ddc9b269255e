/* The clearance of one draw: the body or the ground that leaves the least share of F1 beyond the policy's. */
import { f1RadiusM } from "../obstacles";
import { type BodySection, clearOfSectionM } from "./body-sections";
import type { Condition } from "./conditions";
import type { Draw } from "./draws";
import type { FieldAlong, GroundField } from "./ground-field";
import type { PathState } from "./path-state";

/** Room beyond the policy at the worst place, metres; negative is missed. */
export type ClearanceOfDraw = (draw: Draw) => number;

export const clearanceDraw = (
  state: PathState,
  condition: Condition,
  field: GroundField,
  sections: readonly BodySection[],
  leaves: boolean,
): ClearanceOfDraw => {
  const { ray, share } = condition;
  const { profile } = state.path;
  const { distanceM, groundAmslM } = profile;
  const n = distanceM.length;
  const ground: FieldAlong = field.along(distanceM.map((d) => d / 1000));
  const perF1 = new Float64Array(n);
  const bulgedM = new Float64Array(n);
  for (let i = 0; i < n; i++) {
    const x = distanceM[i]!;
    const f1M = f1RadiusM(ray, x);
    perF1[i] = f1M > 0 ? 1 / f1M : 0;
    bulgedM[i] = groundAmslM[i]! + (x * (ray.pathM - x)) / (2 * ray.effectiveRadiusM);
  }
  const length = ray.endM - ray.startM;
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
    ground.fill();
    const startZ = ray.startZM + draw.nearMountM;
    const slope = (ray.endZM + draw.farMountM - startZ) / length;
    const { shiftM } = ground;
    for (let i = 0; i < n; i++) {
      const per = perF1[i]!;
      if (per === 0) continue;
      const c = (startZ + slope * (distanceM[i]! - ray.startM) - bulgedM[i]! - shiftM[i]!) * per;
      if (c < least) {
        least = c;
        f1M = 1 / per;
      }
    }
    return (least - share) * f1M;
  };
};
