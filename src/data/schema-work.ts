import { sql } from "drizzle-orm";
import { bigint, doublePrecision, index, integer, jsonb, pgTable, primaryKey, text, timestamp, uuid } from "drizzle-orm/pg-core";
import { id, job, link, ofOrganisation, stamps, version } from "./schema";

/* Files on their way in, what is worked out beside the requests, and what keeps a repeated edit harmless. */

/** A file on its way in; its bytes lie on disk under its id. */
export const upload = pgTable("upload", {
  id: id(),
  jobId: uuid("job_id").references(() => job.id),
  /** Whose it is while it belongs to no job. */
  organisationId: ofOrganisation(),
  /** Who sends it; null: whoever sits at this machine. */
  personId: uuid("person_id"),
  name: text().notNull(),
  sizeBytes: doublePrecision("size_bytes").notNull(),
  receivedBytes: doublePrecision("received_bytes").notNull().default(0),
  ...stamps(),
});

/** The taking in of one file: what was asked, how far it is, what came of it. */
export const fileImport = pgTable(
  "file_import",
  {
    id: id(),
    /** Null while a whole job is on its way in: it is not there yet. */
    jobId: uuid("job_id").references(() => job.id),
    organisationId: ofOrganisation(),
    uploadId: uuid("upload_id").references(() => upload.id),
    fileName: text("file_name").notNull(),
    /** terrain, sites, obstacles, features, bundle */
    what: text().notNull(),
    options: jsonb().notNull(),
    /** waiting, running, done, failed, stopped, removed */
    state: text().notNull().default("waiting"),
    doneShare: doublePrecision("done_share").notNull().default(0),
    /** Rows or cells kept and refused, with reasons by row. */
    result: jsonb(),
    fault: text(),
    /** How often its reader was ended from outside: of time, of memory, or by itself. */
    attempts: integer().notNull().default(0),
    /** The browser that asked for it: the whole of it is one edit of that one. */
    clientId: text("client_id"),
    personId: uuid("person_id"),
    personName: text("person_name"),
    version: version(),
    ...stamps(),
  },
  (t) => [index("file_import_job").on(t.jobId)],
);

/** Records of kinds that need no table of their own; what each holds is declared with its kind. */
export const record = pgTable(
  "record",
  {
    /** Of a kind that a job has one of, the job's own: several kinds share it. */
    id: uuid().notNull().default(sql`gen_random_uuid()`),
    kind: text().notNull(),
    jobId: uuid("job_id")
      .notNull()
      .references(() => job.id),
    /** The site or link it belongs to, where its kind has one. */
    parentId: uuid("parent_id"),
    doc: jsonb().notNull(),
    version: version(),
    ...stamps(),
  },
  (t) => [primaryKey({ columns: [t.id, t.kind] }), index("record_job").on(t.jobId, t.kind)],
);

/** A map of the user's own beneath the drawing. */
export const basemap = pgTable("basemap", {
  id: id(),
  jobId: uuid("job_id")
    .notNull()
    .references(() => job.id),
  kind: text().notNull(),
  name: text().notNull(),
  /** Address with {z}, {x}, {y} for kind xyz. */
  address: text(),
  uploadId: uuid("upload_id").references(() => upload.id),
  credit: text().notNull().default(""),
  version: version(),
  ...stamps(),
});

/** Edits that were made, by the number the browser gave them, each with what it was answered: a repeat finds it here. */
export const madeEdit = pgTable(
  "made_edit",
  {
    id: uuid().primaryKey(),
    organisationId: ofOrganisation(),
    answer: jsonb(),
    at: timestamp({ withTimezone: true }).notNull().defaultNow(),
  },
  (t) => [index("made_edit_at").on(t.at)],
);

/**
 * What a link comes to, kept. Triggers of the database raise "want" whenever something changes that the link rests on;
 * "have" is the want that the kept judgement was worked out for.
 */
export const linkVerdict = pgTable(
  "link_verdict",
  {
    linkId: uuid("link_id")
      .primaryKey()
      .references(() => link.id, { onDelete: "cascade" }),
    jobId: uuid("job_id")
      .notNull()
      .references(() => job.id),
    /** Whose it is: who works it out does so for that firm. */
    organisationId: ofOrganisation(),
    want: bigint({ mode: "number" }).notNull().default(1),
    have: bigint({ mode: "number" }).notNull().default(0),
    judgement: jsonb(),
    /** The program that worked it out: another may judge otherwise. */
    program: text().notNull().default(""),
    /** Some worker has it in hand until then. */
    claimedUntil: timestamp("claimed_until", { withTimezone: true }),
    /** Somebody waits for it. */
    askedAt: timestamp("asked_at", { withTimezone: true }),
  },
  (t) => [index("link_verdict_job").on(t.jobId), index("link_verdict_stale").on(t.askedAt).where(sql`have <> want`)],
);

/** Signs of life of the processes that do the long work. */
export const beat = pgTable("beat", {
  id: text().primaryKey(),
  at: timestamp({ withTimezone: true }).notNull().defaultNow(),
});
