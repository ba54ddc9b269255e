import { randomBytes, type ScryptOptions, scrypt, timingSafeEqual } from "node:crypto";

/*
 * Passwords as they are kept: scrypt (RFC 7914), its figures in the string, so that old ones stay readable when they rise.
 * OWASP's password storage sheet names N = 2^15, r = 8, p = 3 among its least: 32 MiB a time.
 */
const LN = 15;
const R = 8;
const P = 3;
const BYTES = 32;
/** So many at a time: each takes 32 MiB and a thread. */
const AT_ONCE = 2;

let running = 0;
const waiting: (() => void)[] = [];
const inTurn = async <T>(work: () => Promise<T>): Promise<T> => {
  if (running >= AT_ONCE) await new Promise<void>((go) => waiting.push(go));
  running++;
  try {
    return await work();
  } finally {
    running--;
    waiting.shift()?.();
  }
};

const derive = (password: string, salt: Buffer, ln: number, r: number, p: number): Promise<Buffer> =>
  inTurn(
    () =>
      new Promise((resolve, reject) => {
        const options: ScryptOptions = { N: 2 ** ln, r, p, maxmem: 256 * 2 ** ln * r };
        scrypt(password.normalize("NFKC"), salt, BYTES, options, (error, key) => (error === null ? resolve(key) : reject(error)));
      }),
  );

const base64 = (b: Buffer): string => b.toString("base64").replace(/=+$/, "");

/** A password as it is kept: $scrypt$ln=…,r=…,p=…$salt$hash. */
export const hashPassword = async (password: string): Promise<string> => {
  const salt = randomBytes(16);
  return `$scrypt$ln=${LN},r=${R},p=${P}$${base64(salt)}$${base64(await derive(password, salt, LN, R, P))}`;
};

const FORM = /^\$scrypt\$ln=(\d{1,2}),r=(\d{1,2}),p=(\d{1,2})\$([A-Za-z0-9+/]{16,})\$([A-Za-z0-9+/]{40,})$/;

/** Whether a password is the one that was kept; false for what is no such string. */
export const verifyPassword = async ({ hash, password }: { hash: string; password: string }): Promise<boolean> => {
  const m = FORM.exec(hash);
  if (m === null) return false;
  const [ln, r, p] = [Number(m[1]), Number(m[2]), Number(m[3])];
  if (ln > 20 || r > 32 || p > 16) return false;
  const want = Buffer.from(m[5]!, "base64");
  const is = await derive(password, Buffer.from(m[4]!, "base64"), ln, r, p);
  return want.length === is.length && timingSafeEqual(want, is);
};
