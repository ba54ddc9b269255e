/* Where a remote lies in a sector's beam: inside it, under it, over it or beside it, by how much, and what that costs. */
import type { Pattern } from "../antenna";
import { needInRange } from "../units";

export interface SectorAim {
  readonly azimuthDeg: number;
  /** Up positive; mechanical and electrical together. */
  readonly tiltDeg: number;
}

/** Half power: where a beam is said to end. */
export const BEAM_EDGE_DB = -3;

export const offBy = (fromDeg: number, toDeg: number): number => ((((toDeg - fromDeg + 180) % 360) + 360) % 360) - 180;

/** Angles off the axis of a sector towards a bearing and an elevation, right and up positive. */
export const offAxis = (aim: SectorAim, bearingDeg: number, elevationDeg: number) => ({
  azimuthDeg: offBy(aim.azimuthDeg, bearingDeg),
  elevationDeg: elevationDeg - aim.tiltDeg,
});

const HALVINGS = 40;
const STEP_DEG = 0.5;

/** The first angle on one side of the axis at which the pattern has fallen to a level; null where it never does. */
const edgeOf = (relativeDb: (offDeg: number) => number, levelDb: number, mostDeg: number): number | null => {
  for (let to = STEP_DEG; to <= mostDeg + 1e-9; to += STEP_DEG) {
    if (relativeDb(to) > levelDb) continue;
    let [low, high] = [to - STEP_DEG, to];
    for (let i = 0; i < HALVINGS; i++) {
      const mid = (low + high) / 2;
      if (relativeDb(mid) > levelDb) low = mid;
      else high = mid;
    }
    return (low + high) / 2;
  }
  return null;
};

export interface BeamEdges {
  /** Below and above the axis, degrees, both positive; null where the pattern does not fall so far within 90 degrees. */
  readonly downDeg: number | null;
  readonly upDeg: number | null;
  /** To either side; null all round. */
  readonly asideDeg: number | null;
}

/** @throws RangeError for a level above 0 dB. */
export const beamEdges = (pattern: Pick<Pattern, "relativeDb">, levelDb = BEAM_EDGE_DB): BeamEdges => {
  needInRange("level below the peak, dB", levelDb, -200, 0);
  return {
    downDeg: edgeOf((off) => pattern.relativeDb(0, -off), levelDb, 90),
    upDeg: edgeOf((off) => pattern.relativeDb(0, off), levelDb, 90),
    asideDeg: edgeOf((off) => Math.max(pattern.relativeDb(off, 0), pattern.relativeDb(-off, 0)), levelDb, 180),
  };
};

export interface PlaceInBeam {
  readonly where: "in" | "under" | "over" | "beside";
  /** Beyond the edge that it lies farthest outside of; 0 inside. */
  readonly byDeg: number;
  /** What the pattern takes there, dB, 0 or less. */
  readonly lossDb: number;
  readonly off: { readonly azimuthDeg: number; readonly elevationDeg: number };
}

/** Where a direction lies in a beam, by its edges in height and to the sides. */
export const placeInBeam = (
  pattern: Pick<Pattern, "relativeDb">,
  edges: BeamEdges,
  aim: SectorAim,
  bearingDeg: number,
  elevationDeg: number,
): PlaceInBeam => {
  const off = offAxis(aim, bearingDeg, elevationDeg);
  const lossDb = pattern.relativeDb(off.azimuthDeg, off.elevationDeg);
  const beyond = (angleDeg: number, edgeDeg: number | null): number => (edgeDeg === null ? 0 : Math.max(0, angleDeg - edgeDeg));
  const under = beyond(-off.elevationDeg, edges.downDeg);
  const over = beyond(off.elevationDeg, edges.upDeg);
  const beside = beyond(Math.abs(off.azimuthDeg), edges.asideDeg);
  const byDeg = Math.max(under, over, beside);
  const where = byDeg === 0 ? "in" : byDeg === beside ? "beside" : byDeg === under ? "under" : "over";
  return { where, byDeg, lossDb, off };
};

/** Around a hub on the ground: from where to where its beam looks over what lies there, m; null where it reaches to its foot. */
export const blindRadiusM = (mountAboveM: number, aim: SectorAim, edges: BeamEdges): number | null => {
  if (edges.downDeg === null) return null;
  const downDeg = edges.downDeg - aim.tiltDeg;
  if (downDeg >= 90) return null;
  return downDeg <= 0 ? Number.POSITIVE_INFINITY : mountAboveM / Math.tan((downDeg * Math.PI) / 180);
};
