import { LATITUDE_LIMIT_DEG, type LatLon, LONGITUDE_LIMIT_DEG, planeProjection } from "../../core/geo";
import { coordinateSystem } from "../epsg";
import type { RawFeature, RawShape, VectorSink } from "./raw";

/** Longest outline taken: more corners than any roof or wood has. */
const MOST_CORNERS = 20_000;

interface JsonGeometry {
  readonly type: string;
  readonly coordinates?: unknown;
  readonly geometries?: unknown;
}

export type ToLatLon = (x: number, y: number) => LatLon;

/** From a file's coordinates to degrees. Null or 4326: they are degrees already, x east. @throws FileFault. */
export const toLatLon = (epsg: number | null): ToLatLon => {
  if (epsg === null || epsg === 4326) return (x, y) => ({ latDeg: y, lonDeg: x });
  const system = coordinateSystem(epsg);
  const projection = planeProjection(system.definition ?? system.crs);
  return (x, y) => projection.inverse(x, y);
};

const positionOf = (value: unknown, to: ToLatLon): LatLon | string => {
  if (!Array.isArray(value) || typeof value[0] !== "number" || typeof value[1] !== "number") return "a position is not two numbers";
  const p = to(value[0], value[1]);
  if (!Number.isFinite(p.latDeg) || !Number.isFinite(p.lonDeg))
    return `position ${value[0]}, ${value[1]} lies outside its coordinate system`;
  if (Math.abs(p.latDeg) > LATITUDE_LIMIT_DEG)
    return `latitude ${p.latDeg} is outside -90 to 90; are the coordinates in another system, or swapped?`;
  if (Math.abs(p.lonDeg) > LONGITUDE_LIMIT_DEG)
    return `longitude ${p.lonDeg} is outside -180 to 180; are the coordinates in another system?`;
  return p;
};

const listOf = (value: unknown, to: ToLatLon): LatLon[] | string => {
  if (!Array.isArray(value)) return "its coordinates are not a list";
  if (value.length > MOST_CORNERS) return `${value.length} corners are more than the ${MOST_CORNERS} taken`;
  const out: LatLon[] = [];
  for (const v of value) {
    const p = positionOf(v, to);
    if (typeof p === "string") return p;
    out.push(p);
  }
  return out;
};

const samePlace = (a: LatLon, b: LatLon): boolean => a.latDeg === b.latDeg && a.lonDeg === b.lonDeg;

const polygonOf = (rings: unknown, to: ToLatLon): RawShape | string => {
  if (!Array.isArray(rings) || rings.length === 0) return "its outline is empty";
  const ring = listOf(rings[0], to);
  if (typeof ring === "string") return ring;
  if (ring.length > 1 && samePlace(ring[0]!, ring[ring.length - 1]!)) ring.pop();
  const corners = ring.filter((p, i) => i === 0 || !samePlace(p, ring[i - 1]!));
  if (corners.length < 3) return "an outline needs at least three different corners";
  return { type: "polygon", outline: corners, holes: rings.length - 1 };
};

const lineOf = (value: unknown, to: ToLatLon): RawShape | string => {
  const points = listOf(value, to);
  if (typeof points === "string") return points;
  const kept = points.filter((p, i) => i === 0 || !samePlace(p, points[i - 1]!));
  return kept.length < 2 ? "a line needs at least two different points" : { type: "line", points: kept };
};

const pointOf = (value: unknown, to: ToLatLon): RawShape | string => {
  const at = positionOf(value, to);
  if (typeof at === "string") return at;
  const z = (value as unknown[])[2];
  return { type: "point", at, heightM: typeof z === "number" && Number.isFinite(z) ? z : null };
};

/** Shapes of one geometry; a collection or a multi-geometry becomes several. Refusals are texts. */
export const shapesOf = (geometry: unknown, to: ToLatLon, depth = 0): (RawShape | string)[] => {
  if (geometry === null || typeof geometry !== "object") return ["it has no geometry"];
  const g = geometry as JsonGeometry;
  const many = (each: (v: unknown, to: ToLatLon) => RawShape | string): (RawShape | string)[] =>
    Array.isArray(g.coordinates) && g.coordinates.length > 0 ? g.coordinates.map((c) => each(c, to)) : ["its geometry is empty"];
  switch (g.type) {
    case "Point":
      return [pointOf(g.coordinates, to)];
    case "LineString":
      return [lineOf(g.coordinates, to)];
    case "Polygon":
      return [polygonOf(g.coordinates, to)];
    case "MultiPoint":
      return many(pointOf);
    case "MultiLineString":
      return many(lineOf);
    case "MultiPolygon":
      return many(polygonOf);
    case "GeometryCollection":
      if (depth > 3) return ["its geometry is nested too deep"];
      return Array.isArray(g.geometries) ? g.geometries.flatMap((inner) => shapesOf(inner, to, depth + 1)) : ["its geometry is empty"];
    default:
      return [`geometry "${String(g.type).slice(0, 30)}" is not taken`];
  }
};

/** Only plain values are kept; what is nested is written as text, what is long is cut. */
export const plainProperties = (value: unknown): RawFeature["properties"] => {
  if (value === null || typeof value !== "object") return {};
  const out: Record<string, string | number | boolean | null> = {};
  for (const [key, v] of Object.entries(value).slice(0, 200)) {
    out[key.slice(0, 100)] =
      v === null || typeof v === "number" || typeof v === "boolean" ? v : (typeof v === "string" ? v : JSON.stringify(v)).slice(0, 1000);
  }
  return out;
};

/** Hands on every shape of one GeoJSON feature; a multi-geometry's parts keep its row and properties. */
export const giveFeature = async (value: unknown, row: number, to: ToLatLon, sink: VectorSink): Promise<void> => {
  if (value === null || typeof value !== "object") {
    sink.fault({ row, reason: "it is no feature" });
    return;
  }
  const f = value as { geometry?: unknown; properties?: unknown };
  const properties = plainProperties(f.properties);
  for (const shape of shapesOf(f.geometry, to)) {
    if (typeof shape === "string") sink.fault({ row, reason: shape });
    else await sink.feature({ row, properties, shape });
  }
};
