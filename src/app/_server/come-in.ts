import { eq } from "drizzle-orm";
import { askerNow } from "@/data/actor";
import { Refused } from "@/data/clash";
import { askerOf, writeAudit } from "@/data/people";
import { session } from "@/data/schema-people";
import { countTry } from "@/data/tries";
import { hasName, type Place } from "@/service/people/passkeys";
import { doors } from "./db";
import { addressOf, auth, signInIsOn } from "./who";

/* What the ways in have in common: limits counted beforehand, cookies carried over, a new session for each coming in. */

const WITHIN_S = 900;
/** Tries within a quarter of an hour: at one account, and from one address whatever the account. */
export const MOST_AT_ACCOUNT = 10;
export const MOST_FROM_ADDRESS = 60;

/** There is nobody to sign in where whoever sits at this machine is the owner. @throws Refused */
export const needSignIn = (): void => {
  if (!signInIsOn()) throw new Refused("not-allowed", "sign-in");
};

/** A phone that was let in, a link or a token changes nothing of its person's account: whoever finds it must not either. @throws Refused */
export const needOwnSignIn = (): void => {
  needSignIn();
  const who = askerNow();
  if (who?.deviceId !== null || who.shareId !== null || who.tokenId !== null) throw new Refused("not-allowed", "phone");
};

/** Counts a try to come in, before it is made. Outside any transaction: one that fails counts too. */
export const countComing = async (request: Request, account: string | null): Promise<void> => {
  await countTry(doors(), `come-in from ${addressOf(request)}`, MOST_FROM_ADDRESS, WITHIN_S);
  if (account !== null) await countTry(doors(), accountKey(account), MOST_AT_ACCOUNT, WITHIN_S);
};
export const accountKey = (account: string): string => `come-in at ${account}`;

/** An answer with the cookies of another. */
export const withCookies = (body: unknown, from: Response): Response => {
  const answer = Response.json(body, { headers: { "cache-control": "no-store" } });
  for (const cookie of from.headers.getSetCookie()) answer.headers.append("set-cookie", cookie);
  return answer;
};

/** Ends the session that a request comes with: whoever comes in gets a new one. */
const endHeld = async (request: Request): Promise<void> => {
  const held = await auth().api.getSession({ headers: request.headers });
  if (held !== null) await doors().delete(session).where(eq(session.id, held.session.id));
};

/** What the library answers when somebody came in by it. */
interface CameIn {
  readonly token: string;
  readonly user: { readonly id: string };
}

/** Completes a coming in that the library has checked: nothing is open to who is no longer of the firm. */
export const settle = async (request: Request, answer: Response, how: string): Promise<Response> => {
  const { token, user } = (await answer.clone().json()) as CameIn;
  const who = await askerOf(doors(), { userId: user.id, sessionId: "", deviceId: null });
  if (who === null) {
    await doors().delete(session).where(eq(session.token, token));
    throw new Refused("wrong-sign-in", "password");
  }
  await endHeld(request);
  await told(request, who.organisationId, user.id, who.name, how);
  return withCookies({ ok: true }, answer);
};

const told = (request: Request, organisationId: string, personId: string, personName: string, how: string): Promise<unknown> =>
  writeAudit(doors(), "signed-in", { organisationId, personId, personName, from: addressOf(request), detail: { how } });

/** Lets somebody in who has proved who they are. @param device of a phone that was just paired. @throws Refused when nothing is open to them. */
export const letIn = async (
  request: Request,
  userId: string,
  how: string,
  device: { readonly id: string; readonly endsAt: Date } | null = null,
): Promise<Response> => {
  await endHeld(request);
  const who = await askerOf(doors(), { userId, sessionId: "", deviceId: device?.id ?? null });
  if (who === null) throw new Refused("wrong-sign-in", "sign-in");
  const made = await auth().api.letIn({
    body: { userId, deviceId: device?.id ?? null, endsAt: device?.endsAt ?? null },
    headers: request.headers,
    asResponse: true,
  });
  await told(request, who.organisationId, userId, who.name, how);
  return withCookies({ ok: true }, made);
};

/** The name of this server as the page has it, and its origin. The name was held against those that are ours. */
export const placeOf = (request: Request): Place => {
  const host = request.headers.get("host") ?? "localhost";
  const rpId = new URL(`http://${host}`).hostname;
  return { rpId, origin: `${process.env.DRYARC_PLAIN_COOKIES === "test" ? "http" : "https"}://${host}` };
};

/** The address that goes into letters and codes: the one that stays, where the server was told it. */
export const originOf = (request: Request): string => process.env.DRYARC_ORIGIN ?? placeOf(request).origin;

export const passkeysHere = (request: Request): boolean => hasName(placeOf(request).rpId);
