import type { LinkPlan, PreparedPath } from "@/core/link";
import { f1RadiusM, type Ray, rayBulgeM, rayZM } from "@/core/obstacles";

/** Exaggerations that are stated and drawn. */
const EXAGGERATIONS = [50, 40, 32, 25, 20, 16, 12, 10, 8, 6, 5, 4, 3, 2, 1];
export const DRAWING_LEFT = 84;
export const DRAWING_RIGHT = 78;
const TOP_PX = 58;
const BOTTOM_PX = 30;
/** What is left free about the drawing. */
const ROOM = { left: DRAWING_LEFT, right: DRAWING_RIGHT, top: TOP_PX, bottom: BOTTOM_PX };

export interface SectionScale {
  readonly x: (alongM: number) => number;
  /** From height over the flattened datum (bulge included). */
  readonly y: (heightM: number) => number;
  /** Back from pixels: distance along the path, height over the flattened datum. */
  readonly atX: (px: number) => number;
  readonly atY: (px: number) => number;
  readonly metresPerPxY: number;
  readonly exaggeration: number;
  readonly width: number;
  readonly height: number;
  readonly lowestM: number;
  readonly highestM: number;
}

/** One scale for section and strip of widths; heights by a round exaggeration, never below true shape, or in true shape. */
export const sectionScale = (
  path: PreparedPath,
  plan: LinkPlan,
  ray: Ray,
  width: number,
  height: number,
  trueShape = false,
  room: { readonly left: number; readonly right: number; readonly top: number; readonly bottom: number } = ROOM,
): SectionScale => {
  const { pathM, distanceM, groundAmslM } = path.profile;
  let lowestM = Number.POSITIVE_INFINITY;
  let highestM = Number.NEGATIVE_INFINITY;
  const take = (z: number): void => {
    if (z < lowestM) lowestM = z;
    if (z > highestM) highestM = z;
  };
  distanceM.forEach((x, i) => {
    const g = groundAmslM[i]!;
    if (!Number.isNaN(g)) take(g + rayBulgeM(ray, x));
  });
  if (lowestM === Number.POSITIVE_INFINITY) take(0);
  take(ray.startZM + 1);
  take(ray.endZM + 1);
  for (let s = 1; s < 20; s++) {
    const x = ray.startM + ((ray.endM - ray.startM) * s) / 20;
    take(Math.max(lowestM, rayZM(ray, x) + f1RadiusM(ray, x)));
  }
  for (const b of path.bodies) {
    if (b.stretches.length === 0) continue;
    const mid = (b.stretches[0]!.fromM + b.stretches[0]!.toM) / 2;
    if (mid >= 0 && mid <= pathM) take(b.topAt(plan.policy.year + plan.policy.horizonYears)(mid) + rayBulgeM(ray, mid));
  }
  const spanM = Math.max(2, highestM - lowestM);
  const roomX = Math.max(50, width - room.left - room.right);
  const roomY = Math.max(50, height - room.top - room.bottom);
  const pxPerM = roomX / pathM;
  const fits = roomY / spanM / pxPerM;
  const exaggeration = trueShape ? 1 : (EXAGGERATIONS.find((e) => e <= fits) ?? 1);
  // Below true shape the distance is drawn smaller instead.
  const perX = fits < 1 ? roomY / spanM : pxPerM;
  const perY = perX * exaggeration;
  const left = room.left + (roomX - perX * pathM) / 2;
  const base = height - room.bottom - Math.max(0, (roomY - spanM * perY) * (trueShape ? 0.5 : 0.25));
  return {
    x: (alongM) => left + alongM * perX,
    y: (heightM) => base - (heightM - lowestM) * perY,
    atX: (px) => (px - left) / perX,
    atY: (px) => lowestM + (base - px) / perY,
    metresPerPxY: 1 / perY,
    exaggeration,
    width,
    height,
    lowestM,
    highestM,
  };
};

/** A closer look: how much larger, and how far moved, in pixels. */
export interface Closer {
  readonly k: number;
  readonly tx: number;
  readonly ty: number;
}

export const WHOLE: Closer = { k: 1, tx: 0, ty: 0 };

/** The same scale seen closer: both axes grow alike, so the exaggeration stays. */
export const closerScale = (scale: SectionScale, { k, tx, ty }: Closer): SectionScale =>
  k === 1
    ? scale
    : {
        ...scale,
        x: (alongM) => scale.x(alongM) * k + tx,
        y: (heightM) => scale.y(heightM) * k + ty,
        atX: (px) => scale.atX((px - tx) / k),
        atY: (px) => scale.atY((px - ty) / k),
        metresPerPxY: scale.metresPerPxY / k,
        lowestM: Math.max(scale.lowestM, scale.atY((scale.height - ty) / k)),
        highestM: scale.atY((0 - ty) / k),
      };
