import { type ErrorBody, isKind, recordPath, type UndoneDto } from "@/contract";
import { bodyOf, mayWait } from "../api/client";

/* Edits on their way to the server: in order, each until it is answered, kept in this browser over a killed tab. */

export interface Edit {
  /** Made here; the server makes an edit of one number once, however often it comes. */
  readonly id: string;
  readonly jobId: string;
  readonly method: "POST" | "PATCH" | "PUT" | "DELETE";
  readonly path: string;
  readonly body: unknown;
  /** Who made it; nobody, where nobody signs in. */
  readonly person?: string | null;
}

/** An edit that a page of the version before left behind, as it is sent now: nothing that waited is lost. */
export const asSentNow = (edit: Edit): Edit => {
  const body = (edit.body ?? {}) as Readonly<Record<string, unknown>>;
  const nested = body.doc ?? body.fields;
  const patch = (more: object): Edit => ({ ...edit, method: "PATCH", body: { version: body.version, ...more } });
  if (edit.method === "PUT" && edit.path.endsWith("/brief") && body.doc !== undefined) return patch(nested as object);
  if (edit.method === "PATCH" && /\/(obstacles|features)\/[^/]+$/.test(edit.path) && body.fields !== undefined)
    return patch(nested as object);
  const gone = edit.method === "DELETE" ? /^(.*\/designs\/[^/?]+)\?version=(\d+)$/.exec(edit.path) : null;
  if (gone !== null) return { ...edit, method: "PATCH", path: gone[1]!, body: { version: Number(gone[2]), deleted: true } };
  return edit;
};

export interface OutboxState {
  readonly edits: readonly Edit[];
  /** Why the first of them has to wait; null while it is under way. */
  readonly waitsFor: ErrorBody | null;
  /** Edits left from a tab before that the server refused: nobody else hears of them. */
  readonly lost: readonly { readonly edit: Edit; readonly reason: ErrorBody }[];
}

export interface Outbox {
  readonly state: () => OutboxState;
  readonly subscribe: (listener: () => void) => () => void;
  /** Sends an edit behind those that wait. @param onWait called whenever it has to wait, with the reason. @throws ApiError as the server refuses it. */
  readonly send: <T>(edit: Omit<Edit, "id">, onWait?: (reason: ErrorBody) => void) => Promise<T>;
  /** Edits of a row that are still on their way, oldest first, each with its answer. */
  readonly pending: <T>(path: string) => readonly { readonly edit: Edit; readonly answer: Promise<T> }[];
  /** Takes over edits that another tab left behind. */
  readonly adopt: (edits: readonly Edit[]) => void;
  /** Begins to send: what came from before is known now. */
  readonly begin: () => void;
  readonly forget: (editId: string) => void;
}

export interface OutboxParts {
  readonly post: (edit: Edit) => Promise<unknown>;
  readonly keep: (edits: readonly Edit[]) => void;
  /** Calls back after a time; sooner when the network comes back. */
  readonly later: (ms: number, work: () => void) => void;
  readonly newId: () => string;
  /** Whether an edit may go in the name of who is here. */
  readonly isOwn: (edit: Edit) => boolean;
  /** An edit that nobody here waits for was made, with its answer, or refused (null). */
  readonly settled: (edit: Edit, answer: unknown) => void;
}

const RETRY_MS = 2000;

interface Waiter {
  readonly promise: Promise<unknown>;
  readonly resolve: (value: unknown) => void;
  readonly reject: (error: unknown) => void;
  readonly onWait: ((reason: ErrorBody) => void) | undefined;
}

const versionIn = (value: unknown): number | null => {
  const v = value !== null && typeof value === "object" ? (value as { version?: unknown }).version : undefined;
  return typeof v === "number" ? v : null;
};

/** Versions that an edit left behind, by address: of its own row, and of all that an undo touched. */
const versionsAfter = (edit: Edit, answer: unknown): ReadonlyMap<string, number> => {
  const out = new Map<string, number>();
  const own = versionIn(answer);
  if (own !== null) out.set(edit.path, own);
  const rows = answer !== null && typeof answer === "object" ? (answer as { rows?: unknown }).rows : undefined;
  for (const r of Array.isArray(rows) ? (rows as UndoneDto["rows"]) : []) {
    const version = versionIn(r.row);
    if (version !== null && isKind(r.kind)) out.set(recordPath(edit.jobId, r.kind, r.id), version);
  }
  return out;
};

/** An edit made on a version that an edit of the same person before it has left behind: it is made on the one that came of that. */
const onNewest = (edit: Edit, versions: ReadonlyMap<string, number>): Edit => {
  const made = versionIn(edit.body);
  const version = versions.get(edit.path);
  return version === undefined || made === null || made >= version ? edit : { ...edit, body: { ...(edit.body as object), version } };
};

export const createOutbox = (parts: OutboxParts): Outbox => {
  let state: OutboxState = { edits: [], waitsFor: null, lost: [] };
  const listeners = new Set<() => void>();
  const waiters = new Map<string, Waiter>();
  /** Versions that edits of this window left behind, by address. */
  const left = new Map<string, number>();
  let busy = false;
  let begun = false;

  const put = (next: Partial<OutboxState>): void => {
    const before = state.edits;
    state = { ...state, ...next };
    if (state.edits !== before) parts.keep(state.edits);
    for (const l of [...listeners]) l();
  };
  const pump = async (): Promise<void> => {
    if (busy || !begun) return;
    busy = true;
    for (;;) {
      // What somebody else made here before waits for them, and holds nobody up.
      const edit = state.edits.find(parts.isOwn);
      if (edit === undefined) break;
      try {
        const answer = await parts.post(edit);
        const versions = versionsAfter(edit, answer);
        for (const [path, version] of versions) left.set(path, Math.max(version, left.get(path) ?? 0));
        const rest = state.edits.filter((e) => e.id !== edit.id);
        put({ edits: versions.size === 0 ? rest : rest.map((e) => (parts.isOwn(e) ? onNewest(e, left) : e)), waitsFor: null });
        done(edit, (w) => w.resolve(answer), null, answer);
      } catch (error) {
        const reason = bodyOf(error);
        if (mayWait(error)) {
          put({ waitsFor: reason });
          for (const e of state.edits) waiters.get(e.id)?.onWait?.(reason);
          parts.later(RETRY_MS, () => void pump());
          break;
        }
        put({ edits: state.edits.filter((e) => e.id !== edit.id), waitsFor: null });
        done(edit, (w) => w.reject(error), reason, null);
      }
    }
    busy = false;
  };
  const done = (edit: Edit, tell: (w: Waiter) => void, refused: ErrorBody | null, answer: unknown): void => {
    const waiter = waiters.get(edit.id);
    waiters.delete(edit.id);
    if (waiter !== undefined) {
      tell(waiter);
      return;
    }
    if (refused !== null) put({ lost: [...state.lost, { edit, reason: refused }] });
    parts.settled(edit, answer);
  };
  const wait = (id: string, onWait?: (reason: ErrorBody) => void): Promise<unknown> => {
    const held = waiters.get(id);
    if (held !== undefined) return held.promise;
    let waiter: Waiter | null = null;
    const promise = new Promise<unknown>((resolve, reject) => {
      waiter = { promise: Promise.resolve(), resolve, reject, onWait };
    });
    waiters.set(id, { ...waiter!, promise });
    promise.catch(() => undefined);
    return promise;
  };
  return {
    state: () => state,
    subscribe: (l) => {
      listeners.add(l);
      return () => listeners.delete(l);
    },
    send: <T>(given: Omit<Edit, "id">, onWait?: (reason: ErrorBody) => void) => {
      // Whoever sends may not have heard yet what came of the one before.
      const edit = onNewest({ ...given, id: parts.newId() }, left);
      const answer = wait(edit.id, onWait) as Promise<T>;
      put({ edits: [...state.edits, edit] });
      if (state.waitsFor !== null) onWait?.(state.waitsFor);
      void pump();
      return answer;
    },
    pending: <T>(path: string) =>
      state.edits.filter((e) => e.path === path && parts.isOwn(e)).map((edit) => ({ edit, answer: wait(edit.id) as Promise<T> })),
    adopt: (edits) => {
      const known = new Set(state.edits.map((e) => e.id));
      const more = edits.filter((e) => !known.has(e.id));
      if (more.length === 0) return;
      // They were made before anything here.
      put({ edits: [...more, ...state.edits] });
      void pump();
    },
    begin: () => {
      begun = true;
      void pump();
    },
    forget: (editId) => put({ lost: state.lost.filter((l) => l.edit.id !== editId) }),
  };
};
