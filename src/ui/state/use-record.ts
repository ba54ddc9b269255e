"use client";
import { useEffect, useState } from "react";
import { useStore } from "zustand";
import { type FieldsOf, type KindName, recordPath } from "@/contract";
import { useRefresh } from "../api/queries";
import { pendingEdits, sendEdit } from "./browser-outbox";
import { type Answer, type OpenRecord, openRecord } from "./open-record";
import { ownKey } from "./person";
import { type Draft, shownInTurn, statusOf } from "./record";

/* Open records of this window: their edits go through its outbox, their drafts lie in the browser's storage. */

const open = new Map<string, Set<Pick<OpenRecord<unknown>, "arrive">>>();
const nameOf = (kind: string, id: string): string => `${kind} ${id}`;

/** Rows as an undo left them are shown at once where they are open. */
export const arriveAll = (rows: readonly { readonly kind: string; readonly id: string; readonly row: Answer | null }[]): void => {
  for (const { kind, id, row } of rows) if (row !== null) for (const record of open.get(nameOf(kind, id)) ?? []) record.arrive(row);
};

const DRAFT = "dry-arc.draft.";

const keepDraft = (key: string, draft: unknown): void => {
  try {
    if (draft === null) localStorage.removeItem(key);
    else localStorage.setItem(key, JSON.stringify(draft));
  } catch {
    // Storage that is full or shut keeps nothing over a killed tab; the edits are still sent.
  }
};
const readJson = (key: string): unknown => {
  try {
    return JSON.parse(localStorage.getItem(key) ?? "null");
  } catch {
    return null;
  }
};
/** Whether something typed of a record lies here that never went on its way. */
export const hasDraft = (kind: KindName, id: string): boolean => readJson(`${ownKey(DRAFT)}${kind}.${id}`) !== null;

/** Where the version before kept its drafts, and in what form: a whole design, a whole brief, the fields of a survey. */
const OLD: Readonly<Partial<Record<KindName, string>>> = { design: DRAFT, brief: "dry-arc.brief.", site: "dry-arc.survey." };

const readDraft = <F>(key: string, kind: KindName, row: Answer & { readonly id: string }): Draft<F> | null => {
  const own = readJson(key) as { version: number; patch?: Partial<F>; from?: Partial<F> } | null;
  if (own?.patch !== undefined) return { version: own.version, patch: own.patch, from: own.from };
  const prefix = OLD[kind];
  if (prefix === undefined) return null;
  const old = readJson(prefix + row.id) as ({ version?: number; design?: object; doc?: object } & object) | null;
  if (old === null) return null;
  keepDraft(prefix + row.id, null);
  return { version: old.version ?? row.version, patch: (old.design ?? old.doc ?? old) as Partial<F> };
};

const browserRecord = <K extends KindName>(jobId: string, kind: K, row: Answer & { readonly id: string }, onSaved: () => void) => {
  type F = FieldsOf<K>;
  const path = recordPath(jobId, kind, row.id);
  const key = `${ownKey(DRAFT)}${kind}.${row.id}`;
  return openRecord<K>(kind, row, {
    send: (body, onWait) => sendEdit<Answer>(jobId, "PATCH", path, body, onWait),
    pending: () =>
      pendingEdits<Answer>(path).map(({ body, answer }) => {
        const { version: _v, deleted: _d, ...patch } = body as Partial<F> & { version?: number; deleted?: boolean };
        return { patch: patch as Partial<F>, answer };
      }),
    nowMs: () => Date.now(),
    keep: (draft) => keepDraft(key, draft),
    kept: () => readDraft<F>(key, kind, row),
    onSaved,
  });
};

/** A record of a job, open to be edited. @param row as it was read; what others make of it is taken over when it is read again. */
export const useRecord = <K extends KindName>(jobId: string, kind: K, row: Answer & { readonly id: string }): OpenRecord<FieldsOf<K>> => {
  const refresh = useRefresh();
  const [record] = useState(() => browserRecord(jobId, kind, row, () => void refresh(jobId)));
  useEffect(() => record.arrive(row), [record, row]);
  useEffect(() => {
    const name = nameOf(kind, row.id);
    const same = open.get(name) ?? new Set();
    same.add(record);
    open.set(name, same);
    const leave = (): void => record.leave();
    window.addEventListener("pagehide", leave);
    return () => {
      window.removeEventListener("pagehide", leave);
      same.delete(record);
      record.leave();
    };
  }, [record, kind, row.id]);
  // What only waits in this browser is not left behind without a word.
  useEffect(() => {
    const warn = (event: BeforeUnloadEvent): void => {
      const { kind: status } = statusOf(record.store.getState());
      if (status === "kept" || status === "clash") event.preventDefault();
    };
    window.addEventListener("beforeunload", warn);
    return () => window.removeEventListener("beforeunload", warn);
  }, [record]);
  return record;
};

/** What an open record shows, what of it is settled, and how it is kept. */
export const useRecordState = <F>(record: OpenRecord<F>) => {
  const state = useStore(record.store);
  const [shown] = useState(shownInTurn<F>);
  const { fields, settled } = shown(state);
  return { fields, settled, status: statusOf(state), setAside: state.setAside, drag: state.drag };
};
