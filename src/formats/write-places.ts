import { csvRows } from "./csv-write";
import { lineFeature, pointFeature, polygonFeature } from "./geojson";
import { GPX_END, gpxHead, gpxThing, KML_END, kmlHead, kmlThing, type Placed, tableRows } from "./xml-write";

export type Written = "geojson" | "kml" | "gpx" | "csv";

const featureOf = (t: Placed): string => {
  const properties = { name: t.name, ...t.properties };
  if (t.shape === "point") return JSON.stringify(pointFeature(t.points[0]!, properties));
  return JSON.stringify(t.shape === "line" ? lineFeature(t.points, properties) : polygonFeature(t.points, properties, t.holes));
};

/**
 * Things as a file of one of the open formats, in pieces of text as they come: nothing is held but the piece under way.
 * A table's columns are those of the first piece: things of one kind have the same.
 */
export async function* writePlaces(format: Written, title: string, pieces: AsyncIterable<readonly Placed[]>): AsyncGenerator<string> {
  let columns: string[] | null = null;
  let first = true;
  if (format === "geojson") yield '{"type":"FeatureCollection","features":[';
  else if (format === "kml") yield kmlHead(title);
  else if (format === "gpx") yield gpxHead(title);
  for await (const things of pieces) {
    if (things.length === 0) continue;
    if (format === "geojson") {
      yield (first ? "\n" : ",\n") + things.map(featureOf).join(",\n");
    } else if (format === "kml") yield things.map(kmlThing).join("");
    else if (format === "gpx") yield things.map(gpxThing).join("");
    else {
      const rows = tableRows(things);
      if (columns === null) {
        columns = [...new Set(rows.flatMap((r) => Object.keys(r)))];
        yield `${columns.join(",")}\r\n`;
      }
      yield csvRows(rows, columns);
    }
    first = false;
  }
  if (format === "geojson") yield "\n]}\n";
  else if (format === "kml") yield KML_END;
  else if (format === "gpx") yield GPX_END;
}
