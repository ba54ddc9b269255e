/* Bodies near a ray as rectangles across it, standing on the ground: for moving many of them quickly. */
import { apertureBoundShare, bodyApproach, f1RadiusM, type PathBody, type Ray, rayBulgeM, rayZM, shadowOf } from "../obstacles";
import type { PreparedBody } from "./prepare";
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
  /** What a share counts against a tube that is never narrower than the aperture (1: all of it). */
  readonly boundShare: number;
}

/** How well a cut tree's height is known (ours). */
export const TRIM_SIGMA_M = 0.3;

/**
 * Room between the moved ray and a rectangle, metres; inside it minus the smallest shift out.
 * @param upM the ray's move upwards against the body; @param asideM to the right.
 */
export const roomBeside = (topM: number, bottomM: number, leftM: number, rightM: number, upM: number, asideM: number): number => {
  const above = Math.max(upM - topM, bottomM - upM);
  const aside = Math.max(leftM - asideM, asideM - rightM);
  if (above <= 0) return aside <= 0 ? Math.max(above, aside) : aside;
  if (aside <= 0) return above;
  // Asked a million times for a crowded path: the exact hypotenuse of the library takes ten times as long.
  return Math.sqrt(above * above + aside * aside);
};

export const clearOfSectionM = (s: BodySection, upM: number, asideM: number): number =>
  roomBeside(s.topM, s.bottomM, s.leftM, s.rightM, upM, asideM);

/** Standard error of a body's height: its survey's, or that of a cut. */
export const heightSigmaOf = (body: PathBody, plan: LinkPlan): number =>
  plan.trims[body.id] !== undefined ? Math.min(TRIM_SIGMA_M, body.heightSigmaM) : body.heightSigmaM;

/** A body as a rectangle at its nearest approach to the ray, its sides those of its whole silhouette; null when it lies behind an end. */
export const sectionOf = (
  ray: Ray,
  prepared: PreparedBody,
  a: { readonly atM: number; readonly acrossM: number },
  plan: LinkPlan,
  policyShare: number,
): BodySection | null => {
  const { body } = prepared;
  const atM = Math.min(ray.endM - 0.05, Math.max(ray.startM + 0.05, a.atM));
  const f1M = Math.max(0.05, f1RadiusM(ray, atM));
  const shadow = shadowOf(body, ray.pathM, ray.wavelengthM, ray.startM, ray.endM);
  if (shadow === null) return null;
  // Beside the axis its near side is the approach itself.
  const leftM = shadow.leftF1 > 0 ? Math.max(0, a.acrossM) : shadow.leftF1 * f1M;
  const rightM = shadow.rightF1 < 0 ? Math.min(0, a.acrossM) : shadow.rightF1 * f1M;
  return {
    body,
    vegetation: prepared.vegetation,
    atM,
    f1M,
    topM: prepared.topAt(plan.policy.year)(atM) + rayBulgeM(ray, atM) - rayZM(ray, atM),
    bottomM: (body.freeBelowM ?? 0) > 0 ? body.baseAmslM + body.freeBelowM! + rayBulgeM(ray, atM) - rayZM(ray, atM) : -Infinity,
    leftM,
    rightM,
    sigmaM: heightSigmaOf(body, plan),
    boundShare: policyShare > 0 ? apertureBoundShare(ray, { share: 1, atM, f1M }, policyShare) : 1,
  };
};

/** Every body that the errors could bring into the zone, however little it matters now. @param reachM how far they reach. */
export const sectionsWithin = (
  ray: Ray,
  bodies: readonly PreparedBody[],
  plan: LinkPlan,
  policyShare: number,
  reachM: (prepared: PreparedBody) => number,
): BodySection[] =>
  bodies.flatMap((prepared) => {
    if (prepared.leastAsideM > policyShare * f1RadiusM(ray, (ray.startM + ray.endM) / 2) + reachM(prepared)) return [];
    const a = bodyApproach(ray, prepared, prepared.topAt(plan.policy.year), Number.POSITIVE_INFINITY);
    if (a === null) return [];
    const s = sectionOf(ray, prepared, a, plan, policyShare);
    return s === null || clearOfSectionM(s, 0, 0) > policyShare * s.f1M + reachM(prepared) ? [] : [s];
  });
