import { readFileSync } from "node:fs";

/** Text that cannot be read, and why. */
export class TextError extends Error {}

const MOST_PLAN_BYTES = 16 * 1024 * 1024;

/** UTF-8 text of bytes; any other encoding is named. */
export const utf8 = (bytes: Uint8Array, name: string): string => {
  if ((bytes[0] === 0xff && bytes[1] === 0xfe) || (bytes[0] === 0xfe && bytes[1] === 0xff))
    throw new TextError(`${name} is UTF-16 text; save it as UTF-8`);
  try {
    return new TextDecoder("utf-8", { fatal: true }).decode(bytes);
  } catch {
    throw new TextError(`${name} is not UTF-8 text; save it as UTF-8`);
  }
};

/** A whole small file, or standard input for "-". */
export const readSmall = (name: string): string => {
  let bytes: Uint8Array;
  try {
    bytes = readFileSync(name === "-" ? 0 : name);
  } catch (error) {
    const code = (error as { code?: string }).code;
    throw new TextError(code === "ENOENT" ? `${name} does not exist` : `${name} cannot be read (${code ?? "unknown reason"})`);
  }
  if (bytes.length > MOST_PLAN_BYTES) throw new TextError(`${name} has ${bytes.length} bytes; at most ${MOST_PLAN_BYTES} are read`);
  return utf8(bytes, name === "-" ? "standard input" : name);
};

/** JSON with the place of a fault. */
export const parseJson = (text: string, name: string): unknown => {
  try {
    return JSON.parse(text);
  } catch (error) {
    const reason = error instanceof Error ? error.message : String(error);
    const at = /position (\d+)/.exec(reason);
    const line = at === null ? "" : `, line ${text.slice(0, Number(at[1])).split("\n").length}`;
    throw new TextError(
      /end of JSON/.test(reason) ? `${name} ends in the middle: it was cut off` : `${name} is not JSON${line}: ${reason}`,
    );
  }
};
