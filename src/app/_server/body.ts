import { z } from "zod";
import { isCleanText } from "@/formats";

/** Largest body taken, hardware files, photos and pieces of files included. */
const MOST_BODY_BYTES = 4 * 1024 * 1024;

export class BadBody extends Error {}

const arrived = new WeakMap<Request, Uint8Array>();

/** Waits until all of a request is here: one that trickles in from a phone holds up nobody else's work. @throws BadBody as bodyBytes does. */
export const bodyAhead = async (request: Request): Promise<void> => {
  arrived.set(request, await bodyBytes(request, MOST_BODY_BYTES));
};

/** The bytes of a request's body, counted as they come. @throws BadBody when there are more than the limit, or they break off. */
export const bodyBytes = async (request: Request, mostBytes: number): Promise<Uint8Array> => {
  const tooLarge = (): BadBody => new BadBody(`larger than ${mostBytes} bytes`);
  if (Number(request.headers.get("content-length") ?? 0) > mostBytes) throw tooLarge();
  const whole = arrived.get(request);
  if (whole !== undefined) {
    if (whole.length > mostBytes) throw tooLarge();
    return whole;
  }
  const pieces: Uint8Array[] = [];
  let bytes = 0;
  try {
    const reader = request.body?.getReader();
    for (;;) {
      const next = await reader?.read();
      if (next === undefined || next.done) break;
      bytes += next.value.length;
      if (bytes > mostBytes) {
        await reader?.cancel().catch(() => undefined);
        throw tooLarge();
      }
      pieces.push(next.value);
    }
  } catch (error) {
    throw error instanceof BadBody ? error : new BadBody("broke off");
  }
  return Buffer.concat(pieces);
};

/** Text of a request's body, up to the limit. @throws BadBody when it is not UTF-8. */
export const bodyText = async (request: Request): Promise<string> => {
  const bytes = await bodyBytes(request, MOST_BODY_BYTES);
  try {
    return new TextDecoder("utf-8", { fatal: true }).decode(bytes);
  } catch {
    throw new BadBody("is not text in UTF-8");
  }
};

/** The path of the first text that no database can keep, or null. */
const uncleanIn = (value: unknown, path: readonly string[]): readonly string[] | null => {
  if (typeof value === "string") return isCleanText(value) ? null : path;
  if (value === null || typeof value !== "object") return null;
  for (const [key, v] of Object.entries(value)) {
    const found = isCleanText(key) ? uncleanIn(v, [...path, key]) : path;
    if (found !== null) return found;
  }
  return null;
};

const refuseUnclean = (value: unknown): void => {
  const path = uncleanIn(value, []);
  if (path !== null)
    throw new z.ZodError([
      {
        code: "custom",
        path: [...path],
        message: "it holds a character that cannot be kept (a control character, or half a letter)",
        input: undefined,
      },
    ]);
};

/** Deeper than this nothing of ours is nested; a walk through it would end the stack. */
const MOST_DEPTH = 60;
const tooDeep = (text: string): boolean => {
  let depth = 0;
  let inText = false;
  for (let i = 0; i < text.length; i++) {
    const c = text.charCodeAt(i);
    if (inText) {
      if (c === 0x5c) i++;
      else if (c === 0x22) inText = false;
    } else if (c === 0x22) inText = true;
    else if (c === 0x5b || c === 0x7b) {
      if (++depth > MOST_DEPTH) return true;
    } else if (c === 0x5d || c === 0x7d) depth--;
  }
  return false;
};

/** Refuses a text as JSON that holds what no database can keep; what is no JSON is left to whoever reads it. */
export const refuseUncleanJson = (text: string): void => {
  let value: unknown = null;
  try {
    if (tooDeep(text)) throw new BadBody("is nested too deep");
    value = JSON.parse(text);
  } catch (error) {
    if (error instanceof BadBody) throw error;
  }
  refuseUnclean(value);
};

/** A text as JSON, checked against a schema. */
export const parseJson = <T>(text: string, schema: z.ZodType<T>): T => {
  let value: unknown;
  try {
    if (tooDeep(text)) throw new BadBody("is nested too deep");
    value = JSON.parse(text);
  } catch (error) {
    throw error instanceof BadBody ? error : new BadBody("is not JSON");
  }
  refuseUnclean(value);
  return schema.parse(value);
};

/** The body as JSON, checked against a schema. */
export const parseBody = async <T>(request: Request, schema: z.ZodType<T>): Promise<T> => parseJson(await bodyText(request), schema);

export const parseQuery = <T>(request: Request, schema: z.ZodType<T>): T => {
  const value = Object.fromEntries(new URL(request.url).searchParams);
  refuseUnclean(value);
  return schema.parse(value);
};
