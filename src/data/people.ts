import { and, asc, desc, eq, gt, inArray, isNull, sql } from "drizzle-orm";
import type { Role, SheetName } from "../contract";
import { type Asker, askerNow } from "./actor";
import type { Tx } from "./changes";
import { NotFound } from "./clash";
import type { Db } from "./client";
import { job, organisation } from "./schema";
import { account, audit, device, invitation, mail, member, memberJob, pairing, session, share, user } from "./schema-people";

/* Who there is, and what is open to whom. */

export type OrganisationRow = typeof organisation.$inferSelect;
export type MemberRow = typeof member.$inferSelect;
export type DeviceRow = typeof device.$inferSelect;
export type InvitationRow = typeof invitation.$inferSelect;
export type ShareRow = typeof share.$inferSelect;
export type PairingRow = typeof pairing.$inferSelect;

/** What somebody who comes in will be. */
export interface Becomes {
  readonly role: Role;
  /** Null: all jobs of the firm. */
  readonly jobIds: readonly string[] | null;
  readonly sheets: readonly SheetName[] | null;
}

/** The firm that whoever sits at this machine works for. */
export const firstOrganisation = async (db: Pick<Db, "select">): Promise<OrganisationRow> => {
  const [row] = await db.select().from(organisation).orderBy(asc(organisation.createdAt), asc(organisation.id)).limit(1);
  if (row === undefined) throw new NotFound("organisation");
  return row;
};

/** All firms, in the order they came. */
export const organisationsOf = (db: Pick<Db, "select">): Promise<OrganisationRow[]> =>
  db.select().from(organisation).orderBy(asc(organisation.createdAt), asc(organisation.id));

/** Makes a firm. @returns its id. */
export const newOrganisation = async (db: Pick<Db, "insert">, name: string): Promise<string> => {
  const [row] = await db.insert(organisation).values({ name }).returning({ id: organisation.id });
  return row!.id;
};

export const organisationById = async (db: Pick<Db, "select">, id: string): Promise<OrganisationRow> => {
  const [row] = await db.select().from(organisation).where(eq(organisation.id, id));
  if (row === undefined) throw new NotFound("organisation");
  return row;
};

export const renameOrganisation = (db: Pick<Db, "update">, id: string, name: string): Promise<unknown> =>
  db.update(organisation).set({ name, updatedAt: sql`now()` }).where(eq(organisation.id, id));

/** True while nobody can sign in: the first who comes becomes the owner. */
export const nobodyYet = async (db: Pick<Db, "select">): Promise<boolean> => {
  const [row] = await db.select({ id: member.id }).from(member).limit(1);
  return row === undefined;
};

/** What a person may do, as their membership and their phone say; null when nothing is open to them any more. */
export const askerOf = async (
  db: Db,
  who: { readonly userId: string; readonly sessionId: string; readonly deviceId: string | null },
): Promise<Asker | null> => {
  const r = await db.execute<{
    member_id: string;
    organisation_id: string;
    name: string;
    role: Role;
    all_jobs: boolean;
    sheets: SheetName[] | null;
    job_ids: string[];
    device_id: string | null;
    device_role: Role | null;
    device_jobs: string[] | null;
    device_sheets: SheetName[] | null;
  }>(sql`
    SELECT m.id AS member_id, m.organisation_id, u.name, m.role, m.all_jobs, m.sheets, d.id AS device_id, d.role AS device_role,
      d.job_ids AS device_jobs, d.sheets AS device_sheets,
      ARRAY(SELECT job_id::text FROM member_job WHERE member_id = m.id) AS job_ids
    FROM member m JOIN auth."user" u ON u.id = m.user_id
      LEFT JOIN auth.device d ON d.id = ${who.deviceId}::uuid AND d.member_id = m.id AND d.revoked_at IS NULL AND d.ends_at > now()
    WHERE m.user_id = ${who.userId} AND m.ended_at IS NULL
    ORDER BY m.created_at LIMIT 1`);
  const [m] = r.rows;
  if (m === undefined || (who.deviceId !== null && m.device_id === null)) return null;
  const own = m.all_jobs ? null : m.job_ids;
  const jobIds =
    who.deviceId === null || m.device_jobs === null ? own : own === null ? m.device_jobs : m.device_jobs.filter((id) => own.includes(id));
  // A phone has the rights it was given, and never more than its person.
  const role = m.device_role === null ? m.role : lesserRole(m.role, m.device_role);
  return {
    personId: who.userId,
    name: m.name,
    memberId: m.member_id,
    organisationId: m.organisation_id,
    role,
    jobIds,
    sheets: role === "customer" ? (m.device_sheets ?? m.sheets ?? []) : null,
    deviceId: who.deviceId,
    sessionId: who.sessionId,
    shareId: null,
    tokenId: null,
    veil: null,
  };
};

/** What a link that was shared opens; null when it opens nothing any more. */
export const askerOfShare = async (db: Pick<Db, "select">, tokenHash: string): Promise<Asker | null> => {
  const [s] = await db.select().from(share).where(openShare(tokenHash));
  if (s === undefined) return null;
  return {
    personId: s.id,
    name: s.name,
    memberId: null,
    organisationId: s.organisationId,
    role: "customer",
    jobIds: [s.jobId],
    sheets: s.sheets,
    deviceId: null,
    sessionId: null,
    shareId: s.id,
    tokenId: null,
    veil: s.identityOut ? s.told : null,
  };
};
const openShare = (tokenHash: string) => and(eq(share.tokenHash, tokenHash), isNull(share.endedAt), gt(share.expiresAt, sql`now()`));

/** Counts that a link was opened. @returns until when it opens; null when it does not. */
export const countShare = async (db: Pick<Db, "update">, tokenHash: string): Promise<ShareRow | null> => {
  const [row] = await db
    .update(share)
    .set({ opened: sql`${share.opened} + 1`, lastOpenedAt: sql`now()` })
    .where(openShare(tokenHash))
    .returning();
  return row ?? null;
};

export const sharesOf = (db: Pick<Db, "select">, jobId: string): Promise<ShareRow[]> =>
  db.select().from(share).where(eq(share.jobId, jobId)).orderBy(desc(share.createdAt)).limit(100);

/** From most to least that is open. */
const BY_POWER: readonly Role[] = ["owner", "planner", "installer", "viewer", "customer"];
export const lesserRole = (a: Role, b: Role): Role => (BY_POWER.indexOf(a) > BY_POWER.indexOf(b) ? a : b);

export interface MemberView {
  readonly id: string;
  readonly userId: string;
  readonly name: string;
  readonly email: string;
  readonly becomes: Becomes;
  readonly ended: boolean;
  readonly lastSeenAt: Date | null;
  readonly secondFactor: boolean;
}

/** People of a firm with what is open to each, in the order they came. */
export const membersOf = async (db: Db, organisationId: string): Promise<MemberView[]> => {
  const rows = await db
    .select({
      id: member.id,
      userId: member.userId,
      name: user.name,
      email: user.email,
      role: member.role,
      allJobs: member.allJobs,
      sheets: member.sheets,
      endedAt: member.endedAt,
      secondFactor: user.twoFactorEnabled,
      lastSeenAt: sql<string | null>`(SELECT max(s.updated_at)::text FROM auth.session s WHERE s.user_id = ${member.userId})`,
      jobIds: sql<string[]>`ARRAY(SELECT mj.job_id::text FROM member_job mj WHERE mj.member_id = ${member.id})`,
    })
    .from(member)
    .innerJoin(user, eq(user.id, member.userId))
    .where(eq(member.organisationId, organisationId))
    .orderBy(asc(member.createdAt), asc(member.id));
  return rows.map((r) => ({
    id: r.id,
    userId: r.userId,
    name: r.name,
    email: r.email,
    becomes: { role: r.role, jobIds: r.allJobs ? null : r.jobIds, sheets: r.sheets },
    ended: r.endedAt !== null,
    lastSeenAt: r.lastSeenAt === null ? null : new Date(r.lastSeenAt),
    secondFactor: r.secondFactor,
  }));
};

/** A member of one's own firm. @throws NotFound */
export const memberById = async (db: Pick<Db, "select">, id: string, lock = false): Promise<MemberRow> => {
  const query = db.select().from(member).where(eq(member.id, id));
  const [row] = await (lock ? query.for("update") : query);
  if (row === undefined || row.organisationId !== askerNow()?.organisationId) throw new NotFound("person");
  return row;
};

/** Keeps only jobs that are of the firm. */
export const jobsOfFirm = async (tx: Pick<Tx, "select">, organisationId: string, ids: readonly string[]): Promise<string[]> => {
  if (ids.length === 0) return [];
  const rows = await tx
    .select({ id: job.id })
    .from(job)
    .where(and(eq(job.organisationId, organisationId), inArray(job.id, [...ids]), isNull(job.deletedAt)));
  return rows.map((r) => r.id);
};

const setJobs = async (tx: Tx, memberId: string, jobIds: readonly string[] | null): Promise<void> => {
  await tx.delete(memberJob).where(eq(memberJob.memberId, memberId));
  if (jobIds !== null && jobIds.length > 0) await tx.insert(memberJob).values(jobIds.map((jobId) => ({ memberId, jobId })));
};

/** Makes a person with a password a member of a firm; somebody who is one elsewhere keeps their account. @returns the ids of both. */
export const addPerson = async (
  tx: Tx,
  p: Becomes & {
    readonly organisationId: string;
    readonly userId: string;
    readonly name: string;
    readonly email: string;
    readonly passwordHash: string;
  },
): Promise<{ memberId: string }> => {
  await tx.insert(user).values({ id: p.userId, name: p.name, email: p.email, emailVerified: true });
  await tx
    .insert(account)
    .values({ id: p.userId, accountId: p.userId, providerId: "credential", userId: p.userId, password: p.passwordHash });
  const [row] = await tx
    .insert(member)
    .values({
      organisationId: p.organisationId,
      userId: p.userId,
      role: p.role,
      allJobs: p.jobIds === null,
      sheets: p.sheets === null ? null : [...p.sheets],
    })
    .returning({ id: member.id });
  await setJobs(tx, row!.id, p.jobIds);
  return { memberId: row!.id };
};

export const changeMember = async (tx: Tx, memberId: string, to: Becomes, ended: boolean): Promise<void> => {
  await tx
    .update(member)
    .set({
      role: to.role,
      allJobs: to.jobIds === null,
      sheets: to.sheets === null ? null : [...to.sheets],
      endedAt: ended ? sql`coalesce(${member.endedAt}, now())` : null,
      updatedAt: sql`now()`,
    })
    .where(eq(member.id, memberId));
  await setJobs(tx, memberId, to.jobIds);
};

/** Owners of a firm that can come in. */
export const ownersOf = async (tx: Pick<Tx, "select">, organisationId: string): Promise<number> => {
  const rows = await tx
    .select({ id: member.id })
    .from(member)
    .where(and(eq(member.organisationId, organisationId), eq(member.role, "owner"), isNull(member.endedAt)))
    .orderBy(asc(member.id))
    .for("update");
  return rows.length;
};

/** True when somebody comes in with this address already. */
export const emailTaken = async (db: Pick<Db, "select">, email: string): Promise<boolean> =>
  (await db.select({ id: user.id }).from(user).where(eq(user.email, email))).length > 0;

/** Ends all sessions of a person. */
export const endSessions = (db: Pick<Db, "delete">, userId: string): Promise<unknown> =>
  db.delete(session).where(eq(session.userId, userId));

/**
 * Ends all that a member comes in by. Sessions of phones stay until each asks once more: they open nothing, and are what the phone
 * learns by that it must forget.
 */
export const endComing = async (tx: Pick<Tx, "delete" | "update">, of: Pick<MemberRow, "id" | "userId">): Promise<void> => {
  await tx
    .update(device)
    .set({ revokedAt: sql`now()` })
    .where(and(eq(device.memberId, of.id), isNull(device.revokedAt)));
  await tx.delete(session).where(and(eq(session.userId, of.userId), isNull(session.deviceId)));
};

export const invitationsOf = (db: Db, organisationId: string): Promise<InvitationRow[]> =>
  db
    .select()
    .from(invitation)
    .where(
      and(
        eq(invitation.organisationId, organisationId),
        isNull(invitation.usedAt),
        isNull(invitation.endedAt),
        gt(invitation.expiresAt, sql`now()`),
      ),
    )
    .orderBy(desc(invitation.createdAt));

/** An invitation that still opens, by what is kept of its secret. */
export const openInvitation = async (db: Pick<Db, "select">, tokenHash: string, lock = false): Promise<InvitationRow | null> => {
  const query = db
    .select()
    .from(invitation)
    .where(
      and(eq(invitation.tokenHash, tokenHash), isNull(invitation.usedAt), isNull(invitation.endedAt), gt(invitation.expiresAt, sql`now()`)),
    );
  const [row] = await (lock ? query.for("update") : query);
  return row ?? null;
};

/** Uses a pairing code up: whoever is first has it. */
export const usePairing = async (tx: Pick<Tx, "update">, codeHash: string): Promise<PairingRow | null> => {
  const [row] = await tx
    .update(pairing)
    .set({ usedAt: sql`now()` })
    .where(and(eq(pairing.codeHash, codeHash), isNull(pairing.usedAt), gt(pairing.expiresAt, sql`now()`)))
    .returning();
  return row ?? null;
};

export const devicesOf = (db: Db, organisationId: string): Promise<(DeviceRow & { person: string })[]> =>
  db
    .select({ device, person: user.name })
    .from(device)
    .innerJoin(member, eq(member.id, device.memberId))
    .innerJoin(user, eq(user.id, member.userId))
    .where(eq(device.organisationId, organisationId))
    .orderBy(desc(device.createdAt))
    .limit(200)
    .then((rows) => rows.map((r) => ({ ...r.device, person: r.person })));

/** Says that a phone was here; a minute apart is near enough. */
export const sawDevice = (db: Pick<Db, "execute">, deviceId: string, from: string): Promise<unknown> =>
  db.execute(sql`
    UPDATE auth.device SET last_seen_at = now(), last_seen_from = ${from}
    WHERE id = ${deviceId} AND (last_seen_at IS NULL OR last_seen_at < now() - interval '1 minute')`);

/** Writes into the book of who did what. What it holds is told to owners: no secret belongs in it. */
export const writeAudit = (
  db: Pick<Db, "insert">,
  what: string,
  more: {
    readonly organisationId?: string;
    readonly personId?: string;
    readonly personName?: string;
    readonly jobId?: string;
    readonly from?: string;
    readonly detail?: Readonly<Record<string, string | number | boolean>>;
  } = {},
): Promise<unknown> => {
  const who = askerNow();
  return db.insert(audit).values({
    what,
    organisationId: more.organisationId ?? who?.organisationId ?? null,
    personId: more.personId ?? who?.personId ?? null,
    personName: more.personName ?? who?.name ?? "",
    deviceId: who?.deviceId ?? null,
    jobId: more.jobId ?? null,
    detail: { ...more.detail },
    from: more.from ?? null,
  });
};

export const auditOf = (db: Db, organisationId: string, beforeId?: number): Promise<(typeof audit.$inferSelect)[]> =>
  db
    .select()
    .from(audit)
    .where(and(eq(audit.organisationId, organisationId), beforeId === undefined ? undefined : sql`${audit.id} < ${beforeId}`))
    .orderBy(desc(audit.id))
    .limit(100);

export const lettersOf = (db: Db, organisationId: string): Promise<(typeof mail.$inferSelect)[]> =>
  db.select().from(mail).where(eq(mail.organisationId, organisationId)).orderBy(desc(mail.createdAt)).limit(50);
