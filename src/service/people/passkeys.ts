import {
  type AuthenticationResponseJSON,
  type AuthenticatorTransport,
  generateAuthenticationOptions,
  generateRegistrationOptions,
  type PublicKeyCredentialCreationOptionsJSON,
  type PublicKeyCredentialRequestOptionsJSON,
  type RegistrationResponseJSON,
  verifyAuthenticationResponse,
  verifyRegistrationResponse,
} from "@simplewebauthn/server";
import { and, eq, sql } from "drizzle-orm";
import { NotFound, Refused } from "../../data/clash";
import type { Db } from "../../data/client";
import { challenge, passkey, user } from "../../data/schema-people";

/* Passkeys (W3C Web Authentication): a key that stays on a person's own device. They belong to a name, never to a number. */

/** Where a passkey counts: the name of this server, and its pages' origin. */
export interface Place {
  readonly rpId: string;
  readonly origin: string;
}

const CHALLENGE_MS = 5 * 60_000;
const MOST_KEYS = 20;

/** True where passkeys can be: under a name. */
export const hasName = (rpId: string): boolean => !/^[\d.]+$|:/.test(rpId);

const refuseNumber = ({ rpId }: Place): void => {
  if (!hasName(rpId)) throw new Refused("no-passkeys-here", "address");
};

const keep = async (db: Db, value: string, userId: string | null): Promise<string> => {
  const [row] = await db
    .insert(challenge)
    .values({ challenge: value, userId, expiresAt: new Date(Date.now() + CHALLENGE_MS) })
    .returning({ id: challenge.id });
  return row!.id;
};

/** Takes a challenge: once. */
const take = async (db: Db, id: string, userId: string | null): Promise<string> => {
  const rows = await db
    .delete(challenge)
    .where(and(eq(challenge.id, id), userId === null ? sql`user_id IS NULL` : eq(challenge.userId, userId)))
    .returning();
  if (rows[0] === undefined || rows[0].expiresAt.getTime() < Date.now()) throw new Refused("wrong-code", "passkey");
  return rows[0].challenge;
};

export const beginKey = async (
  db: Db,
  userId: string,
  place: Place,
): Promise<{ id: string; options: PublicKeyCredentialCreationOptionsJSON }> => {
  refuseNumber(place);
  const [who] = await db.select().from(user).where(eq(user.id, userId));
  if (who === undefined) throw new NotFound("person");
  const there = await db.select({ id: passkey.id }).from(passkey).where(eq(passkey.userId, userId));
  if (there.length >= MOST_KEYS) throw new Refused("busy", "passkey");
  const options = await generateRegistrationOptions({
    rpName: "Dry Arc",
    rpID: place.rpId,
    userName: who.email,
    userDisplayName: who.name,
    userID: new TextEncoder().encode(userId),
    attestationType: "none",
    excludeCredentials: there.map((k) => ({ id: k.id })),
    authenticatorSelection: { residentKey: "required", userVerification: "required" },
  });
  return { id: await keep(db, options.challenge, userId), options };
};

export const keepKey = async (
  db: Db,
  userId: string,
  place: Place,
  given: { readonly id: string; readonly name: string; readonly response: RegistrationResponseJSON },
): Promise<void> => {
  const expectedChallenge = await take(db, given.id, userId);
  const done = await verifyRegistrationResponse({
    response: given.response,
    expectedChallenge,
    expectedOrigin: place.origin,
    expectedRPID: place.rpId,
    requireUserVerification: true,
  }).catch(() => null);
  if (done?.verified !== true) throw new Refused("wrong-code", "passkey");
  const { credential } = done.registrationInfo;
  await db.insert(passkey).values({
    id: credential.id,
    userId,
    name: given.name,
    publicKey: Buffer.from(credential.publicKey),
    counter: credential.counter,
    transports: [...(credential.transports ?? [])],
  });
};

export const forgetKey = async (db: Db, userId: string, id: string): Promise<void> => {
  const rows = await db
    .delete(passkey)
    .where(and(eq(passkey.id, id), eq(passkey.userId, userId)))
    .returning({ id: passkey.id });
  if (rows.length === 0) throw new NotFound("passkey");
};

export const beginKeySignIn = async (db: Db, place: Place): Promise<{ id: string; options: PublicKeyCredentialRequestOptionsJSON }> => {
  refuseNumber(place);
  const options = await generateAuthenticationOptions({ rpID: place.rpId, userVerification: "required" });
  return { id: await keep(db, options.challenge, null), options };
};

/** Who holds the key that signed. @throws Refused "wrong-sign-in": which part was wrong is nobody's business. */
export const keySignIn = async (
  db: Db,
  place: Place,
  given: { readonly id: string; readonly response: AuthenticationResponseJSON },
): Promise<{ userId: string }> => {
  const expectedChallenge = await take(db, given.id, null);
  const [key] = await db.select().from(passkey).where(eq(passkey.id, given.response.id));
  if (key === undefined) throw new Refused("wrong-sign-in", "passkey");
  const done = await verifyAuthenticationResponse({
    response: given.response,
    expectedChallenge,
    expectedOrigin: place.origin,
    expectedRPID: place.rpId,
    requireUserVerification: true,
    credential: {
      id: key.id,
      publicKey: new Uint8Array(key.publicKey),
      counter: key.counter,
      transports: key.transports as AuthenticatorTransport[],
    },
  }).catch(() => null);
  if (done?.verified !== true) throw new Refused("wrong-sign-in", "passkey");
  await db
    .update(passkey)
    .set({ counter: done.authenticationInfo.newCounter, lastUsedAt: sql`now()` as never })
    .where(eq(passkey.id, key.id));
  return { userId: key.userId };
};
