"use client";
import { useQuery } from "@tanstack/react-query";
import { type FormEvent, type ReactNode, useEffect, useState } from "react";
import type { z } from "zod";
import { acceptSchema, firstOwnerSchema, forgotSchema, pairSchema, resetSchema } from "@/contract";
import { bodyOf, postJson } from "../../api/client";
import { Field } from "../../controls/field";
import { FormTrouble, faultsOf, type Submit, useSubmit } from "../../controls/use-submit";
import { Door } from "../../frame/door";
import { askMe } from "../../state/me";
import { errorSentence } from "../../wording/errors";
import { ROLE_NAME } from "../../wording/people";
import { PasswordField } from "./password-field";
import { useSecret } from "./secret";

/* The ways in that a link opens: for the first owner, who was invited, a phone, and who forgot their password. */

const PASSWORD_NOTE = "Twelve letters or more; a few plain words in a row are good.";

interface Asked<T> {
  readonly sending: Submit;
  readonly faults: Readonly<Record<string, string>>;
  readonly submit: (event: FormEvent<HTMLFormElement>) => void;
  readonly data?: T;
}

/** Fields at which a fault that the server found is said. */
const FIELDS: readonly string[] = ["organisation", "name", "email", "password"];

/** A form whose fields are read by a schema and then sent; each fault stands at its field. */
const useAsked = <T,>(schema: z.ZodType<T>, more: object, send: (data: T) => Promise<void>): Asked<T> => {
  const sending = useSubmit();
  const [faults, setFaults] = useState<Readonly<Record<string, string>>>({});
  const submit = (event: FormEvent<HTMLFormElement>): void => {
    event.preventDefault();
    const read = schema.safeParse({ ...Object.fromEntries(new FormData(event.currentTarget)), ...more });
    setFaults(faultsOf(read));
    if (read.success) void sending.run(() => send(read.data));
  };
  const { at, fault } = sending;
  if (at === null || fault === null || !FIELDS.includes(at)) return { sending, faults, submit };
  return { sending: { ...sending, fault: null }, faults: { ...faults, [at]: fault }, submit };
};

const Form = ({ of, action, children }: { of: Asked<unknown>; action: string; children: ReactNode }) => (
  <form onSubmit={of.submit} noValidate className="grid gap-4">
    {children}
    <FormTrouble of={of.sending} />
    <div>
      <button type="submit" className="main-action" disabled={of.sending.busy}>
        {action}
      </button>
    </div>
  </form>
);

const NoLink = ({ title, children }: { title: string; children: ReactNode }) => (
  <Door title={title} note={children}>
    {null}
  </Door>
);

const home = async (): Promise<void> => {
  await askMe();
  window.location.assign("/");
};

/** The first who comes becomes the owner, by the link that the server's terminal shows. */
export const FirstSheet = () => {
  const code = useSecret();
  const form = useAsked(firstOwnerSchema, { code: code ?? "" }, async (data) => {
    await postJson("/api/first-owner", data);
    await home();
  });
  if (code === undefined) return null;
  if (code === null)
    return <NoLink title="First owner">Open the link that the terminal shows in which the server was started; it holds the code.</NoLink>;
  return (
    <Door
      title="First owner"
      note="You become the owner of this server's firm: you invite the others, and say what is open to whom. Jobs that are here already become the firm's."
    >
      <Form of={form} action="Become the owner">
        <Field label="Name of the firm" name="organisation" autoFocus autoComplete="organization" fault={form.faults.organisation} />
        <Field label="Your name" name="name" autoComplete="name" fault={form.faults.name} />
        <Field label="E-mail address" name="email" type="email" autoComplete="username" fault={form.faults.email} />
        <PasswordField label="Password" name="password" autoComplete="new-password" note={PASSWORD_NOTE} fault={form.faults.password} />
      </Form>
    </Door>
  );
};

/** Joins a firm by an invitation. */
export const JoinSheet = () => {
  const token = useSecret();
  const look = useQuery({
    queryKey: ["invitation", token],
    queryFn: () => postJson<{ email: string; organisation: string; role: keyof typeof ROLE_NAME }>("/api/join", { token }),
    enabled: typeof token === "string",
    staleTime: Number.POSITIVE_INFINITY,
    refetchOnWindowFocus: false,
  });
  const form = useAsked(acceptSchema, { token: token ?? "" }, async (data) => {
    await postJson("/api/join", data);
    await home();
  });
  if (token === undefined || (token !== null && look.isPending)) return null;
  if (token === null || look.data === undefined)
    return <NoLink title="Invitation">{errorSentence(token === null ? { code: "link-used" } : bodyOf(look.error))}</NoLink>;
  const { email, organisation, role } = look.data;
  return (
    <Door
      title={`Join ${organisation}`}
      note={`As ${ROLE_NAME[role].toLowerCase()}. You sign in with ${email} and the password you choose now.`}
    >
      <Form of={form} action="Join">
        <input type="hidden" autoComplete="username" value={email} readOnly />
        <Field label="Your name" name="name" autoFocus autoComplete="name" fault={form.faults.name} />
        <PasswordField label="Password" name="password" autoComplete="new-password" note={PASSWORD_NOTE} fault={form.faults.password} />
      </Form>
    </Door>
  );
};

const phoneName = (): string =>
  /iPhone/.test(navigator.userAgent) ? "iPhone" : /Android/.test(navigator.userAgent) ? "Android phone" : "Phone";

/** Lets this phone in, by the code that an owner shows. */
export const PairSheet = () => {
  const code = useSecret();
  const [typed, setTyped] = useState("");
  const given = code ?? /([\w-]{22})\s*$/.exec(typed)?.[1] ?? "";
  const form = useAsked(pairSchema, { code: given }, async (data) => {
    await postJson("/api/pair", data);
    await home();
  });
  if (code === undefined) return null;
  return (
    <Door
      title="Let this phone in"
      note="The code works once, within five minutes. The phone then comes in as the person it was made for, until the day that was set; the owner can end it at any time."
    >
      <Form of={form} action="Let it in">
        {code === null && (
          <Field
            label="The code, or the whole link, as the owner's screen shows it"
            value={typed}
            onChange={(e) => setTyped(e.target.value)}
            autoCapitalize="none"
            spellCheck={false}
            fault={form.faults.code}
          />
        )}
        <Field label="What this phone is called" name="name" defaultValue={phoneName()} fault={form.faults.name} />
      </Form>
    </Door>
  );
};

/** Opens a link that was shared: at once, for there is nothing to type. */
export const ShareSheet = () => {
  const token = useSecret();
  const opened = useQuery({
    queryKey: ["share", token],
    queryFn: () => postJson<{ jobId: string }>("/api/share", { token }),
    enabled: typeof token === "string",
    staleTime: Number.POSITIVE_INFINITY,
    refetchOnWindowFocus: false,
    retry: false,
  });
  const { data } = opened;
  useEffect(() => {
    if (data !== undefined) void home();
  }, [data]);
  if (token === undefined || (token !== null && opened.error === null)) return null;
  return (
    <NoLink title="Shared with you">
      {token === null
        ? "Open the whole link as it was sent to you; what stands behind its # opens the job. If it did before, its time is over or it was taken back: ask who sent it for another."
        : errorSentence(bodyOf(opened.error))}
    </NoLink>
  );
};

/** Asks for a letter with a new way in, or sets a new password by it. */
export const NewPasswordSheet = () => {
  const token = useSecret();
  const [done, setDone] = useState(false);
  const ask = useAsked(forgotSchema, {}, async (data) => {
    await postJson("/api/sign-in/forgot", data);
    setDone(true);
  });
  const set = useAsked(resetSchema, { token: token ?? "" }, async (data) => {
    await postJson("/api/sign-in/reset", data);
    window.location.assign("/sign-in");
  });
  if (token === undefined) return null;
  if (done)
    return (
      <NoLink title="Look for the letter">
        If that address is known here, a letter with a link is on its way; it works for 30 minutes. Where no mail server is named, the owner
        finds it under People, Letters.
      </NoLink>
    );
  return token === null ? (
    <Door title="New password" note="A letter with a link is sent to your address.">
      <Form of={ask} action="Send the letter">
        <Field label="E-mail address" name="email" type="email" autoFocus autoComplete="username" fault={ask.faults.email} />
      </Form>
    </Door>
  ) : (
    <Door title="New password" note="Everywhere you are signed in, you are signed out by it.">
      <Form of={set} action="Set it">
        <PasswordField
          label="New password"
          name="password"
          autoFocus
          autoComplete="new-password"
          note={PASSWORD_NOTE}
          fault={set.faults.password}
        />
      </Form>
    </Door>
  );
};
