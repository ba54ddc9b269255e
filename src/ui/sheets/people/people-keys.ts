"use client";
import type { BecomesDto } from "@/contract";
import { useJobs } from "../../api/queries";
import { SHEET_WORD } from "../../wording/people";

/** Where the browser keeps what it read of the firm. */
export const PEOPLE = ["people"] as const;

export const TOKENS = ["tokens"] as const;

export const when = (iso: string | null): string =>
  iso === null ? "not yet" : new Date(iso).toLocaleString("en-GB", { day: "numeric", month: "short", hour: "2-digit", minute: "2-digit" });

export const HEAD = "border-b border-ink text-left text-note text-ink-2 [&>th]:py-1.5 [&>th]:pr-4 [&>th]:font-normal";
export const ROW = "border-b border-rule align-top [&>td]:py-1.5 [&>td]:pr-4";

/** What is open to somebody, in words. */
export const useOpenWords = (): ((b: BecomesDto) => string) => {
  const { data } = useJobs();
  const nameOf = new Map((data ?? []).map(({ job }) => [job.id, job.name]));
  return (b) => {
    const jobs =
      b.jobIds === null ? "all jobs" : b.jobIds.length === 0 ? "no job" : b.jobIds.map((id) => nameOf.get(id) ?? "a job").join(", ");
    return b.sheets === null ? jobs : `${b.sheets.map((s) => SHEET_WORD[s]).join(", ")} of ${jobs}`;
  };
};
