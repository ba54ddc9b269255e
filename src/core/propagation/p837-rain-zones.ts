/*
 * Recommendation ITU-R P.837-1 Table 1: rain rate by climatic zone letter. Superseded by gridded maps;
 * used only when no rain rate was typed. Between the table's percentages log-log interpolation (ours).
 */
import table from "./tables/p837_1_rain_zones.json" with { type: "json" };

export type RainZone = keyof typeof table.zones;
export const RAIN_ZONES = Object.keys(table.zones) as RainZone[];

/** Rain rate in mm/h exceeded for a share of the year. @throws RangeError for an unknown zone or outside 0.001 to 1 %. */
export const zoneRainRateMmH = (zone: string, percent: number): number => {
  const rates = (table.zones as Record<string, number[]>)[zone];
  if (rates === undefined) throw new RangeError(`rain zone ${zone} is not one of ${RAIN_ZONES.join(" ")}`);
  const p = table.percent;
  if (!(percent >= p[p.length - 1]! && percent <= p[0]!)) throw new RangeError(`${percent} % is outside 0.001 to 1`);
  const i = Math.min(
    p.length - 2,
    p.findIndex((_, k) => k + 1 < p.length && percent >= p[k + 1]!),
  );
  const t = Math.log(percent / p[i]!) / Math.log(p[i + 1]! / p[i]!);
  return rates[i]! * (rates[i + 1]! / rates[i]!) ** t;
};
