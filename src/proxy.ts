import { type NextRequest, NextResponse } from "next/server";

const DOORS = new Set(["/sign-in", "/first", "/join", "/pair", "/new-password", "/share"]);
const SESSION = /(?:^|;\s*)(?:__Host-)?dryarc\.(?:session_token|share)=/;

/**
 * Where somebody without a session is sent; null when the page may be shown. What a page shows it asks for, and each of those
 * questions is checked: this only spares an empty page.
 */
const doorFor = (request: NextRequest): string | null => {
  const { pathname, search } = request.nextUrl;
  if (process.env.DRYARC_SIGN_IN !== "on" || DOORS.has(pathname) || /\.\w+$/.test(pathname) || pathname.startsWith("/workers/"))
    return null;
  if (SESSION.test(request.headers.get("cookie") ?? "")) return null;
  return pathname === "/" && search === "" ? "/sign-in" : `/sign-in?to=${encodeURIComponent(pathname + search)}`;
};

/** Strict headers on every page; scripts run only with this response's nonce. */
export const proxy = (request: NextRequest): NextResponse => {
  const door = doorFor(request);
  if (door !== null)
    return NextResponse.redirect(new URL(door, request.nextUrl), { status: 307, headers: { "cache-control": "no-store" } });
  const nonce = Buffer.from(crypto.randomUUID()).toString("base64");
  const development = process.env.NODE_ENV === "development";
  const policy = [
    "default-src 'self'",
    `script-src 'self' 'nonce-${nonce}'${development ? " 'unsafe-eval'" : ""}`,
    "style-src 'self' 'unsafe-inline'",
    "img-src 'self' data: blob:",
    "font-src 'self'",
    "worker-src 'self' blob:",
    `connect-src 'self'${development ? " ws:" : ""}`,
    "object-src 'none'",
    "base-uri 'none'",
    "form-action 'self'",
    "frame-ancestors 'none'",
  ].join("; ");
  const headers = new Headers(request.headers);
  headers.set("x-nonce", nonce);
  headers.set("content-security-policy", policy);
  const response = NextResponse.next({ request: { headers } });
  response.headers.set("content-security-policy", policy);
  response.headers.set("x-content-type-options", "nosniff");
  // Nothing here is for whoever makes lists of pages.
  response.headers.set("x-robots-tag", "noindex, nofollow");
  response.headers.set("referrer-policy", "same-origin");
  response.headers.set("permissions-policy", "camera=(), microphone=(), geolocation=(self)");
  response.headers.set("cross-origin-opener-policy", "same-origin");
  return response;
};

/** Pages alone: what answers data sets its own, stricter policy. */
export const config = { matcher: [{ source: "/((?!api/|_next/static|_next/image|favicon.ico).*)" }] };
