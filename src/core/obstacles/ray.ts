import { effectiveRadiusM } from "../geo";

/**
 * The ray in flattened-earth space: heights carry the bulge of the effective earth over the whole
 * path, so the ray is straight. The ends may stand a little inside the path (a mount moved out of its wall).
 */
export interface Ray {
  readonly pathM: number;
  readonly startM: number;
  readonly endM: number;
  readonly startZM: number;
  readonly endZM: number;
  readonly wavelengthM: number;
  readonly kFactor: number;
  readonly effectiveRadiusM: number;
  /** Half of each antenna's aperture: the tube is never narrower near the end. */
  readonly startHalfApertureM: number;
  readonly endHalfApertureM: number;
}

export const makeRay = (input: {
  pathM: number;
  startM: number;
  endM: number;
  nearAmslM: number;
  farAmslM: number;
  wavelengthM: number;
  kFactor: number;
  startHalfApertureM?: number;
  endHalfApertureM?: number;
}): Ray => {
  const radiusM = effectiveRadiusM(input.kFactor);
  const lift = (xM: number): number => (xM * (input.pathM - xM)) / (2 * radiusM);
  return {
    pathM: input.pathM,
    startM: input.startM,
    endM: input.endM,
    startZM: input.nearAmslM + lift(input.startM),
    endZM: input.farAmslM + lift(input.endM),
    wavelengthM: input.wavelengthM,
    kFactor: input.kFactor,
    effectiveRadiusM: radiusM,
    startHalfApertureM: input.startHalfApertureM ?? 0,
    endHalfApertureM: input.endHalfApertureM ?? 0,
  };
};

export const rayBulgeM = (ray: Ray, xM: number): number => (xM * (ray.pathM - xM)) / (2 * ray.effectiveRadiusM);

/** Height of the ray above the flattened datum at a distance. */
export const rayZM = (ray: Ray, xM: number): number =>
  ray.startZM + ((ray.endZM - ray.startZM) * (xM - ray.startM)) / (ray.endM - ray.startM);

/** Radius of the first Fresnel zone, sqrt(lambda d1 d2 / (d1 + d2)), P.526-15 §2.1 eq. (2); 0 outside the ends. */
export const f1RadiusM = (ray: Ray, xM: number): number => {
  const d1 = xM - ray.startM;
  const d2 = ray.endM - xM;
  return d1 <= 0 || d2 <= 0 ? 0 : Math.sqrt((ray.wavelengthM * d1 * d2) / (d1 + d2));
};

/**
 * Share of F1 of a point: sqrt((|TP| + |PR| - |TR|) / (lambda / 2)). The ellipsoid with share 1 is the
 * first Fresnel zone, also close to and behind the ends, where the parabolic radius says nothing.
 */
export const shareOfPoint = (ray: Ray, xM: number, yM: number, zM: number): number => {
  const lengthX = ray.endM - ray.startM;
  const lengthZ = ray.endZM - ray.startZM;
  const dx1 = xM - ray.startM;
  const dz1 = zM - ray.startZM;
  const dx2 = ray.endM - xM;
  const dz2 = ray.endZM - zM;
  const y2 = yM * yM;
  const excess =
    Math.sqrt(dx1 * dx1 + y2 + dz1 * dz1) + Math.sqrt(dx2 * dx2 + y2 + dz2 * dz2) - Math.sqrt(lengthX * lengthX + lengthZ * lengthZ);
  return Math.sqrt(Math.max(0, excess) / (ray.wavelengthM / 2));
};
