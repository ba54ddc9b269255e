import { crossesItself, LATITUDE_LIMIT_DEG, type LatLon, LONGITUDE_LIMIT_DEG, planeProjection, thinLine } from "../../core/geo";
import { cleanText } from "../clean-text";
import { coordinateSystem } from "../epsg";
import type { RawFeature, RawShape, VectorSink } from "./raw";

/** Longest outline taken: more corners than any roof or wood has. A longer line is thinned to as many. */
const MOST_CORNERS = 20_000;
/** A list of more points is not held. */
const MOST_POINTS = 2_000_000;
const MOST_HOLES = 200;

export interface JsonGeometry {
  readonly type: string;
  readonly coordinates?: unknown;
  readonly geometries?: unknown;
}

export type ToLatLon = (x: number, y: number) => LatLon;

/**
 * From a file's coordinates to degrees. Null or 4326: they are degrees already, x east.
 * @param swapped x and y stand exchanged in the file. @throws FileFault.
 */
export const toLatLon = (epsg: number | null, swapped = false): ToLatLon => {
  if (swapped) {
    const straight = toLatLon(epsg);
    return (x, y) => straight(y, x);
  }
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
  // Nothing is built there: it is what an unset position is written as.
  if (p.latDeg === 0 && p.lonDeg === 0) return "position 0, 0 is that of something without a position";
  return p;
};

const listOf = (value: unknown, to: ToLatLon, most: number): LatLon[] | string => {
  if (!Array.isArray(value)) return "its coordinates are not a list";
  if (value.length > most) return `${value.length} corners are more than the ${most} taken`;
  const out: LatLon[] = [];
  for (const v of value) {
    const p = positionOf(v, to);
    if (typeof p === "string") return p;
    out.push(p);
  }
  return out;
};

const samePlace = (a: LatLon, b: LatLon): boolean => a.latDeg === b.latDeg && a.lonDeg === b.lonDeg;

const HALF_TURN_DEG = 180;
const crossesDateLine = (points: readonly LatLon[]): boolean =>
  points.some((p, i) => i > 0 && Math.abs(p.lonDeg - points[i - 1]!.lonDeg) > HALF_TURN_DEG);

const ringOf = (value: unknown, to: ToLatLon): LatLon[] | string => {
  const ring = listOf(value, to, MOST_CORNERS);
  if (typeof ring === "string") return ring;
  if (ring.length > 1 && samePlace(ring[0]!, ring[ring.length - 1]!)) ring.pop();
  const corners = ring.filter((p, i) => i === 0 || !samePlace(p, ring[i - 1]!));
  if (corners.length < 3) return "an outline needs at least three different corners";
  if (crossesDateLine([...corners, corners[0]!])) return "its outline crosses the meridian of 180 degrees, which is not taken";
  return crossesItself(corners) ? "its outline crosses itself" : corners;
};

const polygonOf = (rings: unknown, to: ToLatLon): RawShape | string => {
  if (!Array.isArray(rings) || rings.length === 0) return "its outline is empty";
  const outline = ringOf(rings[0], to);
  if (typeof outline === "string") return outline;
  if (rings.length - 1 > MOST_HOLES) return `${rings.length - 1} courtyards are more than the ${MOST_HOLES} taken`;
  const holes: LatLon[][] = [];
  for (const r of rings.slice(1)) {
    const hole = ringOf(r, to);
    if (typeof hole === "string") return `a courtyard of it: ${hole}`;
    holes.push(hole);
  }
  return { type: "polygon", outline, holes };
};

const lineOf = (value: unknown, to: ToLatLon): RawShape | string => {
  const points = listOf(value, to, MOST_POINTS);
  if (typeof points === "string") return points;
  const kept = points.filter((p, i) => i === 0 || !samePlace(p, points[i - 1]!));
  if (kept.length < 2) return "a line needs at least two different points";
  return crossesDateLine(kept) ? "it crosses the meridian of 180 degrees, which is not taken" : { type: "line", points: kept };
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
    out[cleanText(key.slice(0, 100))] =
      v === null || typeof v === "number" || typeof v === "boolean" ? v : cleanText((typeof v === "string" ? v : nested(v)).slice(0, 1000));
  }
  return out;
};

const nested = (value: unknown): string => {
  try {
    return JSON.stringify(value) ?? "";
  } catch {
    return "(nested too deep)";
  }
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
    else await sink.feature({ row, properties, shape: thinned(shape, (reason) => sink.note?.({ row, reason })) });
  }
};

/** A line of more points than are taken loses those that lie nearest to one another, and a word says so. */
const thinned = (shape: RawShape, note: (text: string) => void): RawShape => {
  if (shape.type !== "line" || shape.points.length <= MOST_CORNERS) return shape;
  const { points, apartM } = thinLine(shape.points, MOST_CORNERS);
  note(`its ${shape.points.length} points were thinned to ${points.length}, at least ${apartM} m apart`);
  return { type: "line", points };
};
