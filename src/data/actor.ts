import { AsyncLocalStorage } from "node:async_hooks";

const held = new AsyncLocalStorage<string | null>();

/** Runs work on behalf of one browser (or of the queue, null): its edits carry that name in the log. */
export const asClient = <T>(clientId: string | null, work: () => Promise<T>): Promise<T> => held.run(clientId, work);

export const clientNow = (): string | null => held.getStore() ?? null;
