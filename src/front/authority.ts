import "reflect-metadata";
import { createHash, randomBytes, webcrypto } from "node:crypto";
import { chmodSync, existsSync, mkdirSync, readFileSync, renameSync, writeFileSync } from "node:fs";
import { isIP } from "node:net";
import path from "node:path";
import { AsnConvert, OctetString } from "@peculiar/asn1-schema";
import { GeneralName, GeneralSubtree, GeneralSubtrees, id_ce_nameConstraints, NameConstraints } from "@peculiar/asn1-x509";
import * as x509 from "@peculiar/x509";

/*
 * A certificate authority of this machine alone (RFC 5280): phones trust it once, and it can speak for nothing but this machine's
 * own names and private addresses, whoever gets hold of its key. What it signs is renewed by itself.
 */

x509.cryptoProvider.set(webcrypto as unknown as Crypto);

const DAY_MS = 86_400_000;
const AUTHORITY_DAYS = 3650;
/** Browsers refuse a server's certificate that holds longer than 825 days. */
export const LEAF_DAYS = 397;
const RENEW_DAYS = 30;
const ALGORITHM = { name: "ECDSA", namedCurve: "P-256", hash: "SHA-256" } as const;

/** Private, link-local and loopback addresses, as address and mask (RFC 1918, 3927, 4193, 4291). */
const PRIVATE: readonly (readonly [address: string, bits: number])[] = [
  ["10.0.0.0", 8],
  ["172.16.0.0", 12],
  ["192.168.0.0", 16],
  ["169.254.0.0", 16],
  ["127.0.0.0", 8],
  ["fc00::", 7],
  ["fe80::", 10],
  ["::1", 128],
];

/** Bytes of an address. @throws RangeError for what is none. */
export const addressBytes = (address: string): Uint8Array => {
  if (isIP(address) === 4) return Uint8Array.from(address.split(".").map(Number));
  if (isIP(address) !== 6) throw new RangeError(`${address} is no address`);
  const [head = "", tail] = address.split("::");
  const words = (part: string): number[] => (part === "" ? [] : part.split(":").map((w) => Number.parseInt(w, 16)));
  const left = words(head);
  const right = tail === undefined ? [] : words(tail);
  const all = tail === undefined ? left : [...left, ...new Array<number>(8 - left.length - right.length).fill(0), ...right];
  return Uint8Array.from(all.flatMap((w) => [w >> 8, w & 0xff]));
};

const maskBytes = (length: number, bits: number): Uint8Array =>
  Uint8Array.from({ length }, (_, i) => {
    const left = Math.max(0, Math.min(8, bits - i * 8));
    return (0xff << (8 - left)) & 0xff;
  });

/** RFC 5280 4.2.1.10: which names what it signs may bear. */
const constraints = (names: readonly string[]): x509.Extension => {
  const subtree = (base: GeneralName): GeneralSubtree => new GeneralSubtree({ base });
  const permitted = new GeneralSubtrees([
    ...names.map((dNSName) => subtree(new GeneralName({ dNSName }))),
    ...PRIVATE.map(([address, bits]) => {
      const bytes = addressBytes(address);
      const both = Uint8Array.from([...bytes, ...maskBytes(bytes.length, bits)]);
      // The library writes addresses out of words; a range is eight or thirty-two bytes, given as they are.
      return subtree(rawAddress(both));
    }),
  ]);
  return new x509.Extension(id_ce_nameConstraints, true, AsnConvert.serialize(new NameConstraints({ permittedSubtrees: permitted })));
};

/** A name of the kind iPAddress, from bytes: [7] IMPLICIT OCTET STRING. */
const rawAddress = (bytes: Uint8Array): GeneralName => {
  const octets = new Uint8Array(AsnConvert.serialize(new OctetString(bytes)));
  octets[0] = 0x87;
  return AsnConvert.parse(octets, GeneralName);
};

const serial = (): string => {
  const bytes = randomBytes(16);
  bytes[0] = (bytes[0]! & 0x7f) | 0x01;
  return bytes.toString("hex");
};

const pemOfKey = async (key: CryptoKey): Promise<string> =>
  x509.PemConverter.encode(await webcrypto.subtle.exportKey("pkcs8", key as never), "PRIVATE KEY");

const keyOfPem = (pem: string): Promise<CryptoKey> =>
  webcrypto.subtle.importKey("pkcs8", x509.PemConverter.decodeFirst(pem), ALGORITHM, true, ["sign"]) as unknown as Promise<CryptoKey>;

const newKeys = (): Promise<CryptoKeyPair> =>
  webcrypto.subtle.generateKey(ALGORITHM, true, ["sign", "verify"]) as unknown as Promise<CryptoKeyPair>;

export interface Names {
  /** Names that stay, the one for letters and codes first. */
  readonly dns: readonly string[];
  readonly addresses: readonly string[];
}

export interface Certificates {
  readonly authorityPem: string;
  readonly serverPem: string;
  readonly serverKeyPem: string;
  /** SHA-256 of the authority's certificate, in pairs: what the phone shows when it is asked to trust it. */
  readonly fingerprint: string;
  /** A new authority was made: phones have to trust it once more. */
  readonly isNew: boolean;
}

/** SHA-256 of a certificate, in pairs of digits. */
export const fingerprintOf = (pem: string): string =>
  createHash("sha256")
    .update(Buffer.from(new x509.X509Certificate(pem).rawData))
    .digest("hex")
    .toUpperCase()
    .replace(/(..)(?!$)/g, "$1:");

const write = (file: string, text: string, mode: number): void => {
  writeFileSync(`${file}.new`, text, { mode });
  chmodSync(`${file}.new`, mode);
  renameSync(`${file}.new`, file);
};

const makeAuthority = async (dir: string, names: Names, now: Date): Promise<void> => {
  const keys = await newKeys();
  const cert = await x509.X509CertificateGenerator.createSelfSigned({
    serialNumber: serial(),
    name: `CN=Dry Arc on ${names.dns[0]}`,
    notBefore: new Date(now.getTime() - DAY_MS),
    notAfter: new Date(now.getTime() + AUTHORITY_DAYS * DAY_MS),
    keys,
    signingAlgorithm: ALGORITHM,
    extensions: [
      new x509.BasicConstraintsExtension(true, 0, true),
      new x509.KeyUsagesExtension(x509.KeyUsageFlags.keyCertSign | x509.KeyUsageFlags.cRLSign, true),
      constraints(names.dns),
      await x509.SubjectKeyIdentifierExtension.create(keys.publicKey),
    ],
  });
  // An authority that was trusted before is kept beside: it is nobody's but this machine's.
  for (const file of ["authority.crt", "authority.key"])
    if (existsSync(path.join(dir, file))) renameSync(path.join(dir, file), path.join(dir, `${file}.${now.getTime()}`));
  write(path.join(dir, "authority.key"), await pemOfKey(keys.privateKey), 0o600);
  write(path.join(dir, "authority.crt"), cert.toString("pem"), 0o644);
  write(path.join(dir, "authority.names"), JSON.stringify(names.dns), 0o644);
};

const makeLeaf = async (dir: string, names: Names, now: Date): Promise<void> => {
  const authority = new x509.X509Certificate(readFileSync(path.join(dir, "authority.crt"), "utf8"));
  const keys = await newKeys();
  const until = Math.min(now.getTime() + LEAF_DAYS * DAY_MS, authority.notAfter.getTime());
  const cert = await x509.X509CertificateGenerator.create({
    serialNumber: serial(),
    subject: `CN=${names.dns[0]}`,
    issuer: authority.subject,
    notBefore: new Date(now.getTime() - DAY_MS / 2),
    notAfter: new Date(until - DAY_MS / 2),
    publicKey: keys.publicKey,
    signingKey: await keyOfPem(readFileSync(path.join(dir, "authority.key"), "utf8")),
    signingAlgorithm: ALGORITHM,
    extensions: [
      new x509.BasicConstraintsExtension(false, undefined, true),
      new x509.KeyUsagesExtension(x509.KeyUsageFlags.digitalSignature, true),
      new x509.ExtendedKeyUsageExtension([x509.ExtendedKeyUsage.serverAuth]),
      new x509.SubjectAlternativeNameExtension([
        ...names.dns.map((value) => ({ type: "dns" as const, value })),
        ...names.addresses.map((value) => ({ type: "ip" as const, value })),
      ]),
      await x509.AuthorityKeyIdentifierExtension.create(authority),
      await x509.SubjectKeyIdentifierExtension.create(keys.publicKey),
    ],
  });
  write(path.join(dir, "server.key"), await pemOfKey(keys.privateKey), 0o600);
  write(path.join(dir, "server.crt"), cert.toString("pem"), 0o644);
};

/** Whether the authority that is there may speak for all these names. */
const covers = (dir: string, names: Names, now: Date): boolean => {
  if (!existsSync(path.join(dir, "authority.crt")) || !existsSync(path.join(dir, "authority.key"))) return false;
  const cert = new x509.X509Certificate(readFileSync(path.join(dir, "authority.crt"), "utf8"));
  if (cert.notAfter.getTime() < now.getTime() + LEAF_DAYS * DAY_MS) return false;
  const own = JSON.parse(readFileSync(path.join(dir, "authority.names"), "utf8")) as string[];
  return names.dns.every((n) => own.includes(n));
};

/** A name or an address in one spelling. */
const spelt = (name: string): string => (isIP(name) === 0 ? name : Buffer.from(addressBytes(name)).toString("hex"));

const leafHolds = (dir: string, names: Names, now: Date): boolean => {
  if (!existsSync(path.join(dir, "server.crt")) || !existsSync(path.join(dir, "server.key"))) return false;
  const cert = new x509.X509Certificate(readFileSync(path.join(dir, "server.crt"), "utf8"));
  const authority = new x509.X509Certificate(readFileSync(path.join(dir, "authority.crt"), "utf8"));
  if (cert.issuer !== authority.subject || cert.notAfter.getTime() < now.getTime() + RENEW_DAYS * DAY_MS) return false;
  const held = (cert.getExtension(x509.SubjectAlternativeNameExtension)?.names.items ?? []).map((n) => spelt(n.value));
  return [...names.dns, ...names.addresses].every((n) => held.includes(spelt(n)));
};

/**
 * The certificates for some names: made, renewed or as they are.
 * @param dir where they lie; keys are readable by their owner alone. @param now of the clock; tests have their own.
 */
export const certificatesFor = async (dir: string, names: Names, now = new Date()): Promise<Certificates> => {
  mkdirSync(dir, { recursive: true, mode: 0o700 });
  const isNew = !covers(dir, names, now);
  if (isNew) await makeAuthority(dir, names, now);
  if (isNew || !leafHolds(dir, names, now)) await makeLeaf(dir, names, now);
  const authorityPem = readFileSync(path.join(dir, "authority.crt"), "utf8");
  return {
    authorityPem,
    serverPem: readFileSync(path.join(dir, "server.crt"), "utf8"),
    serverKeyPem: readFileSync(path.join(dir, "server.key"), "utf8"),
    fingerprint: fingerprintOf(authorityPem),
    isNew,
  };
};
