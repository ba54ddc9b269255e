"use client";
import { Dialog } from "radix-ui";
import { useState } from "react";
import { type BecomesDto, type Role, type TokenMadeDto, tokenSchema } from "@/contract";
import { Field } from "../../controls/field";
import type { Opened } from "../../controls/lazy-part";
import { SheetDialog } from "../../controls/sheet-dialog";
import { BecomesFields } from "./becomes-fields";
import { CopyLink } from "./copy-link";
import { inDays, MakeForm, useMaking } from "./make-once";
import { TOKENS } from "./people-keys";

/** Who only looks is the least: more is chosen. */
const LEAST: BecomesDto = { role: "viewer", jobIds: null, sheets: null };
const MAY_BE: readonly Role[] = ["viewer", "installer", "planner"];

/** Makes a token for a program; it is shown once. */
export const TokenDialog = ({ open, onOpenChange }: Opened) => {
  const making = useMaking<TokenMadeDto>(tokenSchema, "/api/tokens", TOKENS);
  const { fault, made } = making;
  const [name, setName] = useState("");
  const [becomes, setBecomes] = useState<BecomesDto>(LEAST);
  const [endsOn, setEndsOn] = useState(() => inDays(90));
  const close = (to: boolean): void => {
    if (!to) {
      making.leave();
      setName("");
      setBecomes(LEAST);
    }
    onOpenChange(to);
  };
  if (made !== null)
    return (
      <SheetDialog open={open} onOpenChange={close} title={`Token for ${name}`} width="slim">
        <p className="m-0">
          Copy it into the program's settings now: it is shown only here, and kept only as a checksum. Whoever has it comes in as it does.
        </p>
        <CopyLink url={made.token} label="The token" />
        <p className="m-0 mt-3 text-note text-ink-2">
          Sent with each request as <code className="font-mono">Authorization: Bearer {made.token.slice(0, 10)}…</code>
        </p>
        <Dialog.Close className="press mt-5">Done</Dialog.Close>
      </SheetDialog>
    );
  return (
    <SheetDialog open={open} onOpenChange={close} title="Make a token" width="slim">
      <MakeForm of={making} word="Make it" submit={() => making.make({ name, becomes, endsOn })}>
        <Field label="What it is for" autoComplete="off" value={name} onChange={(e) => setName(e.target.value)} fault={fault.name} />
        <BecomesFields value={becomes} onChange={setBecomes} roles={MAY_BE} fault={fault.becomes} />
        <Field
          label="Last day"
          type="date"
          value={endsOn}
          onChange={(e) => setEndsOn(e.target.value)}
          fault={fault.endsOn}
          note="a year at most"
        />
      </MakeForm>
    </SheetDialog>
  );
};
