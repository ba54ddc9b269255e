import { acrossExtent, axisStretches, type PathBody } from "./body";

/**
 * A body as the ray sees it: its silhouette across the zone, and the stretch along the path over which its
 * top stands in the way. All of it that lies between the ends counts, not the part under the axis alone:
 * a wall that runs slantwise to the path hides as much as one that stands square to it.
 */
export interface Shadow {
  /** Sides in shares of F1 there, left negative: the least and the greatest across / F1 of the outline. */
  readonly leftF1: number;
  readonly rightF1: number;
  /** Stretch of the top, along the path. A body beside the axis has the one just inside its near side. */
  readonly fromM: number;
  readonly toM: number;
  /** True when the axis runs inside the outline. */
  readonly crossed: boolean;
}

/** The stretch is taken this far inside the outline, in F1, so that it neither jumps at a corner nor at a wall (ours). */
const INSIDE_F1 = 0.1;
/** Nearer to an end than this a zone is as narrow as here. */
const END_M = 0.05;

/** Extremes of across / F1 along one edge: its ends, and the place where the quotient stands still. */
const edgeExtremes = (xa: number, ya: number, xb: number, yb: number, pathM: number, take: (x: number, y: number) => void): void => {
  take(xa, ya);
  if (xa === xb) return;
  const slope = (yb - ya) / (xb - xa);
  const at0 = ya - slope * xa;
  const below = slope * pathM + 2 * at0;
  if (below === 0) return;
  const x = (at0 * pathM) / below;
  if (x > Math.min(xa, xb) && x < Math.max(xa, xb)) take(x, at0 + slope * x);
};

/**
 * @param startM, endM where the ray begins and ends, when that is not at the ends of the path.
 * @returns null when the body lies wholly behind an end.
 */
export const shadowOf = (
  body: Pick<PathBody, "xM" | "yM">,
  pathM: number,
  wavelengthM: number,
  startM = 0,
  endM = pathM,
): Shadow | null => {
  const { xM, yM } = body;
  const first = startM + END_M;
  const last = endM - END_M;
  const lengthM = endM - startM;
  const f1 = (x: number): number => Math.sqrt((wavelengthM * (x - startM) * (endM - x)) / lengthM);
  let leftF1 = Number.POSITIVE_INFINITY;
  let rightF1 = Number.NEGATIVE_INFINITY;
  let leftM = Number.POSITIVE_INFINITY;
  let rightM = Number.NEGATIVE_INFINITY;
  let widthAtM = 0;
  const take = (x: number, y: number): void => {
    const share = y / f1(x);
    if (share < leftF1) leftF1 = share;
    if (share > rightF1) rightF1 = share;
    if (y < leftM) leftM = y;
    if (y > rightM) rightM = y;
    widthAtM = Math.max(widthAtM, f1(x));
  };
  for (let i = 0; i < xM.length; i++) {
    const j = (i + 1) % xM.length;
    let xa = xM[i]!;
    let ya = yM[i]!;
    let xb = xM[j]!;
    let yb = yM[j]!;
    if (Math.max(xa, xb) < first || Math.min(xa, xb) > last) continue;
    const at = (x: number): number => yM[i]! + ((yM[j]! - yM[i]!) * (x - xM[i]!)) / (xM[j]! - xM[i]!);
    if (xa < first || xa > last) {
      xa = xa < first ? first : last;
      ya = at(xa);
    }
    if (xb < first || xb > last) {
      xb = xb < first ? first : last;
      yb = at(xb);
    }
    edgeExtremes(xa - startM, ya, xb - startM, yb, lengthM, (x, y) => take(x + startM, y));
    take(xb, yb);
  }
  if (leftF1 > rightF1) return null;
  const insideM = Math.min(INSIDE_F1 * widthAtM, (rightM - leftM) / 2);
  const offsetM = Math.min(rightM - insideM, Math.max(leftM + insideM, 0));
  const stretches = axisStretches(
    xM,
    yM.map((y) => y - offsetM),
  ).filter((s) => s.toM > first && s.fromM < last);
  const whole = stretches.length > 0 ? null : acrossless(xM, first, last);
  const fromM = Math.max(first, whole?.fromM ?? stretches[0]!.fromM);
  const toM = Math.min(last, whole?.toM ?? stretches[stretches.length - 1]!.toM);
  return { leftF1, rightF1, fromM, toM: Math.max(fromM, toM), crossed: leftM <= 0 && rightM >= 0 };
};

/** An outline without breadth has no inside: its reach along the path stands for it. */
const acrossless = (xM: readonly number[], first: number, last: number): { fromM: number; toM: number } => {
  const inside = xM.filter((x) => x >= first && x <= last);
  const midM = inside.length > 0 ? inside.reduce((a, b) => a + b, 0) / inside.length : first;
  return { fromM: midM, toM: midM };
};

/**
 * The least sideways move of a ray that frees it from a body it runs through: to the nearest gap or to the
 * side, over all of the body that stands above the ray.
 * @param above whether the body's top stands above the ray (and its underside below it) at a distance.
 */
export const freeingAsideM = (body: Pick<PathBody, "xM" | "yM">, fromM: number, toM: number, above: (xM: number) => boolean): number => {
  const extent = acrossExtent(body, fromM, toM);
  if (extent === null) return Number.POSITIVE_INFINITY;
  // Free lines run along vertices, or where an edge leaves the stretch that stands above the ray.
  const tries: number[] = [extent.leftM, extent.rightM];
  for (let i = 0; i < body.xM.length; i++) if (body.xM[i]! >= fromM && body.xM[i]! <= toM) tries.push(body.yM[i]!);
  tries.sort((a, b) => Math.abs(a) - Math.abs(b));
  for (const y of tries) {
    const outside = y + Math.sign(y) * 1e-6;
    const blocked = axisStretches(
      body.xM,
      body.yM.map((v) => v - outside),
    ).some((s) => {
      const a = Math.max(s.fromM, fromM);
      const b = Math.min(s.toM, toM);
      return a <= b && (above(a) || above((a + b) / 2) || above(b));
    });
    if (!blocked) return Math.abs(y);
  }
  return Math.max(Math.abs(extent.leftM), Math.abs(extent.rightM));
};
