import { bearingsBetween, type LatLon, type PathFrame, pathFrame } from "../geo";
import { axisStretches, type BodyKind, type PathBody } from "../obstacles";
import { MAX_PROFILE_POINTS, sampleGround, type TerrainGrid, thinnedIndices } from "../terrain";
import { LONGEST_LINK_M, SHORTEST_LINK_M } from "./evaluate";
import type { PathProfile, ProfileFeature } from "./types";

/** An obstacle as surveyed: outline on the earth, heights above its ground. */
export interface ObstacleInput {
  readonly id: string;
  readonly name: string;
  readonly kind: BodyKind;
  readonly outline: readonly LatLon[];
  readonly baseAmslM: number;
  readonly heightM: number;
  readonly crownBaseM: number;
  readonly growthMPerYear: number;
  readonly heightSigmaM: number;
  /** Year of the survey: growth since then is added before the plan's year. */
  readonly surveyedYear: number;
}

export interface FeatureInput {
  readonly name: string;
  readonly points: readonly LatLon[];
}

/** A mount this near an outline stands on that building (ours). */
const ON_BUILDING_M = 1;

/** How far past an outline point (0,0) may lie and still count as standing on it: by even-odd and edge distance. */
const standsOn = (xM: readonly number[], yM: readonly number[], atM: number): boolean => {
  if (axisStretches(xM, yM).some((s) => s.fromM - ON_BUILDING_M <= atM && atM <= s.toM + ON_BUILDING_M)) return true;
  for (let i = 0; i < xM.length; i++) {
    const j = (i + 1) % xM.length;
    const dx = xM[j]! - xM[i]!;
    const dy = yM[j]! - yM[i]!;
    const t = Math.min(1, Math.max(0, ((atM - xM[i]!) * dx - yM[i]! * dy) / (dx * dx + dy * dy || 1)));
    if (Math.hypot(xM[i]! + t * dx - atM, yM[i]! + t * dy) <= ON_BUILDING_M) return true;
  }
  return false;
};

const bodyOf = (o: ObstacleInput, frame: PathFrame, year: number): PathBody => {
  const points = o.outline.map(frame.locate);
  const xM = points.map((p) => p.alongM);
  const yM = points.map((p) => p.acrossM);
  const solid = o.kind === "building" || o.kind === "mast";
  const carries = !solid ? null : standsOn(xM, yM, 0) ? "near" : standsOn(xM, yM, frame.lengthM) ? "far" : null;
  return {
    id: o.id,
    name: o.name,
    kind: o.kind,
    xM,
    yM,
    baseAmslM: o.baseAmslM,
    heightM: o.heightM + o.growthMPerYear * Math.max(0, year - o.surveyedYear),
    crownBaseM: o.crownBaseM,
    growthMPerYear: o.growthMPerYear,
    heightSigmaM: o.heightSigmaM,
    carries,
  };
};

const featureOf = (f: FeatureInput, frame: PathFrame): ProfileFeature => {
  const located = f.points.map(frame.locate);
  let best = located[0] ?? { alongM: 0, acrossM: Number.POSITIVE_INFINITY };
  for (let i = 0; i < located.length; i++) {
    const a = located[i]!;
    if (Math.abs(a.acrossM) < Math.abs(best.acrossM)) best = a;
    const b = located[i + 1];
    // A line that crosses the path names the crossing.
    if (b !== undefined && a.acrossM > 0 !== b.acrossM > 0) {
      const t = a.acrossM / (a.acrossM - b.acrossM);
      best = { alongM: a.alongM + t * (b.alongM - a.alongM), acrossM: 0 };
    }
  }
  return { name: f.name, alongM: best.alongM, acrossM: best.acrossM };
};

/**
 * Samples the ground between two mounts and brings obstacles and named features into the frame of the path.
 * @param year the plan's year: vegetation has grown since its survey.
 * @throws RangeError when the ends are closer than 5 m or farther apart than 100 km.
 */
export const assembleProfile = (
  near: LatLon,
  far: LatLon,
  grids: readonly TerrainGrid[],
  obstacles: readonly ObstacleInput[],
  features: readonly FeatureInput[],
  year: number,
): PathProfile => {
  const frame = pathFrame(near, far);
  if (!(frame.lengthM >= SHORTEST_LINK_M && frame.lengthM <= LONGEST_LINK_M)) {
    throw new RangeError(`path of ${frame.lengthM} m is outside ${SHORTEST_LINK_M} to ${LONGEST_LINK_M} m`);
  }
  const ground = sampleGround(frame, grids);
  const bulged = ground.groundAmslM.map((h, i) => {
    const x = ground.distanceM[i]!;
    return h + (x * (frame.lengthM - x)) / (2 * 8.5e6);
  });
  const kept = thinnedIndices(ground.distanceM, bulged, new Uint8Array(bulged.length), MAX_PROFILE_POINTS);
  const bearings = bearingsBetween(near, far);
  const take = (values: Float64Array): Float64Array => (kept === null ? values : Float64Array.from(kept, (i) => values[i]!));
  return {
    pathM: frame.lengthM,
    latDeg: (near.latDeg + far.latDeg) / 2,
    nearBearingDeg: bearings.nearDeg,
    farBearingDeg: bearings.farDeg,
    distanceM: take(ground.distanceM),
    groundAmslM: take(ground.groundAmslM),
    datasetIndex: kept === null ? ground.datasetIndex : Uint8Array.from(kept, (i) => ground.datasetIndex[i]!),
    datasets: grids.map((g) => ({ id: g.id, name: g.name, kind: g.kind, cellM: g.cellM, sigmaM: g.sigmaM })),
    bodies: obstacles.map((o) => bodyOf(o, frame, year)),
    features: features.map((f) => featureOf(f, frame)),
    thinned: kept !== null,
  };
};
