"use client";
import { VerdictMark } from "../../marks/verdict-mark";
import { useOpen } from "../../state/me";
import type { SaveStatus } from "../../state/record";
import { errorSentence } from "../../wording/errors";

const clock = (at: Date): string => at.toLocaleTimeString("en-GB", { hour: "2-digit", minute: "2-digit" });

/** The saved state in the title strip; what was just taken back stands there until the next edit. */
export const SavedCell = ({ status, last = null }: { status: SaveStatus<object>; last?: string | null }) => {
  const { readsOnly } = useOpen();
  // Said once, on every sheet: whoever only reads is not to find it out at the first edit.
  if (readsOnly && status.kind === "saved") return <span data-testid="saved">you only read this job</span>;
  return (
    <span
      role="status"
      data-testid="saved"
      title={status.kind === "kept" || status.kind === "refused" ? errorSentence(status.reason) : undefined}
    >
      {status.kind === "saved" && `${status.at === null ? "" : `${clock(status.at)}, `}all edits${last === null ? "" : `; ${last}`}`}
      {status.kind === "typing" && "Enter keeps, Escape restores"}
      {status.kind === "saving" && "saving"}
      {status.kind === "kept" && (
        <span className="v-short">
          <VerdictMark verdict="short" a={7} /> not saved, {status.edits} {status.edits === 1 ? "edit" : "edits"} kept here
        </span>
      )}
      {status.kind === "clash" && (
        <span className="v-tight">
          <VerdictMark verdict="tight" a={7} /> changed elsewhere
        </span>
      )}
      {status.kind === "refused" && (
        <span className="v-short">
          <VerdictMark verdict="short" a={7} /> {status.reason.code === "not-allowed" ? "not open to you" : errorSentence(status.reason)}
        </span>
      )}
    </span>
  );
};
