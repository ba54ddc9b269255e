import { open } from "node:fs/promises";
import { epsgInName } from "../epsg";
import { FileFault, reasonOf } from "../file-fault";
import { streamFeatures } from "./feature-stream";
import type { VectorQuestion, VectorSink } from "./raw";
import { giveFeature, toLatLon } from "./shapes";

/** A single feature or bare geometry is read whole, up to this. */
const MOST_WHOLE_BYTES = 20_000_000;
const LOOK_BYTES = 65_536;

/** First and last stretch of a file as text: where a GeoJSON says its system and what it is. */
const endsOf = async (path: string): Promise<{ head: string; tail: string; size: number }> => {
  const file = await open(path);
  try {
    const { size } = await file.stat();
    const read = async (from: number): Promise<string> => {
      const bytes = Buffer.alloc(Math.min(LOOK_BYTES, size));
      await file.read(bytes, 0, bytes.length, from);
      return bytes.toString("utf8");
    };
    return { head: await read(0), tail: await read(Math.max(0, size - LOOK_BYTES)), size };
  } finally {
    await file.close();
  }
};

/** System named by the old "crs" member; degrees east and north without it (RFC 7946). */
export const namedSystem = (text: string): number | null => {
  const m = /"crs"\s*:\s*\{.{0,300}?"name"\s*:\s*"([^"]{1,200})"/s.exec(text);
  return m === null ? null : epsgInName(m[1]!);
};

/** Reads a GeoJSON file as it streams by: features of any number, in memory one at a time. @throws FileFault. */
export const readGeoJson = async (path: string, question: VectorQuestion, sink: VectorSink): Promise<void> => {
  const { head, tail, size } = await endsOf(path);
  if (!/^\uFEFF?\s*\{/.test(head)) throw new FileFault("it does not begin as a GeoJSON object");
  const to = toLatLon(question.epsg ?? namedSystem(head) ?? namedSystem(tail), question.swapped);
  if (!/"features"\s*:/.test(head) && !/"features"\s*:/.test(tail)) {
    if (size > MOST_WHOLE_BYTES) throw new FileFault("it has no list of features");
    let value: unknown;
    try {
      const file = await open(path);
      value = JSON.parse((await file.readFile("utf8").finally(() => file.close())).replace(/^\uFEFF/, ""));
    } catch (error) {
      throw new FileFault(`it is not JSON: ${reasonOf(error)}`);
    }
    const f = value as { type?: string };
    await giveFeature(f.type === "Feature" ? f : { geometry: f, properties: {} }, 1, to, sink);
    return;
  }
  let row = 0;
  for await (const value of streamFeatures(path)) {
    row++;
    await giveFeature(value, row, to, sink);
    if (sink.enough?.() === true) return;
  }
};
