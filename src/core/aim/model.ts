/*
 * What a sweep may look like: a family of cuts about the one of the data sheet, for no antenna is quite
 * its sheet. The main lobe is a little narrower or wider, what lies beyond its -10 dB point is nearer or
 * farther and higher or lower; beneath it the level is known to a few dB only. Ours.
 *
 * Each member is kept as mean and variance of the level at a turn, the error of the angle taken in by
 * five points of Gauss and Hermite: near a null a small error of the angle is a large one of the level.
 */
import type { Pattern } from "../antenna";
import { type AimAxis, beamwidthOf, cutOf } from "./lobes";

/** Half width of the tables, in beamwidths, and their step. */
export const REACH_BW = 6;
export const STEP_BW = 0.05;
export const TABLE_LENGTH = Math.round((2 * REACH_BW) / STEP_BW) + 1;

export interface AimModel {
  readonly beamwidthDeg: number;
  /** One after the other, TABLE_LENGTH each, from -REACH_BW to REACH_BW beamwidths off the axis: level in dB and its variance in dB². */
  readonly meanDb: Float64Array;
  readonly varianceDb2: Float64Array;
  /** Log weight of each member before any reading. */
  readonly logWeight: Float64Array;
  /** End of the main lobe left and right, in beamwidths, one a member. */
  readonly nullBw: { readonly minus: Float64Array; readonly plus: Float64Array };
  readonly members: number;
}

const WIDTHS = [0.93, 1, 1.07];
const STRETCHES = [0.88, 1, 1.14];
const LIFTS_DB = [-3, 0, 3];
/** Where the sheet's main lobe ends and what differs from unit to unit begins. */
const SHOULDER_DB = -10;
/** A real null is filled: by what the ground and the mast scatter, and by two polarisations that do not agree. */
const FILL_DB = -30;

const HERMITE = [
  [-2.856970013872806, 0.011257411327720688],
  [-1.3556261799742659, 0.22207592200561263],
  [0, 0.5333333333333333],
  [1.3556261799742659, 0.22207592200561263],
  [2.856970013872806, 0.011257411327720688],
] as const;

/** How well a level is known by its depth, dB. */
const depthSigmaDb = (db: number): number => {
  if (db > -3) return 0.3;
  if (db > SHOULDER_DB) return 0.3 + ((-3 - db) / 7) * 0.7;
  return Math.min(2.6, 1 + ((SHOULDER_DB - db) / 6) * 1.6);
};

const shoulderOf = (levelDb: (bw: number) => number, side: 1 | -1): number => {
  let at = 0;
  while (at < 3 && levelDb(side * at) > SHOULDER_DB) at += 0.01;
  return at;
};

const filled = (db: number): number => 10 * Math.log10(10 ** (db / 10) + 10 ** (FILL_DB / 10));

/** First place beyond the shoulder where the level rises, walking outward in the table. */
const nullFrom = (mean: Float64Array, offset: number, side: 1 | -1): number => {
  const centre = offset + (TABLE_LENGTH - 1) / 2;
  for (let i = 4; i < (TABLE_LENGTH - 1) / 2; i++) {
    const here = mean[centre + side * i]!;
    if (here < SHOULDER_DB && mean[centre + side * (i + 1)]! > here) return i * STEP_BW;
  }
  return REACH_BW;
};

/**
 * @param angleSigmaDeg one sigma of a single angle as it is taken (scale, compass, eye).
 * @throws RangeError for an antenna without a beam (wider than 120 degrees) or a sigma that is not 0 or more.
 */
export const aimModel = (pattern: Pattern, axis: AimAxis, angleSigmaDeg: number): AimModel => {
  const beamwidthDeg = beamwidthOf(pattern, axis);
  if (!(beamwidthDeg <= 120)) throw new RangeError(`a beam of ${beamwidthDeg} degrees is not found by turning`);
  if (!(angleSigmaDeg >= 0)) throw new RangeError(`angle error ${angleSigmaDeg} degrees must be 0 or more`);
  const cut = cutOf(pattern, axis);
  const levelDb = (bw: number): number => cut(Math.max(-180, Math.min(180, bw * beamwidthDeg)));
  const shoulder = { plus: shoulderOf(levelDb, 1), minus: shoulderOf(levelDb, -1) };
  const sigmaBw = angleSigmaDeg / beamwidthDeg;
  const members = WIDTHS.length * STRETCHES.length * LIFTS_DB.length;
  const meanDb = new Float64Array(members * TABLE_LENGTH);
  const varianceDb2 = new Float64Array(members * TABLE_LENGTH);
  const logWeight = new Float64Array(members);
  const nullBw = { minus: new Float64Array(members), plus: new Float64Array(members) };
  let member = 0;
  for (const width of WIDTHS)
    for (const stretch of STRETCHES)
      for (const lift of LIFTS_DB) {
        const at = (bw: number): number => {
          const off = bw / width;
          const edge = off < 0 ? shoulder.minus : shoulder.plus;
          const beyond = Math.abs(off) - edge;
          const db = beyond <= 0 ? levelDb(off) : levelDb(Math.sign(off) * (edge + beyond / stretch));
          return filled(db + lift * Math.min(1, Math.max(0, (SHOULDER_DB - db) / 5)));
        };
        const offset = member * TABLE_LENGTH;
        for (let i = 0; i < TABLE_LENGTH; i++) {
          const bw = -REACH_BW + i * STEP_BW;
          let sum = 0;
          let squares = 0;
          for (const [node, weight] of HERMITE) {
            const db = at(bw + node * sigmaBw);
            sum += weight * db;
            squares += weight * db * db;
          }
          meanDb[offset + i] = sum;
          varianceDb2[offset + i] = Math.max(0, squares - sum * sum) + depthSigmaDb(sum) ** 2;
        }
        nullBw.minus[member] = nullFrom(meanDb, offset, -1);
        nullBw.plus[member] = nullFrom(meanDb, offset, 1);
        const off = (width === 1 ? 0 : 1) + (stretch === 1 ? 0 : 1) + (lift === 0 ? 0 : 1);
        logWeight[member] = -0.6 * off;
        member++;
      }
  return { beamwidthDeg, meanDb, varianceDb2, logWeight, nullBw, members };
};
