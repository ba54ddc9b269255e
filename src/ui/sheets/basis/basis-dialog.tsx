"use client";
import { Dialog } from "radix-ui";
import { useRef, useState } from "react";
import { basisSchema, type JobDto } from "@/contract";
import { ApiError } from "../../api/client";
import { useRefresh } from "../../api/queries";
import { Choice, Field } from "../../controls/field";
import { sendEdit } from "../../state/browser-outbox";
import { usePreferences } from "../../state/preferences";
import { useUndoStack } from "../../state/undo-stack";
import { errorSentence } from "../../wording/errors";
import type { Units } from "../../wording/numbers";
import { policyText } from "../../wording/policy";
import { BASIS_GROUPS, type BasisField, basisLabel, basisOther, basisText, basisValue } from "./basis-fields";

type Values = Record<string, unknown>;

const faultOf = (f: BasisField, text: string, units: Units): string | undefined => {
  const value = basisValue(f, text, units);
  if (value === undefined) return text.trim() === "" ? "Type a number." : `"${text}" is not a number.`;
  const checked = basisSchema.shape[f.key].safeParse(value);
  return checked.success ? undefined : (checked.error.issues[0]?.message ?? "not as expected");
};

/** The job's working rules and assumptions: opened from the policy in the title strip, saved as they are changed, undoable. */
export const BasisDialog = ({ job }: { job: JobDto }) => {
  const refresh = useRefresh();
  const { units } = usePreferences();
  const [draft, setDraft] = useState<Readonly<Record<string, string>>>({});
  const [trouble, setTrouble] = useState<string | null>(null);
  // The newest version known: what the server answered may be ahead of what was last read.
  const version = useRef(job.version);
  version.current = Math.max(version.current, job.version);
  /** Values on their way: leaving a field after Enter must not send it again. */
  const sending = useRef(new Map<string, unknown>());
  const say = (error: unknown): void => setTrouble(errorSentence(error instanceof ApiError ? error.body : { code: "internal" }));
  const stack = useUndoStack(say);

  const send = async (values: Values): Promise<void> => {
    const row = await sendEdit<JobDto>(job.id, "PATCH", `/api/jobs/${job.id}`, { ...values, version: version.current });
    version.current = row.version;
    await refresh(job.id);
  };
  const forget = (key: string): void =>
    setDraft((d) => {
      const { [key]: _gone, ...rest } = d;
      return rest;
    });
  const save = (f: BasisField, text: string): void => {
    const value = basisValue(f, text, units);
    const before = (job as unknown as Values)[f.key];
    if (faultOf(f, text, units) !== undefined || sending.current.get(f.key) === value) return;
    // A figure typed as it was shown (a k of 1.3333) is no change.
    if (value === before || text === basisText(job, f, units)) {
      forget(f.key);
      return;
    }
    setTrouble(null);
    sending.current.set(f.key, value);
    stack
      .perform(async () => {
        await send({ [f.key]: value });
        forget(f.key);
        return { undo: () => send({ [f.key]: before }), redo: () => send({ [f.key]: value }) };
      })
      .catch((error: unknown) => {
        if (error instanceof ApiError && error.body.code === "clash") {
          version.current = (error.body.current as JobDto).version;
          void refresh(job.id);
        }
        say(error);
      })
      .finally(() => sending.current.delete(f.key));
  };

  return (
    <Dialog.Root>
      <Dialog.Trigger className="press max-w-full truncate font-[inherit]" data-testid="basis">
        {policyText(job)}
      </Dialog.Trigger>
      <Dialog.Portal>
        <Dialog.Overlay className="fixed inset-0 bg-ink/30" />
        <Dialog.Content
          aria-describedby={undefined}
          className="fixed left-1/2 top-1/2 max-h-[94vh] w-[940px] max-w-[96vw] -translate-x-1/2 -translate-y-1/2 overflow-auto border-[1.6px] border-ink bg-paper p-6"
        >
          <Dialog.Title className="m-0 text-[21px] font-bold">Basis of the job</Dialog.Title>
          <p className="cap mb-3 mt-0.5">Every change is saved when you leave its field, and every link of the job follows.</p>
          <div className="grid grid-cols-1 gap-x-8 gap-y-4 min-[760px]:grid-cols-2">
            {BASIS_GROUPS.map((g) => (
              <fieldset key={g.title} className="m-0 min-w-0 border-0 border-t border-ink p-0 pt-2">
                <legend className="float-left mb-1 w-full p-0 text-[15px] font-bold">{g.title}</legend>
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
                        }}
                      />
                    );
                  })}
                </div>
              </fieldset>
            ))}
          </div>
          {trouble !== null && (
            <p role="alert" className="mb-0 mt-3 text-short-figure">
              {trouble}
            </p>
          )}
          <div className="mt-5 flex items-center gap-6">
            <Dialog.Close className="main-action">Done</Dialog.Close>
            <button type="button" className="press" disabled={!stack.canUndo} onClick={stack.undo}>
              Undo
            </button>
            <button type="button" className="press" disabled={!stack.canRedo} onClick={stack.redo}>
              Redo
            </button>
            <span className="cap">Kept in the job's log of changes.</span>
          </div>
        </Dialog.Content>
      </Dialog.Portal>
    </Dialog.Root>
  );
};
