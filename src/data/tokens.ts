import { and, desc, eq, gt, isNull, sql } from "drizzle-orm";
import type { Role } from "../contract";
import type { Asker } from "./actor";
import { NotFound } from "./clash";
import type { Db } from "./client";
import { lesserRole } from "./people";
import { member, memberJob, token, user } from "./schema-people";

/* Tokens by which programs come in. */

export type TokenRow = typeof token.$inferSelect;

const MOST_LISTED = 100;

/** Who comes by a token, with what is open to it and to its member now; null when it opens nothing any more. */
export const askerOfToken = async (db: Db, tokenHash: string): Promise<Asker | null> => {
  const [found] = await db
    .select({ token, role: member.role, allJobs: member.allJobs, name: user.name })
    .from(token)
    .innerJoin(member, eq(member.id, token.memberId))
    .innerJoin(user, eq(user.id, member.userId))
    .where(and(eq(token.tokenHash, tokenHash), isNull(token.endedAt), gt(token.expiresAt, sql`now()`), isNull(member.endedAt)));
  if (found === undefined) return null;
  const { token: t } = found;
  const own = found.allJobs
    ? null
    : (await db.select({ id: memberJob.jobId }).from(memberJob).where(eq(memberJob.memberId, t.memberId))).map((r) => r.id);
  const role = lesserRole(found.role, t.role);
  // What a customer sees is chosen sheet by sheet, and a token names none.
  if (role === "customer") return null;
  return {
    personId: t.id,
    name: `${t.name} (token of ${found.name})`,
    memberId: null,
    organisationId: t.organisationId,
    role,
    jobIds: t.jobIds === null ? own : own === null ? t.jobIds : t.jobIds.filter((id) => own.includes(id)),
    sheets: null,
    deviceId: null,
    sessionId: null,
    shareId: null,
    tokenId: t.id,
    veil: null,
  };
};

/** Says that a token was used; a minute apart is near enough. */
export const sawToken = (db: Pick<Db, "execute">, tokenId: string, from: string): Promise<unknown> =>
  db.execute(sql`
    UPDATE auth.token SET last_used_at = now(), last_used_from = ${from}
    WHERE id = ${tokenId} AND (last_used_at IS NULL OR last_used_at < now() - interval '1 minute')`);

export const tokensOf = (db: Db, organisationId: string): Promise<(TokenRow & { person: string })[]> =>
  db
    .select({ token, person: user.name })
    .from(token)
    .innerJoin(member, eq(member.id, token.memberId))
    .innerJoin(user, eq(user.id, member.userId))
    .where(eq(token.organisationId, organisationId))
    .orderBy(desc(token.createdAt))
    .limit(MOST_LISTED)
    .then((rows) => rows.map((r) => ({ ...r.token, person: r.person })));

export const keepToken = async (
  db: Pick<Db, "insert">,
  t: {
    readonly organisationId: string;
    readonly memberId: string;
    readonly role: Role;
    readonly jobIds: string[] | null;
    readonly name: string;
    readonly tokenHash: string;
    readonly expiresAt: Date;
  },
): Promise<void> => {
  await db.insert(token).values(t);
};

/** Ends a token of a firm. @returns what it was for. @throws NotFound */
export const endTokenOf = async (db: Pick<Db, "update">, organisationId: string, id: string): Promise<string> => {
  const [row] = await db
    .update(token)
    .set({ endedAt: sql`coalesce(${token.endedAt}, now())` })
    .where(and(eq(token.id, id), eq(token.organisationId, organisationId)))
    .returning({ name: token.name });
  if (row === undefined) throw new NotFound("token");
  return row.name;
};
