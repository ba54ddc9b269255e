import { timingSafeEqual } from "node:crypto";
import { type Asker, programFor } from "@/data/actor";
import { askerOf, askerOfShare, firstOrganisation, sawDevice } from "@/data/people";
import { askerOfToken, sawToken } from "@/data/tokens";
import { countTry } from "@/data/tries";
import { type Auth, authOf } from "@/service/people/auth";
import { hashOf } from "@/service/people/secret-key";
import { TOKEN_START } from "@/service/people/tokens";
import { doors } from "./db";

/* Who asks. On loopback without sign-in it is whoever sits at this machine; else a person with a session, read anew each time. */

/** Whether people sign in here; else everybody who reaches this server is the owner, and only this machine does. */
export const signInIsOn = (): boolean => process.env.DRYARC_SIGN_IN === "on";

/** Cookies go over TLS alone, unless a test on plain loopback says otherwise. */
export const isSecure = (): boolean => process.env.DRYARC_PLAIN_COOKIES !== "test";

export const auth = (): Auth => authOf(doors(), isSecure());

const isSame = (a: string, b: string): boolean => {
  const [x, y] = [Buffer.from(a), Buffer.from(b)];
  return x.length === y.length && timingSafeEqual(x, y);
};

/**
 * The address at the other end of the socket. What a header says of it counts only from our own front, which proves itself by a key
 * of this start, or from the one proxy that is said to be trusted.
 */
export const addressOf = (request: Request): string => {
  const key = process.env.DRYARC_FRONT_KEY ?? "";
  const given = request.headers.get("x-dryarc-front");
  if (key !== "" && given !== null && isSame(given, key)) return request.headers.get("x-dryarc-from") ?? "front";
  if (process.env.DRYARC_TRUSTED_PROXY === "yes") return request.headers.get("x-forwarded-for")?.split(",").pop()?.trim() ?? "proxy";
  return "direct";
};

/** Under this name a browser keeps the secret of a link that was shared with it. */
export const shareCookie = (): string => (isSecure() ? "__Host-dryarc.share" : "dryarc.share");

/** What takes that secret out of the browser again. */
export const shareCookieEnd = (): string =>
  `${shareCookie()}=; Path=/; HttpOnly; SameSite=Strict; Max-Age=0${isSecure() ? "; Secure" : ""}`;

/** The secret of a shared link that a request comes with. */
export const sharedSecret = (request: Request): string | null => {
  const found = (request.headers.get("cookie") ?? "").split(/;\s*/).find((c) => c.startsWith(`${shareCookie()}=`));
  const value = found?.slice(shareCookie().length + 1) ?? "";
  return /^[\w-]{22}$/.test(value) ? value : null;
};

/** However often it is used, a session ends after so long: who they are is shown anew. A phone's ends with its day. */
const LONGEST_MS = 30 * 86_400_000;

/** Requests of one token within a minute. */
const MOST_OF_TOKEN = 1200;
const TOKEN = new RegExp(`^Bearer ${TOKEN_START}([\\w-]{22})$`);

const byToken = async (request: Request, bearer: string): Promise<Asker | null> => {
  const secret = TOKEN.exec(bearer)?.[1];
  const who = secret === undefined ? null : await askerOfToken(doors(), hashOf(secret));
  if (who === null || who.tokenId === null) return null;
  await countTry(doors(), `token ${who.tokenId}`, MOST_OF_TOKEN, 60);
  await sawToken(doors(), who.tokenId, addressOf(request));
  return who;
};

/** Who asks, with all that is open to them; null when nobody does whom we know. */
export const whoAsks = async (request: Request): Promise<Asker | null> => {
  if (!signInIsOn()) return programFor((await firstOrganisation(doors())).id);
  const bearer = request.headers.get("authorization");
  // Whoever comes by a token comes by nothing else: one that opens nothing is not made good by a cookie.
  if (bearer !== null) return byToken(request, bearer);
  const held = await auth().api.getSession({ headers: request.headers });
  if (held === null) {
    const shared = sharedSecret(request);
    return shared === null ? null : askerOfShare(doors(), hashOf(shared));
  }
  const { id, userId } = held.session;
  const deviceId = (held.session as { deviceId?: string | null }).deviceId ?? null;
  if (deviceId === null && Date.now() - held.session.createdAt.getTime() > LONGEST_MS) return null;
  const who = await askerOf(doors(), { userId, sessionId: id, deviceId });
  if (who !== null && deviceId !== null) await sawDevice(doors(), deviceId, addressOf(request));
  return who;
};
