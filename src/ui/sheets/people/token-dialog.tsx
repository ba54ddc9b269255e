"use client";
import { useQueryClient } from "@tanstack/react-query";
import { Dialog } from "radix-ui";
import { useState } from "react";
import { type BecomesDto, type Role, type TokenMadeDto, tokenSchema } from "@/contract";
import { postJson } from "../../api/client";
import { Field } from "../../controls/field";
import type { Opened } from "../../controls/lazy-part";
import { SheetDialog } from "../../controls/sheet-dialog";
import { FormTrouble, faultsOf, useSubmit } from "../../controls/use-submit";
import { BecomesFields } from "./becomes-fields";
import { CopyLink } from "./copy-link";
import { TOKENS } from "./people-keys";

/** Who only looks is the least: more is chosen. */
const LEAST: BecomesDto = { role: "viewer", jobIds: null, sheets: null };
const MAY_BE: readonly Role[] = ["viewer", "installer", "planner"];
const inDays = (days: number): string => new Date(Date.now() + days * 86_400_000).toISOString().slice(0, 10);

/** Makes a token for a program; it is shown once. */
export const TokenDialog = ({ open, onOpenChange }: Opened) => {
  const sending = useSubmit();
  const client = useQueryClient();
  const [name, setName] = useState("");
  const [becomes, setBecomes] = useState<BecomesDto>(LEAST);
  const [endsOn, setEndsOn] = useState(() => inDays(90));
  const [fault, setFault] = useState<Readonly<Record<string, string>>>({});
  const [made, setMade] = useState<TokenMadeDto | null>(null);
  const close = (to: boolean): void => {
    if (!to) {
      setMade(null);
      setName("");
      setBecomes(LEAST);
    }
    onOpenChange(to);
  };
  const make = (): void => {
    const read = tokenSchema.safeParse({ name, becomes, endsOn });
    setFault(faultsOf(read));
    if (!read.success) return;
    void sending.run(async () => {
      setMade(await postJson<TokenMadeDto>("/api/tokens", read.data));
      await client.invalidateQueries({ queryKey: TOKENS });
    });
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
      <form
        noValidate
        className="grid gap-3.5"
        onSubmit={(e) => {
          e.preventDefault();
          make();
        }}
      >
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
        <FormTrouble of={sending} />
        <div className="flex items-center gap-6">
          <button type="submit" className="main-action" disabled={sending.busy}>
            Make it
          </button>
          <Dialog.Close className="press">Leave it</Dialog.Close>
        </div>
      </form>
    </SheetDialog>
  );
};
