import geodesic from "geographiclib-geodesic";

const WGS84 = geodesic.Geodesic.WGS84;

/** A WGS84 position. Latitude north positive, longitude east positive. */
export interface LatLon {
  readonly latDeg: number;
  readonly lonDeg: number;
}

/**
 * Inverse geodesic problem on WGS84 (C. F. F. Karney, "Algorithms for geodesics", J. Geodesy 87, 2013).
 * @returns distance in metres; azimuths clockwise from true north, -180 to 180 degrees, of the
 *   geodesic at each end, both in the direction of travel.
 */
export const inverse = (a: LatLon, b: LatLon): { distanceM: number; azimuthAtADeg: number; azimuthAtBDeg: number } => {
  const r = WGS84.Inverse(a.latDeg, a.lonDeg, b.latDeg, b.lonDeg);
  return { distanceM: r.s12 ?? 0, azimuthAtADeg: r.azi1 ?? 0, azimuthAtBDeg: r.azi2 ?? 0 };
};

/** Bearing from each end to the other, 0 to 360 degrees true, and the distance in metres. */
export const bearingsBetween = (near: LatLon, far: LatLon): { distanceM: number; nearDeg: number; farDeg: number } => {
  const r = inverse(near, far);
  return {
    distanceM: r.distanceM,
    nearDeg: (r.azimuthAtADeg + 360) % 360,
    farDeg: (r.azimuthAtBDeg + 180 + 360) % 360,
  };
};

const COMPASS = ["north", "north-east", "east", "south-east", "south", "south-west", "west", "north-west"] as const;

/** The nearest of eight points of the compass, in words. */
export const compassWord = (bearingDeg: number): string => COMPASS[Math.round((((bearingDeg % 360) + 360) % 360) / 45) % 8]!;

/** Direct geodesic problem on WGS84: the point a distance away along a bearing. */
export const destination = (from: LatLon, bearingDeg: number, distanceM: number): LatLon => {
  const r = WGS84.Direct(from.latDeg, from.lonDeg, bearingDeg, distanceM);
  return { latDeg: r.lat2 ?? from.latDeg, lonDeg: r.lon2 ?? from.lonDeg };
};

/**
 * The geodesic from one point to another, to be asked for points along it.
 * @returns length in metres and a function from distance (metres, may lie outside the ends) to the
 *   position and the azimuth of the geodesic there in degrees.
 */
export const geodesicLine = (from: LatLon, to: LatLon): { lengthM: number; at: (distanceM: number) => LatLon & { azimuthDeg: number } } => {
  const line = WGS84.InverseLine(from.latDeg, from.lonDeg, to.latDeg, to.lonDeg);
  return {
    lengthM: line.s13,
    at: (distanceM) => {
      const p = line.Position(distanceM);
      return { latDeg: p.lat2 ?? 0, lonDeg: p.lon2 ?? 0, azimuthDeg: p.azi2 ?? 0 };
    },
  };
};
