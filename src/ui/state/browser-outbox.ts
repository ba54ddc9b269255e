"use client";
import { useSyncExternalStore } from "react";
import type { ErrorBody } from "@/contract";
import { ApiError, sendEditRequest } from "../api/client";
import { clientId } from "./client-id";
import { laterOrOnline } from "./later";
import { asSentNow, createOutbox, type Edit, type OutboxState } from "./outbox";
import { isOwn, personNow } from "./person";

/* The one outbox of this window, over all its sheets. What it holds lies in the browser's storage under the window's name. */

const PREFIX = "dry-arc.outbox.";
const TAB = "dry-arc.tab.";

const settledListeners = new Set<(edit: Edit) => void>();
/** Told of edits that were made or refused and that no sheet waits for. */
export const onSettled = (listener: (edit: Edit) => void): (() => void) => {
  settledListeners.add(listener);
  return () => settledListeners.delete(listener);
};

const storage = (): Storage | null => {
  try {
    return window.localStorage;
  } catch {
    return null;
  }
};
const read = (key: string): Edit[] => {
  try {
    const value: unknown = JSON.parse(storage()?.getItem(key) ?? "[]");
    return Array.isArray(value) ? (value as Edit[]).map(asSentNow) : [];
  } catch {
    return [];
  }
};

/** Answers to edits of a window that is no more, until the sheet that shows their row asks: what it read may be older. */
const answered = new Map<string, unknown>();

const outbox = createOutbox({
  post: sendEditRequest,
  keep: (edits) => {
    try {
      if (edits.length === 0) storage()?.removeItem(PREFIX + clientId());
      else storage()?.setItem(PREFIX + clientId(), JSON.stringify(edits));
    } catch {
      // Storage that is full or shut keeps nothing over a killed tab; the edits are still sent.
    }
  },
  later: laterOrOnline,
  newId: () => crypto.randomUUID(),
  isOwn,
  settled: (edit, answer) => {
    if (answer !== null) answered.set(edit.path, answer);
    for (const l of settledListeners) l(edit);
  },
});

/** Takes over what this window had under way before it was loaded anew, and what windows left that are no more. */
const takeOver = async (): Promise<void> => {
  if (!("locks" in navigator)) return;
  // Held while this window lives: others see by it that its edits are its own.
  void navigator.locks.request(TAB + clientId(), () => new Promise(() => undefined));
  const { held } = await navigator.locks.query();
  const alive = new Set((held ?? []).map((l) => l.name));
  const store = storage();
  if (store === null) return;
  for (const key of Object.keys(store)) {
    if (!key.startsWith(PREFIX) || key === PREFIX + clientId() || alive.has(TAB + key.slice(PREFIX.length))) continue;
    const edits = read(key);
    outbox.adopt(edits);
    store.removeItem(key);
  }
};
let left: readonly Edit[] = [];
let takenOver: Promise<unknown> = Promise.resolve();
if (typeof window !== "undefined") {
  outbox.adopt(read(PREFIX + clientId()));
  left = Object.keys(storage() ?? {})
    .filter((key) => key.startsWith(PREFIX) && key !== PREFIX + clientId())
    .flatMap(read);
  takenOver = takeOver()
    .catch(() => undefined)
    .finally(() => {
      left = [];
      outbox.begin();
    });
}

/** Makes an edit on the server, behind those that wait. @throws ApiError as the server refuses it; a server that is away is waited for. */
export const sendEdit = <T>(
  jobId: string,
  method: Edit["method"],
  path: string,
  body: unknown,
  onWait?: (reason: ErrorBody) => void,
): Promise<T> => outbox.send<T>({ jobId, method, path, body, person: personNow() }, onWait);

/** Edits of a row that are still on their way, oldest first, each with what it changes and its answer. */
export const pendingEdits = <T>(path: string): { readonly body: unknown; readonly answer: Promise<T> }[] => {
  const own = outbox.pending<T>(path).map(({ edit, answer }) => ({ body: edit.body, answer }));
  if (own.length > 0) return own;
  if (answered.has(path)) {
    const answer = answered.get(path) as T;
    answered.delete(path);
    return [{ body: {}, answer: Promise.resolve(answer) }];
  }
  // A window that is no more may have left some; whether it lives is known in a moment.
  const gone = left.filter((e) => e.path === path);
  return gone.map((e, i) => ({
    body: e.body,
    answer: takenOver.then(() => {
      const there = outbox.pending<T>(path)[i] ?? null;
      if (there !== null) return there.answer;
      if (answered.has(path)) return answered.get(path) as T;
      throw new ApiError(409, { code: "other-window" });
    }),
  }));
};

const NOTHING: OutboxState = { edits: [], waitsFor: null, lost: [] };
export const outboxState = (): OutboxState => outbox.state();
export const useOutbox = (): OutboxState => useSyncExternalStore(outbox.subscribe, outbox.state, () => NOTHING);
export const forgetLost = (editId: string): void => outbox.forget(editId);
