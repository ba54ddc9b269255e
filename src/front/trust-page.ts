import type http from "node:http";

/* Where a phone gets the certificate of this machine's authority, before it can trust anything of ours: plain, and nothing else. */

const STYLE = `body{font:17px/1.5 system-ui,sans-serif;max-width:34rem;margin:1.5rem auto;padding:0 1rem;color:#1b1b18;background:#fbfaf5}
h1{font-size:1.4rem}code{font-size:.95rem;overflow-wrap:anywhere}a.go{display:inline-block;padding:.7rem 1rem;border:2px solid;color:inherit;font-weight:600;text-decoration:none}
li{margin:.35rem 0}@media(prefers-color-scheme:dark){body{color:#eceae0;background:#15161a}}`;

const escaped = (text: string): string => text.replace(/[&<>"']/g, (c) => `&#${c.charCodeAt(0)};`);

export const trustPage = (p: {
  readonly origin: string;
  readonly fingerprint: string;
}): string => `<!doctype html><html lang="en-GB"><head><meta charset="utf-8">
<meta name="viewport" content="width=device-width, initial-scale=1"><title>Trust this Dry Arc server</title><style>${STYLE}</style></head><body><main>
<h1>Trust this Dry Arc server, once</h1>
<p>This server made its own certificate authority. It can speak for this machine's own names and private addresses only, never for other sites.</p>
<p><a class="go" href="/authority.crt">Get the certificate</a></p>
<p>Hold its fingerprint (SHA-256) against the one that the server's own screen shows. If they differ, stop: somebody stands between.</p>
<p><code>${escaped(p.fingerprint)}</code></p>
<ol>
<li><b>Android</b>: open the file; or Settings, search for “CA certificate”, Install anyway, choose the file.</li>
<li><b>iPhone, iPad</b>: allow the download; Settings, Profile downloaded, Install; then General, About, Certificate Trust Settings, and turn it on.</li>
<li><b>Windows</b>: open the file, Install, Local computer, “Trusted root authorities”. <b>macOS</b>: open it in Keychain, set “Always trust”.</li>
<li><b>Linux</b>: the browser's settings, Certificates, Authorities, Import.</li>
</ol>
<p>Then open <a href="${escaped(p.origin)}">${escaped(p.origin)}</a>. To take it back, remove “Dry Arc on …” at the same place.</p>
</main></body></html>`;

const HEAD = {
  "content-security-policy": "default-src 'none'; style-src 'unsafe-inline'; base-uri 'none'; form-action 'none'; frame-ancestors 'none'",
  "x-content-type-options": "nosniff",
  "referrer-policy": "no-referrer",
  "cache-control": "no-store",
};

/** Answers for the page and the certificate. @returns false for anything else. */
export const answerTrust = (
  p: { readonly origin: string; readonly fingerprint: string; readonly authorityPem: string },
  request: http.IncomingMessage,
  response: http.ServerResponse,
): boolean => {
  const path = (request.url ?? "").split("?")[0];
  if (request.method !== "GET" && request.method !== "HEAD") return false;
  if (path === "/trust") {
    response.writeHead(200, { ...HEAD, "content-type": "text/html; charset=utf-8" });
    response.end(request.method === "HEAD" ? undefined : trustPage(p));
    return true;
  }
  if (path === "/authority.crt") {
    response.writeHead(200, {
      ...HEAD,
      "content-type": "application/x-x509-ca-cert",
      "content-disposition": 'attachment; filename="dry-arc-authority.crt"',
    });
    response.end(p.authorityPem);
    return true;
  }
  return false;
};
