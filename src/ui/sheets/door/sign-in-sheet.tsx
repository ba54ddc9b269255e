"use client";
import { startAuthentication } from "@simplewebauthn/browser";
import Link from "next/link";
import { type FormEvent, useEffect, useState } from "react";
import { signInSchema } from "@/contract";
import { postJson } from "../../api/client";
import { Field } from "../../controls/field";
import { FormTrouble, faultsOf, useSubmit } from "../../controls/use-submit";
import { Door } from "../../frame/door";
import { TakeOutUnsent } from "../../frame/take-out-unsent";
import { askMe, useMeQuery } from "../../state/me";
import { PasswordField } from "./password-field";
import { pathBack } from "./secret";

/** Opens the page that was asked for, read anew: nothing of who was here before stays in memory. */
const goOn = async (): Promise<void> => {
  await askMe();
  window.location.assign(pathBack(window.location.search));
};

const values = (form: HTMLFormElement): Record<string, string> =>
  Object.fromEntries([...new FormData(form)].map(([k, v]) => [k, typeof v === "string" ? v : ""]));

const SecondStep = ({ back }: { back: () => void }) => {
  const sending = useSubmit();
  const [kind, setKind] = useState<"app" | "recovery">("app");
  const submit = (event: FormEvent<HTMLFormElement>): void => {
    event.preventDefault();
    const { code } = values(event.currentTarget);
    void sending.run(async () => {
      await postJson("/api/sign-in/second", { code: (code ?? "").replaceAll(" ", ""), kind });
      await goOn();
    });
  };
  return (
    <Door
      title="Second step"
      note={kind === "app" ? "The six figures that your authenticator shows now." : "One of the recovery codes you kept. Each works once."}
    >
      <form onSubmit={submit} noValidate className="grid gap-4">
        <Field
          key={kind}
          label={kind === "app" ? "Code of the authenticator" : "Recovery code"}
          name="code"
          autoFocus
          autoComplete="one-time-code"
          inputMode={kind === "app" ? "numeric" : "text"}
        />
        <FormTrouble of={sending} />
        <div className="flex flex-wrap items-center gap-6">
          <button type="submit" className="main-action" disabled={sending.busy}>
            Sign in
          </button>
          <button type="button" className="press" onClick={() => setKind(kind === "app" ? "recovery" : "app")}>
            {kind === "app" ? "Use a recovery code" : "Use the authenticator"}
          </button>
          <button type="button" className="press" onClick={back}>
            Back
          </button>
        </div>
      </form>
    </Door>
  );
};

/** Comes in by address and password, or by a passkey. */
export const SignInSheet = () => {
  const sending = useSubmit();
  const me = useMeQuery().data;
  const [faults, setFaults] = useState<Readonly<Record<string, string>>>({});
  const [second, setSecond] = useState(false);
  const [keys, setKeys] = useState(false);
  useEffect(() => setKeys("PublicKeyCredential" in window && !/^[\d.]+$|^\[/.test(window.location.hostname)), []);
  useEffect(() => {
    // Who only came by a shared link may have an account all the same.
    if (me !== undefined && me.person !== null && !me.person.byShare) void goOn();
  }, [me]);

  const submit = (event: FormEvent<HTMLFormElement>): void => {
    event.preventDefault();
    const read = signInSchema.safeParse(values(event.currentTarget));
    setFaults(faultsOf(read));
    if (!read.success) return;
    void sending.run(async () => {
      const told = await postJson<{ secondFactor?: boolean }>("/api/sign-in", read.data);
      if (told.secondFactor === true) setSecond(true);
      else await goOn();
    });
  };
  const byKey = (): void =>
    void sending.run(async () => {
      const begun = await postJson<{ id: string; options: Parameters<typeof startAuthentication>[0]["optionsJSON"] }>(
        "/api/sign-in/passkey",
        { begin: true },
      );
      // Whoever closes the browser's own question has only changed their mind.
      const response = await startAuthentication({ optionsJSON: begun.options }).catch(() => null);
      if (response === null) return;
      await postJson("/api/sign-in/passkey", { id: begun.id, response });
      await goOn();
    });

  if (second) return <SecondStep back={() => setSecond(false)} />;
  return (
    <Door
      title="Sign in"
      note={
        me?.first === true
          ? "Nobody can come in yet. The terminal in which the server was started shows the link for its first owner."
          : undefined
      }
    >
      <form onSubmit={submit} noValidate className="mt-6 grid gap-4">
        <Field
          label="E-mail address"
          name="email"
          type="email"
          autoFocus
          autoComplete="username"
          autoCapitalize="none"
          spellCheck={false}
          fault={faults.email}
        />
        <PasswordField label="Password" name="password" autoComplete="current-password" fault={faults.password} />
        <FormTrouble of={sending} />
        <div className="flex flex-wrap items-center gap-6">
          <button type="submit" className="main-action" disabled={sending.busy}>
            Sign in
          </button>
          {keys && (
            <button type="button" className="press" disabled={sending.busy} onClick={byKey}>
              With a passkey
            </button>
          )}
          <Link prefetch={false} href="/new-password" className="press text-ink no-underline">
            Password forgotten
          </Link>
        </div>
      </form>
      <TakeOutUnsent whose="anybody" />
    </Door>
  );
};
