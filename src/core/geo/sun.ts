import { Body, Equator, Horizon, Observer, SearchRiseSet } from "astronomy-engine";
import type { LatLon } from "./geodesic";

export interface SunPosition {
  /** Bearing, true. */
  readonly azimuthDeg: number;
  /** Above the horizon, with the usual refraction of the air. */
  readonly elevationDeg: number;
}

/** Where the sun stands for an observer at sea level. @param at a moment, in UTC. */
export const sunPosition = (position: LatLon, at: Date): SunPosition => {
  const observer = new Observer(position.latDeg, position.lonDeg, 0);
  const { ra, dec } = Equator(Body.Sun, at, observer, true, true);
  const { azimuth, altitude } = Horizon(at, observer, ra, dec, "normal");
  return { azimuthDeg: azimuth, elevationDeg: altitude };
};

/** A look towards the sun blinds within this of it, and no higher than this above the horizon (ours). */
const BLINDS_WITHIN_DEG = 15;
const STEP_MINUTES = 5;

export interface SunGlare {
  readonly from: Date;
  readonly to: Date;
}

const angleBetweenDeg = (a: SunPosition, bearingDeg: number, elevationDeg: number): number => {
  const rad = Math.PI / 180;
  const cos =
    Math.sin(a.elevationDeg * rad) * Math.sin(elevationDeg * rad) +
    Math.cos(a.elevationDeg * rad) * Math.cos(elevationDeg * rad) * Math.cos((a.azimuthDeg - bearingDeg) * rad);
  return Math.acos(Math.min(1, Math.max(-1, cos))) / rad;
};

/**
 * When, within a day, somebody who looks along a bearing looks into the sun: it is up and within 15 degrees.
 * @param dayStart first moment of the day; the 24 hours after it are searched, by steps of five minutes.
 */
export const sunGlare = (position: LatLon, bearingDeg: number, elevationDeg: number, dayStart: Date): SunGlare[] => {
  const out: SunGlare[] = [];
  let open: Date | null = null;
  for (let minute = 0; minute <= 24 * 60; minute += STEP_MINUTES) {
    const at = new Date(dayStart.getTime() + minute * 60_000);
    const sun = sunPosition(position, at);
    const glare = sun.elevationDeg > 0 && angleBetweenDeg(sun, bearingDeg, elevationDeg) <= BLINDS_WITHIN_DEG;
    if (glare) open ??= at;
    if (open !== null && (!glare || minute === 24 * 60)) {
      out.push({ from: open, to: at });
      open = null;
    }
  }
  return out;
};

export interface SunTimes {
  readonly rise: Date;
  readonly set: Date;
}

/** When the sun rises and sets within the day that begins at a moment; null where it does not do both. */
export const sunTimes = (position: LatLon, dayStart: Date): SunTimes | null => {
  const observer = new Observer(position.latDeg, position.lonDeg, 0);
  const rise = SearchRiseSet(Body.Sun, observer, 1, dayStart, 1);
  const set = rise === null ? null : SearchRiseSet(Body.Sun, observer, -1, rise.date, 1);
  return rise === null || set === null ? null : { rise: rise.date, set: set.date };
};
