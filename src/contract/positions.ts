import type { LatLon } from "../core/geo";

/** Positions as they travel: longitude, latitude. */
export type LonLat = readonly [number, number];

export const latLons = (points: readonly LonLat[]): LatLon[] => points.map(([lonDeg, latDeg]) => ({ latDeg, lonDeg }));
export const lonLats = (points: readonly LatLon[]): [number, number][] => points.map((p) => [p.lonDeg, p.latDeg]);
