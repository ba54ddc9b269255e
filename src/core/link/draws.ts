/*
 * Draws of everything that moves heights and the air, one after another from one seed. The clearance and the
 * level of a link are judged over the same draws.
 */
import { kLowOf } from "./defaults";
import { type GroundField, groundField, isTurned } from "./ground-field";
import type { LinkPlan, PathProfile } from "./types";
import { mostUnitNormal, STREAM, unitNormals, unitUniforms } from "./unit-draws";

export const DEFAULT_SEED = 1;
const ROUGHNESS_SPREAD = 0.5;

export interface Draw {
  /** Moves of both mounts, ground and typed height together, metres. */
  readonly nearMountM: number;
  readonly farMountM: number;
  readonly typedNearM: number;
  readonly typedFarM: number;
  readonly kFactor: number;
  /** 0 bare to 1 fullest leaf, and 0 to 1 of the tide. */
  readonly leafShare: number;
  readonly tideShare: number;
  readonly roughnessM: number;
  /** Height error of a body's section, metres: read when it is asked for, since most of a crowd matter to no draw. */
  readonly errorM: (section: number) => number;
  /** Move of the ray upwards and to the right at a distance. */
  readonly rayUpM: (xM: number) => number;
  readonly asideM: (xM: number) => number;
  /** Move to the right against a body: an end's own building stands where the end stands. */
  readonly asideOfM: (carries: "near" | "far" | null, xM: number) => number;
  /** The same by the errors of the ground alone. */
  readonly groundUpM: (xM: number) => number;
}

/** A value between least, median and most for a share 0 to 1: straight on either side of the median. */
export const between = (least: number, median: number, most: number, share: number): number =>
  share < 0.5 ? least + (median - least) * 2 * share : median + (most - median) * (2 * share - 1);

export interface DrawSource {
  readonly field: GroundField;
  /** The next draw; it lives until the one after. */
  readonly next: () => Draw;
  /** No draw has a larger height error of a body's section, either way, metres. */
  readonly mostErrorM: (section: number) => number;
}

/** A body whose height is drawn: its index in the profile names its numbers, its standard error their size. */
export interface DrawnHeight {
  readonly bodyIndex: number;
  readonly sigmaM: number;
}

/** @param draws how many will be asked for. */
export const drawSource = (
  plan: LinkPlan,
  profile: PathProfile,
  heights: readonly DrawnHeight[],
  draws: number,
  seed: number,
): DrawSource => {
  const field = groundField(profile, seed, draws);
  const { pathM } = profile;
  const { kFactor } = plan.policy;
  const lowK = Math.min(kFactor, kLowOf(plan.policy.kLow, pathM / 1000));
  const mount = unitNormals(seed, STREAM.mount, 2 * draws);
  const position = unitNormals(seed, STREAM.position, 2 * draws);
  const air = unitUniforms(seed, STREAM.air, 4 * draws);
  const errors = heights.map((h) => unitNormals(seed, h.bodyIndex, draws));
  // Turned round, each end keeps its numbers and right becomes left.
  const turned = isTurned(profile);
  const [atNear, atFar, right] = turned ? [1, 0, -1] : [0, 1, 1];
  let n = 0;
  const next = (): Draw => {
    field.draw(n);
    const typedNearM = plan.near.mountSigmaM * mount[2 * n + atNear]!;
    const typedFarM = plan.far.mountSigmaM * mount[2 * n + atFar]!;
    const groundNearM = field.nearM();
    const groundFarM = field.farM();
    const nearMountM = groundNearM + typedNearM;
    const farMountM = groundFarM + typedFarM;
    const nearAsideM = right * plan.near.positionSigmaM * position[2 * n + atNear]!;
    const farAsideM = right * plan.far.positionSigmaM * position[2 * n + atFar]!;
    const lowShare = air[4 * n]!;
    const own = n;
    const draw: Draw = {
      nearMountM,
      farMountM,
      typedNearM,
      typedFarM,
      // Mostly near the median air, seldom near the low one.
      kFactor: 1 / (1 / kFactor + (1 / lowK - 1 / kFactor) * lowShare * lowShare),
      leafShare: air[4 * n + 1]!,
      tideShare: air[4 * n + 2]! - 0.5,
      roughnessM: plan.water.roughnessM * (1 + ROUGHNESS_SPREAD * (2 * air[4 * n + 3]! - 1)),
      errorM: (i) => heights[i]!.sigmaM * errors[i]![own]!,
      rayUpM: (xM) => nearMountM + ((farMountM - nearMountM) * xM) / pathM,
      asideM: (xM) => nearAsideM + ((farAsideM - nearAsideM) * xM) / pathM,
      asideOfM: (carries, xM) =>
        nearAsideM + ((farAsideM - nearAsideM) * xM) / pathM - (carries === null ? 0 : carries === "near" ? nearAsideM : farAsideM),
      groundUpM: (xM) => groundNearM + ((groundFarM - groundNearM) * xM) / pathM,
    };
    n++;
    return draw;
  };
  const mostErrorM = (i: number): number => heights[i]!.sigmaM * mostUnitNormal(seed, heights[i]!.bodyIndex, draws);
  return { field, next, mostErrorM };
};
