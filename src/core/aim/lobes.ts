/*
 * What an installer meets when an antenna is turned: its main lobe to the first null on each side, and
 * the false peak beyond it. Read off the pattern itself by steps, so measured cuts and computed
 * apertures are told alike. Ours: what counts as a null and a lobe.
 */
import type { Pattern } from "../antenna";

export type AimAxis = "azimuth" | "tilt";

/** One side of a cut, angles off the axis in degrees, levels below the peak in dB. */
export interface CutSide {
  /** Where the level has stopped falling for the first time; null where it never does before the back. */
  readonly nullDeg: number | null;
  /** Highest level beyond the null, and where. */
  readonly falsePeakDeg: number | null;
  readonly falsePeakDb: number | null;
}

export interface Lobes {
  readonly beamwidthDeg: number;
  /** Right of the axis, or above it. */
  readonly plus: CutSide;
  readonly minus: CutSide;
}

/** Rise after a null that makes a lobe of it: less is a ripple on the flank. */
const LEAST_RISE_DB = 1;
const FARTHEST_DEG = 90;
const STEPS_PER_BEAM = 60;

export const cutOf = (pattern: Pattern, axis: AimAxis): ((offDeg: number) => number) =>
  axis === "azimuth" ? (off) => pattern.relativeDb(off, 0) : (off) => pattern.relativeDb(0, off);

export const beamwidthOf = (pattern: Pattern, axis: AimAxis): number =>
  axis === "azimuth" ? pattern.azimuthBeamwidthDeg : pattern.elevationBeamwidthDeg;

const sideOf = (levelDb: (offDeg: number) => number, beamwidthDeg: number): CutSide => {
  const step = beamwidthDeg / STEPS_PER_BEAM;
  let lowestDb = 0;
  let nullDeg = 0;
  let falsePeakDb = Number.NEGATIVE_INFINITY;
  let falsePeakDeg = 0;
  let fallsAgain = 0;
  for (let off = step; off < FARTHEST_DEG; off += step) {
    const level = levelDb(off);
    if (falsePeakDb === Number.NEGATIVE_INFINITY && level < lowestDb) {
      lowestDb = level;
      nullDeg = off;
      continue;
    }
    if (level > falsePeakDb && level > lowestDb + LEAST_RISE_DB) {
      falsePeakDb = level;
      falsePeakDeg = off;
      fallsAgain = 0;
    } else if (falsePeakDb > Number.NEGATIVE_INFINITY && ++fallsAgain * step > beamwidthDeg) break;
  }
  if (falsePeakDb === Number.NEGATIVE_INFINITY) return { nullDeg: null, falsePeakDeg: null, falsePeakDb: null };
  return { nullDeg, falsePeakDeg, falsePeakDb };
};

/**
 * Null and false peak on both sides of a cut.
 *
 * @returns null for an antenna that has no lobe to find by turning: the beam is wider than a quarter of a turn, or it steers itself
 *   (its cut is flat across its field).
 */
export const lobesOf = (pattern: Pattern, axis: AimAxis): Lobes | null => {
  const beamwidthDeg = beamwidthOf(pattern, axis);
  const levelDb = cutOf(pattern, axis);
  if (beamwidthDeg > FARTHEST_DEG || levelDb(beamwidthDeg / 2) > -1) return null;
  return { beamwidthDeg, plus: sideOf(levelDb, beamwidthDeg), minus: sideOf((off) => levelDb(-off), beamwidthDeg) };
};
