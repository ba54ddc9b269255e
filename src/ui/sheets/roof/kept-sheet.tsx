"use client";
import { useEffect, useState } from "react";
import { KEPT_PAGE, type KeptJob, keptJobs } from "../../state/kept-jobs";
import { useKeptOffline } from "../../state/kept-offline";

/** What this phone has with it: the page that the home screen opens, also where nothing can be asked. */
export const KeptSheet = () => {
  const [jobs, setJobs] = useState<readonly KeptJob[] | null>(null);
  useKeptOffline(jobs === null ? null : [KEPT_PAGE]);
  useEffect(() => setJobs(keptJobs()), []);
  return (
    <main className="mx-auto min-h-dvh max-w-[560px] p-4 text-name leading-6">
      <h1 className="m-0 border-b-[2.4px] border-ink pb-2 text-title font-heading">On this phone</h1>
      {jobs !== null && jobs.length === 0 && (
        <p className="m-0 py-3">
          Nothing is kept here yet. Open a job's Roof or Survey once with coverage; then it opens from here without.
        </p>
      )}
      <ul className="m-0 list-none p-0">
        {(jobs ?? []).map((j) => (
          <li key={j.id} className="border-b border-rule py-2">
            <div className="font-figure">{j.name}</div>
            <div className="text-press">
              read here {new Date(j.atMs).toLocaleString("en-GB", { dateStyle: "medium", timeStyle: "short" })}
            </div>
            {/* Whole pages, not parts of them: without coverage a page is what is kept. */}
            <div className="mt-1 grid grid-cols-2 gap-2">
              {(["roof", "survey"] as const).map((page) => (
                <a
                  key={page}
                  href={`/jobs/${j.id}/${page}`}
                  className="flex min-h-14 items-center justify-center border-[1.6px] border-ink font-figure text-ink no-underline"
                >
                  {page === "roof" ? "Roof" : "Survey"}
                </a>
              ))}
            </div>
          </li>
        ))}
      </ul>
      <p className="m-0 mt-4">
        <a className="press inline-flex min-h-12 items-center text-ink" href="/">
          All jobs, with coverage
        </a>
      </p>
    </main>
  );
};
