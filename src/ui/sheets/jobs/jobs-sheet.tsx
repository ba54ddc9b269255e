"use client";
import Link from "next/link";
import { useEffect, useState } from "react";
import type { JobSummary } from "@/contract";
import { useJobs } from "../../api/queries";
import { lazyPart, Opens, useFetchAhead } from "../../controls/lazy-part";
import { Logo } from "../../frame/logo";
import { WhoIsHere } from "../../frame/signed";
import { Trouble } from "../../frame/trouble";
import { UnitsButton } from "../../frame/units-button";
import { VerdictMark } from "../../marks/verdict-mark";
import { useOpen } from "../../state/me";
import { usePreferences } from "../../state/preferences";
import { VERDICT_ORDER, VERDICT_WORD } from "../../wording/verdicts";
import { opensAt } from "../registry";
import { BringJob } from "./bring-job";
import { ASIDE, LinkTable } from "./link-table";

const NewJobDialog = lazyPart(() => import("./new-job-dialog").then((m) => m.NewJobDialog));
const QuickPathDialog = lazyPart(() => import("./quick-path-dialog").then((m) => m.QuickPathDialog));

const day = (iso: string): string => new Date(iso).toLocaleDateString("en-GB", { day: "numeric", month: "short", year: "numeric" });

/** More links of one verdict than this are one mark and their number. */
const MOST_MARKS = 12;

const MarkRow = ({ summary }: { summary: JobSummary }) => {
  const words = VERDICT_ORDER.map((v) => [v, summary.links.filter((l) => l.verdict === v).length] as const).filter(([, n]) => n > 0);
  return (
    <span
      role="img"
      aria-label={words.length === 0 ? "no links" : words.map(([v, n]) => `${n} ${VERDICT_WORD[v]}`).join(", ")}
      className="flex flex-wrap gap-x-1.5"
    >
      {words.map(([v, n]) => (
        <span key={v} className="mr-2 flex flex-wrap items-center gap-1">
          {Array.from({ length: n > MOST_MARKS ? 1 : n }, (_, i) => (
            <VerdictMark key={i} verdict={v} a={9} />
          ))}
          {n > MOST_MARKS && <span className={`figure v-${v}`}>{n}</span>}
        </span>
      ))}
    </span>
  );
};

/** The register: every job, one mark for each of its links, and the links of the one chosen. */
export const JobsSheet = () => {
  const { data, error, failureReason, isPending } = useJobs();
  const { units } = usePreferences();
  useFetchAhead();
  const open = useOpen();
  const [chosenId, setChosenId] = useState<string | null>(null);
  const [search, setSearch] = useState("");
  const [today, setToday] = useState("");
  useEffect(() => setToday(day(new Date().toISOString())), []);

  const wanted = search.trim().toLowerCase();
  const jobs = (data ?? []).filter(
    (s) =>
      wanted === "" ||
      `${s.job.name} ${s.job.place} ${s.links.map((l) => `${l.nearName} ${l.farName}`).join(" ")}`.toLowerCase().includes(wanted),
  );
  const chosen = jobs.find((s) => s.job.id === chosenId) ?? jobs[0];
  const trouble = error ?? failureReason;

  return (
    <div className="h-dvh min-h-[560px] p-2">
      <div className="register grid h-full grid-rows-[70px_minmax(0,1fr)_42px] border-[1.6px] border-ink">
        <header className="flex items-center gap-6 border-b border-ink pr-4">
          <div className="flex h-full w-[114px] flex-col justify-center border-r border-ink px-4">
            <Logo />
            <span className="pt-1 text-name font-heading">Dry Arc</span>
          </div>
          <h1 className="m-0 text-word font-heading leading-10">Register of jobs</h1>
          <input
            type="search"
            aria-label="Find a job, site or link"
            placeholder="Find a job, site or link"
            value={search}
            onChange={(e) => setSearch(e.target.value)}
            className="ml-auto w-[260px] border-b border-ink bg-paper px-1 py-1.5"
          />
          {open.asks("plan") && open.allJobs && <BringJob />}
          {open.asks("work-out") && (
            <Opens part={QuickPathDialog} given={{}} className="press">
              Quick path
            </Opens>
          )}
          {open.asks("see-people") && (
            <Link prefetch={false} href="/people" className="press text-ink no-underline">
              People
            </Link>
          )}
          {open.asks("plan") && open.allJobs && (
            <Opens part={NewJobDialog} given={{}} className="main-action">
              New job
            </Opens>
          )}
        </header>
        <main className="min-h-0 overflow-auto">
          {isPending || data === undefined ? (
            <Trouble error={trouble} waiting="Reading the register." />
          ) : (
            <>
              {trouble !== null && trouble !== undefined && <Trouble error={trouble} waiting="" />}
              <table className="w-full border-collapse">
                <thead>
                  <tr className="border-b border-ink text-left text-note text-ink-2 [&>th]:py-1.5 [&>th]:pl-4 [&>th]:font-normal">
                    <th scope="col" className={ASIDE}>
                      No.
                    </th>
                    <th scope="col">Job</th>
                    <th scope="col" className={ASIDE}>
                      Where
                    </th>
                    <th scope="col">Links by verdict</th>
                    <th scope="col" className={ASIDE}>
                      Stage
                    </th>
                    <th scope="col" className={ASIDE}>
                      Last change
                    </th>
                    <th scope="col">Day of visit</th>
                  </tr>
                </thead>
                <tbody>
                  {jobs.map((s) => (
                    <tr
                      key={s.job.id}
                      aria-current={s === chosen ? "true" : undefined}
                      className={`h-9 border-b border-rule [&>td]:pl-4 ${s === chosen ? "bg-band" : ""}`}
                      onClick={() => setChosenId(s.job.id)}
                    >
                      <td className={`font-mono text-line ${ASIDE}`}>{String(s.job.number).padStart(3, "0")}</td>
                      <td className="font-figure">
                        <Link
                          prefetch={false}
                          href={opensAt({ jobId: s.job.id, links: s.links, linkId: null }, "ground", open.sheets) ?? "/"}
                          className="text-press text-ink underline decoration-[1.6px] underline-offset-4"
                          onFocus={() => setChosenId(s.job.id)}
                        >
                          {s.job.name}
                        </Link>
                      </td>
                      <td className={ASIDE}>{s.job.place}</td>
                      <td>
                        <MarkRow summary={s} />
                      </td>
                      <td className={ASIDE}>{s.job.stage}</td>
                      <td className={ASIDE}>{day(s.job.updatedAt)}</td>
                      <td className="pr-2">{day(s.job.visitOn)}</td>
                    </tr>
                  ))}
                </tbody>
              </table>
              {jobs.length === 0 && (
                <p className="px-4 py-3 text-ink-2">
                  {data.length === 0
                    ? open.asks("plan")
                      ? "No job yet. Make the first with New job."
                      : "No job is open to you yet. The owner of the firm opens them, under People."
                    : "No job, site or link by that name."}
                </p>
              )}
              {chosen !== undefined && <LinkTable summary={chosen} units={units} />}
            </>
          )}
        </main>
        <section
          aria-label="Title strip"
          className="flex border-t-[1.6px] border-ink [&>div]:border-r [&>div]:border-ink [&>div]:px-2.5 [&>div]:pt-[5px] [&>div:last-child]:border-r-0"
        >
          <div className="flex-[3]">
            <div className="label">Register</div>
            <div className="font-said">
              <WhoIsHere />
            </div>
          </div>
          <div className={`flex-1 ${ASIDE}`}>
            <div className="label">Jobs</div>
            <div className="font-said">{data === undefined ? "not read yet" : `${jobs.length} in view of ${data.length}`}</div>
          </div>
          <div className={`flex-1 ${ASIDE}`}>
            <div className="label">Links</div>
            <div className="font-said">{jobs.reduce((n, s) => n + s.links.length, 0)} in view</div>
          </div>
          <div className={`flex-1 ${ASIDE}`}>
            <div className="label">Date</div>
            <div className="font-said">{today}</div>
          </div>
          <div className="flex-1">
            <div className="label">Units</div>
            <UnitsButton />
          </div>
        </section>
      </div>
    </div>
  );
};
