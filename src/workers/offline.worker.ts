/*
 * Keeps survey and roof for a place without coverage: once they were opened with it, the page, its script, its job, its links and
 * its photos are there without. What other pages ask for goes to the server as if nothing stood between.
 */
import { ExpirationPlugin } from "workbox-expiration";
import { registerRoute } from "workbox-routing";
import { CacheFirst, NetworkFirst } from "workbox-strategies";
import { KEPT_HEADER } from "./messages";

interface Lasting extends Event {
  readonly waitUntil: (work: Promise<unknown>) => void;
}
/** What this uses of a service worker's own scope; the page's library has other words for it. */
const own = globalThis as unknown as {
  readonly location: Location;
  readonly skipWaiting: () => Promise<void>;
  readonly clients: { readonly claim: () => Promise<void> };
  readonly addEventListener: (
    type: "install" | "activate" | "message",
    work: (event: Lasting & { readonly data?: unknown }) => void,
  ) => void;
};

const PAGE = "dry-arc.page";
const DATA = "dry-arc.data";
const CODE = "dry-arc.code";
const PHOTO = "dry-arc.photo";

/** Files that a page names. */
const STATIC = /\/_next\/static\/[\w./~%-]+\.(?:js|css|woff2)/g;

/** A place with a bad signal answers slowly or never: after this long what is kept is shown. */
const PATIENCE_S = 4;

const isKeptPage = (path: string): boolean => /^\/jobs\/(kept|[^/]+\/(survey|roof))$/.test(path);
const isJobData = (path: string): boolean => /^\/api\/jobs\/[^/]+(\/(photos|roof|pack|links\/[^/]+\/roof))?$/.test(path);
const fromKeptPage = (request: Request): boolean => {
  try {
    return isKeptPage(new URL(request.referrer).pathname);
  } catch {
    return false;
  }
};

/** The page forgets all that is kept: nothing is put by any more until this worker is gone. */
let over = false;
const whileKeeping = {
  cacheWillUpdate: async ({ response }: { readonly response: Response }): Promise<Response | null> =>
    !over && response.status === 200 ? response : null,
};

/** Whoever is signed out is shown the door: it is no page to keep in the place of another. */
const isItself = (response: Response): boolean => !over && response.status === 200 && !response.redirected;
const thePageItself = {
  cacheWillUpdate: async ({ response }: { readonly response: Response }): Promise<Response | null> =>
    isItself(response) ? response : null,
};
registerRoute(
  ({ url, request, sameOrigin }) => sameOrigin && request.mode === "navigate" && isKeptPage(url.pathname),
  new NetworkFirst({
    cacheName: PAGE,
    networkTimeoutSeconds: PATIENCE_S,
    plugins: [new ExpirationPlugin({ maxEntries: 20 }), thePageItself],
  }),
);
// Its name holds its content: what is kept never grows old.
registerRoute(
  ({ url, sameOrigin }) => sameOrigin && url.pathname.startsWith("/_next/static/"),
  new CacheFirst({ cacheName: CODE, plugins: [new ExpirationPlugin({ maxEntries: 300 }), whileKeeping] }),
);
/** A server that cannot answer (its database is away) is one that does not. What is kept says so: it is not how things stand. */
const marked = {
  fetchDidSucceed: async ({ response }: { readonly response: Response }): Promise<Response> => {
    if (response.status >= 500) throw new Error(`answered with ${response.status}`);
    return response;
  },
  cachedResponseWillBeUsed: async ({ cachedResponse }: { readonly cachedResponse?: Response | null }): Promise<Response | null> => {
    if (cachedResponse == null) return null;
    const headers = new Headers(cachedResponse.headers);
    headers.set(KEPT_HEADER, "1");
    return new Response(cachedResponse.body, { status: cachedResponse.status, headers });
  },
};
registerRoute(
  ({ url, request, sameOrigin }) => sameOrigin && isJobData(url.pathname) && fromKeptPage(request),
  new NetworkFirst({
    cacheName: DATA,
    networkTimeoutSeconds: PATIENCE_S,
    plugins: [new ExpirationPlugin({ maxEntries: 400 }), marked, whileKeeping],
  }),
);
registerRoute(
  ({ url, sameOrigin }) => sameOrigin && /^\/api\/jobs\/[^/]+\/photos\/[^/]+\/file$/.test(url.pathname),
  new CacheFirst({ cacheName: PHOTO, plugins: [new ExpirationPlugin({ maxEntries: 80 }), whileKeeping] }),
);

own.addEventListener("install", () => {
  void own.skipWaiting();
});
own.addEventListener("activate", (event) => event.waitUntil(own.clients.claim()));

/** What the page had fetched before this stood between: it names them, and they are kept too. */
own.addEventListener("message", (event) => {
  const asked = event.data as { readonly keep?: readonly string[]; readonly forget?: true } | null;
  if (asked?.forget === true) over = true;
  const urls = asked?.keep ?? [];
  const keep = async (): Promise<void> => {
    // What a page asks for comes behind it: one that was never open here has fetched none of its script.
    const wanted = [...urls];
    for (const address of wanted) {
      if (over) return;
      const { pathname, origin } = new URL(address, own.location.href);
      if (origin !== own.location.origin) continue;
      const name = isKeptPage(pathname) ? PAGE : isJobData(pathname) ? DATA : pathname.startsWith("/_next/static/") ? CODE : null;
      if (name === null) continue;
      const cache = await caches.open(name);
      if (name === CODE && (await cache.match(address)) !== undefined) continue;
      const answer = await fetch(address).catch(() => null);
      if (answer === null || !isItself(answer)) continue;
      if (name === PAGE)
        for (const file of (await answer.clone().text()).match(STATIC) ?? []) if (!wanted.includes(file)) wanted.push(file);
      await cache.put(address, answer);
    }
  };
  event.waitUntil(keep());
});
