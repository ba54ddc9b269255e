import http from "node:http";
import type https from "node:https";
import type { Socket } from "node:net";

/* What stands between the network and the application: it speaks TLS, says who is at the other end, and hands on. */

export interface Onward {
  /** Where the application listens, on loopback. */
  readonly port: number;
  /** Proves to the application that a request came through here. */
  readonly key: string;
  /** Names and addresses that are ours, with the port where it is not the usual one. */
  readonly hosts: readonly string[];
  /** The certificate is one that everybody trusts: browsers are told to come by TLS alone from now on (RFC 6797). */
  readonly trusted?: boolean;
}

/** A year. With an authority of our own it is not said: the page that offers its certificate goes over plain, under the same name. */
const BY_TLS_ALONE = { "strict-transport-security": "max-age=31536000" };

/** Headers of one connection (RFC 9110, 7.6.1), and those by which others could speak for us. */
const NOT_HANDED_ON = new Set([
  "connection",
  "keep-alive",
  "proxy-authenticate",
  "proxy-authorization",
  "proxy-connection",
  "te",
  "trailer",
  "transfer-encoding",
  "upgrade",
  "forwarded",
]);
const isOurs = (name: string): boolean => name.startsWith("x-forwarded-") || name.startsWith("x-dryarc-") || name === "x-real-ip";

/** Lets the application breathe: more than this at a time wait here. */
const MOST_ONWARD = 256;
const agent = new http.Agent({ keepAlive: true, maxSockets: MOST_ONWARD, keepAliveMsecs: 5000 });

const cleaned = (headers: http.IncomingHttpHeaders): http.OutgoingHttpHeaders => {
  const named = new Set((headers.connection ?? "").split(",").map((h) => h.trim().toLowerCase()));
  return Object.fromEntries(
    Object.entries(headers).filter(([name]) => !NOT_HANDED_ON.has(name) && !isOurs(name) && !named.has(name)),
  ) as http.OutgoingHttpHeaders;
};

/** An address as it is written: of version 4 without the form it has within version 6. */
export const plainAddress = (address: string | undefined): string => (address ?? "").replace(/^::ffff:(?=\d+\.)/i, "");

const refuse = (response: http.ServerResponse, status: number, code: string): void => {
  if (response.headersSent) {
    response.destroy();
    return;
  }
  response.writeHead(status, {
    "content-type": "application/json",
    "cache-control": "no-store",
    "content-security-policy": "default-src 'none'; frame-ancestors 'none'",
    "x-content-type-options": "nosniff",
  });
  response.end(JSON.stringify({ code }));
};

/** Hands a request on, and its answer back. */
export const handOn = (onward: Onward, request: http.IncomingMessage, response: http.ServerResponse): void => {
  const host = request.headers.host ?? "";
  if (!onward.hosts.includes(host.toLowerCase())) {
    refuse(response, 421, "host-not-allowed");
    return;
  }
  const passed = http.request(
    {
      host: "127.0.0.1",
      port: onward.port,
      method: request.method,
      path: request.url,
      agent,
      headers: {
        ...cleaned(request.headers),
        host,
        "x-forwarded-proto": "https",
        "x-forwarded-host": host,
        "x-dryarc-front": onward.key,
        "x-dryarc-from": plainAddress(request.socket.remoteAddress),
      },
    },
    (answer) => {
      response.writeHead(answer.statusCode ?? 502, { ...cleaned(answer.headers), ...(onward.trusted === true ? BY_TLS_ALONE : {}) });
      // Events and rows go out as they come.
      response.flushHeaders();
      answer.pipe(response);
      answer.on("error", () => response.destroy());
    },
  );
  passed.on("error", () => refuse(response, 503, "offline"));
  request.on("aborted", () => passed.destroy());
  response.on("close", () => {
    if (!response.writableFinished) passed.destroy();
  });
  request.pipe(passed);
};

const HEADERS_MS = 20_000;
const REQUEST_MS = 300_000;
const MOST_CONNECTIONS = 2000;

/** Limits of a listener: nobody holds a connection by saying nothing. */
export const limit = (server: http.Server | https.Server): void => {
  server.headersTimeout = HEADERS_MS;
  server.requestTimeout = REQUEST_MS;
  server.keepAliveTimeout = 60_000;
  server.maxConnections = MOST_CONNECTIONS;
  server.on("clientError", (_error: Error, socket: Socket) => {
    if (socket.writable) socket.end("HTTP/1.1 400 Bad Request\r\nconnection: close\r\n\r\n");
  });
  // A connection that breaks within its handshake is nobody's fault here.
  server.on("tlsClientError", () => undefined);
};
