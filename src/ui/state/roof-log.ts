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

export interface RoofSchema extends DBSchema {
  readonly entry: { key: string; value: Logged };
}

export interface RoofLogParts {
  readonly open: () => Promise<IDBPDatabase<RoofSchema>>;
  readonly post: (logged: Logged) => Promise<unknown>;
  readonly isOwn: (logged: Logged) => boolean;
  /** One window at a time sends. */
  readonly alone: (work: () => Promise<void>) => Promise<void>;
  readonly later: (ms: number, work: () => void) => void;
  /** What waits, by a count that lies elsewhere than the entries: if they are gone and it is not, they were taken away. */
  readonly count: { readonly read: () => number; readonly write: (unsent: number) => void };
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
  /** How many entries that waited here are gone without having been sent. */
  readonly missing: () => number;
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
  let missing = 0;
  let looked = false;
  let retrying = false;
  const listeners = new Set<() => void>();
  const tell = (): void => {
    for (const l of [...listeners]) l();
  };
  const read = async (): Promise<readonly Logged[]> => {
    const db = await parts.open();
    const now = (await db.getAll("entry")).sort((a, b) => a.entry.order - b.entry.order || (a.id < b.id ? -1 : 1));
    const waiting = now.filter((l) => !l.sent).length;
    if (!looked) {
      looked = true;
      missing = Math.max(0, parts.count.read() - waiting);
      if (missing > 0) tell();
    }
    parts.count.write(waiting);
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
      // The count first: an entry that is lost between the two is told, and not the other way round.
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
