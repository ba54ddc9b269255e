"use client";
import { Dialog } from "radix-ui";
import { useState } from "react";
import { basisSchema, type JobDto } from "@/contract";
import { bodyOf } from "../../api/client";
import { ClashNotice } from "../../controls/clash-notice";
import { Choice, Field } from "../../controls/field";
import type { Opened } from "../../controls/lazy-part";
import { SheetDialog } from "../../controls/sheet-dialog";
import { useJobHistory } from "../../state/job-history";
import { usePreferences } from "../../state/preferences";
import { useRecord, useRecordState } from "../../state/use-record";
import { errorSentence } from "../../wording/errors";
import type { Units } from "../../wording/numbers";
import { BASIS_GROUPS, type BasisField, basisLabel, basisOther, basisText, basisValue } from "./basis-fields";

const faultOf = (f: BasisField, text: string, units: Units): string | undefined => {
  const value = basisValue(f, text, units);
  if (value === undefined) return text.trim() === "" ? "Type a number." : `"${text}" is not a number.`;
  const checked = basisSchema.shape[f.key].safeParse(value);
  return checked.success ? undefined : (checked.error.issues[0]?.message ?? "not as expected");
};

/** The job's working rules and assumptions: saved as they are changed, undoable. */
export const BasisDialog = ({ job: read, open, onOpenChange }: { job: JobDto } & Opened) => {
  const { units } = usePreferences();
  const [draft, setDraft] = useState<Readonly<Record<string, string>>>({});
  const [trouble, setTrouble] = useState<string | null>(null);
  const record = useRecord(read.id, "job", read);
  const { fields, status, setAside } = useRecordState(record);
  const job: JobDto = { ...read, ...fields };
  const say = (error: unknown): void => setTrouble(errorSentence(bodyOf(error)));
  const history = useJobHistory(read.id, say);
  const forget = (key: string): void =>
    setDraft((d) => {
      const { [key]: _gone, ...rest } = d;
      return rest;
    });
  const save = (f: BasisField, text: string): void => {
    if (faultOf(f, text, units) !== undefined) return;
    forget(f.key);
    // A figure typed as it was shown (a k of 1.3333) is no change.
    if (text === basisText(job, f, units)) return;
    setTrouble(null);
    record.change({ [f.key]: basisValue(f, text, units) });
  };
  const said = status.kind === "refused" || status.kind === "kept" ? errorSentence(status.reason, units) : trouble;

  return (
    <SheetDialog
      open={open}
      onOpenChange={onOpenChange}
      title="Basis of the job"
      width="wide"
      note="Every change is saved when you leave its field, and every link of the job follows."
      onEscape={() => Object.keys(draft).length > 0}
    >
      <ClashNotice kind="job" status={status} setAside={setAside} units={units} resolve={record.resolve} recall={record.recall} />
      <div className="grid grid-cols-1 gap-x-8 gap-y-4 min-[760px]:grid-cols-2">
        {BASIS_GROUPS.map((g) => (
          <fieldset key={g.title} className="m-0 min-w-0 border-0 border-t border-ink p-0 pt-2">
            <legend className="float-left mb-1 w-full p-0 text-press font-bold">{g.title}</legend>
            <p className="cap m-0 mb-2 w-full">{g.note}</p>
            <div className="grid grid-cols-2 gap-x-5 gap-y-2">
              {g.fields.map((f) => {
                const text = draft[f.key] ?? basisText(job, f, units);
                if (f.kind === "choice") {
                  return (
                    <Choice key={f.key} label={f.label} value={text} onChange={(e) => save(f, e.target.value)}>
                      {f.options.map(([value, words]) => (
                        <option key={value} value={value}>
                          {words}
                        </option>
                      ))}
                    </Choice>
                  );
                }
                return (
                  <Field
                    key={f.key}
                    label={basisLabel(f, units)}
                    note={basisOther(job, f, units)}
                    inputMode="decimal"
                    value={text}
                    fault={draft[f.key] === undefined ? undefined : faultOf(f, text, units)}
                    onChange={(e) => setDraft({ ...draft, [f.key]: e.target.value })}
                    onBlur={() => {
                      if (draft[f.key] !== undefined) save(f, text);
                    }}
                    onKeyDown={(e) => {
                      if (e.key === "Enter" && draft[f.key] !== undefined) save(f, text);
                      if (e.key === "Escape") forget(f.key);
                    }}
                  />
                );
              })}
            </div>
          </fieldset>
        ))}
      </div>
      {said !== null && (
        <p role="alert" className="mb-0 mt-3 text-short-figure">
          {said}
        </p>
      )}
      <div className="mt-5 flex items-center gap-6">
        <Dialog.Close className="main-action">Done</Dialog.Close>
        <button type="button" className="press" disabled={!history.canUndo} onClick={history.undo}>
          Undo
        </button>
        <button type="button" className="press" disabled={!history.canRedo} onClick={history.redo}>
          Redo
        </button>
        <span role="status" className="cap">
          {history.last ?? "Kept in the job's log of changes."}
        </span>
      </div>
    </SheetDialog>
  );
};
