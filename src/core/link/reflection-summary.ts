/*
 * The ray reflected from level water or ground under the path: its size, and what it does to the level
 * over the tide and the error of the heights. It widens the band and never moves the median (ours).
 */
import { effectiveRadiusM } from "../geo";
import { isSolid, type Ray, rayBulgeM } from "../obstacles";
import { type Permittivity, type ReflectionResult, reflectionPointM, type Surface, surfacePermittivity, twoRayLevel } from "../propagation";
import { mirrorPolarisation } from "../radio";
import type { LevelStretch } from "../terrain";
import { kLowOf } from "./defaults";
import { patternOfEnd, polarisationOf } from "./end-gear";
import type { PathState } from "./path-state";
import type { LinkPlan, ReflectionSummary } from "./types";

/** Tides and height errors (a sigma of both ends together, at either end, either way) tried for the summary. */
const TIDES = 7;
const SIGMAS = [
  [0, 0],
  [-1, 0],
  [1, 0],
  [0, -1],
  [0, 1],
] as const;

/** How well both mounts are known above the water, metres: typed heights and the ground they stand on. */
const heightSigma = (plan: LinkPlan, state: PathState): number => {
  const { profile, datasetAt } = state.path;
  const ground = (xM: number): number => profile.datasets[datasetAt(xM)]?.sigmaM ?? 0;
  return Math.hypot(plan.near.mountSigmaM, plan.far.mountSigmaM, ground(0), ground(profile.pathM));
};

export interface Reflector {
  readonly stretch: LevelStretch;
  readonly surface: Surface;
  readonly permittivity: Permittivity;
  readonly tideRangeM: number;
}

/** Whether the ground, and what stands on it for good, let both legs of the reflected ray pass. */
const legsClear = (plan: LinkPlan, state: PathState, ray: Ray, atM: number, levelM: number): boolean => {
  const { distanceM, groundAmslM } = state.path.profile;
  const atZ = levelM + rayBulgeM(ray, atM);
  const legZ = (x: number): number =>
    x < atM
      ? ray.startZM + ((atZ - ray.startZM) * (x - ray.startM)) / (atM - ray.startM)
      : ray.endZM + ((atZ - ray.endZM) * (ray.endM - x)) / (ray.endM - atM);
  for (const b of state.path.standing) {
    if (!isSolid(b.body.kind) || b.body.carries !== null) continue;
    const top = b.topAt(plan.policy.year);
    for (const s of b.stretches) {
      const x = (Math.max(s.fromM, ray.startM) + Math.min(s.toM, ray.endM)) / 2;
      if (x > ray.startM && x < ray.endM && top(x) + rayBulgeM(ray, x) > legZ(x)) return false;
    }
  }
  for (let i = 1; i < distanceM.length - 1; i++) {
    const x = distanceM[i]!;
    if (x <= ray.startM || x >= ray.endM || Math.abs(x - atM) < 1) continue;
    if (groundAmslM[i]! + rayBulgeM(ray, x) > legZ(x) + 0.05 && Math.abs(groundAmslM[i]! - levelM) > plan.water.tideRangeM / 2 + 0.05)
      return false;
  }
  return true;
};

/** The stretch that throws the ray into the far antenna, if one lies at the point and nothing hides it. */
export const reflectorOf = (plan: LinkPlan, state: PathState): Reflector | null => {
  const { surface: named } = plan.water;
  if (named === "none") return null;
  const { ray } = state;
  for (const stretch of state.path.level) {
    // Level ground that nobody called water or bare ground carries grass and clutter: it does not mirror (ours).
    if (named === "auto" && !stretch.sea) continue;
    const atM =
      ray.startM +
      reflectionPointM(state.rayM, state.nearAmslM - stretch.heightAmslM, state.farAmslM - stretch.heightAmslM, ray.effectiveRadiusM);
    if (!(atM >= stretch.fromM && atM <= stretch.toM)) continue;
    if (!legsClear(plan, state, ray, atM, stretch.heightAmslM)) continue;
    const surface = named === "auto" ? "sea" : named;
    const permittivity = surfacePermittivity(surface, plan.centreMhz / 1000, plan.climate.temperatureC);
    return { stretch, surface, permittivity, tideRangeM: surface === "sea" ? plan.water.tideRangeM : 0 };
  }
  return null;
};

/** Both rays for a tide, mount offsets and k. Heights of the mounts AMSL are the plan's unless given. */
export const reflectedAt = (
  plan: LinkPlan,
  state: PathState,
  reflector: Reflector,
  at: {
    readonly tideM: number;
    readonly nearAmslM?: number;
    readonly farAmslM?: number;
    readonly kFactor?: number;
    readonly roughnessM?: number;
  },
): ReflectionResult => {
  const levelM = reflector.stretch.heightAmslM + at.tideM;
  const near = patternOfEnd(state.path, plan.near);
  const far = patternOfEnd(state.path, plan.far);
  const frequencyGhz = plan.centreMhz / 1000;
  return twoRayLevel({
    pathM: state.rayM,
    nearHeightM: (at.nearAmslM ?? state.nearAmslM) - levelM,
    farHeightM: (at.farAmslM ?? state.farAmslM) - levelM,
    effectiveRadiusM: effectiveRadiusM(at.kFactor ?? plan.policy.kFactor),
    frequencyGhz,
    surface: reflector.permittivity,
    polarisation:
      mirrorPolarisation(polarisationOf(plan.near)) === "horizontal" || mirrorPolarisation(polarisationOf(plan.far)) === "horizontal"
        ? "horizontal"
        : "vertical",
    roughnessM: at.roughnessM ?? plan.water.roughnessM,
    nearDiscriminationDb: (belowDeg) => -near.relativeDb(0, -belowDeg),
    farDiscriminationDb: (belowDeg) => -far.relativeDb(0, -belowDeg),
  });
};

export const reflectionSummary = (plan: LinkPlan, state: PathState): ReflectionSummary | null => {
  const reflector = reflectorOf(plan, state);
  if (reflector === null) return null;
  const levels: number[] = [];
  const overTide: number[] = [];
  const { kFactor, kLow } = plan.policy;
  // Between the median air and the low one: the middle of what is drawn for the doubt.
  const lowK = kLowOf(kLow, state.rayM / 1000);
  const middleK = 1 / (0.75 / kFactor + 0.25 / Math.min(kFactor, lowK));
  const heightSigmaM = heightSigma(plan, state);
  let now: ReflectionResult | null = null;
  for (let t = 0; t < TIDES; t++) {
    const tideM = reflector.tideRangeM * (t / (TIDES - 1) - 0.5);
    for (const k of [kFactor, middleK]) {
      // The error is tried at either end: turned round, the link says the same.
      for (const [nearSigmas, farSigmas] of SIGMAS) {
        const nearAmslM = state.nearAmslM + nearSigmas * heightSigmaM;
        const farAmslM = state.farAmslM + farSigmas * heightSigmaM;
        const r = reflectedAt(plan, state, reflector, { tideM, nearAmslM, farAmslM, kFactor: k });
        if (r.relativeDb === null) continue;
        levels.push(r.relativeDb);
        if (k === kFactor && nearSigmas === 0 && farSigmas === 0) {
          overTide.push(r.relativeDb);
          now ??= r;
        }
      }
    }
  }
  if (now === null) return null;
  levels.sort((a, b) => a - b);
  const at = (share: number): number => levels[Math.min(levels.length - 1, Math.floor(share * levels.length))]!;
  return {
    surface: reflector.surface,
    fromM: reflector.stretch.fromM,
    toM: reflector.stretch.toM,
    levelAmslM: reflector.stretch.heightAmslM,
    atM: state.ray.startM + now.atM,
    grazingDeg: now.grazingDeg,
    size: now.size,
    heightSigmaM,
    worstDb: Math.min(...overTide),
    lowDb: at(0.1),
    highDb: at(0.9),
    bestDb: Math.max(...overTide),
  };
};
