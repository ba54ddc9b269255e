import { asOneRing, bearingsBetween, type LatLon, type PathFrame, pathFrame } from "../geo";
import { axisStretches, type BodyKind, isSpan, type PathBody } from "../obstacles";
import { MAX_PROFILE_POINTS, sampleGround, sampleSide, type TerrainGrid, thinnedIndices } from "../terrain";
import { baseOf, type Standing, samplersOf, type TypedGround, typedGround } from "./ground-under";
import { LONGEST_LINK_M, SHORTEST_LINK_M } from "./limits";
import { bareGround } from "./surface-ground";
import type { PathProfile, ProfileFeature } from "./types";

/** An obstacle as surveyed: outline on the earth, heights above its ground. */
export interface ObstacleInput {
  readonly id: string;
  readonly name: string;
  readonly kind: BodyKind;
  readonly outline: readonly LatLon[];
  /** Courtyards within the outline: nothing stands there. */
  readonly holes?: readonly (readonly LatLon[])[];
  /** Null: it stands on the ground as the terrain in force has it. */
  readonly baseAmslM: number | null;
  readonly heightM: number;
  readonly crownBaseM: number;
  /** Spans: height above ground below which the air is free. */
  readonly freeBelowM?: number;
  readonly growthMPerYear: number;
  readonly heightSigmaM: number;
  /** Year of the survey: growth since then is added before the plan's year. */
  readonly surveyedYear: number;
}

export interface FeatureInput {
  readonly name: string;
  readonly points: readonly LatLon[];
}

/** Longest wave whose first zone the ground beside the path is looked at for: 2.4 GHz. */
const LONGEST_WAVE_M = 0.125;
/** A mount this near an outline stands on that building (ours). */
const ON_BUILDING_M = 1;

const ringOf = (o: ObstacleInput): readonly LatLon[] =>
  o.holes === undefined || o.holes.length === 0 ? o.outline : asOneRing(o.outline, o.holes);

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

const bodyOf = (o: ObstacleInput, frame: PathFrame, year: number): Standing => {
  const points = ringOf(o).map(frame.locate);
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
    ...(isSpan(o.kind) && o.freeBelowM !== undefined ? { freeBelowM: o.freeBelowM } : {}),
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
 * @param typed ground told by hand; the grids are then not asked.
 * @throws RangeError when the ends are closer than 5 m or farther apart than 100 km.
 */
export const assembleProfile = (
  near: LatLon,
  far: LatLon,
  grids: readonly TerrainGrid[],
  obstacles: readonly ObstacleInput[],
  features: readonly FeatureInput[],
  year: number,
  typed: TypedGround | null = null,
): PathProfile => {
  const frame = pathFrame(near, far);
  if (!(frame.lengthM >= SHORTEST_LINK_M && frame.lengthM <= LONGEST_LINK_M)) {
    throw new RangeError(`path of ${frame.lengthM} m is outside ${SHORTEST_LINK_M} to ${LONGEST_LINK_M} m`);
  }
  const standing = obstacles.map((o) => bodyOf(o, frame, year));
  const used = typed === null ? grids : [];
  const told = typed === null ? null : typedGround(frame.lengthM, typed);
  const sampled = told?.ground ?? sampleGround(frame, grids);
  const surface = used.some((g) => g.kind === "dsm") && standing.length > 0;
  const samplers = surface || standing.some((b) => b.baseAmslM === null) ? samplersOf(used) : [];
  const outlines = obstacles.map(ringOf);
  const bare = surface ? bareGround(sampled, frame, samplers, used, standing, outlines) : null;
  const ground = bare?.profile ?? sampled;
  const bulged = ground.groundAmslM.map((h, i) => {
    const x = ground.distanceM[i]!;
    return h + (x * (frame.lengthM - x)) / (2 * 8.5e6);
  });
  const kept = thinnedIndices(ground.distanceM, bulged, new Uint8Array(bulged.length), MAX_PROFILE_POINTS);
  const bearings = bearingsBetween(near, far);
  const take = (values: Float64Array): Float64Array => (kept === null ? values : Float64Array.from(kept, (i) => values[i]!));
  const distanceM = take(ground.distanceM);
  const datasetIndex = kept === null ? ground.datasetIndex : Uint8Array.from(kept, (i) => ground.datasetIndex[i]!);
  const bodies = standing.map((b, i): PathBody => {
    const under = b.baseAmslM === null ? (bare?.under[i] ?? null) : null;
    if (under === null) return { ...b, baseAmslM: baseOf(outlines[i]!, b, samplers, ground) };
    const { baseAmslM, sigmaM } = under;
    return { ...b, baseAmslM, heightSigmaM: Math.hypot(b.heightSigmaM, sigmaM), ...(sigmaM > 0 ? { baseSigmaM: sigmaM } : {}) };
  });
  return {
    pathM: frame.lengthM,
    latDeg: (near.latDeg + far.latDeg) / 2,
    nearBearingDeg: bearings.nearDeg,
    farBearingDeg: bearings.farDeg,
    distanceM,
    groundAmslM: take(ground.groundAmslM),
    datasetIndex,
    side: told === null ? sampleSide(frame, grids, distanceM, datasetIndex, Math.sqrt(LONGEST_WAVE_M * frame.lengthM) / 2) : null,
    datasets:
      told === null ? grids.map((g) => ({ id: g.id, name: g.name, kind: g.kind, cellM: g.cellM, sigmaM: g.sigmaM })) : [told.dataset],
    // Where nobody knows the ground a base of its own is all an obstacle has; without one it cannot be judged.
    bodies: bodies.filter((b) => !Number.isNaN(b.baseAmslM)),
    features: features.map((f) => featureOf(f, frame)),
    thinned: kept !== null,
  };
};
