import type { LatLon } from "../core/geo";

/** RFC 7946 feature: positions are longitude, latitude. */
export interface GeoJsonFeature {
  readonly type: "Feature";
  readonly properties: Readonly<Record<string, unknown>>;
  readonly geometry: { readonly type: "Point" | "LineString" | "Polygon"; readonly coordinates: unknown };
}

const pair = (p: LatLon): [number, number] => [Number(p.lonDeg.toFixed(9)), Number(p.latDeg.toFixed(9))];

export const pointFeature = (at: LatLon, properties: Record<string, unknown>): GeoJsonFeature => ({
  type: "Feature",
  properties,
  geometry: { type: "Point", coordinates: pair(at) },
});

export const lineFeature = (points: readonly LatLon[], properties: Record<string, unknown>): GeoJsonFeature =>
  points.length === 1
    ? pointFeature(points[0]!, properties)
    : { type: "Feature", properties, geometry: { type: "LineString", coordinates: points.map(pair) } };

/** Rings run counter-clockwise, as the format asks. */
export const polygonFeature = (outline: readonly LatLon[], properties: Record<string, unknown>): GeoJsonFeature => {
  let twiceArea = 0;
  outline.forEach((p, i) => {
    const q = outline[(i + 1) % outline.length]!;
    twiceArea += p.lonDeg * q.latDeg - q.lonDeg * p.latDeg;
  });
  const ring = (twiceArea < 0 ? [...outline].reverse() : [...outline]).map(pair);
  return { type: "Feature", properties, geometry: { type: "Polygon", coordinates: [[...ring, ring[0]!]] } };
};

export const featureCollection = (features: readonly GeoJsonFeature[]): string => JSON.stringify({ type: "FeatureCollection", features });
