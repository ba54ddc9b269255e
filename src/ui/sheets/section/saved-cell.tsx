"use client";
import { VerdictMark } from "../../marks/verdict-mark";
import type { SaveStatus } from "../../state/design-store";
import { errorSentence } from "../../wording/errors";

const clock = (at: Date): string => at.toLocaleTimeString("en-GB", { hour: "2-digit", minute: "2-digit" });

/** The saved state in the title strip. */
export const SavedCell = ({ status }: { status: SaveStatus }) => (
  <span
    role="status"
    data-testid="saved"
    title={status.kind === "kept" || status.kind === "refused" ? errorSentence(status.reason) : undefined}
  >
    {status.kind === "saved" && (status.at === null ? "all edits" : `${clock(status.at)}, all edits`)}
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
        <VerdictMark verdict="short" a={7} /> {errorSentence(status.reason)}
      </span>
    )}
  </span>
);

export const ClashNotice = ({ resolve }: { resolve: (keep: "mine" | "theirs") => void }) => (
  <div role="alert" className="border-b border-ink px-3.5 py-3">
    <p className="m-0 mb-2">
      Someone else changed this design while you did. Nothing is lost: choose which stands; undo brings the other back.
    </p>
    <div className="flex gap-4">
      <button type="button" className="press" onClick={() => resolve("mine")}>
        Keep mine
      </button>
      <button type="button" className="press" onClick={() => resolve("theirs")}>
        Take theirs
      </button>
    </div>
  </div>
);
