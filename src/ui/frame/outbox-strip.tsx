"use client";
import { useEffect } from "react";
import { useRefresh } from "../api/queries";
import { forgetLost, onSettled, useOutbox } from "../state/browser-outbox";
import { isOwn } from "../state/person";
import { errorSentence } from "../wording/errors";

/** Says what is not saved yet, and why; nothing while all is well. */
export const OutboxStrip = () => {
  const { edits, waitsFor, lost } = useOutbox();
  const refresh = useRefresh();
  // What was made for a window that is no more shows on the sheet that is open now.
  useEffect(() => onSettled((edit) => void refresh(edit.jobId)), [refresh]);
  const own = edits.filter(isOwn).length;
  const others = edits.length - own;
  if (waitsFor === null && lost.length === 0 && others === 0) return null;
  return (
    <div
      className="no-print fixed bottom-2 left-2 z-50 flex min-h-[44px] w-[min(760px,calc(100vw-16px))] flex-col justify-center border-[1.6px] border-ink bg-paper px-3 py-1 text-line leading-[17px]"
      data-testid="outbox"
    >
      {waitsFor !== null && (
        <p role="status" className="m-0">
          <b>
            {own} {own === 1 ? "edit waits" : "edits wait"} in this browser.
          </b>{" "}
          {errorSentence(waitsFor)}{" "}
          {waitsFor.code === "signed-out" && (
            <a className="press text-ink" href={`/sign-in?to=${encodeURIComponent(window.location.pathname + window.location.search)}`}>
              Sign in again
            </a>
          )}
        </p>
      )}
      {others > 0 && (
        <p role="status" className="m-0">
          <b>
            {others} {others === 1 ? "edit" : "edits"} of somebody else
          </b>{" "}
          {others === 1 ? "waits" : "wait"} in this browser until they sign in here again.
        </p>
      )}
      {lost.map(({ edit, reason }) => (
        <p key={edit.id} role="alert" className="m-0 flex gap-4">
          <span className="text-short-figure">An edit kept from before was not taken: {errorSentence(reason)}</span>
          <button type="button" className="press" onClick={() => forgetLost(edit.id)}>
            Put it aside
          </button>
        </p>
      ))}
    </div>
  );
};
