"use client";
import { useRouter } from "next/navigation";
import { useState } from "react";
import { useBrief, useDays, useHardware, useJob, useKit, useParts, usePicks, useSafety, useVerdicts, useWirings } from "../../api/queries";
import { lazyCode } from "../../controls/lazy-part";
import { useJobNews } from "../../state/job-news";
import { linkOfPage, WaitingLinkSheet } from "../link-sheet";
import { SHEETS } from "../registry";

const useKitOpen = lazyCode(() => import("./kit-open").then((m) => m.KitOpen));

/** The kit of a link's two ends: it opens when their wiring and the sheets of all parts are here. */
export const KitSheet = ({ jobId, linkId }: { jobId: string; linkId: string | null }) => {
  useJobNews(jobId, "kit");
  const router = useRouter();
  // What is looked at stays while a screen that is begun becomes another record.
  const [tab, setTab] = useState("list");
  const job = useJob(jobId);
  const brief = useBrief(jobId);
  const wirings = useWirings(jobId);
  const kit = useKit(jobId);
  const days = useDays(jobId);
  const picks = usePicks(jobId);
  const safety = useSafety(jobId);
  const parts = useParts();
  const hardware = useHardware();
  const verdicts = useVerdicts(jobId);
  const { Here: KitOpen, failed, again } = useKitOpen();
  const link = linkOfPage(linkId, job.data, verdicts.data);
  if (
    KitOpen !== null &&
    job.data !== undefined &&
    link !== undefined &&
    brief.data !== undefined &&
    wirings.data !== undefined &&
    kit.data !== undefined &&
    days.data !== undefined &&
    picks.data !== undefined &&
    safety.data !== undefined &&
    parts.data !== undefined &&
    hardware.data !== undefined
  ) {
    const has = (siteId: string): string => (safety.data.some((s) => s.siteId === siteId) ? "s" : "");
    return (
      <KitOpen
        // A risk screen that comes to be begun is another record.
        key={`${link.id}${has(link.nearSiteId)}|${has(link.farSiteId)}`}
        job={job.data}
        linkId={link.id}
        brief={brief.data}
        wirings={wirings.data}
        kit={kit.data}
        days={days.data}
        picks={picks.data}
        safety={safety.data}
        parts={parts.data}
        hardware={hardware.data}
        tab={tab}
        setTab={setTab}
        choose={(id: string) => router.push(`/jobs/${jobId}/kit/${id}`)}
      />
    );
  }
  return (
    <WaitingLinkSheet
      jobId={jobId}
      linkId={linkId}
      of={SHEETS.kit}
      job={job.data}
      verdicts={verdicts.data}
      failed={failed}
      again={again}
      reads={[job, brief, wirings, kit, days, picks, safety, parts, hardware]}
      noLinks="What to buy and bring? Join two sites under 02 Ground first: what is needed follows from the plan."
      waiting="Reading the kit of the job."
    />
  );
};
