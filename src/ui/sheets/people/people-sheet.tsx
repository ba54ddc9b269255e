"use client";
import { useQuery } from "@tanstack/react-query";
import { Tabs } from "radix-ui";
import { useState } from "react";
import type { AuditDto, DeviceDto, LetterDto, PeopleDto, PersonDto } from "@/contract";
import { getJson } from "../../api/client";
import { lazyPart, Opens } from "../../controls/lazy-part";
import { TabRow } from "../../controls/tab-row";
import { FormTrouble } from "../../controls/use-submit";
import { House } from "../../frame/house";
import { Trouble } from "../../frame/trouble";
import { useMeQuery } from "../../state/me";
import { auditSentence, lastDayText, ROLE_NAME } from "../../wording/people";
import { CallsPart } from "./calls-part";
import { DONE_BY_OTHERS, PEOPLE } from "./people-keys";
import { EndPress, FirmTable, ROW, useEnding, useOpenWords, when } from "./people-table";
import { TokensTab } from "./tokens-tab";

const InviteDialog = lazyPart(() => import("./people-dialogs").then((m) => m.InviteDialog));
const PersonDialog = lazyPart(() => import("./people-dialogs").then((m) => m.PersonDialog));
const PhoneDialog = lazyPart(() => import("./people-dialogs").then((m) => m.PhoneDialog));

const day = (iso: string): string => new Date(iso).toLocaleDateString("en-GB", { day: "numeric", month: "short", year: "numeric" });

const PeopleTab = ({ firm }: { firm: PeopleDto }) => {
  const openWords = useOpenWords();
  const ending = useEnding(PEOPLE);
  return (
    <>
      <FirmTable label="People" heads={["Name", "Address", "Role", "Open to them", "Second step", "Last here"]} last="Change">
        {firm.people.map((p: PersonDto) => (
          <tr key={p.id} className={ROW}>
            <td className="font-figure">
              {p.name}
              {p.self && <span className="cap"> you</span>}
            </td>
            <td>{p.email}</td>
            <td>{p.ended ? "shut out" : ROLE_NAME[p.becomes.role]}</td>
            <td>{p.ended ? "nothing" : openWords(p.becomes)}</td>
            <td>{p.secondFactor ? "on" : "off"}</td>
            <td>{when(p.lastSeenAt)}</td>
            <td>
              <Opens part={PersonDialog} given={{ person: p }} className="press">
                Change<span className="sr-only"> {p.name}</span>
              </Opens>
            </td>
          </tr>
        ))}
      </FirmTable>
      <h2 className="mb-1 mt-7 text-part font-bold">Invited, not here yet</h2>
      <FormTrouble of={ending.ending} />
      {firm.invitations.length === 0 ? (
        <p className="m-0 text-ink-2">Nobody waits.</p>
      ) : (
        <ul className="m-0 list-none p-0">
          {firm.invitations.map((i) => (
            <li key={i.id} className="flex flex-wrap gap-x-4 border-b border-rule py-1.5">
              <span className="font-figure">{i.email}</span>
              <span>
                {ROLE_NAME[i.becomes.role].toLowerCase()}, {openWords(i.becomes)}
              </span>
              <span className="text-ink-2">until {day(i.expiresAt)}</span>
              <EndPress by={ending} at={`/api/invitations/${i.id}`} word="Take back" whose={`the invitation of ${i.email}`} />
            </li>
          ))}
        </ul>
      )}
    </>
  );
};

/** How a phone stands, in words: ended ones say what may still lie on them. */
const phoneState = (d: DeviceDto): string => {
  const over = d.revokedAt !== null || Date.parse(d.endsAt) < Date.now();
  if (!over) return `comes in until ${lastDayText(d.endsAt)}`;
  if (d.wipedAt !== null) return `ended; it forgot what it kept, ${when(d.wipedAt)}`;
  return `ended; what it kept may still lie on it until it next reaches this server`;
};

const PhonesTab = ({ firm }: { firm: PeopleDto }) => {
  const openWords = useOpenWords();
  const ending = useEnding(PEOPLE);
  if (firm.devices.length === 0) return <p className="mt-3 text-ink-2">No phone was let in yet.</p>;
  return (
    <>
      <FormTrouble of={ending.ending} />
      <FirmTable label="Phones" heads={["Phone", "Whose", "Comes in as", "Last here", "How it stands"]} last="End">
        {firm.devices.map((d) => (
          <tr key={d.id} className={ROW}>
            <td className="font-figure">{d.name}</td>
            <td>{d.person}</td>
            <td>
              {ROLE_NAME[d.becomes.role].toLowerCase()}, {openWords(d.becomes)}
            </td>
            <td>
              {d.lastSeenAt === null ? "not yet" : `${when(d.lastSeenAt)}${d.lastSeenFrom === null ? "" : `, from ${d.lastSeenFrom}`}`}
            </td>
            <td>{phoneState(d)}</td>
            <td>{d.revokedAt === null && <EndPress by={ending} at={`/api/devices/${d.id}`} word="End" whose={d.name} />}</td>
          </tr>
        ))}
      </FirmTable>
    </>
  );
};

const LettersTab = ({ mailGoes }: { mailGoes: boolean }) => {
  const { data, error } = useQuery({
    queryKey: ["letters"],
    queryFn: ({ signal }) => getJson<LetterDto[]>("/api/letters", signal),
    ...DONE_BY_OTHERS,
  });
  if (data === undefined) return <Trouble error={error} waiting="Reading the letters." />;
  return (
    <div className="mt-3 max-w-[760px]">
      {!mailGoes && (
        <p className="m-0 mb-2">
          No mail server is named, so letters are written and kept here, and nobody carries them. Hand on what they say yourself, or name a
          server (README, Deployment).
        </p>
      )}
      {data.length === 0 && <p className="m-0 text-ink-2">None was written yet.</p>}
      {data.map((l) => (
        <details key={l.id} className="border-b border-rule py-1.5">
          <summary className="cursor-pointer">
            <span className="font-figure">{l.subject}</span> to {l.to}, {when(l.at)}
            {l.fault !== null && <span className="text-short-figure">, not sent: {l.fault}</span>}
          </summary>
          <pre className="mt-2 whitespace-pre-wrap font-mono text-line">{l.body}</pre>
        </details>
      ))}
    </div>
  );
};

const BookTab = () => {
  const [before, setBefore] = useState<readonly number[]>([]);
  const last = before.at(-1);
  const { data, error } = useQuery({
    queryKey: ["audit", last ?? null],
    queryFn: ({ signal }) => getJson<AuditDto[]>(`/api/audit${last === undefined ? "" : `?before=${last}`}`, signal),
  });
  if (data === undefined) return <Trouble error={error} waiting="Reading the book." />;
  return (
    <div className="mt-3 max-w-[900px]">
      <FirmTable label="Who did what" heads={["When", "Who", "What", "From"]}>
        {data.map((l) => (
          <tr key={l.id} className={ROW}>
            <td className="whitespace-nowrap">{when(l.at)}</td>
            <td className="font-figure">{l.person === "" ? "this machine" : l.person}</td>
            <td>
              {auditSentence(l)}
              {l.job === null ? "" : `, ${l.job}`}
            </td>
            <td className="font-mono text-line">{l.from ?? ""}</td>
          </tr>
        ))}
      </FirmTable>
      <div className="mt-3 flex gap-6">
        {before.length > 0 && (
          <button type="button" className="press" onClick={() => setBefore(before.slice(0, -1))}>
            Newer
          </button>
        )}
        {data.length === 100 && (
          <button type="button" className="press" onClick={() => setBefore([...before, data.at(-1)!.id])}>
            Older
          </button>
        )}
      </div>
    </div>
  );
};

const TABS = [
  ["people", "People"],
  ["phones", "Phones"],
  ["programs", "Programs"],
  ["letters", "Letters"],
  ["book", "Who did what"],
] as const;

/** The firm: who is of it, what is open to whom, which phones come in, and what was done. */
export const PeopleSheet = () => {
  const me = useMeQuery().data;
  const on = me?.signIn === true;
  const { data, error } = useQuery({
    queryKey: PEOPLE,
    queryFn: ({ signal }) => getJson<PeopleDto>("/api/people", signal),
    enabled: on,
    ...DONE_BY_OTHERS,
  });
  if (me !== undefined && !me.signIn)
    return (
      <House title="People">
        <p className="m-0 max-w-[62ch] text-press leading-6">
          This server is open to whoever sits at this machine, and to nobody else: there is nobody to invite. To let others and their phones
          in, start it with <code className="font-mono">npm run demo -- --lan</code>; people then sign in, over TLS, and all that is here
          becomes the firm's.
        </p>
      </House>
    );
  const people = data?.people.filter((p) => !p.ended) ?? [];
  return (
    <House
      title={data === undefined || data.organisation === "" ? "People" : `People of ${data.organisation}`}
      action={
        data !== undefined && (
          <>
            <Opens part={PhoneDialog} given={{ people }} className="press">
              Let a phone in
            </Opens>
            <Opens part={InviteDialog} given={{ mailGoes: data.mailGoes }} className="main-action">
              Invite somebody
            </Opens>
          </>
        )
      }
    >
      {data === undefined ? (
        <Trouble error={error} waiting="Reading who is here." />
      ) : (
        <Tabs.Root defaultValue="people">
          <TabRow label="Of the firm" tabs={TABS} />
          <Tabs.Content value="people">
            <PeopleTab firm={data} />
          </Tabs.Content>
          <Tabs.Content value="phones">
            <PhonesTab firm={data} />
          </Tabs.Content>
          <Tabs.Content value="programs">
            <TokensTab />
            <CallsPart />
          </Tabs.Content>
          <Tabs.Content value="letters">
            <LettersTab mailGoes={data.mailGoes} />
          </Tabs.Content>
          <Tabs.Content value="book">
            <BookTab />
          </Tabs.Content>
        </Tabs.Root>
      )}
    </House>
  );
};
