"use client";
import Link from "next/link";
import { usePathname } from "next/navigation";
import { useState } from "react";
import { postJson } from "../api/client";
import { VerdictMark } from "../marks/verdict-mark";

/** A part of the application that could not be fetched is not a fault of the page: loading anew mends it. */
const isMissingPart = (reason: string): boolean => /load(ing)? (css )?chunk|imported module/i.test(reason);

/** What is shown when a page dies: what happened, what is safe, and ways on. */
export const PageFault = ({ reason, again }: { reason: string; again: () => void }) => {
  const jobId = /^\/jobs\/([0-9a-f-]{36})/.exec(usePathname())?.[1] ?? null;
  const missing = isMissingPart(reason);
  const [said, setSaid] = useState<string | null>(null);
  const undo = async (): Promise<void> => {
    try {
      await postJson(`/api/jobs/${jobId}/undo`, { redo: false });
      again();
    } catch {
      setSaid("The last edit could not be taken back. The ground's history has every edit of this job.");
    }
  };
  return (
    <main className="mx-auto grid max-w-[64ch] gap-4 p-10">
      <h1 className="m-0 flex items-center gap-3 text-word font-heading">
        <VerdictMark verdict="unknown" a={24} /> This page could not be drawn
      </h1>
      <p className="m-0">
        {missing
          ? "What happened: a part of the application could not be fetched. It was renewed while this page stood open, or the server cannot be reached."
          : `What happened: ${reason === "" ? "something in it was not as the drawing expects" : reason}. It is a fault of ours, or of a figure that slipped in.`}
      </p>
      <p className="m-0">What is safe: everything that was saved, and what you typed since is kept in this browser until it can be sent.</p>
      <nav aria-label="Ways on" className="flex flex-wrap gap-x-7 gap-y-2">
        <button type="button" className="main-action" onClick={missing ? () => window.location.reload() : again}>
          {missing ? "Load the page again" : "Try this page again"}
        </button>
        {jobId !== null && !missing && (
          <>
            <button type="button" className="press" onClick={() => void undo()}>
              Take back my last edit
            </button>
            <Link className="press" href={`/jobs/${jobId}/ground?beside=history`}>
              History of this job
            </Link>
          </>
        )}
        <Link className="press" href="/">
          Register of jobs
        </Link>
      </nav>
      {said !== null && (
        <p role="alert" className="m-0">
          {said}
        </p>
      )}
    </main>
  );
};
