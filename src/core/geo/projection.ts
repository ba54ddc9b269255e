import proj4 from "proj4";
import type { LatLon } from "./geodesic";

/** Plane coordinates in the grid's own system: metres for UTM, degrees for EPSG:4326. */
export interface PlaneProjection {
  readonly crs: string;
  /** Writes x (east) and y (north) of a position into out[0], out[1]. */
  readonly forward: (position: LatLon) => [number, number];
  readonly inverse: (x: number, y: number) => LatLon;
}

/**
 * The proj definition of a system: EPSG:4326, the WGS84 UTM zones, or a definition given as it is ("+proj=...").
 * @throws RangeError for any other name; the list of all codes is kept outside the core.
 */
export const projDefinition = (crs: string): string => {
  if (crs.startsWith("+proj=")) return crs;
  if (crs === "EPSG:4326") return "+proj=longlat +datum=WGS84 +no_defs";
  const utm = /^EPSG:32([67])(\d\d)$/.exec(crs);
  const zone = Number(utm?.[2] ?? 0);
  if (utm === null || zone < 1 || zone > 60) throw new RangeError(`coordinate system ${crs} is not known here`);
  return `+proj=utm +zone=${zone}${utm[1] === "7" ? " +south" : ""} +datum=WGS84 +units=m +no_defs`;
};

/** Projection to and from a grid's coordinate system. @throws RangeError for a system not known. */
export const planeProjection = (crs: string): PlaneProjection => {
  if (crs === "EPSG:4326") {
    return { crs, forward: (p) => [p.lonDeg, p.latDeg], inverse: (x, y) => ({ latDeg: y, lonDeg: x }) };
  }
  const converter = proj4("+proj=longlat +datum=WGS84 +no_defs", projDefinition(crs));
  return {
    crs,
    forward: (p) => converter.forward([p.lonDeg, p.latDeg]) as [number, number],
    inverse: (x, y) => {
      const [lonDeg, latDeg] = converter.inverse([x, y]) as [number, number];
      return { latDeg, lonDeg };
    },
  };
};
