"use client";
import type { JobDto } from "@/contract";
import type { Verdict } from "@/core/link";
import type { IndexRow, StripCell } from "../frame/sheet";
import { UnitsButton } from "../frame/units-button";
import { VerdictMark } from "../marks/verdict-mark";
import type { SaveStatus } from "../state/record";
import { VERDICT_WORD } from "../wording/verdicts";
import { BasisCell } from "./basis/basis-cell";
import { SavedCell } from "./section/saved-cell";

/** What a sheet is about, with its verdict; nothing is judged while there is nothing to judge. */
export const aboutCell = (name: string, verdict: Verdict | null, value: string): StripCell => ({
  label: (
    <>
      {name}{" "}
      {verdict !== null && (
        <>
          <VerdictMark verdict={verdict} a={7} /> <span className={`font-figure v-${verdict}`}>{VERDICT_WORD[verdict]}</span>
        </>
      )}
    </>
  ),
  value,
  grow: 2.5,
});

/** A sheet's own row of the index with its verdict as it stands on the page. */
export const withVerdict = (rows: readonly IndexRow[], key: string, verdict: Verdict | null): IndexRow[] =>
  rows.map((r) =>
    r.key === key && verdict !== null
      ? { ...r, state: verdict === "clear" ? "settled" : { verdict, words: VERDICT_WORD[verdict].toLowerCase() } }
      : r,
  );

/** The title strip of a sheet of a job: the same cells in the same places, with what the sheet is about as the second. */
export const jobStrip = (job: JobDto, about: StripCell, status: SaveStatus<object>, last: string | null): StripCell[] => [
  { label: "Job", value: job.name, grow: 2 },
  about,
  { label: "Sheet", value: "", grow: 1 },
  { label: "Day of visit", value: job.visitOn, grow: 1 },
  { label: "Units", value: <UnitsButton />, grow: 0.9 },
  { label: "Policy of the job", value: <BasisCell job={job} />, grow: 2.3 },
  { label: "Saved", value: <SavedCell status={status} last={last} />, grow: 1.6 },
];

/** The same while the sheet is still on its way. */
export const waitingStrip = (job: Pick<JobDto, "name" | "visitOn"> | undefined, about: StripCell): StripCell[] => [
  { label: "Job", value: job?.name ?? "", grow: 2 },
  about,
  { label: "Sheet", value: "", grow: 1 },
  { label: "Day of visit", value: job?.visitOn ?? "", grow: 1 },
  { label: "Units", value: <UnitsButton />, grow: 0.9 },
  { label: "Policy of the job", value: "", grow: 2.3 },
  { label: "Saved", value: "", grow: 1.6 },
];
