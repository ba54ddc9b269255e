import { SOLAR_DEFAULTS, solarSupply } from "../infra";
import { needInRange, RAD_PER_DEG } from "../units";

/*
 * Sun on a tilted panel by month, and what panel and battery must be for the darkest. Clear sky: direct light 1353 x 0.7^(m^0.678)
 * W/m2 through an air mass m (Meinel), a tenth of it scattered (ours); a stated share of it stands for cloud. Hours typed by month
 * come before it. All of it is for a first size: whoever supplies the panel answers for it.
 */

const SOLAR_CONSTANT_W = 1353;
const SCATTERED = 0.1;
const PEAK_W = 1000;
const STEP_MIN = 10;
/** The middle day of each month, of 365. */
const MID_DAYS = [16, 46, 75, 105, 135, 162, 198, 228, 258, 288, 318, 344] as const;

/** Hours of full sun a day under a clear sky, in the panel's plane. @param tiltDeg 0 flat, 90 upright; @param bearingDeg that it faces. */
export const clearSkyHours = (latDeg: number, tiltDeg: number, bearingDeg: number, dayOfYear: number): number => {
  needInRange("latitude, °", latDeg, -90, 90);
  needInRange("tilt, °", tiltDeg, 0, 90);
  const decl = 23.45 * RAD_PER_DEG * Math.sin((2 * Math.PI * (284 + dayOfYear)) / 365);
  const [lat, tilt, bearing] = [latDeg * RAD_PER_DEG, tiltDeg * RAD_PER_DEG, bearingDeg * RAD_PER_DEG];
  let wh = 0;
  for (let minute = STEP_MIN / 2; minute < 24 * 60; minute += STEP_MIN) {
    const hour = ((minute / 60 - 12) * 15 * Math.PI) / 180;
    const up = Math.sin(lat) * Math.sin(decl) + Math.cos(lat) * Math.cos(decl) * Math.cos(hour);
    if (up <= 0.01) continue;
    // East, north, up of the sun.
    const east = -Math.cos(decl) * Math.sin(hour);
    const north = Math.cos(lat) * Math.sin(decl) - Math.sin(lat) * Math.cos(decl) * Math.cos(hour);
    const facing = Math.sin(tilt) * (Math.sin(bearing) * east + Math.cos(bearing) * north) + Math.cos(tilt) * up;
    const direct = SOLAR_CONSTANT_W * 0.7 ** ((1 / up) ** 0.678);
    const onPanel = direct * Math.max(0, facing) + SCATTERED * direct * up * ((1 + Math.cos(tilt)) / 2);
    wh += (onPanel * STEP_MIN) / 60;
  }
  return wh / PEAK_W;
};

export interface SunPlan {
  /** Hours of full sun a day in the panel's plane, by month; null: by clear sky and share. */
  readonly hoursByMonth: readonly number[] | null;
  /** Part of a clear sky's sun that comes through. */
  readonly clearShare: number;
  readonly tiltDeg: number;
  readonly bearingDeg: number;
  readonly daysWithoutSun: number;
  /** Lowest that the battery stands in, °C. */
  readonly lowestC: number;
  /** The radio comes back by itself when the volts do; null: nobody tried. */
  readonly comesBack: boolean | null;
  /** Part of the most that is drawn, by hour of the day; null: all of it always. */
  readonly shareByHour: readonly number[] | null;
}

export const sunHoursByMonth = (plan: SunPlan, latDeg: number): readonly number[] =>
  plan.hoursByMonth ?? MID_DAYS.map((day) => clearSkyHours(latDeg, plan.tiltDeg, plan.bearingDeg, day) * plan.clearShare);

/** Part of its capacity that a battery has in the cold: lead loses 0.8 %, lithium 0.5 % a degree below 25 °C (ours, rounded from usual sheets). */
export const coldShare = (chemistry: "lead" | "lithium", lowestC: number): number => {
  const perDegree = chemistry === "lead" ? 0.008 : 0.005;
  return Math.max(0.3, 1 - perDegree * Math.max(0, 25 - lowestC));
};

export interface SunSupply {
  readonly hoursByMonth: readonly number[];
  readonly darkestMonth: number;
  readonly darkestHours: number;
  readonly dailyWh: number;
  readonly panelW: number;
  /** With what the cold takes counted in. */
  readonly batteryAh: number;
}

/** @param loadW drawn at the battery while all run. */
export const sunSupply = (
  plan: SunPlan,
  latDeg: number,
  loadW: number,
  battery: { readonly volts: number; readonly chemistry: "lead" | "lithium"; readonly depth: number },
): SunSupply => {
  const hours = sunHoursByMonth(plan, latDeg);
  const darkestMonth = hours.indexOf(Math.min(...hours));
  const darkestHours = hours[darkestMonth]!;
  const share = plan.shareByHour === null ? 1 : plan.shareByHour.reduce((s, x) => s + x, 0) / plan.shareByHour.length;
  const meanW = loadW * share;
  if (!(darkestHours > 0))
    return {
      hoursByMonth: hours,
      darkestMonth,
      darkestHours,
      dailyWh: meanW * 24,
      panelW: Number.POSITIVE_INFINITY,
      batteryAh: Number.POSITIVE_INFINITY,
    };
  const s = solarSupply({
    loadW: meanW,
    sunHours: darkestHours,
    daysWithoutSun: plan.daysWithoutSun,
    depthOfDischarge: battery.depth,
    batteryV: battery.volts,
    panelEfficiency: SOLAR_DEFAULTS.panelEfficiency,
    batteryEfficiency: SOLAR_DEFAULTS.batteryEfficiency,
  });
  return {
    hoursByMonth: hours,
    darkestMonth,
    darkestHours,
    dailyWh: s.dailyWh,
    panelW: s.panelW,
    batteryAh: s.batteryAh / coldShare(battery.chemistry, plan.lowestC),
  };
};
