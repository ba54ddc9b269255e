/*
 * Recommendation ITU-R P.526-15 §4.5 (general terrestrial path, delta-Bullington): Bullington part
 * §4.5.1, effective heights and smooth-earth fit §4.5.2 and §4.5.3, whole method §4.5.4.
 * The smooth-earth fit is made on bare ground. One preparation serves all antenna heights.
 */
import { knifeEdgeLossDb } from "./p526-knife-edge";
import { type Polarisation, sphericalEarthLossDb } from "./p526-spherical-earth";

/** A profile made ready for one centre frequency and k; only the antenna heights are left open. */
export interface DiffractionProfile {
  readonly count: number;
  readonly pathKm: number;
  readonly effectiveRadiusKm: number;
  readonly frequencyGhz: number;
  readonly wavelengthM: number;
  /** Inner points only (the ends are the antennas). Distances in km. */
  readonly fromNearKm: Float64Array;
  readonly inverseNear: Float64Array;
  readonly inverseFar: Float64Array;
  /** Ground or body top plus bulge, metres. */
  readonly topM: Float64Array;
  /** Bare ground without bulge, metres. */
  readonly groundM: Float64Array;
  /** Bulge alone, metres. */
  readonly bulgeM: Float64Array;
  /** sqrt(0.002 d / (lambda d1 d2)), turning metres into v. */
  readonly vPerM: Float64Array;
  /** Smooth-earth heights at the ends, §4.5.3 eq. (50), (51), and the ground there. */
  readonly smoothNearM: number;
  readonly smoothFarM: number;
  readonly endNearM: number;
  readonly endFarM: number;
  readonly seaShare: number;
  readonly polarisation: Polarisation;
}

/**
 * @param distanceM rising from 0 to the path length; @param topAmslM ground with bodies;
 * @param groundAmslM bare ground at the same points.
 * @throws RangeError when the profile has fewer than 3 points or holds a height that is not a number.
 */
export const prepareDiffraction = (input: {
  distanceM: Float64Array;
  topAmslM: Float64Array;
  groundAmslM: Float64Array;
  frequencyGhz: number;
  effectiveRadiusM: number;
  seaShare?: number;
  polarisation?: Polarisation;
}): DiffractionProfile => {
  const { distanceM, topAmslM, groundAmslM } = input;
  const last = distanceM.length - 1;
  if (last < 2) throw new RangeError(`a diffraction profile needs 3 points, received ${last + 1}`);
  const count = last - 1;
  const pathKm = distanceM[last]! / 1000;
  const radiusKm = input.effectiveRadiusM / 1000;
  const wavelengthM = 0.299792458 / input.frequencyGhz;
  const make = (): Float64Array => new Float64Array(count);
  const out = {
    fromNearKm: make(),
    inverseNear: make(),
    inverseFar: make(),
    topM: make(),
    groundM: make(),
    bulgeM: make(),
    vPerM: make(),
  };
  let v1 = 0;
  let v2 = 0;
  for (let i = 1; i <= last; i++) {
    const d = distanceM[i]! / 1000;
    const before = distanceM[i - 1]! / 1000;
    const h = groundAmslM[i]!;
    const hBefore = groundAmslM[i - 1]!;
    if (!(Math.abs(h) < 1e5 && Math.abs(topAmslM[i]!) < 1e5)) throw new RangeError(`height at ${d} km is not a number`);
    v1 += (d - before) * (h + hBefore);
    v2 += (d - before) * (h * (2 * d + before) + hBefore * (d + 2 * before));
    if (i === last) break;
    const k = i - 1;
    const toFar = pathKm - d;
    out.fromNearKm[k] = d;
    out.inverseNear[k] = 1 / d;
    out.inverseFar[k] = 1 / toFar;
    out.bulgeM[k] = (500 * d * toFar) / radiusKm;
    out.groundM[k] = h;
    out.topM[k] = topAmslM[i]! + out.bulgeM[k]!;
    out.vPerM[k] = Math.sqrt((0.002 * pathKm) / (wavelengthM * d * toFar));
  }
  return {
    ...out,
    count,
    pathKm,
    effectiveRadiusKm: radiusKm,
    frequencyGhz: input.frequencyGhz,
    wavelengthM,
    smoothNearM: (2 * v1 * pathKm - v2) / pathKm ** 2,
    smoothFarM: (v2 - v1 * pathKm) / pathKm ** 2,
    endNearM: groundAmslM[0]!,
    endFarM: groundAmslM[last]!,
    seaShare: input.seaShare ?? 0,
    polarisation: input.polarisation ?? "vertical",
  };
};

/** Bullington part, §4.5.1, from the steepest slopes and the largest v of a profile, in dB. */
const bullingtonDb = (
  p: DiffractionProfile,
  nearM: number,
  farM: number,
  slopeNear: number,
  slopeFar: number,
  largestV: number,
): number => {
  const { pathKm } = p;
  const slope = (farM - nearM) / pathKm;
  let edgeDb: number;
  if (slopeNear < slope) {
    edgeDb = knifeEdgeLossDb(largestV); // eq. (45) to (46)
  } else {
    const sum = slopeNear + slopeFar;
    // Equal slopes: the lines lie on one another and the touching point is the Bullington point.
    const atKm = sum > 0 ? (farM - nearM + slopeFar * pathKm) / sum : Number.NaN;
    const v =
      atKm > 0 && atKm < pathKm
        ? (nearM + slopeNear * atKm - (nearM * (pathKm - atKm) + farM * atKm) / pathKm) *
          Math.sqrt((0.002 * pathKm) / (p.wavelengthM * atKm * (pathKm - atKm)))
        : largestV;
    edgeDb = knifeEdgeLossDb(v); // eq. (47) to (49)
  }
  return edgeDb + (1 - Math.exp(-edgeDb / 6)) * (10 + 0.02 * pathKm); // eq. (50)
};

/** The smooth profile bends slowly: every 16th point, then all points beside the best, find its largest value. */
const COARSE_STEP = 16;

/** The same over the smooth profile of §4.5.4: zero heights, the bulge alone. */
const smoothBullingtonDb = (p: DiffractionProfile, nearM: number, farM: number): number => {
  const { count, fromNearKm, inverseNear, inverseFar, vPerM, bulgeM, pathKm } = p;
  const slope = (farM - nearM) / pathKm;
  let slopeNear = Number.NEGATIVE_INFINITY;
  let slopeFar = Number.NEGATIVE_INFINITY;
  let largestV = Number.NEGATIVE_INFINITY;
  let atNear = 0;
  let atFar = 0;
  let atV = 0;
  for (let i = 0; i < count; i += COARSE_STEP) {
    const aboveNear = bulgeM[i]! - nearM;
    const fromNear = aboveNear * inverseNear[i]!;
    const fromFar = (bulgeM[i]! - farM) * inverseFar[i]!;
    const v = (aboveNear - slope * fromNearKm[i]!) * vPerM[i]!;
    if (fromNear > slopeNear) {
      slopeNear = fromNear;
      atNear = i;
    }
    if (fromFar > slopeFar) {
      slopeFar = fromFar;
      atFar = i;
    }
    if (v > largestV) {
      largestV = v;
      atV = i;
    }
  }
  const near = Math.min(count, atNear + COARSE_STEP);
  for (let i = Math.max(0, atNear - COARSE_STEP); i < near; i++) slopeNear = Math.max(slopeNear, (bulgeM[i]! - nearM) * inverseNear[i]!);
  // From the far end the last points may lie past the last coarse one.
  const far = atFar + COARSE_STEP >= count - COARSE_STEP ? count : Math.min(count, atFar + COARSE_STEP);
  for (let i = Math.max(0, atFar - COARSE_STEP); i < far; i++) slopeFar = Math.max(slopeFar, (bulgeM[i]! - farM) * inverseFar[i]!);
  if (slopeNear < slope) {
    const last = atV + COARSE_STEP >= count - COARSE_STEP ? count : Math.min(count, atV + COARSE_STEP);
    for (let i = Math.max(0, atV - COARSE_STEP); i < last; i++) {
      largestV = Math.max(largestV, (bulgeM[i]! - nearM - slope * fromNearKm[i]!) * vPerM[i]!);
    }
  }
  return bullingtonDb(p, nearM, farM, slopeNear, slopeFar, largestV);
};

/**
 * Whole delta-Bullington loss in dB for antenna heights AMSL.
 * L = L_bulla + max(L_sph - L_bulls, 0), §4.5.4 eq. (55).
 */
export const deltaBullingtonDb = (p: DiffractionProfile, nearAmslM: number, farAmslM: number): number => {
  const { count, fromNearKm, inverseNear, inverseFar, vPerM, topM, groundM, pathKm } = p;
  const slope = (farAmslM - nearAmslM) / pathKm;
  let slopeNear = Number.NEGATIVE_INFINITY;
  let slopeFar = Number.NEGATIVE_INFINITY;
  let largestV = Number.NEGATIVE_INFINITY;
  // Highest obstruction of bare ground above the straight line, §4.5.3 eq. (52), in the same pass.
  let above = Number.NEGATIVE_INFINITY;
  let nearAngle = Number.NEGATIVE_INFINITY;
  let farAngle = Number.NEGATIVE_INFINITY;
  for (let i = 0; i < count; i++) {
    const inNear = inverseNear[i]!;
    const inFar = inverseFar[i]!;
    const aboveNear = topM[i]! - nearAmslM;
    const lineM = slope * fromNearKm[i]!;
    const fromNear = aboveNear * inNear;
    const fromFar = (topM[i]! - farAmslM) * inFar;
    const v = (aboveNear - lineM) * vPerM[i]!;
    if (fromNear > slopeNear) slopeNear = fromNear;
    if (fromFar > slopeFar) slopeFar = fromFar;
    if (v > largestV) largestV = v;
    const h = groundM[i]! - nearAmslM - lineM;
    if (h > above) above = h;
    if (h * inNear > nearAngle) nearAngle = h * inNear;
    if (h * inFar > farAngle) farAngle = h * inFar;
  }
  const actualDb = bullingtonDb(p, nearAmslM, farAmslM, slopeNear, slopeFar, largestV);
  let smoothNear = p.smoothNearM;
  let smoothFar = p.smoothFarM;
  if (above > 0) {
    smoothNear -= (above * nearAngle) / (nearAngle + farAngle);
    smoothFar -= (above * farAngle) / (nearAngle + farAngle);
  }
  const nearHeightM = nearAmslM - Math.min(smoothNear, p.endNearM);
  const farHeightM = farAmslM - Math.min(smoothFar, p.endFarM);
  const smoothDb = smoothBullingtonDb(p, nearHeightM, farHeightM);
  const sphereDb = sphericalEarthLossDb(pathKm, nearHeightM, farHeightM, p.effectiveRadiusKm, p.frequencyGhz, p.seaShare, p.polarisation);
  return actualDb + Math.max(sphereDb - smoothDb, 0);
};
