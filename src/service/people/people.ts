import { and, eq, isNull } from "drizzle-orm";
import type { AuditDto, BecomesDto, DeviceDto, LetterDto, PeopleDto } from "../../contract";
import { askerNow } from "../../data/actor";
import { Refused } from "../../data/clash";
import type { Db } from "../../data/client";
import {
  auditOf,
  type Becomes,
  changeMember,
  devicesOf,
  endComing,
  invitationsOf,
  lettersOf,
  memberById,
  membersOf,
  organisationById,
  ownersOf,
  renameOrganisation,
  writeAudit,
} from "../../data/people";
import { job } from "../../data/schema";
import { ownJobs } from "./bounds";
import { invitationDto } from "./come-in";
import { mailGoes } from "./letters";

/* The firm as its owner sees it. */

const becomesDto = (b: Becomes): BecomesDto => ({
  role: b.role,
  jobIds: b.jobIds === null ? null : [...b.jobIds],
  sheets: b.sheets === null ? null : [...b.sheets],
});
const iso = (d: Date | null): string | null => d?.toISOString() ?? null;

export const peopleOf = async (db: Db): Promise<PeopleDto> => {
  const who = askerNow()!;
  const [firm, people, invitations, devices] = await Promise.all([
    organisationById(db, who.organisationId),
    membersOf(db, who.organisationId),
    invitationsOf(db, who.organisationId),
    devicesOf(db, who.organisationId),
  ]);
  return {
    organisation: firm.name,
    mailGoes: mailGoes(),
    people: people.map((p) => ({
      id: p.id,
      name: p.name,
      email: p.email,
      becomes: becomesDto(p.becomes),
      ended: p.ended,
      lastSeenAt: iso(p.lastSeenAt),
      secondFactor: p.secondFactor,
      self: p.userId === who.personId,
    })),
    invitations: invitations.map(invitationDto),
    devices: devices.map(
      (d): DeviceDto => ({
        id: d.id,
        name: d.name,
        person: d.person,
        memberId: d.memberId,
        becomes: becomesDto({ role: d.role, jobIds: d.jobIds, sheets: d.sheets }),
        endsAt: d.endsAt.toISOString(),
        lastSeenAt: iso(d.lastSeenAt),
        lastSeenFrom: d.lastSeenFrom,
        revokedAt: iso(d.revokedAt),
        wipedAt: iso(d.wipedAt),
      }),
    ),
  };
};

export const renameFirm = async (db: Db, name: string): Promise<void> => {
  await renameOrganisation(db, askerNow()!.organisationId, name);
  await writeAudit(db, "firm-named", { detail: { name } });
};

/**
 * Says what is open to somebody, or ends their being of the firm: at their next request.
 * @throws Refused "last-owner" when nobody would be left who may do so.
 */
export const setMember = (db: Db, memberId: string, to: { readonly becomes: BecomesDto; readonly ended: boolean }): Promise<void> =>
  db.transaction(async (tx) => {
    const { organisationId } = askerNow()!;
    // Owners are locked first, all in one order: two who demote each other wait for each other, and leave one.
    const owners = await ownersOf(tx, organisationId);
    const of = await memberById(tx, memberId, true);
    const becomes = await ownJobs(tx, organisationId, to.becomes);
    const wasOwner = of.role === "owner" && of.endedAt === null;
    if (wasOwner && owners <= 1 && (to.ended || to.becomes.role !== "owner")) throw new Refused("last-owner", "role");
    await changeMember(tx, memberId, becomes, to.ended);
    if (to.ended) await endComing(tx, of);
    await writeAudit(tx, to.ended ? "member-ended" : "member-changed", { detail: { member: memberId, role: to.becomes.role } });
  });

export const auditLines = async (db: Db, before?: number): Promise<AuditDto[]> => {
  const { organisationId } = askerNow()!;
  const rows = await auditOf(db, organisationId, before);
  const jobs = await db
    .select({ id: job.id, name: job.name })
    .from(job)
    .where(and(eq(job.organisationId, organisationId), isNull(job.deletedAt)));
  const nameOf = new Map(jobs.map((j) => [j.id, j.name]));
  return rows.map((r) => ({
    id: r.id,
    at: r.at.toISOString(),
    person: r.personName,
    what: r.what,
    job: r.jobId === null ? null : (nameOf.get(r.jobId) ?? null),
    detail: r.detail,
    from: r.from,
  }));
};

export const letters = async (db: Db): Promise<LetterDto[]> =>
  (await lettersOf(db, askerNow()!.organisationId)).map((l) => ({
    id: l.id,
    at: l.createdAt.toISOString(),
    to: l.to,
    subject: l.subject,
    body: l.body,
    sent: l.sentAt !== null,
    fault: l.fault,
  }));
