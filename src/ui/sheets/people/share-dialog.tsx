"use client";
import { useQuery } from "@tanstack/react-query";
import { useState } from "react";
import { IDENTITY_SHEETS, type ShareDto, type SheetName, shareSchema } from "@/contract";
import { getJson } from "../../api/client";
import { Field } from "../../controls/field";
import type { Opened } from "../../controls/lazy-part";
import { SheetDialog } from "../../controls/sheet-dialog";
import { FormTrouble } from "../../controls/use-submit";
import { lastDayText, SHEET_WORD } from "../../wording/people";
import { SheetTicks } from "./becomes-fields";
import { CopyLink } from "./copy-link";
import { IdentityPart } from "./identity-part";
import { inDays, MakeForm, useMaking } from "./make-once";
import { useEnding } from "./people-table";

const DAYS = 30;
const openedText = (s: ShareDto): string =>
  s.opened === 0
    ? "not opened yet"
    : `opened ${s.opened} ${s.opened === 1 ? "time" : "times"}, last ${new Date(s.lastOpenedAt!).toLocaleDateString("en-GB", { day: "numeric", month: "short" })}`;

/** Links by which others read chosen sheets of a job without an account. */
export const ShareDialog = ({ open, onOpenChange, jobId, jobName }: Opened & { jobId: string; jobName: string }) => {
  const key = ["shares", jobId];
  const { data } = useQuery({ queryKey: key, queryFn: ({ signal }) => getJson<ShareDto[]>(`/api/jobs/${jobId}/shares`, signal) });
  const [name, setName] = useState("");
  const [sheets, setSheets] = useState<readonly SheetName[]>(["section"]);
  const [endsOn, setEndsOn] = useState(() => inDays(DAYS));
  const [identityOut, setIdentityOut] = useState(false);
  const [told, setTold] = useState<readonly string[]>([]);
  const making = useMaking<{ url: string }>(shareSchema, `/api/jobs/${jobId}/shares`, key);
  const { fault, made } = making;
  const { ending, end } = useEnding(key);
  const another = (): void => {
    if (made !== null) {
      setName("");
      setTold([]);
    }
    making.leave();
  };
  return (
    <SheetDialog
      open={open}
      onOpenChange={(to) => {
        another();
        onOpenChange(to);
      }}
      title={`Share ${jobName}`}
      note="Whoever has the link reads the chosen sheets, without prices and without an account, until its day. They change nothing. Sites, positions and free text are told as they stand, unless you leave out who and where."
      width="slim"
    >
      {made === null ? (
        <MakeForm
          of={making}
          word="Make the link"
          submit={() => making.make({ name, sheets, endsOn, identityOut, told: identityOut ? told : [] })}
        >
          <Field label="For whom" value={name} maxLength={80} onChange={(e) => setName(e.target.value)} fault={fault.name} />
          <label className="flex min-h-[26px] items-center gap-2">
            <input
              type="checkbox"
              checked={identityOut}
              onChange={(e) => {
                setIdentityOut(e.target.checked);
                if (e.target.checked) setSheets((all) => all.filter((s) => !IDENTITY_SHEETS.includes(s)));
              }}
            />
            Leave out who and where
          </label>
          {identityOut && <IdentityPart jobId={jobId} told={told} onChange={setTold} />}
          <SheetTicks value={sheets} onChange={setSheets} fault={fault.sheets} without={identityOut ? IDENTITY_SHEETS : []} />
          <Field label="Last day it opens" type="date" value={endsOn} onChange={(e) => setEndsOn(e.target.value)} fault={fault.endsOn} />
        </MakeForm>
      ) : (
        <>
          <p className="m-0">Hand this link on. It is shown only now.</p>
          <CopyLink url={made.url} />
          <button type="button" className="press mt-4" onClick={another}>
            Make another
          </button>
        </>
      )}
      <FormTrouble of={ending} />
      {data !== undefined && data.length > 0 && (
        <ul aria-label="Links that were shared" className="m-0 mt-5 list-none border-t border-ink p-0">
          {data.map((s) => (
            <li key={s.id} className="flex flex-wrap items-baseline gap-x-3 border-b border-rule py-1.5">
              <span className="font-figure">{s.name}</span>
              <span className="text-ink-2">
                {s.sheets.map((x) => SHEET_WORD[x]).join(", ")}
                {s.identityOut ? ", without who and where" : ""}; {s.ended ? "over" : `until ${lastDayText(s.expiresAt)}`}; {openedText(s)}
              </span>
              {!s.ended && (
                <button
                  type="button"
                  className="press ml-auto"
                  disabled={ending.busy}
                  onClick={() => end(`/api/jobs/${jobId}/shares/${s.id}`)}
                >
                  Take back<span className="sr-only"> the link for {s.name}</span>
                </button>
              )}
            </li>
          ))}
        </ul>
      )}
    </SheetDialog>
  );
};
