import { deepEqual } from "fast-equals";
import { createStore, type StoreApi } from "zustand/vanilla";
import type { DesignDto, DesignFields, ErrorBody } from "@/contract";
import { ApiError } from "../api/client";

export type SaveStatus =
  | { readonly kind: "saved"; readonly at: Date | null }
  | { readonly kind: "saving" }
  | { readonly kind: "kept"; readonly edits: number; readonly reason: ErrorBody }
  | { readonly kind: "clash"; readonly theirs: DesignDto }
  | { readonly kind: "refused"; readonly reason: ErrorBody };

export interface DesignState {
  readonly design: DesignFields;
  /** The design as it stood before the gesture under way; the drawing's axes follow this one. */
  readonly settled: DesignFields;
  readonly status: SaveStatus;
  readonly past: readonly DesignFields[];
  readonly future: readonly DesignFields[];
  readonly change: (fields: Partial<DesignFields>) => void;
  readonly beginGesture: () => void;
  readonly endGesture: () => void;
  readonly undo: () => void;
  readonly redo: () => void;
  readonly resolveClash: (keep: "mine" | "theirs") => void;
  /** Takes over what someone else saved, when nothing of one's own waits. A later save would clash otherwise. */
  readonly adopt: (theirs: DesignDto) => void;
  readonly dispose: () => void;
}

const SAVE_AFTER_MS = 500;
const MOST_UNDO = 200;

const fieldsOf = ({ id: _i, version: _v, ...fields }: DesignDto): DesignFields => fields;
/** By structure: the columns of a row come back with their keys in another order. */
const same = (a: DesignFields, b: DesignFields): boolean => deepEqual(a, b);

interface Draft {
  readonly version: number;
  readonly design: DesignFields;
}
const draftKey = (id: string): string => `dry-arc.draft.${id}`;

const readDraft = (id: string): Draft | null => {
  try {
    return JSON.parse(localStorage.getItem(draftKey(id)) ?? "null") as Draft | null;
  } catch {
    return null;
  }
};

/** How a design gets to the server. */
export interface DesignWay {
  /** @param onWait called when it has to wait for a server or a database that is away. */
  readonly send: (fields: DesignFields & { readonly version: number }, onWait: (reason: ErrorBody) => void) => Promise<DesignDto>;
  /** The answer to an edit that was on its way when the page was loaded anew, or null. */
  readonly pending: () => Promise<DesignDto> | null;
}

/**
 * The open design: one record changed by named edits, with undo, saved by itself. Each save names the
 * version it was made on; an edit that cannot be saved is kept in this browser until it can.
 */
export const createDesignStore = (initial: DesignDto, onSaved: () => void, way: DesignWay): StoreApi<DesignState> => {
  let version = initial.version;
  let saved = fieldsOf(initial);
  let timer: ReturnType<typeof setTimeout> | null = null;
  let busy = false;
  let gesture = false;
  let edits = 0;
  const kept = readDraft(initial.id);
  // A draft kept by an older version lacks the fields that came since.
  const draft = kept === null ? null : { ...kept, design: { ...saved, ...kept.design } };

  return createStore<DesignState>((set, get) => {
    const keepDraft = (): void => {
      const { design } = get();
      if (same(design, saved)) localStorage.removeItem(draftKey(initial.id));
      else localStorage.setItem(draftKey(initial.id), JSON.stringify({ version, design } satisfies Draft));
    };
    const later = (ms: number): void => {
      if (timer !== null) clearTimeout(timer);
      timer = setTimeout(save, ms);
    };
    const save = async (): Promise<void> => {
      timer = null;
      if (busy || gesture) return;
      const sent = get().design;
      if (same(sent, saved)) {
        if (get().status.kind !== "saved") set({ status: { kind: "saved", at: new Date() } });
        keepDraft();
        return;
      }
      busy = true;
      if (get().status.kind !== "kept") set({ status: { kind: "saving" } });
      try {
        const row = await way.send({ ...sent, version }, (reason) => set({ status: { kind: "kept", edits: Math.max(1, edits), reason } }));
        version = row.version;
        saved = fieldsOf(row);
        edits = 0;
        // What the server wrote is the design, also where it wrote it otherwise (trimmed words): nothing is sent again for that.
        if (same(get().design, sent)) set({ design: saved, ...(gesture ? {} : { settled: saved }) });
        set({ status: { kind: "saved", at: new Date() } });
        keepDraft();
        onSaved();
      } catch (error) {
        const body = error instanceof ApiError ? error.body : { code: "internal" };
        const theirs = body.code === "clash" ? (body.current as DesignDto) : null;
        if (theirs !== null && same(fieldsOf(theirs), sent)) {
          // What stands there is what was sent: there is nothing to choose.
          version = theirs.version;
          saved = fieldsOf(theirs);
          set({ status: { kind: "saved", at: new Date() } });
          keepDraft();
        } else if (body.code === "clash") set({ status: { kind: "clash", theirs: body.current as DesignDto } });
        else set({ status: { kind: "refused", reason: body } });
      }
      busy = false;
      if (get().status.kind === "saved" && !same(get().design, saved)) later(0);
    };
    const put = (design: DesignFields): void => {
      edits += 1;
      const { status } = get();
      set({
        design,
        ...(gesture ? {} : { settled: design }),
        // Said at once: an edit is not saved until the server has it.
        ...(status.kind === "clash" ? {} : { status: status.kind === "kept" ? { ...status, edits } : ({ kind: "saving" } as const) }),
      });
      keepDraft();
      if (!gesture && get().status.kind !== "clash") later(SAVE_AFTER_MS);
    };
    const pending = way.pending();
    const start = draft !== null && (pending !== null || draft.version === initial.version) ? draft.design : saved;
    const isTheirs = draft !== null && draft.version < initial.version && !same(draft.design, saved);
    const theirsFirst = pending === null && isTheirs;
    if (pending !== null) {
      // One's own edit from before: what it comes to is what later edits build on, not somebody else's.
      busy = true;
      pending
        .then((row) => {
          // What was read meanwhile may be newer than that answer.
          if (row.version < version) return;
          version = row.version;
          saved = fieldsOf(row);
        })
        .catch(() => {
          if (isTheirs) set({ status: { kind: "clash", theirs: initial } });
        })
        .finally(() => {
          busy = false;
          if (get().status.kind !== "clash") void save();
        });
    } else if (start !== saved) queueMicrotask(() => later(0));

    return {
      design: theirsFirst ? draft.design : start,
      settled: theirsFirst ? draft.design : start,
      status: theirsFirst ? { kind: "clash", theirs: initial } : pending !== null ? { kind: "saving" } : { kind: "saved", at: null },
      past: [],
      future: [],
      change: (fields) => {
        const { design, past } = get();
        const next = { ...design, ...fields };
        if (same(next, design)) return;
        if (!gesture) set({ past: [...past, design].slice(-MOST_UNDO), future: [] });
        put(next);
      },
      beginGesture: () => {
        gesture = true;
      },
      endGesture: () => {
        if (!gesture) return;
        gesture = false;
        const { design, settled, past } = get();
        if (same(design, settled)) return;
        set({ past: [...past, settled].slice(-MOST_UNDO), future: [], settled: design });
        later(SAVE_AFTER_MS);
      },
      undo: () => {
        const { past, future, design } = get();
        const before = past[past.length - 1];
        if (before === undefined || gesture) return;
        set({ past: past.slice(0, -1), future: [design, ...future] });
        put(before);
      },
      redo: () => {
        const { past, future, design } = get();
        const [next, ...rest] = future;
        if (next === undefined || gesture) return;
        set({ past: [...past, design], future: rest });
        put(next);
      },
      resolveClash: (keep) => {
        const { status, design, past } = get();
        if (status.kind !== "clash") return;
        version = status.theirs.version;
        saved = fieldsOf(status.theirs);
        set({ status: { kind: "saving" } });
        if (keep === "theirs") {
          set({ past: [...past, design], future: [] });
          put(saved);
        }
        later(0);
      },
      adopt: (theirs) => {
        const { design, status } = get();
        if (theirs.version <= version || gesture || busy || status.kind !== "saved" || !same(design, saved)) return;
        version = theirs.version;
        saved = fieldsOf(theirs);
        set({ design: saved, settled: saved, past: [], future: [], status: { kind: "saved", at: new Date() } });
      },
      dispose: () => {
        if (timer !== null) {
          clearTimeout(timer);
          // What was typed in the last half second is saved on the way out.
          gesture = false;
          void save();
        }
      },
    };
  });
};
