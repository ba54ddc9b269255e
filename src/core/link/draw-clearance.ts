/* The clearance of one draw: over all conditions the body or the ground that leaves the least room beyond the policy. */
import { f1RadiusM, type Ray, rayBulgeM, rayZM } from "../obstacles";
import { type BodySection, clearOfSectionM } from "./body-sections";
import type { Condition } from "./conditions";
import type { Draw } from "./draws";
import type { FieldAlong, GroundField } from "./ground-field";
import type { PathProfile } from "./types";

/** Share of F1 at the worst place, and the room beyond the policy there in metres; negative is missed. */
export interface DrawnClearance {
  readonly share: number;
  readonly spareM: number;
}

/** @param surveyAlone moves by the errors of ground and bodies only: mounts and positions stand as planned. */
export type ClearanceOfDraw = (draw: Draw, surveyAlone: boolean) => DrawnClearance;

/** Points of the ground that a draw looks at: the moved field is smooth over the rest. */
const MOST_POINTS = 256;

/** Room beyond the policy of each ground point as planned, inner points only. */
const groundRoom = (profile: PathProfile, ray: Ray, share: number): { index: number; spareM: number; perF1: number }[] => {
  const out: { index: number; spareM: number; perF1: number }[] = [];
  for (let i = 0; i < profile.distanceM.length; i++) {
    const x = profile.distanceM[i]!;
    const f1M = f1RadiusM(ray, x);
    if (f1M <= 0) continue;
    out.push({ index: i, spareM: rayZM(ray, x) - profile.groundAmslM[i]! - rayBulgeM(ray, x) - share * f1M, perF1: 1 / f1M });
  }
  return out;
};

/** Of each run of neighbours the one with the least room. */
const thinned = <T extends { readonly spareM: number }>(points: readonly T[], most: number): T[] => {
  const run = Math.max(1, Math.ceil(points.length / most));
  const kept: T[] = [];
  for (let from = 0; from < points.length; from += run) {
    kept.push(points.slice(from, from + run).reduce((a, b) => (b.spareM < a.spareM ? b : a)));
  }
  return kept;
};

interface Part {
  readonly condition: Condition;
  readonly sections: readonly BodySection[];
}

const one = (profile: PathProfile, { condition, sections }: Part, field: GroundField, leaves: boolean, reachM: number): ClearanceOfDraw => {
  const { ray, share } = condition;
  const rooms = groundRoom(profile, ray, share);
  const near = rooms.filter((r) => r.spareM < reachM);
  // Far from the ground nothing of it matters; the least of it still tells the share.
  const points = thinned(near.length > 0 ? near : rooms, near.length > 0 ? MOST_POINTS : 1);
  const n = points.length;
  const distanceM = Float64Array.from(points, (p) => profile.distanceM[p.index]!);
  const perF1 = Float64Array.from(points, (p) => p.perF1);
  const bulgedM = Float64Array.from(points, (p) => profile.groundAmslM[p.index]! + rayBulgeM(ray, profile.distanceM[p.index]!));
  const ground: FieldAlong = field.along(distanceM.map((d) => d / 1000));
  const perM = 1 / (ray.endM - ray.startM);
  // Ground that comes nearest beside the axis moves with the ray like a body there.
  const aside = condition.ground !== null && condition.ground.acrossM !== 0 ? condition.ground : null;
  const asideUpM = aside === null ? 0 : rayZM(ray, aside.atM) - aside.zAmslM - rayBulgeM(ray, aside.atM);
  return (draw, surveyAlone) => {
    const up = surveyAlone ? draw.groundUpM : draw.rayUpM;
    let leastM = Number.POSITIVE_INFINITY;
    let leastShare = Number.POSITIVE_INFINITY;
    const take = (c: number, f1M: number): void => {
      const spareM = (c - share) * f1M;
      if (spareM < leastM) {
        leastM = spareM;
        leastShare = c;
      }
    };
    for (let i = 0; i < sections.length; i++) {
      const s = sections[i]!;
      if (s.vegetation && !leaves) continue;
      const roomM = clearOfSectionM(
        s,
        up(s.atM) - field.at(s.atM) - draw.errorM[i]!,
        surveyAlone ? 0 : draw.asideOfM(s.body.carries, s.atM),
      );
      const c = roomM / s.f1M;
      take(c > 0 ? c * s.boundShare : c, s.f1M);
    }
    if (aside !== null) {
      const upM = asideUpM + up(aside.atM) - field.at(aside.atM);
      take(Math.hypot(aside.acrossM - (surveyAlone ? 0 : draw.asideM(aside.atM)), upM) / aside.f1M, aside.f1M);
    }
    ground.fill();
    const startZ = ray.startZM + up(ray.startM);
    const slope = (ray.endZM + up(ray.endM) - startZ) * perM;
    const { shiftM } = ground;
    for (let i = 0; i < n; i++) {
      const per = perF1[i]!;
      const c = (startZ + slope * (distanceM[i]! - ray.startM) - bulgedM[i]! - shiftM[i]!) * per;
      const spareM = c / per - share / per;
      if (spareM < leastM) {
        leastM = spareM;
        leastShare = c;
      }
    }
    return { share: leastShare, spareM: leastM };
  };
};

/** @param reachM ground with more room than this is out of the errors' reach. */
export const clearanceDraw = (
  profile: PathProfile,
  parts: readonly Part[],
  field: GroundField,
  leaves: boolean,
  reachM: number,
): ClearanceOfDraw => {
  const each = parts.map((p) => one(profile, p, field, leaves, reachM));
  return (draw, surveyAlone) => {
    let worst = each[0]!(draw, surveyAlone);
    for (let i = 1; i < each.length; i++) {
      const other = each[i]!(draw, surveyAlone);
      if (other.spareM < worst.spareM) worst = other;
    }
    return worst;
  };
};
