/*
 * Second opinions on a blocked path beside the whole method of P.526 §4.5: its main edge alone (exact and
 * approximate J), as a rounded hill (§4.2) and with its second edge (§4.3). Told, not planned with.
 */
import { knifeEdgeLossDb, knifeEdgeLossExactDb, roundedObstacleLossDb, twoEdgeLossDb } from "../propagation";
import type { Obstruction } from "./obstruction";
import type { PreparedPath } from "./prepare";
import { raised } from "./screens";

export interface DiffractionOpinions {
  /** Where the main edge stands and how high above the line, metres. */
  readonly atM: number;
  readonly heightM: number;
  readonly edgeDb: number;
  readonly edgeExactDb: number;
  /** As a rounded hill; null when a body is the main edge or the top is too sharp to fit. */
  readonly roundedDb: number | null;
  readonly radiusM: number | null;
  /** With the next edge; null when none stands above the lines from the main one. */
  readonly twoEdgesDb: number | null;
  readonly secondAtM: number | null;
}

/** A second edge nearer to the first than this share of the path is the same obstacle (ours). */
const APART_SHARE = 0.05;
/** The top of a hill is fitted over this share of the path about its apex (ours). */
const FIT_SHARE = 0.02;
const SHARPEST_M = 0.5;

/** @returns null when nothing stands above the straight line, or the ground is unknown. */
export const diffractionOpinions = (
  path: PreparedPath,
  found: Obstruction | null,
  nearAmslM: number,
  farAmslM: number,
): DiffractionOpinions | null => {
  if (found === null) return null;
  const screens = path.screens();
  const p = raised(found.bare, screens, found.at, null, nearAmslM, farAmslM, new Float64Array(found.bare.count));
  const { count, fromNearKm, topM, vPerM, pathKm } = p;
  const slope = (farAmslM - nearAmslM) / pathKm;
  const above = (i: number): number => topM[i]! - nearAmslM - slope * fromNearKm[i]!;
  let main = -1;
  let mainV = 0;
  for (let i = 0; i < count; i++) {
    const v = above(i) * vPerM[i]!;
    if (v > mainV) {
      mainV = v;
      main = i;
    }
  }
  if (main < 0) return null;
  const atKm = fromNearKm[main]!;
  // The next edge: highest v over the line from the main edge to its own end.
  let second = -1;
  let secondV = 0;
  for (let i = 0; i < count; i++) {
    const d = fromNearKm[i]!;
    if (Math.abs(d - atKm) < APART_SHARE * pathKm) continue;
    const h = above(i) - (d < atKm ? (above(main) * d) / atKm : (above(main) * (pathKm - d)) / (pathKm - atKm));
    const v = h * vPerM[i]!;
    if (v > secondV) {
      secondV = v;
      second = i;
    }
  }
  const solid = found.at.some(({ index }) => screens[index]!.from <= main && screens[index]!.to >= main);
  const radiusM = solid ? null : radiusOf(p.fromNearKm, topM, main, FIT_SHARE * pathKm);
  const lambdaM = p.wavelengthM;
  const first = Math.min(main, second);
  const last = Math.max(main, second);
  return {
    atM: atKm * 1000,
    heightM: above(main),
    edgeDb: knifeEdgeLossDb(mainV),
    edgeExactDb: knifeEdgeLossExactDb(mainV),
    radiusM,
    roundedDb: radiusM === null ? null : roundedObstacleLossDb(above(main), atKm * 1000, (pathKm - atKm) * 1000, radiusM, lambdaM).lossDb,
    secondAtM: second < 0 ? null : fromNearKm[second]! * 1000,
    twoEdgesDb:
      second < 0
        ? null
        : twoEdgeLossDb(
            fromNearKm[first]! * 1000,
            (fromNearKm[last]! - fromNearKm[first]!) * 1000,
            (pathKm - fromNearKm[last]!) * 1000,
            above(first),
            above(last),
            lambdaM,
          ).lossDb,
  };
};

/** Radius of a top by x^2 / 2y over its neighbours, the middle value; null when it is sharp. */
const radiusOf = (fromNearKm: Float64Array, topM: Float64Array, apex: number, reachKm: number): number | null => {
  const radii: number[] = [];
  for (let i = 0; i < topM.length; i++) {
    const xM = (fromNearKm[i]! - fromNearKm[apex]!) * 1000;
    const yM = topM[apex]! - topM[i]!;
    if (xM !== 0 && Math.abs(xM) <= reachKm * 1000 && yM > 0.01) radii.push((xM * xM) / (2 * yM));
  }
  radii.sort((a, b) => a - b);
  const middle = radii[radii.length >> 1];
  return middle === undefined || middle < SHARPEST_M ? null : middle;
};
