import { createHmac } from "node:crypto";

/** The code of an authenticator (RFC 6238) for a secret. */
export const totpOf = (secret: string, atMs = Date.now()): string => {
  let bits = "";
  for (const c of secret.replace(/=+$/, "")) bits += "ABCDEFGHIJKLMNOPQRSTUVWXYZ234567".indexOf(c).toString(2).padStart(5, "0");
  const key = Buffer.from((bits.match(/.{8}/g) ?? []).map((b) => Number.parseInt(b, 2)));
  const counter = Buffer.alloc(8);
  counter.writeBigUInt64BE(BigInt(Math.floor(atMs / 30_000)));
  const mac = createHmac("sha1", key).update(counter).digest();
  const at = mac[19]! & 0xf;
  return String((mac.readUInt32BE(at) & 0x7fffffff) % 1_000_000).padStart(6, "0");
};
