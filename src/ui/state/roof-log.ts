import type { DBSchema, IDBPDatabase } from "idb";
import type { ErrorBody } from "@/contract";
import type { RoofEntry } from "@/core/roof";
import { ApiError, mayWait } from "../api/client";
import type { Edit } from "./outbox";

/*
 * The log of a roof in this browser: an entry is written down here first, and counts only once the disk has it. It goes to the
 * server when there is one; its id is made here, so one that is sent twice is one. What was sent stays until the server tells it.
 */

export interface Logged {
  readonly id: string;
  readonly jobId: string;
  readonly linkId: string;
  readonly entry: RoofEntry;
  /** Who wrote it; nobody, where nobody signs in. */
  readonly person: string | null;
  readonly sent: boolean;
  /** Why the server did not take it. */
  readonly refused: ErrorBody | null;
}

/** What this browser knows of itself and of who holds it: it lies with the entries, for other storage may not yet be on the disk when a phone dies. */
export interface RoofSelf {
  readonly name: string;
  /** This browser, by a number that it gave itself. */
  readonly phone: string;
  /** How far its clock was ahead of the server's when they last met; null: they never did. */
  readonly aheadS: number | null;
}

export interface RoofSchema extends DBSchema {
  readonly entry: { key: string; value: Logged };
  readonly self: { key: string; value: RoofSelf };
}

const SELF = "self";
export const readSelf = async (db: IDBPDatabase<RoofSchema>): Promise<RoofSelf | undefined> => db.get("self", SELF);
export const writeSelf = async (db: IDBPDatabase<RoofSchema>, self: RoofSelf): Promise<void> => {
  const tx = db.transaction("self", "readwrite", { durability: "strict" });
  await tx.store.put(self, SELF);
  await tx.done;
};

export interface RoofLogParts {
  readonly open: () => Promise<IDBPDatabase<RoofSchema>>;
  readonly post: (logged: Logged) => Promise<unknown>;
  readonly isOwn: (logged: Logged) => boolean;
  /** One window at a time sends. */
  readonly alone: (work: () => Promise<void>) => Promise<void>;
  readonly later: (ms: number, work: () => void) => void;
  /** What waits, by a list that lies elsewhere than the entries: if they are gone and it is not, they were taken away. */
  readonly waiting: { readonly read: () => readonly string[]; readonly write: (ids: readonly string[]) => void };
}

export interface RoofLog {
  readonly entries: () => readonly Logged[];
  readonly subscribe: (listener: () => void) => () => void;
  /** Ends once the disk has it. @throws when this browser keeps nothing. */
  readonly add: (logged: Pick<Logged, "id" | "jobId" | "linkId" | "entry" | "person">) => Promise<void>;
  /** Reads what lies here, and sends what can go. */
  readonly send: () => Promise<void>;
  /** Reads what lies here. */
  readonly look: () => Promise<void>;
  /** Lets go of what the server tells itself. */
  readonly known: (ids: ReadonlySet<string>) => Promise<void>;
  /** Entries that waited here and are gone. The list may be a little older than they are: what the server has is not missing. */
  readonly missing: () => readonly string[];
}

const RETRY_MS = 4000;
const same = (a: readonly Logged[], b: readonly Logged[]): boolean =>
  a.length === b.length &&
  a.every((x, i) => x.id === b[i]!.id && x.sent === b[i]!.sent && (x.refused === null) === (b[i]!.refused === null));

/** Strict: it is done when it lies on the disk, not when the system means to put it there. */
const write = async (db: IDBPDatabase<RoofSchema>, rows: readonly Logged[]): Promise<void> => {
  const tx = db.transaction("entry", "readwrite", { durability: "strict" });
  for (const row of rows) await tx.store.put(row);
  await tx.done;
};

export const createRoofLog = (parts: RoofLogParts): RoofLog => {
  let shown: readonly Logged[] = [];
  let missing: readonly string[] = [];
  let looked = false;
  let retrying = false;
  const listeners = new Set<() => void>();
  const tell = (): void => {
    for (const l of [...listeners]) l();
  };
  const read = async (): Promise<readonly Logged[]> => {
    const db = await parts.open();
    const now = (await db.getAll("entry")).sort((a, b) => a.entry.order - b.entry.order || (a.id < b.id ? -1 : 1));
    if (!looked) {
      looked = true;
      const there = new Set(now.map((l) => l.id));
      missing = parts.waiting.read().filter((id) => !there.has(id));
      if (missing.length > 0) tell();
    }
    parts.waiting.write(now.filter((l) => !l.sent).map((l) => l.id));
    if (!same(now, shown)) {
      shown = now;
      tell();
    }
    return shown;
  };
  const again = (): void => {
    if (retrying) return;
    retrying = true;
    parts.later(RETRY_MS, () => {
      retrying = false;
      void send();
    });
  };
  const send = (): Promise<void> =>
    parts.alone(async () => {
      const waiting = (await read()).filter((l) => !l.sent && l.refused === null && parts.isOwn(l));
      if (waiting.length === 0) return;
      const db = await parts.open();
      for (const l of waiting) {
        try {
          await parts.post(l);
          await write(db, [{ ...l, sent: true }]);
        } catch (error) {
          if (!(error instanceof ApiError) || mayWait(error)) {
            again();
            break;
          }
          await write(db, [{ ...l, refused: error.body }]);
        }
      }
      await read();
    });
  return {
    entries: () => shown,
    subscribe: (listener) => {
      listeners.add(listener);
      return () => listeners.delete(listener);
    },
    add: async (logged) => {
      await read();
      await write(await parts.open(), [{ ...logged, sent: false, refused: null }]);
      await read();
      void send().catch(() => undefined);
    },
    send,
    look: async () => void (await read()),
    known: async (ids) => {
      const gone = shown.filter((l) => l.sent && ids.has(l.id));
      if (gone.length === 0) return;
      const tx = (await parts.open()).transaction("entry", "readwrite");
      for (const l of gone) await tx.store.delete(l.id);
      await tx.done;
      await read();
    },
    missing: () => missing,
  };
};

/** An entry as the edit that it is, for a file that takes it to another browser. */
export const editOfLogged = ({ id, jobId, linkId, entry, person }: Logged): Edit => {
  const { id: _own, ...fields } = entry;
  return { id, jobId, method: "POST", path: `/api/jobs/${jobId}/roof`, body: { id, linkId, ...fields }, person };
};
