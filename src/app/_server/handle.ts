import { z } from "zod";
import type { ErrorBody } from "@/contract";
import { asClient } from "@/data/actor";
import { NotFound, Refused, VersionClash } from "@/data/clash";
import { isBrokenReference, isUnreachable } from "@/data/client";
import { FileFault } from "@/formats";
import { type Access, refusalOf } from "./authorise";

/** Largest body taken, hardware files included. */
const MOST_BODY_BYTES = 4 * 1024 * 1024;

const json = (body: unknown, status = 200): Response => Response.json(body, { status, headers: { "cache-control": "no-store" } });
const fault = (status: number, body: ErrorBody): Response => json(body, status);

export class BadBody extends Error {}

/** Text of a request's body, up to the limit. */
export const bodyText = async (request: Request): Promise<string> => {
  const length = Number(request.headers.get("content-length") ?? 0);
  if (length > MOST_BODY_BYTES) throw new BadBody(`larger than ${MOST_BODY_BYTES} bytes`);
  const text = await request.text();
  if (text.length > MOST_BODY_BYTES) throw new BadBody(`larger than ${MOST_BODY_BYTES} bytes`);
  return text;
};

/** The bytes of a request's body, up to a limit. */
export const bodyBytes = async (request: Request, mostBytes: number): Promise<Uint8Array> => {
  if (Number(request.headers.get("content-length") ?? 0) > mostBytes) throw new BadBody(`larger than ${mostBytes} bytes`);
  const bytes = new Uint8Array(await request.arrayBuffer());
  if (bytes.length > mostBytes) throw new BadBody(`larger than ${mostBytes} bytes`);
  return bytes;
};

/** The browser that asks, as it names itself; null when it does not, or not in the form of one. */
const clientOf = (request: Request): string | null => {
  const name = request.headers.get("x-client");
  return name !== null && /^[\w-]{8,40}$/.test(name) ? name : null;
};

/** A text as JSON, checked against a schema. */
export const parseJson = <T>(text: string, schema: z.ZodType<T>): T => {
  let value: unknown;
  try {
    value = JSON.parse(text);
  } catch {
    throw new BadBody("is not JSON");
  }
  return schema.parse(value);
};

/** The body as JSON, checked against a schema. */
export const parseBody = async <T>(request: Request, schema: z.ZodType<T>): Promise<T> => parseJson(await bodyText(request), schema);

export const parseQuery = <T>(request: Request, schema: z.ZodType<T>): T =>
  schema.parse(Object.fromEntries(new URL(request.url).searchParams));

/** Runs a route: checks who asks, turns what goes wrong into an error as data. */
export const handle = async (request: Request, access: Access, work: () => Promise<unknown>): Promise<Response> => {
  const refusal = refusalOf(request, access);
  if (refusal !== null) return fault(403, { code: refusal });
  try {
    const result = await asClient(clientOf(request), work);
    return result instanceof Response ? result : json(result ?? { ok: true });
  } catch (error) {
    if (error instanceof z.ZodError) {
      const [issue] = error.issues;
      return fault(400, { code: "invalid", path: issue?.path.join(".") ?? "", message: issue?.message });
    }
    if (error instanceof BadBody) return fault(400, { code: "bad-body", message: error.message });
    if (error instanceof FileFault) return fault(422, { code: "file-fault", message: error.message, path: error.asks ?? "file" });
    if (error instanceof VersionClash) return fault(409, { code: "clash", path: error.entity, current: error.current });
    if (error instanceof NotFound) return fault(404, { code: "not-found", path: error.entity });
    if (error instanceof Refused) return fault(422, { code: error.code, path: error.path, values: error.values });
    if (isBrokenReference(error)) return fault(422, { code: "unknown-reference" });
    if (isUnreachable(error)) return fault(503, { code: "database-unreachable" });
    console.error(error);
    return fault(500, { code: "internal" });
  }
};
