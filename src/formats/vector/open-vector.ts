import { open } from "node:fs/promises";
import { FileFault } from "../file-fault";
import { asUtf8, encodingOf } from "../text-encoding";
import { readCsv } from "./csv-read";
import { readGeoJson } from "./geojson-read";
import type { VectorQuestion, VectorSink } from "./raw";
import { readGpx, readKml } from "./xml-read";

export type VectorFormat = "GeoJSON" | "KML" | "KMZ" | "GPX" | "CSV";

/** What a file of places is, by its first bytes and, for tables, its name. Null when it is none of them. */
export const vectorFormatOf = async (path: string, name: string): Promise<VectorFormat | null> => {
  const file = await open(path);
  let head: string;
  try {
    const bytes = Buffer.alloc(2048);
    const { bytesRead } = await file.read(bytes, 0, bytes.length, 0);
    head = bytes.toString("latin1", 0, 2) === "PK" ? "PK" : new TextDecoder(await encodingOf(path)).decode(bytes.subarray(0, bytesRead));
  } finally {
    await file.close();
  }
  if (head.startsWith("PK")) return /\.kmz$/i.test(name) ? "KMZ" : null;
  const text = head.replace(/^\uFEFF/, "").trimStart();
  if (text.startsWith("{")) return "GeoJSON";
  if (text.startsWith("<"))
    return /<gpx[\s>]/i.test(text) || /\.gpx$/i.test(name) ? "GPX" : /<kml[\s>]/i.test(text) || /\.kml$/i.test(name) ? "KML" : null;
  return /\.(csv|tsv|txt)$/i.test(name) ? "CSV" : null;
};

/** Reads the places of a file, one after another. @throws FileFault. */
export const readVector = async (path: string, name: string, question: VectorQuestion, sink: VectorSink): Promise<VectorFormat> => {
  const format = await vectorFormatOf(path, name);
  switch (format) {
    case "GeoJSON":
      await asUtf8(path, (p) => readGeoJson(p, question, sink));
      break;
    case "KML":
    case "KMZ":
      await readKml(path, format === "KMZ", sink);
      break;
    case "GPX":
      await readGpx(path, sink);
      break;
    case "CSV":
      await asUtf8(path, (p) => readCsv(p, question, sink));
      break;
    default:
      throw new FileFault("it is no GeoJSON, KML, KMZ, GPX or CSV");
  }
  return format;
};
