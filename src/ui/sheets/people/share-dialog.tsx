"use client";
import { useQuery, useQueryClient } from "@tanstack/react-query";
import { Dialog } from "radix-ui";
import { useState } from "react";
import { IDENTITY_SHEETS, type ShareDto, type SheetName, shareSchema } from "@/contract";
import { deleteAt, getJson, postJson } from "../../api/client";
import { Field } from "../../controls/field";
import type { Opened } from "../../controls/lazy-part";
import { SheetDialog } from "../../controls/sheet-dialog";
import { FormTrouble, faultsOf, useSubmit } from "../../controls/use-submit";
import { lastDayText, SHEET_WORD } from "../../wording/people";
import { SheetTicks } from "./becomes-fields";
import { CopyLink } from "./copy-link";
import { IdentityPart } from "./identity-part";

const DAYS = 30;
const inDays = (days: number): string => new Date(Date.now() + days * 86_400_000).toISOString().slice(0, 10);
const openedText = (s: ShareDto): string =>
  s.opened === 0
    ? "not opened yet"
    : `opened ${s.opened} ${s.opened === 1 ? "time" : "times"}, last ${new Date(s.lastOpenedAt!).toLocaleDateString("en-GB", { day: "numeric", month: "short" })}`;

/** Links by which others read chosen sheets of a job without an account. */
export const ShareDialog = ({ open, onOpenChange, jobId, jobName }: Opened & { jobId: string; jobName: string }) => {
  const client = useQueryClient();
  const key = ["shares", jobId];
  const { data } = useQuery({ queryKey: key, queryFn: ({ signal }) => getJson<ShareDto[]>(`/api/jobs/${jobId}/shares`, signal) });
  const [name, setName] = useState("");
  const [sheets, setSheets] = useState<readonly SheetName[]>(["section"]);
  const [endsOn, setEndsOn] = useState(() => inDays(DAYS));
  const [identityOut, setIdentityOut] = useState(false);
  const [told, setTold] = useState<readonly string[]>([]);
  const [faults, setFaults] = useState<Readonly<Record<string, string>>>({});
  const [made, setMade] = useState<string | null>(null);
  const sending = useSubmit();
  const ending = useSubmit();
  const submit = (): void => {
    const read = shareSchema.safeParse({ name, sheets, endsOn, identityOut, told: identityOut ? told : [] });
    setFaults(faultsOf(read));
    if (!read.success) return;
    void sending.run(async () => {
      setMade((await postJson<{ url: string }>(`/api/jobs/${jobId}/shares`, read.data)).url);
      setName("");
      setTold([]);
      await client.invalidateQueries({ queryKey: key });
    });
  };
  const end = (id: string): void =>
    void ending.run(async () => {
      await deleteAt(`/api/jobs/${jobId}/shares/${id}`);
      await client.invalidateQueries({ queryKey: key });
    });
  return (
    <SheetDialog
      open={open}
      onOpenChange={(to) => {
        setMade(null);
        onOpenChange(to);
      }}
      title={`Share ${jobName}`}
      note="Whoever has the link reads the chosen sheets, without prices and without an account, until its day. They change nothing. Sites, positions and free text are told as they stand, unless you leave out who and where."
      width="slim"
    >
      {made === null ? (
        <form
          noValidate
          className="grid gap-3.5"
          onSubmit={(e) => {
            e.preventDefault();
            submit();
          }}
        >
          <Field label="For whom" value={name} maxLength={80} onChange={(e) => setName(e.target.value)} fault={faults.name} />
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
          <SheetTicks value={sheets} onChange={setSheets} fault={faults.sheets} without={identityOut ? IDENTITY_SHEETS : []} />
          <Field label="Last day it opens" type="date" value={endsOn} onChange={(e) => setEndsOn(e.target.value)} fault={faults.endsOn} />
          <FormTrouble of={sending} />
          <div className="flex items-center gap-6">
            <button type="submit" className="main-action" disabled={sending.busy}>
              Make the link
            </button>
            <Dialog.Close className="press">Leave it</Dialog.Close>
          </div>
        </form>
      ) : (
        <>
          <p className="m-0">Hand this link on. It is shown only now.</p>
          <CopyLink url={made} />
          <button type="button" className="press mt-4" onClick={() => setMade(null)}>
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
                <button type="button" className="press ml-auto" disabled={ending.busy} onClick={() => end(s.id)}>
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
