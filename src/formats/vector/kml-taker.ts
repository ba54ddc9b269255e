import { FileFault } from "../file-fault";
import type { JsonGeometry } from "./shapes";
import { MOST_TEXT, type XmlPlace, type XmlTaker } from "./xml-taker";

/* KML 2.2 (OGC 07-147): placemarks with points, lines, rings, tracks, and collections of them. */

const MOST_WORD = 4000;
const SHAPES = new Set(["Point", "LineString", "LinearRing", "Polygon", "Track"]);

/** Text of a coordinates element: "lon,lat[,height]" apart by white space. */
const positionsOf = (text: string): number[][] =>
  text
    .replace(/\s*,\s*/g, ",")
    .trim()
    .split(/\s+/)
    .filter((t) => t !== "")
    .map((t) => t.split(",").map((n) => (n === "" ? Number.NaN : Number(n))))
    .map((p) => (p.length > 2 && Number.isNaN(p[2]) ? p.slice(0, 2) : p));

interface Open {
  readonly properties: Record<string, string>;
  readonly geometries: JsonGeometry[];
  shape: { type: string; rings: number[][][]; track: number[][] } | null;
}

/** Makes features of the placemarks of a KML. @param note told of what is named in the document and not taken. */
export const kmlTaker = (note: (text: string) => void): XmlTaker => {
  let whole: XmlPlace[] = [];
  let count = 0;
  let place: Open | null = null;
  let word: string | null = null;
  let dataName: string | null = null;
  let text = "";
  const begin = (what: string): void => {
    word = what;
    text = "";
  };
  const put = (key: string, value: string): void => {
    if (value !== "") place!.properties[key.slice(0, 100)] = value;
  };
  const closeShape = (p: Open): void => {
    const { type, rings, track } = p.shape!;
    p.shape = null;
    if (type === "Polygon" || type === "LinearRing") p.geometries.push({ type: "Polygon", coordinates: rings });
    else if (type === "Track") p.geometries.push({ type: "LineString", coordinates: track });
    else p.geometries.push({ type, coordinates: type === "Point" ? rings[0]?.[0] : rings[0] });
  };
  return {
    root: "kml",
    open: ({ name, attributes }, path) => {
      const parent = path[path.length - 2];
      if (name === "Placemark") {
        count++;
        place = { properties: {}, geometries: [], shape: null };
      } else if (name === "href" && path.includes("NetworkLink")) begin("href");
      if (place === null) return;
      if (SHAPES.has(name) && place.shape === null) place.shape = { type: name, rings: [], track: [] };
      else if (name === "coordinates") begin("coordinates");
      else if (name === "coord" && place.shape?.type === "Track") begin("coord");
      else if ((name === "name" || name === "description" || name === "address") && parent === "Placemark") begin(name);
      else if (name === "Data") dataName = attributes.name ?? null;
      else if (name === "value" && dataName !== null) begin("value");
      else if (name === "SimpleData") {
        dataName = attributes.name ?? null;
        begin("SimpleData");
      }
    },
    text: (t) => {
      if (word === null) return;
      const most = word === "coordinates" ? MOST_TEXT : MOST_WORD;
      if (word === "coordinates" && text.length + t.length > most)
        throw new FileFault(`the shape of placemark ${count} is larger than any that is taken`);
      if (text.length < most) text += t;
    },
    close: (name) => {
      const ended = word === name ? word : null;
      if (ended !== null) word = null;
      if (ended === "href") {
        const href = text.trim();
        if (/^[a-z]+:/i.test(href)) note(`it links to ${href.slice(0, 100)}, which is not fetched`);
      }
      if (place === null) return;
      if (ended === "coordinates") place.shape?.rings.push(positionsOf(text));
      else if (ended === "coord") place.shape?.track.push(text.trim().split(/\s+/).map(Number));
      else if (ended === "value" || ended === "SimpleData") put(dataName ?? "", text.trim());
      else if (ended !== null) put(ended, text.trim());
      if (name === "Data" || name === "SimpleData") dataName = null;
      if (place.shape !== null && place.shape.type === name) closeShape(place);
      if (name !== "Placemark") return;
      place.properties.name ??= `Placemark ${count}`;
      const [first, ...more] = place.geometries;
      const geometry =
        first === undefined ? null : more.length === 0 ? first : { type: "GeometryCollection", geometries: place.geometries };
      whole.push({ properties: place.properties, geometry });
      place = null;
    },
    ready: () => {
      const out = whole;
      whole = [];
      return out;
    },
  };
};
