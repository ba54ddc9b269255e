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

/** The outer ring runs counter-clockwise and those of courtyards clockwise, as the format asks. */
export const polygonFeature = (
  outline: readonly LatLon[],
  properties: Record<string, unknown>,
  holes: readonly (readonly LatLon[])[] = [],
): GeoJsonFeature => {
  const ring = (points: readonly LatLon[], inner: boolean): [number, number][] => {
    let twiceArea = 0;
    points.forEach((p, i) => {
      const q = points[(i + 1) % points.length]!;
      twiceArea += p.lonDeg * q.latDeg - q.lonDeg * p.latDeg;
    });
    const turned = (twiceArea < 0 !== inner ? [...points].reverse() : [...points]).map(pair);
    return [...turned, turned[0]!];
  };
  return {
    type: "Feature",
    properties,
    geometry: { type: "Polygon", coordinates: [ring(outline, false), ...holes.map((h) => ring(h, true))] },
  };
};

export const featureCollection = (features: readonly GeoJsonFeature[]): string => JSON.stringify({ type: "FeatureCollection", features });
