import type { ErrorBody } from "@/contract";
import { clientId } from "../state/client-id";

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

/** True when waiting may help: no server, or no database behind it. */
export const mayRecover = (error: unknown): boolean => error instanceof ApiError && (error.status === 0 || error.status === 503);

const REQUEST_TIMEOUT_MS = 30_000;

const send = async (method: string, path: string, body?: string | Blob, signal?: AbortSignal): Promise<Response> => {
  const timeout = AbortSignal.timeout(REQUEST_TIMEOUT_MS);
  let response: Response;
  try {
    response = await fetch(path, {
      method,
      ...(body === undefined ? {} : { body }),
      headers: {
        "x-client": clientId(),
        ...(body === undefined ? {} : { "content-type": typeof body === "string" ? "application/json" : "application/octet-stream" }),
      },
      signal: signal === undefined ? timeout : AbortSignal.any([signal, timeout]),
    });
  } catch (error) {
    if (signal?.aborted === true) throw error;
    throw new ApiError(0, { code: "offline" });
  }
  if (response.ok) return response;
  const fault = (await response.json().catch(() => ({ code: "internal" }))) as ErrorBody;
  throw new ApiError(response.status, fault);
};

export const getJson = async <T>(path: string, signal?: AbortSignal): Promise<T> =>
  (await send("GET", path, undefined, signal)).json() as Promise<T>;
export const getBinary = (path: string, signal?: AbortSignal): Promise<Response> => send("GET", path, undefined, signal);
export const postJson = async <T>(path: string, body: unknown): Promise<T> =>
  (await send("POST", path, JSON.stringify(body))).json() as Promise<T>;
export const patchJson = async <T>(path: string, body: unknown): Promise<T> =>
  (await send("PATCH", path, JSON.stringify(body))).json() as Promise<T>;
export const postText = async <T>(path: string, text: string): Promise<T> => (await send("POST", path, text)).json() as Promise<T>;
export const putJson = async <T>(path: string, body: unknown): Promise<T> =>
  (await send("PUT", path, JSON.stringify(body))).json() as Promise<T>;
export const putBytes = async <T>(path: string, bytes: Blob, signal?: AbortSignal): Promise<T> =>
  (await send("PUT", path, bytes, signal)).json() as Promise<T>;
export const postBytes = async <T>(path: string, bytes: Blob): Promise<T> => (await send("POST", path, bytes)).json() as Promise<T>;
