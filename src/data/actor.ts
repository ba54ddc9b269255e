import { AsyncLocalStorage } from "node:async_hooks";
import { randomUUID } from "node:crypto";
import type { Role, SheetName } from "../contract";

/** Who works, for which firm, with what rights. */
export interface Asker {
  /** Null: whoever sits at this machine, or the program itself. */
  readonly personId: string | null;
  readonly name: string;
  readonly memberId: string | null;
  readonly organisationId: string;
  readonly role: Role;
  /** Jobs that are open to them; null: all of the firm. */
  readonly jobIds: readonly string[] | null;
  /** A customer's sheets; null for everybody else. */
  readonly sheets: readonly SheetName[] | null;
  readonly deviceId: string | null;
  readonly sessionId: string | null;
  /** Of somebody who came by a link that was shared: they have no account. */
  readonly shareId: string | null;
  /** Of a program that came by a token. */
  readonly tokenId: string | null;
  /** Of somebody who is not told who and where: marks of texts that they are told all the same. */
  readonly veil: readonly string[] | null;
}

/** The program at work for a firm. */
export const programFor = (organisationId: string): Asker => ({
  personId: null,
  name: "",
  memberId: null,
  organisationId,
  role: "owner",
  jobIds: null,
  sheets: null,
  deviceId: null,
  sessionId: null,
  shareId: null,
  tokenId: null,
  veil: null,
});

const asker = new AsyncLocalStorage<Asker>();

/** Runs work on behalf of somebody: what is not theirs is not there. */
export const asAsker = <T>(who: Asker, work: () => PromiseLike<T>): Promise<T> =>
  // Waited for inside: a query begins when it is waited for, and must begin on behalf of whoever asked.
  asker.run(who, async () => await work());

/** Who works; null: the program itself. */
export const askerNow = (): Asker | null => asker.getStore() ?? null;

/** Whose name stands under what is made now; nobody's where nobody signs in. */
export const signedNow = (): { readonly personId: string; readonly personName: string } | Record<string, never> => {
  const who = asker.getStore();
  return who === undefined || who.personId === null ? {} : { personId: who.personId, personName: who.name };
};

const held = new AsyncLocalStorage<string | null>();

/** Runs work on behalf of one browser (or of the queue, null): its edits carry that name in the log. */
export const asClient = <T>(clientId: string | null, work: () => Promise<T>): Promise<T> => held.run(clientId, work);

const group = new AsyncLocalStorage<string>();

/** Edits made inside belong together: they are taken back as one step. */
export const asOneStep = <T>(work: () => Promise<T>): Promise<T> =>
  group.getStore() === undefined ? group.run(randomUUID(), work) : work();

export const stepNow = (): string | null => group.getStore() ?? null;

export const clientNow = (): string | null => held.getStore() ?? null;

const named = new AsyncLocalStorage<string>();

/** Runs work on one job: rows of another are not there for it. */
export const inJob = <T>(jobId: string, work: () => Promise<T>): Promise<T> => named.run(jobId, work);

/** True when a row of this job may be touched by the work under way. */
export const mayTouch = (jobId: string): boolean => {
  const only = named.getStore();
  return only === undefined || only === jobId;
};

/** True when a job is one that whoever works may open. */
export const mayOpen = (job: { readonly id: string; readonly organisationId: string }): boolean => {
  const who = askerNow();
  return who === null || (job.organisationId === who.organisationId && (who.jobIds === null || who.jobIds.includes(job.id)));
};

const role = new AsyncLocalStorage<Role>();

/** Runs work with the rights of a role. */
export const asRole = <T>(as: Role, work: () => Promise<T>): Promise<T> => role.run(as, work);

/** The role of whoever works; the program itself is an owner. */
export const roleNow = (): Role => role.getStore() ?? askerNow()?.role ?? "owner";

export const sheetsNow = (): readonly SheetName[] | null => askerNow()?.sheets ?? null;
