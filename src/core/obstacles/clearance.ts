import type { PreparedOutline } from "./body";
import { f1RadiusM, type Ray, rayBulgeM, rayZM, shareOfPoint } from "./ray";
import { freeingAsideM } from "./shadow";

/** How near one obstacle, or the ground, comes to the ray. */
export interface Approach {
  /** Share of F1; negative when the ray passes through: minus the smallest freeing shift over F1 there. */
  readonly share: number;
  /** Where along the path, from the near end. */
  readonly atM: number;
  /** Across the path, right positive. */
  readonly acrossM: number;
  /** Height of the nearest point, AMSL without bulge. */
  readonly zAmslM: number;
  readonly side: "over" | "under" | "left" | "right" | "through";
  /** F1 radius at that place. */
  readonly f1M: number;
}

/** Height of a body's top at a distance, AMSL. */
export type TopAt = (xM: number) => number;

const GOLDEN = (Math.sqrt(5) - 1) / 2;
/** 0.618^13 is 2e-3; the parabola through the last three points then finds the bottom of so smooth a curve. */
const SEARCH_STEPS = 13;
/** Ground this near an end is the foot of its mount: there is no zone to speak of. */
const FOOT_M = 0.01;
/** An F1 below this is taken as this when a shift is divided by it. */
const LEAST_F1_M = 0.01;

/** Smallest value of a convex function on 0..1 and where. */
const minimise = (f: (t: number) => number): { t: number; value: number } => {
  let a = 0;
  let b = 1;
  let c = b - GOLDEN;
  let d = GOLDEN;
  let fc = f(c);
  let fd = f(d);
  for (let i = 0; i < SEARCH_STEPS; i++) {
    if (fc < fd) {
      b = d;
      d = c;
      fd = fc;
      c = b - GOLDEN * (b - a);
      fc = f(c);
    } else {
      a = c;
      c = d;
      fc = fd;
      d = a + GOLDEN * (b - a);
      fd = f(d);
    }
  }
  const [inner, fInner] = fc < fd ? [c, fc] : [d, fd];
  let t = inner;
  let value = fInner;
  const half = (b - a) / 2;
  const mid = a + half;
  const fm = f(mid);
  const fa = f(a);
  const fb = f(b);
  const bend = fa - 2 * fm + fb;
  if (fm < value) {
    t = mid;
    value = fm;
  }
  if (bend > 0) {
    const vertex = Math.min(1, Math.max(0, mid + (half * (fa - fb)) / (2 * bend)));
    const fv = f(vertex);
    if (fv < value) {
      t = vertex;
      value = fv;
    }
  }
  for (const end of [0, 1]) {
    const atEnd = f(end);
    if (atEnd < value) {
      t = end;
      value = atEnd;
    }
  }
  return { t, value };
};

/** No point at this distance aside has a smaller excess than the one abreast of the middle. */
const leastShareAside = (ray: Ray, lengthM: number, asideM: number): number =>
  Math.sqrt((Math.sqrt(lengthM * lengthM + 4 * asideM * asideM) - lengthM) / (ray.wavelengthM / 2));

/**
 * The nearest approach of one body: over its top, past its sides, or through it.
 * |TP| + |PR| is convex, so on each edge of the outline it has one smallest value.
 * @param topAt top of the body along the path, AMSL.
 * @param beatShare bodies that cannot come below this share are passed over (null).
 */
export const bodyApproach = (ray: Ray, outline: PreparedOutline, topAt: TopAt, beatShare: number): Approach | null => {
  const bottomAmslM = bottomOf(outline.body);
  const lengthM = ray.endM - ray.startM;
  if (leastShareAside(ray, lengthM, outline.leastAsideM) >= beatShare) return null;
  const { body } = outline;
  let best: Approach | null = throughApproach(ray, outline, topAt);
  if (best !== null && best.side === "through") return best;
  let bestShare = Math.min(beatShare, best?.share ?? Number.POSITIVE_INFINITY);
  const n = body.xM.length;
  for (let i = 0; i < n; i++) {
    const j = (i + 1) % n;
    const xa = body.xM[i]!;
    const ya = body.yM[i]!;
    const dx = body.xM[j]! - xa;
    const dy = body.yM[j]! - ya;
    const yb = ya + dy;
    const leastY = ya > 0 !== yb > 0 ? 0 : Math.min(Math.abs(ya), Math.abs(yb));
    if (leastShareAside(ray, lengthM, leastY) >= bestShare) continue;
    const shareAt = (t: number): number => {
      const x = xa + t * dx;
      const bulge = rayBulgeM(ray, x);
      const z = Math.max(bottomAmslM + bulge, Math.min(topAt(x) + bulge, rayZM(ray, x)));
      return shareOfPoint(ray, x, ya + t * dy, z);
    };
    const found = minimise(shareAt);
    if (found.value >= bestShare) continue;
    bestShare = found.value;
    const x = xa + found.t * dx;
    const y = ya + found.t * dy;
    const top = topAt(x);
    const rayAmslM = rayZM(ray, x) - rayBulgeM(ray, x);
    best = {
      share: found.value,
      atM: x,
      acrossM: y,
      zAmslM: Math.max(bottomAmslM, Math.min(top, rayAmslM)),
      side: top < rayAmslM ? "over" : bottomAmslM > rayAmslM ? "under" : y < 0 ? "left" : "right",
      f1M: f1RadiusM(ray, x),
    };
  }
  return best;
};

/** Underside of a span, AMSL; a body that stands on the ground has none. */
const bottomOf = (body: PreparedOutline["body"]): number =>
  body.freeBelowM === undefined || body.freeBelowM <= 0 ? Number.NEGATIVE_INFINITY : body.baseAmslM + body.freeBelowM;

/** Tops inside a stretch are looked at every few metres. */
const STRETCH_SAMPLES = 24;
const SAMPLE_EVERY_M = 5;

/** The side of a body that the ray passes at: its underside when the ray runs below it, else its top. */
const nearSideAmslM = (ray: Ray, xM: number, topAmslM: number, bottomAmslM: number): number =>
  rayZM(ray, xM) - rayBulgeM(ray, xM) < bottomAmslM ? bottomAmslM : topAmslM;

const REACH_STEPS = 24;
const HALVINGS = 12;

/** How far from a place the ray stays inside a body's heights, up to a limit on one side. */
const reachOf = (inside: (xM: number) => boolean, fromM: number, limitM: number): number => {
  let last = fromM;
  for (let i = 1; i <= REACH_STEPS; i++) {
    const x = fromM + ((limitM - fromM) * i) / REACH_STEPS;
    if (inside(x)) {
      last = x;
      continue;
    }
    let out = x;
    for (let h = 0; h < HALVINGS; h++) {
      const mid = (last + out) / 2;
      if (inside(mid)) last = mid;
      else out = mid;
    }
    return last;
  }
  return limitM;
};

const least = (values: readonly number[]): number => values.reduce((a, b) => Math.min(a, b), Number.POSITIVE_INFINITY);
const greatest = (values: readonly number[]): number => values.reduce((a, b) => Math.max(a, b), Number.NEGATIVE_INFINITY);

/** The least sideways move that frees the ray, over all of the body that stands in its height, not under the axis alone. */
const asideOf = (ray: Ray, body: PreparedOutline["body"], inside: (xM: number) => boolean, atM: number): number => {
  const fromM = reachOf(inside, atM, Math.min(atM, Math.max(ray.startM, least(body.xM))));
  const toM = reachOf(inside, atM, Math.max(atM, Math.min(ray.endM, greatest(body.xM))));
  return freeingAsideM(body, fromM, toM, inside);
};

/** The axis inside the outline: the ray passes over the body there, or through it. */
const throughApproach = (ray: Ray, { body, stretches }: PreparedOutline, topAt: TopAt): Approach | null => {
  let best: Approach | null = null;
  const bottomAmslM = bottomOf(body);
  for (const stretch of stretches) {
    const fromM = Math.max(stretch.fromM, ray.startM);
    const toM = Math.min(stretch.toM, ray.endM);
    if (fromM > toM) continue;
    let deepestM = Number.NEGATIVE_INFINITY;
    let deepestAtM = fromM;
    let upM = 0;
    let downM = 0;
    const samples = Math.min(STRETCH_SAMPLES, Math.max(2, Math.ceil((toM - fromM) / SAMPLE_EVERY_M)));
    for (let s = 0; s <= samples; s++) {
      const x = fromM + ((toM - fromM) * s) / samples;
      const rayAmslM = rayZM(ray, x) - rayBulgeM(ray, x);
      // Up over the top or down beneath a span, whichever is nearer.
      const depthM = Math.min(topAt(x) - rayAmslM, rayAmslM - bottomAmslM);
      if (depthM > deepestM) {
        deepestM = depthM;
        deepestAtM = x;
      }
      if (depthM > 0) {
        upM = Math.max(upM, topAt(x) - rayAmslM);
        downM = Math.max(downM, rayAmslM - bottomAmslM);
      }
    }
    if (deepestM > 0) {
      const f1M = Math.max(LEAST_F1_M, f1RadiusM(ray, deepestAtM));
      const inside = (x: number): boolean => {
        const rayAmslM = rayZM(ray, x) - rayBulgeM(ray, x);
        return topAt(x) > rayAmslM && rayAmslM > bottomAmslM;
      };
      const shiftM = Math.min(upM, downM, asideOf(ray, body, inside, deepestAtM));
      const share = -shiftM / f1M;
      if (best === null || share < best.share) {
        best = { share, atM: deepestAtM, acrossM: 0, zAmslM: topAt(deepestAtM), side: "through", f1M };
      }
      continue;
    }
    const found = minimise((t) => {
      const x = fromM + t * (toM - fromM);
      return shareOfPoint(ray, x, 0, nearSideAmslM(ray, x, topAt(x), bottomAmslM) + rayBulgeM(ray, x));
    });
    if (best === null || found.value < best.share) {
      const x = fromM + found.t * (toM - fromM);
      const zAmslM = nearSideAmslM(ray, x, topAt(x), bottomAmslM);
      best = { share: found.value, atM: x, acrossM: 0, zAmslM, side: zAmslM < topAt(x) ? "under" : "over", f1M: f1RadiusM(ray, x) };
    }
  }
  return best;
};

/**
 * Nearest approach of the bare ground under the axis.
 * @param distanceM @param groundAmslM the ground profile; unknown heights (NaN) are passed over.
 */
export const groundApproach = (ray: Ray, distanceM: Float64Array, groundAmslM: Float64Array): Approach | null => {
  const lengthX = ray.endM - ray.startM;
  const rise = ray.endZM - ray.startZM;
  const lengthM = Math.hypot(lengthX, rise);
  const cos = lengthX / lengthM;
  const sin = rise / lengthM;
  const slope = rise / lengthX;
  const half = 1 / (2 * ray.effectiveRadiusM);
  const halfWave = ray.wavelengthM / 2;
  // Least excess of the points below the ray; for points above it least share, which is negative.
  let leastExcessM = Number.POSITIVE_INFINITY;
  let leastShare = 0;
  let bestIndex = -1;
  const n = distanceM.length;
  for (let i = 0; i < n; i++) {
    const x = distanceM[i]!;
    const d1 = x - ray.startM;
    if (d1 <= FOOT_M || ray.endM - x <= FOOT_M) continue;
    const z = groundAmslM[i]! + x * (ray.pathM - x) * half;
    const under = ray.startZM + slope * d1 - z;
    if (under < 0) {
      const share = under / Math.max(LEAST_F1_M, f1RadiusM(ray, x));
      if (share < leastShare) {
        leastShare = share;
        bestIndex = i;
      }
      continue;
    }
    if (leastShare < 0 || !(under >= 0)) continue;
    // At any place along the ray the excess is at least that of the middle: no division for most points.
    const p = under * cos;
    const p2 = p * p;
    if (2 * p2 >= leastExcessM * (lengthM + p)) continue;
    // Off the ray by p, its foot a from the near and b from the far end: |TP| - a is p^2 / (|TP| + a).
    const a = Math.abs(d1 * cos + (z - ray.startZM) * sin);
    const b = Math.abs(lengthM - a);
    // |TP| <= a + p bounds the excess from below without a root; most points end here.
    if (p2 / (2 * a + p) + p2 / (2 * b + p) >= leastExcessM) continue;
    const excessM = p2 / (Math.sqrt(a * a + p2) + a) + p2 / (Math.sqrt(b * b + p2) + b);
    if (excessM < leastExcessM) {
      leastExcessM = excessM;
      bestIndex = i;
    }
  }
  if (bestIndex < 0) return null;
  const through = leastShare < 0;
  const atM = distanceM[bestIndex]!;
  return {
    share: through ? leastShare : Math.sqrt(leastExcessM / halfWave),
    atM,
    acrossM: 0,
    zAmslM: groundAmslM[bestIndex]!,
    side: through ? "through" : "over",
    f1M: f1RadiusM(ray, atM),
  };
};

/** The share counted against a tube that is never narrower than half the aperture near an end (ours). */
export const apertureBoundShare = (ray: Ray, approach: Pick<Approach, "share" | "atM" | "f1M">, policyShare: number): number => {
  if (approach.share <= 0 || policyShare <= 0) return approach.share;
  const d1 = approach.atM - ray.startM;
  const d2 = ray.endM - approach.atM;
  if (d1 <= 0 || d2 <= 0) return approach.share;
  const halfM = d1 < d2 ? ray.startHalfApertureM : ray.endHalfApertureM;
  const policyM = policyShare * approach.f1M;
  return halfM <= policyM ? approach.share : Math.min(approach.share, (approach.share * policyM) / halfM);
};
