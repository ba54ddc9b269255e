import { and, desc, eq, gt, isNull, or, sql } from "drizzle-orm";
import type { AccountDto } from "../../contract";
import { askerNow } from "../../data/actor";
import { NotFound, Refused } from "../../data/clash";
import type { Db } from "../../data/client";
import { writeAudit } from "../../data/people";
import { account, device, passkey, session, user } from "../../data/schema-people";

import { verifyPassword } from "./password-hash";

/* What a person sees and changes of themselves. */

/** The browser, in words that say which one it is; a header says what it likes, so little is made of it. */
const browserOf = (agent: string | null): string => {
  const a = agent ?? "";
  const on = /Android/.test(a)
    ? "Android"
    : /iPhone|iPad/.test(a)
      ? "iOS"
      : /Windows/.test(a)
        ? "Windows"
        : /Mac OS X/.test(a)
          ? "macOS"
          : /Linux/.test(a)
            ? "Linux"
            : "";
  const by = /Firefox\//.test(a)
    ? "Firefox"
    : /Edg\//.test(a)
      ? "Edge"
      : /Chrom(e|ium)\//.test(a)
        ? "Chromium"
        : /Safari\//.test(a)
          ? "Safari"
          : "a browser";
  return on === "" ? by : `${by} on ${on}`;
};

export const accountOf = async (db: Db, passkeysHere: boolean): Promise<AccountDto> => {
  const { personId, sessionId } = askerNow()!;
  if (personId === null) throw new NotFound("person");
  const [own] = await db.select().from(user).where(eq(user.id, personId));
  if (own === undefined) throw new NotFound("person");
  const sessions = await db
    .select({ session, phone: device.name })
    .from(session)
    .leftJoin(device, eq(device.id, session.deviceId))
    .where(
      and(
        eq(session.userId, personId),
        gt(session.expiresAt, sql`now()`),
        // A phone that was ended may still hold its session: it opens nothing.
        or(isNull(session.deviceId), and(isNull(device.revokedAt), gt(device.endsAt, sql`now()`))),
      ),
    )
    .orderBy(desc(session.updatedAt))
    .limit(50);
  const keys = await db.select().from(passkey).where(eq(passkey.userId, personId)).orderBy(passkey.createdAt);
  return {
    name: own.name,
    email: own.email,
    secondFactor: own.twoFactorEnabled,
    sessions: sessions.map(({ session: s, phone }) => ({
      id: s.id,
      own: s.id === sessionId,
      began: s.createdAt.toISOString(),
      lastUsed: s.updatedAt.toISOString(),
      browser: browserOf(s.userAgent),
      phone,
    })),
    passkeys: keys.map((k) => ({ id: k.id, name: k.name, made: k.createdAt.toISOString(), lastUsed: k.lastUsedAt?.toISOString() ?? null })),
    passkeysHere,
  };
};

/** Holds a password against one's own. @throws Refused "wrong-sign-in" */
export const provePassword = async (db: Db, password: string): Promise<void> => {
  const { personId } = askerNow()!;
  const [own] = await db
    .select({ hash: account.password })
    .from(account)
    .where(and(eq(account.userId, personId ?? ""), eq(account.providerId, "credential")));
  if (!(await verifyPassword({ hash: own?.hash ?? "", password }))) throw new Refused("wrong-sign-in", "password");
};

export const nameSelf = async (db: Db, name: string): Promise<void> => {
  const { personId } = askerNow()!;
  if (personId === null) throw new NotFound("person");
  await db.update(user).set({ name, updatedAt: new Date() }).where(eq(user.id, personId));
};

/** Ends one session of one's own: it is over at its next request. */
export const endOwnSession = async (db: Db, id: string): Promise<void> => {
  const rows = await db
    .delete(session)
    .where(and(eq(session.id, id), eq(session.userId, askerNow()!.personId ?? "00000000-0000-0000-0000-000000000000")))
    .returning({ id: session.id });
  if (rows.length === 0) throw new NotFound("session");
  await writeAudit(db, "session-ended", {});
};

/** When a phone comes in for the last time. */
export const deviceEnd = async (db: Db, deviceId: string): Promise<string | null> => {
  const [row] = await db.select({ endsAt: device.endsAt }).from(device).where(eq(device.id, deviceId));
  return row?.endsAt.toISOString() ?? null;
};
