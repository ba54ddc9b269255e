"use client";
import { useQuery } from "@tanstack/react-query";
import Link from "next/link";
import { useEffect, useMemo, useState } from "react";
import type { JobBundle, LinkDto, RoofDto } from "@/contract";
import { type End, replayRoof } from "@/core/roof";
import { getJson } from "../../api/client";
import { keys, useJob } from "../../api/queries";
import { lazyPart, useFetchAhead } from "../../controls/lazy-part";
import { Trouble } from "../../frame/trouble";
import { useRoofLog, useRoofName } from "../../state/browser-roof";
import { useJobNews } from "../../state/job-news";
import { useAskedAgain, useConnected, useKeptJob } from "../../state/kept-offline";
import { usePreferences } from "../../state/preferences";
import { EndWork } from "./end-work";
import { type RoofPlace, useRoofPlace } from "./roof-place";
import { type RoofCopy, roofPath, useRoofCopy } from "./use-roof-copy";

const TakeOutUnsent = lazyPart(() => import("../../frame/take-out-unsent").then((m) => m.TakeOutUnsent));

/** Bright sun is where this page is read; who has chosen paper or night keeps it. */
const useSun = (): void => {
  const { askMode } = usePreferences();
  useEffect(() => askMode("sun"), [askMode]);
};

/** Whether the browser keeps what lies here when its space runs short. Null while it was not asked. */
const usePersistent = (): boolean | null => {
  const [kept, setKept] = useState<boolean | null>(null);
  useEffect(() => {
    if (!("storage" in navigator) || navigator.storage.persist === undefined) return setKept(false);
    navigator.storage
      .persisted()
      .then((is) => is || navigator.storage.persist())
      .then(setKept, () => setKept(false));
  }, []);
  return kept;
};

/** The work on the roof: each end of each link, its steps with their locks, its sweep. It opens without coverage once it has been open with it. */
export const RoofSheet = ({ jobId }: { jobId: string }) => {
  useSun();
  const job = useJob(jobId);
  const { units } = usePreferences();
  const connected = useConnected();
  const isKept = useAskedAgain(jobId);
  useJobNews(jobId, "roof");
  useFetchAhead();
  const linkIds = useMemo(() => job.data?.links.map((l) => l.id) ?? null, [job.data?.links]);
  const away = !connected || isKept;
  useKeptJob(jobId, job.data?.job.name, !away, [`/jobs/${jobId}/roof`, `/api/jobs/${jobId}/roof`]);
  const copy = useRoofCopy(jobId, away ? null : linkIds, units);
  const [place, go] = useRoofPlace();
  const [known, setName] = useRoofName();
  const name = known ?? "";
  const link = place === null ? undefined : job.data?.links.find((l) => l.id === place.linkId);
  return (
    <div className="mx-auto min-h-dvh max-w-[560px] bg-paper text-name leading-6 [&_.field>span:first-child]:!text-press [&_.field>span:first-child]:text-ink">
      {job.data !== undefined && known === null && <p className="m-0 p-4">Looking for what is kept here.</p>}
      {job.data === undefined && (
        <div className="p-4">
          <Trouble error={job.error ?? job.failureReason} waiting="Reading the job." />
        </div>
      )}
      {job.data !== undefined && known !== null && (link === undefined || name.trim() === "") && (
        <Ends job={job.data} away={away} connected={connected} copy={copy} name={name} setName={setName} go={go} />
      )}
      {job.data !== undefined && link !== undefined && place !== null && name.trim() !== "" && (
        <OneEnd key={`${place.linkId}/${place.end}`} job={job.data} link={link} end={place.end} by={name.trim()} away={away} go={go} />
      )}
    </div>
  );
};

const useRoofLink = (jobId: string, linkId: string) =>
  useQuery({
    queryKey: [...keys.roofLink(jobId), linkId],
    queryFn: ({ signal }) => getJson<RoofDto>(roofPath(jobId, linkId), signal),
    staleTime: 60_000,
    refetchOnWindowFocus: false,
  });

const OneEnd = ({
  job,
  link,
  end,
  by,
  away,
  go,
}: {
  job: JobBundle;
  link: LinkDto;
  end: End;
  by: string;
  away: boolean;
  go: (to: RoofPlace | null) => void;
}) => {
  const facts = useRoofLink(job.job.id, link.id);
  const log = useRoofLog(job.job.id);
  if (facts.data === undefined)
    return (
      <div className="p-4">
        <Trouble error={facts.error ?? facts.failureReason} waiting="Reading what this link needs." />
        <button type="button" className="press mt-4 min-h-12" onClick={() => go(null)}>
          All ends
        </button>
      </div>
    );
  return (
    <EndWork
      job={job}
      facts={facts.data}
      end={end}
      by={by}
      away={away}
      log={log}
      leave={() => go(null)}
      show={(to) => go({ linkId: link.id, end: to })}
    />
  );
};

/** Ends of the job to choose from, and how far this phone's copy is. */
const Ends = ({
  job,
  away,
  connected,
  copy,
  name,
  setName,
  go,
}: {
  job: JobBundle;
  away: boolean;
  connected: boolean;
  copy: RoofCopy | null;
  name: string;
  setName: (name: string) => void;
  go: (to: RoofPlace | null) => void;
}) => {
  const jobId = job.job.id;
  const log = useRoofLog(jobId);
  const { missing } = log;
  const persistent = usePersistent();
  const siteName = (id: string): string => job.sites.find((s) => s.id === id)?.name ?? "a site that is gone";
  return (
    <main className="p-4">
      <header className="flex items-baseline justify-between border-b-[2.4px] border-ink pb-2">
        <h1 className="m-0 text-title font-heading">Roof</h1>
        <Link prefetch={false} href={`/jobs/${jobId}/pack`} className="press text-ink no-underline">
          Pack
        </Link>
      </header>
      <p className="m-0 py-2">{job.job.name}</p>
      {away && (
        <p role="status" className="m-0 border-y border-ink py-2" data-testid="no-coverage">
          {connected ? "The server does not answer." : "No coverage."} This is the job as this phone has it; what you write down is kept,
          and sent later.
        </p>
      )}
      {missing > 0 && (
        <p role="alert" className="m-0 border-[2.4px] border-ink p-2 font-figure" data-testid="missing">
          {missing} {missing === 1 ? "entry" : "entries"} that waited here {missing === 1 ? "is" : "are"} gone: this browser has cleared
          what it kept. Read again what is missing below.
        </p>
      )}
      {persistent === false && (
        <p className="m-0 border-b border-rule py-2 text-press" data-testid="not-persistent">
          This browser does not promise to keep what lies here when its space runs short. Put this page on the home screen, or take out what
          waits before you go on.
        </p>
      )}
      <label className="field mt-3 [&_input]:min-h-12 [&_input]:text-name">
        <span className="!text-press">Your name, it stands with what you write down</span>
        <input value={name} maxLength={60} autoComplete="name" onChange={(e) => setName(e.target.value)} />
      </label>
      {name.trim() === "" && (
        <p role="status" className="m-0 pt-1 text-press">
          Type your name to open an end.
        </p>
      )}
      <ul className="m-0 mt-3 list-none p-0" aria-label="Ends">
        {job.links.map((l) => (
          <LinkRow key={l.id} jobId={jobId} link={l} siteName={siteName} log={log} may={name.trim() !== ""} go={go} />
        ))}
      </ul>
      {job.links.length === 0 && <p>Join two sites under 02 Ground first: what is done on a roof follows from the plan.</p>}
      <p role="status" className="m-0 mt-3 border-t border-ink pt-2 text-press" data-testid="copy">
        {copy === null
          ? "Without coverage: what this phone has of each link is opened as it is."
          : copy.done < copy.of
            ? `Copying for a place without coverage: ${copy.done} of ${copy.of} links.`
            : !copy.keeps
              ? "This browser keeps no pages for a place without coverage (a private window, or an address without a secure way to it): take the pack on paper."
              : `On this phone for a place without coverage: ${copy.of - copy.without} of ${copy.of} links${copy.without > 0 ? `; ${copy.without} cannot be worked out or read` : ""}.`}
      </p>
      <TakeOutUnsent />
      <p className="cap mt-3 text-press">
        Go up only if you are competent for it, with somebody below. Local codes, the regulator and qualified people decide.
      </p>
    </main>
  );
};

const LinkRow = ({
  jobId,
  link,
  siteName,
  log,
  may,
  go,
}: {
  jobId: string;
  link: LinkDto;
  siteName: (id: string) => string;
  log: ReturnType<typeof useRoofLog>;
  may: boolean;
  go: (to: RoofPlace | null) => void;
}) => {
  const facts = useQuery<RoofDto>({ queryKey: [...keys.roofLink(jobId), link.id], enabled: false });
  const entries = log.of(link.id);
  const stands = useMemo(() => {
    const turns = (end: 0 | 1) => facts.data === undefined || facts.data.ends[end].azimuth !== null;
    return replayRoof({ near: { turns: turns(0) }, far: { turns: turns(1) } }, entries);
  }, [facts.data, entries]);
  return (
    <li className="border-b border-rule py-2">
      <div className="text-press">
        Link {link.number}
        {link.label === "" ? "" : `, ${link.label}`}
      </div>
      <div className="grid grid-cols-2 gap-2">
        {(["near", "far"] as const).map((end) => {
          const s = stands[end];
          const done = s.steps.filter((x) => x.state === "done").length;
          return (
            <button
              key={end}
              type="button"
              disabled={!may}
              className="min-h-14 border-[1.6px] border-ink px-2 py-1 text-left disabled:border-dotted"
              onClick={() => go({ linkId: link.id, end })}
            >
              <span className="block font-figure">{siteName(end === "near" ? link.nearSiteId : link.farSiteId)}</span>
              <span className="block text-press">
                {s.stop !== null ? "stopped" : done === 0 ? "not begun" : `${done} of ${s.steps.length}`}
              </span>
            </button>
          );
        })}
      </div>
    </li>
  );
};
