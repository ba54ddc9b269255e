import { randomUUID } from "node:crypto";
import { drizzleAdapter } from "@better-auth/drizzle-adapter";
import { betterAuth } from "better-auth";
import { createAuthEndpoint } from "better-auth/api";
import { setSessionCookie } from "better-auth/cookies";
import { twoFactor } from "better-auth/plugins";
import { z } from "zod";
import type { Db } from "../../data/client";
import { account, session, twoFactor as twoFactorTable, user, verification } from "../../data/schema-people";
import { hashPassword, verifyPassword } from "./password-hash";
import { signInSecret } from "./secret-key";

/*
 * The sign-in library, set up once. Its own addresses are not open: our routes call it, one by one, with limits and checks of
 * their own before. A session is read from the database at each request: one that is ended is over at the next.
 */

const DAY_S = 86_400;
/** A session that is used goes on; unused it ends after so long. */
export const SESSION_DAYS = 7;
export const LEAST_PASSWORD = 12;
export const MOST_PASSWORD = 128;

/** Lets somebody in who has proved themselves otherwise: by a passkey, or a code for a phone. Never an address of its own. */
const letIn = () => ({
  id: "let-in",
  schema: { session: { fields: { deviceId: { type: "string" as const, required: false, input: false } } } },
  endpoints: {
    letIn: createAuthEndpoint(
      "/let-in",
      {
        method: "POST",
        body: z.object({ userId: z.uuid(), deviceId: z.uuid().nullable(), endsAt: z.date().nullable() }),
        metadata: { SERVER_ONLY: true as const },
      },
      async (ctx) => {
        const { userId, deviceId, endsAt } = ctx.body;
        const found = await ctx.context.internalAdapter.findUserById(userId);
        if (found === null) throw new Error("nobody of that id");
        const over = { deviceId, ...(endsAt === null ? {} : { expiresAt: endsAt }) };
        const made = await ctx.context.internalAdapter.createSession(userId, false, over, true);
        await setSessionCookie(ctx, { session: made, user: found });
        return { ok: true };
      },
    ),
  },
});

const make = (db: Db, secure: boolean) =>
  betterAuth({
    appName: "Dry Arc",
    // Addresses of its own are not served; links are made by our routes.
    baseURL: "https://localhost",
    secret: signInSecret(),
    telemetry: { enabled: false },
    database: drizzleAdapter(db, {
      provider: "pg",
      schema: { user, session, account, verification, twoFactor: twoFactorTable },
      transaction: true,
    }),
    emailAndPassword: {
      enabled: true,
      disableSignUp: true,
      minPasswordLength: LEAST_PASSWORD,
      maxPasswordLength: MOST_PASSWORD,
      password: { hash: hashPassword, verify: verifyPassword },
    },
    session: {
      expiresIn: SESSION_DAYS * DAY_S,
      updateAge: 600,
      cookieCache: { enabled: false },
      freshAge: DAY_S,
    },
    // Limits of ours are counted in the database, by account and by address of the socket.
    rateLimit: { enabled: false },
    plugins: [twoFactor({ issuer: "Dry Arc", backupCodeOptions: { amount: 10, length: 10 } }), letIn()],
    advanced: {
      // A cookie of this name is taken by a browser only over TLS, of this host alone, and for all of its addresses.
      cookiePrefix: secure ? "__Host-dryarc" : "dryarc",
      useSecureCookies: false,
      defaultCookieAttributes: { sameSite: "strict", httpOnly: true, secure },
      database: { generateId: () => randomUUID() },
      ipAddress: { disableIpTracking: true },
    },
    logger: { disabled: true },
  });

export type Auth = ReturnType<typeof make>;

const globals = globalThis as unknown as { dryArcAuth?: Auth };

/** @param secure cookies go over TLS alone: always, but for a test on plain loopback. */
export const authOf = (db: Db, secure: boolean): Auth => {
  globals.dryArcAuth ??= make(db, secure);
  return globals.dryArcAuth;
};
