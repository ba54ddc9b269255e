import { createReadStream } from "node:fs";
import GeoJSON from "ol/format/GeoJSON.js";
import WKT from "ol/format/WKT.js";
import Papa from "papaparse";
import { parseLatLon } from "../../core/geo";
import { cleanText } from "../clean-text";
import { FileFault } from "../file-fault";
import type { VectorQuestion, VectorSink } from "./raw";
import { plainProperties, shapesOf, type ToLatLon, toLatLon } from "./shapes";

const LAT = /^(lat|latitude|y|northing|north|breite)(_?deg)?$/i;
const LON = /^(lon|lng|long|longitude|x|easting|east|laenge)(_?deg)?$/i;
const POSITION = /^(position|coordinates?|latlon|lat_?lon|where|location)$/i;
const WKT_COLUMN = /^(wkt|geom|geometry|the_geom|shape)$/i;
const MOST_COLUMNS = 300;
const MOST_ROW_BYTES = 5_000_000;
const NEW_LINE = 0x0a;

export interface TableColumns {
  readonly columns: readonly string[];
  /** Guesses by the columns' names, offered and never taken in silence where two would do. */
  readonly lat: string | null;
  readonly lon: string | null;
  readonly position: string | null;
  readonly wkt: string | null;
}

export const columnsOf = (columns: readonly string[]): TableColumns => {
  const first = (pattern: RegExp): string | null => columns.find((c) => pattern.test(c.trim())) ?? null;
  return { columns, lat: first(LAT), lon: first(LON), position: first(POSITION), wkt: first(WKT_COLUMN) };
};

/** A first row that holds figures or shapes is a row of data, not of names. */
const isData = (cells: readonly string[]): boolean =>
  cells.some((c) => !Number.isNaN(number(c)) || /^(SRID=\d+;)?(MULTI)?(POINT|LINESTRING|POLYGON)\s*Z?\s*\(/i.test(c));

const number = (text: string): number => {
  const clean = text.trim().replace("\u2212", "-");
  return clean === "" ? Number.NaN : Number(/^-?\d+,\d+$/.test(clean) ? clean.replace(",", ".") : clean);
};

const wktReader = new WKT();
const geoJson = new GeoJSON();

const wktShapes = (text: string, to: ToLatLon): ReturnType<typeof shapesOf>[number][] => {
  try {
    const geometry = wktReader.readGeometry(text.replace(/^SRID=\d+;/i, ""));
    return shapesOf(geoJson.writeGeometryObject(geometry), to);
  } catch {
    return [`"${text.slice(0, 30)}" is no shape as WKT writes it`];
  }
};

/**
 * Reads a table of points: decimal degrees, degrees with minutes and seconds, or a grid's eastings and northings;
 * or one column of WKT shapes. Separator and quotes are found by themselves. @throws FileFault.
 */
export const readCsv = async (path: string, question: VectorQuestion, sink: VectorSink): Promise<TableColumns> => {
  const to = toLatLon(question.epsg, question.swapped);
  const degrees = question.epsg === null || question.epsg === 4326;
  const stream = createReadStream(path);
  let columns: TableColumns | null = null;
  let lat: string | null = null;
  let lon: string | null = null;
  let row = 1;
  let headless = false;
  let fault: FileFault | null = null;
  const parse = Papa.parse(Papa.NODE_STREAM_INPUT, { header: false, skipEmptyLines: "greedy" });
  stream.on("error", (error) => parse.destroy(error));
  // A row without an end is held whole by the parser, again and again.
  let sinceRowBytes = 0;
  stream.on("data", (piece: string | Buffer) => {
    const bytes = piece as Buffer;
    const last = bytes.lastIndexOf(NEW_LINE);
    sinceRowBytes = last < 0 ? sinceRowBytes + bytes.length : bytes.length - last;
    if (sinceRowBytes > MOST_ROW_BYTES) parse.destroy(new FileFault(`a row of it is longer than the ${MOST_ROW_BYTES / 1e6} MB taken`));
  });
  stream.pipe(parse);
  const head = (given: readonly string[]): void => {
    const cells = given.map((n, i) => cleanText(i === 0 ? n.replace(/^\uFEFF/, "") : n).trim());
    headless = isData(cells);
    const clean = headless ? cells.map((_c, i) => `column ${i + 1}`) : cells;
    if (clean.length > MOST_COLUMNS) throw new FileFault(`it has ${clean.length} columns; at most ${MOST_COLUMNS} are taken`);
    columns = columnsOf(clean);
    lat = question.latColumn ?? columns.lat ?? columns.position;
    lon = question.lonColumn ?? (question.latColumn === undefined ? columns.lon : null);
    const missing = [lat, lon].find((c) => c !== null && !clean.includes(c));
    if (missing !== undefined) throw new FileFault(`it has no column "${missing}"`);
  };
  const swapped = (p: ReturnType<typeof parseLatLon>): ReturnType<typeof parseLatLon> =>
    question.swapped === true && !("error" in p) ? { latDeg: p.lonDeg, lonDeg: p.latDeg } : p;
  const take = async (cells: readonly string[]): Promise<void> => {
    const names = columns!.columns;
    const record: Record<string, string> = {};
    names.forEach((name, i) => {
      // A writer sets an apostrophe before what a spreadsheet would run as a formula.
      record[name] = (cells[i] ?? "").replace(/^'(?=[=@+\-\t\r])/, "");
    });
    const cell = (column: string | null): string => (column === null ? "" : (record[column] ?? "").trim());
    const wkt = question.latColumn === undefined ? cell(columns!.wkt) : "";
    if (wkt !== "") {
      for (const shape of wktShapes(wkt, to)) {
        if (typeof shape === "string") sink.fault({ row, reason: shape });
        else {
          const { [columns!.wkt!]: _shape, ...rest } = record;
          await sink.feature({ row, properties: plainProperties(rest), shape });
        }
      }
      return;
    }
    if (lat === null)
      return sink.fault({
        row,
        reason: headless ? "no row names its columns: say which hold the position" : "no column holds its position",
      });
    const text = lon === null ? cell(lat) : `${cell(lat)}, ${cell(lon)}`;
    let at: { latDeg: number; lonDeg: number };
    if (degrees) {
      const both = lon !== null ? { latDeg: number(cell(lat)), lonDeg: number(cell(lon)) } : null;
      const plainNumbers = both !== null && !Number.isNaN(both.latDeg) && !Number.isNaN(both.lonDeg);
      const [result] = plainNumbers
        ? shapesOf({ type: "Point", coordinates: [both.lonDeg, both.latDeg] }, to)
        : [swapped(parseLatLon(text))];
      if (typeof result === "string") return sink.fault({ row, reason: result });
      if (result !== undefined && "type" in result && result.type === "point") at = result.at;
      else if (result !== undefined && "latDeg" in result) {
        const [checked] = shapesOf({ type: "Point", coordinates: [result.lonDeg, result.latDeg] }, toLatLon(null));
        if (typeof checked === "string") return sink.fault({ row, reason: checked });
        at = result;
      } else return sink.fault({ row, reason: positionFault(text, result as { error: string; receivedDeg?: number }) });
    } else {
      const [x, y] = [number(cell(lon)), number(cell(lat))];
      const [result] = shapesOf({ type: "Point", coordinates: [x, y] }, to);
      if (Number.isNaN(x) || Number.isNaN(y)) return sink.fault({ row, reason: `"${text}" is no easting and northing` });
      if (typeof result === "string" || result?.type !== "point")
        return sink.fault({ row, reason: typeof result === "string" ? result : "it has no position" });
      at = result.at;
    }
    await sink.feature({ row, properties: plainProperties(record), shape: { type: "point", at, heightM: null } });
  };
  /** What went wrong where a row was handed on is no fault of the file. */
  let beyond: unknown = null;
  const handOn = (cells: readonly string[]): Promise<void> =>
    take(cells).catch((error: unknown) => {
      beyond = error;
      throw error;
    });
  try {
    for await (const cells of parse as AsyncIterable<string[]>) {
      if (columns === null) {
        head(cells);
        if (headless) {
          sink.note?.({ row: 1, reason: "it has no row of column names: its columns are named by their number" });
          await handOn(cells);
        }
      } else {
        row++;
        await handOn(cells);
      }
      if (sink.enough?.() === true) break;
    }
  } catch (error) {
    fault =
      error instanceof FileFault ? error : new FileFault(`it cannot be read as a table: ${error instanceof Error ? error.message : ""}`);
  } finally {
    stream.destroy();
  }
  if (beyond !== null) throw beyond;
  if (fault !== null) throw fault;
  if (columns === null) throw new FileFault("it has no rows");
  return columns;
};

const positionFault = (text: string, fault: { error: string; receivedDeg?: number }): string =>
  fault.error === "latitude"
    ? `latitude ${fault.receivedDeg} is outside -90 to 90`
    : fault.error === "longitude"
      ? `longitude ${fault.receivedDeg} is outside -180 to 180`
      : `"${text.slice(0, 60)}" is no latitude and longitude`;
