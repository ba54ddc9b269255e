"use client";
import { useEffect, useRef, useState } from "react";
import { errorSentence } from "../wording/errors";
import { bodyOf } from "./client";
import { keepFile } from "./keep-file";

export interface ServedFile {
  /** What is being written; null while nothing is. */
  readonly busy: string | null;
  /** Has a file made by the server and hands it to the browser to keep; told in words while it is written, and what went wrong. */
  readonly take: (words: string, ask: (signal: AbortSignal) => Promise<Response>) => Promise<void>;
  readonly say: (fault: string) => void;
  /** How far it is, with a way to stop it, and what went wrong. */
  readonly notice: React.ReactNode;
}

/** Files that the server writes. Leaving the page, or pressing Stop, ends the work on the server, too. */
export const useServedFile = (): ServedFile => {
  const [busy, setBusy] = useState<string | null>(null);
  const [fault, setFault] = useState<string | null>(null);
  const abort = useRef<AbortController | null>(null);
  useEffect(() => () => abort.current?.abort(), []);
  const take: ServedFile["take"] = async (words, ask) => {
    const own = new AbortController();
    abort.current = own;
    setBusy(words);
    setFault(null);
    try {
      const answer = await ask(own.signal);
      const name = /filename="([^"]+)"/.exec(answer.headers.get("content-disposition") ?? "")?.[1] ?? "dry-arc";
      keepFile(await answer.blob(), name);
    } catch (error) {
      if (!own.signal.aborted) setFault(errorSentence(bodyOf(error)));
    }
    setBusy(null);
  };
  const notice = (
    <>
      {busy !== null && (
        <div role="status" className="flex items-center gap-4">
          <span>{busy}</span>
          <progress aria-label={busy} className="min-w-0 flex-1" />
          <button type="button" className="press" onClick={() => abort.current?.abort()}>
            Stop
          </button>
        </div>
      )}
      {fault !== null && (
        <p role="alert" className="m-0 text-short-figure">
          {fault}
        </p>
      )}
    </>
  );
  return { busy, take, say: setFault, notice };
};
