import geomagnetism from "geomagnetism";
import type { LatLon } from "./geodesic";

/** Magnetic declination, east positive, and whether the model's years cover the day. */
export interface Declination {
  readonly declinationDeg: number;
  readonly modelName: string;
  /** False when the day lies outside the model's years: the figure is then an extrapolation. */
  readonly inModelYears: boolean;
}

/**
 * Declination at a place on a day, World Magnetic Model (WMM-2025: 2025.0 to 2030.0).
 * @param heightAmslM height above mean sea level in metres.
 * @param day the day of the visit; passed in, the core has no clock.
 */
export const declination = (position: LatLon, day: Date, heightAmslM = 0): Declination => {
  const model = geomagnetism.model(day, { allowOutOfBoundsModel: true });
  const info = model.point([position.latDeg, position.lonDeg, heightAmslM / 1000]);
  const inModelYears = day >= model.start_date && day <= model.end_date;
  return { declinationDeg: info.decl, modelName: model.name, inModelYears };
};
