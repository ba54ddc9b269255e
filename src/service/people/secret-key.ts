import { createHash, hkdfSync, randomBytes } from "node:crypto";
import { chmodSync, existsSync, mkdirSync, readFileSync, writeFileSync } from "node:fs";
import path from "node:path";

/* The one key of this installation. It lies beside the database, never in it, and what seals or signs is drawn from it. */

const FILE = "sealing.key";
let held: Buffer | null = null;

const folder = (): string => process.env.DRYARC_KEYS ?? path.join(".data", "keys");

/** The key, made at the first need. @throws Error when its file is no key. */
export const installationKey = (): Buffer => {
  if (held !== null) return held;
  const file = keyFile();
  if (!existsSync(file)) {
    mkdirSync(folder(), { recursive: true, mode: 0o700 });
    try {
      writeFileSync(file, randomBytes(32).toString("base64url"), { mode: 0o600, flag: "wx" });
    } catch (error) {
      // Another process was first: its key counts.
      if ((error as { code?: string }).code !== "EEXIST") throw error;
    }
  }
  chmodSync(file, 0o600);
  held = readKey(file);
  return held;
};

/** A key for one purpose, drawn from one of an installation (RFC 5869). */
const drawn = (key: Buffer, purpose: string): Buffer => Buffer.from(hkdfSync("sha256", key, Buffer.alloc(0), `dry-arc ${purpose}`, 32));

/** What the sign-in library seals and signs with. @param key another than this installation's. */
export const signInSecret = (key: Buffer = installationKey()): string => drawn(key, "sign-in").toString("base64url");

/** The file of the key. */
export const keyFile = (): string => path.join(folder(), FILE);
/** Where the next key waits while what is sealed is sealed anew. */
export const nextKeyFile = (): string => `${keyFile()}.next`;

/** A key out of its file. @throws Error when it is none. */
export const readKey = (file: string): Buffer => {
  const key = Buffer.from(readFileSync(file, "utf8").trim(), "base64url");
  if (key.length !== 32) throw new Error(`${file} is no key: 32 bytes as base64url are needed`);
  return key;
};

/** Tells one key from another, and nothing of either. */
export const markOf = (key: Buffer): string => drawn(key, "mark").toString("hex").slice(0, 16);

/** The mark of this installation's key; empty while it has none. */
export const keyMark = (): string => (existsSync(keyFile()) ? markOf(readKey(keyFile())) : "");

/** A secret that opens a door: 128 bits, as it stands in a link. */
export const newSecret = (): string => randomBytes(16).toString("base64url");

/** What is kept of such a secret. */
export const hashOf = (secret: string): string => createHash("sha256").update(secret).digest("hex");
