import { createReadStream } from "node:fs";
import { FileFault, reasonOf } from "../file-fault";

/* Members of the "features" list of a GeoJSON, cut out of the bytes as they stream by and parsed one at a time. */

const QUOTE = 0x22;
const BACKSLASH = 0x5c;
const OPEN = 0x7b;
const CLOSE = 0x7d;
const OPEN_LIST = 0x5b;
const CLOSE_LIST = 0x5d;
const COMMA = 0x2c;
const COLON = 0x3a;
const isSpace = (b: number): boolean => b === 0x20 || b === 0x0a || b === 0x0d || b === 0x09;

/** One feature larger than this is no outline of a building. */
const MOST_FEATURE_BYTES = 20_000_000;

const parsed = (bytes: Buffer, row: number): unknown => {
  try {
    return JSON.parse(bytes.toString("utf8"));
  } catch (error) {
    throw new FileFault(`feature ${row} is not JSON: ${reasonOf(error)}`);
  }
};

/**
 * @param stretchBytes how much is read at a time.
 * @throws FileFault where the text stops being the list it began as.
 */
export const streamFeatures = async function* (path: string, stretchBytes = 1 << 18): AsyncGenerator<unknown> {
  let depth = 0;
  let inText = false;
  let escaped = false;
  /** The last text at the outermost level: a key when a colon follows. */
  let textFrom = -1;
  let key: string | null = null;
  let listed = false;
  let ended = false;
  /** Where the member under way begins in the bytes at hand; -1 between members. */
  let from = -1;
  let row = 0;
  let rest: Buffer = Buffer.alloc(0);
  for await (const chunk of createReadStream(path, { highWaterMark: stretchBytes })) {
    const bytes = rest.length === 0 ? (chunk as Buffer) : Buffer.concat([rest, chunk as Buffer]);
    for (let i = rest.length; i < bytes.length; i++) {
      const b = bytes[i]!;
      if (inText) {
        if (escaped) escaped = false;
        else if (b === BACKSLASH) escaped = true;
        else if (b === QUOTE) {
          inText = false;
          if (textFrom >= 0) {
            key = bytes.toString("utf8", textFrom, i);
            textFrom = -1;
          }
        }
        continue;
      }
      if (b === QUOTE) {
        inText = true;
        if (depth === 1 && !listed) textFrom = i + 1;
        else if (listed && depth === 2 && from < 0) from = i;
      } else if (b === OPEN || b === OPEN_LIST) {
        if (listed && depth === 2 && from < 0) from = i;
        if (depth === 1 && b === OPEN_LIST && key === "features" && !ended) listed = true;
        depth++;
      } else if (b === CLOSE || b === CLOSE_LIST) {
        depth--;
        if (depth < 0) throw new FileFault(`it closes more than it opened, after ${row} features`);
        if (listed && depth === 2 && from >= 0) {
          row++;
          yield parsed(bytes.subarray(from, i + 1), row);
          from = -1;
        } else if (listed && depth === 1) {
          if (from >= 0) {
            row++;
            yield parsed(bytes.subarray(from, i), row);
            from = -1;
          }
          listed = false;
          ended = true;
        }
        if (depth === 1) key = null;
      } else if (listed && depth === 2) {
        // A member that is no object: a number or a word, up to the comma.
        if (b === COMMA) {
          if (from >= 0) {
            row++;
            yield parsed(bytes.subarray(from, i), row);
            from = -1;
          }
        } else if (from < 0 && !isSpace(b)) from = i;
      } else if (depth === 1 && b === COMMA) key = null;
      else if (depth === 1 && b === COLON) textFrom = -1;
    }
    // What is still open is kept for the next stretch; positions move with it.
    const keepFrom = from >= 0 ? from : textFrom >= 0 ? textFrom : bytes.length;
    rest = Buffer.from(bytes.subarray(keepFrom));
    if (rest.length > MOST_FEATURE_BYTES) throw new FileFault(`feature ${row + 1} is larger than the ${MOST_FEATURE_BYTES / 1e6} MB taken`);
    if (from >= 0) from = 0;
    if (textFrom >= 0) textFrom = 0;
  }
  if (depth !== 0 || inText) throw new FileFault(`it breaks off as JSON after ${row} features`);
};
