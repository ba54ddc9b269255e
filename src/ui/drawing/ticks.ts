import { ticks } from "d3";
import { FEET_PER_METRE, MILES_PER_KM } from "@/core/units";
import type { Units } from "../wording/numbers";

export interface Tick {
  readonly atM: number;
  readonly text: string;
}

/** Round places along the path in the person's units, and the unit they are in. @param fromM @param toM the part in view. */
export const distanceTicks = (pathM: number, units: Units, count = 9, fromM = 0, toM = pathM): { ticks: Tick[]; unit: string } => {
  const far = units === "metric" ? pathM > 10_000 : pathM > 3000;
  const perM = units === "metric" ? (far ? 1 / 1000 : 1) : far ? MILES_PER_KM / 1000 : FEET_PER_METRE;
  const unit = units === "metric" ? (far ? "km" : "m") : far ? "mi" : "ft";
  return {
    ticks: ticks(Math.max(0, fromM) * perM, Math.min(pathM, toM) * perM, count).map((t) => ({
      atM: t / perM,
      text: String(Math.round(t * 1000) / 1000),
    })),
    unit,
  };
};

export const heightTicks = (lowM: number, highM: number, units: Units, count = 4): Tick[] => {
  const perM = units === "metric" ? 1 : FEET_PER_METRE;
  return ticks(lowM * perM, highM * perM, count).map((t) => ({
    atM: t / perM,
    text: String(Math.round(t * 10) / 10).replace("-", "\u2212"),
  }));
};
