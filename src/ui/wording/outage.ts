import type { Outage } from "@/core/link";
import { figure } from "./numbers";

/** How long a year the link is below the need; past either end of the method only the bound is said. */
export const outageText = (o: Outage): string => {
  if (o.percent === null || o.minutesAYear === null)
    return "Below the need for more than 1 % of the year, beyond what the rain method knows.";
  if (o.percent >= 100) return "Below the need all of the year.";
  if (o.minutesAYear < 1) return "Below the need for less than a minute a year.";
  const rain = o.rarer ? "rain under 0.001 %" : `rain ${figure(o.rainPercent ?? 0, 3)} %`;
  return `Below the need for ${figure(o.minutesAYear)} minutes a year: ${rain}, clear air ${figure(o.multipathPercent, 3)} %.`;
};
