import { windLoad } from "../infra";
import { needAtLeast, needInRange, needPositive } from "../units";

/*
 * Wind on a unit and its pole, and what its fixings bear: the pole as a cantilever above its upper bracket, the moment taken by the
 * pair of brackets. An aid for a qualified person: no mast, no guy and no building is designed here.
 */

export interface FixingInput {
  /** 3-second gust at the mount's height. */
  readonly gustMS: number;
  /** All that hangs there: a unit, the antenna beside it, others on the same pole. */
  readonly faces: readonly { readonly areaM2: number; readonly form: "plate" | "dish"; readonly weightKg: number }[];
  /** Of the pole above the upper bracket; null: the unit hangs at the bracket. */
  readonly pole: { readonly diameterMm: number; readonly lengthM: number; readonly weightKg: number } | null;
  /** From the upper bracket up to the middle of the faces. */
  readonly faceAboveM: number;
  readonly bracketsApartM: number;
  /** How far the brackets hold it off the wall. */
  readonly standOffM: number;
  readonly screwsPerBracket: number;
  /** Holds of one fixing in that wall, with where they stand; null: not known. */
  readonly pullHoldN: number | null;
  readonly shearHoldN: number | null;
  /** Hold over load that is asked. */
  readonly factor: number;
  /** Ice all round, mm; null: not asked. */
  readonly iceMm: number | null;
}

export interface FixingLoad {
  readonly faceN: number;
  readonly poleN: number;
  readonly momentNm: number;
  readonly deadN: number;
  /** On the worse bracket, wind from the worst side. */
  readonly pullN: number;
  readonly pullPerScrewN: number;
  readonly shearPerScrewN: number;
  readonly asksPullN: number;
  readonly asksShearN: number;
  readonly verdict: "clear" | "short" | "unknown";
}

const G = 9.81;
const ICE_KG_M3 = 900;
/** One bracket of a pair carries the weight alone when the other slips (ours). */
const WEIGHT_ON_ONE = 1;
/** A pole is taken as a steel tube of this wall (ours). */
const TUBE_WALL_M = 0.0025;
const STEEL_KG_M3 = 7850;

/** Weight of a pole of a length, kg. */
export const poleKg = (diameterMm: number, lengthM: number): number => Math.PI * (diameterMm / 1000) * TUBE_WALL_M * STEEL_KG_M3 * lengthM;

/** @throws RangeError for figures below 0, or brackets at one height. */
export const fixingLoad = (i: FixingInput): FixingLoad => {
  needAtLeast("gust, m/s", i.gustMS, 0);
  needPositive("brackets apart, m", i.bracketsApartM);
  needInRange("screws", i.screwsPerBracket, 1, 100);
  const ice = (i.iceMm ?? 0) / 1000;
  const faceN = i.faces.reduce((n, f) => n + windLoad(f.form, (Math.sqrt(f.areaM2) + 2 * ice) ** 2, i.gustMS, 0).forceN, 0);
  const diameterM = (i.pole?.diameterMm ?? 0) / 1000 + 2 * ice;
  const lengthM = i.pole?.lengthM ?? 0;
  const poleN = i.pole === null ? 0 : windLoad("pole", diameterM * lengthM, i.gustMS, 0).forceN;
  const momentNm = faceN * i.faceAboveM + (poleN * lengthM) / 2;
  const facesM2 = i.faces.reduce((m, f) => m + f.areaM2, 0);
  const iceKg = ICE_KG_M3 * (ice * facesM2 * 2 + Math.PI * diameterM * ice * lengthM);
  const deadN = G * (i.faces.reduce((kg, f) => kg + f.weightKg, 0) + (i.pole?.weightKg ?? 0) + iceKg);
  // Wind away from the wall: the upper bracket bears the force and the moment; the weight on its arm pries the upper one off, too.
  const pullN = faceN + poleN + (momentNm + deadN * i.standOffM) / i.bracketsApartM;
  const pullPerScrewN = pullN / i.screwsPerBracket;
  // Wind along the wall shears as much as wind away pulls; the weight hangs beside it.
  const alongN = faceN + poleN + momentNm / i.bracketsApartM;
  const shearPerScrewN = Math.hypot(alongN, deadN * WEIGHT_ON_ONE) / i.screwsPerBracket;
  const asksPullN = pullPerScrewN * i.factor;
  const asksShearN = shearPerScrewN * i.factor;
  const known = i.pullHoldN !== null && i.shearHoldN !== null;
  const holds = known && i.pullHoldN! >= asksPullN && i.shearHoldN! >= asksShearN;
  const fails = (i.pullHoldN !== null && i.pullHoldN < asksPullN) || (i.shearHoldN !== null && i.shearHoldN < asksShearN);
  return {
    faceN,
    poleN,
    momentNm,
    deadN,
    pullN,
    pullPerScrewN,
    shearPerScrewN,
    asksPullN,
    asksShearN,
    verdict: fails ? "short" : holds ? "clear" : "unknown",
  };
};

/** A mean over ten minutes as the gust that it stands for. @param gustFactor as the local wind code states it. */
export const gustOfMean = (meanMS: number, gustFactor: number): number => meanMS * needInRange("gust factor", gustFactor, 1, 3);

/** Length of a ladder leant at 75°: a metre beyond where one steps off. */
export const ladderM = (stepOffM: number): number => (needAtLeast("step-off, m", stepOffM, 0) + 1) / Math.sin((75 * Math.PI) / 180);
/** Lengths that are sold, m. */
const LADDERS = [3, 4, 5, 6, 7, 8, 9, 10] as const;
export const ladderFor = (stepOffM: number): number | null => LADDERS.find((l) => l >= ladderM(stepOffM) - 1e-9) ?? null;
