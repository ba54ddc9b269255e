/*
 * What to do next of a sweep: keep sweeping, smaller steps, one reading that would settle it, turn so far,
 * or stop, it is the peak. An angle is told only where the lobe is known at nine in ten and its place to
 * three tenths of a beamwidth; else it would send somebody round a pole for nothing. Ours.
 */
import { fitSweep, type LobeAt, type SweepExpectation, type SweepFit, type SweepReading, TELLS_BW, TELLS_SHARE } from "./fit";
import type { AimModel } from "./model";

export type SweepAdvice =
  /** Too little was read. */
  | { readonly kind: "few"; readonly missing: number }
  /** Enough was read, and hardly anything heard. */
  | { readonly kind: "silent" }
  /** Steps wider than the beam miss the lobe altogether. */
  | { readonly kind: "coarse"; readonly stepDeg: number; readonly wantedStepDeg: number }
  /** Main lobe or false peak: not known; one reading there would tell most. */
  | { readonly kind: "unsure"; readonly fit: SweepFit; readonly readAtDeg: number }
  /** The side is known, not how far. */
  | { readonly kind: "side"; readonly fit: SweepFit; readonly lobe: LobeAt; readonly readAtDeg: number }
  /** Turn from where it stands; right, or up, is positive. */
  | { readonly kind: "turn"; readonly fit: SweepFit; readonly lobe: LobeAt; readonly turnDeg: number }
  /** It stands on the peak of the main lobe; by how much under the plan's band, 0 when within. */
  | { readonly kind: "peak"; readonly fit: SweepFit; readonly underDb: number };

export const LEAST_READINGS = 5;
const LEAST_HEARD = 2;
/** Steps wider than this of the beam leave the lobe between two readings. */
const COARSE_BW = 1.05;
const WANTED_STEP_BW = 1 / 3;
/** A turn smaller than this of the beam changes the level by less than 0.2 dB. */
const ON_PEAK_BW = 0.12;

const STEPS_DEG = [0.1, 0.2, 0.5, 1, 2, 3, 5, 10, 15];
/** A step that three fit into the beam, as a hand can make it. */
export const wantedStepDeg = (beamwidthDeg: number): number =>
  [...STEPS_DEG].reverse().find((s) => s <= beamwidthDeg * WANTED_STEP_BW * 1.05) ?? STEPS_DEG[0]!;

const medianStep = (readings: readonly SweepReading[]): number => {
  const angles = [...new Set(readings.map((r) => r.angleDeg))].sort((a, b) => a - b);
  const steps = angles.slice(1).map((a, i) => a - angles[i]!);
  return steps.sort((a, b) => a - b)[Math.floor(steps.length / 2)] ?? 0;
};

/**
 * @param readings in the order in which they were taken; the last says where the antenna stands.
 * @param lowDbm lower end of the band within which the level is as planned.
 */
export const adviseSweep = (
  model: AimModel,
  readings: readonly SweepReading[],
  expectation: SweepExpectation,
  lowDbm: number,
): SweepAdvice => {
  const apart = new Set(readings.map((r) => r.angleDeg)).size;
  if (apart < LEAST_READINGS) return { kind: "few", missing: LEAST_READINGS - apart };
  const step = medianStep(readings);
  if (step > COARSE_BW * model.beamwidthDeg) return { kind: "coarse", stepDeg: step, wantedStepDeg: wantedStepDeg(model.beamwidthDeg) };
  if (readings.filter((r) => r.levelDbm !== null).length < LEAST_HEARD) return { kind: "silent" };
  const fit = fitSweep(model, readings, expectation);
  const { lobe } = fit;
  const here = readings[readings.length - 1]!;
  if (fit.chance[lobe] < TELLS_SHARE && !fit.placeKnown) return { kind: "unsure", fit, readAtDeg: fit.settlesAtDeg ?? fit.peakDeg };
  if (fit.peakPlusMinusDeg > TELLS_BW * model.beamwidthDeg) return { kind: "side", fit, lobe, readAtDeg: fit.settlesAtDeg ?? fit.peakDeg };
  const turnDeg = fit.peakDeg - here.angleDeg;
  const onPeak = lobe === "main" && here.levelDbm !== null && Math.abs(turnDeg) <= ON_PEAK_BW * model.beamwidthDeg;
  if (!onPeak) return { kind: "turn", fit, lobe, turnDeg };
  return { kind: "peak", fit, underDb: Math.max(0, lowDbm - here.levelDbm!) };
};

/** More than this between before and after tightening: it moved. */
const MOVED_DB = 1;
/** True where the level fell by tightening: loosen, peak, tighten again. */
export const movedByTightening = (beforeDbm: number, afterDbm: number): boolean => beforeDbm - afterDbm > MOVED_DB;
