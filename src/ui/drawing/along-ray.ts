import { f1RadiusM, type Ray, rayZM } from "@/core/obstacles";
import type { SectionScale } from "./section-scale";

export type Point = readonly [number, number];

const STEPS = 60;

/** Where a share of the first zone runs on the drawing, above the ray positive; points crowd toward the ends, where it is round. */
export const alongRay = (ray: Ray, scale: SectionScale, share: number): Point[] =>
  Array.from({ length: STEPS + 1 }, (_, i): Point => {
    const t = (1 - Math.cos((Math.PI * i) / STEPS)) / 2;
    const x = ray.startM + (ray.endM - ray.startM) * t;
    return [scale.x(x), scale.y(rayZM(ray, x) + share * f1RadiusM(ray, x))];
  });
