import { RAD_PER_DEG } from "../units";
import { geodesicLine, inverse, type LatLon } from "./geodesic";

/** Along and across coordinates about one geodesic. */
export interface PathFrame {
  readonly lengthM: number;
  /**
   * Where a point stands seen from the path.
   * @returns alongM from the near end, acrossM right of the direction near to far positive.
   */
  readonly locate: (point: LatLon) => { alongM: number; acrossM: number };
  readonly at: (alongM: number) => LatLon & { azimuthDeg: number };
}

const TOLERANCE_M = 0.0005;
const MAX_STEPS = 8;

/**
 * A frame whose axis is the geodesic between two points. A point's foot is found by stepping along
 * the geodesic until the line to the point stands square on it: the across distance is a geodesic's.
 * Each step shortens the along error by about (across / earth radius) squared, so two or three suffice.
 */
export const pathFrame = (near: LatLon, far: LatLon): PathFrame => {
  const line = geodesicLine(near, far);
  return {
    lengthM: line.lengthM,
    at: line.at,
    locate: (point) => {
      let alongM = 0;
      let acrossM = 0;
      for (let step = 0; step < MAX_STEPS; step++) {
        const foot = line.at(alongM);
        const to = inverse(foot, point);
        const turnRad = (to.azimuthAtADeg - foot.azimuthDeg) * RAD_PER_DEG;
        const forwardM = to.distanceM * Math.cos(turnRad);
        acrossM = to.distanceM * Math.sin(turnRad);
        alongM += forwardM;
        if (Math.abs(forwardM) < TOLERANCE_M) break;
      }
      return { alongM, acrossM };
    },
  };
};
