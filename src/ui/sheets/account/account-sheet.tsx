"use client";
import { startRegistration } from "@simplewebauthn/browser";
import { useQuery, useQueryClient } from "@tanstack/react-query";
import { type FormEvent, type ReactNode, useId, useState } from "react";
import { type AccountDto, nameSchema, passwordSchema } from "@/contract";
import { deleteAt, getJson, patchJson, postJson } from "../../api/client";
import { Field } from "../../controls/field";
import { FormTrouble, sentence, useSubmit } from "../../controls/use-submit";
import { House } from "../../frame/house";
import { SignOut } from "../../frame/sign-out";
import { Trouble } from "../../frame/trouble";
import { ME, useMeQuery } from "../../state/me";
import { lastDayText } from "../../wording/people";
import { PasswordField } from "../door/password-field";
import { Qr } from "../people/qr";

const ACCOUNT = ["account"] as const;
const when = (iso: string | null): string =>
  iso === null ? "not yet" : new Date(iso).toLocaleString("en-GB", { day: "numeric", month: "short", hour: "2-digit", minute: "2-digit" });
const fields = (event: FormEvent<HTMLFormElement>): Record<string, string> => {
  event.preventDefault();
  return Object.fromEntries([...new FormData(event.currentTarget)].map(([k, v]) => [k, String(v)]));
};

const Part = ({ title, children }: { title: string; children: ReactNode }) => {
  const id = useId();
  return (
    <section aria-labelledby={id} className="border-b border-rule py-5">
      <h2 id={id} className="m-0 mb-2 text-part font-bold">
        {title}
      </h2>
      {children}
    </section>
  );
};

const NamePart = ({ account }: { account: AccountDto }) => {
  const sending = useSubmit();
  const client = useQueryClient();
  return (
    <Part title="Name">
      <form
        noValidate
        className="grid max-w-[360px] gap-3"
        onSubmit={(e) => {
          const read = nameSchema.safeParse(fields(e));
          if (!read.success) return sending.say(sentence(read.error.issues[0]?.message));
          void sending.run(async () => {
            client.setQueryData(ACCOUNT, await patchJson<AccountDto>("/api/account", read.data));
            await client.invalidateQueries({ queryKey: ME });
          });
        }}
      >
        <Field label={`As others see it; you sign in with ${account.email}`} name="name" defaultValue={account.name} autoComplete="name" />
        <FormTrouble of={sending} />
        <div>
          <button type="submit" className="press" disabled={sending.busy}>
            Save the name
          </button>
        </div>
      </form>
    </Part>
  );
};

const PasswordPart = () => {
  const sending = useSubmit();
  const client = useQueryClient();
  const [done, setDone] = useState(0);
  return (
    <Part title="Password">
      <form
        key={done}
        noValidate
        className="grid max-w-[360px] gap-3"
        onSubmit={(e) => {
          const read = passwordSchema.safeParse(fields(e));
          if (!read.success) return sending.say(sentence(read.error.issues[0]?.message));
          void sending.run(async () => {
            await postJson("/api/account/password", read.data);
            setDone(done + 1);
            await client.invalidateQueries({ queryKey: ACCOUNT });
          });
        }}
      >
        <PasswordField label="Password now" name="current" autoComplete="current-password" />
        <PasswordField
          label="New password"
          name="next"
          autoComplete="new-password"
          note="Twelve letters or more; everywhere else you are signed out."
        />
        <FormTrouble of={sending} />
        <div className="flex items-center gap-4">
          <button type="submit" className="press" disabled={sending.busy}>
            Change it
          </button>
          {done > 0 && <span role="status">It is changed.</span>}
        </div>
      </form>
    </Part>
  );
};

interface Begun {
  readonly uri: string | null;
  readonly codes: readonly string[];
}

const Codes = ({ codes }: { codes: readonly string[] }) => (
  <>
    <p className="m-0 mt-3">
      Recovery codes, each good once, for when the authenticator is lost. They are shown only now; keep them on paper.
    </p>
    <ul data-testid="recovery-codes" className="m-0 mt-1 grid max-w-[360px] list-none grid-cols-2 gap-x-6 p-0 font-mono">
      {codes.map((c) => (
        <li key={c}>{c}</li>
      ))}
    </ul>
  </>
);

const SecondPart = ({ account }: { account: AccountDto }) => {
  const sending = useSubmit();
  const client = useQueryClient();
  const [begun, setBegun] = useState<Begun | null>(null);
  const ask = (what: "begin" | "end" | "new-codes", password: string): void =>
    void sending.run(async () => {
      const told = await postJson<Begun>("/api/account/second-factor", { do: what, password });
      setBegun(what === "end" ? null : told);
      await client.invalidateQueries({ queryKey: ACCOUNT });
    });
  const confirm = (code: string): void =>
    void sending.run(async () => {
      await postJson("/api/account/second-factor", { do: "confirm", code: code.replaceAll(" ", "") });
      setBegun((b) => (b === null ? null : { ...b, uri: null }));
      await client.invalidateQueries({ queryKey: ACCOUNT });
    });
  const secretOf = (uri: string): string => new URL(uri).searchParams.get("secret") ?? "";
  return (
    <Part title={`Second step: ${account.secondFactor ? "on" : "off"}`}>
      <p className="m-0 max-w-[62ch]">
        With it, a password alone lets nobody in: the figures that an authenticator shows are asked as well (RFC 6238).
      </p>
      {begun?.uri != null ? (
        <form noValidate className="mt-3 grid max-w-[360px] gap-3" onSubmit={(e) => confirm(fields(e).code ?? "")}>
          <Qr text={begun.uri} sizePx={220} />
          <p className="m-0 break-all">
            Scan it with the authenticator, or type its secret:{" "}
            <span className="figure" data-testid="secret">
              {secretOf(begun.uri)}
            </span>
          </p>
          <Field label="The six figures it shows now" name="code" inputMode="numeric" autoComplete="one-time-code" />
          <FormTrouble of={sending} />
          <div>
            <button type="submit" className="main-action" disabled={sending.busy}>
              Turn it on
            </button>
          </div>
          <Codes codes={begun.codes} />
        </form>
      ) : (
        <>
          {begun !== null && begun.codes.length > 0 && <Codes codes={begun.codes} />}
          <form
            noValidate
            className="mt-3 grid max-w-[360px] gap-3"
            onSubmit={(e) => {
              const { password } = fields(e);
              ask(account.secondFactor ? "new-codes" : "begin", password ?? "");
            }}
          >
            <PasswordField label="Your password" name="password" autoComplete="current-password" />
            <FormTrouble of={sending} />
            <div className="flex gap-6">
              <button type="submit" className="press" disabled={sending.busy}>
                {account.secondFactor ? "New recovery codes" : "Set it up"}
              </button>
              {account.secondFactor && (
                <button
                  type="button"
                  className="press"
                  disabled={sending.busy}
                  onClick={(e) => ask("end", String(new FormData(e.currentTarget.form!).get("password") ?? ""))}
                >
                  Turn it off
                </button>
              )}
            </div>
          </form>
        </>
      )}
    </Part>
  );
};

const KeysPart = ({ account }: { account: AccountDto }) => {
  const sending = useSubmit();
  const client = useQueryClient();
  const [name, setName] = useState("This device");
  const post = async (body: unknown): Promise<void> => {
    client.setQueryData(ACCOUNT, await postJson<AccountDto>("/api/account/passkeys", body));
  };
  const make = (password: string): void =>
    void sending.run(async () => {
      const begun = await postJson<{ id: string; options: Parameters<typeof startRegistration>[0]["optionsJSON"] }>(
        "/api/account/passkeys",
        { do: "begin", password },
      );
      const response = await startRegistration({ optionsJSON: begun.options }).catch(() => null);
      if (response !== null) await post({ do: "keep", id: begun.id, name, response });
    });
  return (
    <Part title="Passkeys">
      <p className="m-0 max-w-[62ch]">
        A key that stays on your device, opened by its lock: nothing to remember, and nothing that a false page could ask for.
      </p>
      <ul className="m-0 mt-2 max-w-[620px] list-none p-0">
        {account.passkeys.map((k) => (
          <li key={k.id} className="flex flex-wrap gap-x-4 border-b border-rule py-1.5">
            <span className="font-figure">{k.name}</span>
            <span className="text-ink-2">
              made {when(k.made)}, used {when(k.lastUsed)}
            </span>
            <button
              type="button"
              className="press"
              disabled={sending.busy}
              onClick={() => void sending.run(() => post({ do: "forget", id: k.id }))}
            >
              Forget<span className="sr-only"> {k.name}</span>
            </button>
          </li>
        ))}
      </ul>
      <FormTrouble of={sending} />
      {account.passkeysHere ? (
        <form
          className="mt-2 grid max-w-[360px] gap-3"
          noValidate
          onSubmit={(e) => {
            const { password } = fields(e);
            make(password ?? "");
          }}
        >
          <Field label="What it is called" value={name} maxLength={60} onChange={(e) => setName(e.target.value)} />
          <PasswordField label="Your password" name="password" autoComplete="current-password" />
          <div>
            <button type="submit" className="press" disabled={sending.busy || name.trim() === ""}>
              Make a passkey
            </button>
          </div>
        </form>
      ) : (
        <p className="m-0 mt-2 text-ink-2">
          A passkey needs a name, not a number, in the address of this page: open it by its name to make one.
        </p>
      )}
    </Part>
  );
};

const SessionsPart = ({ account }: { account: AccountDto }) => {
  const sending = useSubmit();
  const client = useQueryClient();
  return (
    <Part title="Where you are signed in">
      <FormTrouble of={sending} />
      <ul className="m-0 max-w-[620px] list-none p-0">
        {account.sessions.map((s) => (
          <li key={s.id} className="flex flex-wrap gap-x-4 border-b border-rule py-1.5">
            <span className="font-figure">{s.phone ?? s.browser}</span>
            <span className="text-ink-2">
              since {when(s.began)}, used {when(s.lastUsed)}
            </span>
            {s.own ? (
              <span>here</span>
            ) : (
              <button
                type="button"
                className="press"
                disabled={sending.busy}
                onClick={() =>
                  void sending.run(async () => {
                    await deleteAt(`/api/account/sessions/${s.id}`);
                    await client.invalidateQueries({ queryKey: ACCOUNT });
                  })
                }
              >
                Sign out<span className="sr-only"> {s.phone ?? s.browser}</span>
              </button>
            )}
          </li>
        ))}
      </ul>
    </Part>
  );
};

/** A paired phone changes nothing of its person: whoever finds it must not either. */
const AccountParts = ({ account, phoneUntil }: { account: AccountDto; phoneUntil: string | null }) =>
  phoneUntil === null ? (
    <>
      <NamePart account={account} />
      <PasswordPart />
      <SecondPart account={account} />
      <KeysPart account={account} />
      <SessionsPart account={account} />
    </>
  ) : (
    <p className="m-0 max-w-[62ch] text-press leading-6">
      This phone comes in as {account.name} until {lastDayText(phoneUntil)}. Name, password and passkeys are changed at a computer, signed
      in with the password. A phone that is lost is ended by the owner, under People.
    </p>
  );

/** Oneself: name, password, second step, passkeys, and where one is signed in. */
export const AccountSheet = () => {
  const me = useMeQuery().data;
  const on = me?.signIn === true;
  const { data, error } = useQuery({
    queryKey: ACCOUNT,
    queryFn: ({ signal }) => getJson<AccountDto>("/api/account", signal),
    enabled: on,
  });
  return (
    <House title="You" action={on && <SignOut />}>
      {me !== undefined && !me.signIn ? (
        <p className="m-0 max-w-[62ch] text-press leading-6">This server is open to whoever sits at this machine: nobody signs in here.</p>
      ) : data === undefined ? (
        <Trouble error={error} waiting="Reading your account." />
      ) : (
        <AccountParts account={data} phoneUntil={me?.person?.deviceEndsAt ?? null} />
      )}
    </House>
  );
};
