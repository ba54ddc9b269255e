"use client";
import { Dialog } from "radix-ui";
import { useState } from "react";
import { type WebhookMadeDto, webhookSchema } from "@/contract";
import { Choice, Field } from "../../controls/field";
import type { Opened } from "../../controls/lazy-part";
import { SheetDialog } from "../../controls/sheet-dialog";
import { JobTicks } from "./becomes-fields";
import { CopyLink } from "./copy-link";
import { MakeForm, useMaking } from "./make-once";
import { WEBHOOKS } from "./people-keys";

/** Has a program called when something changes; what its calls are signed by is shown once. */
export const CallDialog = ({ open, onOpenChange }: Opened) => {
  const making = useMaking<WebhookMadeDto>(webhookSchema, "/api/webhooks", WEBHOOKS);
  const { fault, made } = making;
  const [name, setName] = useState("");
  const [url, setUrl] = useState("");
  const [jobIds, setJobIds] = useState<readonly string[] | null>(null);
  const close = (to: boolean): void => {
    if (!to) {
      making.leave();
      setName("");
      setUrl("");
      setJobIds(null);
    }
    onOpenChange(to);
  };
  if (made !== null)
    return (
      <SheetDialog open={open} onOpenChange={close} title={`Calls for ${name}`} width="slim">
        <p className="m-0">
          Copy this into the program that is called: it is shown only here. By it the program knows that a call comes from this server and
          from nobody else.
        </p>
        <CopyLink url={made.secret} label="What calls are signed by" />
        <p className="m-0 mt-3 text-note text-ink-2">
          The signature stands in the head of each call, as <code className="font-mono">webhook-signature</code>; how it is made is written
          under Interface.
        </p>
        <Dialog.Close className="press mt-5">Done</Dialog.Close>
      </SheetDialog>
    );
  return (
    <SheetDialog open={open} onOpenChange={close} title="Have a program called" width="slim">
      <MakeForm of={making} word="Make it" submit={() => making.make({ name, url, jobIds })}>
        <Field label="What it is for" autoComplete="off" value={name} onChange={(e) => setName(e.target.value)} fault={fault.name} />
        <Field
          label="Address"
          type="url"
          autoComplete="off"
          spellCheck={false}
          value={url}
          onChange={(e) => setUrl(e.target.value)}
          fault={fault.url}
          note="https://…; this machine and its network only where the operator allows it (README, Deployment)"
        />
        <Choice label="Told of" value={jobIds === null ? "all" : "some"} onChange={(e) => setJobIds(e.target.value === "all" ? null : [])}>
          <option value="all">all jobs of the firm</option>
          <option value="some">only the ones ticked below</option>
        </Choice>
        {jobIds !== null && <JobTicks value={jobIds} onChange={setJobIds} />}
        {fault.jobIds !== undefined && (
          <p role="alert" className="m-0 text-short-figure">
            {fault.jobIds}
          </p>
        )}
      </MakeForm>
    </SheetDialog>
  );
};
