/*
 * Human exposure after ICNIRP 2020 (Tables 5 and 6): general public, above 2 GHz, averaged over 30
 * minutes (whole body) and 6 minutes (local). A planning distance, not an assessment: local rules decide.
 */
import { needInRange, needPositive } from "../units";

/** Whole-body limit of incident power density, W/m2, 2 to 300 GHz, Table 5. @throws RangeError outside. */
export const wholeBodyLimitWm2 = (frequencyGhz: number): number => {
  needInRange("frequency, GHz", frequencyGhz, 2, 300);
  return 10;
};

/** Local limit, W/m2, Table 6: 40 to 6 GHz, then 55 / f^0.177. @throws RangeError outside 2 to 300 GHz. */
export const localLimitWm2 = (frequencyGhz: number): number => {
  needInRange("frequency, GHz", frequencyGhz, 2, 300);
  return frequencyGhz <= 6 ? 40 : 55 / frequencyGhz ** 0.177;
};

export interface Exposure {
  /** Distance in front of the antenna beyond which the limit is kept; 0 when it is kept everywhere. */
  readonly distanceM: number;
  readonly limitWm2: number;
  /** Highest flux anywhere in front, the near-field bound 4 P / A. */
  readonly nearFieldWm2: number;
  readonly eirpDbm: number;
}

/**
 * @param powerDbm total at the antenna; @param gainDbi; @param apertureM diameter of the same area;
 * @param dutyShare share of time on air, 0 to 1.
 */
export const exposureDistance = (
  powerDbm: number,
  gainDbi: number,
  apertureM: number,
  frequencyGhz: number,
  dutyShare: number,
): Exposure => {
  needInRange("duty", dutyShare, 0, 1);
  const limitWm2 = wholeBodyLimitWm2(frequencyGhz);
  const powerW = 10 ** ((powerDbm - 30) / 10) * dutyShare;
  const nearFieldWm2 = (4 * powerW) / (Math.PI * (needPositive("aperture, m", apertureM) / 2) ** 2);
  const farM = Math.sqrt((powerW * 10 ** (gainDbi / 10)) / (4 * Math.PI * limitWm2));
  return { distanceM: nearFieldWm2 <= limitWm2 ? 0 : farM, limitWm2, nearFieldWm2, eirpDbm: powerDbm + gainDbi };
};
