"use client";
import { useState } from "react";
import { ApiError } from "../../api/client";
import { useHistory, useRefresh } from "../../api/queries";
import { Trouble } from "../../frame/trouble";
import { sendEdit } from "../../state/browser-outbox";
import { errorSentence } from "../../wording/errors";
import { stepText } from "../../wording/history";

const when = (iso: string): string =>
  new Date(iso).toLocaleString("en-GB", { day: "numeric", month: "short", hour: "2-digit", minute: "2-digit" });

/** Every edit of the job, newest first; each can be taken back unless something later rests on it. */
export const HistoryPanel = ({ jobId, onStep }: { jobId: string; onStep: () => void }) => {
  const history = useHistory(jobId);
  const refresh = useRefresh();
  const [fault, setFault] = useState<string | null>(null);
  const step = async (changeId: number): Promise<void> => {
    setFault(null);
    try {
      await sendEdit(jobId, "POST", `/api/jobs/${jobId}/history`, { changeId });
      onStep();
    } catch (error) {
      setFault(
        error instanceof ApiError && error.body.code === "clash"
          ? "Something was changed there later; take that back first."
          : errorSentence(error instanceof ApiError ? error.body : { code: "internal" }),
      );
    }
    await refresh(jobId);
  };
  return (
    <div className="grid gap-2">
      <p className="cap m-0">The latest hundred edits of this job, by whoever made them.</p>
      {fault !== null && (
        <p role="alert" className="m-0 text-short-figure">
          {fault}
        </p>
      )}
      {history.data === undefined && <Trouble error={history.error} waiting="Reading the history." />}
      <ol className="m-0 list-none p-0" data-testid="history">
        {history.data?.changes.map((c) => (
          <li key={c.id} className="border-b border-rule py-1">
            <span className={c.undone ? "line-through" : ""}>{stepText(c)}</span>
            <span className="cap flex justify-between gap-2">
              <span>
                {when(c.at)}, {c.mine ? "here" : "elsewhere"}
              </span>
              {c.undoable && (
                <button type="button" className="press text-[12.5px] text-ink" onClick={() => void step(c.id)}>
                  {c.undone ? "Do again" : "Take back"}
                </button>
              )}
            </span>
          </li>
        ))}
      </ol>
    </div>
  );
};
