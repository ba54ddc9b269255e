/*
 * Battery and panel for a load that never sleeps: energy a day against sun hours. Efficiencies are ours
 * (stated below) and belong in the result's words; winter sun hours are the user's to give.
 */
import { needAtLeast, needInRange, needPositive } from "../units";

export interface SolarInput {
  readonly loadW: number;
  /** Peak sun hours of the darkest month. */
  readonly sunHours: number;
  readonly daysWithoutSun: number;
  /** Share of a battery's capacity that may be used. */
  readonly depthOfDischarge: number;
  readonly batteryV: number;
  /** Panel to battery: wiring, dirt, temperature, controller. */
  readonly panelEfficiency: number;
  /** Battery out over in. */
  readonly batteryEfficiency: number;
}

export const SOLAR_DEFAULTS = { depthOfDischarge: 0.5, batteryV: 12, panelEfficiency: 0.8, batteryEfficiency: 0.87 } as const;

export interface SolarSupply {
  readonly dailyWh: number;
  readonly panelW: number;
  readonly batteryWh: number;
  readonly batteryAh: number;
}

/** @throws RangeError for figures below 0 or shares outside 0 to 1. */
export const solarSupply = (i: SolarInput): SolarSupply => {
  needAtLeast("load, W", i.loadW, 0);
  needPositive("sun hours", i.sunHours);
  needAtLeast("days without sun", i.daysWithoutSun, 0);
  for (const [name, share] of [
    ["depth of discharge", i.depthOfDischarge],
    ["panel efficiency", i.panelEfficiency],
    ["battery efficiency", i.batteryEfficiency],
  ] as const)
    needInRange(name, share, 0.01, 1);
  const dailyWh = i.loadW * 24;
  const batteryWh = (dailyWh * i.daysWithoutSun) / i.depthOfDischarge;
  return {
    dailyWh,
    panelW: dailyWh / (i.sunHours * i.panelEfficiency * i.batteryEfficiency),
    batteryWh,
    batteryAh: batteryWh / needPositive("battery, V", i.batteryV),
  };
};

/** Hours a charged battery carries a load. */
export const batteryHours = (batteryWh: number, loadW: number, depthOfDischarge: number): number =>
  (needAtLeast("battery, Wh", batteryWh, 0) * needInRange("depth of discharge", depthOfDischarge, 0, 1)) / needPositive("load, W", loadW);
