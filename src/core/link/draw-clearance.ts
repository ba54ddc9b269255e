/* The clearance of one draw: over all conditions the body or the ground that leaves the least room beyond the policy. */
import { f1RadiusM, type Ray, rayBulgeM, rayZM } from "../obstacles";
import { type BodySection, clearOfSectionM, roomBeside } from "./body-sections";
import type { Condition } from "./conditions";
import type { Draw, DrawSource } from "./draws";
import type { FieldAlong } from "./ground-field";
import type { PathProfile } from "./types";

/** Share of F1 at the worst place, and the room beyond the policy there in metres; negative is missed. */
export interface DrawnClearance {
  readonly share: number;
  readonly spareM: number;
}

/**
 * @param decideM all that is asked is whether there is less room than this: where there is not, this much is told.
 * @param surveyAlone moves by the errors of ground and bodies only: mounts and positions stand as planned.
 */
export type ClearanceOfDraw = (draw: Draw, surveyAlone: boolean, decideM?: number) => DrawnClearance;

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

/** Sections as columns, first those that the largest error of their height could leave the least room. */
const sectionColumns = (sections: readonly BodySection[], leaves: boolean, share: number, mostErrorM: (section: number) => number) => {
  const spareOf = (s: BodySection): number => {
    const roomM = clearOfSectionM(s, 0, 0);
    return (roomM > 0 ? roomM * s.boundShare : roomM) - share * s.f1M;
  };
  const counted = sections
    // Room counts at most as it is, so it changes by no more than what moves.
    .map((s, index) => ({ s, index, leastM: spareOf(s) - mostErrorM(index) }))
    .filter(({ s }) => !s.vegetation || leaves)
    .sort((p, q) => p.leastM - q.leastM);
  const column = (of: (s: BodySection) => number): Float64Array => Float64Array.from(counted, ({ s }) => of(s));
  return {
    count: counted.length,
    /** Their places among all sections: each has its own error there. */
    index: Uint32Array.from(counted, (c) => c.index),
    mostErrorM: Float64Array.from(counted, (c) => mostErrorM(c.index)),
    /** Room beyond the policy by the largest error of its height, nothing else moved. */
    leastM: Float64Array.from(counted, (c) => c.leastM),
    atM: column((s) => s.atM),
    f1M: column((s) => s.f1M),
    topM: column((s) => s.topM),
    bottomM: column((s) => s.bottomM),
    leftM: column((s) => s.leftM),
    rightM: column((s) => s.rightM),
    boundShare: column((s) => s.boundShare),
    shareM: column((s) => share * s.f1M),
    /** Something has room beneath it. */
    someHang: counted.some(({ s }) => s.bottomM !== Number.NEGATIVE_INFINITY),
    /** 0 stands alone, 1 carries the near end, 2 the far one. */
    carries: Uint8Array.from(counted, ({ s }) => (s.body.carries === null ? 0 : s.body.carries === "near" ? 1 : 2)),
  };
};

const one = (
  profile: PathProfile,
  { condition, sections }: Part,
  { field, mostErrorM }: Pick<DrawSource, "field" | "mostErrorM">,
  leaves: boolean,
  reachM: number,
): ClearanceOfDraw => {
  const { ray, share } = condition;
  const rooms = groundRoom(profile, ray, share);
  const near = rooms.filter((r) => r.spareM < reachM);
  // Far from the ground nothing of it matters; the least of it still tells the share.
  const points = thinned(near.length > 0 ? near : rooms, near.length > 0 ? MOST_POINTS : 1).sort((p, q) => p.spareM - q.spareM);
  const n = points.length;
  const distanceM = Float64Array.from(points, (p) => profile.distanceM[p.index]!);
  const perF1 = Float64Array.from(points, (p) => p.perF1);
  const plannedM = Float64Array.from(points, (p) => p.spareM);
  const shareM = Float64Array.from(points, (p) => share / p.perF1);
  const bulgedM = Float64Array.from(points, (p) => profile.groundAmslM[p.index]! + rayBulgeM(ray, profile.distanceM[p.index]!));
  const ground: FieldAlong = field.along(distanceM.map((d) => d / 1000));
  const perM = 1 / (ray.endM - ray.startM);
  // Ground that comes nearest beside the axis moves with the ray like a body there.
  const aside = condition.ground !== null && condition.ground.acrossM !== 0 ? condition.ground : null;
  const bodies = sectionColumns(sections, leaves, share, mostErrorM);
  const under: FieldAlong = field.along(bodies.atM.map((d) => d / 1000));
  const asideUpM = aside === null ? 0 : rayZM(ray, aside.atM) - aside.zAmslM - rayBulgeM(ray, aside.atM);
  return (draw, surveyAlone, decideM) => {
    const up = surveyAlone ? draw.groundUpM : draw.rayUpM;
    let leastM = decideM ?? Number.POSITIVE_INFINITY;
    let leastShare = Number.POSITIVE_INFINITY;
    const upNearM = up(0);
    const upFarM = up(profile.pathM);
    const upPerM = (upFarM - upNearM) / profile.pathM;
    const asideNearM = surveyAlone ? 0 : draw.asideM(0);
    const asideFarM = surveyAlone ? 0 : draw.asideM(profile.pathM);
    const asidePerM = (asideFarM - asideNearM) / profile.pathM;
    // The ray comes no nearer to the ground than by this.
    const leastMoveM = Math.min(upNearM, upFarM) - field.highestM();
    // Over what stands on the ground a rise is no harm; under what hangs it is.
    const harmM = Math.max(0, -leastMoveM, bodies.someHang ? Math.max(upNearM, upFarM) - field.lowestM() : 0);
    const mostBesideM = harmM + Math.abs(asideNearM) + Math.abs(asideFarM);
    for (let k = 0; k < bodies.count; k++) {
      if (bodies.leastM[k]! - mostBesideM > leastM) break;
      const x = bodies.atM[k]!;
      const plainUpM = upNearM + upPerM * x - under.at(k);
      const stands = bodies.carries[k]!;
      const asideM = asideNearM + asidePerM * x - (stands === 0 ? 0 : stands === 1 ? asideNearM : asideFarM);
      const topM = bodies.topM[k]!;
      const bottomM = bodies.bottomM[k]!;
      const leftM = bodies.leftM[k]!;
      const rightM = bodies.rightM[k]!;
      const boundShare = bodies.boundShare[k]!;
      const policyM = bodies.shareM[k]!;
      // By the largest error of its height it still leaves more: its own need not be looked up.
      const plainM = roomBeside(topM, bottomM, leftM, rightM, plainUpM, asideM);
      if ((plainM > 0 ? plainM * boundShare : plainM) - policyM - bodies.mostErrorM[k]! > leastM) continue;
      const roomM = roomBeside(topM, bottomM, leftM, rightM, plainUpM - draw.errorM(bodies.index[k]!), asideM);
      const spareM = (roomM > 0 ? roomM * boundShare : roomM) - policyM;
      if (spareM < leastM) {
        leastM = spareM;
        leastShare = (spareM + policyM) / bodies.f1M[k]!;
        if (decideM !== undefined) return { share: leastShare, spareM: leastM };
      }
    }
    if (aside !== null) {
      const upM = asideUpM + up(aside.atM) - field.at(aside.atM);
      const c = Math.hypot(aside.acrossM - (surveyAlone ? 0 : draw.asideM(aside.atM)), upM) / aside.f1M;
      if ((c - share) * aside.f1M < leastM) {
        leastM = (c - share) * aside.f1M;
        leastShare = c;
      }
    }
    const startZ = ray.startZM + up(ray.startM);
    const slope = (ray.endZM + up(ray.endM) - startZ) * perM;
    for (let i = 0; i < n; i++) {
      // Those with the least room as planned stand first: from here on none can have less.
      if (plannedM[i]! + leastMoveM > leastM) break;
      const roomM = startZ + slope * (distanceM[i]! - ray.startM) - bulgedM[i]! - ground.at(i);
      const spareM = roomM - shareM[i]!;
      if (spareM < leastM) {
        leastM = spareM;
        leastShare = roomM * perF1[i]!;
      }
    }
    return { share: leastShare, spareM: leastM };
  };
};

/** @param source the draws that it will be asked of. @param reachM ground with more room than this is out of the errors' reach. */
export const clearanceDraw = (
  profile: PathProfile,
  parts: readonly Part[],
  source: Pick<DrawSource, "field" | "mostErrorM">,
  leaves: boolean,
  reachM: number,
): ClearanceOfDraw => {
  const each = parts.map((p) => one(profile, p, source, leaves, reachM));
  return (draw, surveyAlone, decideM) => {
    let worst = each[0]!(draw, surveyAlone, decideM);
    for (let i = 1; i < each.length; i++) {
      const other = each[i]!(draw, surveyAlone, decideM);
      if (other.spareM < worst.spareM) worst = other;
    }
    return worst;
  };
};
