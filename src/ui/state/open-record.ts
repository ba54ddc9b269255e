import { createStore, type StoreApi } from "zustand/vanilla";
import { type ErrorBody, type FieldsOf, type KindName, toldOf } from "@/contract";
import { bodyOf } from "../api/client";
import { type Action, type Draft, draftOf, type OpenState, opened, type Row, reduce, resumed, shownOf } from "./record";

/* The one store of an open record: it sends each finished edit once, and keeps what is under way over a killed tab. */

/** How an open record meets the world; a test gives its own. */
export interface RecordParts<F> {
  /** Sends a finished edit. @throws ApiError as the server refuses it. */
  readonly send: (patch: Partial<F> & { version: number }, onWait: (reason: ErrorBody) => void) => Promise<Answer>;
  /** Edits that were on their way when the page was loaded, oldest first. */
  readonly pending: () => readonly { readonly patch: Partial<F>; readonly answer: Promise<Answer> }[];
  readonly nowMs: () => number;
  readonly keep: (draft: Draft<F> | null) => void;
  readonly kept: () => Draft<F> | null;
  /** An edit is through: what was computed from the record is stale. */
  readonly onSaved: () => void;
}

export type Answer = Readonly<Record<string, unknown>> & { readonly version: number };

export interface OpenRecord<F> {
  readonly store: StoreApi<OpenState<F>>;
  readonly change: (fields: Partial<F>) => void;
  /** A drag begins, which keeps nothing while it moves; or typing, which is kept a letter at a time. */
  readonly begin: (how?: "drag" | "typing") => void;
  readonly end: () => void;
  readonly cancel: () => void;
  readonly resolve: (keep: "mine" | "theirs") => void;
  /** Brings back what was given up for theirs. */
  readonly recall: () => void;
  /** Takes over the record as it was read, or as an undo left it. */
  readonly arrive: (row: Answer) => void;
  /** What is under way is finished: the page goes. */
  readonly leave: () => void;
}

/** The fields of a row, by its kind: what else a row carries is not edited. */
export const rowOf = <F>(kind: KindName, row: Answer): Row<F> => {
  const keys = Object.keys(toldOf(kind).words.fields);
  return { version: row.version, fields: Object.fromEntries(keys.map((key) => [key, row[key]])) as F };
};

export const openRecord = <K extends KindName, F extends FieldsOf<K> = FieldsOf<K>>(
  kind: K,
  row: Answer,
  parts: RecordParts<F>,
): OpenRecord<F> => {
  const secrets = toldOf(kind).secrets ?? [];
  const store = createStore<OpenState<F>>(() => opened(rowOf<F>(kind, row)));
  /** Numbers of edits that have been handed on. */
  let handedOn = 0;

  const follow = (number: number, answer: Promise<Answer>): void => {
    answer
      .then((made) => {
        dispatch({ type: "answered", number, row: rowOf<F>(kind, made), atMs: parts.nowMs() });
        parts.onSaved();
      })
      .catch((error: unknown) => {
        const reason = bodyOf(error);
        const theirs = reason.code === "clash" && isRow(reason.current) ? rowOf<F>(kind, reason.current) : null;
        dispatch({ type: "refused", number, reason, theirs, atMs: parts.nowMs() });
      });
  };
  const handOn = (): void => {
    const { sent, base } = store.getState();
    for (const { number, patch } of sent) {
      if (number <= handedOn) continue;
      handedOn = number;
      // The outbox knows what came of those before it, and makes each on the version that the last one left.
      follow(
        number,
        parts.send({ ...patch, version: base.version }, (reason) => dispatch({ type: "waits", reason })),
      );
    }
  };
  const dispatch = (action: Action<F>): void => {
    const before = store.getState();
    const after = reduce(before, action);
    if (after === before) return;
    store.setState(after, true);
    // A drag keeps nothing while it moves; typing does, a letter at a time.
    if (after.live !== before.live && !(dragging && after.gesture)) parts.keep(draftOf(after, secrets));
    handOn();
  };
  let dragging = false;
  /** Letters are about to come; shown state stays as it is until the first of them has changed something. */
  let typing = false;

  // What was on its way when the page was loaded anew: its answers are what later edits build on.
  const early = parts.pending();
  if (early.length > 0) {
    const sent = early.map(({ patch }, i) => ({ number: i + 1, patch }));
    handedOn = sent.length;
    store.setState({ ...store.getState(), sent, nextNumber: sent.length + 1 });
    early.forEach(({ answer }, i) => {
      follow(i + 1, answer);
    });
  }
  const draft = parts.kept();
  if (draft !== null) {
    store.setState(resumed(store.getState(), draft), true);
    parts.keep(draftOf(store.getState(), secrets));
    queueMicrotask(handOn);
  }
  const finish = (type: "end" | "cancel"): void => {
    dragging = false;
    typing = false;
    dispatch({ type });
  };
  return {
    store,
    change: (fields) => {
      if (typing) dispatch({ type: "begin" });
      dispatch({ type: "change", fields });
    },
    begin: (how = "drag") => {
      dragging = how === "drag";
      typing = how === "typing";
      if (dragging) dispatch({ type: "begin", drag: true });
    },
    end: () => finish("end"),
    cancel: () => finish("cancel"),
    resolve: (keep) => dispatch({ type: "resolve", keep }),
    recall: () => dispatch({ type: "recall" }),
    arrive: (next) => dispatch({ type: "arrived", row: rowOf<F>(kind, next), atMs: parts.nowMs() }),
    leave: () => finish("end"),
  };
};

const isRow = (value: unknown): value is Answer =>
  value !== null && typeof value === "object" && typeof (value as { version?: unknown }).version === "number";

/** The record as it is shown now. */
export const shown = <F>(record: OpenRecord<F>): F => shownOf(record.store.getState());

/** Waits until what was edited is kept by the server. @returns false when it has to wait, or was refused. */
export const whenKept = <F>(record: OpenRecord<F>): Promise<boolean> => {
  record.end();
  const answer = (s: OpenState<F>): boolean | null =>
    s.theirs !== null || s.refused !== null || s.waits !== null ? false : s.sent.length === 0 ? true : null;
  const now = answer(record.store.getState());
  if (now !== null) return Promise.resolve(now);
  return new Promise((resolve) => {
    const stop = record.store.subscribe((s) => {
      const then = answer(s);
      if (then === null) return;
      stop();
      resolve(then);
    });
  });
};
