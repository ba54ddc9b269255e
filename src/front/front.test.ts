/* The front: its authority, what it lets by, and what it takes out; over real sockets. */
import "reflect-metadata";
import { createHash, webcrypto, X509Certificate } from "node:crypto";
import { mkdtempSync, readdirSync, readFileSync, statSync, writeFileSync } from "node:fs";
import http from "node:http";
import https from "node:https";
import { type AddressInfo, connect as plainConnect } from "node:net";
import { tmpdir } from "node:os";
import path from "node:path";
import tls from "node:tls";
import * as x509 from "@peculiar/x509";
import fc from "fast-check";
import { afterEach, describe, expect, test } from "vitest";
import { addressBytes, certificatesFor, LEAF_DAYS } from "./authority";
import { hostsOf, namesOf, ownAddresses } from "./names";
import { handOn, limit, plainAddress } from "./proxy";
import { answerTrust } from "./trust-page";

const NAMES = { dns: ["dryarc.local", "localhost"], addresses: ["192.168.7.9", "127.0.0.1", "::1"] };
const newDir = (): string => mkdtempSync(path.join(tmpdir(), "dry-arc-tls-"));
const DAY_MS = 86_400_000;

const open: (http.Server | https.Server)[] = [];
afterEach(() => {
  for (const s of open.splice(0)) {
    s.closeAllConnections();
    s.close();
  }
});
const listen = async (server: http.Server | https.Server): Promise<number> => {
  open.push(server);
  await new Promise<void>((done) => void server.listen(0, "127.0.0.1", done));
  return (server.address() as AddressInfo).port;
};

/** What a client that trusts the authority makes of a server under a name: null when it is let through. */
const refusalUnder = (port: number, name: string, authorityPem: string): Promise<string | null> =>
  new Promise((done) => {
    const socket = tls.connect({ host: "127.0.0.1", port, servername: name, ca: authorityPem }, () => {
      socket.end();
      done(null);
    });
    socket.on("error", (error: NodeJS.ErrnoException) => done(`${error.code ?? ""} ${error.message}`));
  });

describe("the authority", () => {
  test("is believed for this machine's names, and for no other that its key signs", async () => {
    const dir = newDir();
    const made = await certificatesFor(dir, NAMES);
    const own = await listen(https.createServer({ cert: made.serverPem, key: made.serverKeyPem }));
    for (const name of NAMES.dns) expect(await refusalUnder(own, name, made.authorityPem)).toBeNull();
    expect(await refusalUnder(own, "elsewhere.example", made.authorityPem)).toContain("ERR_TLS_CERT_ALTNAME_INVALID");

    // Whoever steals its key signs what they like: it is believed no more for that.
    const keys = (await webcrypto.subtle.generateKey({ name: "ECDSA", namedCurve: "P-256" }, true, ["sign", "verify"])) as CryptoKeyPair;
    const stolen = (await webcrypto.subtle.importKey(
      "pkcs8",
      x509.PemConverter.decodeFirst(readFileSync(path.join(dir, "authority.key"), "utf8")),
      { name: "ECDSA", namedCurve: "P-256" },
      true,
      ["sign"],
    )) as CryptoKey;
    const signed = async (names: x509.JsonGeneralNames): Promise<number> => {
      const cert = await x509.X509CertificateGenerator.create({
        subject: "CN=another",
        issuer: new x509.X509Certificate(made.authorityPem).subject,
        notBefore: new Date(Date.now() - DAY_MS),
        notAfter: new Date(Date.now() + DAY_MS),
        publicKey: keys.publicKey,
        signingKey: stolen,
        signingAlgorithm: { name: "ECDSA", hash: "SHA-256" },
        extensions: [new x509.SubjectAlternativeNameExtension(names)],
      });
      const key = x509.PemConverter.encode(await webcrypto.subtle.exportKey("pkcs8", keys.privateKey as never), "PRIVATE KEY");
      return listen(https.createServer({ cert: cert.toString("pem"), key }));
    };
    expect(await refusalUnder(await signed([{ type: "dns", value: "dryarc.local" }]), "dryarc.local", made.authorityPem)).toBeNull();
    expect(await refusalUnder(await signed([{ type: "dns", value: "elsewhere.example" }]), "elsewhere.example", made.authorityPem)).toMatch(
      /permitted subtree/i,
    );
    const bank = await signed([
      { type: "dns", value: "dryarc.local" },
      { type: "ip", value: "8.8.8.8" },
    ]);
    expect(await refusalUnder(bank, "dryarc.local", made.authorityPem)).toMatch(/permitted subtree/i);
  });

  test("keeps its key from everybody else, and lets leaves run out soon", async () => {
    const dir = newDir();
    const made = await certificatesFor(dir, NAMES);
    for (const file of readdirSync(dir).filter((f) => f.endsWith(".key")))
      expect(statSync(path.join(dir, file)).mode & 0o777, file).toBe(0o600);
    const leaf = new X509Certificate(made.serverPem);
    expect((Date.parse(leaf.validTo) - Date.parse(leaf.validFrom)) / DAY_MS).toBeLessThanOrEqual(LEAF_DAYS);
    expect(LEAF_DAYS).toBeLessThanOrEqual(800);
    for (const name of [...NAMES.dns, "IP Address:192.168.7.9"]) expect(leaf.subjectAltName).toContain(name);
    const authority = new X509Certificate(made.authorityPem);
    expect(authority.ca).toBe(true);
    expect(leaf.verify(authority.publicKey)).toBe(true);
    expect(made.fingerprint).toBe(
      createHash("sha256")
        .update(authority.raw)
        .digest("hex")
        .toUpperCase()
        .replace(/(..)(?!$)/g, "$1:"),
    );
  });

  test("renews leaves by itself under the same authority: with time, and when the machine's address changes", async () => {
    const dir = newDir();
    const first = await certificatesFor(dir, NAMES);
    expect((await certificatesFor(dir, NAMES)).serverPem).toBe(first.serverPem);
    const moved = await certificatesFor(dir, { ...NAMES, addresses: ["192.168.7.77", "127.0.0.1", "::1"] });
    expect(moved.serverPem).not.toBe(first.serverPem);
    expect(moved.authorityPem).toBe(first.authorityPem);
    expect(moved.isNew).toBe(false);
    const later = await certificatesFor(dir, NAMES, new Date(Date.now() + 380 * DAY_MS));
    expect(later.authorityPem).toBe(first.authorityPem);
    expect(Date.parse(new X509Certificate(later.serverPem).validTo)).toBeGreaterThan(Date.now() + 700 * DAY_MS);
  });

  test("is made anew for a name it may not speak for, the old one kept beside; a spoilt file is not used", async () => {
    const dir = newDir();
    const first = await certificatesFor(dir, NAMES);
    const named = await certificatesFor(dir, { ...NAMES, dns: ["radio.isles.example", "localhost"] });
    expect(named.isNew).toBe(true);
    expect(named.fingerprint).not.toBe(first.fingerprint);
    expect(readdirSync(dir).filter((f) => f.startsWith("authority.crt."))).toHaveLength(1);
    writeFileSync(path.join(dir, "server.crt"), "no certificate");
    await expect(certificatesFor(dir, { ...NAMES, dns: ["radio.isles.example", "localhost"] })).rejects.toThrow();
  });

  test("reads addresses as the system does", () => {
    const parts = fc.array(fc.integer({ min: 0, max: 0xffff }), { minLength: 8, maxLength: 8 });
    fc.assert(
      fc.property(parts, (words) => {
        const url = new URL(`http://[${words.map((w) => w.toString(16)).join(":")}]/`);
        const bytes = [...addressBytes(url.hostname.slice(1, -1))];
        expect(bytes).toEqual(words.flatMap((w) => [w >> 8, w & 255]));
      }),
    );
    expect([...addressBytes("192.168.7.9")]).toEqual([192, 168, 7, 9]);
    expect(() => addressBytes("dryarc.local")).toThrow(RangeError);
  });
});

describe("what is handed on", () => {
  const seen: http.IncomingHttpHeaders[] = [];
  const front = async (hosts: readonly string[], trusted = false): Promise<{ port: number; app: http.Server }> => {
    seen.length = 0;
    const app = http.createServer((q, r) => {
      seen.push(q.headers);
      if (q.url === "/slow") return;
      r.setHeader("set-cookie", ["a=1", "b=2"]);
      r.setHeader("keep-alive", "timeout=99");
      q.pipe(r);
    });
    const onward = { port: await listen(app), key: "the key of this start", hosts, trusted };
    const server = http.createServer((q, r) => handOn(onward, q, r));
    limit(server);
    return { port: await listen(server), app };
  };
  const ask = (
    port: number,
    headers: http.OutgoingHttpHeaders,
    body = "",
    at = "/",
  ): Promise<{ status: number; headers: http.IncomingHttpHeaders; text: string }> =>
    new Promise((done, fail) => {
      const q = http.request({ host: "127.0.0.1", port, path: at, method: body === "" ? "GET" : "POST", headers, agent: false }, (r) => {
        let text = "";
        r.on("data", (d: Buffer) => {
          text += d.toString();
        });
        r.on("end", () => done({ status: r.statusCode!, headers: r.headers, text }));
      });
      q.on("error", fail);
      q.end(body);
    });

  test("a request comes through whole, with who is at the socket's other end, and no word of its sender about that", async () => {
    const { port } = await front(["dryarc.local"]);
    const answer = await ask(
      port,
      {
        host: "dryarc.local",
        "x-forwarded-for": "198.51.100.7",
        "x-real-ip": "198.51.100.7",
        "x-dryarc-from": "198.51.100.7",
        "x-dryarc-front": "guessed",
        forwarded: "for=198.51.100.7",
        te: "trailers",
        cookie: "a=1",
      },
      "what is sent",
    );
    expect(answer.status).toBe(200);
    expect(answer.text).toBe("what is sent");
    expect(answer.headers["set-cookie"]).toEqual(["a=1", "b=2"]);
    expect(answer.headers["keep-alive"]).not.toBe("timeout=99");
    expect(JSON.stringify(seen)).not.toContain("198.51.100.7");
    expect(seen[0]).toMatchObject({
      host: "dryarc.local",
      cookie: "a=1",
      "x-dryarc-from": "127.0.0.1",
      "x-dryarc-front": "the key of this start",
      "x-forwarded-proto": "https",
    });
    expect(seen[0]!.te).toBeUndefined();
  });

  test("browsers are told to come by TLS alone where the certificate is one that everybody trusts, and not by our own authority", async () => {
    const hsts = async (trusted: boolean) =>
      (await ask((await front(["dryarc.local"], trusted)).port, { host: "dryarc.local" })).headers["strict-transport-security"];
    expect(await hsts(true)).toBe("max-age=31536000");
    expect(await hsts(false)).toBeUndefined();
  });

  test("a name that is not ours gets no further: a page elsewhere that rebinds its name to us learns nothing", async () => {
    const { port } = await front(["dryarc.local:4610"]);
    for (const host of ["elsewhere.example", "dryarc.local", "dryarc.local:4610.elsewhere.example", "127.0.0.1:4610"]) {
      const answer = await ask(port, { host });
      expect([answer.status, JSON.parse(answer.text)]).toEqual([421, { code: "host-not-allowed" }]);
    }
    expect((await ask(port, { host: "DryArc.local:4610" })).status).toBe(200);
    expect(seen).toHaveLength(1);
  });

  test("an application that is away is said to be; one that is left lets go of what it asked", async () => {
    const { port, app } = await front(["dryarc.local"]);
    const left = new Promise<void>((done) => app.on("connection", (s) => s.on("close", done)));
    const client = http.get({ host: "127.0.0.1", port, path: "/slow", headers: { host: "dryarc.local" }, agent: false });
    client.on("error", () => undefined);
    await expect.poll(() => seen.length).toBe(1);
    client.destroy();
    await left;
    app.closeAllConnections();
    await new Promise((done) => app.close(done));
    const answer = await ask(port, { host: "dryarc.local" });
    expect([answer.status, JSON.parse(answer.text)]).toEqual([503, { code: "offline" }]);
  });

  test("what is no request is answered and let go", async () => {
    const { port } = await front(["dryarc.local"]);
    const told = await new Promise<string>((done) => {
      const socket = plainConnect(port, "127.0.0.1", () => socket.write("\u0000\u0001 nonsense\r\n\r\n"));
      let text = "";
      socket.on("data", (d) => {
        text += d.toString();
      });
      socket.on("close", () => done(text));
    });
    expect(told).toContain("400 Bad Request");
  });

  test("addresses are written plainly", () => {
    expect(plainAddress("::ffff:192.168.7.9")).toBe("192.168.7.9");
    expect(plainAddress("fd00::2")).toBe("fd00::2");
    expect(plainAddress(undefined)).toBe("");
  });
});

describe("names", () => {
  test("are this machine's own, or the one that was asked for; what is no name is refused", () => {
    expect(namesOf({ name: "", address: "" }, "Shed.lan").dns).toEqual(["shed.local", "localhost"]);
    expect(namesOf({ name: "Radio.Isles.example", address: "10.0.0.4" }, "shed")).toEqual({
      dns: ["radio.isles.example", "localhost"],
      addresses: ["10.0.0.4", "127.0.0.1", "::1"],
    });
    for (const name of ["-x", "a b", "x/y", "..", "*.example", "a\r\nb"]) expect(() => namesOf({ name, address: "" })).toThrow(RangeError);
    expect(hostsOf(namesOf({ name: "radio.isles.example", address: "fd00::2" }), 4610)).toContain("[fd00::2]:4610");
  });

  test("only private addresses of a machine are offered to phones", () => {
    const at = (address: string, internal = false) => ({ address, internal, family: "IPv4" as const, netmask: "", mac: "", cidr: null });
    expect(
      ownAddresses({ a: [at("127.0.0.1", true), at("203.0.113.8")], b: [at("192.168.7.9"), at("172.20.1.1"), at("172.32.1.1")] }),
    ).toEqual(["192.168.7.9", "172.20.1.1"]);
  });
});

test("the page of the certificate shows its fingerprint and steps, and nothing else is told over plain", async () => {
  const p = {
    origin: "https://dryarc.local:4610",
    fingerprint: "AA:BB",
    authorityPem: "-----BEGIN CERTIFICATE-----\nAAAA\n-----END CERTIFICATE-----\n",
  };
  const port = await listen(
    http.createServer((q, r) => {
      if (!answerTrust(p, q, r)) r.writeHead(404).end();
    }),
  );
  const page = await fetch(`http://127.0.0.1:${port}/trust`);
  const text = await page.text();
  expect(text).toContain("AA:BB");
  expect(text).not.toMatch(/<script|https?:\/\/(?!dryarc)/);
  expect(page.headers.get("content-security-policy")).toContain("default-src 'none'");
  const crt = await fetch(`http://127.0.0.1:${port}/authority.crt`);
  expect(crt.headers.get("content-type")).toMatch(/x-x509-ca-cert|pkix-cert/);
  expect((await fetch(`http://127.0.0.1:${port}/api/jobs`)).status).toBe(404);
});
