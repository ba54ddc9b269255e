"use client";
import Link from "next/link";
import { useRef, useState } from "react";
import type { FieldsOf, SiteDto } from "@/contract";
import { STANDS } from "@/core/link";
import { useJob, usePhotos } from "../../api/queries";
import { ClashNotice } from "../../controls/clash-notice";
import { Choice } from "../../controls/field";
import { lazyPart, useFetchAhead } from "../../controls/lazy-part";
import { TypingScope } from "../../controls/typing-scope";
import { UnitField } from "../../controls/unit-field";
import { Trouble } from "../../frame/trouble";
import { useOutbox } from "../../state/browser-outbox";
import { siteIsUnsent, useQueuedPhotos } from "../../state/browser-photos";
import { useAskedAgain, useConnected, useKeptJob } from "../../state/kept-offline";
import { withPendingSites } from "../../state/pending-sites";
import { usePreferences } from "../../state/preferences";
import type { SaveStatus } from "../../state/record";
import { hasDraft, useRecord, useRecordState } from "../../state/use-record";
import { errorSentence } from "../../wording/errors";
import { latLonText, type Units } from "../../wording/numbers";
import { PhotoStrip } from "../brief/photo-strip";
import { PhonePosition } from "./phone-position";

const TakeOutUnsent = lazyPart(() => import("../../frame/take-out-unsent").then((m) => m.TakeOutUnsent));
const AddSite = lazyPart(() => import("./add-site").then((m) => m.AddSite));

/** What is looked at on the spot; the words are kept with the site. */
const TICKS = [
  "bracket place chosen",
  "behind the cladding known",
  "cable way walked",
  "power point seen",
  "earth point seen",
  "view to the other end",
  "trees and cranes noted",
  "way up is safe",
] as const;
const WORDS = [
  ["structure", "Structure"],
  ["material", "Walls are of"],
  ["power", "Power there"],
  ["cableEntry", "Cable comes in"],
  ["access", "How to get up"],
  ["owner", "Owner"],
] as const;

/** The survey on the spot: one site at a time, large targets, nothing lost on reload; it opens without coverage once it has been open with it. */
export const SurveySheet = ({ jobId }: { jobId: string }) => {
  const job = useJob(jobId);
  const { edits } = useOutbox();
  const connected = useConnected();
  const isKept = useAskedAgain(jobId);
  useFetchAhead();
  useKeptJob(jobId, job.data?.job.name, !isKept, [`/jobs/${jobId}/survey`]);
  const [siteId, setSiteId] = useState<string | null>(null);
  const [adding, setAdding] = useState(false);
  const photos = useQueuedPhotos(jobId);
  const sites = withPendingSites(jobId, job.data?.sites ?? [], edits);
  const found = sites.find((s) => s.id === siteId);
  // Between the moment a new one is made and the moment it is read, the form stays as it is under the hand.
  const shown = useRef(found);
  if (found !== undefined) shown.current = found;
  const site = found ?? (shown.current?.id === siteId ? shown.current : undefined);
  return (
    <div className="mx-auto min-h-dvh max-w-[560px] p-3 text-name leading-6">
      <header className="flex items-baseline justify-between border-b-[1.6px] border-ink pb-2">
        <h1 className="m-0 text-title font-heading">{site?.name ?? "Survey"}</h1>
        {site === undefined ? (
          <Link prefetch={false} href={`/jobs/${jobId}/brief`} className="press text-ink no-underline">
            Brief
          </Link>
        ) : (
          <button type="button" className="press min-h-12" onClick={() => setSiteId(null)}>
            All sites
          </button>
        )}
      </header>
      {(!connected || isKept) && (
        <p role="status" className="m-0 border-b border-ink py-2 text-press" data-testid="no-coverage">
          {connected ? "The server does not answer." : "No coverage."} This is the job as it was last read here; what you enter is kept and
          sent later.
        </p>
      )}
      {job.data === undefined && <Trouble error={job.error ?? job.failureReason} waiting="Reading the job." />}
      {job.data !== undefined && site === undefined && (
        <main>
          <ul className="m-0 list-none p-0">
            {sites.map((s) => (
              <SiteRow
                key={s.id}
                site={s}
                unsent={siteIsUnsent(jobId, s.id) || photos.some((p) => p.about.siteId === s.id) || hasDraft("site", s.id)}
                open={() => setSiteId(s.id)}
              />
            ))}
          </ul>
          {adding ? (
            <AddSite
              jobId={jobId}
              known={[...sites, { latDeg: job.data.job.centreLatDeg, lonDeg: job.data.job.centreLonDeg }]}
              added={(id) => {
                setAdding(false);
                setSiteId(id);
              }}
              leave={() => setAdding(false)}
            />
          ) : (
            <button type="button" className="mt-3 min-h-12 w-full border-[1.6px] border-ink font-figure" onClick={() => setAdding(true)}>
              Add a site here
            </button>
          )}
          <TakeOutUnsent />
        </main>
      )}
      {site !== undefined && <SiteSurvey key={site.id} jobId={jobId} site={site} sites={sites} done={() => setSiteId(null)} />}
    </div>
  );
};

/** A site of the list: how far its survey is, and whether the server has it. */
const SiteRow = ({ site, unsent, open }: { site: SiteDto; unsent: boolean; open: () => void }) => (
  <li>
    <button type="button" className="flex min-h-14 w-full items-center justify-between gap-3 border-b border-rule text-left" onClick={open}>
      <span className="font-figure">{site.name}</span>
      <span className="cap text-press">
        {unsent && <strong className="text-ink">not sent yet, </strong>}
        {site.ticks.length} of {TICKS.length}
      </span>
    </button>
  </li>
);

/** How it stands with what was typed, in words for somebody on a roof. */
const savedWords = (status: SaveStatus<FieldsOf<"site">>, units: Units): string => {
  switch (status.kind) {
    case "saved":
      return "All saved";
    case "typing":
    case "saving":
      return "Saving";
    case "kept":
      return "No connection. Everything is kept on this phone, and is sent by itself when it is back.";
    case "clash":
      return "Someone else changed this site. Choose above which stands.";
    case "refused":
      return errorSentence(status.reason, units);
  }
};

const SiteSurvey = ({ jobId, site, sites, done }: { jobId: string; site: SiteDto; sites: readonly SiteDto[]; done: () => void }) => {
  const { units } = usePreferences();
  const photos = usePhotos(jobId);
  const record = useRecord(jobId, "site", site);
  const { fields: f, status, setAside } = useRecordState(record);
  const set = record.change;
  const others = sites.filter((s) => s.id !== site.id);
  return (
    <TypingScope of={record} className="grid gap-5 pt-3 [&_input]:min-h-12 [&_input]:text-name [&_select]:min-h-12">
      <ClashNotice kind="site" status={status} setAside={setAside} units={units} resolve={record.resolve} recall={record.recall} />
      <section aria-label="Position" className="grid gap-2">
        <p className="m-0 font-mono text-part">{latLonText(f)}</p>
        <PhonePosition others={others} take={set} />
      </section>
      <section aria-label="Heights" className="grid grid-cols-2 gap-4">
        <UnitField
          label="Mount above ground"
          quantity="height"
          value={f.mountAglM}
          allowEmpty={false}
          onChange={(v) => v !== null && set({ mountAglM: v })}
          usual={{ least: 1.5, most: 60 }}
          most={300}
        />
        <UnitField
          label="Highest it carries"
          quantity="height"
          value={f.mountMaxAglM}
          onChange={(v) => set({ mountMaxAglM: v })}
          most={300}
        />
      </section>
      <Choice
        label="Its bracket is fixed to"
        value={f.stands ?? ""}
        onChange={(e) => set({ stands: STANDS.find((x) => x === e.target.value) ?? null })}
      >
        <option value="">not known</option>
        {STANDS.map((x) => (
          <option key={x}>{x}</option>
        ))}
      </Choice>
      <section aria-label="What was looked at" className="grid">
        {TICKS.map((t) => (
          <label key={t} className="flex min-h-12 items-center gap-3 border-b border-rule">
            <input
              type="checkbox"
              className="!min-h-0 h-7 w-7 flex-none"
              checked={f.ticks.includes(t)}
              onChange={(e) => set({ ticks: e.target.checked ? [...f.ticks, t] : f.ticks.filter((x) => x !== t) })}
            />
            {t}
          </label>
        ))}
      </section>
      <section aria-label="The building" className="grid gap-3">
        {WORDS.map(([k, label]) => (
          <label key={k} className="field">
            <span>{label}</span>
            <input value={f[k]} maxLength={200} onChange={(e) => set({ [k]: e.target.value })} />
          </label>
        ))}
        <label className="field">
          <span>Notes</span>
          <textarea
            rows={3}
            maxLength={4000}
            className="border border-ink bg-paper p-2 text-name"
            value={f.notes}
            onChange={(e) => set({ notes: e.target.value })}
          />
        </label>
      </section>
      <PhotoStrip jobId={jobId} photos={(photos.data ?? []).filter((p) => p.siteId === site.id)} sites={sites} siteId={site.id} />
      <p className="cap m-0 text-body">
        Go up only if you are competent for it, with somebody below; keep clear of power lines; leave it in wind, ice or thunder.
      </p>
      <div className="sticky bottom-0 -mx-3 grid gap-1 border-t-[1.6px] border-ink bg-paper px-3 py-2">
        <p
          role={status.kind === "refused" || status.kind === "kept" ? "alert" : "status"}
          data-testid="saved"
          className={`m-0 ${status.kind === "refused" || status.kind === "kept" ? "text-short-figure" : ""}`}
        >
          {savedWords(status, units)}
        </p>
        <button type="button" className="main-action min-h-14 text-name" onClick={done}>
          {site.name} is done
        </button>
      </div>
    </TypingScope>
  );
};
