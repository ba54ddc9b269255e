"use client";
import { useState } from "react";
import { bodyOf, postJson } from "../api/client";
import { outboxState } from "../state/browser-outbox";
import { forgetPages } from "../state/forget";
import { errorSentence } from "../wording/errors";

/** Signs out, here. What waits to be saved is said first: it stays in this browser for who made it. */
export const SignOut = () => {
  const [fault, setFault] = useState<string | null>(null);
  const [sure, setSure] = useState(false);
  const out = async (): Promise<void> => {
    const waits = outboxState().edits.length;
    if (waits > 0 && !sure) {
      setSure(true);
      setFault(
        `${waits} ${waits === 1 ? "edit is" : "edits are"} not saved yet and will wait in this browser. Press again to sign out all the same.`,
      );
      return;
    }
    try {
      await postJson("/api/sign-out", {});
      await forgetPages();
      window.location.assign("/sign-in");
    } catch (error) {
      setFault(errorSentence(bodyOf(error)));
    }
  };
  return (
    <span className="flex flex-wrap items-center gap-3">
      {fault !== null && (
        <span role="alert" className="max-w-[46ch] text-note text-short-figure">
          {fault}
        </span>
      )}
      <button type="button" className="press" onClick={() => void out()}>
        Sign out
      </button>
    </span>
  );
};
