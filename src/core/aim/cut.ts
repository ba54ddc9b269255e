/* A cut through a pattern as figures, for where the pattern itself cannot be: a phone that fits a sweep to it. Ours. */
import type { Pattern } from "../antenna";
import { type AimAxis, cutOf, lobesOf } from "./lobes";
import { REACH_BW } from "./model";

export interface AimCut {
  readonly axis: AimAxis;
  readonly beamwidthDeg: number;
  /** Levels below the peak in dB, one a step, the axis in the middle. */
  readonly stepDeg: number;
  readonly db: readonly number[];
}

const STEPS_PER_BEAM = 40;
/** A little farther than the fit looks, for cuts that are stretched. */
const BEYOND = 1.25;

/** @returns null for an antenna that is not found by turning. */
export const aimCut = (pattern: Pattern, axis: AimAxis): AimCut | null => {
  const lobes = lobesOf(pattern, axis);
  if (lobes === null) return null;
  const stepDeg = lobes.beamwidthDeg / STEPS_PER_BEAM;
  const half = Math.floor(Math.min(180, lobes.beamwidthDeg * REACH_BW * BEYOND) / stepDeg);
  const levelDb = cutOf(pattern, axis);
  return {
    axis,
    beamwidthDeg: lobes.beamwidthDeg,
    stepDeg,
    db: Array.from({ length: 2 * half + 1 }, (_, i) => Math.round(levelDb((i - half) * stepDeg) * 100) / 100),
  };
};

/** The pattern that a cut is of, along its axis. */
export const patternOfCut = (cut: AimCut): Pattern => {
  const half = (cut.db.length - 1) / 2;
  const levelDb = (offDeg: number): number => {
    const at = Math.max(0, Math.min(cut.db.length - 1.001, half + offDeg / cut.stepDeg));
    const low = Math.floor(at);
    return cut.db[low]! * (low + 1 - at) + cut.db[low + 1]! * (at - low);
  };
  const along = (azimuth: number, tilt: number): number => levelDb(cut.axis === "azimuth" ? azimuth : tilt);
  return {
    relativeDb: along,
    envelopeDb: along,
    kind: "measured cuts",
    azimuthBeamwidthDeg: cut.beamwidthDeg,
    elevationBeamwidthDeg: cut.beamwidthDeg,
    beamwidthDerived: false,
    sideLobe: null,
  };
};
