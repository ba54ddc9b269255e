// The HTTPS front of a server that others reach.
//   node build/front.mjs check             prints what the start command needs to know
//   node build/front.mjs serve             serves
//   node build/front.mjs tell              prints address, fingerprint and codes for phones
// Its settings come from the environment; the start command sets them.
import { existsSync, readFileSync, statSync } from "node:fs";
import http from "node:http";
import https from "node:https";
import { renderUnicodeCompact } from "uqr";
import { type Certificates, certificatesFor, fingerprintOf } from "./authority";
import { hostsOf, namesOf, ownAddresses } from "./names";
import { handOn, limit } from "./proxy";
import { answerTrust } from "./trust-page";

const LOOK_MS = 3_600_000;

const env = (name: string, otherwise: string): string => {
  const v = process.env[name];
  return v === undefined || v === "" ? otherwise : v;
};
const fail = (sentence: string): never => {
  console.error(`dry-arc: ${sentence}`);
  process.exit(1);
};

const port = Number(env("DRYARC_PORT", "4610"));
const address = env("DRYARC_LAN", "");
const dir = env("DRYARC_TLS", ".data/tls");
const own = { cert: env("DRYARC_TLS_CERT", ""), key: env("DRYARC_TLS_KEY", "") };
const names = (() => {
  try {
    return namesOf({ name: env("DRYARC_NAME", ""), address });
  } catch (error) {
    return fail((error as Error).message);
  }
})();
const hosts = hostsOf(names, port);
const origin = `https://${names.dns[0]}${port === 443 ? "" : `:${port}`}`;
const trustPort = Number(env("DRYARC_TRUST_PORT", String(port + 1)));
const trustOrigin = (host: string): string => `http://${host}:${trustPort}/trust`;

const readOwn = (): Certificates => {
  for (const file of [own.cert, own.key]) if (!existsSync(file)) fail(`the certificate's file ${file} is not there.`);
  const serverPem = readFileSync(own.cert, "utf8");
  return { authorityPem: "", serverPem, serverKeyPem: readFileSync(own.key, "utf8"), fingerprint: fingerprintOf(serverPem), isNew: false };
};
const hasOwn = own.cert !== "" && own.key !== "";
const certificates = (): Promise<Certificates> => (hasOwn ? Promise.resolve(readOwn()) : certificatesFor(dir, names));

const serve = async (): Promise<void> => {
  let held = await certificates();
  if (held.isNew) console.log("a new authority was made: phones that trusted an older one have to trust this one");
  const onward = { port: Number(env("DRYARC_APP_PORT", "4640")), key: env("DRYARC_FRONT_KEY", ""), hosts, trusted: hasOwn };
  if (onward.key === "") fail("DRYARC_FRONT_KEY is not set.");
  const trust = () => ({ origin, fingerprint: held.fingerprint, authorityPem: held.authorityPem });
  const secureOne = (): https.Server =>
    https.createServer(
      { cert: held.serverPem, key: held.serverKeyPem, minVersion: "TLSv1.2", maxHeaderSize: 32_768 },
      (request, response) => {
        if (!hasOwn && answerTrust(trust(), request, response)) return;
        handOn(onward, request, response);
      },
    );
  // Plain, and nothing but the certificate: a phone that trusts nothing of ours yet could get it nowhere else.
  const plainOne = (): http.Server =>
    http.createServer({ maxHeaderSize: 8192 }, (request, response) => {
      if (answerTrust(trust(), request, response)) return;
      response.writeHead(302, { location: "/trust" });
      response.end();
    });
  const open = (server: http.Server | https.Server, on: string, at: number): void => {
    limit(server);
    server.on("error", (error) => fail(`port ${at} on ${on} cannot be opened: ${error.message}`));
    server.listen(at, on);
  };
  const places = [...new Set(["127.0.0.1", ...(address === "" ? [] : [address])])];
  const secure = places.map(secureOne);
  for (const [i, server] of secure.entries()) open(server, places[i]!, port);
  if (!hasOwn) for (const place of places) open(plainOne(), place, trustPort);
  let seen = hasOwn ? statSync(own.cert).mtimeMs : 0;
  setInterval(() => {
    void (async () => {
      if (hasOwn && statSync(own.cert).mtimeMs === seen) return;
      const next = await certificates();
      if (hasOwn) seen = statSync(own.cert).mtimeMs;
      if (next.serverPem === held.serverPem) return;
      held = next;
      for (const server of secure) server.setSecureContext({ cert: held.serverPem, key: held.serverKeyPem });
      console.log("the certificate was renewed");
    })().catch((error: unknown) => console.error(`the certificate could not be renewed: ${String(error)}`));
  }, LOOK_MS).unref();
  console.log(`front ready on ${origin}`);
  for (const signal of ["SIGTERM", "SIGINT"] as const)
    process.on(signal, () => {
      for (const server of secure) server.close();
      process.exit(0);
    });
};

const qr = (text: string): string => renderUnicodeCompact(text, { border: 2, ecc: "M" });

const tell = async (): Promise<void> => {
  const held = await certificates();
  const first = env("DRYARC_FIRST_CODE", "");
  console.log(`dry-arc: open ${origin}`);
  if (address !== "")
    console.log(`dry-arc: where that name is not found: https://${address}:${port} (without passkeys: they need the name)`);
  console.log(qr(origin));
  if (!hasOwn) {
    console.log(
      `dry-arc: a phone that does not trust this machine yet gets its certificate at ${trustOrigin(address === "" ? "127.0.0.1" : address)}`,
    );
    console.log(`dry-arc: fingerprint (SHA-256) ${held.fingerprint}`);
  }
  if (first !== "") {
    console.log("dry-arc: nobody can come in yet. Whoever opens this becomes the owner:");
    console.log(`${origin}/first#${first}`);
  }
};

const command = process.argv[2];
if (command === "serve") await serve();
else if (command === "tell") await tell();
else if (command === "check") {
  // Lines for the shell: names hold letters, figures, dots and hyphens alone.
  console.log(`hosts=${hosts.join(",")}`);
  console.log(`origin=${origin}`);
  console.log(`trust=${hasOwn ? "" : trustOrigin(address === "" ? "127.0.0.1" : address)}`);
} else if (command === "address") {
  const [found] = ownAddresses();
  if (found === undefined) fail("this machine has no address in a private network; name one: --lan=ADDRESS.");
  console.log(found);
} else fail("use: node build/front.mjs check|address|serve|tell");
