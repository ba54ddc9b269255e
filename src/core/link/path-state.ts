/*
 * What the path does between two mounts on one centre frequency: geometry, clearance, losses in the air.
 * Made once for a pair of heights; any number of radios, widths and powers are then tried over it.
 */
import { farFieldDistanceM } from "../antenna";
import { elevationAngleDeg } from "../geo";
import { effectiveEnd, makeRay, type Ray } from "../obstacles";
import { freeSpaceLossDb, type Multipath, multipath } from "../propagation";
import { type BodyApproach, clearanceOf, governing, leavesCount, worstOf } from "./clearance";
import { type Condition, conditionsOf } from "./conditions";
import { halfApertureOf } from "./end-gear";
import { diffractionTerms, type Obstruction, obstructionOf, ownEdgeTerm } from "./obstruction";
import type { PreparedBody, PreparedPath } from "./prepare";
import type { ClearanceResult, LevelTerm, LinkPlan, WorstPlace } from "./types";
import { vegetationTerm } from "./vegetation-term";

export interface PathState {
  readonly path: PreparedPath;
  readonly ray: Ray;
  readonly conditions: readonly Condition[];
  readonly nearAmslM: number;
  readonly farAmslM: number;
  readonly nearWallOf: string | null;
  readonly farWallOf: string | null;
  readonly rayM: number;
  readonly nearTiltDeg: number;
  readonly farTiltDeg: number;
  readonly clearance: ClearanceResult;
  readonly bodies: readonly BodyApproach[];
  readonly freeSpace: LevelTerm;
  readonly gas: LevelTerm;
  readonly obstruction: readonly LevelTerm[];
  /** Ground and solid bodies as they stand to this ray; null where the ground is not known. */
  readonly obstructed: Obstruction | null;
  /** Sum of the three above, dB (negative). */
  readonly airDb: number;
  readonly multipath: Multipath;
}

/** Heights and ray for the plan's mounts. A mount below its own roof is moved out of its wall. */
export const rayOf = (
  plan: LinkPlan,
  path: PreparedPath,
  kFactor = plan.policy.kFactor,
): { ray: Ray; nearAmslM: number; farAmslM: number; nearWallOf: string | null; farWallOf: string | null } => {
  const g = path.profile.groundAmslM;
  const groundNearM = g[0]!;
  const groundFarM = g[g.length - 1]!;
  const nearAmslM = (!Number.isNaN(groundNearM) ? groundNearM : 0) + plan.near.mountAglM;
  const farAmslM = (!Number.isNaN(groundFarM) ? groundFarM : 0) + plan.far.mountAglM;
  const { pathM, bodies } = path.profile;
  const near = effectiveEnd(bodies, "near", pathM, nearAmslM);
  const far = effectiveEnd(bodies, "far", pathM, farAmslM);
  const ray = makeRay({
    pathM,
    startM: near.shiftM,
    endM: pathM - far.shiftM,
    nearAmslM,
    farAmslM,
    wavelengthM: path.wavelengthM,
    kFactor,
    startHalfApertureM: halfApertureOf(plan.near, path.wavelengthM),
    endHalfApertureM: halfApertureOf(plan.far, path.wavelengthM),
  });
  return { ray, nearAmslM, farAmslM, nearWallOf: near.wallOf, farWallOf: far.wallOf };
};

/** Worst place alone, for solvers: no losses, no radios. */
export const worstPlaceOf = (plan: LinkPlan, path: PreparedPath, year: number): WorstPlace | null => {
  const conditions = conditionsOf(plan, path, (k) => rayOf(plan, path, k).ray);
  const leaves = leavesCount(plan);
  return governing(conditions.map((c) => worstOf(path, c, leaves, year)));
};

/** Worst place among some bodies alone, under the conditions of the whole path. */
export const worstOfBodies = (plan: LinkPlan, path: PreparedPath, bodies: readonly PreparedBody[], year: number): WorstPlace | null => {
  const conditions = conditionsOf(plan, path, (k) => rayOf(plan, path, k).ray);
  const only = { ...path, near: bodies };
  return governing(conditions.map((c) => worstOf(only, { ...c, ground: null }, leavesCount(plan), year)));
};

/** Clearance alone, for solvers. The bodies are those of the prepared path, grown to the plan's year. */
export const clearanceUnder = (plan: LinkPlan, path: PreparedPath): ClearanceResult =>
  clearanceOf(
    path,
    conditionsOf(plan, path, (k) => rayOf(plan, path, k).ray),
    plan,
  ).result;

const gasTerm = (plan: LinkPlan, path: PreparedPath, frequencyGhz: number, rayM: number): LevelTerm => {
  const { temperatureC, pressureHpa, vapourDensityGm3 } = plan.climate;
  const dbPerKm = path.gasDbPerKm;
  return {
    id: "gas",
    valueDb: -(dbPerKm * rayM) / 1000,
    worseByDb: 0,
    clause: "P.676-12 Annex 1 (1)",
    inputs: { dbPerKm, distanceM: rayM, temperatureC, pressureHpa, vapourGm3: vapourDensityGm3 },
    inRange: frequencyGhz >= 1 && frequencyGhz <= 350,
  };
};

/** @param draw false takes the chance of clearance from the worst place alone, for trying many channels. */
export const pathStateOf = (plan: LinkPlan, path: PreparedPath, draw = true): PathState => {
  const { ray, nearAmslM, farAmslM, nearWallOf, farWallOf } = rayOf(plan, path);
  const conditions = conditionsOf(plan, path, (k) => (k === plan.policy.kFactor ? ray : rayOf(plan, path, k).ray));
  const { result: clearance, bodies } = clearanceOf(path, conditions, plan, draw);
  const rayM = ray.endM - ray.startM;
  const frequencyGhz = plan.centreMhz / 1000;
  const widestM = 2 * Math.max(ray.startHalfApertureM, ray.endHalfApertureM);
  const farFieldM = farFieldDistanceM(widestM, path.wavelengthM);
  const freeSpace: LevelTerm = {
    id: "free-space",
    valueDb: -freeSpaceLossDb(frequencyGhz, rayM),
    worseByDb: 0,
    clause: "P.525 (3)",
    inputs: { distanceM: rayM, frequencyGhz, farFieldM },
    inRange: rayM >= farFieldM,
  };
  const gas = gasTerm(plan, path, frequencyGhz, rayM);
  const obstructed = obstructionOf(path, plan, nearAmslM, farAmslM);
  const obstruction = [...diffractionTerms(path, plan, obstructed), ownEdgeTerm(bodies), vegetationTerm(ray, plan, bodies)];
  return {
    path,
    ray,
    conditions,
    nearAmslM,
    farAmslM,
    nearWallOf,
    farWallOf,
    rayM,
    nearTiltDeg: elevationAngleDeg(nearAmslM, farAmslM, rayM, plan.policy.kFactor),
    farTiltDeg: elevationAngleDeg(farAmslM, nearAmslM, rayM, plan.policy.kFactor),
    clearance,
    bodies,
    freeSpace,
    gas,
    obstruction,
    obstructed,
    airDb: freeSpace.valueDb + gas.valueDb + obstruction.reduce((sum, t) => sum + t.valueDb, 0),
    multipath: multipath({
      pathKm: rayM / 1000,
      frequencyGhz,
      nearAmslM,
      farAmslM,
      gradientDn1NPerKm: plan.climate.gradientDn1NPerKm,
      roughnessSaM: plan.climate.roughnessSaM,
      latDeg: path.profile.latDeg,
    }),
  };
};
