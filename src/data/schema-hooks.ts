import { bigint, index, integer, jsonb, pgTable, primaryKey, text, timestamp, uuid } from "drizzle-orm/pg-core";
import { id, ofOrganisation } from "./schema";

/* Addresses of other programs that are told when something changes, and what they are still to be told. */

const time = (name: string) => timestamp(name, { withTimezone: true });

export const webhook = pgTable("webhook", {
  id: id(),
  organisationId: ofOrganisation(),
  /** What it is for, in words. */
  name: text().notNull(),
  url: text().notNull(),
  /** Null: all jobs of the firm. */
  jobIds: jsonb("job_ids").$type<string[]>(),
  /** What calls are signed by, sealed. */
  secret: text().notNull(),
  endedAt: time("ended_at"),
  /** Calls that failed, one after the other, up to now. */
  failures: integer().notNull().default(0),
  /** Not called again before. */
  nextAt: time("next_at").notNull().defaultNow(),
  /** Given up until somebody says otherwise. */
  pausedAt: time("paused_at"),
  /** Some process is calling it until then. */
  claimedUntil: time("claimed_until"),
  lastOkAt: time("last_ok_at"),
  /** What came of the last call: a status, or why nothing came. */
  lastAnswer: text("last_answer").notNull().default(""),
  /** Changes that grew too old before anybody took them. */
  dropped: integer().notNull().default(0),
  createdAt: time("created_at").notNull().defaultNow(),
});

/** A change that is still to be told to an address: written with the change itself, taken away when it was taken. */
export const webhookDue = pgTable(
  "webhook_due",
  {
    webhookId: uuid("webhook_id")
      .notNull()
      .references(() => webhook.id, { onDelete: "cascade" }),
    organisationId: ofOrganisation(),
    changeId: bigint("change_id", { mode: "number" }).notNull(),
    /** The call it is told in, once that was tried: it is the same at each try. */
    callId: uuid("call_id"),
    at: time("at").notNull().defaultNow(),
  },
  (t) => [primaryKey({ columns: [t.webhookId, t.changeId] }), index("webhook_due_at").on(t.at)],
);
