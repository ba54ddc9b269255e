import { createCipheriv, createDecipheriv, randomBytes, scrypt } from "node:crypto";
import { promisify } from "node:util";
import { z } from "zod";

/*
 * A file sealed by a passphrase, however long it is: AES-256-GCM by pieces (NIST SP 800-38D), each with its number and whether it is
 * the last in its nonce, after the STREAM construction (Hoang, Reyhanitabar, Rogaway, Vizár: Online Authenticated-Encryption and its
 * Nonce-Reuse Misuse-Resistance, 2015): a piece that is left out, doubled, moved or cut off is found. The key comes from the passphrase
 * by scrypt (RFC 7914); its figures stand in the head of the file, and the head is held by every piece.
 */

export const SEALED = "DRYARC-SEALED 1\n";
const PIECE_BYTES = 1_048_576;
const TAG_BYTES = 16;
const PREFIX_BYTES = 7;
/** 128 MB and about half a second: a passphrase is guessed offline. */
const KDF = { ln: 17, r: 8, p: 1 } as const;
const MOST_HEAD_BYTES = 1000;

const headSchema = z.strictObject({
  kdf: z.literal("scrypt"),
  // Figures of a file that somebody changed must not take all the memory there is.
  ln: z.int().min(14).max(18),
  r: z.int().min(1).max(8),
  p: z.int().min(1).max(4),
  salt: z.base64url().length(22),
  prefix: z.base64url().length(10),
});

/** What a sealed file is refused for, in words. */
export class SealFault extends Error {}

const derive = promisify<string, Buffer, number, { N: number; r: number; p: number; maxmem: number }, Buffer>(scrypt);
const keyOf = (passphrase: string, head: z.output<typeof headSchema>): Promise<Buffer> => {
  const N = 2 ** head.ln;
  return derive(passphrase.normalize("NFKC"), Buffer.from(head.salt, "base64url"), 32, {
    N,
    r: head.r,
    p: head.p,
    maxmem: 256 * N * head.r + 1_000_000,
  });
};

const nonceOf = (prefix: Buffer, piece: number, last: boolean): Buffer => {
  const nonce = Buffer.alloc(12);
  prefix.copy(nonce);
  nonce.writeUInt32BE(piece, PREFIX_BYTES);
  nonce.writeUInt8(last ? 1 : 0, 11);
  return nonce;
};

/** The bytes of a stream in pieces of one size; the last is shorter, and may be empty. */
async function* inPieces(source: AsyncIterable<Uint8Array>, size: number): AsyncGenerator<{ piece: Buffer; last: boolean }> {
  let held: Buffer[] = [];
  let bytes = 0;
  for await (const part of source) {
    held.push(Buffer.from(part.buffer, part.byteOffset, part.byteLength));
    bytes += part.byteLength;
    // A whole piece waits for what follows: only then is it known not to be the last.
    if (bytes <= size) continue;
    let all = Buffer.concat(held);
    while (all.length > size) {
      yield { piece: all.subarray(0, size), last: false };
      all = all.subarray(size);
    }
    held = [all];
    bytes = all.length;
  }
  yield { piece: Buffer.concat(held), last: true };
}

/** Seals what a stream gives. */
export async function* seal(source: AsyncIterable<Uint8Array>, passphrase: string): AsyncGenerator<Buffer> {
  const head = {
    kdf: "scrypt" as const,
    ...KDF,
    salt: randomBytes(16).toString("base64url"),
    prefix: randomBytes(PREFIX_BYTES).toString("base64url"),
  };
  const text = Buffer.from(`${SEALED}${JSON.stringify(head)}\n`);
  const key = await keyOf(passphrase, head);
  const prefix = Buffer.from(head.prefix, "base64url");
  yield text;
  let n = 0;
  for await (const { piece, last } of inPieces(source, PIECE_BYTES)) {
    const cipher = createCipheriv("aes-256-gcm", key, nonceOf(prefix, n++, last));
    cipher.setAAD(text);
    yield Buffer.concat([cipher.update(piece), cipher.final(), cipher.getAuthTag()]);
  }
}

/** Opens what was sealed. Pieces are given as they are found whole: act on none before the last. @throws SealFault */
export async function* unseal(source: AsyncIterable<Uint8Array>, passphrase: string): AsyncGenerator<Buffer> {
  const parts = source[Symbol.asyncIterator]();
  let start = Buffer.alloc(0);
  let end = -1;
  while (end < 0) {
    const { value, done } = await parts.next();
    if (done === true) throw new SealFault("the file ends within its head");
    start = Buffer.concat([start, value]);
    if (start.length >= SEALED.length && start.subarray(0, SEALED.length).toString("latin1") !== SEALED)
      throw new SealFault("the file is not a sealed one");
    end = start.indexOf("\n", SEALED.length);
    if (end < 0 && start.length > MOST_HEAD_BYTES) throw new SealFault("the head of the file is damaged");
  }
  const text = start.subarray(0, end + 1);
  let head: z.output<typeof headSchema>;
  try {
    head = headSchema.parse(JSON.parse(text.subarray(SEALED.length).toString("utf8")));
  } catch {
    throw new SealFault("the head of the file is damaged");
  }
  const key = await keyOf(passphrase, head);
  const prefix = Buffer.from(head.prefix, "base64url");
  async function* rest(): AsyncGenerator<Uint8Array> {
    yield start.subarray(end + 1);
    for (;;) {
      const { value, done } = await parts.next();
      if (done === true) return;
      yield value;
    }
  }
  let n = 0;
  for await (const { piece, last } of inPieces(rest(), PIECE_BYTES + TAG_BYTES)) {
    const wrong = n === 0 ? "the passphrase is not the one it was sealed with, or the file is damaged" : "the file was cut off or changed";
    if (piece.length < TAG_BYTES) throw new SealFault("the file was cut off or changed");
    const cut = piece.length - TAG_BYTES;
    const cipher = createDecipheriv("aes-256-gcm", key, nonceOf(prefix, n++, last));
    cipher.setAAD(text);
    cipher.setAuthTag(piece.subarray(cut));
    let open: Buffer;
    try {
      open = Buffer.concat([cipher.update(piece.subarray(0, cut)), cipher.final()]);
    } catch {
      throw new SealFault(wrong);
    }
    yield open;
  }
}
