import { SaxesParser } from "saxes";
import { FileFault } from "../file-fault";
import { encodingOf, textPieces } from "../text-encoding";
import { withUnpacked } from "../zip-read";
import { gpxTaker } from "./gpx-taker";
import { kmlTaker } from "./kml-taker";
import type { VectorSink } from "./raw";
import { giveFeature, toLatLon } from "./shapes";
import type { XmlTaker } from "./xml-taker";

/* XML as it streams by: what a document holds is handed on element by element and nothing is kept of it. */

/** A document nested deeper is no list of places. */
const MOST_DEPTH = 100;
const MOST_KMZ = { entries: 5000, bytes: 2_000_000_000 };
const localName = (name: string): string => name.slice(name.indexOf(":") + 1);

const readXml = async (path: string, taker: XmlTaker, sink: VectorSink, rows: { n: number }): Promise<void> => {
  const parser = new SaxesParser({ xmlns: false });
  const names: string[] = [];
  let fault: FileFault | null = null;
  const fail = (error: FileFault): void => {
    fault ??= error;
  };
  parser.on("error", (error) => fail(new FileFault(`it is not well-formed XML: ${error.message.split("\n")[0]}`)));
  parser.on("doctype", (text) => {
    if (/<!ENTITY/i.test(text)) fail(new FileFault("it declares entities of its own, which are not taken"));
  });
  parser.on("opentag", (tag) => {
    if (fault !== null) return;
    const name = localName(tag.name);
    if (names.length === 0 && name.toLowerCase() !== taker.root)
      return fail(new FileFault(`its root is <${name}> where <${taker.root}> belongs`));
    names.push(name);
    if (names.length > MOST_DEPTH) return fail(new FileFault(`its elements are nested deeper than ${MOST_DEPTH}`));
    taker.open({ name, attributes: tag.attributes as Record<string, string> }, names);
  });
  const text = (t: string): void => {
    if (fault === null) taker.text(t);
  };
  parser.on("text", text);
  parser.on("cdata", text);
  parser.on("closetag", (tag) => {
    if (fault !== null) return;
    taker.close(localName(tag.name), names);
    names.pop();
  });
  const to = toLatLon(null);
  const handOn = async (): Promise<void> => {
    for (const place of taker.ready()) {
      if (sink.enough?.() === true) return;
      rows.n++;
      await giveFeature({ geometry: place.geometry, properties: place.properties }, rows.n, to, sink);
    }
  };
  for await (const piece of textPieces(path, await encodingOf(path))) {
    parser.write(piece);
    if (fault !== null) throw fault;
    await handOn();
    if (sink.enough?.() === true) return;
  }
  parser.close();
  if (fault !== null) throw fault;
  await handOn();
};

/** Reads KML, or KMZ when packed: then every document in it, the main one first. Degrees, longitude first, by the format. @throws FileFault. */
export const readKml = async (path: string, packed: boolean, sink: VectorSink): Promise<void> => {
  const rows = { n: 0 };
  const note = (text: string): void => sink.note?.({ row: rows.n, reason: text });
  if (!packed) return readXml(path, kmlTaker(note), sink, rows);
  await withUnpacked(
    path,
    (name) => /\.kml$/i.test(name),
    MOST_KMZ,
    async (files) => {
      if (files.length === 0) throw new FileFault("it holds no KML document");
      const isMain = (name: string): number => Number(/(^|\/)doc\.kml$/i.test(name));
      const order = [...files].sort((a, b) => isMain(b.name) - isMain(a.name) || a.name.localeCompare(b.name));
      for (const f of order) {
        if (sink.enough?.() === true) return;
        try {
          await readXml(f.file, kmlTaker(note), sink, rows);
        } catch (error) {
          throw error instanceof FileFault && files.length > 1 ? new FileFault(`${f.name} inside it: ${error.message}`) : error;
        }
      }
    },
  );
};

/** Reads GPX: waypoints as points, routes and tracks as lines. @throws FileFault. */
export const readGpx = (path: string, sink: VectorSink): Promise<void> => readXml(path, gpxTaker(), sink, { n: 0 });
