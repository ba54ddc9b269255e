import { readdirSync } from "node:fs";
import path from "node:path";

/* The routes as they lie in the application, called as a request calls them. */

const ROOT = path.join(process.cwd(), "src/app/api");
const METHODS = ["GET", "POST", "PUT", "PATCH", "DELETE"] as const;
export type Method = (typeof METHODS)[number];

type Handler = (request: Request, context: { params: Promise<Record<string, string>> }) => Promise<Response>;

const files = (): string[] =>
  readdirSync(ROOT, { recursive: true, encoding: "utf8" })
    .filter((f) => path.basename(f) === "route.ts")
    .map((f) => path.dirname(f))
    .sort();

const load = async (route: string): Promise<Partial<Record<Method, Handler>>> =>
  (await import(path.join(ROOT, route, "route.ts"))) as Partial<Record<Method, Handler>>;

/** "GET jobs/[jobId]" for each method of each route that there is. */
export const allRoutes = async (): Promise<string[]> => {
  const out: string[] = [];
  for (const route of files()) {
    const there = await load(route);
    for (const method of METHODS) if (there[method] !== undefined) out.push(`${method} ${route}`);
  }
  return out;
};

export interface Asking {
  readonly params?: Readonly<Record<string, string>>;
  readonly body?: unknown;
  /** In the place of a body: a file. */
  readonly bytes?: Buffer;
  readonly headers?: Readonly<Record<string, string>>;
  readonly query?: string;
}

/** Asks a route, "POST jobs/[jobId]/undo", as a browser with these cookies would. */
export const ask = async (route: string, cookie: string | null, more: Asking = {}): Promise<Response> => {
  const [method, file] = route.split(" ") as [Method, string];
  const handler = (await load(file))[method];
  if (handler === undefined) throw new Error(`no route ${route}`);
  const params = more.params ?? {};
  const address = file.replace(/\[(\w+)\]/g, (_m, name: string) => params[name] ?? "missing");
  const request = new Request(`http://localhost:4610/api/${address}${more.query ?? ""}`, {
    method,
    headers: {
      host: "localhost:4610",
      ...(cookie === null ? {} : { cookie }),
      ...(more.body === undefined ? {} : { "content-type": "application/json" }),
      ...more.headers,
    },
    ...(more.body === undefined ? {} : { body: JSON.stringify(more.body) }),
    ...(more.bytes === undefined ? {} : { body: new Uint8Array(more.bytes) }),
  });
  return handler(request, { params: Promise.resolve({ ...params }) });
};

/** What an answer sets, as the next request sends it. */
export const cookiesOf = (answer: Response, before: string | null = null): string => {
  const jar = new Map((before ?? "").split("; ").flatMap((c) => (c === "" ? [] : [c.split("=", 2) as [string, string]])));
  for (const line of answer.headers.getSetCookie()) {
    const [name, value] = line.split(";")[0]!.split(/=(.*)/s) as [string, string];
    if (/max-age=0/i.test(line) || value === "") jar.delete(name);
    else jar.set(name, value);
  }
  return [...jar].map(([n, v]) => `${n}=${v}`).join("; ");
};
