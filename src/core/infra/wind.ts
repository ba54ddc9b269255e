/*
 * Wind on a plate or dish: q = rho v^2 / 2, F = q C A (standard fluid mechanics; drag figures of the kind
 * antenna makers state). An aid for choosing brackets: a mast is for a qualified person and local codes.
 */
import { needAtLeast } from "../units";

const AIR_KG_M3 = 1.225;
const DRAG = { plate: 1.2, dish: 1.4, pole: 1.2 } as const;

export interface WindLoad {
  readonly pressurePa: number;
  readonly forceN: number;
  /** About the fixing, at the lever given. */
  readonly momentNm: number;
}

/** @param windM_s gust speed; @param areaM2 projected area; @param leverM above the fixing. @throws RangeError below 0. */
export const windLoad = (form: keyof typeof DRAG, areaM2: number, windMS: number, leverM: number): WindLoad => {
  needAtLeast("area, m2", areaM2, 0);
  needAtLeast("wind, m/s", windMS, 0);
  needAtLeast("lever, m", leverM, 0);
  const pressurePa = (AIR_KG_M3 * windMS * windMS) / 2;
  const forceN = pressurePa * DRAG[form] * areaM2;
  return { pressurePa, forceN, momentNm: forceN * leverM };
};
