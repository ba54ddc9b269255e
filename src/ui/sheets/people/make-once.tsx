"use client";
import { useQueryClient } from "@tanstack/react-query";
import { Dialog } from "radix-ui";
import { type ReactNode, useState } from "react";
import type { z } from "zod";
import { postJson } from "../../api/client";
import { FormTrouble, faultsOf, type Submit, useSubmit } from "../../controls/use-submit";

/* What is made and shown once: an invitation, a token, a link, what calls are signed by. */

/** A day so many days from today, as an ISO date. */
export const inDays = (days: number): string => new Date(Date.now() + days * 86_400_000).toISOString().slice(0, 10);

export interface Making<Made> {
  readonly sending: Submit;
  readonly fault: Readonly<Record<string, string>>;
  /** What was made; null until then. */
  readonly made: Made | null;
  readonly make: (value: unknown) => void;
  /** Begins anew. */
  readonly leave: () => void;
}

/** Makes one at an address, once its schema has read it, and reads the list of them again. @param key where the browser keeps that. */
export const useMaking = <Made,>(schema: z.ZodType, address: string, key: readonly string[]): Making<Made> => {
  const sending = useSubmit();
  const client = useQueryClient();
  const [fault, setFault] = useState<Readonly<Record<string, string>>>({});
  const [made, setMade] = useState<Made | null>(null);
  const make = (value: unknown): void => {
    const read = schema.safeParse(value);
    setFault(faultsOf(read));
    if (!read.success) return;
    void sending.run(async () => {
      setMade(await postJson<Made>(address, read.data));
      await client.invalidateQueries({ queryKey: key });
    });
  };
  const leave = (): void => {
    setMade(null);
    setFault({});
  };
  return { sending, fault, made, make, leave };
};

/** Its form: the fields, what went wrong, and the two ways on. */
export const MakeForm = ({
  of,
  word,
  submit,
  children,
}: {
  of: Pick<Making<unknown>, "sending">;
  word: string;
  submit: () => void;
  children: ReactNode;
}) => (
  <form
    noValidate
    className="grid gap-3.5"
    onSubmit={(e) => {
      e.preventDefault();
      submit();
    }}
  >
    {children}
    <FormTrouble of={of.sending} />
    <div className="flex items-center gap-6">
      <button type="submit" className="main-action" disabled={of.sending.busy}>
        {word}
      </button>
      <Dialog.Close className="press">Leave it</Dialog.Close>
    </div>
  </form>
);
