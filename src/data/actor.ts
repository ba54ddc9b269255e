import { AsyncLocalStorage } from "node:async_hooks";
import { randomUUID } from "node:crypto";
import type { Role } from "../contract";

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

const role = new AsyncLocalStorage<Role>();

/** Runs work with the rights of a role. */
export const asRole = <T>(as: Role, work: () => Promise<T>): Promise<T> => role.run(as, work);

/** Who works: the owner, until people have accounts. */
export const roleNow = (): Role => role.getStore() ?? "owner";
