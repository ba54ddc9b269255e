/*
 * From where a request may come, before anybody asks who sent it. Each request is checked: its Host must be one of ours (against
 * names rebound to loopback), and it must come from our own pages or from no page at all. That holds for reads, too: a page
 * elsewhere must not make the server work.
 */
const LOOPBACK = /^(127\.0\.0\.1|localhost|\[::1\])(:\d+)?$/;

const allowedHost = (host: string): boolean => {
  const more = (process.env.DRYARC_ALLOWED_HOSTS ?? "").split(",").filter((h) => h !== "");
  return LOOPBACK.test(host) || more.includes(host);
};

/** Null when the request may pass; else the reason as a code. */
export const refusalOf = (request: Request): "host-not-allowed" | "cross-site" | null => {
  const host = request.headers.get("host") ?? "";
  if (!allowedHost(host)) return "host-not-allowed";
  const site = request.headers.get("sec-fetch-site");
  if (site !== null && site !== "same-origin" && site !== "none") return "cross-site";
  const origin = request.headers.get("origin");
  // "null" is what a page without an origin of its own sends: a sandboxed frame, a file.
  if (origin !== null && (!URL.canParse(origin) || new URL(origin).host !== host)) return "cross-site";
  return null;
};
