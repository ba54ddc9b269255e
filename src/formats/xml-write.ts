import type { LatLon } from "../core/geo";

/** Characters XML does not carry at all are left out; the rest is escaped. */
const escaped = (text: string): string =>
  text
    // biome-ignore lint/suspicious/noControlCharactersInRegex: those are what is taken out
    .replace(/[\u0000-\u0008\u000b\u000c\u000e-\u001f\ufffe\uffff]/g, "")
    .replaceAll("&", "&amp;")
    .replaceAll("<", "&lt;")
    .replaceAll(">", "&gt;")
    .replaceAll('"', "&quot;");

/** One thing to write: a point, a line, or an outline. */
export interface Placed {
  readonly name: string;
  readonly shape: "point" | "line" | "polygon";
  readonly points: readonly LatLon[];
  /** Courtyards of an outline. */
  readonly holes?: readonly (readonly LatLon[])[];
  readonly properties: Readonly<Record<string, unknown>>;
}

const angle = (deg: number): string => String(Number(deg.toFixed(9)));
const listed = (points: readonly LatLon[]): string => points.map((p) => `${angle(p.lonDeg)},${angle(p.latDeg)}`).join(" ");

const kmlShape = (p: Placed): string => {
  if (p.shape === "point") return `<Point><coordinates>${listed(p.points)}</coordinates></Point>`;
  if (p.shape === "line") return `<LineString><tessellate>1</tessellate><coordinates>${listed(p.points)}</coordinates></LineString>`;
  const ring = (of: readonly LatLon[]): string => `<LinearRing><coordinates>${listed([...of, of[0]!])}</coordinates></LinearRing>`;
  const inner = (p.holes ?? []).map((h) => `<innerBoundaryIs>${ring(h)}</innerBoundaryIs>`).join("");
  return `<Polygon><outerBoundaryIs>${ring(p.points)}</outerBoundaryIs>${inner}</Polygon>`;
};

const kmlData = (properties: Placed["properties"]): string => {
  const rows = Object.entries(properties).filter(([, v]) => v !== null && v !== undefined);
  const data = rows.map(
    ([k, v]) => `<Data name="${escaped(k)}"><value>${escaped(typeof v === "object" ? JSON.stringify(v) : String(v))}</value></Data>`,
  );
  return `<ExtendedData>${data.join("")}</ExtendedData>`;
};

/** KML 2.2: names, shapes, and every other value as extended data. Head, one thing, and end, to be written one after another. */
export const kmlHead = (title: string): string =>
  `<?xml version="1.0" encoding="UTF-8"?>\n<kml xmlns="http://www.opengis.net/kml/2.2"><Document><name>${escaped(title)}</name>\n`;
export const kmlThing = (p: Placed): string =>
  `<Placemark><name>${escaped(p.name)}</name>${kmlData(p.properties)}${kmlShape(p)}</Placemark>\n`;
export const KML_END = "</Document></kml>\n";

export const kmlText = (title: string, things: readonly Placed[]): string => kmlHead(title) + things.map(kmlThing).join("") + KML_END;

const gpxPoint = (tag: string, p: LatLon, inner = ""): string =>
  `<${tag} lat="${angle(p.latDeg)}" lon="${angle(p.lonDeg)}">${inner}</${tag}>`;

const gpxNote = (p: Placed): string => {
  const words = Object.entries(p.properties).filter(([, v]) => v !== null && v !== undefined && v !== "" && typeof v !== "object");
  return words.length === 0 ? "" : `<desc>${escaped(words.map(([k, v]) => `${k}: ${String(v)}`).join("; "))}</desc>`;
};

/**
 * GPX 1.1: points as waypoints, lines as routes, outlines as closed tracks. The schema wants them in this order, so a file
 * is written of things of one shape, or of shapes in order.
 */
export const gpxHead = (title: string): string =>
  `<?xml version="1.0" encoding="UTF-8"?>\n<gpx version="1.1" creator="Dry Arc" xmlns="http://www.topografix.com/GPX/1/1"><metadata><name>${escaped(title)}</name></metadata>\n`;
export const gpxThing = (p: Placed): string => {
  const head = `<name>${escaped(p.name)}</name>${gpxNote(p)}`;
  if (p.shape === "point") return `${gpxPoint("wpt", p.points[0]!, head)}\n`;
  if (p.shape === "line") return `<rte>${head}${p.points.map((q) => gpxPoint("rtept", q)).join("")}</rte>\n`;
  const segment = (ring: readonly LatLon[]): string => `<trkseg>${[...ring, ring[0]!].map((q) => gpxPoint("trkpt", q)).join("")}</trkseg>`;
  return `<trk>${head}${[p.points, ...(p.holes ?? [])].map(segment).join("")}</trk>\n`;
};
export const GPX_END = "</gpx>\n";
const GPX_ORDER = ["point", "line", "polygon"] as const;

export const gpxText = (title: string, things: readonly Placed[]): string =>
  gpxHead(title) + GPX_ORDER.flatMap((shape) => things.filter((p) => p.shape === shape).map(gpxThing)).join("") + GPX_END;

/** A table with one row a thing: its values, and its place as latitude and longitude or as WKT. */
export const tableRows = (things: readonly Placed[]): Record<string, unknown>[] => {
  const pairs = (points: readonly LatLon[]): string => points.map((p) => `${angle(p.lonDeg)} ${angle(p.latDeg)}`).join(",");
  return things.map((p) => {
    const values = Object.fromEntries(
      Object.entries(p.properties).map(([k, v]) => [k, v !== null && typeof v === "object" ? JSON.stringify(v) : v]),
    );
    const place =
      p.shape === "point"
        ? { lat: Number(angle(p.points[0]!.latDeg)), lon: Number(angle(p.points[0]!.lonDeg)) }
        : {
            WKT:
              p.shape === "line"
                ? `LINESTRING(${pairs(p.points)})`
                : `POLYGON(${[p.points, ...(p.holes ?? [])].map((r) => `(${pairs([...r, r[0]!])})`).join(",")})`,
          };
    return { ...place, name: p.name, ...values };
  });
};
