/*
 * Recommendation ITU-R P.526-15 §4.2 (single rounded obstacle) and §4.3 (two isolated edges). Beside
 * the whole method of §4.5 they are a second opinion on a path with one hill or two edges.
 * Lengths in metres; v as in §4.1.
 */
import { needPositive } from "../units";
import { knifeEdgeLossDb } from "./p526-knife-edge";

/** Geometry parameter v of an edge a height above the straight line, §4.1 eq. (26). */
export const vOfEdge = (heightM: number, d1M: number, d2M: number, wavelengthM: number): number =>
  heightM * Math.sqrt((2 / wavelengthM) * (1 / d1M + 1 / d2M));

/**
 * Loss over one rounded obstacle, §4.2 eq. (32) to (37): J(v) of the edge at the apex plus T(m, n).
 * @param heightM apex above the straight line; @param radiusM radius of curvature at the apex.
 * @returns the loss in dB. The text is for obstacles above the line: below it (heightM <= 0) inRange is false.
 * @throws RangeError for a distance, radius or wavelength that is not above 0.
 */
export const roundedObstacleLossDb = (
  heightM: number,
  d1M: number,
  d2M: number,
  radiusM: number,
  wavelengthM: number,
): { lossDb: number; edgeDb: number; roundingDb: number; inRange: boolean } => {
  needPositive("distance d1", d1M);
  needPositive("distance d2", d2M);
  needPositive("radius", radiusM);
  needPositive("wavelength", wavelengthM);
  const size = (Math.PI * radiusM) / wavelengthM;
  const m = (radiusM * (d1M + d2M)) / (d1M * d2M) / size ** (1 / 3); // eq. (34)
  const n = (heightM * size ** (2 / 3)) / radiusM; // eq. (35)
  const root = 7.2 * Math.sqrt(m) + 3.6 * m ** 1.5 - 0.8 * m * m;
  // eq. (36) up to mn = 4, eq. (37) beyond.
  const t = m * n <= 4 ? root - (2 - 12.5 * n) * m : -6 - 20 * Math.log10(m * n) + root - (2 - 17 * n) * m;
  const edgeDb = knifeEdgeLossDb(vOfEdge(heightM, d1M, d2M, wavelengthM));
  const roundingDb = Math.max(0, t);
  return { lossDb: edgeDb + roundingDb, edgeDb, roundingDb, inRange: heightM > 0 };
};

/**
 * Loss over two isolated edges, §4.3. The greater edge is taken alone over the whole path and the lesser
 * from it to the far end, less the correction T_c; where the two are alike (both 15 dB and more, within
 * 3 dB, ours) the sum of both subpaths with the correction L_c of eq. (38) is used instead.
 * @param aM, bM, cM distances end to first edge, between the edges, second edge to end.
 * @param h1M, h2M heights of the edges above the straight line between the ends.
 */
export const twoEdgeLossDb = (
  aM: number,
  bM: number,
  cM: number,
  h1M: number,
  h2M: number,
  wavelengthM: number,
): { lossDb: number; method: "alike" | "predominant" } => {
  needPositive("distance a", aM);
  needPositive("distance b", bM);
  needPositive("distance c", cM);
  const d = aM + bM + cM;
  // Height of each edge above the line from the end to the other edge.
  const overFirst = h1M - (h2M * aM) / (aM + bM);
  const overSecond = h2M - (h1M * cM) / (bM + cM);
  const one = knifeEdgeLossDb(vOfEdge(overFirst, aM, bM, wavelengthM));
  const two = knifeEdgeLossDb(vOfEdge(overSecond, bM, cM, wavelengthM));
  if (one >= 15 && two >= 15 && Math.abs(one - two) < 3) {
    return { lossDb: one + two + 10 * Math.log10(((aM + bM) * (bM + cM)) / (bM * d)), method: "alike" }; // eq. (38)
  }
  const first = vOfEdge(h1M, aM, bM + cM, wavelengthM) >= vOfEdge(h2M, aM + bM, cM, wavelengthM);
  const [mainM, sideA, sideC, mainH, otherH] = first ? [aM, aM, cM, h1M, h2M] : [cM, cM, aM, h2M, h1M];
  const mainDb = knifeEdgeLossDb(vOfEdge(mainH, mainM, d - mainM, wavelengthM));
  const restDb = first ? two : one;
  const p = Math.sqrt(((2 / wavelengthM) * d) / ((bM + sideC) * sideA)) * mainH; // eq. (40)
  const q = Math.sqrt(((2 / wavelengthM) * d) / ((sideA + bM) * sideC)) * otherH; // eq. (41)
  const alphaRad = Math.atan(Math.sqrt((bM * d) / (sideA * sideC))); // eq. (42)
  const corrected = p > 0 && q > 0 ? (12 - 20 * Math.log10(2 / (1 - alphaRad / Math.PI))) * (q / p) ** (2 * p) : 0; // eq. (39)
  return { lossDb: Math.max(mainDb, mainDb + restDb - Math.max(0, corrected)), method: "predominant" };
};
