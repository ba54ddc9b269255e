import { readFile, stat } from "node:fs/promises";
import { gpx, kml } from "@tmcw/togeojson";
import { DOMParser } from "@xmldom/xmldom";
import { unzipSync } from "fflate";
import { FileFault, reasonOf } from "../file-fault";
import type { VectorSink } from "./raw";
import { giveFeature, toLatLon } from "./shapes";

/** XML is read whole: a document takes some ten times its size in memory. */
const MOST_XML_BYTES = 25_000_000;
/** Unpacked size and count at which a packed file is refused: a small file may hide a huge one. */
const MOST_ENTRIES = 2000;

const MEGABYTE = 1_000_000;
const tooLarge = (what: string, bytes: number): FileFault =>
  new FileFault(
    `${what} of ${(bytes / MEGABYTE).toFixed(0)} MB is more than the ${MOST_XML_BYTES / MEGABYTE} MB taken; convert it to GeoJSON, which is read as it streams by`,
  );

/** The document inside a KMZ: doc.kml, or the first .kml there is. */
const kmlOfKmz = async (path: string): Promise<string> => {
  let entries = 0;
  let refused: FileFault | null = null;
  let files: Record<string, Uint8Array>;
  try {
    files = unzipSync(await readFile(path), {
      filter: (f) => {
        if (++entries > MOST_ENTRIES) refused ??= new FileFault(`it holds more than ${MOST_ENTRIES} files`);
        if (!/\.kml$/i.test(f.name) || refused !== null) return false;
        if (f.originalSize > MOST_XML_BYTES) refused ??= tooLarge("a document", f.originalSize);
        return refused === null;
      },
    });
  } catch (error) {
    throw new FileFault(`it cannot be unpacked: ${reasonOf(error)}`);
  }
  if (refused !== null) throw refused as FileFault;
  const names = Object.keys(files).sort((a, b) => Number(/(^|\/)doc\.kml$/i.test(b)) - Number(/(^|\/)doc\.kml$/i.test(a)));
  const first = names[0];
  if (first === undefined) throw new FileFault("it holds no KML document");
  const bytes = files[first]!;
  if (bytes.length > MOST_XML_BYTES) throw tooLarge("a document", bytes.length);
  return new TextDecoder().decode(bytes);
};

const parseXml = (text: string, root: string): Document => {
  if (/<!ENTITY/i.test(text.slice(0, 100_000))) throw new FileFault("it declares entities of its own, which are not taken");
  let fault: string | null = null;
  let doc: unknown;
  try {
    doc = new DOMParser({
      onError: (level, message) => {
        if (level !== "warning") fault ??= message;
      },
    }).parseFromString(text.replace(/^\uFEFF/, ""), "text/xml");
  } catch (error) {
    throw new FileFault(`it is not well-formed XML: ${(fault ?? reasonOf(error)).split("\n")[0]}`);
  }
  if (fault !== null) throw new FileFault(`it is not well-formed XML: ${String(fault).split("\n")[0]}`);
  const document = doc as Document;
  const name = document.documentElement?.nodeName.replace(/^.*:/, "").toLowerCase();
  if (name !== root) throw new FileFault(`its root is <${name ?? "nothing"}> where <${root}> belongs`);
  return document;
};

/** Values that the converter adds for drawing, not for reading. */
const STYLE =
  /^(styleUrl|styleHash|styleMapHash|stroke|stroke-width|stroke-opacity|fill|fill-opacity|icon|icon-.*|label-.*|coordinateProperties|_gpxType|visibility)$/;

/** A description or a name may come with its type beside it. */
const plain = (value: unknown): unknown =>
  value !== null && typeof value === "object" && "value" in value ? (value as { value: unknown }).value : value;

const give = async (collection: { features: unknown[] }, sink: VectorSink): Promise<void> => {
  const to = toLatLon(null);
  let row = 0;
  for (const value of collection.features) {
    row++;
    const f = value as { geometry?: unknown; properties?: Record<string, unknown> | null };
    const properties = Object.fromEntries(
      Object.entries(f.properties ?? {})
        .filter(([key]) => !STYLE.test(key))
        .map(([key, v]) => [key, plain(v)]),
    );
    await giveFeature({ geometry: f.geometry ?? null, properties }, row, to, sink);
    if (sink.enough?.() === true) return;
  }
};

const convert = (read: () => { features: unknown[] }): { features: unknown[] } => {
  try {
    return read();
  } catch (error) {
    throw new FileFault(`it cannot be read: ${reasonOf(error)}`);
  }
};

/** Reads KML, or KMZ when packed. Positions are degrees, longitude first, by the format. @throws FileFault. */
export const readKml = async (path: string, packed: boolean, sink: VectorSink): Promise<void> => {
  const { size } = await stat(path);
  if (size > MOST_XML_BYTES) throw tooLarge("a document", size);
  const text = packed ? await kmlOfKmz(path) : await readFile(path, "utf8");
  const document = parseXml(text, "kml");
  await give(
    convert(() => kml(document as never) as { features: unknown[] }),
    sink,
  );
};

/** Reads GPX: waypoints as points, routes and tracks as lines. @throws FileFault. */
export const readGpx = async (path: string, sink: VectorSink): Promise<void> => {
  const { size } = await stat(path);
  if (size > MOST_XML_BYTES) throw tooLarge("a document", size);
  const document = parseXml(await readFile(path, "utf8"), "gpx");
  await give(
    convert(() => gpx(document as never) as { features: unknown[] }),
    sink,
  );
};
