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
  const file = path.join(folder(), FILE);
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
  const key = Buffer.from(readFileSync(file, "utf8").trim(), "base64url");
  if (key.length !== 32) throw new Error(`${file} is no key: 32 bytes as base64url are needed`);
  held = key;
  return key;
};

/** A key for one purpose, drawn from the one of the installation (RFC 5869). */
export const keyFor = (purpose: string): Buffer =>
  Buffer.from(hkdfSync("sha256", installationKey(), Buffer.alloc(0), `dry-arc ${purpose}`, 32));

/** A secret that opens a door: 128 bits, as it stands in a link. */
export const newSecret = (): string => randomBytes(16).toString("base64url");

/** What is kept of such a secret. */
export const hashOf = (secret: string): string => createHash("sha256").update(secret).digest("hex");
