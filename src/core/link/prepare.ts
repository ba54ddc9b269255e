import { type AntennaShape, type Pattern, patternOf } from "../antenna";
import { effectiveRadiusM } from "../geo";
import {
  acrossExtent,
  isSolid,
  isVegetation,
  type PathBody,
  type PreparedOutline,
  type PreparedSide,
  prepareOutline,
  prepareSide,
  type TopAt,
} from "../obstacles";
import { type DiffractionProfile, gasSpecificAttenuation, prepareDiffraction, vapourPressureHpa, wavelengthM } from "../propagation";
import { type LevelStretch, levelStretches, NO_DATASET } from "../terrain";
import type { LinkPlan, PathProfile } from "./types";

/** Bodies farther aside than this many F1 never form a narrow screen. */
const NARROW_SCREEN_F1 = 3;
const ZERO_CELSIUS_K = 273.15;
/** Approaches above this share of F1 are of no interest to clearance or loss. */
export const SHARE_OF_INTEREST = 1.5;

export interface PreparedBody extends PreparedOutline {
  readonly vegetation: boolean;
  /** Top in a year, AMSL, after any planned trim. */
  readonly topAt: (year: number) => TopAt;
}

/** Everything about a path that does not change while a mast is dragged. */
export interface PreparedPath {
  readonly profile: PathProfile;
  readonly bodies: readonly PreparedBody[];
  /** Those of them that can come within the share of interest at any pair of heights. */
  readonly near: readonly PreparedBody[];
  /** Ground that slopes across the path, where it is known finely enough. */
  readonly side: PreparedSide | null;
  readonly wavelengthM: number;
  /** Made when first asked for; null when the ground is not known all along. */
  readonly withBodies: () => DiffractionProfile | null;
  readonly solids: readonly { readonly prepared: PreparedBody; readonly narrow: { leftM: number; rightM: number } | null }[];
  /** The same profile with one solid left out, made when first asked for. */
  readonly without: (solidIndex: number) => DiffractionProfile | null;
  readonly unknownGroundM: number;
  /** Level water or ground under the path, and the share of the path over sea. */
  readonly level: readonly LevelStretch[];
  readonly seaShare: number;
  /** Pattern of an antenna on this channel, made when first asked for. */
  readonly pattern: (shape: AntennaShape) => Pattern;
  /** Specific attenuation of the plan's air on this channel, dB/km. */
  readonly gasDbPerKm: number;
  readonly groundAt: (xM: number) => number;
  readonly datasetAt: (xM: number) => number;
}

/** Index of the last point at or before a distance. */
const indexBefore = (distanceM: Float64Array, xM: number): number => {
  let low = 0;
  let high = distanceM.length - 1;
  while (high - low > 1) {
    const mid = (low + high) >> 1;
    if (distanceM[mid]! <= xM) low = mid;
    else high = mid;
  }
  return low;
};

const groundSampler = (p: PathProfile): ((xM: number) => number) => {
  const { distanceM: d, groundAmslM: g } = p;
  return (xM) => {
    if (xM <= 0) return g[0]!;
    if (xM >= p.pathM) return g[g.length - 1]!;
    const i = indexBefore(d, xM);
    const t = (xM - d[i]!) / (d[i + 1]! - d[i]!);
    return g[i]! + (g[i + 1]! - g[i]!) * t;
  };
};

/**
 * Height of a body above its ground in a year: today's (or what a trim leaves), and growth since the
 * plan's year. A trim to a height holds from the plan's year.
 */
const heightInYear = (body: PathBody, plan: LinkPlan, year: number): number => {
  const trim = plan.trims[body.id];
  const nowM = trim === undefined ? body.heightM : Math.min(trim, body.heightM);
  return nowM + body.growthMPerYear * Math.max(0, year - plan.policy.year);
};

const prepareBody = (body: PathBody, plan: LinkPlan, groundAt: (xM: number) => number): PreparedBody => {
  const vegetation = isVegetation(body.kind);
  const outline = prepareOutline(body);
  // Vegetation that crosses the axis follows the ground there; everything else stands on its own.
  const follows = vegetation && outline.stretches.length > 0;
  const make = (year: number): TopAt => {
    const heightM = heightInYear(body, plan, year);
    if (!follows) {
      const topM = body.baseAmslM + heightM;
      return () => topM;
    }
    return (xM) => {
      const ground = groundAt(xM);
      return (!Number.isNaN(ground) ? ground : body.baseAmslM) + heightM;
    };
  };
  const tops = new Map<number, TopAt>();
  return {
    ...outline,
    vegetation,
    topAt: (year) => {
      let top = tops.get(year);
      if (top === undefined) {
        top = make(year);
        tops.set(year, top);
      }
      return top;
    },
  };
};

/** A tree cut to nothing is gone: it neither stands in the way nor grows. */
const isRemoved = (body: PathBody, plan: LinkPlan): boolean => isVegetation(body.kind) && plan.trims[body.id] === 0;

/** Bodies this far aside have a share above what matters, whatever the heights. */
const nearOf = (bodies: readonly PreparedBody[], pathM: number, lambdaM: number): PreparedBody[] => {
  // Share c at the middle of a path of length L lies c sqrt(lambda L) / 2 aside; the excess adds a little (ours: 5 %).
  const reachM = 1.05 * SHARE_OF_INTEREST * Math.sqrt(lambdaM * pathM * 0.25 + (SHARE_OF_INTEREST * lambdaM) ** 2);
  return bodies.filter((b) => b.leastAsideM <= reachM);
};

/**
 * The same path with other trims, for clearance alone: outlines and ground are shared, and the diffraction
 * profiles stay those of the path given.
 */
export const withTrims = (path: PreparedPath, plan: LinkPlan): PreparedPath => {
  const again = (b: PreparedBody): PreparedBody =>
    b.vegetation && plan.trims[b.body.id] !== undefined ? prepareBody(b.body, plan, path.groundAt) : b;
  return { ...path, bodies: path.bodies.map(again), near: path.near.filter((b) => !isRemoved(b.body, plan)).map(again) };
};

/** Ground points and solid tops merged, with exact points at each edge crossing. */
const mergedProfile = (
  profile: PathProfile,
  solids: readonly PreparedBody[],
  groundAt: (xM: number) => number,
  year: number,
): { distanceM: Float64Array; topAmslM: Float64Array; groundAmslM: Float64Array } => {
  const edges: number[] = [];
  for (const s of solids) for (const { fromM, toM } of s.stretches) edges.push(fromM, toM);
  const inner = edges.filter((x) => x > 0 && x < profile.pathM).sort((a, b) => a - b);
  const total = profile.distanceM.length + inner.length;
  const distanceM = new Float64Array(total);
  let n = 0;
  let e = 0;
  for (const x of profile.distanceM) {
    while (e < inner.length && inner[e]! < x) distanceM[n++] = inner[e++]!;
    if (e < inner.length && inner[e] === x) e++;
    distanceM[n++] = x;
  }
  const d = distanceM.subarray(0, n);
  const groundAmslM = new Float64Array(n);
  for (let i = 0; i < n; i++) groundAmslM[i] = groundAt(d[i]!);
  const topAmslM = Float64Array.from(groundAmslM);
  for (const s of solids) {
    const top = s.topAt(year);
    for (const { fromM, toM } of s.stretches) {
      for (let i = 0; i < n; i++) {
        const x = d[i]!;
        if (x < fromM || x > toM) continue;
        const t = top(x);
        if (t > topAmslM[i]!) topAmslM[i] = t;
      }
    }
  }
  return { distanceM: d, topAmslM, groundAmslM };
};

const gasOf = (plan: LinkPlan): number => {
  const { temperatureC, pressureHpa, vapourDensityGm3 } = plan.climate;
  const temperatureK = temperatureC + ZERO_CELSIUS_K;
  // Pressure is total: dry air is what the vapour leaves.
  const dryHpa = pressureHpa - vapourPressureHpa(vapourDensityGm3, temperatureK);
  const gas = gasSpecificAttenuation(plan.centreMhz / 1000, dryHpa, temperatureK, vapourDensityGm3);
  return gas.oxygenDbPerKm + gas.waterDbPerKm;
};

/** @returns the path made ready for one channel centre, k, air and set of trims. */
export const preparePath = (plan: LinkPlan, profile: PathProfile): PreparedPath => {
  const groundAt = groundSampler(profile);
  const bodies = profile.bodies.map((b) => prepareBody(b, plan, groundAt));
  const lambda = wavelengthM(plan.centreMhz / 1000);
  let unknownGroundM = 0;
  for (let i = 1; i < profile.distanceM.length; i++) {
    const known = !Number.isNaN(profile.groundAmslM[i]!) && !Number.isNaN(profile.groundAmslM[i - 1]!);
    if (!known) unknownGroundM += profile.distanceM[i]! - profile.distanceM[i - 1]!;
  }
  const level = levelStretches(profile.distanceM, profile.groundAmslM);
  const seaM = level.reduce((sum, l) => sum + (l.sea ? l.toM - l.fromM : 0), 0);
  const seaShare = Math.min(1, seaM / profile.pathM);
  const patterns = new WeakMap<AntennaShape, Pattern>();
  const crossing = bodies.filter((b) => isSolid(b.body.kind) && b.body.carries === null && b.stretches.length > 0);
  const year = plan.policy.year;
  const make = (solids: readonly PreparedBody[]): DiffractionProfile | null => {
    if (unknownGroundM > 0) return null;
    const merged = mergedProfile(profile, solids, groundAt, year);
    if (merged.distanceM.length < 3) return null;
    return prepareDiffraction({
      ...merged,
      frequencyGhz: plan.centreMhz / 1000,
      effectiveRadiusM: effectiveRadiusM(plan.policy.kFactor),
      seaShare,
    });
  };
  const solids = crossing.map((prepared) => {
    const first = prepared.stretches[0]!;
    const last = prepared.stretches[prepared.stretches.length - 1]!;
    const midM = (first.fromM + last.toM) / 2;
    const f1M = Math.sqrt((lambda * Math.max(0, midM) * Math.max(0, profile.pathM - midM)) / profile.pathM);
    const extent = acrossExtent(prepared.body, first.fromM, last.toM);
    const narrow = extent !== null && extent.rightM - extent.leftM < NARROW_SCREEN_F1 * f1M ? extent : null;
    return { prepared, narrow };
  });
  const cache = new Map<number, DiffractionProfile | null>();
  let whole: DiffractionProfile | null | undefined;
  return {
    profile,
    bodies,
    near: nearOf(
      bodies.filter((b) => !isRemoved(b.body, plan)),
      profile.pathM,
      lambda,
    ),
    side: profile.side == null ? null : prepareSide(profile.side, profile.groundAmslM),
    wavelengthM: lambda,
    withBodies: () => {
      if (whole === undefined) whole = make(crossing);
      return whole;
    },
    solids,
    without: (index) => {
      if (!cache.has(index)) cache.set(index, make(crossing.filter((_, i) => i !== index)));
      return cache.get(index) ?? null;
    },
    unknownGroundM,
    gasDbPerKm: gasOf(plan),
    level,
    seaShare,
    pattern: (shape) => {
      let pattern = patterns.get(shape);
      if (pattern === undefined) {
        pattern = patternOf(shape, plan.centreMhz / 1000);
        patterns.set(shape, pattern);
      }
      return pattern;
    },
    groundAt,
    datasetAt: (xM) => profile.datasetIndex[indexBefore(profile.distanceM, Math.min(profile.pathM, Math.max(0, xM)))] ?? NO_DATASET,
  };
};
