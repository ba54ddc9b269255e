"use client";
import { useState } from "react";
import type { ChangeDto, HistoryDto } from "@/contract";
import { ApiError, bodyOf, getJson } from "../api/client";
import { useHistory } from "../api/queries";
import type { JobHistory } from "../state/job-history";
import { usePreferences } from "../state/preferences";
import { errorSentence } from "../wording/errors";
import { type Fold, folded, foldText, stepText } from "../wording/history";
import { Trouble } from "./trouble";

const when = (iso: string): string =>
  new Date(iso).toLocaleString("en-GB", { day: "numeric", month: "short", hour: "2-digit", minute: "2-digit" });
const byWhom = (c: ChangeDto): string => (c.mine ? "here" : c.by === null ? "by the program" : `in another browser, ${c.by}`);

/** Every edit of the job, newest first; each can be taken back unless something later rests on it. */
export const HistoryPanel = ({ jobId, takeBack }: { jobId: string; takeBack: JobHistory["takeBack"] }) => {
  const history = useHistory(jobId);
  const { units } = usePreferences();
  const [fault, setFault] = useState<string | null>(null);
  const [earlier, setEarlier] = useState<HistoryDto | null>(null);
  const say = (error: unknown): void =>
    setFault(
      error instanceof ApiError && error.body.code === "clash"
        ? "Something was changed there later; take that back first."
        : errorSentence(bodyOf(error)),
    );
  const step = (changeId: number): void => {
    setFault(null);
    takeBack(changeId).catch(say);
  };
  const newest = history.data?.changes ?? [];
  // What was read as earlier may have come into the newest meanwhile.
  const known = new Set(newest.map((c) => c.id));
  const changes = [...newest, ...(earlier?.changes ?? []).filter((c) => !known.has(c.id))];
  const more = earlier?.more ?? history.data?.more ?? false;
  const readMore = (): void => {
    getJson<HistoryDto>(`/api/jobs/${jobId}/history?before=${changes[changes.length - 1]!.id}`)
      .then((next) => setEarlier({ ...next, changes: [...(earlier?.changes ?? []), ...next.changes] }))
      .catch(say);
  };
  return (
    <div className="grid gap-2">
      <p className="cap m-0">Every edit of this job, newest first, by whoever made it.</p>
      {fault !== null && (
        <p role="alert" className="m-0 text-short-figure">
          {fault}
        </p>
      )}
      {history.data === undefined && <Trouble error={history.error} waiting="Reading the history." />}
      <ol className="m-0 list-none p-0" data-testid="history">
        {folded(changes).map((fold) => (
          <Line key={fold.all[fold.all.length - 1]!.id} fold={fold} units={units} step={step} />
        ))}
      </ol>
      {more && (
        <button type="button" className="press justify-self-start" onClick={readMore}>
          Earlier edits
        </button>
      )}
    </div>
  );
};

const Line = ({ fold, units, step }: { fold: Fold; units: "metric" | "imperial"; step: (id: number) => void }) => {
  const [open, setOpen] = useState(false);
  const { first, all } = fold;
  return (
    <li className="border-b border-rule py-1">
      <span className={first.undone ? "line-through" : ""}>{foldText(fold, units)}</span>
      <span className="cap flex justify-between gap-2">
        <span>
          {when(first.at)}, {byWhom(first)}
        </span>
        {all.length > 1 ? (
          <button type="button" className="press text-note text-ink" aria-expanded={open} onClick={() => setOpen(!open)}>
            {open ? "Fold" : `Show ${all.length}`}
          </button>
        ) : (
          first.undoable && <TakeBack change={first} step={step} />
        )}
      </span>
      {open && (
        <ol className="m-0 list-none p-0 pl-3">
          {all.map((c) => (
            <li key={c.id} className="flex justify-between gap-2 py-0.5">
              <span className={c.undone ? "line-through" : ""}>{stepText(c, units)}</span>
              {c.undoable && <TakeBack change={c} step={step} />}
            </li>
          ))}
        </ol>
      )}
    </li>
  );
};

const TakeBack = ({ change, step }: { change: ChangeDto; step: (id: number) => void }) => (
  <button type="button" className="press flex-none text-note text-ink" onClick={() => step(change.id)}>
    {change.undone ? "Do again" : "Take back"}
  </button>
);
