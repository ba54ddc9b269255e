import { createReadStream } from "node:fs";
import { open, rm } from "node:fs/promises";
import { FileFault } from "./file-fault";
import { writeAll } from "./write-all";

const LOOK_BYTES = 4096;
/** What an 8-bit text is taken for when it is no UTF-8 and does not say: the superset of Latin-1 that machines write. */
const EIGHT_BIT = "windows-1252";

/** The encoding that the head of a file declares or shows: a byte order mark, the zeros of 16-bit letters, an XML declaration. */
const declaredIn = (head: Buffer): string | null => {
  if (head[0] === 0xef && head[1] === 0xbb && head[2] === 0xbf) return "utf-8";
  if (head[0] === 0xff && head[1] === 0xfe) return "utf-16le";
  if (head[0] === 0xfe && head[1] === 0xff) return "utf-16be";
  if (head[0] === 0 && head[1] !== 0 && head[2] === 0) return "utf-16be";
  if (head[0] !== 0 && head[1] === 0 && head[3] === 0) return "utf-16le";
  const m = /^\s*<\?xml[^>]{0,200}?encoding\s*=\s*["']([\w.:-]{2,40})["']/.exec(head.toString("latin1"));
  return m === null ? null : m[1]!.toLowerCase();
};

const isUtf8 = async (path: string): Promise<boolean> => {
  const decoder = new TextDecoder("utf-8", { fatal: true });
  try {
    for await (const chunk of createReadStream(path, { highWaterMark: 1 << 18 })) decoder.decode(chunk as Buffer, { stream: true });
    decoder.decode();
    return true;
  } catch (error) {
    if (error instanceof TypeError) return false;
    throw error;
  }
};

/**
 * How a text file is encoded: as it declares, else UTF-8 where it is valid as such, else the usual 8-bit one. A file that
 * declares UTF-8 and is not is taken for the 8-bit one, too. @throws FileFault for an encoding that is not known.
 */
export const encodingOf = async (path: string): Promise<string> => {
  const file = await open(path);
  const head = Buffer.alloc(LOOK_BYTES);
  const { bytesRead } = await file.read(head, 0, LOOK_BYTES, 0).finally(() => file.close());
  const declared = declaredIn(head.subarray(0, bytesRead));
  if (declared === "utf-16le" || declared === "utf-16be") return declared;
  if (declared === null || declared === "utf-8" || declared === "utf-16") return (await isUtf8(path)) ? "utf-8" : EIGHT_BIT;
  try {
    return new TextDecoder(declared).encoding;
  } catch {
    throw new FileFault(`it says that it is encoded as "${declared}", which is not known here`);
  }
};

/** A file's text in pieces, decoded. */
export async function* textPieces(path: string, encoding: string): AsyncGenerator<string> {
  const decoder = new TextDecoder(encoding);
  for await (const chunk of createReadStream(path, { highWaterMark: 1 << 17 })) {
    const text = decoder.decode(chunk as Buffer, { stream: true });
    if (text !== "") yield text;
  }
  const last = decoder.decode();
  if (last !== "") yield last;
}

/** Does something with a file as UTF-8: with the file itself, or with a copy that is removed afterwards. */
export const asUtf8 = async <T>(path: string, work: (path: string) => Promise<T>): Promise<T> => {
  const encoding = await encodingOf(path);
  if (encoding === "utf-8") return work(path);
  const copy = `${path}.utf8`;
  try {
    const out = await open(copy, "w");
    try {
      for await (const text of textPieces(path, encoding)) await writeAll(out, Buffer.from(text, "utf8"));
    } finally {
      await out.close();
    }
    return await work(copy);
  } finally {
    await rm(copy, { force: true });
  }
};
