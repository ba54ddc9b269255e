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
  readonly properties: Readonly<Record<string, unknown>>;
}

const angle = (deg: number): string => String(Number(deg.toFixed(9)));
const listed = (points: readonly LatLon[]): string => points.map((p) => `${angle(p.lonDeg)},${angle(p.latDeg)}`).join(" ");

const kmlShape = (p: Placed): string => {
  if (p.shape === "point") return `<Point><coordinates>${listed(p.points)}</coordinates></Point>`;
  if (p.shape === "line") return `<LineString><tessellate>1</tessellate><coordinates>${listed(p.points)}</coordinates></LineString>`;
  return `<Polygon><outerBoundaryIs><LinearRing><coordinates>${listed([...p.points, p.points[0]!])}</coordinates></LinearRing></outerBoundaryIs></Polygon>`;
};

const kmlData = (properties: Placed["properties"]): string => {
  const rows = Object.entries(properties).filter(([, v]) => v !== null && v !== undefined);
  const data = rows.map(
    ([k, v]) => `<Data name="${escaped(k)}"><value>${escaped(typeof v === "object" ? JSON.stringify(v) : String(v))}</value></Data>`,
  );
  return `<ExtendedData>${data.join("")}</ExtendedData>`;
};

/** KML 2.2: names, shapes, and every other value as extended data. */
export const kmlText = (title: string, things: readonly Placed[]): string =>
  `<?xml version="1.0" encoding="UTF-8"?>\n<kml xmlns="http://www.opengis.net/kml/2.2"><Document><name>${escaped(title)}</name>\n${things
    .map((p) => `<Placemark><name>${escaped(p.name)}</name>${kmlData(p.properties)}${kmlShape(p)}</Placemark>`)
    .join("\n")}\n</Document></kml>\n`;

/** GPX 1.1: points as waypoints, lines as routes, outlines as closed tracks. */
export const gpxText = (title: string, things: readonly Placed[]): string => {
  const at = (tag: string, p: LatLon, inner = ""): string => `<${tag} lat="${angle(p.latDeg)}" lon="${angle(p.lonDeg)}">${inner}</${tag}>`;
  const note = (p: Placed): string => {
    const words = Object.entries(p.properties).filter(([, v]) => v !== null && v !== undefined && v !== "" && typeof v !== "object");
    return words.length === 0 ? "" : `<desc>${escaped(words.map(([k, v]) => `${k}: ${String(v)}`).join("; "))}</desc>`;
  };
  // The schema wants waypoints first, then routes, then tracks.
  const of = (shape: Placed["shape"]): Placed[] => things.filter((p) => p.shape === shape);
  const body = [
    ...of("point").map((p) => at("wpt", p.points[0]!, `<name>${escaped(p.name)}</name>${note(p)}`)),
    ...of("line").map((p) => `<rte><name>${escaped(p.name)}</name>${note(p)}${p.points.map((q) => at("rtept", q)).join("")}</rte>`),
    ...of("polygon").map(
      (p) =>
        `<trk><name>${escaped(p.name)}</name>${note(p)}<trkseg>${[...p.points, p.points[0]!].map((q) => at("trkpt", q)).join("")}</trkseg></trk>`,
    ),
  ];
  return `<?xml version="1.0" encoding="UTF-8"?>\n<gpx version="1.1" creator="Dry Arc" xmlns="http://www.topografix.com/GPX/1/1"><metadata><name>${escaped(title)}</name></metadata>\n${body.join("\n")}\n</gpx>\n`;
};

/** A table with one row a thing: its values, and its place as latitude and longitude or as WKT. */
export const tableRows = (things: readonly Placed[]): Record<string, unknown>[] => {
  const pairs = (points: readonly LatLon[]): string => points.map((p) => `${angle(p.lonDeg)} ${angle(p.latDeg)}`).join(",");
  return things.map((p) => {
    const values = Object.fromEntries(
      Object.entries(p.properties).map(([k, v]) => [k, v !== null && typeof v === "object" ? JSON.stringify(v) : v]),
    );
    const place =
      p.shape === "point"
        ? { lat: angle(p.points[0]!.latDeg), lon: angle(p.points[0]!.lonDeg) }
        : { WKT: p.shape === "line" ? `LINESTRING(${pairs(p.points)})` : `POLYGON((${pairs([...p.points, p.points[0]!])}))` };
    return { ...place, name: p.name, ...values };
  });
};
