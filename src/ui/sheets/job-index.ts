"use client";
import { useMemo } from "react";
import type { LinkVerdict } from "@/contract";
import type { Verdict } from "@/core/link";
import { useBrief, useJob, useKitVerdict, usePhotos } from "../api/queries";
import type { IndexRow } from "../frame/sheet";
import { useOpen } from "../state/me";
import { openPoints } from "./brief/open-points";
import { indexOf } from "./registry";

/** The sheet index of a job, with what its brief and its links come to. */
export const useJobIndex = (
  jobId: string,
  verdicts: readonly LinkVerdict[] | undefined,
  linkId: string | null,
  live?: Verdict,
): IndexRow[] => {
  const { sheets } = useOpen();
  const brief = useBrief(jobId);
  const job = useJob(jobId);
  const photos = usePhotos(jobId);
  const kit = useKitVerdict(jobId, linkId).data?.verdict ?? null;
  // The section asks on every frame of a drag: what the brief comes to is found once.
  const open = useMemo(
    () =>
      brief.data === undefined || job.data === undefined || photos.data === undefined
        ? null
        : openPoints(brief.data, job.data.links, job.data.sites, photos.data).length,
    [brief.data, job.data, photos.data],
  );
  const lone = useMemo(() => {
    if (job.data === undefined) return null;
    const joined = new Set(job.data.links.flatMap((l) => [l.nearSiteId, l.farSiteId]));
    return job.data.sites.filter((s) => !joined.has(s.id)).length;
  }, [job.data]);
  return useMemo(
    () =>
      indexOf({ jobId, links: verdicts ?? [], linkId, live, briefOpen: open, loneSites: lone, kit }).filter(
        (row) => sheets === null || (sheets as readonly string[]).includes(row.key),
      ),
    [jobId, verdicts, linkId, live, open, lone, kit, sheets],
  );
};
