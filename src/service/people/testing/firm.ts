import { randomUUID } from "node:crypto";
import { mkdtempSync } from "node:fs";
import { tmpdir } from "node:os";
import path from "node:path";
import { letIn } from "../../../app/_server/come-in";
import type { Role, SheetName } from "../../../contract";
import type { Asker } from "../../../data/actor";
import type { Db } from "../../../data/client";
import { addPerson, askerOf } from "../../../data/people";
import { organisation } from "../../../data/schema";
import { hashPassword } from "../password-hash";
import { cookiesOf } from "./routes";

/* Firms and people for tests, with sign-in as a server that others reach has it. */

/** As a server that others reach is set up; cookies go over plain loopback here. */
export const signInOn = (): void => {
  process.env.DRYARC_SIGN_IN = "on";
  process.env.DRYARC_PLAIN_COOKIES = "test";
  process.env.DRYARC_KEYS = mkdtempSync(path.join(tmpdir(), "dry-arc-keys-"));
};

export const makeFirm = async (db: Db, name: string): Promise<string> => {
  const [row] = await db.insert(organisation).values({ name }).returning({ id: organisation.id });
  return row!.id;
};

export interface Person {
  readonly userId: string;
  readonly memberId: string;
  readonly email: string;
  readonly cookie: string;
  readonly who: Asker;
}

/** A person of a firm, signed in. Without a password of their own nothing else lets them in. */
export const makePerson = async (
  db: Db,
  organisationId: string,
  role: Role,
  more: {
    readonly jobIds?: readonly string[] | null;
    readonly sheets?: readonly SheetName[];
    readonly password?: string;
    readonly name?: string;
  } = {},
): Promise<Person> => {
  const userId = randomUUID();
  const email = `${role}-${userId.slice(0, 8)}@isles.example`;
  const passwordHash = more.password === undefined ? "" : await hashPassword(more.password);
  const { memberId } = await db.transaction((tx) =>
    addPerson(tx, {
      organisationId,
      userId,
      name: more.name ?? `${role} of the isles`,
      email,
      passwordHash,
      role,
      jobIds: more.jobIds ?? null,
      sheets: more.sheets ?? null,
    }),
  );
  return { userId, memberId, email, cookie: await cookieOf(userId), who: (await askerOf(db, { userId, sessionId: "", deviceId: null }))! };
};

/** A new session of somebody. */
export const cookieOf = async (userId: string): Promise<string> =>
  cookiesOf(await letIn(new Request("http://localhost:4610/", { method: "POST", headers: { host: "localhost:4610" } }), userId, "test"));
