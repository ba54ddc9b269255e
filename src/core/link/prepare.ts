import { type AntennaShape, type Pattern, patternOf } from "../antenna";
import { effectiveRadiusM } from "../geo";
import {
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
import { pointsOf, type Screen, shadowsOf } from "./screens";
import type { LinkPlan, PathProfile } from "./types";

/** Bodies this many F1 aside cost nothing, and this many errors of position more bring none of them near (ours). */
const SCREEN_REACH_F1 = 1.5;
const SCREEN_REACH_SIGMAS = 4;
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
  /** Those of them that stand: all but trees cut to nothing. */
  readonly standing: readonly PreparedBody[];
  /** Those of them that can come within the share of interest at any pair of heights. */
  readonly near: readonly PreparedBody[];
  /** Ground that slopes across the path, where it is known finely enough. */
  readonly side: PreparedSide | null;
  readonly wavelengthM: number;
  /** The bare ground with points for every screen, made when first asked for; null when it is not known all along. */
  readonly bare: () => DiffractionProfile | null;
  /** Solid bodies that may come into the zone; empty without a bare profile. */
  readonly screens: () => readonly Screen[];
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
  const stand = (bodies: readonly PreparedBody[]): PreparedBody[] => bodies.filter((b) => !isRemoved(b.body, plan)).map(again);
  return { ...path, bodies: path.bodies.map(again), standing: stand(path.standing), near: stand(path.near) };
};

/** Ground points merged with exact points where the screens' tops begin and end. */
const mergedProfile = (
  profile: PathProfile,
  at: readonly number[],
  groundAt: (xM: number) => number,
): { distanceM: Float64Array; topAmslM: Float64Array; groundAmslM: Float64Array } => {
  const inner = at.filter((x) => x > 0 && x < profile.pathM).sort((a, b) => a - b);
  const distanceM = new Float64Array(profile.distanceM.length + inner.length);
  let n = 0;
  let e = 0;
  for (const x of profile.distanceM) {
    while (e < inner.length && inner[e]! < x) {
      if (n === 0 || inner[e]! > distanceM[n - 1]!) distanceM[n++] = inner[e]!;
      e++;
    }
    if (n === 0 || x > distanceM[n - 1]!) distanceM[n++] = x;
  }
  const d = distanceM.subarray(0, n);
  const groundAmslM = d.map(groundAt);
  return { distanceM: d, topAmslM: groundAmslM, groundAmslM };
};

const gasOf = (plan: LinkPlan): number => {
  const { temperatureC, pressureHpa, vapourDensityGm3 } = plan.climate;
  const temperatureK = temperatureC + ZERO_CELSIUS_K;
  // Pressure is total: dry air is what the vapour leaves.
  const dryHpa = pressureHpa - vapourPressureHpa(vapourDensityGm3, temperatureK);
  const gas = gasSpecificAttenuation(plan.centreMhz / 1000, dryHpa, temperatureK, vapourDensityGm3);
  return gas.oxygenDbPerKm + gas.waterDbPerKm;
};

/** What of a path does not depend on the channel. */
type Standing = Omit<PreparedPath, "near" | "wavelengthM" | "bare" | "screens" | "pattern" | "gasDbPerKm">;

const standingOf = (plan: LinkPlan, profile: PathProfile): Standing => {
  const groundAt = groundSampler(profile);
  const bodies = profile.bodies.map((b) => prepareBody(b, plan, groundAt));
  let unknownGroundM = 0;
  for (let i = 1; i < profile.distanceM.length; i++) {
    const known = !Number.isNaN(profile.groundAmslM[i]!) && !Number.isNaN(profile.groundAmslM[i - 1]!);
    if (!known) unknownGroundM += profile.distanceM[i]! - profile.distanceM[i - 1]!;
  }
  const level = levelStretches(profile.distanceM, profile.groundAmslM);
  const seaM = level.reduce((sum, l) => sum + (l.sea ? l.toM - l.fromM : 0), 0);
  return {
    profile,
    bodies,
    standing: bodies.filter((b) => !isRemoved(b.body, plan)),
    side: profile.side == null ? null : prepareSide(profile.side, profile.groundAmslM),
    unknownGroundM,
    level,
    seaShare: Math.min(1, seaM / profile.pathM),
    groundAt,
    datasetAt: (xM) => profile.datasetIndex[indexBefore(profile.distanceM, Math.min(profile.pathM, Math.max(0, xM)))] ?? NO_DATASET,
  };
};

const onChannel = (standing: Standing, plan: LinkPlan): PreparedPath => {
  const { profile, bodies, unknownGroundM, seaShare, groundAt } = standing;
  const lambda = wavelengthM(plan.centreMhz / 1000);
  const patterns = new WeakMap<AntennaShape, Pattern>();
  const midF1M = Math.sqrt(lambda * profile.pathM) / 2;
  const positionM = Math.max(plan.near.positionSigmaM, plan.far.positionSigmaM);
  const reachF1 = SCREEN_REACH_F1 + (SCREEN_REACH_SIGMAS * positionM) / midF1M;
  // A body can come no nearer the ray than its nearest corner or edge: what lies farther aside than any zone reaches throws no shadow.
  const solid = bodies.filter((b) => isSolid(b.body.kind) && b.body.carries === null && b.leastAsideM <= reachF1 * midF1M);
  let found: ReturnType<typeof shadowsOf> | undefined;
  let made: { bare: DiffractionProfile; screens: readonly Screen[] } | null | undefined;
  const obstruct = (): { bare: DiffractionProfile; screens: readonly Screen[] } | null => {
    if (made !== undefined) return made;
    made = null;
    if (unknownGroundM > 0) return null;
    found ??= shadowsOf(solid, profile.pathM, lambda, reachF1);
    const merged = mergedProfile(
      profile,
      found.flatMap(({ shadow }) => [shadow.fromM, shadow.toM]),
      groundAt,
    );
    if (merged.distanceM.length < 3) return null;
    const bare = prepareDiffraction({
      ...merged,
      frequencyGhz: plan.centreMhz / 1000,
      effectiveRadiusM: effectiveRadiusM(plan.policy.kFactor),
      seaShare,
    });
    made = { bare, screens: found.map((s) => ({ ...s, ...pointsOf(bare, s.shadow.fromM, s.shadow.toM) })) };
    return made;
  };
  return {
    ...standing,
    near: nearOf(standing.standing, profile.pathM, lambda),
    wavelengthM: lambda,
    bare: () => obstruct()?.bare ?? null,
    screens: () => obstruct()?.screens ?? [],
    gasDbPerKm: gasOf(plan),
    pattern: (shape) => {
      let pattern = patterns.get(shape);
      if (pattern === undefined) {
        pattern = patternOf(shape, plan.centreMhz / 1000);
        patterns.set(shape, pattern);
      }
      return pattern;
    },
  };
};

/** @returns the path made ready for one channel centre, k, air and set of trims. */
export const preparePath = (plan: LinkPlan, profile: PathProfile): PreparedPath => onChannel(standingOf(plan, profile), plan);

/** The same path on another channel centre: ground and outlines are shared. @param plan differs from the path's own in its radios and channel alone. */
export const withChannel = (path: PreparedPath, plan: LinkPlan): PreparedPath => onChannel(path, plan);
