"use client";
import { deepEqual } from "fast-equals";
import { useEffect, useRef, useState } from "react";
import { type Brief, type BriefDto, briefSchema } from "@/contract";
import { ApiError } from "../../api/client";
import { useRefresh } from "../../api/queries";
import { pendingEdit, sendEdit } from "../../state/browser-outbox";
import type { JobHistory } from "../../state/job-history";
import { errorSentence } from "../../wording/errors";

const SAVE_AFTER_MS = 600;

export interface OpenBrief {
  readonly doc: Brief;
  readonly change: (fields: Partial<Brief>) => void;
  readonly saved: "saved" | "saving" | "kept";
  readonly fault: string | null;
  /** What somebody else saved meanwhile; null while nothing clashes. */
  readonly theirs: BriefDto | null;
  readonly keep: (which: "mine" | "theirs") => void;
}

const key = (jobId: string): string => `dry-arc.brief.${jobId}`;
const same = deepEqual;

const readDraft = (jobId: string): { version: number; doc: Brief } | null => {
  try {
    const draft = JSON.parse(localStorage.getItem(key(jobId)) ?? "null") as { version: number; doc: unknown } | null;
    return draft === null ? null : { version: draft.version, doc: briefSchema.parse(draft.doc) };
  } catch {
    return null;
  }
};

/** The open brief: saved by itself a moment after each change, kept in this browser until it is, clashes told. */
export const useOpenBrief = (jobId: string, server: BriefDto, history: JobHistory): OpenBrief => {
  const [start] = useState(() => {
    const draft = readDraft(jobId);
    return draft !== null && (draft.version === server.version || pendingEdit(`/api/jobs/${jobId}/brief`) !== null) ? draft : null;
  });
  const [doc, setDoc] = useState<Brief>(start?.doc ?? server.doc);
  const [saved, setSaved] = useState<OpenBrief["saved"]>(start === null ? "saved" : "kept");
  const [fault, setFault] = useState<string | null>(null);
  const [theirs, setTheirs] = useState<BriefDto | null>(null);
  const base = useRef<BriefDto>(server);
  const now = useRef(doc);
  now.current = doc;
  const timer = useRef<ReturnType<typeof setTimeout> | null>(null);
  const busy = useRef(false);
  const refresh = useRefresh();
  const path = `/api/jobs/${jobId}/brief`;

  const later = (ms: number): void => {
    if (timer.current !== null) clearTimeout(timer.current);
    timer.current = setTimeout(() => void save(), ms);
  };
  const save = async (): Promise<void> => {
    timer.current = null;
    const sent = now.current;
    if (busy.current) return;
    if (same(sent, base.current.doc)) {
      localStorage.removeItem(key(jobId));
      setSaved("saved");
      return;
    }
    const checked = briefSchema.safeParse(sent);
    if (!checked.success) {
      const issue = checked.error.issues[0];
      setSaved("kept");
      setFault(`Not saved: ${issue?.path.join(" ") ?? ""}, ${issue?.message ?? ""}.`);
      return;
    }
    busy.current = true;
    setSaved("saving");
    try {
      base.current = await history.perform(() =>
        sendEdit<BriefDto>(jobId, "PUT", path, { version: base.current.version, doc: checked.data }, (reason) => {
          setSaved("kept");
          setFault(errorSentence(reason));
        }),
      );
      setFault(null);
      if (same(now.current, sent)) {
        localStorage.removeItem(key(jobId));
        setSaved("saved");
      } else later(0);
      void refresh(jobId);
    } catch (error) {
      const body = error instanceof ApiError ? error.body : { code: "internal" };
      setSaved("kept");
      const now = body.code === "clash" ? (body.current as BriefDto) : null;
      if (now !== null && same(now.doc, sent)) {
        // What stands there is what was sent: there is nothing to choose.
        base.current = now;
        localStorage.removeItem(key(jobId));
        setFault(null);
        setSaved("saved");
      } else if (now !== null) setTheirs(now);
      else {
        setFault(errorSentence(body));
      }
    }
    busy.current = false;
  };
  // biome-ignore lint/correctness/useExhaustiveDependencies: what was left unsaved is sent once
  useEffect(() => {
    // What was on its way when this page was loaded anew is waited for: its answer is what later edits build on.
    const pending = pendingEdit<BriefDto>(path);
    if (pending !== null) {
      busy.current = true;
      pending
        .then((row) => {
          // What was read meanwhile may be newer than that answer.
          if (row.version < base.current.version) return;
          base.current = row;
          setTheirs(null);
        })
        .catch(() => undefined)
        .finally(() => {
          busy.current = false;
          later(0);
        });
    } else if (start !== null) later(0);
    return () => {
      if (timer.current !== null) {
        clearTimeout(timer.current);
        void save();
      }
    };
  }, []);
  // Somebody else's edit, or an undo, arrives: taken over when nothing of one's own waits.
  useEffect(() => {
    if (server.version <= base.current.version || busy.current) return;
    if (same(now.current, base.current.doc)) {
      base.current = server;
      setDoc(server.doc);
    } else setTheirs(server);
  }, [server]);

  return {
    doc,
    saved,
    fault,
    theirs,
    change: (fields) => {
      const next = { ...now.current, ...fields };
      now.current = next;
      setDoc(next);
      setSaved("saving");
      localStorage.setItem(key(jobId), JSON.stringify({ version: base.current.version, doc: next }));
      if (theirs === null) later(SAVE_AFTER_MS);
    },
    keep: (which) => {
      if (theirs === null) return;
      base.current = theirs;
      setTheirs(null);
      if (which === "theirs") {
        setDoc(theirs.doc);
        localStorage.removeItem(key(jobId));
        setSaved("saved");
      } else later(0);
    },
  };
};
