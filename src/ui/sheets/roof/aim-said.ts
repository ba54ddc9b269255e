import type { RoofEnd } from "@/contract";
import {
  type AimModel,
  type AngleWay,
  adviseSweep,
  aimModel,
  angleSigmaDeg,
  needsScrew,
  patternOfCut,
  type SweepAdvice,
  type SweepExpectation,
  wantedStepDeg,
} from "@/core/aim";
import type { Axis, EndStands, RoofEntry } from "@/core/roof";
import { AXIS_WORDS, angleWords } from "../../wording/roof";

/* What a sweep comes to, for whoever stands at the antenna: one word, one turn, how sure, what to do next. */

/** Noise of one reading as radios show it, dB. */
const READING_SIGMA_DB = 1;
/** From the bounds of 8 in 10 to one sigma. */
const SIGMAS = 1.2816;
/** A bearing off a map is not better than this, whatever it is set by. */
const LEAST_START_DEG = 3;

export interface AimSaid {
  readonly head: string;
  /** The turn that is the figure; null while no angle is told. */
  readonly turn: { readonly deg: number; readonly plusMinusDeg: number; readonly sure: number } | null;
  readonly words: readonly string[];
  readonly kind: SweepAdvice["kind"] | "none";
  /** Level of the fitted cut at any turn, for drawing; null before there is a fit. */
  readonly levelAt: ((deg: number) => number) | null;
  /** The reading that agrees with none of the others. */
  readonly misfit: number | null;
  readonly peakDeg: number | null;
  /** Where it is worth reading next; null where it stands. */
  readonly readAtDeg: number | null;
}

export interface AimOf {
  readonly model: AimModel;
  readonly stepDeg: number;
  readonly expectation: SweepExpectation;
  readonly lowDbm: number;
  readonly highDbm: number;
  readonly screw: boolean;
}

/** How an antenna is looked for. @returns null for one that is not found by turning, or of which no level is known. */
export const aimOf = (
  end: RoofEnd,
  axis: Axis,
  own: EndStands,
  otherIsAimed: boolean,
  way: AngleWay,
  /** Of the radio that is read: this end's, or the other's. */
  level: RoofEnd["level"] = end.level,
): AimOf | null => {
  const cut = end[axis];
  if (cut === null || level === null) return null;
  const coarse = own.steps.find((s) => s.id === "coarse")?.parts[0]?.by ?? null;
  const of = { poleMm: end.poleMm, screwDegPerTurn: null };
  return {
    model: aimModel(patternOfCut(cut), axis, angleSigmaDeg(way, of)),
    stepDeg: wantedStepDeg(cut.beamwidthDeg),
    expectation: {
      levelDbm: level.dbm,
      sigmaDb: Math.max(1, (level.highDbm - level.lowDbm) / 2 / SIGMAS),
      leastHeardDbm: level.leastDbm,
      readingSigmaDb: READING_SIGMA_DB,
      restIsAimed: otherIsAimed && own.peak[axis === "azimuth" ? "tilt" : "azimuth"] !== null,
      startSigmaDeg: axis === "tilt" ? null : Math.max(LEAST_START_DEG, angleSigmaDeg(coarse?.way ?? "eye", of)),
    },
    lowDbm: level.lowDbm,
    highDbm: level.highDbm,
    screw: needsScrew(cut.beamwidthDeg, way),
  };
};

/** Directions as they are seen from behind the antenna. */
const turnWords = (axis: Axis, deg: number): string =>
  axis === "azimuth" ? (deg < 0 ? "Turn left" : "Turn right") : deg < 0 ? "Tilt down" : "Tilt up";
const sideWords = (axis: Axis, lobe: "minus" | "plus"): string =>
  axis === "azimuth" ? (lobe === "minus" ? "left" : "right") : lobe === "minus" ? "down" : "up";

const count = (n: number, one: string): string => `${n} more ${one}${n === 1 ? "" : "s"}`;

/** Rounded up, so that it is never told better than it is. */
const upTo = (deg: number): number => Math.ceil(deg * (deg < 3 ? 10 : 1) - 1e-9) / (deg < 3 ? 10 : 1);

const NOTHING = { turn: null, levelAt: null, misfit: null, peakDeg: null, readAtDeg: null };

export const sayAim = (aim: AimOf, axis: Axis, readings: readonly RoofEntry[]): AimSaid => {
  const taken = readings.map((r) => ({ angleDeg: r.angleDeg ?? 0, levelDbm: r.levelDbm }));
  const a = adviseSweep(aim.model, taken, aim.expectation, aim.lowDbm);
  const here = taken[taken.length - 1]?.angleDeg ?? 0;
  const further = axis === "azimuth" ? "to each side" : "up and down";
  if (a.kind === "few")
    return {
      ...NOTHING,
      kind: taken.length === 0 ? "none" : "few",
      head: taken.length === 0 ? "Begin to sweep" : "Keep sweeping",
      words: [`${count(a.missing, "place")} before anything is told. Steps of ${aim.stepDeg}°, ${further}; also where nothing is heard.`],
    };
  if (a.kind === "coarse")
    return {
      ...NOTHING,
      kind: "coarse",
      head: "Too coarse",
      words: [`Steps of ${Math.round(a.stepDeg * 10) / 10}° miss the beam. Step ${a.wantedStepDeg}°.`],
    };
  if (a.kind === "silent")
    return {
      ...NOTHING,
      kind: "silent",
      head: "Nothing heard",
      words: [`Further ${further} in steps of ${aim.stepDeg}°. Is the other end on, and does it look here? A radar wait is no fault.`],
    };
  const { fit } = a;
  const told = { levelAt: fit.levelAt, misfit: fit.misfit, peakDeg: fit.peakDeg, readAtDeg: null as number | null, turn: null };
  const left = fit.misfit === null ? [] : [`Reading ${fit.misfit + 1} agrees with none of the others and is left out: was it misread?`];
  if (a.kind === "unsure")
    return {
      ...told,
      kind: "unsure",
      readAtDeg: a.readAtDeg,
      head: "Peak or false peak?",
      words: [`Not known yet. A reading ${angleWords(axis, round(a.readAtDeg, aim.stepDeg))} of the start would tell most.`, ...left],
    };
  if (a.kind === "side") {
    const far = a.lobe === "main" ? "The peak is near." : `This is a false peak: the true one lies ${sideWords(axis, a.lobe)}.`;
    return {
      ...told,
      kind: "side",
      readAtDeg: a.readAtDeg,
      head: a.lobe === "main" ? "Nearly there" : "This is a false peak",
      words: [`${far} A reading ${angleWords(axis, round(a.readAtDeg, aim.stepDeg))} of the start would tell how far.`, ...left],
    };
  }
  if (a.kind === "turn")
    return {
      ...told,
      kind: "turn",
      head: a.lobe === "main" ? turnWords(axis, a.turnDeg) : "This is a false peak",
      turn: { deg: a.turnDeg, plusMinusDeg: upTo(fit.peakPlusMinusDeg), sure: Math.min(99, Math.floor(100 * fit.chance[a.lobe])) },
      readAtDeg: here + a.turnDeg,
      words: [a.lobe === "main" ? "Then read there." : `${turnWords(axis, a.turnDeg)}, then read there.`, ...left],
    };
  return {
    ...told,
    kind: "peak",
    head: "This is the peak",
    words: [
      a.underDb > 0
        ? `Of the main lobe, ${Math.round(a.underDb * 10) / 10} dB under the plan${aim.expectation.restIsAimed ? ": look for water, a dead chain, a tree" : `; ${axis === "azimuth" ? "tilt" : "side"} or the other end are not aimed yet`}.`
        : `Within the expected band, on the main lobe, ${AXIS_WORDS[axis]}.`,
      ...left,
    ],
  };
};

/** To what a hand can set: a tenth of the step, or whole degrees. */
const round = (deg: number, stepDeg: number): number => (stepDeg >= 1 ? Math.round(deg) : Math.round(deg * 10) / 10);
