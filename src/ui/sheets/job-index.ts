"use client";
import { useMemo } from "react";
import type { LinkVerdict } from "@/contract";
import type { Verdict } from "@/core/link";
import { useBrief, useJob, usePhotos } from "../api/queries";
import type { IndexRow } from "../frame/sheet";
import { VERDICT_ORDER, VERDICT_WORD } from "../wording/verdicts";
import { openPoints } from "./brief/open-points";

/** Rows of the sheet index for a job: each says whether it is settled, open or in trouble. */
export const jobIndex = (
  jobId: string,
  verdicts: readonly LinkVerdict[] | undefined,
  linkId: string | null,
  live: Verdict | undefined,
  briefOpen: number | null,
  /** Sites at the end of no link; null while that is not known. */
  loneSites: number | null,
): IndexRow[] => {
  const links = verdicts ?? [];
  const worst = VERDICT_ORDER.find((v) => links.some((l) => l.verdict === v));
  const count = links.filter((l) => l.verdict === worst).length;
  const chosen = linkId ?? links.find((l) => l.verdict === worst)?.linkId ?? null;
  const own = live ?? links.find((l) => l.linkId === chosen)?.verdict;
  // Clear is the worst of all findings: nothing of such a link is open. A site that nothing joins is.
  const ground: IndexRow["state"] =
    worst === undefined || (worst === "clear" && loneSites !== 0)
      ? "open"
      : worst === "clear"
        ? "settled"
        : { verdict: worst, words: `${count} ${VERDICT_WORD[worst].toLowerCase()}` };
  const section: IndexRow["state"] =
    own === undefined ? "open" : own === "clear" ? "settled" : { verdict: own, words: VERDICT_WORD[own].toLowerCase() };
  return [
    { number: "01", name: "Brief", href: `/jobs/${jobId}/brief`, state: briefOpen === 0 ? ("settled" as const) : ("open" as const) },
    { number: "02", name: "Ground", href: `/jobs/${jobId}/ground${linkId === null ? "" : `?link=${linkId}`}`, state: ground },
    ...(chosen === null ? [] : [{ number: "03", name: "Section", href: `/jobs/${jobId}/section/${chosen}`, state: section }]),
    { number: "04", name: "Gear", href: `/jobs/${jobId}/gear`, state: "open" as const },
  ];
};

/** The sheet index of a job, with what its brief and its links come to. */
export const useJobIndex = (
  jobId: string,
  verdicts: readonly LinkVerdict[] | undefined,
  linkId: string | null,
  live?: Verdict,
): IndexRow[] => {
  const brief = useBrief(jobId);
  const job = useJob(jobId);
  const photos = usePhotos(jobId);
  // The section asks on every frame of a drag: what the brief comes to is found once.
  const open = useMemo(
    () =>
      brief.data === undefined || job.data === undefined || photos.data === undefined
        ? null
        : openPoints(brief.data.doc, job.data.links, job.data.sites, photos.data).length,
    [brief.data, job.data, photos.data],
  );
  const lone = useMemo(() => {
    if (job.data === undefined) return null;
    const joined = new Set(job.data.links.flatMap((l) => [l.nearSiteId, l.farSiteId]));
    return job.data.sites.filter((s) => !joined.has(s.id)).length;
  }, [job.data]);
  return jobIndex(jobId, verdicts, linkId, live, open, lone);
};
