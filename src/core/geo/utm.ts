import type { LatLon } from "./geodesic";

/** The UTM zone a position lies in, as an EPSG name. */
export const utmCrsOf = (position: LatLon): string => {
  const zone = Math.min(60, Math.floor((position.lonDeg + 180) / 6) + 1);
  return `EPSG:32${position.latDeg < 0 ? 7 : 6}${String(zone).padStart(2, "0")}`;
};
