import type { ErrorBody, Streamed } from "@/contract";
import { KEPT_HEADER } from "@/workers/messages";
import { clientId } from "../state/client-id";
import { noteSource } from "./kept";
import { noteServerTime } from "./server-time";

/** An answer that was not the one asked for; carries the error as data. */
export class ApiError extends Error {
  constructor(
    readonly status: number,
    readonly body: ErrorBody,
  ) {
    super(body.code);
    this.name = "ApiError";
  }
}

/** What went wrong, as data; what is no answer of the server is a fault of the program. */
export const bodyOf = (error: unknown): ErrorBody => (error instanceof ApiError ? error.body : { code: "internal" });

/** True when waiting may help: no server, or no database behind it. */
export const mayRecover = (error: unknown): boolean => error instanceof ApiError && (error.status === 0 || error.status === 503);

/** True when what was sent may still be taken later: no server, nobody signed in, or somebody else than who made it. */
export const mayWait = (error: unknown): boolean =>
  mayRecover(error) || (error instanceof ApiError && (error.status === 401 || error.body.code === "other-person"));

const REQUEST_TIMEOUT_MS = 30_000;

/** A long answer that comes bit by bit may take this long as a whole. */
const MOST_STREAM_MS = 300_000;

const send = async (
  method: string,
  path: string,
  body?: string | Blob,
  signal?: AbortSignal,
  timeoutMs = REQUEST_TIMEOUT_MS,
  more: Readonly<Record<string, string>> = {},
): Promise<Response> => {
  const timeout = AbortSignal.timeout(timeoutMs);
  let response: Response;
  try {
    response = await fetch(path, {
      method,
      ...(body === undefined ? {} : { body }),
      headers: {
        "x-client": clientId(),
        ...more,
        ...(body === undefined ? {} : { "content-type": typeof body === "string" ? "application/json" : "application/octet-stream" }),
      },
      signal: signal === undefined ? timeout : AbortSignal.any([signal, timeout]),
    });
  } catch (error) {
    if (signal?.aborted === true) throw error;
    throw new ApiError(0, { code: "offline" });
  }
  if (response.ok) {
    const isKept = response.headers.has(KEPT_HEADER);
    if (method === "GET") noteSource(path, isKept);
    if (!isKept) noteServerTime(response.headers.get("date"));
    return response;
  }
  const fault = (await response.json().catch(() => ({ code: "internal" }))) as ErrorBody;
  throw new ApiError(response.status, fault);
};

export const getJson = async <T>(path: string, signal?: AbortSignal): Promise<T> =>
  (await send("GET", path, undefined, signal)).json() as Promise<T>;
/** Asks for bytes with a question in the body: what costs the server something is never a plain address. */
export const postForBinary = (path: string, body: unknown, signal?: AbortSignal, timeoutMs?: number): Promise<Response> =>
  send("POST", path, JSON.stringify(body), signal, timeoutMs);
/** A large job takes a while to pack. */
const MOST_FILE_MS = 600_000;
/** Asks for a file that the server writes first. */
export const postForFile = (path: string, signal: AbortSignal): Promise<Response> => postForBinary(path, {}, signal, MOST_FILE_MS);
/** Asks for a file that costs the server little. */
export const getForBinary = (path: string, signal?: AbortSignal): Promise<Response> => send("GET", path, undefined, signal);
const nameOf = (person: string | null | undefined): Readonly<Record<string, string>> => (person == null ? {} : { "x-person": person });

/** Sends one edit of the outbox, under its number and in the name of who made it. */
export const sendEditRequest = async (edit: {
  readonly id: string;
  readonly method: string;
  readonly path: string;
  readonly body: unknown;
  readonly person?: string | null | undefined;
}): Promise<unknown> => {
  const body = edit.body === undefined ? undefined : JSON.stringify(edit.body);
  return (await send(edit.method, edit.path, body, undefined, undefined, { "x-edit": edit.id, ...nameOf(edit.person) })).json();
};
export const postJson = async <T>(path: string, body: unknown): Promise<T> =>
  (await send("POST", path, JSON.stringify(body))).json() as Promise<T>;
export const patchJson = async <T>(path: string, body: unknown): Promise<T> =>
  (await send("PATCH", path, JSON.stringify(body))).json() as Promise<T>;
export const deleteAt = async <T>(path: string): Promise<T> => (await send("DELETE", path)).json() as Promise<T>;
export const postText = async <T>(path: string, text: string): Promise<T> => (await send("POST", path, text)).json() as Promise<T>;
/** Sends a piece of a file with its checksum. */
export const putPiece = async <T>(path: string, bytes: Blob, signal?: AbortSignal): Promise<T> => {
  const digest = new Uint8Array(await crypto.subtle.digest("SHA-256", await bytes.arrayBuffer()));
  const sha256 = Array.from(digest, (b) => b.toString(16).padStart(2, "0")).join("");
  return (await send("PUT", path, bytes, signal, undefined, { "x-sha256": sha256 })).json() as Promise<T>;
};
export const postBytes = async <T>(path: string, bytes: Blob, person?: string | null): Promise<T> =>
  (await send("POST", path, bytes, undefined, undefined, nameOf(person))).json() as Promise<T>;

/** Rows of a long answer as they come, a line of JSON each. Leaving it by the signal stops the work on the server. */
export const streamRows = async <Row>(
  path: string,
  body: unknown,
  signal: AbortSignal,
  take: { readonly row: (row: Row) => void; readonly progress: (done: number, total: number) => void },
): Promise<void> => {
  const response = await send("POST", path, JSON.stringify(body), signal, MOST_STREAM_MS);
  const reader = response.body!.pipeThrough(new TextDecoderStream()).getReader();
  let rest = "";
  for (;;) {
    const { value, done } = await reader.read();
    if (done) return;
    const lines = (rest + value).split("\n");
    rest = lines.pop() ?? "";
    for (const line of lines) {
      const part = JSON.parse(line) as Streamed<Row>;
      if (part.kind === "row") take.row(part.row);
      else if (part.kind === "progress") take.progress(part.done, part.total);
      else throw new ApiError(500, part.fault);
    }
  }
};
