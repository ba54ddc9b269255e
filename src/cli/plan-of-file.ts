import { bearingsBetween, pathFrame } from "../core/geo";
import {
  assembleProfile,
  type EndPlan,
  K_LOW_DEFAULT,
  type LinkPlan,
  type PathProfile,
  type TypedGround,
  typedGround,
  waterOver,
} from "../core/link";
import type { PathBody } from "../core/obstacles";
import { zoneRainRateMmH } from "../core/propagation";
import type { Antenna, Radio } from "../core/radio";
import { gridFromTerrainFile } from "../formats";
import type { PlanEnd, PlanFile } from "./plan-schema";

/** A plan that is well formed and still cannot be evaluated; the message names the field. */
export class PlanError extends Error {}

export interface Catalogue {
  readonly radios: readonly Radio[];
  readonly antennas: readonly Antenna[];
}

const MIDDLE_LAT_DEG = 45;
const endOf = (file: PlanEnd, which: "near" | "far", catalogue: Catalogue): EndPlan => {
  const radio = catalogue.radios.find((r) => r.id === file.radio);
  if (radio === undefined) throw new PlanError(`${which}.radio: no radio "${file.radio}" in the catalogue`);
  const antenna = file.antenna === null ? null : catalogue.antennas.find((a) => a.id === file.antenna);
  if (antenna === undefined) throw new PlanError(`${which}.antenna: no antenna "${file.antenna}" in the catalogue`);
  const { radio: _r, antenna: _a, powerDbm, port, latDeg: _lat, lonDeg: _lon, ...rest } = file;
  return { ...rest, radio, antenna, portIndex: port, txPowerDbm: powerDbm };
};

/** The plan that the core evaluates. @throws PlanError for hardware that is not there or a missing rain rate. */
export const linkPlanOf = (file: PlanFile, catalogue: Catalogue): LinkPlan => {
  const { rainRate001MmH, rainZone, ...climate } = file.climate;
  let rain = rainRate001MmH;
  if (rain === undefined && rainZone !== undefined) {
    try {
      rain = zoneRainRateMmH(rainZone, 0.01);
    } catch (error) {
      throw new PlanError(`climate.rainZone: ${error instanceof Error ? error.message : String(error)}`);
    }
  }
  if (rain === undefined) throw new PlanError("climate: give rainRate001MmH, or rainZone as a letter");
  const { kLow, ...policy } = file.policy;
  return {
    near: endOf(file.near, "near", catalogue),
    far: endOf(file.far, "far", catalogue),
    centreMhz: file.centreMhz,
    widthMhz: file.widthMhz,
    needToFarMbps: file.needToFarMbps,
    needToNearMbps: file.needToNearMbps,
    frameShareToFar: file.frameShareToFar,
    trims: file.trimsM,
    yearPercent: file.needYearPercent,
    permissions: file.permissions,
    day: file.day ?? `${file.policy.year}-07-01`,
    policy: { ...policy, kLow: kLow ?? K_LOW_DEFAULT },
    climate: { ...climate, rainRate001MmH: rain },
    water: waterOver(file.water, "level" in file.ground),
  };
};

const positionOf = (end: PlanEnd): { latDeg: number; lonDeg: number } | null =>
  end.latDeg === undefined || end.lonDeg === undefined ? null : { latDeg: end.latDeg, lonDeg: end.lonDeg };

const bodiesOf = (file: PlanFile): PathBody[] =>
  file.obstacles.map((o, i) => ({
    id: o.name,
    name: o.name,
    kind: o.kind,
    xM: o.outlineM.map((p) => p[0]),
    yM: o.outlineM.map((p) => p[1]),
    baseAmslM: o.baseAmslM,
    heightM: o.heightM,
    crownBaseM: o.crownBaseM,
    ...(o.freeBelowM > 0 ? { freeBelowM: o.freeBelowM } : {}),
    growthMPerYear: o.growthMPerYear,
    heightSigmaM: o.heightSigmaM,
    carries: o.carries,
    ...(file.obstacles.some((p, k) => k < i && p.name === o.name) ? { id: `${o.name} ${i + 1}` } : {}),
  }));

/** Typed heights must run from end to end, in order. @throws PlanError. */
const checkedPoints = (points: readonly (readonly [number, number])[], pathM: number): TypedGround["points"] => {
  const [first, last] = [points[0]![0], points[points.length - 1]![0]];
  if (first !== 0 || Math.abs(last - pathM) > 0.5) {
    throw new PlanError(`ground.profile: distances must run from 0 to the path's ${pathM.toFixed(1)} m, received ${first} to ${last}`);
  }
  points.forEach(([d], i) => {
    if (i > 0 && !(d > points[i - 1]![0])) throw new PlanError(`ground.profile: distances must rise; ${d} follows ${points[i - 1]![0]}`);
  });
  return points.map(([distanceM, heightAmslM]) => ({ distanceM, heightAmslM }));
};

/** A path over ground told in the file; without positions it lies nowhere in particular. */
const toldProfile = (typed: TypedGround, pathM: number, file: PlanFile): PathProfile => {
  const { ground, dataset } = typedGround(pathM, typed);
  const near = positionOf(file.near);
  const far = positionOf(file.far);
  const bearings = near === null || far === null ? { nearDeg: 0, farDeg: 180 } : bearingsBetween(near, far);
  return {
    pathM,
    latDeg: near === null ? (file.latDeg ?? MIDDLE_LAT_DEG) : near.latDeg,
    nearBearingDeg: bearings.nearDeg,
    farBearingDeg: bearings.farDeg,
    ...ground,
    datasets: [dataset],
    bodies: bodiesOf(file),
    features: [],
  };
};

/** The path that the plan names, sampled. @param base folder that relative file names start from. */
export const profileOf = async (file: PlanFile, resolve: (name: string) => string): Promise<PathProfile> => {
  const near = positionOf(file.near);
  const far = positionOf(file.far);
  const placed = near !== null && far !== null;
  if (!placed && file.pathM === undefined) throw new PlanError("pathM: give the path's length, or latDeg and lonDeg at both ends");
  const pathM = placed ? bearingsBetween(near, far).distanceM : file.pathM!;
  if ("terrain" in file.ground) {
    if (!placed) throw new PlanError("near.latDeg: a terrain file needs latDeg and lonDeg at both ends");
    const frame = pathFrame(near, far);
    const about = Array.from({ length: 33 }, (_, i) => frame.at((frame.lengthM * i) / 32));
    const grid = await gridFromTerrainFile(resolve(file.ground.terrain), about);
    const profile = assembleProfile(near, far, grid === null ? [] : [grid], [], [], file.policy.year);
    return { ...profile, bodies: bodiesOf(file) };
  }
  if ("level" in file.ground) {
    const { level, errorM } = file.ground;
    return toldProfile({ kind: "level", sigmaM: errorM, points: [{ distanceM: 0, heightAmslM: level }] }, pathM, file);
  }
  return toldProfile({ kind: "typed", sigmaM: file.ground.errorM, points: checkedPoints(file.ground.profile, pathM) }, pathM, file);
};
