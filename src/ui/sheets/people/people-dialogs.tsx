"use client";
import { useQueryClient } from "@tanstack/react-query";
import { Dialog } from "radix-ui";
import { useEffect, useState } from "react";
import { type BecomesDto, becomesSchema, invitationSchema, type PeopleDto, type PersonDto, pairingSchema, ROLES } from "@/contract";
import { patchJson, postJson } from "../../api/client";
import { useJobs } from "../../api/queries";
import { Field } from "../../controls/field";
import type { Opened } from "../../controls/lazy-part";
import { SheetDialog } from "../../controls/sheet-dialog";
import { FormTrouble, sentence, useSubmit } from "../../controls/use-submit";
import { lastDayFor, ROLE_NAME } from "../../wording/people";
import { asRole, BecomesFields, START } from "./becomes-fields";
import { CopyLink } from "./copy-link";
import { inDays, MakeForm, useMaking } from "./make-once";
import { PEOPLE } from "./people-keys";
import { Qr } from "./qr";

/** Invites somebody by letter; its link is shown once, to be handed on where no mail goes. */
export const InviteDialog = ({ open, onOpenChange, mailGoes }: Opened & { mailGoes: boolean }) => {
  const making = useMaking<{ url: string; sent: boolean }>(invitationSchema, "/api/invitations", PEOPLE);
  const { fault, made } = making;
  const [email, setEmail] = useState("");
  const [becomes, setBecomes] = useState<BecomesDto>(START);
  const close = (to: boolean): void => {
    if (!to && made !== null) {
      making.leave();
      setEmail("");
      setBecomes(START);
    }
    onOpenChange(to);
  };
  if (made !== null)
    return (
      <SheetDialog open={open} onOpenChange={close} title="Invited" width="slim">
        <p className="m-0">
          {mailGoes && made.sent
            ? `A letter is on its way to ${email}.`
            : `${mailGoes ? "The letter could not be sent." : "No mail server is named, so nothing was sent."} Hand this link on yourself: it works once, within 7 days, and is shown only now.`}
        </p>
        <CopyLink url={made.url} />
        <Dialog.Close className="press mt-5">Done</Dialog.Close>
      </SheetDialog>
    );
  return (
    <SheetDialog open={open} onOpenChange={close} title="Invite somebody" width="slim">
      <MakeForm of={making} word="Invite" submit={() => making.make({ email, becomes })}>
        <Field
          label="E-mail address"
          type="email"
          autoComplete="off"
          value={email}
          onChange={(e) => setEmail(e.target.value)}
          fault={fault.email}
        />
        <BecomesFields value={becomes} onChange={setBecomes} fault={fault.becomes} />
      </MakeForm>
    </SheetDialog>
  );
};

/** Says what is open to somebody, or ends their being of the firm. */
export const PersonDialog = ({ open, onOpenChange, person }: Opened & { person: PersonDto }) => {
  const sending = useSubmit();
  const client = useQueryClient();
  const [becomes, setBecomes] = useState<BecomesDto>(person.becomes);
  const [fault, setFault] = useState<string | undefined>(undefined);
  const save = (ended: boolean): void => {
    const read = becomesSchema.safeParse(becomes);
    setFault(read.success ? undefined : sentence(read.error.issues[0]?.message));
    if (!read.success) return;
    void sending.run(async () => {
      client.setQueryData(PEOPLE, await patchJson<PeopleDto>(`/api/people/${person.id}`, { becomes: read.data, ended }));
      onOpenChange(false);
    });
  };
  return (
    <SheetDialog open={open} onOpenChange={onOpenChange} title={person.name} note={person.email} width="slim">
      <form
        noValidate
        className="grid gap-3.5"
        onSubmit={(e) => {
          e.preventDefault();
          save(false);
        }}
      >
        <BecomesFields value={becomes} onChange={setBecomes} fault={fault} />
        <FormTrouble of={sending} />
        <div className="flex flex-wrap items-center gap-6">
          <button type="submit" className="main-action" disabled={sending.busy}>
            {person.ended ? "Take back into the firm" : "Save"}
          </button>
          {!person.ended && (
            <button type="button" className="press" disabled={sending.busy} onClick={() => save(true)}>
              Shut out
            </button>
          )}
          <Dialog.Close className="press">Leave it</Dialog.Close>
        </div>
        {!person.ended && (
          <p className="cap m-0">
            Shut out, they are signed out at once on every device and come in no more; what they made stays. Phones of theirs forget what
            they keep when they next reach this server; until then it lies on them.
          </p>
        )}
      </form>
    </SheetDialog>
  );
};

/** Seconds until a moment, counted down. */
const useSecondsTo = (iso: string): number => {
  const [now, setNow] = useState(() => Date.now());
  useEffect(() => {
    const timer = setInterval(() => setNow(Date.now()), 1000);
    return () => clearInterval(timer);
  }, []);
  return Math.max(0, Math.ceil((Date.parse(iso) - now) / 1000));
};

interface Made {
  readonly url: string;
  readonly expiresAt: string;
  readonly trustUrl: string;
}

const CodeShown = ({ made, again }: { made: Made; again: () => void }) => {
  const left = useSecondsTo(made.expiresAt);
  return left === 0 ? (
    <div>
      <p className="m-0">This code has run out.</p>
      <button type="button" className="main-action mt-4" onClick={again}>
        Make another
      </button>
    </div>
  ) : (
    <div>
      <Qr text={made.url} sizePx={260} />
      <p className="m-0 mt-2">
        Scan it with the phone's camera. It works once, for another{" "}
        <span className="figure" role="timer">
          {Math.floor(left / 60)}:{String(left % 60).padStart(2, "0")}
        </span>
        .
      </p>
      <CopyLink url={made.url} />
      {made.trustUrl !== "" && (
        <p className="m-0 mt-3 text-note text-ink-2">
          A phone that warns of the certificate does not trust this server yet. Open this on it first, it has plain steps:{" "}
          <span className="break-all font-mono text-ink">{made.trustUrl}</span>
        </p>
      )}
    </div>
  );
};

/** What goes on a roof is an installer's, without prices, unless more is chosen; whoever is less stays less. */
const onPhone = (own: BecomesDto): BecomesDto => (ROLES.indexOf(own.role) < ROLES.indexOf("installer") ? asRole("installer", own) : own);

/** Shows a code that lets one phone of a person in. */
export const PhoneDialog = ({ open, onOpenChange, people }: Opened & { people: readonly PersonDto[] }) => {
  const sending = useSubmit();
  const client = useQueryClient();
  const [memberId, setMemberId] = useState(people.find((p) => p.self)?.id ?? people[0]?.id ?? "");
  const person = people.find((p) => p.id === memberId);
  const [becomes, setBecomes] = useState<BecomesDto | null>(null);
  const [typedDay, setTypedDay] = useState<string | null>(null);
  const jobs = useJobs().data ?? [];
  const [fault, setFault] = useState<string | undefined>(undefined);
  const [made, setMade] = useState<Made | null>(null);
  const roles = person === undefined ? ROLES : ROLES.slice(ROLES.indexOf(person.becomes.role));
  const value = becomes ?? onPhone(person?.becomes ?? START);
  const { jobIds } = value;
  const visits = jobs.flatMap(({ job }) => (jobIds === null || jobIds.includes(job.id) ? [job.visitOn] : []));
  const endsOn = typedDay ?? lastDayFor(visits, inDays(0));
  const make = (): void => {
    const read = pairingSchema.safeParse({ memberId, becomes: value, endsOn });
    setFault(read.success ? undefined : sentence(read.error.issues[0]?.message));
    if (!read.success) return;
    void sending.run(async () => setMade(await postJson<Made>("/api/pairings", read.data)));
  };
  const close = (to: boolean): void => {
    if (!to) {
      setMade(null);
      void client.invalidateQueries({ queryKey: PEOPLE });
    }
    onOpenChange(to);
  };
  return (
    <SheetDialog open={open} onOpenChange={close} title="Let a phone in" width="slim">
      {made !== null ? (
        <>
          <CodeShown made={made} again={() => setMade(null)} />
          <Dialog.Close className="press mt-5">Done</Dialog.Close>
        </>
      ) : (
        <form
          noValidate
          className="grid gap-3.5"
          onSubmit={(e) => {
            e.preventDefault();
            make();
          }}
        >
          <label className="field">
            <span>Whose phone</span>
            <select
              value={memberId}
              onChange={(e) => {
                setMemberId(e.target.value);
                setBecomes(null);
              }}
            >
              {people.map((p) => (
                <option key={p.id} value={p.id}>
                  {p.name}, {ROLE_NAME[p.becomes.role].toLowerCase()}
                </option>
              ))}
            </select>
          </label>
          <BecomesFields value={value} onChange={setBecomes} roles={roles} fault={fault} />
          <Field
            label="Last day it comes in"
            type="date"
            value={endsOn}
            onChange={(e) => setTypedDay(e.target.value)}
            note="a week after the visit, unless another day is meant"
          />
          <FormTrouble of={sending} />
          <div className="flex items-center gap-6">
            <button type="submit" className="main-action" disabled={sending.busy}>
              Show the code
            </button>
            <Dialog.Close className="press">Leave it</Dialog.Close>
          </div>
        </form>
      )}
    </SheetDialog>
  );
};
