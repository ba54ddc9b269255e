import { randomUUID } from "node:crypto";
import { and, eq, isNull, type SQL, sql } from "drizzle-orm";
import type { BecomesDto, InvitationDto, MeDto } from "../../contract";
import { askerNow } from "../../data/actor";
import { NotFound, Refused } from "../../data/clash";
import type { Db } from "../../data/client";
import {
  addPerson,
  emailTaken,
  endSessions,
  firstOrganisation,
  type InvitationRow,
  jobsOfFirm,
  memberById,
  nobodyYet,
  openInvitation,
  organisationById,
  renameOrganisation,
  usePairing,
  writeAudit,
} from "../../data/people";
import { account, device, invitation, member, pairing, user, verification } from "../../data/schema-people";
import { DAY_MS, endOfDay, ownJobs } from "./bounds";
import { writeLetter } from "./letters";
import { hashPassword } from "./password-hash";
import { refuseWeak } from "./password-rules";
import { hashOf, newSecret } from "./secret-key";

/* The ways in: as the first owner, by an invitation, by a code for a phone, by a letter when the password is forgotten. */

const INVITATION_DAYS = 7;
const PAIRING_MS = 5 * 60_000;
const RESET_MS = 30 * 60_000;
/** A phone comes in until the visit and a week beyond. */
const DEVICE_DAYS = 7;

/** One at a time: two who come first at once are two tries, and one owner. */
const FIRST_LOCK = 4614;

/** Makes the first owner, of the firm that everything made before belongs to. @throws Refused "link-used" when there is one already. */
export const makeFirstOwner = async (
  db: Db,
  p: { readonly organisation: string; readonly name: string; readonly email: string; readonly password: string },
): Promise<{ userId: string }> => {
  refuseWeak(p.password, [p.name, p.email.split("@")[0] ?? "", p.organisation]);
  const passwordHash = await hashPassword(p.password);
  const userId = randomUUID();
  await db.transaction(async (tx) => {
    await tx.execute(sql`SELECT pg_advisory_xact_lock(${FIRST_LOCK})`);
    if (!(await nobodyYet(tx))) throw new Refused("link-used", "code");
    const firm = await firstOrganisation(tx);
    await renameOrganisation(tx, firm.id, p.organisation);
    await addPerson(tx, {
      organisationId: firm.id,
      userId,
      name: p.name,
      email: p.email,
      passwordHash,
      role: "owner",
      jobIds: null,
      sheets: null,
    });
    await writeAudit(tx, "first-owner", { organisationId: firm.id, personId: userId, personName: p.name });
  });
  return { userId };
};

export const invitationDto = (row: InvitationRow): InvitationDto => ({
  id: row.id,
  email: row.email,
  becomes: { role: row.role, jobIds: row.jobIds, sheets: row.sheets },
  expiresAt: row.expiresAt.toISOString(),
});

/**
 * Invites somebody by letter. @param origin the address of this server, as they will reach it.
 * @returns the link too: it is told once, to who invites. "sent" is false when the letter could not go.
 */
export const invite = async (
  db: Db,
  p: { readonly email: string; readonly becomes: BecomesDto },
  origin: string,
): Promise<{ url: string; expiresAt: string; sent: boolean }> => {
  const who = askerNow()!;
  if (await emailTaken(db, p.email)) throw new Refused("name-taken", "email");
  const b = await ownJobs(db, who.organisationId, p.becomes);
  const token = newSecret();
  const expiresAt = new Date(Date.now() + INVITATION_DAYS * DAY_MS);
  const url = `${origin}/join#${token}`;
  await db.transaction(async (tx) => {
    // An older one for the same address opens no longer.
    await tx
      .update(invitation)
      .set({ endedAt: sql`now()` })
      .where(and(eq(invitation.organisationId, who.organisationId), eq(invitation.email, p.email), sql`used_at IS NULL`));
    await tx
      .insert(invitation)
      .values({ organisationId: who.organisationId, email: p.email, ...b, tokenHash: hashOf(token), madeBy: who.personId, expiresAt });
    await writeAudit(tx, "invited", { detail: { email: p.email, role: b.role } });
  });
  const firm = await organisationById(db, who.organisationId);
  const sent = await writeLetter(db, {
    organisationId: who.organisationId,
    to: p.email,
    subject: `${who.name} invites you to ${firm.name} in Dry Arc`,
    body: `${who.name} of ${firm.name} invites you to Dry Arc, as ${b.role}.\n\nOpen this link within ${INVITATION_DAYS} days, and choose a password:\n${url}\n\nIt works once. If you do not know ${who.name}, leave it.\n`,
  });
  return { url, expiresAt: expiresAt.toISOString(), sent };
};

export const endInvitation = async (db: Db, id: string): Promise<void> => {
  const rows = await db
    .update(invitation)
    .set({ endedAt: sql`now()` })
    .where(and(eq(invitation.id, id), eq(invitation.organisationId, askerNow()!.organisationId)))
    .returning({ email: invitation.email });
  if (rows[0] === undefined) throw new NotFound("invitation");
  await writeAudit(db, "invitation-ended", { detail: { email: rows[0].email } });
};

/** For whom an invitation is. @throws Refused "link-used" when it opens no longer. */
export const lookAtInvitation = async (db: Db, token: string): Promise<{ email: string; organisation: string; role: string }> => {
  const row = await openInvitation(db, hashOf(token));
  if (row === null) throw new Refused("link-used", "token");
  return { email: row.email, organisation: (await organisationById(db, row.organisationId)).name, role: row.role };
};

/** Uses an invitation: once. @returns who came in. */
export const acceptInvitation = async (
  db: Db,
  p: { readonly token: string; readonly name: string; readonly password: string },
): Promise<{ userId: string }> => {
  const seen = await openInvitation(db, hashOf(p.token));
  if (seen === null) throw new Refused("link-used", "token");
  refuseWeak(p.password, [p.name, seen.email.split("@")[0] ?? ""]);
  const passwordHash = await hashPassword(p.password);
  const userId = randomUUID();
  await db.transaction(async (tx) => {
    const row = await openInvitation(tx, hashOf(p.token), true);
    if (row === null) throw new Refused("link-used", "token");
    if (await emailTaken(tx, row.email)) throw new Refused("name-taken", "email");
    const jobIds = row.jobIds === null ? null : await jobsOfFirm(tx, row.organisationId, row.jobIds);
    await addPerson(tx, {
      organisationId: row.organisationId,
      userId,
      name: p.name,
      email: row.email,
      passwordHash,
      role: row.role,
      jobIds,
      sheets: row.sheets,
    });
    await tx.update(invitation).set({ usedAt: sql`now()` }).where(eq(invitation.id, row.id));
    await writeAudit(tx, "joined", {
      organisationId: row.organisationId,
      personId: userId,
      personName: p.name,
      detail: { role: row.role },
    });
  });
  return { userId };
};

/** Makes a code that lets one phone of a person in: once, within five minutes. */
export const makePairing = async (
  db: Db,
  p: { readonly memberId: string; readonly becomes: BecomesDto | null; readonly endsOn: string | null },
  origin: string,
): Promise<{ url: string; expiresAt: string; deviceEndsAt: string }> => {
  const who = askerNow()!;
  const of = await memberById(db, p.memberId);
  if (of.endedAt !== null) throw new NotFound("person");
  const b: BecomesDto =
    p.becomes === null ? { role: of.role, jobIds: null, sheets: of.sheets } : await ownJobs(db, who.organisationId, p.becomes);
  const deviceEndsAt = p.endsOn === null ? new Date(Date.now() + DEVICE_DAYS * DAY_MS) : endOfDay(p.endsOn, "a phone");
  const code = newSecret();
  const expiresAt = new Date(Date.now() + PAIRING_MS);
  await db.insert(pairing).values({
    organisationId: who.organisationId,
    memberId: of.id,
    ...b,
    codeHash: hashOf(code),
    deviceEndsAt,
    madeBy: who.personId,
    expiresAt,
  });
  await writeAudit(db, "phone-code", { detail: { role: b.role, endsAt: deviceEndsAt.toISOString() } });
  return { url: `${origin}/pair#${code}`, expiresAt: expiresAt.toISOString(), deviceEndsAt: deviceEndsAt.toISOString() };
};

/** Uses a code for a phone up. @returns the phone, and whose it is. @throws Refused "link-used" for one that is none, used or over. */
export const pairPhone = async (
  db: Db,
  p: { readonly code: string; readonly name: string; readonly from: string },
): Promise<{ userId: string; deviceId: string; endsAt: Date }> => {
  const done = await db.transaction(async (tx) => {
    const row = await usePairing(tx, hashOf(p.code));
    if (row === null) return null;
    const [of] = await tx.select().from(member).where(eq(member.id, row.memberId));
    if (of === undefined || of.endedAt !== null) return null;
    const [made] = await tx
      .insert(device)
      .values({
        organisationId: row.organisationId,
        memberId: row.memberId,
        role: row.role,
        jobIds: row.jobIds,
        sheets: row.sheets,
        name: p.name,
        endsAt: row.deviceEndsAt,
        lastSeenAt: sql`now()` as never,
        lastSeenFrom: p.from,
      })
      .returning({ id: device.id });
    const [person] = await tx.select({ name: user.name }).from(user).where(eq(user.id, of.userId));
    await writeAudit(tx, "phone-paired", {
      organisationId: row.organisationId,
      personId: of.userId,
      personName: person?.name ?? "",
      from: p.from,
      detail: { phone: p.name },
    });
    return { userId: of.userId, deviceId: made!.id, endsAt: row.deviceEndsAt };
  });
  if (done === null) throw new Refused("link-used", "code");
  return done;
};

/** Ends a phone: it comes in no more, and is told to forget what it keeps when it next asks. */
export const revokePhone = async (db: Db, id: string): Promise<void> => {
  const rows = await db
    .update(device)
    .set({ revokedAt: sql`coalesce(${device.revokedAt}, now())` })
    .where(and(eq(device.id, id), eq(device.organisationId, askerNow()!.organisationId)))
    .returning();
  if (rows[0] === undefined) throw new NotFound("phone");
  // Its session stays until it asks once more: it opens nothing, and is what the phone learns by that it must forget.
  await writeAudit(db, "phone-ended", { detail: { phone: rows[0].name } });
};

type Meant = { readonly id: string; readonly name: string; readonly organisationId: string };

/** Who is meant, if it is anybody of a firm. */
const whoIs = async (db: Db, meant: SQL): Promise<Meant | undefined> => {
  const [row] = await db
    .select({ id: user.id, name: user.name, organisationId: member.organisationId })
    .from(user)
    .innerJoin(member, eq(member.userId, user.id))
    .where(and(meant, isNull(member.endedAt)));
  return row;
};

/** Who comes in with an address, if anybody does. */
const whoHas = (db: Db, email: string): Promise<Meant | undefined> => whoIs(db, eq(user.email, email));

const writeRefused = async (db: Db, what: "sign-in-refused" | "code-refused", row: Meant | undefined, from: string): Promise<void> => {
  if (row !== undefined) await writeAudit(db, what, { organisationId: row.organisationId, personId: row.id, personName: row.name, from });
};

/** Writes into the book that somebody was refused who gave the name of one of the firm. */
export const noteRefused = async (db: Db, email: string, from: string): Promise<void> =>
  writeRefused(db, "sign-in-refused", await whoHas(db, email), from);

/**
 * Writes into the book that a code of the second step was refused: whoever gave it knew the password.
 * @param mark what the first step left with the browser, by which the database knows whose it was.
 */
export const noteWrongCode = async (db: Db, mark: string, from: string): Promise<void> => {
  const meant = sql`${user.id}::text IN (SELECT value FROM auth.verification WHERE identifier = ${mark} AND expires_at > now())`;
  await writeRefused(db, "code-refused", await whoIs(db, meant), from);
};

/** Writes a letter with a way back in, to who has an account; whoever asks learns nothing. */
export const forgotPassword = async (db: Db, email: string, origin: string): Promise<void> => {
  const row = await whoHas(db, email);
  if (row === undefined) return;
  const token = newSecret();
  await db.delete(verification).where(and(eq(verification.value, row.id), sql`identifier LIKE 'reset:%'`));
  await db
    .insert(verification)
    .values({ id: randomUUID(), identifier: `reset:${hashOf(token)}`, value: row.id, expiresAt: new Date(Date.now() + RESET_MS) });
  await writeLetter(db, {
    organisationId: row.organisationId,
    to: email,
    subject: "A new password for Dry Arc",
    body: `Somebody asked for a new password for ${email}.\n\nIf it was you, open this link within 30 minutes:\n${origin}/new-password#${token}\n\nIf not, leave it: nothing has changed.\n`,
  });
};

/** Sets a new password by such a letter: once; all sessions end. */
export const resetPassword = async (db: Db, token: string, password: string): Promise<void> => {
  const identifier = `reset:${hashOf(token)}`;
  const [seen] = await db.select().from(verification).where(eq(verification.identifier, identifier));
  const [of] = seen === undefined ? [] : await db.select().from(user).where(eq(user.id, seen.value));
  if (seen === undefined || of === undefined || seen.expiresAt.getTime() < Date.now()) throw new Refused("link-used", "token");
  refuseWeak(password, [of.name, of.email.split("@")[0] ?? ""]);
  const hash = await hashPassword(password);
  await db.transaction(async (tx) => {
    const used = await tx.delete(verification).where(eq(verification.identifier, identifier)).returning({ id: verification.id });
    if (used.length === 0) throw new Refused("link-used", "token");
    await tx
      .update(account)
      .set({ password: hash, updatedAt: new Date() })
      .where(and(eq(account.userId, of.id), eq(account.providerId, "credential")));
    await endSessions(tx, of.id);
    const [m] = await tx.select().from(member).where(eq(member.userId, of.id));
    await writeAudit(tx, "password-by-letter", {
      ...(m === undefined ? {} : { organisationId: m.organisationId }),
      personId: of.id,
      personName: of.name,
    });
  });
};

/**
 * What a phone must forget: all, when it was ended; what it keeps of the server, when only its time is over. Readings that wait on a
 * phone whose time is over are its person's own: they go when it is let in anew.
 */
export const mustForget = async (db: Db, deviceId: string): Promise<MeDto["forget"]> => {
  const [row] = await db.select().from(device).where(eq(device.id, deviceId));
  if (row === undefined || row.revokedAt !== null) return "all";
  return row.endsAt.getTime() < Date.now() ? "copies" : null;
};

/** A phone says that it has forgotten what it kept; its session is over. */
export const hasForgotten = async (db: Db, deviceId: string): Promise<void> => {
  const rows = await db
    .update(device)
    .set({ wipedAt: sql`now()` })
    .where(and(eq(device.id, deviceId), sql`(${device.revokedAt} IS NOT NULL OR ${device.endsAt} < now())`))
    .returning();
  await db.execute(sql`DELETE FROM auth.session WHERE device_id = ${deviceId}`);
  if (rows[0] !== undefined)
    await writeAudit(db, "phone-forgot", { organisationId: rows[0].organisationId, detail: { phone: rows[0].name } });
};
