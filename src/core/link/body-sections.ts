/* Bodies near a ray as rectangles across it, standing on the ground: for moving many of them quickly. */
import { acrossExtent, f1RadiusM, isSolid, type PathBody, type Ray, rayBulgeM, rayZM } from "../obstacles";
import { knifeEdgeLossDb, vOfShare } from "../propagation";
import type { BodyApproach } from "./clearance";
import type { LinkPlan } from "./types";

export interface BodySection {
  readonly body: PathBody;
  readonly vegetation: boolean;
  readonly atM: number;
  readonly f1M: number;
  /** Its top above the ray, its sides from the ray (left negative), metres. */
  readonly topM: number;
  /** Its underside above the ray; minus infinity for what stands on the ground. */
  readonly bottomM: number;
  readonly leftM: number;
  readonly rightM: number;
  readonly sigmaM: number;
  /** Loss it already has as an edge beside the ray or of an end's own building; 0 when it goes through the profile. */
  readonly baseEdgeDb: number;
}

const TRIM_SIGMA_M = 0.3;
const FAR_ASIDE_M = 1e4;

/**
 * Room between the moved ray and a body's rectangle, metres; inside it minus the smallest shift out.
 * @param upM the ray's move upwards against the body; @param asideM to the right.
 */
export const clearOfSectionM = (s: BodySection, upM: number, asideM: number): number => {
  const above = Math.max(upM - s.topM, s.bottomM - upM);
  const left = s.leftM - asideM;
  const right = asideM - s.rightM;
  const aside = Math.max(left, right);
  if (above <= 0 && aside <= 0) return Math.max(above, aside);
  return Math.hypot(Math.max(0, above), Math.max(0, aside));
};

export const bodySections = (ray: Ray, bodies: readonly BodyApproach[], plan: LinkPlan): BodySection[] =>
  bodies.map((b) => {
    const { prepared } = b;
    const atM = Math.min(ray.endM - 0.05, Math.max(ray.startM + 0.05, b.atM));
    const stretch = prepared.stretches.find((s) => s.fromM <= atM + 1 && s.toM >= atM - 1);
    const crossing = stretch === undefined ? null : acrossExtent(b.body, stretch.fromM, stretch.toM);
    const rightSide = b.acrossM >= 0;
    const extent = crossing ?? (rightSide ? { leftM: b.acrossM, rightM: FAR_ASIDE_M } : { leftM: -FAR_ASIDE_M, rightM: b.acrossM });
    const f1M = Math.max(0.05, f1RadiusM(ray, atM));
    const trimmed = plan.trims[b.body.id] !== undefined;
    const beside = isSolid(b.body.kind) && (b.body.carries !== null ? b.share < 0.6 : b.side === "left" || b.side === "right");
    return {
      body: b.body,
      vegetation: b.vegetation,
      atM,
      f1M,
      topM: prepared.topAt(plan.policy.year)(atM) + rayBulgeM(ray, atM) - rayZM(ray, atM),
      bottomM: (b.body.freeBelowM ?? 0) > 0 ? b.body.baseAmslM + b.body.freeBelowM! + rayBulgeM(ray, atM) - rayZM(ray, atM) : -Infinity,
      leftM: extent.leftM,
      rightM: extent.rightM,
      sigmaM: trimmed ? Math.min(TRIM_SIGMA_M, b.body.heightSigmaM) : b.body.heightSigmaM,
      baseEdgeDb: beside ? knifeEdgeLossDb(vOfShare(b.share)) : 0,
    };
  });
