import { FileFault } from "../file-fault";
import type { JsonGeometry } from "./shapes";
import type { XmlPlace, XmlTaker } from "./xml-taker";

/* GPX 1.0 and 1.1: wpt, rte with rtept, trk with trkseg and trkpt. */

const WORDS = new Set(["name", "desc", "cmt", "sym", "type", "time", "src", "number"]);
const MOST_WORD = 4000;
/** Points of one track held while it is read; a longer one is thinned afterwards. */
const MOST_POINTS = 2_000_000;

type Position = [number, number] | [number, number, number];

const positionOf = (attributes: Readonly<Record<string, string>>): Position => [
  Number(attributes.lon ?? Number.NaN),
  Number(attributes.lat ?? Number.NaN),
];

/** Makes features of the elements of a GPX. What has no name is named by its kind and count. */
export const gpxTaker = (): XmlTaker => {
  let whole: XmlPlace[] = [];
  const counts = { wpt: 0, rte: 0, trk: 0 };
  let thing: { kind: "wpt" | "rte" | "trk"; properties: Record<string, string>; lines: Position[][]; points: number } | null = null;
  let word: string | null = null;
  let text = "";
  const geometryOf = (t: NonNullable<typeof thing>): JsonGeometry | null => {
    if (t.kind === "wpt") return { type: "Point", coordinates: t.lines[0]?.[0] };
    const lines = t.lines.filter((l) => l.length > 0);
    if (lines.length === 0) return null;
    return lines.length === 1 ? { type: "LineString", coordinates: lines[0] } : { type: "MultiLineString", coordinates: lines };
  };
  return {
    root: "gpx",
    open: ({ name, attributes }, path) => {
      const parent = path[path.length - 2];
      if (thing === null && (name === "wpt" || name === "rte" || name === "trk")) {
        counts[name]++;
        thing = { kind: name, properties: {}, lines: name === "wpt" ? [[positionOf(attributes)]] : name === "rte" ? [[]] : [], points: 0 };
      } else if (thing !== null && name === "trkseg") thing.lines.push([]);
      else if (thing !== null && (name === "trkpt" || name === "rtept")) {
        if (thing.lines.length === 0) thing.lines.push([]);
        thing.lines[thing.lines.length - 1]!.push(positionOf(attributes));
        if (++thing.points > MOST_POINTS)
          throw new FileFault(`a track of more than ${MOST_POINTS} points is longer than any that is taken`);
      }
      if (thing !== null && ((WORDS.has(name) && parent === thing.kind) || (name === "ele" && parent === "wpt"))) {
        word = name;
        text = "";
      }
    },
    text: (t) => {
      if (word !== null && text.length < MOST_WORD) text += t;
    },
    close: (name) => {
      if (thing === null) return;
      if (word === name) {
        const value = text.trim();
        if (name === "ele") {
          const height = Number(value);
          const at = thing.lines[0]?.[0];
          if (value !== "" && Number.isFinite(height) && at !== undefined) thing.lines[0]![0] = [at[0], at[1], height];
        } else if (value !== "") thing.properties[name] = value;
        word = null;
      }
      if (name !== thing.kind) return;
      const kind = { wpt: "Waypoint", rte: "Route", trk: "Track" }[thing.kind];
      thing.properties.name ??= `${kind} ${counts[thing.kind]}`;
      whole.push({ properties: thing.properties, geometry: geometryOf(thing) });
      thing = null;
    },
    ready: () => {
      const out = whole;
      whole = [];
      return out;
    },
  };
};
