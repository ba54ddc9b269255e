import { deepEqual } from "fast-equals";
import type { DBSchema, IDBPDatabase } from "idb";
import type { ErrorBody, PhotoFields } from "@/contract";
import { ApiError, mayWait } from "../api/client";
import { differing } from "./record";

/* Photos taken without coverage: they lie in the browser's database until the server has them. Their id is made here, so one sent twice is one. */

export interface QueuedPhoto {
  readonly id: string;
  readonly jobId: string;
  readonly about: PhotoFields;
  readonly picture: Blob;
  readonly takenAtMs: number;
  /** Who took it; nobody, where nobody signs in. */
  readonly person?: string | null;
  /** Why the server did not take it; it stays here until it is tried again or let go. */
  readonly refused: ErrorBody | null;
}

export interface PhotoSchema extends DBSchema {
  readonly photo: { key: string; value: QueuedPhoto };
}

export interface PhotoQueueParts {
  readonly open: () => Promise<IDBPDatabase<PhotoSchema>>;
  /** @returns the version that the photo has on the server. */
  readonly post: (photo: QueuedPhoto) => Promise<number>;
  /** What was said of a photo, or that it was taken away, while it was on its way. */
  readonly amend: (photo: QueuedPhoto, patch: Partial<PhotoFields> & { readonly version: number; readonly deleted?: true }) => void;
  /** False while something that the photo names is itself still on its way. */
  readonly mayGo: (photo: QueuedPhoto) => boolean;
  /** One window at a time sends. */
  readonly alone: (work: () => Promise<void>) => Promise<void>;
  readonly later: (ms: number, work: () => void) => void;
  readonly sent: (photo: QueuedPhoto) => void;
}

const RETRY_MS = 4000;

export interface PhotoQueue {
  readonly photos: () => readonly QueuedPhoto[];
  readonly subscribe: (listener: () => void) => () => void;
  /** Keeps a photo here, then tries to send it. @throws when this browser keeps nothing. */
  readonly add: (photo: Omit<QueuedPhoto, "refused">) => Promise<void>;
  /** Changes what is said of a photo that is still here. */
  readonly tell: (id: string, about: Partial<PhotoFields>) => Promise<void>;
  readonly drop: (id: string) => Promise<void>;
  /** Tries one again that was refused. */
  readonly retry: (id: string) => Promise<void>;
  /** Reads what windows before left, and sends nothing. */
  readonly look: () => Promise<unknown>;
  /** Reads what windows before left, and sends what can go. */
  readonly send: () => Promise<void>;
}

/** A photo without its picture, which never changes. */
const facts = ({ picture: _p, ...rest }: QueuedPhoto): Omit<QueuedPhoto, "picture"> => rest;

export const createPhotoQueue = (parts: PhotoQueueParts): PhotoQueue => {
  let shown: readonly QueuedPhoto[] = [];
  let retrying = false;
  const listeners = new Set<() => void>();
  const read = async (): Promise<readonly QueuedPhoto[]> => {
    const db = await parts.open();
    const now = (await db.getAll("photo")).sort((a, b) => a.takenAtMs - b.takenAtMs);
    // Whoever looks is told of what changed, and of nothing else: being told they look again.
    if (!deepEqual(now.map(facts), shown.map(facts))) {
      shown = now;
      for (const l of listeners) l();
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
  /** @returns whether the next may be tried at once. */
  const sendOne = async (photo: QueuedPhoto): Promise<boolean> => {
    const db = await parts.open();
    try {
      const version = await parts.post(photo);
      const tx = db.transaction("photo", "readwrite");
      const now = await tx.store.get(photo.id);
      await tx.store.delete(photo.id);
      await tx.done;
      if (now === undefined) parts.amend(photo, { version, deleted: true });
      else {
        const said = differing(photo.about, now.about);
        if (Object.keys(said).length > 0) parts.amend(photo, { version, ...said });
      }
      parts.sent(photo);
      return true;
    } catch (error) {
      if (!(error instanceof ApiError) || mayWait(error)) return false;
      const now = await db.get("photo", photo.id);
      if (now !== undefined) await db.put("photo", { ...now, refused: error.body });
      return true;
    }
  };
  const send = (): Promise<void> =>
    parts.alone(async () => {
      const waiting = (await read()).filter((p) => p.refused === null);
      let left = false;
      for (const photo of waiting) {
        if (!parts.mayGo(photo)) left = true;
        else if (!(await sendOne(photo))) {
          left = true;
          break;
        }
      }
      if (waiting.length > 0) await read();
      if (left) again();
    });
  return {
    photos: () => shown,
    subscribe: (listener) => {
      listeners.add(listener);
      return () => listeners.delete(listener);
    },
    add: async (photo) => {
      const db = await parts.open();
      await db.put("photo", { ...photo, refused: null });
      await read();
      void send();
    },
    tell: async (id, about) => {
      const db = await parts.open();
      const now = await db.get("photo", id);
      if (now !== undefined) await db.put("photo", { ...now, about: { ...now.about, ...about } });
      await read();
    },
    drop: async (id) => {
      const db = await parts.open();
      await db.delete("photo", id);
      await read();
    },
    retry: async (id) => {
      const db = await parts.open();
      const now = await db.get("photo", id);
      if (now !== undefined) await db.put("photo", { ...now, refused: null });
      await send();
    },
    look: read,
    send,
  };
};
