"use client";
import type { JobDto } from "@/contract";
import type { StripCell } from "../frame/sheet";
import { UnitsButton } from "../frame/units-button";
import type { SaveStatus } from "../state/record";
import { BasisCell } from "./basis/basis-cell";
import { SavedCell } from "./section/saved-cell";

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
