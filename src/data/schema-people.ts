import {
  bigserial,
  boolean,
  index,
  integer,
  jsonb,
  pgSchema,
  pgTable,
  primaryKey,
  text,
  timestamp,
  uniqueIndex,
  uuid,
} from "drizzle-orm/pg-core";
import type { Role, SheetName } from "../contract";
import { bytea } from "./columns";
import { id, job, organisation } from "./schema";

/* Who there is: firms, their people, and what lets a person or a phone in. What opens a door lies in a schema of its own. */

const time = (name: string) => timestamp(name, { withTimezone: true });
const made = () => time("created_at").notNull().defaultNow();
const changed = () => time("updated_at").notNull().defaultNow();

export const authSchema = pgSchema("auth");

/** Tables of the sign-in library, by the names of fields it asks for. */
export const user = authSchema.table("user", {
  id: uuid().primaryKey(),
  name: text().notNull(),
  email: text().notNull().unique(),
  emailVerified: boolean("email_verified").notNull().default(false),
  image: text(),
  twoFactorEnabled: boolean("two_factor_enabled").notNull().default(false),
  createdAt: made(),
  updatedAt: changed(),
});

const ofUser = () =>
  uuid("user_id")
    .notNull()
    .references(() => user.id, { onDelete: "cascade" });

export const session = authSchema.table(
  "session",
  {
    id: uuid().primaryKey(),
    token: text().notNull().unique(),
    userId: ofUser(),
    expiresAt: time("expires_at").notNull(),
    ipAddress: text("ip_address"),
    userAgent: text("user_agent"),
    /** Of a phone that was paired: it has that phone's rights and ends with it. */
    deviceId: uuid("device_id"),
    createdAt: made(),
    updatedAt: changed(),
  },
  (t) => [index("session_user").on(t.userId)],
);

export const account = authSchema.table(
  "account",
  {
    id: uuid().primaryKey(),
    accountId: text("account_id").notNull(),
    providerId: text("provider_id").notNull(),
    userId: ofUser(),
    accessToken: text("access_token"),
    refreshToken: text("refresh_token"),
    idToken: text("id_token"),
    accessTokenExpiresAt: time("access_token_expires_at"),
    refreshTokenExpiresAt: time("refresh_token_expires_at"),
    scope: text(),
    password: text(),
    createdAt: made(),
    updatedAt: changed(),
  },
  (t) => [index("account_user").on(t.userId)],
);

export const verification = authSchema.table(
  "verification",
  {
    id: uuid().primaryKey(),
    identifier: text().notNull(),
    value: text().notNull(),
    expiresAt: time("expires_at").notNull(),
    createdAt: made(),
    updatedAt: changed(),
  },
  (t) => [index("verification_identifier").on(t.identifier)],
);

export const twoFactor = authSchema.table(
  "two_factor",
  {
    id: uuid().primaryKey(),
    secret: text().notNull(),
    backupCodes: text("backup_codes").notNull(),
    userId: ofUser(),
    verified: boolean().notNull().default(true),
    failedVerificationCount: integer("failed_verification_count").notNull().default(0),
    lockedUntil: time("locked_until"),
  },
  (t) => [index("two_factor_user").on(t.userId)],
);

/** A key that a person's own device keeps; what is here opens nothing by itself. */
export const passkey = authSchema.table(
  "passkey",
  {
    /** The credential's own id, base64url. */
    id: text().primaryKey(),
    userId: ofUser(),
    name: text().notNull(),
    publicKey: bytea("public_key").notNull(),
    counter: integer().notNull(),
    transports: jsonb().$type<string[]>().notNull().default([]),
    lastUsedAt: time("last_used_at"),
    createdAt: made(),
  },
  (t) => [index("passkey_user").on(t.userId)],
);

/** What a passkey has to sign, once. */
export const challenge = authSchema.table("challenge", {
  id: id(),
  challenge: text().notNull(),
  /** Null while nobody knows who signs in. */
  userId: uuid("user_id"),
  expiresAt: time("expires_at").notNull(),
});

/** How often something was tried, by account and by address of the socket. */
export const tries = authSchema.table("tries", {
  key: text().primaryKey(),
  count: integer().notNull().default(0),
  since: time("since").notNull().defaultNow(),
});

/** A person in a firm, with what is open to them there. */
export const member = pgTable(
  "member",
  {
    id: id(),
    organisationId: uuid("organisation_id")
      .notNull()
      .references(() => organisation.id),
    userId: ofUser(),
    role: text().$type<Role>().notNull(),
    /** False: only the jobs named in member_job. */
    allJobs: boolean("all_jobs").notNull().default(true),
    /** A customer's sheets; null for everybody else. */
    sheets: jsonb().$type<SheetName[]>(),
    endedAt: time("ended_at"),
    createdAt: made(),
    updatedAt: changed(),
  },
  (t) => [uniqueIndex("member_once").on(t.organisationId, t.userId)],
);

export const memberJob = pgTable(
  "member_job",
  {
    memberId: uuid("member_id")
      .notNull()
      .references(() => member.id, { onDelete: "cascade" }),
    jobId: uuid("job_id")
      .notNull()
      .references(() => job.id),
  },
  (t) => [primaryKey({ columns: [t.memberId, t.jobId] })],
);

/** What somebody who comes in will be: of an invitation, or of a code for a phone. */
const becomes = () => ({
  role: text().$type<Role>().notNull(),
  /** Null: all jobs of the firm. */
  jobIds: jsonb("job_ids").$type<string[]>(),
  sheets: jsonb().$type<SheetName[]>(),
});

export const invitation = authSchema.table("invitation", {
  id: id(),
  organisationId: uuid("organisation_id")
    .notNull()
    .references(() => organisation.id),
  email: text().notNull(),
  ...becomes(),
  /** SHA-256 of the secret in the link. */
  tokenHash: text("token_hash").notNull().unique(),
  madeBy: uuid("made_by"),
  expiresAt: time("expires_at").notNull(),
  usedAt: time("used_at"),
  endedAt: time("ended_at"),
  createdAt: made(),
});

/** A code that lets one phone in, once, within minutes. */
export const pairing = authSchema.table("pairing", {
  id: id(),
  organisationId: uuid("organisation_id")
    .notNull()
    .references(() => organisation.id),
  memberId: uuid("member_id")
    .notNull()
    .references(() => member.id, { onDelete: "cascade" }),
  ...becomes(),
  codeHash: text("code_hash").notNull().unique(),
  deviceEndsAt: time("device_ends_at").notNull(),
  madeBy: uuid("made_by"),
  expiresAt: time("expires_at").notNull(),
  usedAt: time("used_at"),
  createdAt: made(),
});

export const device = authSchema.table(
  "device",
  {
    id: id(),
    organisationId: uuid("organisation_id")
      .notNull()
      .references(() => organisation.id),
    memberId: uuid("member_id")
      .notNull()
      .references(() => member.id, { onDelete: "cascade" }),
    ...becomes(),
    name: text().notNull(),
    endsAt: time("ends_at").notNull(),
    lastSeenAt: time("last_seen_at"),
    lastSeenFrom: text("last_seen_from"),
    revokedAt: time("revoked_at"),
    /** When it was told to forget what it keeps, and said that it has. */
    wipedAt: time("wiped_at"),
    createdAt: made(),
  },
  (t) => [index("device_member").on(t.memberId)],
);

/** A link by which somebody without an account reads chosen sheets of one job, until a day. */
export const share = authSchema.table(
  "share",
  {
    id: id(),
    organisationId: uuid("organisation_id")
      .notNull()
      .references(() => organisation.id),
    jobId: uuid("job_id")
      .notNull()
      .references(() => job.id, { onDelete: "cascade" }),
    sheets: jsonb().$type<SheetName[]>().notNull(),
    /** Who and where is left out. */
    identityOut: boolean("identity_out").notNull().default(false),
    /** Marks of texts that are told all the same. */
    told: jsonb().$type<string[]>().notNull().default([]),
    /** For whom it was made, in words. */
    name: text().notNull(),
    /** SHA-256 of the secret in the link. */
    tokenHash: text("token_hash").notNull().unique(),
    madeBy: uuid("made_by"),
    expiresAt: time("expires_at").notNull(),
    endedAt: time("ended_at"),
    /** How often it was opened, and when last. */
    opened: integer().notNull().default(0),
    lastOpenedAt: time("last_opened_at"),
    createdAt: made(),
  },
  (t) => [index("share_job").on(t.jobId)],
);

/** What lets a program in on behalf of a member, with a role and jobs, until a day. */
export const token = authSchema.table("token", {
  id: id(),
  organisationId: uuid("organisation_id")
    .notNull()
    .references(() => organisation.id),
  /** Whose: it is never more than they are, and ends with them. */
  memberId: uuid("member_id")
    .notNull()
    .references(() => member.id, { onDelete: "cascade" }),
  role: text().$type<Role>().notNull(),
  jobIds: jsonb("job_ids").$type<string[]>(),
  /** What it is for, in words. */
  name: text().notNull(),
  /** SHA-256 of it. */
  tokenHash: text("token_hash").notNull().unique(),
  expiresAt: time("expires_at").notNull(),
  endedAt: time("ended_at"),
  lastUsedAt: time("last_used_at"),
  lastUsedFrom: text("last_used_from"),
  createdAt: made(),
});

/** Who did what with people, phones and what leaves the house. Added to, never changed. */
export const audit = authSchema.table(
  "audit",
  {
    id: bigserial({ mode: "number" }).primaryKey(),
    organisationId: uuid("organisation_id").references(() => organisation.id),
    at: time("at").notNull().defaultNow(),
    personId: uuid("person_id"),
    /** Their name as it then was. */
    personName: text("person_name").notNull().default(""),
    deviceId: uuid("device_id"),
    what: text().notNull(),
    jobId: uuid("job_id"),
    detail: jsonb().$type<Record<string, string | number | boolean>>().notNull().default({}),
    from: text("from_address"),
  },
  (t) => [index("audit_organisation").on(t.organisationId, t.id)],
);

/** Which key seals what is sealed here: its mark, and nothing of the key. */
export const sealing = authSchema.table("sealing", {
  mark: text().primaryKey(),
  at: time("at").notNull().defaultNow(),
});

/** Letters the program wrote: sent where a mail server is named, and kept here to be read where there is none. */
export const mail = authSchema.table("mail", {
  id: id(),
  organisationId: uuid("organisation_id").references(() => organisation.id),
  to: text("to_address").notNull(),
  subject: text().notNull(),
  body: text().notNull(),
  sentAt: time("sent_at"),
  fault: text(),
  createdAt: made(),
});
